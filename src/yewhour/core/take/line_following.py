"""Which line of a class was just said, or which act was asked for, from words as a machine hears them; none
when it is in doubt."""

import re
from collections.abc import Sequence
from itertools import pairwise

from yewhour.core.script.cue import Cue
from yewhour.core.take.take import Take

BEFORE_S, AFTER_S = 20, 90  # of the present moment: where the line may be in the class
LEAST_WORDS = 3  # heard in their order
OTHERS = 2  # words between those of a line that are no part of it
LEAST_SHARE, APART = 0.6, 0.2  # of a line's words; and so much more than of any other
ONWARD = ("way", "call", "side", "exit", "leave", "place", "protect")  # what leads into what comes next
# What can be said behind the call word, and what it does; the longer first where one begins another.
SAID_ACTS = {
    "one more": "again",
    "one fewer": "fewer",
    "wait": "pause",
    "go on": "resume",
    "from here again": "back",
    "leave it out": "skip",
    "cut it out": "cut",
    "note this": "note",
}
CLOSE_S = 0.7  # between two words of what is asked for
_WORD = re.compile(r"[a-z']+")


def words_of(text: str) -> list[str]:
    """The words of a line as they are heard."""
    return _WORD.findall(text.lower().replace("’", "'"))


def matched(said: Sequence[str], heard: Sequence[str]) -> int:
    """How many words of a line were heard, in their order."""
    row = [0] * (len(heard) + 1)
    for word in said:
        before = 0
        for at, other in enumerate(heard, 1):
            before, row[at] = row[at], before + 1 if word == other else max(row[at], row[at - 1])
    return row[-1]


def within(said: Sequence[str], heard: Sequence[str]) -> int:
    """The most words of a line that were heard close together: with few others between them."""
    size = len(said) + OTHERS
    starts = range(max(1, len(heard) - size + 1))
    return max(matched(said, heard[start : start + size]) for start in starts)


def line_heard(take: Take, heard: Sequence[str], now: float) -> Cue | None:
    """The line that the words are of, near a moment; None where no line is, or two could be.

    heard: the words of the last seconds, in order. Of two lines with the same words the nearer one is taken.
    """
    near = [cue for cue in take.cues if now - BEFORE_S * 10 <= cue.start <= now + AFTER_S * 10]
    scored: list[tuple[float, float, Cue]] = []
    for cue in near:
        said = words_of(cue.text)
        found = within(said, heard)
        if any(side in said and side not in heard for side in ("left", "right")):
            continue  # the other side's line is much alike
        if found >= min(LEAST_WORDS, len(said)) and found >= 2 and found / len(said) >= LEAST_SHARE:
            scored.append((found / len(said), -abs(cue.start - now), cue))
    scored.sort(key=lambda one: one[:2], reverse=True)
    if not scored:
        return None
    best = scored[0]
    others = [one for one in scored[1:] if words_of(one[2].text) != words_of(best[2].text)]
    if others and best[0] - others[0][0] < APART:
        return None
    return best[2]


def act_heard(heard: Sequence[tuple[str, float, float]], call: str) -> tuple[str, float, float] | None:
    """The act that was asked for last: what it is, and the seconds it was said from and to; None for none.

    heard: words with the seconds each took. Every word of the call and of what is asked for has to be there,
    one close behind the other.
    """
    named = words_of(call)
    found: tuple[str, float, float] | None = None
    for at in range(len(heard)):
        for phrase, act in SAID_ACTS.items():
            wanted = [*named, *words_of(phrase)]
            run = heard[at : at + len(wanted)]
            close = all(two[1] - one[2] <= CLOSE_S for one, two in pairwise(run))
            if named and [word for word, _, _ in run] == wanted and close:
                found = act, run[0][1], run[-1][2]
    return found


def moved_on(take: Take, cue: Cue, now: float) -> bool:
    """Whether a line that was heard leads out of what is on, into what comes next: she has moved on."""
    here = take.index_at(now)
    if here is None or here + 1 == len(take.segments) or take.segments[here].use.setup_for:
        return False
    return cue.segment == take.segments[here + 1].id and cue.purpose in ONWARD
