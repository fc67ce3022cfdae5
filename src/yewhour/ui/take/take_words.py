"""What a take says of itself in words, to be read at a glance."""

import re

from yewhour.core.lengths import seconds, show_length
from yewhour.core.take.moment import Moment
from yewhour.core.take.take import Take
from yewhour.core.timing.layout import Segment
from yewhour.ui.take.leading import Leads
from yewhour.ui.take.take_runner import TakeRunner

TOLD_S = 25.0  # how long it is told that something was late
ENDED_EARLY = 100  # ticks before its end at which a class is not done

PHASES = {"inhale": "in", "full": "hold", "exhale": "out", "empty": "wait"}
BETWEEN = {"talk": "speak", "setup": "get there", "stillness": "rest", "clock": "stay", "rapid": "quick"}

LEADS: dict[Leads, str] = {
    "clock": "the clock leads",
    "me": "you lead, it waits for you",
    "voice": "your voice leads, where it is heard",
}
GAP = "   "  # between two keys of a row
KEYS_ON = "→ on   ↑ one more   ↓ one fewer   ← again, cut   Space stop"
KEYS_STANDING = "Space on   C cut out   F in the film   S camera stood still   ↑ ↓ from where   Esc end"
KEYS_READY = (
    "Space starts   R rehearse   V voice   M record   A no hands   L leader   D dark   K a key   Esc back"
)
KEYS_REHEARSAL = (
    "Space begins   ↑ ↓ from where   O only some   S speed   V voice   R a take instead   Esc back"
)


def late_words(take: Take, here: Moment) -> str:
    """Early or late, and who gives it back."""
    late = seconds(round(here.late))
    if abs(late) >= 0.5:
        return f"{_long(late)} {'late' if late > 0 else 'early'}" + (
            "; standing still" if take.paused is not None else " at the end"
        )
    last = take.retimed[-1] if take.retimed else None
    if last is None or abs(last.late) < 5 or here.at - last.at > TOLD_S * 10:
        return "on time"
    how, does = ("late", "gives them back") if last.late > 0 else ("early", "takes them")
    return f"{_long(seconds(last.late))} {how}; the rest {does}"


def _long(length_s: float) -> str:
    return f"{abs(length_s):.0f} s" if abs(length_s) < 60 else show_length(abs(length_s))


def phase_words(here: Moment) -> str:
    """What the breath does, or what there is to do without one."""
    if here.segment is None:
        return ""
    if here.segment.use.setup_for:
        return BETWEEN["setup"]
    if here.span is not None:
        return PHASES[here.span.phase]
    return BETWEEN.get(here.segment.kind, "stay")


def count_words(here: Moment) -> str:
    """Which of how many."""
    return f"{here.number} of {here.of}" if here.of else ""


def coming_words(here: Moment) -> str:
    """What comes when this is over."""
    coming = here.coming
    segment = here.segment
    if segment is None:
        return ""
    if segment.use.setup_for and coming is not None:
        return "and you are there"
    if coming is None:
        return "to the end"
    first = f", {coming.use.lead} first" if coming.side == "alternating" else ""
    return f"to {coming.name}{first or side_words(coming.side)}"


def side_words(side: str) -> str:
    """A side behind a name."""
    return f", {side}" if side in ("left", "right") else ""


def side_of(segment: Segment, here: Moment) -> str:
    """The side of a segment: of what goes from side to side and is on, that of the present stroke."""
    return here.side if segment is here.segment else segment.side


def offer_words(runner: TakeRunner) -> str:
    """What could be left out, so that the end is kept; the number is its key."""
    offers = enumerate(runner.choices[:2], 1)
    return "   ".join(f"{number} {_without(one.title)}: {show_length(one.end_s)}" for number, one in offers)


def unbroken(hints: str) -> str:
    """A row of keys that is broken between two of them only."""
    return re.sub(r"(?<=\S) (?=\S)", "\u00a0", hints) if GAP in hints else hints


def key_hints(runner: TakeRunner, teaching: str | None, broken: bool = False) -> str:
    """What the keys do just now. teaching: the key that is taught, "" before one is pressed, None else.
    broken: a take that was broken off is offered."""
    if teaching == "":
        return "Press the key, or the button of the clicker."
    if teaching:
        return f"{teaching}: now press what it should do: → ↑ ↓ ← or Space. Esc: nothing."
    if runner.overtime:
        return "Space or Esc: done"
    if runner.state == "on" and not runner.standing:
        return KEYS_ON
    if runner.standing:
        return KEYS_STANDING
    if runner.state == "counting":
        return "Space or Esc: not yet"
    if runner.state == "over":
        kept = "" if runner.rehearsing else "Enter looks back at it   "
        return f"{kept}Space: ready for another   Esc back to the class"
    if broken:
        return "Space goes on with it   Delete leaves it   Esc back"
    return KEYS_REHEARSAL if runner.rehearsing else KEYS_READY


def _without(title: str) -> str:
    """A choice in few words."""
    return title.removesuffix(", both sides").replace("Leave out ", "without ", 1)


def how_it_ended(take: Take) -> str:
    """That a take is done, or where it was ended and what of the class is left."""
    at = show_length(seconds(take.end - take.start))
    left = take.target - take.end
    if left <= ENDED_EARLY:
        over = f" and {show_length(seconds(take.now - take.end))} over" if take.now - take.end >= 10 else ""
        return f"Done, in {at}{over}."
    return f"Ended at {at}; {show_length(seconds(left))} of the class was not taken."
