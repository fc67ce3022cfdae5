"""The frame of a class: each of its talks can be told in other ways, which say as much."""

import re

import pytest

from tests.conftest import demo_maker, plan_of, shipped
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.nodes import Step

TALKS = {name: one for name, one in shipped().library.items() if one.otherwise}
CAUTIOUS = ("dizzy", "doctor", "qualified teacher")
MOVES = {"return": ("roll", "{side} side", "sit"), "return-morning": ("roll", "{side} side", "sit"),
         "return-evening": ("{side} side", "slowly")}  # fmt: skip


@pytest.mark.parametrize("name", TALKS)
def test_each_way_to_tell_a_talk_says_as_much(name):
    talk = TALKS[name]
    for way in (talk.said("say"), *talk.otherwise):
        told = " ".join(line[0] for line in way)
        assert all(word in told for word in MOVES.get(name, ()))
        if name.startswith("welcome"):
            assert all(word in told for word in CAUTIOUS)
            assert re.search(r"\bpain\b|\bhurts?\b", told)
            assert "{title}" in told.lower()
        pauses = [float(one) for one in re.findall(r"\[([\d.]+)s\]", told)]
        first = [float(one) for one in re.findall(r"\[([\d.]+)s\]", " ".join(x[0] for x in talk.said("say")))]
        assert sum(pauses) == pytest.approx(sum(first), abs=4)


def test_no_line_of_the_frame_stands_in_two_ways():
    lines = [
        line[0] for talk in TALKS.values() for way in (talk.said("say"), *talk.otherwise) for line in way
    ]
    assert len(lines) == len(set(lines))


def test_a_class_told_otherwise_is_welcomed_otherwise_and_her_own_words_stay():
    plan = demo_maker("bell-ringers").plan
    told = {
        next(cue.text for cue in solve(with_brief(plan, telling=one), shipped()).make(1440.0).cues)
        for one in range(12)
    }
    assert len(told) > 2
    mine = plan_of(Step(movement="welcome", lines={"say": ["Here we are again."]}), Step(movement="mountain"))
    solved = solve(mine, shipped())
    assert solved.make(solved.preferred_s).cues[0].text == "Here we are again."
