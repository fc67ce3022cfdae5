"""What a teacher does to a line: said as she wrote it, on the sides she meant, and taken back."""

import pytest

from tests.conftest import demo_maker, made_of, shipped
from yewhour.core.edits import line_edits
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import apply
from yewhour.core.plan.nodes import Pair, Step
from yewhour.core.problem import Problem


@pytest.fixture
def made():
    return made_of(
        Step(movement="downward-dog"), Pair(body=(Step(movement="low-lunge", amount=8),)), length_s=None
    )


def again(made, edit):
    solved = solve(apply(made.plan, edit), shipped())
    return solved.make(made.length_s)


def line(made, side, purpose="align"):
    return next(cue for cue in made.cues if cue.side == side and cue.purpose == purpose)


def test_other_words_stay_on_their_side_and_are_mirrored_when_asked(made):
    cue = line(made, "right")
    told = again(made, line_edits.rewritten(made, cue, "Right heel back, left knee soft."))
    mine = next(cue for cue in told.cues if cue.own)
    assert (mine.side, mine.text) == ("right", "Right heel back, left knee soft.")
    both = again(told, line_edits.on_both_sides(told, mine))
    assert {cue.text for cue in both.cues if cue.own} == {
        "Right heel back, left knee soft.",
        "Left heel back, right knee soft.",
    }
    once = again(
        both, line_edits.on_both_sides(both, next(c for c in both.cues if c.own and c.side == "right"))
    )
    assert [cue.side for cue in once.cues if cue.own] == ["right"]


def test_a_line_left_unsaid_is_gone_and_comes_back(made):
    cue = line(made, "right")
    told = again(made, line_edits.muted(made, cue))
    assert not [c for c in told.cues if (c.segment, c.text) == (cue.segment, cue.text)]
    assert again(told, line_edits.unmuted(told.plan.edits[0])).cues == made.cues


def test_no_words_at_all_leave_a_line_unsaid(made):
    assert line_edits.rewritten(made, line(made, "right"), "   ").say[0].do == "mute"


def test_a_pinned_line_stays_at_its_second_and_moves_by_half_seconds(made):
    cue = line(made, "right")
    told = again(made, line_edits.pinned(made, cue, 0.5))
    mine = next(c for c in told.cues if c.own)
    assert mine.start == cue.start + 5
    assert line_edits.is_pinned(told, mine)
    assert again(told, line_edits.restored(told, mine)).cues == made.cues


def test_putting_back_what_was_not_changed_is_told(made):
    with pytest.raises(Problem, match="as the program has it"):
        line_edits.restored(made, line(made, "right"))
    with pytest.raises(Problem, match="no other side"):
        line_edits.on_both_sides(made, next(cue for cue in made.cues if cue.side == "both"))
    with pytest.raises(Problem, match="on both sides already"):
        line_edits.on_both_sides(made, line(made, "right"))


def test_a_dropped_line_is_taken_in_and_said():
    solved = demo_maker("bell-ringers")
    made = solved.make()
    left = next(line for line in made.dropped if not line.must)
    told = solve(apply(made.plan, line_edits.taken_in(made, left)), shipped()).make(made.length_s)
    where = {segment.id: segment.turn.step.id for segment in told.segments}
    step = {segment.id: segment.turn.step.id for segment in made.segments}[left.segment]
    said = [cue for cue in told.cues if cue.own and where[cue.segment] == step]
    assert [cue.text for cue in said] == [left.text] or any(
        line.text == left.text for line in told.dropped if line.must
    )


def test_an_added_line_is_said_reworded_and_taken_out_again(made):
    segment = next(s for s in made.segments if s.turn.movement.id == "low-lunge" and s.kind == "hold")
    told = again(made, line_edits.added(segment, "  The tide\nis out. ", 4.0))
    mine = next(cue for cue in told.cues if cue.own)
    assert mine.text == "The tide is out."
    other = again(told, line_edits.rewritten(told, mine, "The tide is in."))
    assert [cue.text for cue in other.cues if cue.own] == ["The tide is in."]
    assert again(other, line_edits.muted(other, next(c for c in other.cues if c.own))).cues == made.cues
    with pytest.raises(Problem, match="nothing to say"):
        line_edits.added(segment, " ")


def test_a_novel_is_no_line(made):
    with pytest.raises(Problem, match="61 words is more than anybody says"):
        line_edits.rewritten(made, line(made, "right"), "word " * 61)


def test_words_are_replaced_in_every_line_that_has_them_as_one_edit(made):
    count = len(line_edits.lines_with(made, "knee"))
    assert count > 1
    edit, lines = line_edits.replaced(made, "knee", "shin")
    told = again(made, edit)
    assert lines == count
    assert not line_edits.lines_with(told, "knee")
    assert line_edits.replaced(made, "zebra", "horse")[1] == 0
