"""The film: copied, cut on the frame, with everything over it; its memory, and how soon a cut is seen."""

import time
from collections.abc import Callable, Iterator
from fractions import Fraction
from pathlib import Path
from typing import Any, get_args

import av
import numpy as np
import soundfile

from tools.bench.table import ROOM, against, fresh, line, times
from tools.camera import RATE, TONE, film, murmur, number_of, tones
from yewhour.content.paths import DEMO
from yewhour.core.film.on_screen import Part
from yewhour.core.pipeline import solve
from yewhour.state.classes.class_file import read_plan
from yewhour.state.teaching_data import load_teaching_data
from yewhour.voice.film.alignment import align
from yewhour.voice.film.copied_film import copy_film
from yewhour.voice.film.cut_film import camera_length_s, cut_film
from yewhour.voice.film.film_file import FilmText
from yewhour.voice.film.preview import still

WIDE, HIGH, FPS, LONG_S = 1280, 720, 30, 40
SEEN_SOON = 13.5  # yardsticks: about 300 ms where a frame is 0.75 of them


def filmed(path: Path, long_s: float, wide: int = WIDE, high: int = HIGH, fps: int = FPS) -> None:
    """A camera's file with grain and something that moves, a key frame a second."""
    dice = np.random.default_rng(1)
    grounds = [dice.integers(110, 150, (high, wide, 3)).astype(np.uint8) for _ in range(4)]
    with av.open(str(path), "w") as out:
        video: Any = out.add_stream("libx264", rate=fps)
        video.width, video.height, video.pix_fmt = wide, high, "yuv420p"
        video.options = {"preset": "ultrafast", "crf": "28", "g": str(fps)}
        voice: Any = out.add_stream("aac", rate=RATE, layout="mono")
        for number in range(round(long_s * fps)):
            pixels = grounds[number % 4].copy()
            at = number * 3 % (wide - high // 3)
            pixels[high // 3 : 2 * high // 3, at : at + high // 3] = (40, 80, 60)
            frame = av.VideoFrame.from_ndarray(pixels, format="rgb24").reformat(format="yuv420p")
            frame.pts, frame.time_base = number, Fraction(1, fps)
            out.mux(video.encode(frame))
        out.mux(video.encode(None))
        sound = tones(long_s).astype(np.float32)
        for start in range(0, len(sound), 1024):
            block = av.AudioFrame.from_ndarray(sound[start : start + 1024].reshape(1, -1), "flt", "mono")
            block.sample_rate, block.pts = RATE, start
            out.mux(voice.encode(block))
        out.mux(voice.encode(None))


def bench_film() -> None:
    """All of it, on forty seconds of 1280x720 at 30 frames."""
    from yewhour.ui.frame.app import application
    from yewhour.ui.kit.film.painter import FilmPainter

    application()
    words, _ = load_teaching_data()
    timed = solve(read_plan(DEMO / "four-at-the-slip.yewhour"), words).make(240.0)
    camera, out = ROOM / "camera.mp4", ROOM / "film.mp4"
    filmed(camera, LONG_S)
    keys, exact = [(2.0, 20.0), (24.0, 38.0)], [(2.3, 20.4), (24.1, 38.2)]
    _quick(
        "the picture copied, cuts on key frames", keys, lambda: copy_film(camera, out, keys, FilmText("")), 20
    )
    _quick(
        "cut on the frame, nothing over it", exact, lambda: cut_film(camera, out, exact, FilmText("")), None
    )
    over = FilmPainter(timed, WIDE, HIGH, get_args(Part))
    _quick(
        "everything over it", exact,
        lambda: cut_film(camera, out, exact, FilmText(""), lambda at_s: over(at_s + 40)), 1.5,
    )  # fmt: skip
    _quick(
        "as AV1, everything over it", exact,
        lambda: cut_film(camera, ROOM / "film.av1.mp4", exact, FilmText(""), lambda at_s: over(at_s + 40)),
        None,
    )  # fmt: skip
    against("a cut seen first / a yardstick", times(lambda: still(camera, 24.1, 1120), 5), SEEN_SOON)
    _memory()


def _quick(
    name: str, pieces: list[tuple[float, float]], act: Callable[[], object], least: float | None
) -> None:
    before = time.perf_counter()
    act()
    took = time.perf_counter() - before
    ratio = sum(end - start for start, end in pieces) / took
    asked = f"at least {least:g}" if least else ""
    line(f"{name}, times as fast as it plays", f"{ratio:.2f}", asked, ratio >= least if least else None)


CUT = """
import sys, time
from pathlib import Path
from yewhour.voice.film.cut_film import cut_film
from yewhour.voice.film.film_file import FilmText
start = time.perf_counter()
cut_film(Path({camera!r}), Path({out!r}), [(1.0, {end})], FilmText(""))
"""


def _memory() -> None:
    peaks = []
    for long_s in (60, 600):
        camera, out = ROOM / f"long-{long_s}.mp4", ROOM / f"cut-{long_s}.mp4"
        filmed(camera, long_s, 640, 360, 5)
        peaks.append(fresh(CUT.format(camera=str(camera), out=str(out), end=long_s - 2))[1] / 1024)
    ratio = peaks[1] / peaks[0]
    line("memory of ten minutes / of one", f"{ratio:.2f} ({peaks[1]:.0f} MB)", "at most 1.2", ratio <= 1.2)


# --- an hour: what was recorded apart, by a clock of its own, beside the picture

HOUR_S, HOUR_FPS, OWN_RATE, OWN_BEGINS_S = 3600.0, 10, 1.00005, 5.25
HOUR_PIECES = [(10.3, 1800.7), (1815.2, 3590.4)]
TOGETHER_S = 0.02


def bench_hour() -> None:
    """An hour cut in two places, with a sound recorded apart whose clock runs away by 0.18 s in that time."""
    camera, own, out = ROOM / "hour.mp4", ROOM / "hour.flac", ROOM / "hour-film.mp4"
    sound = murmur(HOUR_S).astype(np.float32)
    film(camera, HOUR_S, HOUR_FPS, speech=sound + tones(HOUR_S).astype(np.float32))
    at = OWN_BEGINS_S + np.arange(round((HOUR_S - 20) * RATE)) / RATE * OWN_RATE  # the camera's seconds
    tone = np.where(at % 1.0 < 0.1, 0.2 * np.sin(2 * np.pi * TONE * at), 0.0)
    heard = np.interp(at * RATE, np.arange(len(sound)), sound) + tone
    soundfile.write(own, (0.8 * heard).astype(np.float32), RATE)
    lies = align(camera, own)
    cut_film(camera, out, HOUR_PIECES, FilmText(""), own_sound=(own, lies))
    apart = list(_apart(out))
    far = max(abs(one) for one in apart)
    told = f"{far * 1000:.1f} ms at the farthest of {len(apart)}"
    line("picture and sound of an hour", told, "at most 20 ms", far <= TOGETHER_S)
    whole_s = sum(end_s - start_s for start_s, end_s in HOUR_PIECES)
    length_s = camera_length_s(out)
    line("   its length less what was said", f"{length_s - whole_s:+.3f} s", "at most a frame",
         abs(length_s - whole_s) <= 1 / HOUR_FPS)  # fmt: skip


def _apart(path: Path) -> Iterator[float]:
    """By how much the tone of each half minute is heard after the frame that it belongs to is seen."""
    with av.open(str(path)) as file:
        shown = {number_of(frame): frame.time for frame in file.decode(video=0)}
    with av.open(str(path)) as file:
        sound = np.concatenate([one.to_ndarray().reshape(-1) for one in file.decode(audio=0)])
    wave = np.exp(2j * np.pi * TONE * np.arange(RATE // 100) / RATE)
    for second in range(30, round(HOUR_S), 30):
        seen_s = shown.get(second * HOUR_FPS)
        if seen_s is None:
            continue
        begin = round((seen_s - 0.1) * RATE)
        part = sound[begin : begin + round(0.25 * RATE)]
        if begin < 0 or len(part) < round(0.25 * RATE):
            continue
        loud = np.abs(np.convolve(part, wave, "valid"))  # over a hundredth of a second
        begun = int(np.argmax(loud > loud.max() / 2)) + len(wave) / 2
        yield begin / RATE + begun / RATE - seen_s
