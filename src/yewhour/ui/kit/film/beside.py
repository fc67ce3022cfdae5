"""What goes with a film: captions, a page of its own, a text, and a still that shows what is in it."""

from __future__ import annotations

from collections.abc import Callable, Collection
from pathlib import Path
from typing import NamedTuple

from PySide6.QtCore import QRectF
from PySide6.QtGui import QColor, QImage, QPainter

from yewhour.core.export.cards import cards
from yewhour.core.export.description import description
from yewhour.core.lengths import said_length, seconds
from yewhour.core.library.movement import Movement
from yewhour.core.problem import Problem
from yewhour.core.timed_class import TimedClass
from yewhour.files.atomic_files import write_whole
from yewhour.render.film_page import film_page
from yewhour.render.formats import FORMATS
from yewhour.ui.kit.figure_view import paint_figure, portrait_of
from yewhour.ui.kit.film.brush import Brush
from yewhour.ui.kit.film.class_film import png_of
from yewhour.ui.kit.theme import LIGHT
from yewhour.voice.film.preview import still as picture_at

WIDE, HIGH = 1280, 720
SHOWN = 4  # figures on a still
LARGEST = 1920  # pixels wide, of a frame


class Seen(NamedTuple):
    """Where a picture without anything over it is: a file, and where a second of the film lies in it."""

    path: Path
    second_of: Callable[[float], float] = float


class Beside(NamedTuple):
    """One thing that goes with a film: its file ending, what it is, and what makes it of the class in the
    film, whose file has a name."""

    suffix: str
    about: str
    make: Callable[[TimedClass, Path, Seen], bytes]


def still(timed: TimedClass) -> bytes:
    """A picture with the title, the length and some figures, as PNG."""
    image = QImage(WIDE, HIGH, QImage.Format.Format_RGB32)
    image.fill(QColor(LIGHT.paper))
    painter = QPainter(image)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    brief = timed.plan.brief
    about = [said_length(timed.length_s), f"for {brief.audience}" if brief.audience else ""]
    brush = Brush(LIGHT, plates=False)
    brush.words(painter, brief.title, QRectF(80, 60, WIDE - 160, 150), 76, title=True)
    told = ", ".join(one for one in about if one)
    words = told[:1].upper() + told[1:]
    brush.words(painter, words, QRectF(80, 205, WIDE - 160, 60), 36, soft=True)
    chosen = shown_in(timed)
    wide = (WIDE - 160) / max(1, len(chosen))
    for number, (movement, side, position) in enumerate(chosen):
        one = portrait_of(movement, side, position)
        if one is not None:
            box = QRectF(80 + number * wide, 310, wide - 24, 340)
            paint_figure(painter, box, one, LIGHT, side, letter=False)
    painter.end()
    return png_of(image)


def shown_in(timed: TimedClass) -> list[tuple[Movement, str, str]]:
    """The movements that say most about a class, in its order: the strongest of those that have a figure."""
    found: dict[str, tuple[Movement, str, str]] = {}
    for card in cards(timed):
        if portrait_of(card.movement, "right", card.position) is not None:
            side = card.sides[0] if card.sides else "both"
            found.setdefault(card.movement.id, (card.movement, side, card.position))
    strongest = sorted(found.values(), key=lambda one: -one[0].effort)[:SHOWN]
    return [one for one in found.values() if one in strongest]


def frame(timed: TimedClass, seen: Seen) -> bytes:
    """She herself, in the middle of the strongest thing that is shown, as PNG. Raises Problem."""
    strongest = max(shown_in(timed), key=lambda one: one[0].effort, default=None)
    held = [one for one in timed.segments if strongest and one.use.movement.id == strongest[0].id]
    held = [one for one in held if not one.use.setup_for] or list(timed.segments)
    at_s = seconds(held[0].start + held[0].end) / 2
    found = picture_at(seen.path, seen.second_of(at_s), LARGEST)
    image = QImage(found.pixels, found.wide, found.high, 3 * found.wide, QImage.Format.Format_RGB888)
    return png_of(image)


def text(timed: TimedClass) -> bytes:
    """The description with its chapters, and in words what the still shows."""
    names = [one.name for one, _, _ in shown_in(timed)]
    alt = (
        f"The still, in words: {timed.plan.brief.title}, and figures of {_listed(names)}.\n" if names else ""
    )
    return f"{description(timed)}\n{alt}".encode()


def _listed(names: list[str]) -> str:
    return " and ".join([", ".join(names[:-1]), names[-1]]) if len(names) > 1 else names[0]


def _poster(film: Path) -> str:
    """The picture for its front that lies beside a film, if one does: rather of her than of figures."""
    there = (film.with_suffix(BESIDE[name].suffix) for name in ("frame", "still"))
    return next((one.name for one in there if one.exists()), "")


BESIDE: dict[str, Beside] = {
    "captions": Beside(".vtt", "captions", lambda timed, film, seen: FORMATS["vtt"].write(timed)),
    "still": Beside(".png", "a still for its front, with figures", lambda timed, film, seen: still(timed)),
    "frame": Beside(
        ".frame.png", "a picture of you, for its front", lambda timed, film, seen: frame(timed, seen)
    ),
    "page": Beside(
        ".html", "a page with the film, its chapters and a practice sheet",
        lambda timed, film, seen: film_page(timed, film.name, _poster(film)),
    ),
    "text": Beside(".description.txt", "a text to go under it", lambda timed, film, seen: text(timed)),
}  # fmt: skip


def places_beside(film: Path, names: Collection[str]) -> list[tuple[Beside, Path]]:
    """What goes with a film, and where."""
    return [(one, film.with_suffix(one.suffix)) for name, one in BESIDE.items() if name in names]


def nothing_there(film: Path, names: Collection[str]) -> None:
    """Raises Problem where something lies that would be written over."""
    for one, path in places_beside(film, names):
        if path.exists():
            raise Problem(
                f"Something is there already where {one.about} would lie.",
                str(path),
                "Give the film another name.",
            )


def write_beside(
    timed: TimedClass, film: Path, names: Collection[str], seen: Seen | None = None
) -> list[Path]:
    """Writes what goes with a film beside it. Raises Problem where that can't be. seen: where pictures
    without anything over them are; else those of the film."""
    written = places_beside(film, names)
    for one, path in written:
        write_whole(path, one.make(timed, film, seen or Seen(film)))
    return [path for _, path in written]
