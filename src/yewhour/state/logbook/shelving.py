"""Classes and takes onto the shelf, and classes found again whose files were moved or renamed."""

import contextlib
import os
from collections.abc import Iterable, Iterator
from datetime import datetime
from pathlib import Path

from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.shelf.class_sheet import ClassSheet, sheet_of
from yewhour.core.shelf.records import ShelvedClass, TakeRecord
from yewhour.core.timed_class import TimedClass
from yewhour.state.classes.class_file import read_plan
from yewhour.state.classes.unsaved_work import stamp_of
from yewhour.state.logbook.logbook import FilePlace, Logbook
from yewhour.state.paths import kept_takes
from yewhour.state.takes.replayed_take import marks_in
from yewhour.state.takes.take_sounds import CLASS, MARKS

MOST_FILES = 5000  # that are looked through for one that was moved
_WHEN = "%Y-%m-%d-%H%M%S-%f"


def new_id() -> str:
    """An id that no other record has."""
    return os.urandom(8).hex()


def today() -> int:
    """The day it is here."""
    return datetime.now().date().toordinal()


def shelve(book: Logbook, path: Path, timed: TimedClass, cut_of: str = "") -> str:
    """Puts a class that lies in a file onto the shelf, or what the shelf has of it in order; its id."""
    path = path.resolve()
    places = book.places()
    stamp = stamp_of(path)
    name = next((one for one, place in places.items() if place.path == str(path)), "")
    if not name:  # perhaps it was moved here
        name = next((one for one, p in places.items() if p.stamp == stamp and not Path(p.path).exists()), "")
    shelf, sheet = book.shelf, sheet_of(timed)
    known = shelf.classes.get(name)
    if known is None:
        name = name or new_id()
        book.put(ShelvedClass(name, sheet, today(), cut_of, file=path.name))
    elif known.sheet != sheet or known.file != path.name:
        book.change(name, sheet=sheet, file=path.name)
    place = FilePlace(str(path), stamp, _inode(path))
    if places.get(name) != place:
        book.place(name, place)
    return name


def _inode(path: Path) -> int:
    try:
        return path.stat().st_ino
    except OSError:
        return 0


def path_of(book: Logbook, name: str) -> Path | None:
    """Where a class lies now: where it was, or where it was moved to; None where it can't be found."""
    place = book.place_of(name)
    if place is not None and Path(place.path).is_file():
        return Path(place.path)
    places = book.places()
    shelved = book.shelf.classes.get(name)
    if shelved is None:
        return None
    folders = dict.fromkeys(Path(one.path).parent for one in places.values())
    found = _sought(place, shelved, _files(folders), {one.path for one in places.values()})
    if found is not None:
        book.place(name, FilePlace(str(found), stamp_of(found), _inode(found)))
        if found.name != shelved.file:
            book.change(name, file=found.name)
    return found


def _files(folders: Iterable[Path]) -> Iterator[Path]:
    """The class files of folders, of those in them, and of those beside them."""
    seen: set[Path] = set()
    number = 0
    for folder in folders:
        for root in (folder, folder.parent):
            for inner in (root, *_folders(root)):
                if inner in seen:
                    continue
                seen.add(inner)
                with contextlib.suppress(OSError):
                    for file in sorted(inner.glob("*.yewhour")):
                        number += 1
                        if number > MOST_FILES:
                            return
                        yield file


def _folders(folder: Path) -> list[Path]:
    try:
        with os.scandir(folder) as there:
            return [Path(one.path) for one in there if one.is_dir() and not one.name.startswith(".")]
    except OSError:
        return []


def _sought(
    place: FilePlace | None, shelved: ShelvedClass, files: Iterable[Path], taken: set[str]
) -> Path | None:
    """The file that a class is in now: of its content, or the same file changed, or of its name and title."""
    likely: Path | None = None
    for file in files:
        if str(file) in taken and (place is None or str(file) != place.path):
            continue  # another class lies there
        if place is not None and place.stamp and stamp_of(file) == place.stamp:
            return file
        same = place is not None and place.inode and _inode(file) == place.inode
        if likely is None and (same or file.name == shelved.file) and _title(file) == shelved.sheet.title:
            likely = file
    return likely


def _title(file: Path) -> str:
    try:
        return read_plan(file).brief.title
    except Problem:
        return ""


# --- takes ----------------------------------------------------------------------------------------------


def shelve_takes(book: Logbook, folder: Path | None = None) -> int:
    """Puts the takes that are over onto the shelf, with the class each is of; how many were new."""
    folder = folder or kept_takes()
    if not folder.is_dir():
        return 0
    known = {one.folder for one in book.shelf.takes.values()}
    titles = {one.sheet.title: name for name, one in sorted(book.shelf.classes.items())}
    found = []
    for one in sorted(folder.iterdir()):
        if one.name not in known and one.is_dir():
            with contextlib.suppress(OSError, Problem, ValueError):
                taken = _taken(one, titles)
                if taken is not None:
                    found.append(taken)
    if found:
        book.put(*found)
    return len(found)


def _taken(folder: Path, titles: dict[str, str]) -> TakeRecord | None:
    begun = datetime.strptime(folder.name, _WHEN)
    plan = read_plan(folder / CLASS)
    marks = marks_in(folder / MARKS).marks
    end = next((mark for mark in marks if mark.do == "end"), None)
    if end is None:
        return None
    asked_s = marks[0].length_s or plan.brief.target_s
    day = begun.date().toordinal()
    title = plan.brief.title
    of = titles.get(title, "")
    return TakeRecord(new_id(), of, day, title, round(end.at_s, 1), asked_s, folder=folder.name)


def unfinished(plan: Plan) -> ClassSheet:
    """The sheet of a class that can't be made yet: what its brief says."""
    brief = plan.brief
    return ClassSheet(
        title=brief.title, style=brief.style, level=brief.level, audience=brief.audience,
        time_of_day=brief.time_of_day, target_s=brief.target_s, length_s=brief.target_s, focus=brief.focus,
        props=brief.props, cautions=brief.cautions,
    )  # fmt: skip
