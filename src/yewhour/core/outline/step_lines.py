"""The outline: a class as plain text. docs/outline.md describes it; this is the one table of its words.

A step's line is a movement's name and then words from WORDS. Reading and writing both go by the table,
so an outline that was read is written back the same.
"""

import re
from collections.abc import Callable
from typing import Any

import msgspec

from yewhour.core.lengths import parse_length, show_length, shown_number
from yewhour.core.library.kinds import BEHAVIOURS, DONE
from yewhour.core.library.movement import Library, Movement
from yewhour.core.library.names import NameIndex
from yewhour.core.pace import read_pace, show_pace
from yewhour.core.plan.nodes import SideDifference, Step
from yewhour.core.plan.stand_ins import stand_in
from yewhour.core.problem import Problem

COMMENT = "//"
BECAUSE = "because:"  # under a step whose sides differ: why
INDENT = 2
MISSING = "missing "  # before a movement that the library has not: its place is kept


class OutlineWord(msgspec.Struct, frozen=True):
    """One word (or two) after a movement's name: how it is read into a step's fields, and written."""

    pattern: str  # compiled when a line is first read: 25 of them are 9 ms of a start
    read: Callable[[re.Match[str]], dict[str, Any]]
    write: Callable[[Step], str]

    def search(self, text: str) -> re.Match[str] | None:
        """Where the word ends a text, in any case."""
        return re.search(self.pattern, text, re.IGNORECASE)


PACE = r"\d+(?:\.\d+)?(?:/\d+(?:\.\d+)?(?::\d+(?:\.\d+)?){3})?"


def _word(
    pattern: str, read: Callable[[re.Match[str]], dict[str, Any]], write: Callable[[Step], str]
) -> OutlineWord:
    return OutlineWord(rf"(?:^|\s+){pattern}$", read, write)


def _range(step: Step) -> str:
    if step.least is None and step.most is None:
        return ""
    return f"({'' if step.least is None else step.least}-{'' if step.most is None else step.most})"


def _whole(text: str) -> int | None:
    return int(text) if text else None


def _second(step: Step) -> str:
    if step.second is None:
        return ""
    return "second out" if step.second.leave_out else f"second {step.second.more:+d}"


# In the order they are written. The amount comes first and depends on the movement, so it is not here.
WORDS: tuple[OutlineWord, ...] = (
    _word(r"\((\d*)-(\d*)\)", lambda m: {"least": _whole(m[1]), "most": _whole(m[2])}, _range),
    _word("!", lambda m: {"locked": True}, lambda s: "!" if s.locked else ""),
    _word("in", lambda m: {"phase": "inhale"}, lambda s: "in" if s.phase == "inhale" else ""),
    _word("ex", lambda m: {"phase": "exhale"}, lambda s: "ex" if s.phase == "exhale" else ""),
    _word("clock", lambda m: {"clock": True}, lambda s: "clock" if s.clock else ""),
    _word("(held|pulsed|repeated|counted)", lambda m: {"done": m[1].lower()}, lambda s: s.done or ""),
    _word(
        r"pattern (\d+(?:\.\d+)?(?::\d+(?:\.\d+)?){3})",
        lambda m: {"pattern": tuple(float(n) for n in m[1].split(":"))},
        lambda s: f"pattern {':'.join(shown_number(n) for n in s.pattern)}" if s.pattern else "",
    ),
    _word("by breath", lambda m: {"clock": False}, lambda s: "by breath" if s.clock is False else ""),
    _word("(right|left)", lambda m: {"side": m[1].lower()}, lambda s: s.side or ""),
    _word(
        "(gentler|stronger)", lambda m: {"take": m[1].lower()}, lambda s: s.take if s.take != "base" else ""
    ),
    _word("or stay", lambda m: {"or_stay": True}, lambda s: "or stay" if s.or_stay else ""),
    _word("no options", lambda m: {"offer": False}, lambda s: "" if s.offer else "no options"),
    _word("own words", lambda m: {"carded": False}, lambda s: "" if s.carded else "own words"),
    _word("halves", lambda m: {"halves": True}, lambda s: "halves" if s.halves else ""),
    _word(
        r"last (\d{1,6})",
        lambda m: {"countdown": int(m[1])},
        lambda s: f"last {s.countdown}" if s.countdown else "",
    ),
    _word(
        r"teach (\d{1,3})s?",
        lambda m: {"teach": int(m[1])},
        lambda s: f"teach {s.teach}s" if s.teach is not None else "",
    ),
    _word(
        r"from round (\d{1,6})",
        lambda m: {"from_round": int(m[1])},
        lambda s: f"from round {s.from_round}" if s.from_round > 1 else "",
    ),
    _word(
        rf"pace ({PACE})",
        lambda m: {"pace": read_pace(m[1])},
        lambda s: f"pace {show_pace(s.pace)}" if s.pace else "",
    ),
    _word(
        r"count (\d+(?:\.\d+)?)",
        lambda m: {"count_s": float(m[1])},
        lambda s: f"count {shown_number(s.count_s)}" if s.count_s else "",
    ),
    _word(
        r"weight (\d+(?:\.\d+)?)",
        lambda m: {"weight": float(m[1])},
        lambda s: f"weight {shown_number(s.weight)}" if s.weight is not None else "",
    ),
    _word(
        r"second out",
        lambda m: {"second": SideDifference(leave_out=True)},
        lambda s: _second(s) if s.second and s.second.leave_out else "",
    ),
    _word(
        r"second ([+-]\d{1,6})",
        lambda m: {"second": SideDifference(more=int(m[1]))},
        lambda s: _second(s) if s.second and not s.second.leave_out else "",
    ),
    _word(
        r"facing (front|side|back|left|right|near)",
        lambda m: {"facing": m[1].lower()},
        lambda s: f"facing {s.facing}" if s.facing else "",
    ),
    _word(r"mat (front|back)", lambda m: {"mat": m[1].lower()}, lambda s: f"mat {s.mat}" if s.mat else ""),
)

_UNITS = r"b|breaths?|x|reps?|times|repetitions?|n|counts?|s|secs?|seconds?|m|mins?|minutes?"
_AMOUNT = re.compile(rf"(?:^|(?<!teach)(?<!\s)\s+)(\d{{1,9}})\s?({_UNITS})$", re.IGNORECASE)
_LETTERS = {"r": "x", "t": "x", "c": "n"}  # of units that do not begin with their letter
_CLOCK = re.compile(r"(?:^|\s+)(\d{1,4}:[0-5]\d)$")
PAIR = re.compile(r"(?:^|\s+)pair(?:\s+(right|left))?$", re.IGNORECASE)


def read_step(line: str, names: NameIndex, library: Library) -> tuple[Step, str | None]:
    """A step's line as a step, and the lead side if it ends in `pair` ("" for the school's), else None.

    Raises Problem for an unknown name (with the nearest ones) or an amount in a unit the movement
    does not have.
    """
    rest, fields, pair = spaced(line), dict[str, Any](), None
    missing = rest.lower().startswith(MISSING)
    rest = rest[len(MISSING) :] if missing else rest
    letter = ""
    while names.find(rest) is None:
        found = PAIR.search(rest)
        if found and found.start() > 0:
            pair = (found[1] or "").lower()
        elif found := _AMOUNT.search(rest):
            unit = found[2].lower()[0]
            fields["amount"], letter = int(found[1]), _LETTERS.get(unit, unit)
            if letter == "m":
                fields["amount"], letter = fields["amount"] * 60, "s"
        elif found := _CLOCK.search(rest):
            fields["amount"], letter = round(parse_length(found[1])), "s"
        else:
            for word in WORDS:
                if (found := word.search(rest)) and found.start() > 0:
                    try:
                        fields |= word.read(found)
                    except ValueError:
                        raise Problem(
                            f"{found[0].strip()!r} can't be read.", do="See docs/outline.md."
                        ) from None
                    break
            else:
                if missing:
                    break
                raise _unknown(rest, names)
        rest = rest[: found.start()]
    known = names.find(rest)
    step = Step(movement=known or "-".join(rest.split()), **fields)
    movement = library[known] if known else stand_in(step, pair is not None)
    if letter:
        step = _with_unit(step, movement, letter)
    _check_sides(step, pair, movement)
    return step, pair


def _check_sides(step: Step, pair: str | None, movement: Movement) -> None:
    """Raises Problem for a side of what has none, and for one side more of what goes from side to side."""
    word = step.side or ("pair" if pair is not None else "")
    if word and movement.sides != "one":
        raise Problem(f"{movement.name} has no sides; {word!r} can't be meant.", do=f"Leave out {word!r}.")
    repeated = DONE.get(step.done or "", movement.kind) in ("reps", "pulses") and not step.clock
    if movement.sides == "alternating" and repeated and step.amount is not None and step.amount % 2:
        more, fewer = step.amount + 1, step.amount - 1
        raise Problem(
            f"{movement.name} goes from side to side, so {step.amount} would be one more on one side.",
            do=f"Write {more}{movement.behaviour.letter} or {fewer}{movement.behaviour.letter}.",
        )


def _unknown(rest: str, names: NameIndex) -> Problem:
    """What is wrong with words that are no movement; a movement with something odd behind it names that."""
    words = rest.split()
    for number in range(len(words) - 1, 0, -1):
        if names.find(" ".join(words[:number])):
            rest_of_it = words[number:]
            while len(rest_of_it) > 1 and any(one.search(rest_of_it[0]) for one in (_AMOUNT, _CLOCK, PAIR)):
                del rest_of_it[0]  # what could be read is not what is wrong
            odd = " ".join(rest_of_it)
            return Problem(f"{odd!r} can't follow {' '.join(words[:number])!r}.", do="See docs/outline.md.")
    close = names.nearest(re.split(r"\s+\d|\s+\(|\s+pair", rest)[0])
    did = (
        f"Did you mean {' or '.join(close)}?"
        if close
        else "`list` on the command line, or the library (Ctrl+L), has all there are."
    )
    return Problem(f"There is no movement {rest!r}.", do=did)


def spaced(line: str) -> str:
    """A step's line with its lock apart: `5b!` is `5b !`."""
    return re.sub(r"(?<=[\w)])!", " !", line.strip())


def dose_split(line: str) -> tuple[str, str]:
    """A typed line as what it names and the dose and words behind it: ("low lunge", "5b pair")."""
    rest = line.strip()
    while rest:
        searches: list[Callable[[str], re.Match[str] | None]] = [
            PAIR.search,
            _AMOUNT.search,
            _CLOCK.search,
            *(word.search for word in WORDS),
        ]
        for search in searches:
            if (found := search(rest)) and found.start() > 0:
                rest = rest[: found.start()]
                break
        else:
            break
    return rest, line.strip()[len(rest) :].strip()


def _with_unit(step: Step, movement: Movement, letter: str) -> Step:
    """The step, its kind turned to the clock or the breath where the unit says so."""
    kind = DONE.get(step.done or "", movement.kind)
    own = BEHAVIOURS[kind].letter
    if letter == own:
        return step
    if BEHAVIOURS[kind].is_rapid and letter in "xn" and step.amount is not None:  # strokes, at their tempo
        stroke_s = step.count_s or movement.count_s or 1.0
        return msgspec.structs.replace(step, amount=max(5, round(step.amount * stroke_s / 5) * 5))
    if BEHAVIOURS[kind].by_clock_too and letter == "s":
        return msgspec.structs.replace(step, clock=True)
    units = {"b": "breaths (5b)", "x": "repetitions (8x)", "n": "counts (30n)", "s": "seconds (45s, 1:30)"}
    fits = units.get(own, "no amount")
    raise Problem(f"{movement.name} is not counted in {units[letter]}.", do=f"It has {fits}.")


def write_step(step: Step, library: Library, pair: str | None = None) -> str:
    """The line of a step; `pair` as read_step gives it."""
    movement = library.get(step.movement)
    parts = [step.movement.replace("-", " ")]
    if movement is None:  # its place is kept, with all that is said of it
        movement, parts = stand_in(step, pair is not None), [MISSING.strip(), *parts]
    shown = step
    if movement.sides != "one" and step.side is not None:
        shown = msgspec.structs.replace(shown, side=None)  # nothing of it has a side
    if step.amount is not None:
        kind = DONE.get(step.done or "", movement.kind)
        by_clock = bool(step.clock) and BEHAVIOURS[kind].by_clock_too
        letter = "s" if by_clock else BEHAVIOURS[kind].letter
        if letter == "s":
            parts.append(show_length(step.amount) if step.amount >= 60 else f"{step.amount}s")
            if by_clock:  # the unit says it
                shown = msgspec.structs.replace(shown, clock=None)
        elif letter:  # of what has no number, one says nothing
            even = movement.sides == "alternating" and BEHAVIOURS[kind].repeated  # as it is done
            parts.append(f"{step.amount + step.amount % 2 if even else step.amount}{letter}")
    parts += [written for word in WORDS if (written := word.write(shown))]
    if pair is not None:
        parts.append(f"pair {pair}".strip())
    return " ".join(parts)
