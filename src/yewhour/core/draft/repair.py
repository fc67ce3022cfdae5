"""Mending: what the checks find in a drafted class is mended by its own fix, or left out."""

from collections.abc import Collection, Sequence
from itertools import zip_longest

import msgspec

from yewhour.core.draft.candidate_pool import CandidatePool
from yewhour.core.finding import Finding
from yewhour.core.lengths import show_length
from yewhour.core.pipeline import SolvedPlan, solve
from yewhour.core.plan.edit import Append, BringProp, EditLines, Insert, SetTarget, apply_all
from yewhour.core.plan.nodes import LineEdit, Node, Pair, Step
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import CannotFit, Problem
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass

MENDS = 5


def above(findings: Sequence[Finding], hers: Collection[LineEdit] = ()) -> list[Finding]:
    """What is more than a remark; but what she put in, or says in her own words, stays, whatever is found."""
    return [
        one
        for one in findings
        if one.severity != "note"
        and one.code != "left-out"
        and not (isinstance(one.edit, EditLines) and any(line in hers for line in one.edit.unsay))
    ]


def repair(plan: Plan, teaching_data: TeachingData, pool: CandidatePool) -> tuple[Plan, TimedClass]:
    """The plan with what the checks found mended, and its class at the length promised; her lines stay."""
    hers = plan.edits
    solved = solve(plan, teaching_data)
    timed = fit_draft(solved)
    tried: set[tuple[str, str]] = set()
    for _ in range(MENDS):
        wrong = above(timed.findings, hers)
        if not wrong:
            break
        try:
            after = _without_all(plan, wrong, timed, pool, tried, teaching_data)
            solved = solve(after, teaching_data)
            timed = fit_draft(solved)
        except Problem:
            break
        plan = after
    return plan, timed


class ComesShort(Problem):
    """There is not enough for the length promised. longest_s: as long as it can be."""

    def __init__(self, longest_s: float) -> None:
        what = f"Without doing anything twice it comes to {show_length(longest_s)} at most."
        super().__init__(what, "draft, length", "Ask for that length, or for another style.")
        self.longest_s = longest_s


def fit_draft(solved: SolvedPlan) -> TimedClass:
    """The class at the length promised. Raises Problem, with what it could be, where it can't be that."""
    try:
        return solved.make()
    except CannotFit:
        if solved.longest_s < solved.promised_s:
            raise ComesShort(solved.longest_s) from None
        what = f"With all that it needs it takes {show_length(solved.shortest_s)} at least."
        raise Problem(what, "draft, length", "Ask for that length, or for another style.") from None


def _without_all(
    plan: Plan,
    wrong: Sequence[Finding],
    timed: TimedClass,
    pool: CandidatePool,
    tried: set[tuple[str, str]],
    teaching_data: TeachingData,
) -> Plan:
    """The plan with all that was found mended at once; what a fix did not help is left out.

    tried: what was mended before. Raises Problem where nothing could be.
    """
    after, trouble = plan, None
    worded: set[str] = set()  # steps that have got a line: it is said on both sides
    for one in wrong:
        if isinstance(one.edit, EditLines):
            if one.edit.step in worded:
                continue
            worded.add(one.edit.step)
        try:
            after = _without(after, one, timed, pool, (one.code, one.segment) in tried, teaching_data)
            tried.add((one.code, one.segment))
        except Problem as problem:
            trouble = problem
    if after == plan and trouble is not None:
        raise trouble
    return after


def _without(
    plan: Plan,
    finding: Finding,
    timed: TimedClass,
    pool: CandidatePool,
    again: bool,
    teaching_data: TeachingData,
) -> Plan:
    """The plan with the finding's own edit; where that is none, without the movement it is about."""
    edit = finding.edit
    if isinstance(edit, EditLines) and finding.code == "long-silence":
        # How long it will be changes when the class is fitted anew: no number is said.
        text = teaching_data.wording.silence[0][-1]
        say = tuple(msgspec.structs.replace(line, text=text) for line in edit.say)
        edit = msgspec.structs.replace(edit, say=say)
    fits = edit is not None and not isinstance(edit, SetTarget | BringProp)
    if isinstance(edit, Insert | Append):
        asked = pool.items.get(edit.movement)
        talk = teaching_data.library[edit.movement].behaviour.framing
        fits = talk or (asked is not None and asked.take == "base" and edit.movement not in pool.order)
    if edit is not None and fits and not again:
        return apply_all(plan, [edit])
    quiet = {one.id for one in teaching_data.library.values() if "quiet ahead" in one.marks}
    step = next((one.use.step.id for one in timed.segments if one.id == finding.segment), "")
    return _dropped(plan, step, quiet)


def _promises(node: Node, quiet: set[str]) -> bool:
    """Whether a step promises quiet for the next."""
    return isinstance(node, Step) and node.movement in quiet


def _dropped(plan: Plan, step: str, quiet: set[str]) -> Plan:
    """The plan without a step, and without the quiet that was promised for it."""

    def kept(nodes: tuple[Node, ...]) -> tuple[Node, ...]:
        left: list[Node] = []
        for node in nodes:
            if node.id == step:
                continue
            if isinstance(node, Pair):
                body = kept(node.body)
                if body:
                    left.append(msgspec.structs.replace(node, body=body))
                continue
            left.append(node)
        return tuple(
            node
            for node, after in zip_longest(left, left[1:])
            if not _promises(node, quiet) or (after is not None and not _promises(after, quiet))
        )

    sections = tuple(msgspec.structs.replace(one, body=kept(one.body)) for one in plan.sections)
    if sections == plan.sections:
        raise Problem("There is nothing to leave out.", "draft")
    there = zip(plan.sections, sections, strict=True)
    left = tuple(now for before, now in there if now.body or not before.body)  # a part she left empty stays
    return msgspec.structs.replace(plan, sections=left)
