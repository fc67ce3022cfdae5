"""Classes as teachers speak them, with what was really done and when; and how much of it is heard.

In tests/core/transcript/spoken: those the listener's weights were first set on, and in `later` those that
were written after, each read by the listener before anything was changed for it.
"""

from collections.abc import Iterator
from pathlib import Path
from statistics import median

import msgspec

from yewhour.core.review.bring_in import BroughtClass, brought_in
from yewhour.core.review.brought_items import BroughtItem
from yewhour.core.review.listening.free_listener import FreeListener
from yewhour.core.transcript.captions import read_captions

SPOKEN = Path(__file__).resolve().parent.parent / "tests" / "core" / "transcript" / "spoken"
LATER = SPOKEN / "later"
NEAR_S = 25.0
# One thing with more names than one: what a class in words can't tell apart.
SAME = (
    {"butterfly", "melting-butterfly"}, {"cat", "cow", "cat-cow"},
    {"fold", "half-lift", "arms-up", "ragdoll", "mountain", "standing-roll-down"},
    {"final-rest", "evening-rest"}, {"neck-lean", "chair-neck-lean"}, {"low-lunge", "low-lunge-back"},
    {"imprint-breath", "floor-breath", "deep-belly-breath"}, {"marichi-c", "half-lord-twist", "seated-twist"},
    {"chair-sit-tall", "seated-breath", "quiet-breath"}, {"cobra", "baby-cobra"}, {"child", "shell-stretch"},
)  # fmt: skip


class Told(msgspec.Struct, frozen=True):
    """What of a recording was found: for each movement done its second, id, side, and the item or None; and
    the items that nobody did."""

    done: tuple[tuple[float, str, str, BroughtItem | None], ...]
    besides: tuple[BroughtItem, ...]

    @property
    def found(self) -> list[tuple[float, str, BroughtItem]]:
        """The seconds and sides of what was done and found, with what was found of it."""
        return [(at_s, side, item) for at_s, _, side, item in self.done if item is not None]


def brought(path: Path, listener: FreeListener) -> BroughtClass:
    """A recording brought in. path: its captions."""
    return brought_in(read_captions(path.read_bytes()), listener, path.stem)


def told(path: Path, items: tuple[BroughtItem, ...]) -> Told:
    """What was found of a recording, against what was done in it."""
    left = list(items)
    pairs = []
    for at_s, movement, side in _done(path.with_suffix(".done")):
        near = [one for one in left if _same(one.movement, movement) and abs(one.start_s - at_s) <= NEAR_S]
        found = min(near, key=lambda one: abs(one.start_s - at_s), default=None)
        if found is not None:
            left.remove(found)
        pairs.append((at_s, movement, side, found))
    return Told(tuple(pairs), tuple(left))


def shares(all_told: list[Told]) -> tuple[float, float, float, float]:
    """Of what was done the share that was found; of what was found the share that nobody did; of sides that
    are known the share that is right; and the median of seconds that beginnings are off."""
    found = [one for each in all_told for one in each.found]
    besides = sum(len(each.besides) for each in all_told)
    sided = [(side, item.side) for _, side, item in found if side]
    return (
        len(found) / sum(len(each.done) for each in all_told),
        besides / (besides + len(found)),
        sum(side == heard for side, heard in sided) / max(1, len(sided)),
        median(abs(item.start_s - at_s) for at_s, _, item in found),
    )


def _done(path: Path) -> Iterator[tuple[float, str, str]]:
    for row in path.read_text().splitlines():
        at, movement, *side = row.split()
        minutes, secs = at.split(":")
        yield 60.0 * int(minutes) + int(secs), movement, "".join(side)


def _same(one: str, two: str) -> bool:
    return one == two or any({one, two} <= row for row in SAME)
