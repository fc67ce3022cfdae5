"""Damaged classes, outlines and movements, put through everything: never a traceback, a hang or a loss.

Hypothesis draws the damage, so that what is found is made small. `./yew bench --long` puts many more through.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples
from tools.fuzz import KINDS, damaged, put_through
from yewhour.core.problem import Problem, told_kind
from yewhour.render.formats import FORMATS
from yewhour.state.classes.class_file import parse_plan

TEXTS = tuple(name for name in FORMATS if name != "pdf")


@pytest.mark.parametrize("kind", [kind for kind in KINDS if kind != "captions"])
@given(dice=st.randoms(use_true_random=False))
@examples(20)
def test_whatever_is_damaged_is_told_or_made(kind, dice):
    put_through(kind, damaged(kind, dice), (dice.choice(TEXTS),))


@given(dice=st.randoms(use_true_random=False))
@examples(6)
def test_damaged_captions_are_told_or_looked_at(dice):
    put_through("captions", damaged("captions", dice), ())


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (b'{"yewhour": 3, "sections": 3}', "Expected a list, got a whole number (at sections)"),
        (b'{"yewhour": 3, "brief": {"title": null}}', "Expected text, got nothing (at brief, title)"),
        (b'{"yewhour": 3, "sections": [{"title": "A", "body": [{"is": 4}]}]}', "(at sections, number 1,"),
        (b'{"yewhour": 3, "brief": {"target_s": "long"}}', "Expected a number, got text"),
    ],
)
def test_what_a_damaged_file_has_wrong_is_told_in_words(content, said):
    with pytest.raises(Problem) as told:
        parse_plan(content)
    assert said in str(told.value)
    assert "`" not in str(told.value)


def test_no_message_is_without_end():
    long = Problem("x" * 5000, "y" * 5000, "z" * 5000, [Problem(str(n)) for n in range(100)])
    assert len(str(long).splitlines()[0]) < 1300
    assert "And 70 more like these." in str(long)
    assert told_kind(ValueError("no place in it")) == "no place in it"
