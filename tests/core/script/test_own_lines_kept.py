"""The teacher's own lines stay on their step, on their side, through every new fit."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples, plan_of, shipped
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import with_edits
from yewhour.core.plan.nodes import LineEdit, Pair, Step
from yewhour.core.sides import fill
from yewhour.core.wording.directions import directions, tokenised

NODES = (
    Pair(body=(Step(movement="low-lunge", id="lunge"),), lead="right"),
    Step(movement="downward-dog", id="dog"),
    Step(movement="final-rest", id="rest"),
)


def timed(*edits, length_s=None):
    solved = solve(with_edits(plan_of(*NODES), edits), shipped())
    return solved.make(length_s or solved.preferred_s)


def lines(timed, step):
    by_id = {segment.id: segment for segment in timed.segments}
    return [(c.side, c.text) for c in timed.cues if by_id[c.segment].use.step.id == step]


@pytest.mark.parametrize("length_s", [245, 260, 330])
def test_a_rewritten_line_stays_at_every_length(length_s):
    edit = LineEdit(
        step="lunge", purpose="align", do="rewrite", number=0, side="right", text="Press your right heel."
    )
    assert ("right", "Press your right heel.") in lines(timed(edit, length_s=length_s), "lunge")
    assert not any(
        "Press your" in text
        for side, text in lines(timed(edit, length_s=length_s), "lunge")
        if side == "left"
    )


def test_a_first_side_edit_is_mirrored_when_asked():
    text = "Right foot out, all right, and look past your left hand."
    edit = LineEdit(step="lunge", purpose="align", do="rewrite", number=0, side="right", both=True, text=text)
    said = lines(timed(edit), "lunge")
    assert ("right", text) in said
    assert ("left", "Left foot out, all right, and look past your right hand.") in said


def test_a_muted_line_is_not_said():
    before = {text for _, text in lines(timed(), "dog")}
    after = {text for _, text in lines(timed(LineEdit(step="dog", purpose="aim", do="mute")), "dog")}
    gone = before - after
    assert len(gone) == 1
    assert min(gone) in shipped().library["downward-dog"].card.aim


def test_what_was_reworded_before_movements_had_cards_is_carried_over():
    call = LineEdit(step="dog", purpose="call", do="rewrite", text="Hips up, as on the quay.")
    assert ("both", "Hips up, as on the quay.") in lines(timed(call), "dog")
    body = LineEdit(step="dog", purpose="align", do="rewrite", number=1, text="Hands like rakes.")
    assert ("both", "Hands like rakes.") in lines(timed(body), "dog")
    for edit in (call, body, LineEdit(step="dog", purpose="stay", do="mute", number=1)):
        assert timed(edit).lost_edits == ()


def test_an_added_line_is_said_and_a_pinned_one_is_said_when_pinned():
    added = LineEdit(step="dog", purpose="stay", do="add", text="Wag a little.", at_s=9.0)
    assert ("both", "Wag a little.") in lines(timed(added), "dog")
    pinned = timed(LineEdit(step="dog", purpose="aim", do="pin", number=0, at_s=12.0))
    dog = next(s for s in pinned.segments if s.id == "dog")
    assert any(cue.start == dog.start + 120 for cue in pinned.cues)


def test_an_edit_whose_place_is_gone_is_marked():
    lost = LineEdit(step="dog", purpose="half", do="rewrite", text="Nowhere.")
    assert timed(lost).lost_edits == (lost,)
    assert any(finding.code == "lost-edit" for finding in timed(lost).findings)


@pytest.mark.parametrize(
    ("line", "named"),
    [
        ("Right foot forward.", {"right"}),
        ("All right, right away, at a right angle, upright.", set()),
        ("Turn to the left, then right.", {"left", "right"}),
        ("Two breaths left.", set()),
        ("What is left of the day.", set()),
        ("Left hand over right knee.", {"left", "right"}),
        ("That feels right for you.", set()),
    ],
)
def test_directions_are_told_from_other_rights_and_lefts(line, named):
    assert directions(line) == named


@given(
    st.sampled_from(
        ["Right knee over left.", "Look left, all right.", "Step your right foot to the left edge."]
    )
)
def test_a_line_mirrored_twice_is_what_it_was(line):
    once = fill(tokenised(line, "right"), "left")
    assert fill(tokenised(once, "left"), "right") == line


@examples(12)
@given(st.text(max_size=400), st.sampled_from(["rewrite", "add", "pin"]))
def test_any_words_at_all_leave_the_class_whole(text, do):
    result = timed(LineEdit(step="dog", purpose="align", do=do, text=text, at_s=3.0))
    assert result.segments[-1].end == result.length
    for before, after in zip(result.cues, result.cues[1:], strict=False):
        assert before.end < after.start


def test_a_longer_line_of_a_talk_or_a_way_in_gets_the_time_it_takes():
    long = "This is a good deal longer than what the script would have said here by itself, and it may be."
    talk = Step(movement="welcome", id="hello")
    plain = solve(plan_of(talk, *NODES), shipped())
    for step, purpose in (("hello", "say"), ("lunge", "call")):
        edit = LineEdit(step=step, purpose=purpose, do="rewrite", text=long)
        solved = solve(with_edits(plain.plan, (edit,)), shipped())
        assert solved.shortest_s > plain.shortest_s
        timed = solved.make(solved.preferred_s)
        assert long in [cue.text for cue in timed.cues]
        assert "unsaid" not in {finding.code for finding in timed.findings}


def test_a_muted_line_of_a_talk_gives_its_time_back():
    talk = Step(movement="welcome", id="hello")
    plain = solve(plan_of(talk, *NODES), shipped())
    edits = (LineEdit(step="hello", purpose="say", do="mute"),)
    assert solve(with_edits(plain.plan, edits), shipped()).shortest_s < plain.shortest_s


@pytest.mark.parametrize(
    "text", ["{n} more.", "Stay in {name}, {whoever}.", "{Breath} and {side}.", "{prop}"]
)
def test_no_line_of_hers_is_spoken_with_a_brace(text):
    own = LineEdit(step="n1", purpose="align", do="add", text=text)
    child = Step(movement="child", id="n1", amount=6, lines={"call": [text]})
    plan = plan_of(child, Step(movement="final-rest"))
    solved = solve(with_edits(plan, (own,)), shipped())
    cues = solved.make(solved.preferred_s).cues
    assert not any("{" in cue.text or "}" in cue.text for cue in cues)
    if "{name}" in text:
        assert sum("Stay in Child" in cue.text for cue in cues) == 2
