"""Manner: how one class is told, and the ways from a movement's lines to the wordings of one use."""

import re
import zlib
from collections.abc import Callable, Mapping, Sequence
from typing import TypeVar

import msgspec

from yewhour.core.conditions.room import Room
from yewhour.core.lengths import seconds, ticks
from yewhour.core.library.facets import Facets
from yewhour.core.library.movement import Wordings, parse_wordings
from yewhour.core.library.position import PositionGraph
from yewhour.core.plan.plan import Brief
from yewhour.core.plan.school import School
from yewhour.core.sides import (
    Side,
    fill,
    mirrored,
    unmarked,
)
from yewhour.core.timing.step_use import StepUse
from yewhour.core.wording.directions import tokenised
from yewhour.core.wording.lines import SchoolVoice, StandingLines
from yewhour.core.wording.speech import Duration

T = TypeVar("T")
NumberWord = Callable[[int], str]
PAUSE_MARK = re.compile(r"\s*\[(\d+(?:\.\d+)?)s\]\s*")


class Phrasing(msgspec.Struct, frozen=True):
    """What lines are written with: the promise, the school's ways, the wording, and how long a line takes.

    cautions: tag -> how a line speaks to those it is for. room: who may be there.
    """

    brief: Brief
    school: School
    wording: StandingLines
    cautions: Mapping[str, str]
    number_word: NumberWord
    duration: Duration
    positions: PositionGraph
    props: frozenset[str]
    watch: Mapping[str, str]
    room: Room
    facets: Facets

    def tier(self, use: StepUse) -> int:
        """0 for the full wording, 1 for the short one: second side, later rounds, seen before."""
        if use.taught:
            return 0
        if use.second and self.school.second_side == "full" and use.round <= 2:
            return 0
        return 1 if use.second or use.seen or use.round > 1 else 0

    def entry_tier(self, use: StepUse) -> int:
        """The tier of what gets the body there: in full again where the first side was long ago."""
        return 0 if use.recalled and not use.flow else self.tier(use)

    @property
    def voice(self) -> SchoolVoice:
        """The voice of the school."""
        return self.wording.voices[self.school.voice]

    @property
    def habit(self) -> int:
        """Where this school begins among the ways of saying one thing: not where another does."""
        return sum(map(ord, self.school.id))

    @property
    def seed(self) -> str:
        """What makes a class choose among its thoughts otherwise than another one does."""
        telling = f"/{self.brief.telling}" if self.brief.telling else ""
        return f"{self.brief.title}/{self.school.id}/{self.school.voice}{telling}"

    def told_way(self, ways: Sequence[T], key: str) -> T:
        """Of several ways of saying a thing the one that a telling has throughout; the first where none was
        asked for: a new title is no reason for other seconds."""
        telling = self.brief.telling
        return ways[zlib.crc32(f"{telling}/{key}".encode()) % len(ways) if telling and len(ways) > 1 else 0]

    def turned(self, ways: Sequence[T], key: str) -> Sequence[T]:
        """Several ways, beginning with another one in each class, and in each telling of one."""
        if len(ways) < 2:
            return ways
        first = zlib.crc32(f"{self.seed}/{key}".encode()) % len(ways)
        return [*ways[first:], *ways[:first]]

    def times_to_go(self, use: StepUse, length: int) -> tuple[int, ...]:
        """The seconds to go that are told in a use of this many ticks by the clock, the most first.

        In a held posture only in its second half; in a quiet style only in long ones, once.
        """
        clock = use.behaviour.is_clock
        held = clock and not use.movement.behaviour.repeated
        quiet = clock and self.school.counting == "silent"
        return tuple(
            left_s
            for left_s in (120, 60, 30, 10)
            if not (held and (left_s == 10 or length < ticks(2 * left_s)))
            and not (quiet and (left_s != 60 or length < ticks(150)))
            and length >= ticks(left_s) * 3 // 2
            and not (left_s == 10 and length >= ticks(90))
        )

    def variants(self, lines: tuple[Wordings, ...], start: int) -> Wordings:
        """All the ways to say one thing, with another one first each time, and its own in each school."""
        return variants(lines, start + self.habit)

    def voiced(self, frames: tuple[Wordings, ...], line: Wordings, place: int, every: int) -> Wordings:
        """A line as the school's voice puts it, one of so many; others as they stand."""
        words = line[0].split(maxsplit=1)
        verb = len(words) > 1 and words[0].strip(",.").lower() in self.wording.imperatives
        if not frames or place % every or not verb:
            return line
        again = _long_words(line[0])  # "little by little, ... a little"
        turned = [frames[(place // every + n) % len(frames)][0] for n in range(len(frames))]
        frame = next((one for one in turned if not again & _long_words(one)), turned[0])
        return (fill(frame, "both", line=line[0][0].lower() + line[0][1:]), *line)


def _long_words(text: str) -> set[str]:
    return {plain for word in text.lower().split() if len(plain := word.strip(",.;")) > 3}


def from_tier(tier: int, wordings: Wordings) -> Wordings:
    """The wordings from this tier down to the bare one, then the fuller ones."""
    tier = min(tier, len(wordings) - 1)
    return wordings[tier:] + wordings[:tier][::-1]


def about_as_long(quiet: int, number_word: NumberWord) -> str:
    """A length of quiet as one says it: `forty seconds`, `a minute`, `four minutes`."""
    if seconds(quiet) < 50:
        return f"{number_word(max(1, round(seconds(quiet) / 10)) * 10)} seconds"
    minutes = round(seconds(quiet) / 60)
    return "a minute" if minutes == 1 else f"{number_word(minutes)} minutes"


def lines_of(use: StepUse, purpose: str) -> tuple[Wordings, ...]:
    """A step's own lines for a purpose, or else its movement's.

    What she wrote is meant for the side that the step is done on first, and is mirrored on the other.
    """
    own = use.step.lines.get(purpose)
    if own is None:
        return use.movement.said(purpose)
    if purpose != "say":
        own = [PAUSE_MARK.sub("", text) for text in own]  # pauses are of talk; nobody speaks their marks
    if use.side in ("left", "right"):
        first = mirrored(use.side) if use.second else use.side
        own = [tokenised(text, first) for text in own]
    return tuple(wordings for text in own if (wordings := parse_wordings(text)))


def with_name(phrasing: Phrasing, use: StepUse, call: Wordings) -> Wordings:
    """A call with the movement's name before it, where this school says it."""
    says = phrasing.school.say_names
    if says == "never" or (says == "first" and (use.seen or use.second or use.round > 1)):
        return call
    name = use.name.replace(" (", ", ").replace(")", "")
    if name.lower() in call[0].lower():
        return call
    return tuple(f"{name}. {text}" for text in call[:2]) + call


def on_breath(words: Wordings, breath: str, first: str = "") -> Wordings:
    """The words of a change of position on one breath phase; `first`: the phase before it, said with it."""
    lowered = tuple(text[0].lower() + text[1:] for text in words)
    lead = f"{first.capitalize()} where you are, {breath}, " if first else f"{breath.capitalize()}, "
    return (*(lead + text for text in lowered), words[-1])


def filled_line(line: Wordings, use: StepUse, side: Side | None = None, **words: str) -> Wordings:
    """A line's wordings with their tokens filled for a use."""
    return tuple(unmarked(fill(text, side or use.side, name=use.name, **words)) for text in line)


def variants(lines: tuple[Wordings, ...], start: int) -> Wordings:
    """All the ways to say one thing as wordings, full ones first, beginning with another one each time."""
    turned = lines[start % len(lines) :] + lines[: start % len(lines)]
    deepest = max(len(line) for line in turned)
    return tuple(line[tier] for tier in range(deepest) for line in turned if tier < len(line))


def pick_line(lines: tuple[Wordings, ...], use: StepUse) -> Wordings:
    """One of several lines, always the same one for a place in the class."""
    return lines[(use.place + max(0, use.round - 1) + 3 * use.second) % len(lines)]


def pattern_words(phrasing: Phrasing, use: StepUse) -> str:
    """`in for four, hold for seven, out for eight.`"""
    names = {"inhale": "in for", "full": "hold for", "exhale": "out for", "empty": "wait for"}
    counts = [
        (names[phase], phrasing.number_word(round(count)))
        for phase, count in use.movement.rhythm
        if phase in names
    ]
    return f"{', '.join(f'{name} {count}' for name, count in counts)}."
