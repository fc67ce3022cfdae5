"""What fit did to a class, and what could be done when it can't be the length asked for."""

from collections.abc import Iterator

import msgspec

from yewhour.core.edits.cuts import leave_out_order, name_of, span_of
from yewhour.core.lengths import seconds, show_length, ticks
from yewhour.core.library.kinds import BEHAVIOURS
from yewhour.core.pipeline import SolvedPlan, solve
from yewhour.core.plan.edit import Drop, Edit, Repeat, Unlock, Widen, apply_all
from yewhour.core.plan.nodes import Rounds, Step, walk
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.doses import AmountRange, amount_range, kind_of
from yewhour.core.timing.fitted_numbers import FittedNumbers
from yewhour.core.timing.numbers import PAUSE

LEAVE_OUT = "Leave out "


class AmountChange(msgspec.Struct, frozen=True):
    """A number that is not the preferred one, and whether it can go no further that way."""

    node: str
    name: str
    unit: str
    preferred: int
    chosen: int
    binds: bool


class Remedy(msgspec.Struct, frozen=True):
    """Edits that would help together, the length the class then gets, and the range it then has (seconds)."""

    edits: tuple[Edit, ...]
    gives_s: float
    shortest_s: float
    longest_s: float
    loss_s: float

    @property
    def title(self) -> str:
        """What it is called."""
        titles = [edit.title for edit in self.edits]
        if len(titles) > 1 and all(title.startswith(LEAVE_OUT) for title in titles):
            return LEAVE_OUT + ", ".join(title.removeprefix(LEAVE_OUT) for title in titles)
        return "; ".join(titles)

    def applied(self, plan: Plan) -> Plan:
        """The plan with it done."""
        return apply_all(plan, self.edits)


def _spans(solved: SolvedPlan) -> Iterator[tuple[Step, str, str, AmountRange]]:
    """(step, name, unit, range) of every step that has a number."""
    seen = set()
    for section in solved.plan.sections:
        for node in walk(section.body):
            known = isinstance(node, Step) and node.movement in solved.teaching_data.library
            if known and isinstance(node, Step) and node.id not in seen:
                seen.add(node.id)
                movement = solved.teaching_data.library[node.movement]
                kind = kind_of(node, movement, solved.prepared.school)
                if BEHAVIOURS[kind].unit:
                    yield node, movement.name, BEHAVIOURS[kind].unit, amount_range(node, movement, kind)


def changes(solved: SolvedPlan, choice: FittedNumbers) -> list[AmountChange]:
    """Every number that differs from the preferred one, in the order of the class."""
    found = []
    for step, name, unit, span in _spans(solved):
        if step.id not in choice.amounts:
            continue
        chosen = choice.amounts[step.id]
        if step.id == solved.model.slack_key:
            chosen = round(seconds(chosen))
        if chosen != span.preferred:
            binds = chosen <= span.least if chosen < span.preferred else chosen >= span.most
            found.append(AmountChange(step.id, name, unit, span.preferred, chosen, binds))
    groups = [n for s in solved.plan.sections for n in walk(s.body) if isinstance(n, Rounds)]
    for group in groups:
        times = choice.rounds.get(group.id, group.times)
        if times != group.times:
            edge = (group.least or group.times) if times < group.times else (group.most or group.times)
            found.append(AmountChange(group.id, "Rounds", "rounds", group.times, times, times == edge))
    if choice.amounts.get(PAUSE):
        found.append(
            AmountChange(PAUSE, "Closing pause", "seconds", 0, round(seconds(choice.amounts[PAUSE])), False)
        )
    return found


def explain(solved: SolvedPlan, choice: FittedNumbers) -> str:
    """The changes and what binds, to be read."""
    can = solved.lengths
    lines = [
        f"shortest {show_length(can.shortest_s, True)}, preferred {show_length(can.preferred_s, True)}, "
        f"longest {show_length(can.longest_s, True)}"
    ]
    changed = changes(solved, choice)
    if not changed:
        return "\n".join([*lines, "everything as preferred"])
    for change in changed:
        mark = "   can go no further" if change.binds else ""
        lines.append(f"  {change.name}: {change.preferred} -> {change.chosen} {change.unit}{mark}")
    lines.append(f"cost {choice.cost:.3f} (weighted squared relative departures)")
    return "\n".join(lines)


def differences(before: TimedClass, after: TimedClass, most: int = 3) -> str:
    """What another class has otherwise, in a few words: numbers, and what comes or goes."""
    old, new = _doses(before), _doses(after)
    said = [f"{name} comes in" for step, (name, _) in new.items() if step not in old]
    said += [f"{name} goes" for step, (name, _) in old.items() if step not in new]
    said += [
        f"{name} {old[step][1]} → {dose}"
        for step, (name, dose) in new.items()
        if step in old and old[step][1] != dose
    ]
    lines = {(cue.segment, cue.text) for cue in after.cues} ^ {(cue.segment, cue.text) for cue in before.cues}
    if not said:
        return f"{len(lines)} lines change" if lines else "nothing else changes"
    more = f", and {len(said) - most} more" if len(said) > most else ""
    return "; ".join(said[:most]) + more


def _doses(timed: TimedClass) -> dict[str, tuple[str, str]]:
    return {
        segment.use.step.id: (segment.use.name, segment.dose)
        for segment in reversed(timed.segments)
        if not segment.use.setup_for and not segment.behaviour.is_talk
    }


# --- when it can't be met ---------------------------------------------------------------------------------


def remedies(solved: SolvedPlan, length_s: float, most: int = 5) -> list[Remedy]:
    """The least painful edits that would let the class have a length it can't have now, best first.

    Drops for a class that is too long, unlocks, repeats and wider ranges for one that is too short. A
    remedy that reaches the length comes before one that only gets nearer; among those that reach it, the
    one that loses or adds least.
    """
    shorter = ticks(length_s) < solved.fit.shortest
    tried = []
    for edit, rough_s in _candidates(solved, shorter):
        gap = (solved.shortest_s - length_s) if shorter else (length_s - solved.longest_s)
        tried.append((rough_s < gap, abs(rough_s - gap) if rough_s >= gap else gap - rough_s, edit))
    single = [(edit,) for _, _, edit in sorted(tried, key=lambda one: one[:2])[: most + 3]]
    found = [remedy for edits in single if (remedy := _tried(solved, edits, length_s))]
    if shorter and not any(remedy.gives_s == length_s for remedy in found):
        found += _together(solved, length_s)
    found.sort(key=lambda remedy: (round(abs(remedy.gives_s - length_s), 1), remedy.loss_s))
    return found[:most]


def _tried(solved: SolvedPlan, edits: tuple[Edit, ...], length_s: float) -> Remedy | None:
    try:
        changed = solve(apply_all(solved.plan, edits), solved.teaching_data, stage=solved.stage)
    except Problem:
        return None
    gives_s = changed.nearest_s(length_s)
    loss_s = abs(changed.preferred_s - solved.preferred_s)
    return Remedy(edits, gives_s, changed.shortest_s, changed.longest_s, loss_s)


def _together(solved: SolvedPlan, length_s: float) -> list[Remedy]:
    """As few parts left out together as reach the length, in the order they are missed least.

    How many is searched by halves, as every trial solves the class anew: a long class is no reason to wait.
    """
    order = tuple(leave_out_order(solved))
    low, high, best = 0, len(order), None
    while low < high:
        middle = (low + high) // 2
        remedy = _tried(solved, order[: middle + 1], length_s)
        if remedy is not None and remedy.shortest_s <= length_s:
            high = middle
            if remedy.gives_s == length_s:
                best = remedy
        else:
            low = middle + 1
    return [best] if best is not None else []


def _candidates(solved: SolvedPlan, shorter: bool) -> Iterator[tuple[Edit, float]]:
    """(edit, rough seconds it gains) for every part that may go, or be done again."""
    for index, (section, node) in enumerate(solved.unfolded.nodes):
        uses = solved.turns_of(index)
        if not uses:
            continue
        marks = {mark for use in uses for mark in use.movement.marks}
        name = name_of(node, solved)
        if shorter:
            if solved.plan.sections[section].role in ("rest", "close", "arrive") or marks & {
                "final rest",
                "returning",
            }:
                continue
            least = sum(t.fixed + t.unit * span_of(solved, t.step).least for t in uses)
            yield Drop(node=node.id, title=f"Leave out {name}"), seconds(least)
        else:
            long = seconds(sum(t.fixed + t.unit * span_of(solved, t.step).most for t in uses))
            for inner in walk((node,)):
                if isinstance(inner, Step | Rounds) and inner.locked:
                    yield Unlock(node=inner.id, title=f"Unlock {name_of(inner, solved)}"), long / 2
            if isinstance(node, Rounds):
                by = 2 if solved.unfolded.groups[node.id].by == 2 else 1
                edit = Repeat(node=node.id, title=f"One more time round: {name}", more=by)
                yield edit, long / max(1, node.most or node.times) * by
            elif not marks & {"welcome", "farewell", "returning", "final rest"} and not isinstance(
                node, Step
            ):
                yield Repeat(node=node.id, title=f"Do {name} again"), long
            if isinstance(node, Step) and "final rest" in marks:
                most = span_of(solved, node).most
                wider = Widen(
                    node=node.id, title=f"Let {name} be up to {show_length(most * 2)}", most=most * 2
                )
                yield wider, float(most)
