"""The figures that ship: written as lines in data/figures, settled once into data/figures.json.

`python -m tools.figures` makes that anew; a test holds the two together.
"""

import re
from collections.abc import Iterator, Mapping
from functools import cache, lru_cache
from pathlib import Path
from typing import TYPE_CHECKING

import msgspec

from yewhour.content.paths import DATA
from yewhour.core.figure.body import Figure, mirrored
from yewhour.core.figure.drawing import FigureDrawing, drawing_of
from yewhour.core.figure.figures import Figures, best, figure_from
from yewhour.core.figure.stages import in_one_place, overlaid, working
from yewhour.core.figure.validate import figure_faults
from yewhour.core.library.movement import Library, Movement
from yewhour.core.problem import Problem
from yewhour.files.late import late
from yewhour.files.toml_files import read_toml

if TYPE_CHECKING:
    from yewhour.core.figure import settle as settling
else:
    settling = late(
        "yewhour.core.figure.settle"
    )  # NumPy takes 0.15 s to import; what ships is settled already


LINES, MADE = DATA / "figures", DATA / "figures.json"
MOST = 3  # figures of a movement
DO = "Write it as docs/formats.md says; until then its position is drawn."


@cache
def load_figures() -> Figures:
    """The figures that ship. None, so that nothing is drawn, where they can't be read."""
    try:
        return msgspec.json.decode(MADE.read_bytes(), type=Figures)
    except (OSError, msgspec.MsgspecError):
        return Figures({})


def figures_of(movement: Movement, position: str = "") -> tuple[Figure, ...]:
    """One to three figures of a movement, from where to where; none where nothing is known of it.

    position: the one it is done in; "" for its usual one.
    """
    there = load_figures()
    start = position or movement.start
    usual = movement.start.split(" or ")[0].split(" ")[0]
    elsewhere = bool(usual) and bool(position) and position.split(" ")[0].split("-")[0] != usual.split("-")[0]
    if movement.figure and not elsewhere:
        try:
            return own_figures(movement)
        except Problem:
            pass  # told where it was read; its position is drawn
    if elsewhere:
        one = there.at(position)
        return (one,) if one is not None else there.of(movement.id, movement.start)
    return there.of(movement.id, start)


def portrait(movement: Movement, side: str, position: str = "") -> Figure | None:
    """The one figure that shows a movement best: where it goes to, on the side it is done."""
    one = best(working(figures_of(movement, position)))
    return mirrored(one) if one is not None and side == "left" else one


def shown(movement: Movement, side: str, position: str = "") -> FigureDrawing | None:
    """The drawing of a movement on its side: where it goes to, and pale where it begins, if that is in the
    same place."""
    figures = working(figures_of(movement, position))
    if side == "left":
        figures = tuple(mirrored(one) for one in figures)
    if in_one_place(figures):
        return overlaid(figures)
    one = best(figures)
    return drawing_of(one) if one is not None else None


def own_figures(movement: Movement) -> tuple[Figure, ...]:
    """The figures that a movement's own lines say. Raises Problem for one that nobody could stand in."""
    return _own(movement.figure, movement.start)


@lru_cache(500)
def _own(lines: tuple[str, ...], start: str) -> tuple[Figure, ...]:
    if len(lines) > MOST:
        raise Problem(f"A movement has three figures at most, and here are {len(lines)}.", "", DO)
    return tuple(_sound(line, start, load_figures().positions, "") for line in lines)


def _sound(line: str, start: str, positions: Mapping[str, Figure], where: str, exact: bool = False) -> Figure:
    figure = settling.settle(figure_from(line, start, positions, where))
    wrong = next(figure_faults(figure, exact), "")
    if wrong:
        raise Problem(f"The figure {line!r} can't be: {wrong}.", where, DO)
    return figure


# --- what ships, made from its lines ----------------------------------------------------------------------


def figures_from_lines(library: Library, folder: Path = LINES) -> tuple[Figures, list[Problem]]:
    """The figures of a folder's lines, and what is wrong in them, with file and line."""
    problems: list[Problem] = []
    positions: dict[str, Figure] = {}
    own: dict[str, tuple[Figure, ...]] = {}
    for name, lines, where in _written(folder / "positions.toml", problems):
        for line in lines:
            try:
                positions[name] = _sound(line, "", positions, where, exact=True)
            except Problem as problem:
                problems.append(problem)
    for path in sorted(folder.glob("*.toml")):
        if path.name == "positions.toml":
            continue
        for name, lines, where in _written(path, problems):
            if name not in library:
                problems.append(Problem(f"No movement has the id {name!r}.", where, "Correct the id."))
                continue
            try:
                own[name] = tuple(
                    _sound(line, library[name].start, positions, where, exact=True) for line in lines
                )
            except Problem as problem:
                problems.append(problem)
    return Figures(positions, own), problems


def _written(path: Path, problems: list[Problem]) -> Iterator[tuple[str, list[str], str]]:
    """(name, lines, file and line) of each entry of a file."""
    try:
        table = read_toml(path)
        text = path.read_text(encoding="utf-8").splitlines()
    except Problem as problem:
        problems.append(problem)
        return
    at = {
        match[1]: number
        for number, row in enumerate(text, 1)
        if (match := re.match(r'"?([\w -]+?)"?\s*=', row))
    }
    for name, value in table.items():
        lines = value if isinstance(value, list) else [value]
        yield name, [str(line) for line in lines], f"{path}, line {at.get(name, 1)}"
