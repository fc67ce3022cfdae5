"""A wish: one thing a promise asks for, what it was read as, and what became of it."""

from collections.abc import Sequence
from typing import Literal

import msgspec

from yewhour.core.plan.plan import Brief
from yewhour.core.problem import Problem
from yewhour.core.promise.vocabulary import Kind

State = Literal["kept", "guessed", "unmet", "unknown"]


class Wish(msgspec.Struct, frozen=True):
    """What was said, what it means here, and what becomes of it, with the reason.

    kind, key: what it was read as; "" for nothing. asks: it stops the draft until it is answered; could: what
    it could mean, as she might write it.
    """

    text: str
    meaning: str = ""
    state: State = "kept"
    reason: str = ""
    kind: Kind | Literal["", "audience", "title", "peak", "rest"] = ""
    key: str = ""
    asks: bool = False
    could: tuple[str, ...] = ()

    @property
    def waits(self) -> bool:
        """Whether it is understood, and waits for a doctor's word."""
        return self.asks and not self.could

    @property
    def is_aside(self) -> bool:
        """Whether it asks for nothing where it is said in a reason: `because the floor is wet`."""
        wanted = self.kind in ("group", "movement", "prop") and not self.key.startswith("-")
        return wanted or (self.state in ("unmet", "unknown") and not self.asks)


CLEARED = "cleared by the doctor"  # as one writes that it may be
_STATES = {"kept": "kept", "guessed": "kept as", "unmet": "can't be kept", "unknown": "not understood"}


def told(wish: Wish) -> str:
    """A wish as one line: its state, her words, what they mean here, and why."""
    meaning = f": {wish.meaning}" if wish.meaning else ""
    reason = f" ({wish.reason})" if wish.reason and meaning else f": {wish.reason}" if wish.reason else ""
    return f"{_STATES[wish.state]} – “{wish.text}”{meaning}{reason}"


def sentence(wishes: Sequence[Wish]) -> str:
    """What is kept as it was said, in one sentence; "" for nothing."""
    parts = [wish.meaning for wish in wishes if wish.state == "kept" and wish.meaning and not wish.reason]
    joined = "; ".join(dict.fromkeys(parts))
    return f"{joined[:1].upper()}{joined[1:]}." if joined else ""


class ReadPromise(msgspec.Struct, frozen=True):
    """A promise as it was read: the brief, and its wishes in the order they were said."""

    brief: Brief
    wishes: tuple[Wish, ...] = ()

    @property
    def question(self) -> Problem | None:
        """What must be answered before anything is drafted: the first word of health, of a body or of a
        prohibition that is not understood; None where all of them are."""
        asked = next((wish for wish in self.wishes if wish.asks), None)
        if asked is None:
            return None
        if asked.waits:
            do = (
                f"If they have said yes, write \u201c{CLEARED}\u201d with it; else leave the class for later."
            )
            return Problem(f"\u201c{asked.text}\u201d: {asked.reason}.", "the promise", do)
        could = ", or ".join(f"\u201c{one}\u201d" for one in asked.could)
        do = (
            f"It could be: {could}. Write that, or leave the word out."
            if could
            else "Say it in another word."
        )
        return Problem(f"What does \u201c{asked.text}\u201d ask for? {asked.reason}", "the promise", do)
