"""What is said when something can't be done: what was wrong, where, and what to do."""

from collections.abc import Sequence


class Problem(Exception):
    """An error for the reader.

    what: one sentence naming what is wrong. where: file, line or place in the class, or "".
    do: one sentence saying what to do about it, or "". also: what else is wrong in the same place.
    """

    def __init__(self, what: str, where: str = "", do: str = "", also: Sequence["Problem"] = ()) -> None:
        super().__init__(what)
        self.what = what
        self.where = where
        self.do = do
        self.also = tuple(also)

    def __str__(self) -> str:
        start = f"{self.where}: " if self.where else ""
        own = f"{start}{self.what}{' ' + self.do if self.do else ''}"
        return "\n".join([own, *map(str, self.also)])


class CannotFit(Problem):
    """The class can't have the length asked for; the shortest and the longest are in seconds."""

    def __init__(self, what: str, shortest_s: float, longest_s: float, do: str = "") -> None:
        super().__init__(what, "", do)
        self.shortest_s = shortest_s
        self.longest_s = longest_s
