"""The cards that ship: every movement has one, each line can be said on both sides, none stands in two."""

import re
from collections import Counter

import pytest

from tests.conftest import shipped
from yewhour.content.card_files import faults, with_cards
from yewhour.content.paths import DATA
from yewhour.core.library.card import Card, conditioned
from yewhour.core.sides import SIDE_TOKENS, fill, tokens

LIBRARY = shipped().library
CARDS = {one.id: one for one in LIBRARY.values() if one.card is not None}
PATHS = sorted((DATA / "cards").glob("*.toml"))
NEVER = re.compile(
    r"\b(heals?|cures?|detox\w*|toxins?|chakras?|guarantee\w*|store emotions?|you could also|perhaps keep)\b",
    re.IGNORECASE,
)


def test_every_movement_that_is_done_has_a_card():
    done = [one.id for one in LIBRARY.values() if not one.behaviour.framing and one.card is None]
    assert done == ["knees-chest-chin"]  # it is only ever a phase of a flow


FORMS = [(name, one.card) for name, one in CARDS.items()]
FORMS += [(name, card.in_gentle_form()) for name, card in FORMS if card.gentle is not None]


@pytest.mark.parametrize(("name", "card"), FORMS)
def test_a_card_can_be_said_and_teaches(name, card):
    movement = CARDS[name]
    assert faults(card, frozenset(shipped().facets.names)) == []
    assert card.aim or card.check or movement.behaviour.framing
    for beat, text in card.lines():
        for side in ("right", "left"):
            assert not tokens(fill(text, side, n="two")) & SIDE_TOKENS
        assert not NEVER.search(text), (beat, text)
        if movement.sides in ("both", "none") and not re.search(r"first|place", beat):
            assert not tokens(text) & SIDE_TOKENS, (beat, text)
    assert set(card.protect) <= set(shipped().cautions)


@pytest.mark.parametrize("name", [name for name, one in CARDS.items() if one.sides == "one"])
def test_what_has_two_sides_names_the_second_and_has_something_to_say_of_it(name):
    card = CARDS[name].card
    assert tokens(card.again or " ".join(card.place)) & SIDE_TOKENS or CARDS[name].side_by
    assert card.compare or card.deepen or card.check or CARDS[name].behaviour.is_rest


@pytest.mark.parametrize("name", [n for n, one in CARDS.items() if one.kind in ("reps", "pulses", "cycles")])
def test_what_is_repeated_talks_its_first_one_through(name):
    movement = CARDS[name]
    assert movement.card.first
    if movement.sides == "alternating":
        assert tokens(movement.card.first + " ".join(movement.card.place)) & SIDE_TOKENS


def test_no_thought_stands_on_two_cards():
    thoughts = Counter(
        text
        for one in CARDS.values()
        for beat, text in one.card.lines()
        if beat in ("aim", "check", "image", "deepen", "compare", "keep") and len(text.split()) > 5
    )
    assert [text for text, times in thoughts.items() if times > 1] == []


@pytest.mark.parametrize("name", [name for name, one in CARDS.items() if one.card.gentle is not None])
def test_a_gentle_form_is_of_a_movement_that_has_one_and_is_in_a_shape_that_there_is(name):
    movement = CARDS[name]
    assert movement.gentler is not None
    assert not movement.gentler.movement
    shape = movement.card.gentle.shape
    assert shape is None or not shipped().facets.fault(shape)
    held = movement.shape if shape is None else shape
    said = " ".join((*movement.card.gentle.place, movement.card.gentle.first)).lower()
    if "head" in movement.shape and "head" not in held:
        assert "curl up" not in said
        assert "head down" not in movement.card.gentle.leave.lower()


def test_a_card_that_is_wrong_is_told_with_its_place(tmp_path):
    (tmp_path / "seated.toml").write_text(
        '[staff]\nplace = ["Lift your left knee, {hand} down."]\n\n'
        '[nobody]\nplace = ["x"]\n\n[sit]\nplaces = 3\n'
    )
    problems = []
    found = with_cards(LIBRARY, tmp_path, shipped().facets.names, problems)
    told = [f"{one.what} {one.where}" for one in problems]
    assert any("{hand}" in one and "[staff]" in one for one in told)
    assert any("side by its name" in one for one in told)
    assert any("'nobody'" in one for one in told)
    assert any("[sit]" in one for one in told)
    assert found["butterfly"] is LIBRARY["butterfly"]


def test_a_condition_is_decided_by_the_body():
    line = "[head? Stay up; both else Curl up, both] hands on the shin."
    assert conditioned(line, {"head": "up"}) == "Stay up; both hands on the shin."
    assert conditioned(line, {}) == "Curl up, both hands on the shin."
    assert conditioned("No condition.", {}) == "No condition."
    assert Card(place=("a",)).lines


DOING = {
    "lift", "rise", "open", "close", "float", "push", "slide", "tall", "stand", "restack", "curl",
    "squeeze", "tuck", "straighten", "sink",
}  # fmt: skip


def _by_breath(first):
    """The words of a first repetition under the breath they are done on."""
    words, breath = {"in": set(), "out": set()}, ""
    for clause in re.split(r"(?:(?<=[;:,.] )|^)(?=(?:breathe )?(?:in|out)\b[ ,:])", first.lower()):
        found = re.match(r"(?:breathe )?(in|out)\b", clause)
        breath = found[1] if found else breath
        if breath:
            words[breath] |= set(re.findall(r"[a-z]{4,}", clause))
    return words


@pytest.mark.parametrize("name", [n for n, one in CARDS.items() if one.kind in ("reps", "pulses", "cycles")])
def test_the_first_one_is_breathed_as_those_that_come_after(name):
    movement = CARDS[name]
    told = _by_breath(movement.card.first)
    for beat, on, other in (
        ("on_effort", "out", "in"), ("on_exhale", "out", "in"),
        ("on_ease", "in", "out"), ("on_inhale", "in", "out"),
    ):  # fmt: skip
        for line in movement.lines.get(beat, ()):
            verbs = DOING & set(re.findall(r"[a-z]{4,}", line[0].lower()))
            assert not verbs & (told[other] - told[on]), (beat, line[0])
