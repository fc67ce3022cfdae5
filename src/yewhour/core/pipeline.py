"""The one path from a plan to a class, stage by stage.

    plan -> set up -> unfolded -> with ways -> modelled -> fit tables                 `solve`, once a plan
         -> numbers chosen -> laid out -> written -> with her own hand -> placed -> checked   `Solved.make`

`Solved` is what is the same at every length of a plan, and is kept between two of them.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import TYPE_CHECKING

import msgspec

from yewhour.core.checks.all_checks import findings
from yewhour.core.lengths import seconds, ticks
from yewhour.core.plan.own_shares import own_share
from yewhour.core.plan.plan import Brief, Plan
from yewhour.core.preparation import PreparedPlan, prepare_plan
from yewhour.core.problem import Problem
from yewhour.core.purpose import PURPOSES
from yewhour.core.script.candidates import candidate_lines
from yewhour.core.script.in_bed import IN_BED, lying_in_bed
from yewhour.core.script.own_lines import with_own_lines
from yewhour.core.script.placement import place_cues
from yewhour.core.sides import evened
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import LengthRange, TimedClass
from yewhour.core.timing.fit_model import FitModel, Needs, build_model
from yewhour.core.timing.fitted_numbers import FittedNumbers
from yewhour.core.timing.layout import Segment, lay_out
from yewhour.core.timing.step_use import StepUse, uses_with_rounds
from yewhour.core.timing.unfold import UnfoldedClass, unfold
from yewhour.core.transitions.entry import EntryLines
from yewhour.core.transitions.ways import with_transitions
from yewhour.core.wording.phrasing import Phrasing
from yewhour.core.wording.speech import Duration

if TYPE_CHECKING:
    from yewhour.core.timing.fit import Fit

StageListener = Callable[[str], None]  # told what is being done; what it raises stops the work


def no_listener(stage: str) -> None:
    """Tells nobody."""


def solve(
    plan: Plan,
    teaching_data: TeachingData,
    keep: bool = True,
    stage: StageListener = no_listener,
    without: frozenset[str] = frozenset(),
) -> SolvedPlan:
    """A plan with its tables solved, ready for any length. keep: see Fit. stage: hears what is being done.

    without: the keys of uses that are left out. Raises Problem when the plan can't be a class at any length.
    """
    # NumPy, which the tables are made with, takes longer to import than all the rest: not before it is used.
    from yewhour.core.timing.fit import Fit

    prepared = prepare_plan(plan, teaching_data)
    data = prepared.teaching_data
    unfolded = unfold(prepared.plan, data.library, prepared.school, data.blocks)
    if without:
        left = tuple(use for use in unfolded.uses if use.key not in without)
        unfolded = msgspec.structs.replace(unfolded, uses=left)
    if not unfolded.uses:
        raise Problem("Nothing in this class is ever done.", do="Add a movement that every round has.")
    entries = EntryLines(_manner(prepared), unfolded.uses, prepared.plan.edits)
    level = prepared.plan.brief.level
    uses = with_transitions(
        unfolded, prepared.teaching_data.positions, entries, prepared.school, level, prepared.plan.brief.own
    )
    needs = {use.key: ticks for use in uses if (ticks := entries.needs(use))}
    model = build_model(uses, len(unfolded.nodes), unfolded.groups, needs)
    stage("fitting")
    return SolvedPlan(prepared, unfolded, uses, entries, needs, model, Fit(model.parts, keep), stage)


class SolvedPlan(msgspec.Struct, frozen=True, eq=False):
    """A plan solved: its uses with their ways, the lines of those, its fit model and the model's tables."""

    prepared: PreparedPlan
    unfolded: UnfoldedClass
    uses: tuple[StepUse, ...]
    entries: EntryLines
    needs: Needs
    model: FitModel
    fit: Fit
    stage: StageListener = no_listener

    def make(self, length_s: float | None = None) -> TimedClass:
        """The class at a length of the whole recording in seconds, or as its brief promises.

        Raises CannotFit when it can't be that.
        """
        plan, duration = self.prepared.plan, self.entries.phrasing.duration
        choice = self.fit.at(ticks(self.promised_s if length_s is None else length_s))
        self.stage("laying out")
        segments = self.laid_out(choice)
        _check_sum(segments, choice)
        self.stage("writing")
        lines = candidate_lines(segments, self.entries)
        if IN_BED in plan.brief.without:
            lines = list(lying_in_bed(lines, segments))
        candidates, lost = with_own_lines(lines, segments, plan.edits)
        cues, dropped = place_cues(candidates, segments, duration, self.prepared.school.talk)
        timed = TimedClass(
            plan, ticks(self.promised_s), choice.length, choice, segments, cues, dropped, lost_edits=lost
        )
        self.stage("checking")
        return msgspec.structs.replace(timed, findings=tuple(findings(timed, self.prepared)))

    def laid_out(self, choice: FittedNumbers) -> tuple[Segment, ...]:
        """The segments of the class with the numbers chosen."""
        titles = [section.title for section in self.plan.sections]
        uses = uses_with_rounds(self.uses, choice.rounds, self.unfolded.groups)
        return lay_out(uses, choice, self.model.slack_key, titles, self.prepared.school)

    def turns_of(self, index: int) -> list[StepUse]:
        """The uses of one top-level node, ways included, with its preferred rounds."""
        mine = tuple(use for use in self.uses if use.node == index)
        return uses_with_rounds(mine, {}, self.unfolded.groups)

    # --- how long it can be -------------------------------------------------------------------------------

    @property
    def plan(self) -> Plan:
        """The plan, with the closing of its school."""
        return self.prepared.plan

    @property
    def teaching_data(self) -> TeachingData:
        """What it is made with."""
        return self.prepared.teaching_data

    def duration(self, text: str, purpose: str) -> int:
        """Ticks a line takes in this class's voice."""
        return self.entries.phrasing.duration(text, purpose)

    @property
    def promised_s(self) -> float:
        """Seconds of the whole recording that the brief promises.

        Where the target counts the practice alone, the welcome and the farewell come on top of it.
        """
        brief = self.plan.brief
        if brief.target_counts == "recording":
            return brief.target_s
        there = uses_with_rounds(self.uses, {}, self.unfolded.groups)
        framing = (use.fixed for use in there if {"welcome", "farewell"} & set(use.movement.marks))
        return round(brief.target_s + seconds(sum(framing)), 1)

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
    def lengths(self) -> LengthRange:
        """How long this class can be, and what is promised."""
        promised_s = self.promised_s
        extra_s = round(promised_s - self.plan.brief.target_s, 1)
        return LengthRange(self.shortest_s, self.preferred_s, self.longest_s, promised_s, extra_s)

    def nearest_s(self, length_s: float) -> float:
        """The possible length nearest to one asked for, in seconds."""
        return seconds(self.fit.nearest(ticks(length_s)))


def _manner(prepared: PreparedPlan) -> Phrasing:
    words, brief = prepared.teaching_data, prepared.plan.brief
    duration = _duration(words, brief)
    return Phrasing(
        brief,
        prepared.school,
        words.wording,
        words.cautions,
        words.number_word,
        duration,
        words.positions,
        words.props,
        words.watch,
        words.room(brief),
        words.facets,
    )


def _duration(teaching_data: TeachingData, brief: Brief) -> Duration:
    """Ticks a line takes in her voice, rounded up; what was measured is remembered."""
    known: dict[tuple[str, str], int] = {}

    def duration(text: str, purpose: str) -> int:
        key = (text, purpose)
        if key not in known:
            delivery = PURPOSES[purpose].delivery
            rate = brief.voice_rate / own_share(brief.own, "voice", delivery)
            said = teaching_data.seconds(evened(text), delivery, rate)
            known[key] = max(1, math.ceil(said * 10))
        return known[key]

    return duration


def _check_sum(segments: tuple[Segment, ...], choice: FittedNumbers) -> None:
    """What was laid out must be as long as what was fitted; if it is not, that is our fault."""
    if not segments:
        raise Problem(
            "Nothing in this class lasts any time.", do="Add a movement that is done in every round."
        )
    if segments[-1].end != choice.length:
        raise Problem(
            f"The parts of this class add up to {seconds(segments[-1].end)} s, "
            f"not to {seconds(choice.length)} s.",
            do="This is a fault of the program: please send the class to its makers.",
        )
