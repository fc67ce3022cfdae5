"""The highest point of a class: where it is one to be tried, it is tried twice, gently first."""

import pytest

from tests.conftest import shipped
from yewhour.content.draft_model_file import load_model
from yewhour.content.promise_file import promise_reader
from yewhour.core.draft.draft import draft_class
from yewhour.core.draft.draft_model import DraftRequest
from yewhour.core.draft.to_plan import taught_flows
from yewhour.core.plan.nodes import Rounds

WORDS = shipped()


def steps(promise, seed=0):
    brief = promise_reader(WORDS).read(promise).brief
    timed = draft_class(DraftRequest(brief, seed), WORDS, load_model()).timed
    return [one.use.step for one in timed.segments if not one.behaviour.is_setup]


def test_an_arm_balance_is_tried_gently_and_then_again_after_a_breath():
    tries = [
        (n, one)
        for n, one in enumerate(steps("45 min vinyasa flow towards crow, experienced"))
        if one.movement == "crow"
    ]
    (first, gently), (second, whole) = tries
    assert (gently.take, whole.take) == ("gentler", "base")
    assert second == first + 2  # a squat between


def test_who_is_no_more_than_gentle_tries_it_gently_both_times():
    tries = [one for one in steps("45 min vinyasa flow towards crow") if one.movement == "crow"]
    assert [one.take for one in tries] == ["gentler", "gentler"]


@pytest.mark.parametrize(
    "promise", ["60 min vinyasa peak headstand, experienced", "45 min hatha towards pigeon"]
)
def test_what_turns_upside_down_or_has_two_sides_is_done_once(promise):
    name = promise_reader(WORDS).read(promise).brief.peak
    assert len({one.id for one in steps(promise) if one.movement == name}) == 1


def test_a_flow_is_taught_to_all_but_the_experienced():
    reader = promise_reader(WORDS)
    mixed, able = (DraftRequest(reader.read(f"60 min vinyasa{more}").brief) for more in ("", ", experienced"))
    flows = taught_flows(mixed, WORDS.blocks)
    assert isinstance(flows["sun salutation a"], Rounds)
    assert flows["sun salutation a"].teach
    assert "cat-cow" not in flows
    assert taught_flows(able, WORDS.blocks) == {}
