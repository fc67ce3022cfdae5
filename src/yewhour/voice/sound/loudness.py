"""Even loudness: -16 LUFS over the whole, and no peak above -1 dB, true peaks included (EBU R 128)."""

import math
from collections.abc import Iterable, Iterator

import av
import av.filter
import numpy as np

from yewhour.voice.sound.shipped_voice import Samples

LOUDNESS, PEAK = -16.0, -1.0  # LUFS, dB true peak
HEADROOM_DB = 0.6  # left by the limiter for peaks between samples
LIMIT = 10 ** ((PEAK - HEADROOM_DB) / 20)  # of a sample, that the limiter holds down
REACH = 6  # samples before and after a moment between two, of which it is made
GATHERED = 1 << 16  # samples that are listened to at once
SPAN = 256  # samples that are looked at for a peak, or not


def frames(blocks: Iterable[Samples], rate: int) -> Iterator[av.AudioFrame]:
    """Blocks as frames for the filters and the codecs."""
    return (frame for frame, _ in _framed(blocks, rate))


def _framed(blocks: Iterable[Samples], rate: int) -> Iterator[tuple[av.AudioFrame, Samples]]:
    at = 0
    for block in blocks:
        frame = av.AudioFrame.from_ndarray(block.reshape(1, -1), format="flt", layout="mono")
        frame.sample_rate, frame.pts = rate, at
        at += len(block)
        yield frame, block


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


def _between(share: float) -> Samples:
    """What a sound is a share of a sample further on, as weights of the samples around it."""
    at = np.arange(1 - REACH, REACH + 1) - share
    weights = np.sinc(at) * np.cos(np.pi * at / (2 * REACH + 1)) ** 2
    return np.asarray(weights[::-1] / weights.sum(), np.float32)


QUARTERS = tuple(_between(share) for share in (0.25, 0.5, 0.75))
# A peak between samples is at most so many times the highest of those it is made of.
MOST = max(float(np.abs(quarter).sum()) for quarter in QUARTERS)


class LoudnessMeter:
    """Listens to what goes by. loud: in LUFS; peak: the highest true peak in dB, if it was asked for.

    A true peak lies between samples; it is looked for at each quarter of one, as the recommendation has it.
    The filter that measures loudness could do that too, and takes five times as long for it.
    """

    def __init__(self, rate: int, peaks: bool = False) -> None:
        self.rate = rate
        self.loud = self.peak = -math.inf
        self._peaks = peaks
        self._highest = 0.0
        self._tail: Samples = np.zeros(2 * REACH - 1, np.float32)

    def heard(self, blocks: Iterable[Samples]) -> Iterator[Samples]:
        """The same blocks, listened to; the measures are there when the last has gone by."""
        graph = _graph(self.rate, ("ebur128", "metadata=1"))
        for frame, block in _framed(blocks, self.rate):
            graph.push(frame)
            self._read(graph)
            if self._peaks and len(block):
                self._look(block)
            yield block
        graph.push(None)
        self._read(graph)
        if self._peaks:
            self._look(np.zeros(REACH, np.float32))
            self.peak = 20 * math.log10(self._highest) if self._highest > 0 else -math.inf

    def _look(self, block: Samples) -> None:
        """Between samples it looks only where they are high enough for a peak that is higher."""
        self._highest = max(self._highest, float(np.abs(block).max()))
        joined = np.concatenate([self._tail, block])
        self._tail = joined[1 - 2 * REACH :]
        heights = np.maximum.reduceat(np.abs(joined), np.arange(0, len(joined), SPAN))
        nearby = np.maximum(heights, np.append(heights[1:], 0.0))
        for span in np.argsort(-nearby):
            if MOST * nearby[span] <= self._highest:
                return
            part = joined[span * SPAN : (span + 1) * SPAN + 2 * REACH - 1]
            for quarter in QUARTERS if len(part) >= 2 * REACH else ():
                self._highest = max(self._highest, float(np.abs(np.convolve(part, quarter, "valid")).max()))

    def listen(self, blocks: Iterable[Samples]) -> "LoudnessMeter":
        """Listens to all of it, and keeps nothing."""
        for _ in self.heard(blocks):
            pass
        return self

    def _read(self, graph: av.filter.Graph) -> None:
        for frame in _pulled(graph):
            self.loud = float(frame.metadata.get("lavfi.r128.I", self.loud))


def measured(path: str) -> LoudnessMeter:
    """How loud a file is as somebody hears it: decoded, and listened to."""
    with av.open(path) as file:
        stream = file.streams.audio[0]
        resampler = av.AudioResampler("flt", "mono", stream.rate)
        blocks = (_samples(part) for frame in file.decode(stream) for part in resampler.resample(frame))
        return LoudnessMeter(stream.rate, peaks=True).listen(_gathered(blocks))


def _gathered(blocks: Iterable[Samples]) -> Iterator[Samples]:
    """The same in longer blocks: a codec's are so short that most of the time goes by between them."""
    held: list[Samples] = []
    for block in blocks:
        held.append(block)
        if sum(map(len, held)) >= GATHERED:
            yield np.concatenate(held)
            held = []
    if held:
        yield np.concatenate(held)


def gain_db(loud: float) -> float:
    """What makes something as loud as it should be; nothing for silence."""
    return 0.0 if not math.isfinite(loud) or loud < -69 else LOUDNESS - loud


def levelled(
    blocks: Iterable[Samples], rate: int, by_db: float, headroom_db: float = HEADROOM_DB
) -> Iterator[Samples]:
    """Blocks made louder by so much, their peaks kept so far below the highest; as many samples as before."""
    limit = 10 ** ((PEAK - headroom_db) / 20)
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
