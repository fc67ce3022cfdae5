"""What is said when something can't be done: what was wrong, where, and what to do."""


class Problem(Exception):
    """An error for the reader.

    what: one sentence naming what is wrong. where: file, line or place in the class, or "".
    do: one sentence saying what to do about it, or "".
    """

    def __init__(self, what: str, where: str = "", do: str = "") -> None:
        super().__init__(what)
        self.what = what
        self.where = where
        self.do = do

    def __str__(self) -> str:
        start = f"{self.where}: " if self.where else ""
        return f"{start}{self.what}{' ' + self.do if self.do else ''}"


class CannotFit(Problem):
    """The class can't have the length asked for; the shortest and the longest are in seconds."""

    def __init__(self, what: str, shortest_s: float, longest_s: float, do: str = "") -> None:
        super().__init__(what, "", do)
        self.shortest_s = shortest_s
        self.longest_s = longest_s
