"""What lies over a film alone, on nothing, to be laid under her own editing program's hand: a film with
transparency, or a folder of pictures."""

import tempfile
from collections.abc import Iterator
from fractions import Fraction
from pathlib import Path
from typing import Any, NamedTuple

import av
import numpy as np

from yewhour.core.problem import Problem
from yewhour.files.atomic_files import written_aside
from yewhour.voice.film.cut_sound import Progress
from yewhour.voice.film.film_file import cannot
from yewhour.voice.film.laid_over import Bytes, Over, flattened


class ClearKind(NamedTuple):
    """A kind of film that can be looked through: its container, its codec and what its pixels are."""

    format: str
    codec: str
    pixels: str
    options: dict[str, str]


CLEAR = {
    ".webm": ClearKind(
        "webm", "libvpx-vp9", "yuva420p",
        {"crf": "30", "b": "0", "deadline": "realtime", "cpu-used": "7", "auto-alt-ref": "0"},
    ),
    ".mov": ClearKind("mov", "qtrle", "argb", {}),
}  # fmt: skip


def write_overlay(
    out: Path, over: Over, size: tuple[int, int], length_s: float, fps: int, progress: Progress
) -> int:
    """Writes what lies over a film at its own seconds, and gives how many pictures that is.

    out: .webm or .mov, whole or not at all; a name without an ending is a folder that gets a PNG for each
    picture. Raises Problem for another ending, for a folder that is not empty, and where it can't be written.
    """
    kind, count = CLEAR.get(out.suffix.lower()), round(length_s * fps)
    if kind is None and out.suffix:
        do = f"Use one of: {', '.join(CLEAR)}; or a name without an ending, for a folder of pictures."
        raise Problem(f"What can be looked through can't end in {out.suffix!r}.", str(out), do)
    try:
        if kind is None:
            _folder(out, over, size, count, fps, progress)
        else:
            with written_aside(out) as part, av.open(str(part), "w", format=kind.format) as film:
                _clear_film(film, kind, over, size, count, fps, progress)
    except (OSError, av.error.FFmpegError) as error:
        raise cannot(error, out, "written", "Choose another place.") from error
    progress(1.0)
    return count


def _canvases(over: Over, size: tuple[int, int], count: int, fps: int) -> Iterator[tuple[int, Bytes]]:
    before: list[Any] = []
    canvas = flattened([], *size)
    for number in range(count):
        laid = list(over(number / fps))
        if [id(one) for one in laid] != [id(one) for one in before]:
            canvas, before = flattened(laid, *size), laid
        yield number, canvas


def _clear_film(
    film: Any, kind: ClearKind, over: Over, size: tuple[int, int], count: int, fps: int, progress: Progress
) -> None:
    stream = film.add_stream(kind.codec, rate=fps)
    stream.width, stream.height = size
    stream.pix_fmt, stream.options = kind.pixels, dict(kind.options)
    for number, canvas in _canvases(over, size, count, fps):
        frame = av.VideoFrame.from_ndarray(canvas, format="rgba").reformat(format=kind.pixels)
        frame.pts, frame.time_base = number, Fraction(1, fps)
        film.mux(stream.encode(frame))
        progress(number / count)
    film.mux(stream.encode(None))


def _folder(out: Path, over: Over, size: tuple[int, int], count: int, fps: int, progress: Progress) -> None:
    """A folder of pictures: made aside, and there whole or not at all."""
    if out.exists() and (not out.is_dir() or any(out.iterdir())):
        raise Problem(
            "There is something there already; pictures need an empty folder.", str(out), "Name another."
        )
    with tempfile.TemporaryDirectory(prefix=f".{out.name}.", dir=out.parent) as aside:
        whole = Path(aside) / out.name
        whole.mkdir()
        _pictures(whole, over, size, count, fps, progress)
        whole.replace(out)


def _pictures(
    folder: Path, over: Over, size: tuple[int, int], count: int, fps: int, progress: Progress
) -> None:
    encoder: Any = av.CodecContext.create("png", "w")
    encoder.width, encoder.height, encoder.pix_fmt, encoder.time_base = *size, "rgba", Fraction(1, fps)
    last: Bytes | None = None
    content = b""
    for number, canvas in _canvases(over, size, count, fps):
        if canvas is not last:
            frame = av.VideoFrame.from_ndarray(np.ascontiguousarray(canvas), format="rgba")
            content, last = b"".join(map(bytes, encoder.encode(frame))), canvas
        (folder / f"{number:06}.png").write_bytes(content)
        progress(number / count)
