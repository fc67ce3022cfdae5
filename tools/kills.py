"""Whatever writes is killed: what is left of it at any moment, found by doing it."""

import contextlib
import os
import signal
import time
from collections.abc import Callable, Iterator
from datetime import datetime
from pathlib import Path
from random import Random
from typing import NamedTuple

import av

from tools.camera import film
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.nodes import Step
from yewhour.core.plan.plan import Brief, Plan, Section, with_ids
from yewhour.core.problem import Problem
from yewhour.core.shelf.records import Outing
from yewhour.core.take.marks import Mark
from yewhour.files.atomic_files import write_whole
from yewhour.state.classes.class_file import read_plan, write_plan
from yewhour.state.classes.revisions import folder_for, keep_revision, revisions_of
from yewhour.state.classes.unsaved_work import WorkKeeper, sweep, unsaved_work
from yewhour.state.logbook.logbook import Logbook
from yewhour.state.takes.interrupted_takes import interrupted_takes, leave
from yewhour.state.takes.replayed_take import key_of
from yewhour.state.takes.take_folder import TakeFolder
from yewhour.state.teaching_data import load_teaching_data
from yewhour.voice.film.copied_film import copy_film
from yewhour.voice.film.film_file import FilmText
from yewhour.voice.sound.shipped_voice import shipped_voice
from yewhour.voice.sound.sound_file import write_sound

SHORT = with_ids(
    Plan(
        brief=Brief(title="Ebb", target_s=40.0),
        sections=(Section(title="All", body=(Step(movement="child", amount=1),)),),
    )
)
LONGEST_S = 0.03  # after which it is killed at the latest
FOREVER_S = 7200.0  # what lies longer than this was left behind


def in_another(work: Callable[[], None]) -> int:
    """Runs something in a process forked off; its number."""
    number = os.fork()
    if number == 0:
        with contextlib.suppress(BaseException):
            work()
        os._exit(0)
    return number


def saving(plan: Plan, path: Path) -> Callable[[], None]:
    """Saves, keeps and makes versions, one state after another, until it is killed."""

    def work() -> None:
        keeper = WorkKeeper()
        for number in range(10**6):
            state = with_brief(plan, title=f"State {number}")
            keeper.keep(state, path)
            write_plan(state, path)
            keep_revision(path, path.read_bytes(), datetime.now())

    return work


def kill_saves(plan: Plan, path: Path, times: int, dice: Random) -> list[str]:
    """Kills so many processes that save a class, at any moment; everything that was wrong afterwards.

    The teacher's folder is where XDG_DATA_HOME says; it, and the folder of `path`, are this test's own.
    """
    wrong: list[str] = []
    write_plan(plan, path)
    for number in range(times):
        child = in_another(saving(plan, path))
        time.sleep(dice.uniform(0, LONGEST_S))
        os.kill(child, signal.SIGKILL)
        os.waitpid(child, 0)
        for what, read in (("the class", lambda: read_plan(path)), *_kept()):
            try:
                read()
            except Problem as problem:
                wrong.append(f"kill {number}: {what}: {problem}")
        for version in revisions_of(path):
            try:
                version.plan()
            except Problem as problem:
                wrong.append(f"kill {number}: version {version.number}: {problem}")
        if number % 20 == 19:
            for kept in unsaved_work():
                kept.forget()
            for part in path.parent.glob(".*.part"):  # as if it had lain there for long
                os.utime(part, (0, 0))
            write_plan(plan, path)
            sweep(time.time() + FOREVER_S)
            left = [*path.parent.glob(".*.part"), *folder_for(path).glob(".*.part")]
            if left:
                wrong.append(f"kill {number}: {len(left)} parts lie about")
    return wrong


def _kept() -> list[tuple[str, Callable[[], object]]]:
    return [(f"kept {kept.file.name}", kept.plan) for kept in unsaved_work()]


# --- what else she has written ---------------------------------------------------------------------------


class Writer(NamedTuple):
    """Something that writes: it goes on for ever in a folder, and tells how far it has come; what is wrong
    with what it left when it was killed, if it had come so far."""

    name: str
    longest_s: float  # after which it is killed at the latest
    work: Callable[[Path, Callable[[int], None]], None]
    wrong: Callable[[Path, int], Iterator[str]]


def _takes(folder: Path, tell: Callable[[int], None]) -> None:
    file = TakeFolder(print)
    file.begin(SHORT, datetime.now())
    file.mark(Mark(0.0, "start", title="Ebb", key=key_of(SHORT), length_s=60.0))
    for number in range(1, 10**6):
        file.mark(Mark(number / 10, "again"))
        tell(number)
        time.sleep(0.0005)


def _wrong_takes(folder: Path, told: int) -> Iterator[str]:
    found = interrupted_takes()
    if told and len(found) != 1:
        yield f"{len(found)} takes were broken off"
    for broken in found:
        kept = sum(mark.do == "again" for mark in broken.read.marks)
        if kept < told - 1:
            yield f"{kept} of {told} marks are there"
        leave(broken)


def _shelf(folder: Path, tell: Callable[[int], None]) -> None:
    book = Logbook(folder / "shelf", "here")
    for number in range(1, 10**6):
        book.put(Outing(f"outing {number}", "a class", number))
        tell(number)


def _wrong_shelf(folder: Path, told: int) -> Iterator[str]:
    messages: list[Problem] = []
    book = Logbook(folder / "shelf", "here", messages.append)
    yield from map(str, messages)
    gone = [number for number in range(1, told + 1) if f"outing {number}" not in book.shelf.outings]
    if gone:
        yield f"{len(gone)} of {told} outings are gone"
    book.close()


def _voice(folder: Path, tell: Callable[[int], None]) -> None:
    timed = solve(SHORT, load_teaching_data()[0]).make()
    for number in range(1, 10**6):
        write_sound(timed, folder / "class.ogg", shipped_voice(), {"lines"}, {"instruct": 1.0})
        tell(number)


def _film(folder: Path, tell: Callable[[int], None]) -> None:
    for number in range(1, 10**6):
        copy_film(folder / "camera.mp4", folder / "class.mp4", [(2.0, 6.0)], FilmText("Ebb"))
        tell(number)


def _wrong_file(name: str, length_s: float) -> Callable[[Path, int], Iterator[str]]:
    """Of a file that is written again and again: it is whole or not there, and no part of it piles up."""

    def wrong(folder: Path, told: int) -> Iterator[str]:
        path = folder / name
        if told and not path.exists():
            yield "the file is gone"
        if path.exists():
            with av.open(str(path)) as file:
                lasts_s = sum(frame.samples / frame.sample_rate for frame in file.decode(audio=0))
            if abs(lasts_s - length_s) > 0.2:
                yield f"{lasts_s:.1f} s of {length_s:.1f} are there"
        for part in folder.glob(".*.part"):
            os.utime(part, (0, 0))  # as if it had lain there for long
        write_whole(path, path.read_bytes() if path.exists() else b"")
        left = [one.name for one in folder.glob(".*.part")]
        if left:
            yield f"parts lie about: {left}"
        if path.stat().st_size == 0:
            path.unlink()

    return wrong


def writers() -> list[Writer]:
    """All of them. A film's needs `camera.mp4` in its folder."""
    length_s = solve(SHORT, load_teaching_data()[0]).make().length_s
    return [
        Writer("takes", 0.15, _takes, _wrong_takes),
        Writer("shelf", 0.1, _shelf, _wrong_shelf),
        Writer("voice", 0.8, _voice, _wrong_file("class.ogg", length_s)),
        Writer("film", 0.4, _film, _wrong_file("class.mp4", 4.0)),
    ]


def kill_writer(writer: Writer, folder: Path, times: int, dice: Random) -> list[str]:
    """Kills something that writes so many times, at any moment; everything that was wrong afterwards.

    The teacher's folder is where XDG_DATA_HOME says; it, and `folder`, are this test's own.
    """
    wrong: list[str] = []
    said = folder / "said"
    if writer.name == "film":
        film(folder / "camera.mp4", 10, fps=10, keys=20)
    for number in range(times):
        said.unlink(missing_ok=True)

        def work() -> None:
            with said.open("wb", buffering=0) as log:
                writer.work(folder, lambda done: log.write(b"%d\n" % done) and None)

        child = in_another(work)
        time.sleep(dice.uniform(0, writer.longest_s))
        os.kill(child, signal.SIGKILL)
        os.waitpid(child, 0)
        told = len(said.read_bytes().splitlines()) if said.exists() else 0
        try:
            wrong += [f"kill {number} of {writer.name}: {one}" for one in writer.wrong(folder, told)]
        except Exception as error:  # whatever it is, it is what a kill left
            wrong.append(f"kill {number} of {writer.name}: {type(error).__name__}: {error}")
    return wrong
