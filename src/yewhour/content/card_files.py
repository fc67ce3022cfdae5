"""The cards of the library: one TOML file a family, a table a movement, checked as they are read."""

import re
from collections.abc import Iterable, Mapping
from pathlib import Path

import msgspec

from yewhour.core.library.card import CONDITION, Card
from yewhour.core.library.movement import Movement
from yewhour.core.problem import Problem
from yewhour.core.sides import SIDE_TOKENS, tokens
from yewhour.files.toml_files import read_toml

LONGEST = 36  # words of a line: what one says in a breath or two
NAMED_SIDE = re.compile(
    r"(?<!on your )\b(left|right) (hand|arm|foot|feet|leg|knee|hip|side|shoulder|elbow|ankle|thigh|shin|ear"
    r"|palm|heel|toes)\b"
    r"|\bto (the|your) (left|right)\b",
    re.IGNORECASE,
)
TOKENS = SIDE_TOKENS | {"n", "N"}


def with_cards(
    library: Mapping[str, Movement], folder: Path, facets: Iterable[str], problems: list[Problem]
) -> dict[str, Movement]:
    """The movements with their cards. What is wrong with one is told, and that movement speaks without it."""
    found = dict(library)
    known = frozenset(facets)
    for path in sorted(folder.glob("*.toml")):
        try:
            tables = read_toml(path)
        except Problem as problem:
            problems.append(problem)
            continue
        for name, table in tables.items():
            where = f"{path}, [{name}]"
            if name not in found:
                problems.append(
                    Problem(f"There is no movement {name!r}.", where, "Use its id in the library.")
                )
                continue
            try:
                card = msgspec.convert(table, Card)
            except msgspec.ValidationError as error:
                problems.append(Problem(f"This card can't be read: {error}.", where, "Mend that line."))
                continue
            wrong = dict.fromkeys(
                one for form in (card, card.in_gentle_form()) for one in faults(form, known)
            )
            problems += [Problem(fault, where, "Mend that line.") for fault in wrong]
            found[name] = msgspec.structs.replace(found[name], card=card)
    return found


def faults(card: Card, facets: frozenset[str]) -> list[str]:
    """What is wrong with a card: tokens nobody fills, conditions of nothing, lines too long for a breath."""
    wrong = []
    for beat, text in card.lines():
        if strange := tokens(text) - TOKENS:
            wrong.append(f"{beat}: nobody knows {{{min(strange)}}}: {text}")
        if {"n", "N"} & tokens(text) and beat not in ("late", "first"):
            wrong.append(f"{beat}: only late and first know a number: {text}")
        wrong += [
            f"{beat}: {one[0]!r} is no facet: {text}"
            for one in CONDITION.findall(text)
            if one[0] not in facets
        ]
        if len(text.split()) > LONGEST:
            wrong.append(f"{beat}: longer than {LONGEST} words: {text}")
        if NAMED_SIDE.search(text):
            wrong.append(f"{beat}: a side by its name, not by its token: {text}")
    if not card.place and not card.first:
        wrong.append("it neither places nor begins anything.")
    return wrong
