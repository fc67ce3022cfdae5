"""A class for children: spoken to them all through, and drafted of what is told to them."""

import pytest

from tests.conftest import shipped
from yewhour.content.draft_model_file import load_model
from yewhour.content.promise_file import promise_reader
from yewhour.core.draft.draft import draft_class
from yewhour.core.draft.draft_model import DraftRequest

WORDS = shipped()
TOLD = WORDS.tellings("children")


def drafted(promise):
    brief = promise_reader(WORDS).read(promise).brief
    return draft_class(DraftRequest(brief), WORDS, load_model()).timed


@pytest.mark.parametrize(
    "promise", ["kids yoga 20 minutes, animals", "20 minutes for my grandkids before bed"]
)
def test_all_of_it_is_told_to_children(promise):
    timed = drafted(promise)
    names = {one.use.movement.id for one in timed.segments}
    assert names <= TOLD.movements.keys()
    said = {cue.text for cue in timed.cues}
    for name in names:
        card = WORDS.library[name].card
        for text in (*card.aim, *card.check, *card.image, *card.choice) if card else ():
            assert text not in said, name
    assert any("Grown-ups" in text or "grown-ups" in text or "looks after you" in text for text in said)


def test_animals_are_met():
    timed = drafted("kids yoga 20 minutes, animals")
    animals = WORDS.conditions.groups["animals"]
    assert sum(animals.has(one.use.movement) for one in timed.segments) >= 5


def test_others_are_told_as_before():
    timed = drafted("hatha 20 minutes")
    assert timed.segments[0].use.movement is WORDS.library[timed.segments[0].use.movement.id]
