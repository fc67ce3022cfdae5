"""The whole pipeline for one plan: unfold, fit, lay out, write, place, check.

`Maker` solves a plan once; every length after that is a look-up and a fresh layout.
"""

import math
from collections.abc import Callable, Sequence

import msgspec

from yewhour.core.checks import Rules, findings
from yewhour.core.choice import Choice
from yewhour.core.cue import PURPOSES
from yewhour.core.fit import Fit
from yewhour.core.handwork import with_edits
from yewhour.core.layout import Segment, lay_out, pause_segment
from yewhour.core.lengths import seconds, ticks
from yewhour.core.made import Lengths, Made
from yewhour.core.model import PAUSE, Model
from yewhour.core.movement import Library
from yewhour.core.place import Placer
from yewhour.core.plan import Block, Blocks, Plan, Section
from yewhour.core.position import Positions
from yewhour.core.problem import Problem
from yewhour.core.school import School, Schools, school_of
from yewhour.core.speech import Seconds
from yewhour.core.unfold import Unfolder, check_steps
from yewhour.core.wording import Wording
from yewhour.core.write import Writer


class Words(msgspec.Struct, frozen=True):
    """All the data a class is made with, loaded by `store`, and how lines are timed, by `voice`."""

    library: Library
    schools: Schools
    positions: Positions
    wording: Wording
    blocks: Blocks
    rules: Rules
    cautions: dict[str, str]  # tag -> how a line speaks to those it is for
    seconds: Seconds
    number_word: Callable[[int], str]


Stage = Callable[[str], None]  # told what is being done; what it raises stops the work


def silent(stage: str) -> None:
    """Tells nobody."""


class Maker:
    """A plan with its tables solved (see Fit for `keep`). `stage` hears what is being done.

    Raises Problem when the plan can't be a class at any length.
    """

    def __init__(self, plan: Plan, words: Words, keep: bool = True, stage: Stage = silent) -> None:
        self.stage = stage
        if not any(section.body for section in plan.sections):
            raise Problem("This class has no steps yet.", do="Add a first one.")
        check_steps(plan)
        self.words = words
        self.school = school_of(plan.brief, words.schools)
        self.plan = plan = _closed(plan, self.school)
        self._durations: dict[tuple[str, str], int] = {}
        unfolder = Unfolder(plan, words.library, self.school, words.blocks)
        turns = [turn for index in range(len(unfolder.nodes)) for turn in unfolder.node(index)]
        props = list(dict.fromkeys(prop for turn in turns for prop in turn.movement.props))
        self.writer = Writer(
            plan.brief,
            self.school,
            words.wording,
            words.cautions,
            words.number_word,
            props,
            self.duration,
            plan.edits,
        )
        self.writer.first_talk = next((turn.key for turn in turns if turn.kind == "talk"), "")
        self.model = Model(unfolder, words.positions, self.writer.saying, self.writer.needs)
        stage("fitting")
        self.fit: Fit = self.model.solve(keep)

    @property
    def promised_s(self) -> float:
        """Seconds of the whole recording that the brief promises.

        Where the target counts the practice alone, the welcome and the farewell come on top of it.
        """
        brief = self.plan.brief
        if brief.target_counts == "recording":
            return brief.target_s
        return round(brief.target_s + seconds(self.model.ticks_of({"welcome", "farewell"})), 1)

    @property
    def shortest_s(self) -> float:
        """Seconds of the shortest this class can be."""
        return seconds(self.fit.shortest)

    @property
    def preferred_s(self) -> float:
        """Seconds of the class with everything as preferred."""
        return seconds(self.fit.preferred)

    @property
    def longest_s(self) -> float:
        """Seconds of the longest this class can be."""
        return seconds(self.fit.longest)

    @property
    def lengths(self) -> Lengths:
        """How long this class can be, and what is promised."""
        promised_s = self.promised_s
        extra_s = round(promised_s - self.plan.brief.target_s, 1)
        return Lengths(self.shortest_s, self.preferred_s, self.longest_s, promised_s, extra_s)

    def nearest_s(self, length_s: float) -> float:
        """The possible length nearest to one asked for, in seconds."""
        return seconds(self.fit.nearest(ticks(length_s)))

    def duration(self, text: str, purpose: str) -> int:
        """Ticks a line takes, rounded up."""
        key = (text, purpose)
        if key not in self._durations:
            said = self.words.seconds(text, PURPOSES[purpose].delivery, self.plan.brief.voice_rate)
            self._durations[key] = max(1, math.ceil(said * 10))
        return self._durations[key]

    def make(self, length_s: float | None = None) -> Made:
        """The class at a length of the whole recording in seconds, or as its brief promises.

        Raises CannotFit when it can't be that.
        """
        choice = self.fit.at(ticks(self.promised_s if length_s is None else length_s))
        self.stage("laying out")
        segments = self.laid_out(choice)
        if segments[-1].end != choice.length:
            raise Problem(
                f"The parts of this class add up to {seconds(segments[-1].end)} s, "
                f"not to {seconds(choice.length)} s.",
                do="This is a fault of the program: please send the class to its makers.",
            )
        self.stage("writing")
        placer = Placer(segments, self.duration, self.share)
        candidates, lost = with_edits(self.writer.candidates(segments), segments, self.plan.edits)
        cues, dropped = placer.place(candidates)
        made = Made(self.plan, choice.length, choice, tuple(segments), tuple(cues), tuple(dropped), (), lost)
        self.stage("checking")
        noticed = tuple(findings(made, self, self.words.rules))
        return msgspec.structs.replace(made, findings=noticed)

    def share(self, segment: Segment) -> float:
        """The largest share of a segment that may be speech."""
        if segment.kind == "stillness":
            return 0.12
        if segment.kind == "clock":
            return self.school.talk * 0.7
        return self.school.talk

    def laid_out(self, choice: Choice) -> list[Segment]:
        """The segments of the class with the numbers chosen."""
        titles: Sequence[str] = [section.title for section in self.plan.sections]
        turns = self.model.turns(choice)
        segments = lay_out(turns, choice, self.model.slack_key, titles, self.school)
        pause = choice.amounts.get(PAUSE, 0)
        if pause:
            last = segments[-1]
            segments.append(pause_segment(last.end, pause, last.section, last.turn))
        return segments


def _closed(plan: Plan, school: School) -> Plan:
    """The plan with the school's closing block at its end, where it has no closing of its own."""
    if not school.closing or any(section.role == "close" for section in plan.sections):
        return plan
    close = Section(title="Close", role="close", body=(Block(name=school.closing, id="closing"),))
    return msgspec.structs.replace(plan, sections=(*plan.sections, close))
