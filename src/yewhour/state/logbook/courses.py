"""A drafted course kept: a class file for each place, and a series on the shelf that has them in their
order."""

from collections.abc import Sequence
from itertools import count
from pathlib import Path

from yewhour.core.problem import Problem
from yewhour.core.promise.course import CourseClass, CourseShape
from yewhour.core.shelf.records import Series
from yewhour.files.file_names import stem_for
from yewhour.state.classes.class_file import write_plan
from yewhour.state.logbook.logbook import Logbook
from yewhour.state.logbook.shelving import new_id, shelve, today


def fresh_folder(root: Path, title: str) -> Path:
    """A folder for a course of this title that is not there yet."""
    stem = stem_for(title)
    names = (stem if number == 1 else f"{stem}-{number}" for number in count(1))
    return next(root / name for name in names if not (root / name).exists())


def write_course(classes: Sequence[CourseClass], folder: Path, replace: bool = False) -> list[Path]:
    """Writes each class into a folder, which is made; their files. Raises Problem where one can't be
    written, or is there already and not to be replaced: then none is written."""
    folder.mkdir(parents=True, exist_ok=True)
    files = [
        folder / f"{number:02d}-{stem_for(one.draft.plan.brief.title)}.yewhour"
        for number, one in enumerate(classes, 1)
    ]
    there = next((path for path in files if path.exists()), None)
    if there is not None and not replace:
        raise Problem("This is there already.", str(there), "Name another folder, or say --replace.")
    for one, path in zip(classes, files, strict=True):
        write_plan(one.draft.plan, path)
    return files


def shelve_course(
    book: Logbook, title: str, shape: CourseShape, classes: Sequence[CourseClass], files: Sequence[Path]
) -> Series:
    """Puts a written course onto the shelf."""
    names = tuple(shelve(book, path, one.draft.timed) for one, path in zip(classes, files, strict=True))
    series = Series(new_id(), title, shape.weeks, shape.each, names, today())
    book.put(series)
    return series
