"""Films a class as a simulated teacher took it, cuts it, and reads the film back with another program.

The camera ran before and after; she stayed longer in something, slipped, and took that again; a tone beats
each second of the recording, and its picture tells its frame. Three containers, three frame rates, one camera
held on its side, one sound recorded apart. `ffmpeg` and `ffprobe`, which have to be there, read it back.

    python -m tools.filmed FOLDER
"""

import json
import subprocess
import sys
from collections.abc import Sequence
from fractions import Fraction
from pathlib import Path
from random import Random
from typing import NamedTuple

import numpy as np
import soundfile

from tools.camera import BITS, HIGH, RATE, WIDE, film, lay_down
from tools.teachers import Spoken, Taught, captions, taught
from yewhour.cli.main import main as yewhour
from yewhour.content.paths import DEMO
from yewhour.content.terms import load_voice
from yewhour.core.lengths import ticks
from yewhour.core.pipeline import solve
from yewhour.core.timed_class import TimedClass
from yewhour.state import voices
from yewhour.state.classes.class_file import read_plan
from yewhour.state.teaching_data import load_teaching_data
from yewhour.voice.film.drawn_film import at_rate
from yewhour.voice.sound.mix import ClassMix
from yewhour.voice.sound.sound_events import SoundEvent

BEFORE_S, AFTER_S, LONGER_S = 12.0, 9.0, 20.0
SLIP_AT_S, SLIP_S = 96.0, 14.0  # of the take, what went wrong, and how long until she was there again
BEAT_HZ = 12_000.0  # above what the voice has
APART_S, APART_RATE = 3.5, 1.0002  # where the sound recorded apart begins, and how its clock runs
CLASS = DEMO / "four-at-the-slip.yewhour"


class Camera(NamedTuple):
    """How something was filmed."""

    name: str
    fps: Fraction
    laid: bool = False
    apart: bool = False


CAMERAS = [
    Camera("tuesday.mp4", Fraction(25)), Camera("ferry.mkv", Fraction(30000, 1001)),
    Camera("telephone.mov", Fraction(30), laid=True), Camera("pier.mp4", Fraction(25), apart=True),
]  # fmt: skip


def main(arguments: Sequence[str]) -> None:
    """All of them, a table of what was found."""
    folder = Path(arguments[0])
    folder.mkdir(parents=True, exist_ok=True)
    words, _ = load_teaching_data()
    timed = solve(read_plan(CLASS), words).make()
    said = _as_it_went(timed)
    (folder / "said.vtt").write_bytes(captions(said))
    slip = (SLIP_AT_S, SLIP_AT_S + SLIP_S)
    (folder / "marks.jsonl").write_text(
        '{"at_s": 0, "do": "start", "length_s": 240}\n'
        f'{{"at_s": {slip[1]}, "do": "back", "cut": [{slip[0]}, {slip[1]}]}}\n'
        f'{{"at_s": {said.length_s - BEFORE_S - AFTER_S}, "do": "end"}}\n'
    )
    sound = _spoken(said, timed)
    t = np.arange(len(sound)) / RATE
    sound += np.where(t % 1.0 < 0.1, 0.03 * np.sin(2 * np.pi * BEAT_HZ * t), 0.0).astype(np.float32)
    for one in CAMERAS:
        _filmed(folder / one.name, one, sound, said.length_s)
        _read_back(folder, one)


def _as_it_went(timed: TimedClass) -> Taught:
    """The class as it was taken, in seconds of the recording: with the slip, whose line is said again."""
    calm = [one for one in timed.segments if one.side == "both" and not one.use.setup_for]
    whole = taught(timed, Random(4), {max(calm, key=lambda one: one.length).id: LONGER_S})
    found = list[Spoken]()
    for one in whole.said:
        by_s = BEFORE_S + (SLIP_S if one.start_s >= SLIP_AT_S else 0.0)
        found.append(Spoken(one.line, one.start_s + by_s, one.end_s + by_s, one.text))
    wrong = next(one for one in whole.said if one.start_s >= SLIP_AT_S)
    at_s = BEFORE_S + SLIP_AT_S + 0.5
    found.append(Spoken(None, at_s, at_s + wrong.end_s - wrong.start_s, wrong.text))
    found.sort(key=lambda one: one.start_s)
    return Taught(tuple(found), whole.segments, BEFORE_S + whole.length_s + SLIP_S + AFTER_S)


def _spoken(said: Taught, timed: TimedClass) -> np.ndarray:
    """What was said, by the voice that ships."""
    events = [
        SoundEvent(ticks(one.start_s), ticks(following), "line", one.text)
        for one, following in zip(
            said.said, [*(one.start_s for one in said.said[1:]), said.length_s], strict=True
        )
    ]
    slower = {str(name): value for name, value in load_voice().slower.items()}
    mix = ClassMix(
        events, ticks(said.length_s), voices.voice_named("en"), timed.plan.brief.voice_rate, slower
    )
    sound = np.concatenate(list(at_rate(mix.blocks(), mix.rate)))
    return np.pad(sound, (0, max(0, round(said.length_s * RATE) - len(sound))))


def _filmed(path: Path, one: Camera, sound: np.ndarray, length_s: float) -> None:
    far = 0.1 * sound + np.random.default_rng(1).normal(0, 0.003, len(sound)).astype(np.float32)
    film(path, length_s, one.fps, speech=far if one.apart else sound)
    if one.laid:
        lay_down(path)
    if one.apart:
        at = APART_S + np.arange(round((length_s - 6) * RATE)) / RATE * APART_RATE
        own = np.interp(at * RATE, np.arange(len(sound)), sound).astype(np.float32)
        soundfile.write(path.with_suffix(".flac"), own, RATE)


def _read_back(folder: Path, one: Camera) -> None:
    camera, out = folder / one.name, folder / f"{Path(one.name).stem}-film.mp4"
    given = ["film", str(camera), "--class", str(CLASS), "--marks", str(folder / "marks.jsonl")]
    given += ["--captions", str(folder / "said.vtt")]
    given += ["--sound", str(camera.with_suffix(".flac"))] if one.apart else []
    listed = folder / "cuts.json"
    assert yewhour([*given, "--list", "--format", "json", "--out", str(listed), "--replace"]) == 0
    assert yewhour([*given, "--out", str(out), "--replace"]) == 0
    cuts = json.loads(listed.read_bytes())
    probed = json.loads(
        _run("ffprobe", "-v", "error", "-of", "json", "-show_format", "-show_streams", "-show_chapters", out)
    )
    kinds = [stream["codec_type"] for stream in probed["streams"]]
    frames = [
        abs(_frame(out, at_s, one) - one.fps * _recorded(cuts, at_s))
        for at_s in (3.1, 60.1, 120.1, 200.1, 230.1)
    ]
    found = {
        "film": f"{float(probed['format']['duration']):.3f} s of {cuts['promised_s']}, told {cuts['film_s']}",
        "frames off at most": f"{max(map(float, frames)):.1f}",
        "sound off at most": f"{_apart(out, cuts) * 1000:.1f} ms",
        "loudness": _loudness(out),
        "chapters": len(probed["chapters"]),
        "streams": ", ".join(kinds),
        "cut": ", ".join(cut["why"] for cut in cuts["cuts"]),
    }
    print(one.name, *(f"   {name}: {value}" for name, value in found.items()), sep="\n")


def _recorded(cuts: dict, at_s: float) -> float:
    """The second of the recording that a second of the film is, where nothing is slower."""
    for start_s, end_s in cuts["pieces"]:
        if at_s < end_s - start_s:
            return start_s + at_s
        at_s -= end_s - start_s
    raise ValueError(at_s)


def _frame(path: Path, at_s: float, one: Camera) -> int:
    """The number that is shown at a second of a film."""
    wide, high = (HIGH, WIDE) if one.laid else (WIDE, HIGH)
    raw = _run(
        "ffmpeg",
        "-v",
        "error",
        "-ss",
        f"{at_s:.3f}",
        "-i",
        path,
        "-frames:v",
        "1",
        "-f",
        "rawvideo",
        "-pix_fmt",
        "gray",
        "-",
    )
    pixels = np.frombuffer(raw, np.uint8).reshape(high, wide)
    pixels = np.rot90(pixels, 1) if one.laid else pixels
    return sum(1 << bit for bit in range(BITS) if pixels[30:78, bit * 12 + 3 : bit * 12 + 9].mean() > 128)


def _apart(path: Path, cuts: dict) -> float:
    """How far the tones are from the seconds of the recording that they were at, at the farthest."""
    sound = np.frombuffer(
        _run("ffmpeg", "-v", "error", "-i", path, "-ac", "1", "-ar", str(RATE), "-f", "f32le", "-"),
        np.float32,
    )
    wave, far, film_s = np.exp(2j * np.pi * BEAT_HZ * np.arange(RATE // 200) / RATE), 0.0, 0.0
    for start_s, end_s in cuts["pieces"]:
        for second in range(int(start_s) + 1, int(end_s)):
            at_s = film_s + second - start_s
            part = sound[round((at_s - 0.06) * RATE) : round((at_s + 0.09) * RATE)]
            loud = np.abs(np.convolve(part, wave, "valid"))
            begun = (int(np.argmax(loud > loud.max() / 2)) + len(wave) / 2) / RATE - 0.06
            far = max(far, abs(begun))
        film_s += end_s - start_s
    return far


def _loudness(path: Path) -> str:
    done = subprocess.run(
        ["ffmpeg", "-nostats", "-i", str(path), "-af", "ebur128=peak=true", "-f", "null", "-"],
        capture_output=True, text=True, check=True,
    )  # fmt: skip
    summary = done.stderr[done.stderr.rindex("Summary") :].split()
    return f"{summary[summary.index('I:') + 1]} LUFS, peak {summary[summary.index('Peak:') + 1]} dBFS"


def _run(*command: object) -> bytes:
    return subprocess.run([str(part) for part in command], capture_output=True, check=True).stdout


if __name__ == "__main__":
    main(sys.argv[1:])
