"""What was done, to be taken back and done again: of a class and of the shelf alike."""

from __future__ import annotations

from collections.abc import Callable
from typing import Generic, NamedTuple, TypeVar

MOST_UNDO = 200
S = TypeVar("S")


class DoneAct(NamedTuple, Generic[S]):
    """Something done, in the teacher's words, and how it was before. Acts of one kind in a row are one."""

    title: str
    before: S
    kind: str = ""


class UndoHistory(Generic[S]):
    """Acts, the last at the end; those taken back can be done again until something else is done."""

    def __init__(self) -> None:
        self._done: list[DoneAct[S]] = []
        self._undone: list[DoneAct[S]] = []

    def add(self, title: str, before: S, kind: str = "") -> None:
        """Notes an act, and how it was before."""
        if kind and self._done and self._done[-1].kind == kind:
            self._done[-1] = self._done[-1]._replace(title=title)
        else:
            self._done.append(DoneAct(title, before, kind))
            del self._done[:-MOST_UNDO]
        self._undone.clear()

    def take_out_last(self) -> DoneAct[S] | None:
        """The last act, which did not come about: it can't be done again either."""
        return self._done.pop() if self._done else None

    @property
    def undo_titles(self) -> list[str]:
        """What can be taken back, the last act first."""
        return [act.title for act in reversed(self._done)]

    @property
    def redo_titles(self) -> list[str]:
        """What can be done again, the next first."""
        return [act.title for act in reversed(self._undone)]

    def back(self, swap: Callable[[S], S], times: int = 1) -> str:
        """Takes so many acts back; the title of the last of them, "" for none.

        swap: puts everything as it was before an act, and gives how it was until then.
        """
        return _moved(self._done, self._undone, swap, times)

    def forward(self, swap: Callable[[S], S], times: int = 1) -> str:
        """Does so many acts again that were taken back; likewise."""
        return _moved(self._undone, self._done, swap, times)


def _moved(source: list[DoneAct[S]], other: list[DoneAct[S]], swap: Callable[[S], S], times: int) -> str:
    title = ""
    for _ in range(min(times, len(source))):
        act = source[-1]
        now = swap(act.before)  # may raise, and then nothing is done
        source.pop()
        title = act.title
        other.append(DoneAct(title, now))
    return title
