"""Writing a film: frames with their seconds, the sound beside them, captions and chapters in one file."""

import os
from bisect import bisect_right
from collections.abc import Iterable, Iterator, Sequence
from fractions import Fraction
from pathlib import Path
from typing import IO, Any, NamedTuple

import av
import msgspec
import numpy as np
from av.subtitles.subtitle import SubtitleSet

from yewhour.core.export.captions import Caption
from yewhour.core.export.chapters import Chapter
from yewhour.core.lengths import TICKS_PER_S
from yewhour.core.problem import Problem
from yewhour.voice.film.laid_over import Over, lay_over
from yewhour.voice.sound.loudness import LIMIT, LoudnessMeter, frames, gain_db, levelled
from yewhour.voice.sound.shipped_voice import Samples

RATE = 48_000
CLOCK = 90_000  # ticks a second of the film's frames
SCALE = 16384
BLOCK = 1 << 16
BITS = 128_000  # a second of sound
HEADROOM_DB = 1.1  # that the limiter leaves, as a film's sound is not read again once it is encoded
NEAR_DB, LISTENED_TO = 0.1, 4  # to the loudness that is promised, and how often it is listened to
MORE = 1.25  # times what is lacking, as the limiter takes between none and half of it
# What the encoders of captions want to know of how they look; a player takes its own.
ASS_HEADER = b"""[Script Info]\r
ScriptType: v4.00+\r
\r
[V4+ Styles]\r
Format: Name, Fontname, Fontsize, PrimaryColour, Alignment\r
Style: Default,sans,16,&Hffffff,2\r
\r
[Events]\r
Format: Layer, Start, End, Style, Name, MarginL, MarginR, MarginV, Effect, Text\r
"""
Picture = tuple[float, av.VideoFrame]  # a second of the film, and what is seen from then on


class FilmKind(NamedTuple):
    """A kind of film: its codecs, their options, and how captions are in it."""

    format: str
    picture: str
    options: dict[str, str]
    sound: str
    captions: str


KINDS = {
    ".mp4": FilmKind("mp4", "libx264", {"preset": "veryfast", "crf": "20"}, "aac", "mov_text"),
    ".mkv": FilmKind("matroska", "libx264", {"preset": "veryfast", "crf": "20"}, "aac", "subrip"),
    ".webm": FilmKind(
        "webm", "libvpx-vp9",
        {"crf": "32", "b": "0", "deadline": "realtime", "cpu-used": "7", "row-mt": "1"}, "libopus", "webvtt",
    ),
}  # fmt: skip
AV1 = "libsvtav1", {"preset": "9", "crf": "32", "svtav1-params": "tune=0"}  # as quick as the others
os.environ.setdefault("SVT_LOG", "1")  # it would tell her terminal of itself


class FilmText(msgspec.Struct, frozen=True):
    """What is written into a film besides what is seen and heard."""

    title: str
    chapters: Sequence[Chapter] = ()
    captions: Sequence[Caption] = ()


def kind_of(path: Path) -> FilmKind:
    """The kind of film that a file's ending asks for; `.av1` before it asks for AV1. Raises Problem for one
    that is none."""
    kind = KINDS.get(path.suffix.lower())
    if kind is None:
        raise Problem(f"A film can't end in {path.suffix!r}.", str(path), f"Use one of: {', '.join(KINDS)}.")
    if path.with_suffix("").suffix.lower() == ".av1":
        return kind._replace(picture=AV1[0], options=AV1[1])
    return kind


def cannot(error: Exception, path: Path, what: str, do: str) -> Problem:
    """What could not be done with a film, in words."""
    reason = (getattr(error, "strerror", None) or str(error)).lower()
    return Problem(f"The film can't be {what}: {reason}.", str(path), do)


class StoredSound:
    """The sound of a film, on the disk. by_db: what makes it as loud as it should be; where its peaks have to
    be held down for that, it is listened to until what is lost by it is made good."""

    def __init__(self, blocks: Iterable[Samples], file: IO[bytes]) -> None:
        self._file = file
        self.samples, highest = 0, 0.0
        meter = LoudnessMeter(RATE)
        for block in meter.heard(blocks):
            self.samples += len(block)
            highest = max(highest, float(np.abs(block).max(initial=0.0)))
            file.write((np.clip(block, -1.9, 1.9) * SCALE).round().astype(np.int16).tobytes())
        self.by_db = gain_db(meter.loud) if self.samples else 0.0
        for _ in range(LISTENED_TO if highest * 10 ** (self.by_db / 20) > LIMIT else 0):
            off_db = gain_db(LoudnessMeter(RATE).listen(self.levelled()).loud)
            if abs(off_db) < NEAR_DB:
                break
            self.by_db += MORE * off_db

    def levelled(self) -> Iterator[Samples]:
        """All of it as loud as it should be, its peaks held down."""
        return levelled(self.blocks(), RATE, self.by_db, HEADROOM_DB)

    def blocks(self) -> Iterator[Samples]:
        """All of it, in blocks."""
        self._file.seek(0)
        while content := self._file.read(2 * BLOCK):
            yield np.frombuffer(content, np.int16).astype(np.float32) / np.float32(SCALE)


def write_film(
    path: Path,
    kind: FilmKind,
    pictures: Iterable[Picture],
    rate: Fraction,
    sound: StoredSound,
    text: FilmText,
    long_s: float,
    over: Over | None = None,
) -> Iterator[float]:
    """Writes a film into a file, and gives the second it has come to after each frame.

    rate: frames a second, as its player is told; each has its own moment, and lasts until the next, the last
    of them to the end of the film. over: what lies over the picture.
    """
    with av.open(str(path), "w", format=kind.format) as film:
        stream: Any = None
        beside: Beside | None = None
        begins: list[int] = []  # of each frame, and the end of the film
        for at_s, frame in pictures:
            if beside is None:
                stream = _picture_stream(film, kind, frame, rate)
                beside = Beside(film, kind, sound, text)
            if over is not None:
                lay_over(frame, over(at_s))
            frame.pts, frame.time_base, frame.pict_type = round(at_s * CLOCK), Fraction(1, CLOCK), 0
            begins.append(frame.pts)
            film.mux(_lasting(stream.encode(frame), begins))
            beside.until(at_s)
            yield at_s
        if beside is not None:
            beside.until(float("inf"))
            begins.append(round(long_s * CLOCK))
            film.mux(_lasting(stream.encode(None), begins))


class Beside:
    """Title, chapters, sound and captions of a film that has its picture's stream already."""

    def __init__(self, film: Any, kind: FilmKind, sound: StoredSound, text: FilmText) -> None:
        self._film = film
        film.metadata["title"] = text.title
        film.set_chapters(_marks(text.chapters))
        self._rows: list[Iterator[tuple[float, Any]]] = []
        if sound.samples:
            voice = film.add_stream(kind.sound, rate=RATE, layout="mono", bit_rate=BITS)
            self._rows.append(_encoded_sound(sound, voice))
        if text.captions:
            self._rows.append(_encoded_captions(text.captions, _caption_stream(film, kind)))

    def until(self, at_s: float) -> None:
        """Writes them up to where the picture is."""
        for packets in self._rows:
            for until_s, found in packets:
                self._film.mux(found)
                if until_s >= at_s:
                    break


def _lasting(packets: list[Any], begins: Sequence[int]) -> list[Any]:
    """Packets of the picture, each as long as it is to be seen: until the next one begins."""
    for packet in packets:
        number = bisect_right(begins, packet.pts)
        if number < len(begins):
            packet.duration = max(1, begins[number] - packet.pts)
    return packets


def _picture_stream(film: Any, kind: FilmKind, frame: av.VideoFrame, rate: Fraction) -> Any:
    stream = film.add_stream(kind.picture, rate=rate)
    stream.width, stream.height = frame.width - frame.width % 2, frame.height - frame.height % 2
    stream.pix_fmt = "yuv420p"
    stream.options = dict(kind.options)
    stream.codec_context.time_base = Fraction(1, CLOCK)
    return stream


def _encoded_sound(sound: StoredSound, voice: Any) -> Iterator[tuple[float, Any]]:
    """Packets of the sound, each with the second of the film up to which they go."""
    resampler = av.AudioResampler(
        voice.format, "mono", RATE, frame_size=voice.codec_context.frame_size or 1024
    )
    done = 0
    for frame in frames(sound.levelled(), RATE):
        done += frame.samples
        yield done / RATE, [packet for part in resampler.resample(frame) for packet in voice.encode(part)]
    last = [packet for part in resampler.resample(None) for packet in voice.encode(part)]
    yield done / RATE, [*last, *voice.encode(None)]


def _caption_stream(film: Any, kind: FilmKind) -> Any:
    stream = film.add_stream(kind.captions)
    stream.codec_context.subtitle_header = ASS_HEADER
    stream.time_base = Fraction(1, 1000)
    return stream


def _encoded_captions(captions: Sequence[Caption], stream: Any) -> Iterator[tuple[float, Any]]:
    """Packets of the captions, each with its second."""
    for one in captions:
        words = one.text.replace("{", "(").replace("}", ")").replace("\n", "\\N")
        lasts = one.end_ms - one.start_ms
        line = SubtitleSet.create(f"0,0,Default,,0,0,0,,{words}".encode(), 0, lasts, one.start_ms)
        packet = stream.codec_context.encode_subtitle(line)
        packet.stream, packet.time_base = stream, Fraction(1, 1000)
        packet.pts = packet.dts = one.start_ms
        packet.duration = lasts
        yield one.start_ms / 1000, packet


def _marks(chapters: Sequence[Chapter]) -> list[Any]:
    return [
        {"id": number, "start": one.start, "end": one.end, "time_base": Fraction(1, TICKS_PER_S),
         "metadata": {"title": one.title}}
        for number, one in enumerate(chapters)
    ]  # fmt: skip
