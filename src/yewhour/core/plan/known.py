"""Known: the words that a brief may use, and how what a teacher wrote is one of them."""

from collections.abc import Mapping

import msgspec

from yewhour.core.plan.names import plain
from yewhour.core.plan.plan import Brief
from yewhour.core.problem import Problem

LEVELS = ("beginners", "gentle", "mixed", "experienced")
LEVEL_NAMES = {plain(level): level for level in LEVELS}


class Known(msgspec.Struct, frozen=True):
    """What there is of styles, cautions, props and blocks: plain spelling -> what it is called here."""

    styles: Mapping[str, str]
    cautions: Mapping[str, str]
    props: Mapping[str, str]
    blocks: Mapping[str, str] = {}


def spelt(*names: str, **others: str) -> dict[str, str]:
    """Names by their plain form; others: further spellings of them."""
    return {plain(name): name for name in names} | {plain(key): value for key, value in others.items()}


def called(what: str, written: str, names: Mapping[str, str]) -> str:
    """What something written is called here. Raises Problem, which names it, for what is not there."""
    found = names.get(plain(written))
    if found is None:
        listed = ", ".join(dict.fromkeys(names.values()))
        raise Problem(f"There is no {what} {written!r}.", f"brief, {what}", f"Use one of: {listed}.")
    return found


def check_known(brief: Brief, known: Known) -> None:
    """Raises Problem for a level, a caution or a prop of a brief that is not there."""
    called("level", brief.level, LEVEL_NAMES)
    for caution in brief.cautions:
        called("caution", caution, known.cautions)
    for prop in brief.props:
        called("prop", prop, known.props)
