"""What a teacher does to a line: said as she wrote it, on the sides she meant, and taken back."""

import pytest

from tests.conftest import demo_maker, made_of, shipped
from yewhour.core.edits import line_edits
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import apply
from yewhour.core.plan.nodes import Pair, Step
from yewhour.core.problem import Problem


@pytest.fixture
def timed():
    return made_of(
        Step(movement="downward-dog"), Pair(body=(Step(movement="low-lunge", amount=8),)), length_s=None
    )


def again(timed, edit):
    solved = solve(apply(timed.plan, edit), shipped())
    return solved.make(timed.length_s)


def line(timed, side, purpose="check"):
    return next(cue for cue in timed.cues if cue.side == side and cue.purpose in (purpose, "compare"))


def own(timed):
    return {(cue.side, cue.text) for cue in timed.cues if cue.own}


def test_other_words_are_mirrored_where_the_other_side_has_such_a_line_and_can_be_unlinked(timed):
    cue = line(timed, "right", "place")
    messages = again(timed, line_edits.rewritten(timed, cue, "Right heel back, all right, left knee soft."))
    left = ("left", "Left heel back, all right, right knee soft.")
    assert own(messages) == {("right", "Right heel back, all right, left knee soft."), left}
    mine = next(cue for cue in messages.cues if cue.own and cue.side == "right")
    assert line_edits.is_linked(messages, mine)
    apart = again(messages, line_edits.on_both_sides(messages, mine))
    assert own(apart) == own(messages)
    mine = next(cue for cue in apart.cues if cue.own and cue.side == "right")
    other = again(apart, line_edits.rewritten(apart, mine, "Right heel far back."))
    assert own(other) == {("right", "Right heel far back."), left}
    mine = next(cue for cue in other.cues if cue.own and cue.side == "right")
    linked = again(other, line_edits.on_both_sides(other, mine))
    assert own(linked) == {("right", "Right heel far back."), ("left", "Left heel far back.")}


def test_words_replaced_everywhere_are_replaced_once_in_a_line_that_both_sides_have(timed):
    cue = line(timed, "right", "place")
    messages = again(timed, line_edits.rewritten(timed, cue, "Right heel to the quay."))
    edit, _ = line_edits.replaced(messages, "quay", "harbour")
    assert own(again(messages, edit)) == {
        ("right", "Right heel to the harbour."),
        ("left", "Left heel to the harbour."),
    }


def test_a_line_left_unsaid_is_gone_and_comes_back(timed):
    cue = line(timed, "right")
    messages = again(timed, line_edits.muted(timed, cue))
    assert not [c for c in messages.cues if (c.segment, c.text) == (cue.segment, cue.text)]
    assert again(messages, line_edits.unmuted(messages.plan.edits[0])).cues == timed.cues


def test_no_words_at_all_leave_a_line_unsaid(timed):
    assert line_edits.rewritten(timed, line(timed, "right"), "   ").say[0].do == "mute"


def test_a_pinned_line_stays_at_its_second_and_moves_by_half_seconds(timed):
    cue = line(timed, "right")
    messages = again(timed, line_edits.pinned(timed, cue, 0.5))
    mine = next(c for c in messages.cues if c.own)
    assert mine.start == cue.start + 5
    assert line_edits.is_pinned(messages, mine)
    assert again(messages, line_edits.restored(messages, mine)).cues == timed.cues


def test_putting_back_what_was_not_changed_is_told(timed):
    with pytest.raises(Problem, match="as the program has it"):
        line_edits.restored(timed, line(timed, "right"))
    with pytest.raises(Problem, match="no other side"):
        line_edits.on_both_sides(timed, next(cue for cue in timed.cues if cue.side == "both"))
    with pytest.raises(Problem, match="on both sides already"):
        line_edits.on_both_sides(timed, line(timed, "right"))


def test_a_dropped_line_is_taken_in_and_said():
    solved = demo_maker("bell-ringers")
    timed = solved.make()
    left = next(line for line in timed.dropped if not line.must)
    messages = solve(apply(timed.plan, line_edits.taken_in(timed, left)), shipped()).make(timed.length_s)
    where = {segment.id: segment.use.step.id for segment in messages.segments}
    step = {segment.id: segment.use.step.id for segment in timed.segments}[left.segment]
    said = [cue for cue in messages.cues if cue.own and where[cue.segment] == step]
    assert [cue.text for cue in said] == [left.text] or any(
        line.text == left.text for line in messages.dropped if line.must
    )


def test_an_added_line_is_said_reworded_and_taken_out_again(timed):
    segment = next(s for s in timed.segments if s.use.movement.id == "low-lunge" and s.kind == "hold")
    messages = again(timed, line_edits.added(segment, "  The tide\nis out. ", 4.0))
    mine = next(cue for cue in messages.cues if cue.own)
    assert mine.text == "The tide is out."
    other = again(messages, line_edits.rewritten(messages, mine, "The tide is in."))
    assert [cue.text for cue in other.cues if cue.own] == ["The tide is in."]
    assert again(other, line_edits.muted(other, next(c for c in other.cues if c.own))).cues == timed.cues
    with pytest.raises(Problem, match="nothing to say"):
        line_edits.added(segment, " ")


def test_a_novel_is_no_line(timed):
    with pytest.raises(Problem, match="61 words is more than anybody says"):
        line_edits.rewritten(timed, line(timed, "right"), "word " * 61)


def test_words_are_replaced_in_every_line_that_has_them_as_one_edit(timed):
    count = len(line_edits.lines_with(timed, "knee"))
    assert count > 1
    edit, lines = line_edits.replaced(timed, "knee", "shin")
    messages = again(timed, edit)
    assert lines == count
    assert not line_edits.lines_with(messages, "knee")
    assert line_edits.replaced(timed, "zebra", "horse")[1] == 0


@pytest.mark.parametrize(
    ("movement", "purpose"), [("mountain", "align"), ("final-rest", "rest"), ("farewell", "say")]
)
def test_an_added_line_is_said_as_what_is_said_there(movement, purpose):
    steps = [Step(movement="mountain"), Step(movement="final-rest", amount=60), Step(movement="farewell")]
    timed = made_of(*steps)
    segment = next(
        one for one in timed.segments if one.use.step.movement == movement and not one.use.setup_for
    )
    assert line_edits.added(segment, "The tide is out.").say[0].purpose == purpose
