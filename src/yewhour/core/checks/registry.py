"""A check looks at a timed class and yields what it notices; `check` registers it under its rule's code."""

from collections.abc import Callable, Iterable

from yewhour.core.finding import Notice
from yewhour.core.preparation import PreparedPlan
from yewhour.core.timed_class import TimedClass

Check = Callable[[TimedClass, PreparedPlan], Iterable[Notice]]
CHECKS: dict[str, Check] = {}


def check(code: str) -> Callable[[Check], Check]:
    """Registers the check of a rule."""

    def registered(function: Check) -> Check:
        CHECKS[code] = function
        return function

    return registered
