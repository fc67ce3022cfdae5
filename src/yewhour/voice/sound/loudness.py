"""Even loudness: -16 LUFS over the whole, and no peak above -1 dB, true peaks included (EBU R 128)."""

import math
from collections.abc import Iterable, Iterator

import av
import av.filter
import numpy as np

from yewhour.voice.sound.shipped_voice import Samples

LOUDNESS, PEAK = -16.0, -1.0  # LUFS, dB true peak
HEADROOM_DB = 0.6  # left by the limiter for peaks between samples


def frames(blocks: Iterable[Samples], rate: int) -> Iterator[av.AudioFrame]:
    """Blocks as frames for the filters and the codecs."""
    at = 0
    for block in blocks:
        yield _frame(block, rate, at)
        at += len(block)


def _frame(block: Samples, rate: int, at: int) -> av.AudioFrame:
    frame = av.AudioFrame.from_ndarray(block.reshape(1, -1), format="flt", layout="mono")
    frame.sample_rate, frame.pts = rate, at
    return frame


def _graph(rate: int, *steps: tuple[str, str]) -> av.filter.Graph:
    """Filters one after another, each a name and its options."""
    graph = av.filter.Graph()
    nodes = [graph.add_abuffer(format="flt", sample_rate=rate, layout="mono", name="in")]
    nodes += [graph.add(name, options) for name, options in steps]
    nodes += [graph.add("aformat", f"sample_fmts=flt:sample_rates={rate}"), graph.add("abuffersink")]
    graph.link_nodes(*nodes).configure()
    return graph


def _pulled(graph: av.filter.Graph) -> Iterator[av.AudioFrame]:
    while True:
        try:
            yield graph.pull()  # type: ignore[misc]
        except (av.error.BlockingIOError, av.error.EOFError):
            return


class LoudnessMeter:
    """Listens to what goes by. loud: in LUFS; peak: the highest true peak in dB, if it was asked for."""

    def __init__(self, rate: int, peaks: bool = False) -> None:
        self.rate = rate
        self.loud = self.peak = -math.inf
        self._step = ("ebur128", f"metadata=1{':peak=true' if peaks else ''}")

    def heard(self, blocks: Iterable[Samples]) -> Iterator[Samples]:
        """The same blocks, listened to; the measures are there when the last has gone by."""
        graph = _graph(self.rate, self._step)
        at = 0
        for block in blocks:
            graph.push(_frame(block, self.rate, at))
            at += len(block)
            self._read(graph)
            yield block
        graph.push(None)
        self._read(graph)

    def listen(self, blocks: Iterable[Samples]) -> "LoudnessMeter":
        """Listens to all of it, and keeps nothing."""
        for _ in self.heard(blocks):
            pass
        return self

    def _read(self, graph: av.filter.Graph) -> None:
        for frame in _pulled(graph):
            self.loud = float(frame.metadata.get("lavfi.r128.I", self.loud))
            highest = float(frame.metadata.get("lavfi.r128.true_peak", 0.0))
            self.peak = max(self.peak, 20 * math.log10(highest)) if highest > 0 else self.peak


def gain_db(loud: float) -> float:
    """What makes something as loud as it should be; nothing for silence."""
    return 0.0 if not math.isfinite(loud) or loud < -69 else LOUDNESS - loud


def levelled(blocks: Iterable[Samples], rate: int, by_db: float) -> Iterator[Samples]:
    """Blocks made louder by so much, their peaks kept down; as many samples as there were."""
    limit = 10 ** ((PEAK - HEADROOM_DB) / 20)
    graph = _graph(
        rate,
        ("volume", f"volume={by_db:.2f}dB:precision=float"),
        ("alimiter", f"limit={limit:.4f}:attack=4:release=60:level=false:latency=true"),
    )
    for frame in frames(blocks, rate):
        graph.push(frame)
        yield from map(_samples, _pulled(graph))
    graph.push(None)
    yield from map(_samples, _pulled(graph))


def _samples(frame: av.AudioFrame) -> Samples:
    return np.asarray(frame.to_ndarray(), np.float32).reshape(-1)
