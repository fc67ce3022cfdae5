"""A camera's file for trying: a picture that tells its own second, and a tone at each of them.

The picture is grey; the second it shows is written into it as bars, so that it can be read back of any frame
(`second_of`). Made of a class as a simulated teacher taught it, or of nothing but time.

    python -m tools.camera OUT.mp4 SECONDS
"""

import struct
import sys
from collections.abc import Sequence
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import numpy as np

RATE, WIDE, HIGH, BITS = 48_000, 192, 108, 16
TONE = 880.0


def number_of(frame: av.VideoFrame) -> int:
    """The number that a frame shows."""
    pixels = frame.to_ndarray(format="gray")
    return sum(1 << bit for bit in range(BITS) if pixels[30:78, bit * 12 + 3 : bit * 12 + 9].mean() > 128)


def film(
    path: Path,
    length_s: float,
    fps: Fraction | int = 10,
    sound: bool = True,
    speech: np.ndarray | None = None,
    keys: int = 250,
) -> None:
    """A camera's file so long, its sound a short tone each second, or what is given at 48 kHz. keys: frames
    from one that stands for itself to the next."""
    with av.open(str(path), "w") as out:
        video: Any = out.add_stream("libx264", rate=fps)
        video.width, video.height, video.pix_fmt = WIDE, HIGH, "yuv420p"
        video.options = {"preset": "ultrafast", "crf": "18", "g": str(keys), "sc_threshold": "0"}
        voice = voice_of(out) if sound else None
        for number in range(round(length_s * fps)):
            frame = frame_of(number)
            frame.pts, frame.time_base = number, 1 / Fraction(fps)
            out.mux(video.encode(frame))
        out.mux(video.encode(None))
        if voice is not None:
            speak(out, voice, tones(length_s) if speech is None else speech)


def frame_of(number: int) -> av.VideoFrame:
    """A frame with its number in it, as cameras store it."""
    bright = np.full((HIGH, WIDE), 98, np.uint8)
    for bit in range(BITS):
        bright[20:88, bit * 12 : bit * 12 + 12] = 218 if number >> bit & 1 else 30
    grey = np.full((HIGH // 2, WIDE), 128, np.uint8)
    return av.VideoFrame.from_ndarray(np.concatenate([bright, grey]), format="yuv420p")


def voice_of(out: Any) -> Any:
    """A stream for sound in a file that is written, quick to encode."""
    voice = out.add_stream("aac", rate=RATE, layout="mono")
    voice.options = {"aac_coder": "fast"}
    return voice


def speak(out: Any, voice: Any, samples: np.ndarray) -> None:
    """Encodes samples into a stream, and ends it."""
    for at in range(0, len(samples), RATE):
        block = av.AudioFrame.from_ndarray(
            samples[at : at + RATE].reshape(1, -1).astype(np.float32), format="flt", layout="mono"
        )
        block.sample_rate, block.pts = RATE, at
        out.mux(voice.encode(block))
    out.mux(voice.encode(None))


def lay_down(path: Path) -> None:
    """Says of a file (.mp4, .mov) that its camera was held on its side, as telephones do."""
    content = path.read_bytes()
    upright = struct.pack(">9i", 1 << 16, 0, 0, 0, 1 << 16, 0, 0, 0, 1 << 30)
    turned = struct.pack(">9i", 0, 1 << 16, 0, -(1 << 16), 0, 0, HIGH << 16, 0, 1 << 30)
    place = content.index(upright, content.index(b"tkhd"))
    path.write_bytes(content[:place] + turned + content[place + len(turned) :])


def tones(length_s: float) -> np.ndarray:
    """A tone of a tenth of a second at each second, over a faint hiss."""
    t = np.arange(round(length_s * RATE)) / RATE
    hiss = np.random.default_rng(1).normal(0, 0.001, len(t))
    return np.where(t % 1.0 < 0.1, 0.2 * np.sin(2 * np.pi * TONE * t), 0.0) + hiss


def murmur(length_s: float) -> np.ndarray:
    """Bursts of noise as long and as far apart as words."""
    dice = np.random.default_rng(3)
    sound, at_s = np.zeros(round(length_s * RATE)), 0.0
    while at_s < length_s - 1:
        count, begin = round(dice.uniform(0.08, 0.3) * RATE), round(at_s * RATE)
        sound[begin : begin + count] = 0.05 * dice.normal(0, 1, count) * np.hanning(count)
        at_s += count / RATE + dice.choice([0.05, 0.2, 1.5, 4.0])
    return sound


def main(arguments: Sequence[str]) -> None:
    """Makes one."""
    film(Path(arguments[0]), float(arguments[1]))


if __name__ == "__main__":
    main(sys.argv[1:])
