"""How a class is told to some: every file says it of movements that there are, whole, and as safely."""

import msgspec
import pytest

from tests.conftest import shipped
from yewhour.content.card_files import faults
from yewhour.content.telling_files import FOLDER, load_tellings, tellings_but
from yewhour.core.library.telling import told
from yewhour.core.problem import Problem

WORDS = shipped()
FILES = sorted(FOLDER.glob("*.toml"))
CHILDREN = load_tellings(FOLDER / "children.toml").movements
WORKED = sorted(name for name in CHILDREN if not WORDS.library[name].behaviour.framing)


@pytest.mark.parametrize("path", FILES, ids=lambda path: path.stem)
def test_a_file_is_of_a_condition_and_of_movements_and_lines_that_there_are(path):
    tellings = load_tellings(path)
    assert path.stem in WORDS.conditions.conditions
    assert tellings.movements.keys() <= WORDS.library.keys()
    assert {*tellings.wording} <= {*WORDS.wording.__struct_fields__}


def test_standing_lines_name_what_those_they_stand_for_name():
    wording = load_tellings(FOLDER / "children.toml").wording
    for field in ("more_reps", "more_breaths", "number_first", "number_alternating"):
        assert all("{n}" in line or "{N}" in line for line in wording[field]), field
        assert any("{n}" in line[0].lower() for line in getattr(WORDS.wording, field))


@pytest.mark.parametrize("name", WORKED)
def test_a_movement_is_told_whole(name):
    movement, telling = WORDS.library[name], CHILDREN[name]
    assert faults(told(movement, telling).card, frozenset(WORDS.facets.names)) == []
    assert telling.aim
    assert bool(telling.first) == bool(movement.card.first)
    if movement.sides == "one" and movement.kind == "hold":
        assert telling.again


@pytest.mark.parametrize("name", sorted(CHILDREN.keys() - {*WORKED}))
def test_every_way_to_tell_a_talk_has_all_its_lines(name):
    lines = len(WORDS.library[name].said("say"))
    assert [1 if isinstance(way, str) else len(way) for way in CHILDREN[name].say] == [lines] * len(
        CHILDREN[name].say
    )


@pytest.mark.parametrize("name", ["welcome", "welcome-short"])
def test_no_welcome_drops_the_words_of_care(name):
    for way in CHILDREN[name].say:
        said = " ".join(way).lower()
        assert "hurt" in said
        assert "dizzy" in said or "room goes round" in said
        assert "doctor or a qualified teacher" in said


def test_what_a_telling_leaves_out_is_the_cards_but_no_thought_of_it_is():
    tree = WORDS.library["tree"]
    said = told(tree, CHILDREN["tree"])
    assert said.card.leave == tree.card.leave
    assert said.card.protect == tree.card.protect
    assert not {*tree.card.aim, *tree.card.check, *tree.card.image, *tree.card.choice} & {
        text for _, text in said.card.lines()
    }
    assert said.id == "tree"
    assert told(tree, msgspec.structs.replace(CHILDREN["tree"], name="")).name == tree.name


def test_what_she_has_made_hers_is_told_as_she_tells_it():
    assert "tree" not in tellings_but(frozenset(["tree"]))("children").movements
    assert tellings_but(frozenset())("knees") is None


def test_a_file_that_can_not_be_read_is_told(tmp_path):
    (tmp_path / "odd.toml").write_text("[tree]\nsong = 1\n")
    with pytest.raises(Problem, match="can't be read"):
        load_tellings(tmp_path / "odd.toml")
