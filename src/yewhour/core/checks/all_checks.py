"""Every check there is, held against the rules of data/checks.toml."""

from collections.abc import Iterator

from yewhour.core.checks import (
    body,
    by_ear,
    counted,
    film,
    fingertips,
    lines,
    promise,
)
from yewhour.core.checks.registry import CHECKS
from yewhour.core.conditions.room import Room
from yewhour.core.finding import CheckRules, Finding, Severity
from yewhour.core.plan.edit import Append, Edit, Insert
from yewhour.core.preparation import PreparedPlan
from yewhour.core.problem import Problem
from yewhour.core.timed_class import TimedClass

# A file of checks is one of these; importing it registers what is in it.
ROOMS = (body, counted, by_ear, film, fingertips, lines, promise)
ORDER: dict[Severity, int] = {"wrong": 0, "look": 1, "note": 2}


def verified_rules(rules: CheckRules) -> CheckRules:
    """The rules, when each has its check and each check its rule; else raises Problem for the first."""
    for code in sorted(set(rules) ^ set(CHECKS)):
        what = (
            f"There is no check for the rule {code!r}."
            if code in rules
            else f"The check {code!r} has no rule."
        )
        raise Problem(what, "data/checks.toml", f"The rules are: {', '.join(sorted(CHECKS))}.")
    return rules


def findings(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Finding]:
    """Every finding of a timed class, the worst first."""
    rules = prepared.teaching_data.rules
    room = prepared.teaching_data.room(prepared.plan.brief)
    for code, rule in sorted(rules.items(), key=lambda item: ORDER[item[1].severity]):
        for notice in CHECKS[code](timed, prepared):
            message = rule.message.format_map(notice.words)
            fix = rule.fix.format_map(notice.words)
            yield Finding(code, rule.severity, notice.segment, message, fix, _kept(notice.edit, room))


def _kept(edit: Edit | None, room: Room) -> Edit | None:
    """The edit of a fix, but none that puts in what is left out for somebody who may be there."""
    movement = room.library.get(edit.movement) if isinstance(edit, Insert | Append) else None
    return None if movement is not None and room.left_out(movement) is not None else edit
