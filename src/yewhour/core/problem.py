"""What is said when something can't be done: what was wrong, where, and what to do."""

import re
from collections.abc import Sequence

LONGEST = 400  # letters of each of its sentences: what was read may be in it, and have no end
MOST_ALSO = 30

# What a reader of JSON or TOML calls a kind of value, and what it is to anybody.
_KINDS = {
    "str": "text", "int": "a whole number", "float": "a number", "bool": "yes or no", "array": "a list",
    "object": "a group of fields", "dict": "a group of fields", "list": "a list", "null": "nothing",
    "None": "nothing", "NoneType": "nothing",
}  # fmt: skip


class Problem(Exception):
    """An error for the reader.

    what: one sentence naming what is wrong. where: file, line or place in the class, or "".
    do: one sentence saying what to do about it, or "". also: what else is wrong in the same place.
    """

    def __init__(self, what: str, where: str = "", do: str = "", also: Sequence["Problem"] = ()) -> None:
        super().__init__(what)
        self.what = _cut(what)
        self.where = _cut(where)
        self.do = _cut(do)
        more = len(also) - MOST_ALSO
        self.also = (*also[:MOST_ALSO], *([Problem(f"And {more} more like these.")] if more > 0 else []))

    def __str__(self) -> str:
        start = f"{self.where}: " if self.where else ""
        own = f"{start}{self.what}{' ' + self.do if self.do else ''}"
        return "\n".join([own, *map(str, self.also)])


def _cut(words: str) -> str:
    return words if len(words) <= LONGEST else f"{words[: LONGEST - 1]}…"


def told_kind(error: Exception) -> str:
    """What a reader of files says of a value of a wrong kind, in words for anybody, with its place."""
    said, _, place = str(error).partition(" - at ")
    said = re.sub(r"Object missing required field `([^`]+)`", r"The field '\1' is missing", said)
    said = re.sub(r"Invalid (?:enum )?value ('.*')", r"\1 is not a word for it", said)
    said = re.sub(r"`([^`$]+)`", lambda found: " or ".join(
        _KINDS.get(one.strip(), one.strip()) for one in found[1].split("|")), said)  # fmt: skip
    steps = re.findall(r"\.(\w+)|\[(\d+)\]|\[(\.\.\.)\]", place)
    path = ", ".join(
        name if name else f"number {int(number) + 1}" for name, number, rest in steps if not rest
    )
    return f"{said.rstrip('.')}{f' (at {path})' if path else ''}"


class Refused(Problem):
    """A promise that asks something back, or that no class can keep."""


class CannotFit(Problem):
    """The class can't have the length asked for; the shortest and the longest are in seconds."""

    def __init__(self, what: str, shortest_s: float, longest_s: float, do: str = "") -> None:
        super().__init__(what, "", do)
        self.shortest_s = shortest_s
        self.longest_s = longest_s
