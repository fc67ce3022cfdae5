"""Known: the words that a brief may use, and how what a teacher wrote is one of them."""

from collections.abc import Iterator, Mapping
from typing import Literal

import msgspec

from yewhour.core.library.names import near_names, plain_name
from yewhour.core.plan.nodes import Block, PlanPart, Step, walk
from yewhour.core.plan.plan import Brief, Plan
from yewhour.core.problem import Problem

LEVELS = ("beginners", "gentle", "mixed", "experienced")
GENTLE_LEVELS = ("gentle", "beginners")
LEVEL_NAMES = {plain_name(level): level for level in LEVELS}


class Vocabulary(msgspec.Struct, frozen=True):
    """What there is of styles, cautions, props and blocks: plain spelling -> what it is called here."""

    styles: Mapping[str, str]
    cautions: Mapping[str, str]
    props: Mapping[str, str]
    blocks: Mapping[str, str] = {}


def plain_spellings(*names: str, **others: str) -> dict[str, str]:
    """Names by their plain form; others: further spellings of them."""
    return {plain_name(name): name for name in names} | {
        plain_name(key): value for key, value in others.items()
    }


def looked_up(what: str, written: str, names: Mapping[str, str]) -> str:
    """What something written is called here. Raises Problem, which names it, for what is not there."""
    found = names.get(plain_name(written))
    if found is None:
        listed = ", ".join(dict.fromkeys(names.values()))
        raise Problem(f"There is no {what} {written!r}.", f"the promise, {what}", f"Use one of: {listed}.")
    return found


def check_vocabulary(brief: Brief) -> None:
    """Raises Problem for a level that is not there. Cautions and props that are not stand as they were
    written."""
    looked_up("level", brief.level, LEVEL_NAMES)


def unknown_words(brief: Brief, known: Vocabulary) -> list[tuple[Literal["caution", "prop"], str]]:
    """(what it is, the word) of cautions and props that mean nothing here. They stand in the brief as
    placeholders: another program, or a later one, may know them."""
    cautions = [word for word in brief.cautions if plain_name(word) not in known.cautions]
    props = [word for word in brief.props if plain_name(word) not in known.props]
    return [("caution", word) for word in cautions] + [("prop", word) for word in props]


def unknown_fields(plan: Plan) -> list[Problem]:
    """What to say of fields that mean nothing here: those of the brief, and elsewhere those misspelt.

    They are kept where they stand: another program, or a later one, may have written them.
    """
    found = []
    for where, value in _parts(plan):
        for field in value.extra:
            known = near_names(
                field, [name for name in value.__struct_fields__ if name != "extra"], least=0.75
            )
            if known or isinstance(value, Brief):
                what = f"The field {field[:60]!r} means nothing here; it is kept as it is."
                found.append(Problem(what, where, f"Did you mean {known[0]!r}?" if known else ""))
    return found


def _parts(plan: Plan) -> Iterator[tuple[str, PlanPart]]:
    yield "the class", plan
    yield "the brief", plan.brief
    for section in plan.sections:
        yield f"section {section.title!r}", section
        for node in walk(section.body):
            yield f"section {section.title!r}, {getattr(node, 'movement', 'a group')}", node
            for edit in node.edits if isinstance(node, Step | Block) else ():
                yield "the teacher's own lines", edit
