"""Check: what a class is noticed for. Rules are declared in data/checks.toml, one check each.

A check yields notices: the segment, the words for the rule's message, and an edit that mends it, if an
edit can. A rule without a check, or a check without a rule, is refused when the data is loaded.
"""

from collections.abc import Callable, Iterable, Iterator, Mapping
from typing import TYPE_CHECKING

import msgspec

from yewhour.core.edit import Edit
from yewhour.core.finding import Finding, Severity
from yewhour.core.problem import Problem

if TYPE_CHECKING:
    from yewhour.core.made import Made
    from yewhour.core.maker import Maker


class Rule(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """How a finding is worded and how bad it is."""

    severity: Severity
    message: str
    fix: str


Rules = dict[str, Rule]


class Notice(msgspec.Struct, frozen=True):
    """What a check noticed: the segment's id (or ""), words for the message, and an edit."""

    segment: str
    words: Mapping[str, object]
    edit: Edit | None = None


Check = Callable[["Made", "Maker"], Iterable[Notice]]
CHECKS: dict[str, Check] = {}


def check(code: str) -> Callable[[Check], Check]:
    """Registers the check of a rule."""

    def registered(function: Check) -> Check:
        CHECKS[code] = function
        return function

    return registered


def verified(rules: Rules) -> Rules:
    """The rules, when each has its check and each check its rule; else raises Problem for the first."""
    _load()
    for code in sorted(set(rules) ^ set(CHECKS)):
        what = (
            f"There is no check for the rule {code!r}."
            if code in rules
            else f"The check {code!r} has no rule."
        )
        raise Problem(what, "data/checks.toml", f"The rules are: {', '.join(sorted(CHECKS))}.")
    return rules


def findings(made: "Made", maker: "Maker", rules: Rules) -> Iterator[Finding]:
    """Every finding of a made class, the worst first."""
    _load()
    order: dict[Severity, int] = {"wrong": 0, "look": 1, "note": 2}
    for code, rule in sorted(rules.items(), key=lambda item: order[item[1].severity]):
        for notice in CHECKS[code](made, maker):
            message = rule.message.format_map(notice.words)
            fix = rule.fix.format_map(notice.words)
            yield Finding(code, rule.severity, notice.segment, message, fix, notice.edit)


def _load() -> None:
    if not CHECKS:
        from yewhour.core.checks import body, film, lines, promise  # noqa: F401
