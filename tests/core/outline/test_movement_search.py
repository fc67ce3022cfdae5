"""Movements are found by whatever a teacher types, and ranked by what can follow."""

import pytest

from tests.conftest import shipped
from yewhour.core.outline.movement_search import MovementSearch
from yewhour.core.plan.nodes import Pair, Step
from yewhour.core.plan.plan import Brief
from yewhour.core.problem import Problem


@pytest.fixture(scope="module")
def finder():
    return MovementSearch(shipped().library, shipped().positions)


def names(finder, typed, **where):
    return [hit.movement.id for hit in finder.find(typed, **where)[0]]


@pytest.mark.parametrize(
    ("typed", "first"),
    [
        ("downw", "downward-dog"),
        ("anjaneyasana", "low-lunge"),
        ("low lunge 5b pair", "low-lunge"),
        ("low lunge 5", "low-lunge"),
        ("final rest 3:00", "final-rest"),
        ("coming back", "return"),
    ],
)
def test_a_name_or_part_of_it_finds_the_movement_with_its_dose_or_without(finder, typed, first):
    assert names(finder, typed)[0] == first


def test_areas_props_and_positions_find_movements_too(finder):
    for typed, field in (("hips", "opens"), ("strap", "props"), ("supine", "start")):
        found = finder.find(typed)[0]
        assert found, typed
        assert any(
            typed in str(getattr(hit.movement, field)) or typed in hit.movement.name.lower() for hit in found
        )


def test_every_word_must_match_something(finder):
    assert names(finder, "lunge bolster zebra") == []
    assert set(names(finder, "lunge turn")) <= set(names(finder, "lunge"))


def test_what_needs_no_set_up_comes_before_what_does(finder):
    here = shipped().library["child"].start
    found = finder.find("", here=here)[0]
    assert [hit.setup_s for hit in found] == sorted(hit.setup_s for hit in found)
    assert all(hit.movement.kind not in ("talk", "setup") for hit in found)


def test_what_the_class_is_about_comes_first_of_equals(finder):
    hit = finder.find("", focus=("hips",))[0][0].movement
    assert "hips" in (*hit.works, *hit.opens)


def test_cautions_of_the_room_are_shown_and_only_those(finder):
    hit = next(
        hit for hit in finder.find("low lunge", room=shipped().room(Brief(cautions=("knees", "wrists"))))[0]
    )
    assert hit.matters == ("knees", "wrists")
    assert finder.find("low lunge")[0][0].matters == ()


def test_a_typed_line_is_a_step_and_what_has_a_side_a_pair(finder):
    assert isinstance(finder.step("low-lunge", "5b"), Pair)
    assert isinstance(finder.step("low-lunge", "5b left"), Step)
    assert isinstance(finder.step("low-lunge", "in"), Step)
    assert isinstance(finder.step("low-lunge", "5b", pairs=False), Step)
    assert isinstance(finder.step("downward-dog"), Step)
    assert finder.step("low-lunge", "5b pair left").lead == "left"
    with pytest.raises(Problem, match="not counted in"):
        finder.step("downward-dog", "5x")


def test_what_is_one_idea_but_several_movements_is_found_as_a_block():
    words = shipped()
    finder = MovementSearch(words.library, words.positions, words.blocks)
    for typed, block in (
        ("sun salutation a", "sun salutation a"),
        ("cat-cow", "cat-cow"),
        ("moon", "moon salutation"),
    ):
        found = [hit.block for hit in finder.find(typed)[0] if hit.block]
        assert found[0] == block
    assert finder.find("sun salutation b")[0][0].block == "sun salutation b"


def test_a_name_typed_in_full_comes_first():
    finder = MovementSearch(shipped().library, shipped().positions)
    for typed, movement in (
        ("warrior 2", "warrior-two"),
        ("plow", "plough"),
        ("bow", "bow"),
        ("frog", "frog-stretch"),
    ):
        assert finder.find(typed)[0][0].movement.id == movement


@pytest.mark.parametrize(
    ("typed", "first", "dose"),
    [
        ("trinagle", "Triangle", ""), ("figure four strap", "Figure four", ""),
        ("strap figure four", "Figure four", ""),
        ("warior 2", "Warrior II", ""), ("cobbra 3b", "Cobra", "3b"), ("bird dog 6", "Bird dog", "6"),
        ("legs up teh wall", "Legs up the wall", ""), ("sun salutatoin b", "Sun salutation b", ""),
        ("downwrad dog 5 pair", "Downward-facing dog", "5 pair"),
    ],
)  # fmt: skip
def test_what_is_misspelt_or_too_much_finds_what_was_meant_and_the_number_is_kept(typed, first, dose):
    search = MovementSearch(shipped().library, shipped().positions, shipped().blocks)
    found, got = search.find(typed)
    assert (found[0].movement.name, got) == (first, dose)


def test_a_number_alone_is_in_the_unit_of_its_movement(finder):
    assert finder.step("low-lunge", "6", pairs=False).amount == 6
    assert finder.step("final-rest", "90").amount == 90
    assert finder.find("zzqx qqz")[0] == []
