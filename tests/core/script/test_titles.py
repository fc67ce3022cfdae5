"""A title as it is spoken: within a sentence, and nobody named twice."""

import pytest

from tests.conftest import made_of, shipped
from yewhour.core.plan.nodes import Step
from yewhour.core.plan.plan import Brief
from yewhour.core.transitions.titles import for_whom, in_a_sentence


@pytest.mark.parametrize(
    ("title", "focus", "spoken"),
    [
        ("A hatha class for runners in the evening", (), "a hatha class for runners in the evening"),
        ("A flow for anyone living with MS", (), "a flow for anyone living with MS"),
        ("Hips for runners", ("hips",), "a class around the hips for runners"),
        ("Legs for runners", ("thighs",), "a class around the legs for runners"),
        ("Slack Water for Two", (), "Slack Water for Two"),
    ],
)
def test_a_title_stands_in_a_sentence(title, focus, spoken):
    areas = shipped().wording.area_words
    said = {"thighs": "legs"} if "thighs" in focus else {}
    assert in_a_sentence(Brief(title=title, focus=focus, said=said), areas) == spoken


def test_whom_a_title_is_for_is_told_from_it():
    assert for_whom("a flow for runners at midday", ["runners"]) == ("a flow at midday", "runners")
    assert for_whom("a flow for runners-up", ["runners"]) == ("a flow for runners-up", "")
    assert for_whom("a flow", ["runners"]) == ("a flow", "")


@pytest.mark.parametrize("telling", range(5))
def test_a_welcome_says_once_for_whom(telling):
    steps = Step(movement="welcome"), Step(movement="mountain", amount=5)
    timed = made_of(*steps, title="A hatha class for runners", audience="runners", telling=telling)
    assert " ".join(cue.text for cue in timed.cues).count("runners") == 1


def test_a_club_has_its_article_and_is_named_once():
    steps = Step(movement="welcome"), Step(movement="mountain", amount=5)
    timed = made_of(*steps, title="A hatha class for the book club", audience="book club", telling=3)
    said = " ".join(cue.text for cue in timed.cues)
    assert said.count("book club") == said.count("the book club") == 1
