"""A class without a camera: its figures go through it, and a voice speaks."""

from __future__ import annotations

from collections.abc import Callable, Collection
from pathlib import Path
from typing import get_args

from PySide6.QtCore import QBuffer, QByteArray, QIODevice
from PySide6.QtGui import QColor, QImage

from yewhour.content.terms import load_voice
from yewhour.core.export.captions import captions
from yewhour.core.export.chapters import chapters
from yewhour.core.film.on_screen import Part
from yewhour.core.timed_class import TimedClass
from yewhour.ui.kit.film.painter import FilmPainter, lay_on, paper
from yewhour.voice.film.cut_film import WrittenFilm
from yewhour.voice.film.drawn_film import drawn_film
from yewhour.voice.film.film_file import FilmText
from yewhour.voice.sound.voices import SpeakingVoice

SIZE = (1280, 720)
USUAL: tuple[Part, ...] = tuple(part for part in get_args(Part) if part != "captions")  # they lie in the file


def film_of_class(
    timed: TimedClass,
    out: Path,
    voice: SpeakingVoice,
    progress: Callable[[float], None],
    parts: Collection[Part] = USUAL,
    size: tuple[int, int] | None = None,
) -> WrittenFilm:
    """Writes a class as a film of figures, whole or not at all. Raises Problem where that can't be."""
    painter = FilmPainter(timed, *(size or SIZE), parts, alone=True)
    text = FilmText(timed.plan.brief.title, chapters(timed), captions(timed))
    slower = {str(name): value for name, value in load_voice().slower.items()}
    return drawn_film(timed, out, painter, paper(painter), voice, slower, text, progress)


def sample(timed: TimedClass, at_s: float) -> bytes:
    """One picture of such a film, as PNG."""
    image = QImage(*SIZE, QImage.Format.Format_RGB32)
    painter = FilmPainter(timed, *SIZE, USUAL, alone=True)
    image.fill(QColor(painter.theme.paper))
    lay_on(image, painter(at_s))
    return png_of(image)


def png_of(image: QImage) -> bytes:
    """A picture as PNG."""
    content = QByteArray()
    buffer = QBuffer(content)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    image.save(buffer, "PNG")  # type: ignore[call-overload]
    return bytes(content.data())
