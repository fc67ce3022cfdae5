"""Positions, and the ways between them."""

import pytest

from tests.conftest import shipped
from yewhour.content.paths import DATA
from yewhour.content.terms import load_positions, unreachable
from yewhour.core.library.position import (
    START,
    PositionGraph,
    changes_of,
    needs_of,
    places_of,
)
from yewhour.core.problem import Problem
from yewhour.core.wording.directions import directions

POSITIONS = shipped().positions


def test_every_position_can_be_reached_from_every_other():
    assert not unreachable(POSITIONS, DATA)
    assert all(POSITIONS.reaches(START, place) for place in POSITIONS.places)


@pytest.mark.parametrize("place", POSITIONS.places)
def test_a_way_to_where_one_is_has_no_words_and_takes_no_time(place):
    assert POSITIONS.way(place, place).changes == ()
    assert POSITIONS.way(place, place).end == place


def test_who_lies_at_the_wall_does_not_stand_at_it():
    for here, last in (("seated crossed", "Stand an arm"), ("wall-lying", "Stand an arm")):
        assert POSITIONS.way(here, "wall").changes[-1].say[0].startswith(last)
    assert "legs up it" not in " ".join(one.say[0] for one in POSITIONS.way("seated crossed", "wall").changes)


def test_a_way_goes_from_change_to_change_without_a_gap():
    for start in POSITIONS.places:
        for end in POSITIONS.places:
            way = POSITIONS.way(start, end)
            places = [start, *(change.end for change in way.changes)]
            assert [change.start for change in way.changes] == places[:-1]
            assert POSITIONS.meets(way.end, end)
            assert 0 <= way.least_s <= way.usual_s


def test_ways_are_said_in_three_wordings_without_a_token_left():
    for change in (POSITIONS.way(a, b) for a in POSITIONS.places for b in POSITIONS.places):
        for one in change.changes:
            assert len(one.say) == 3, one
            assert not any("{" in text for text in one.say), one
            lengths = [len(text.split()) for text in one.say]
            assert lengths == sorted(lengths, reverse=True), one


@pytest.mark.parametrize(("start", "end", "side"), [
    ("inverted", "split right low", "right"), ("supine bent", "on-left bent", "left"),
    ("on-left long", "on-right long", "right"), ("standing", "wide right", "left"),
])  # fmt: skip
def test_a_way_names_the_side_it_goes_to(start, end, side):
    first = POSITIONS.way(start, end).changes[0].say[1]
    assert side in directions(first)


@pytest.mark.parametrize(("start", "end", "least", "most"), [
    ("supine bent", "prone", 11, 16), ("prone", "kneeling child", 8, 14), ("inverted", "seated long", 14, 20),
    ("standing", "four-point", 10, 24), ("seated bent", "standing", 26, 36), ("standing", "supine", 30, 45),
    ("on-right bent", "on-left bent", 10, 28), ("seated bent", "supine", 12, 21),
])  # fmt: skip
def test_ways_take_the_measured_seconds_of_practice(start, end, least, most):
    assert least <= POSITIONS.between(start, end) <= most


def test_lifted_hips_are_lowered_before_anything_else():
    for end in ("prone", "on-right", "seated", "supine long"):
        assert POSITIONS.way("supine bridge", end).changes[0].end == "supine bent"


def test_of_two_ways_the_one_with_fewer_changes_is_taken_where_they_are_near_each_other():
    assert len(POSITIONS.way("standing", "supine bent").changes) == 1


def test_a_need_may_leave_the_form_open_or_name_several_positions():
    for place, need in (("seated crossed", "seated"), ("chair", "seated or chair"), ("wide", "wide")):
        assert POSITIONS.meets(place, need)
    for place, need in (("seated long", "seated crossed"), ("split left low", "split right")):
        assert not POSITIONS.meets(place, need)
    for place, need in (("wide right", "wide"), ("folded wide", "folded")):  # no form is a form, too
        assert not POSITIONS.meets(place, need)
    assert POSITIONS.way("chair", "seated or chair").changes == ()
    assert POSITIONS.usual("seated or chair") == "seated crossed"
    assert "split right" in needs_of(POSITIONS.places)


def test_a_form_kept_apart_is_left_by_ways_of_its_own_only():
    places = places_of({"mat": ["flat", "arched"], "rug": [""]})
    ways = [*changes_of("mat *", "rug", (2, 1), ("Go.",), False, places, ["mat arched"])]
    assert [way.start for way in ways] == ["mat flat"]


def test_what_can_t_be_reached_is_told():
    alone = PositionGraph(("a", "b"), ())
    with pytest.raises(Problem, match="no way from a to b"):
        alone.way("a", "b")
    assert len(unreachable(alone, DATA)) == 2


OWN = """
[ways]
"seated long -> rug" = { seconds = [4, 2], say = "Onto the rug." }
"seated long" = { seconds = [4, 2], say = "Nowhere." }
"seated long -> supine long" = { seconds = [2, 4], say = "Lie down." }
"prone -> supine bent" = { seconds = [4, 2], say = "" }
"supine long -> prone" = { seconds = [40, 20], say = "Over, like a pancake." }
"""


def test_a_teacher_s_own_ways_come_over_ours_and_what_is_wrong_is_told_all_at_once(tmp_path):
    (tmp_path / "positions.toml").write_text(OWN, encoding="utf-8")
    positions, problems = load_positions(tmp_path)
    assert positions.way("supine long", "prone").usual_s <= 40
    messages = "\n".join(str(problem) for problem in problems)
    for words in ("'rug' is not a position", "no arrow", "not in order", "says nothing"):
        assert words in messages
    assert messages.count("positions.toml") >= 4


def test_a_positions_file_of_the_wrong_shape_is_told_and_ours_still_holds(tmp_path):
    for text in ("bases = 3\nways = [1]\n", "[roads]\n", "[ways\n"):
        (tmp_path / "positions.toml").write_text(text, encoding="utf-8")
        positions, problems = load_positions(tmp_path)
        assert len(problems) == 1
        assert "positions.toml" in str(problems[0])
        assert positions.places == POSITIONS.places


def test_a_form_of_ones_own_takes_none_of_ours_away(tmp_path):
    text = '[bases]\nseated = ["lotus"]\n[ways]\n'
    text += '"seated * -> seated lotus" = { seconds = [9, 5], say = "Lotus." }\n'
    text += '"seated lotus -> seated crossed" = { seconds = [9, 5], say = "Cross your legs." }\n'
    (tmp_path / "positions.toml").write_text(text, encoding="utf-8")
    positions, problems = load_positions(tmp_path)
    assert problems == []
    assert set(POSITIONS.places) < set(positions.places)
    assert positions.way("supine bridge", "prone").changes[0].end == "supine bent"


def test_what_is_wrong_with_a_way_names_its_line(tmp_path):
    (tmp_path / "positions.toml").write_text('[ways]\n\n"seated long" = { seconds = [4, 2], say = "No." }\n')
    _, problems = load_positions(tmp_path)
    assert problems[0].where.endswith("positions.toml, line 3")
