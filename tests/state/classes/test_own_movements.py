"""A teacher's own movements: written as she has them, refused with a reason when something is wrong."""

import re

import pytest

from tests.conftest import shipped
from yewhour.content.terms import load_terms
from yewhour.core.plan.nodes import LineEdit
from yewhour.core.problem import Problem
from yewhour.files.file_names import stem_for
from yewhour.state.classes.own_movements import (
    forget_own,
    id_for,
    is_own,
    kept_on_card,
    lines_text,
    own_file,
    read_lines,
    spoken_on,
    table_of,
    write_own,
)
from yewhour.state.teaching_data import load_teaching_data


@pytest.fixture(autouse=True)
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


@pytest.fixture
def terms():
    return load_terms(shipped().positions)


MINE = {"name": "Oar pull", "kind": "hold", "sides": "one", "dose": [3, 5, 8], "effort": 3,
        "call": ["Draw the {side} elbow back. | {Side} elbow back."]}  # fmt: skip


def test_her_movement_is_written_and_loaded_with_the_rest(terms):
    write_own("oar-pull", MINE, terms)
    library, troubles = load_teaching_data()
    assert troubles == []
    mine = library.library["oar-pull"]
    assert is_own(mine)
    assert ("call", "Draw the left elbow back.") in spoken_on(mine, "left", library.library)
    forget_own("oar-pull")
    assert "oar-pull" not in load_teaching_data()[0].library


def test_one_that_ships_is_changed_over_and_given_back(terms):
    table = table_of(shipped().library["child"])
    write_own("child", {**table, "name": "Child, curled"}, terms)
    assert load_teaching_data()[0].library["child"].name == "Child, curled"
    forget_own("child")
    assert load_teaching_data()[0].library["child"].name == shipped().library["child"].name


def test_every_movement_that_ships_can_be_read_as_a_table_and_its_lines_as_text(terms):
    for movement in shipped().library.values():
        table = table_of(movement)
        again = read_lines(lines_text(table))
        assert set(again) <= set(table)
        assert sum(map(len, again.values())) == sum(len(lines) for lines in movement.lines.values()), (
            movement.id
        )


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"dose": [5, 3, 8]}, "not in order"),
        ({"call": ["Move the {hand}."]}, "hand"),
        ({"sides": "both"}, "names a side"),
        ({"start": "the moon"}, "not a position"),
        ({"call": ["word " * 500]}, "more than"),
    ],
)
def test_what_is_wrong_is_told_and_nothing_is_written(terms, change, said):
    with pytest.raises(Problem, match=said):
        write_own("oar-pull", {**MINE, **change}, terms)
    assert not own_file().exists()


def test_a_line_without_a_purpose_is_told_with_its_number():
    with pytest.raises(Problem) as caught:
        read_lines("call: One.\njust words")
    assert caught.value.where == "lines, line 2"


def test_a_damaged_file_of_hers_is_kept_as_it_is(terms):
    own_file().parent.mkdir(parents=True)
    own_file().write_text("[broken")
    with pytest.raises(Problem, match="can't be read"):
        write_own("oar-pull", MINE, terms)
    assert own_file().read_text() == "[broken"


def test_ids_are_made_of_names():
    assert id_for("Größe 2: Oar & Pull!") == "grosse-2-oar-pull"
    others = {id_for(name) for name in ("樹", "木のポーズ", "Лодка", "???")}
    assert len(others) == 4  # each its own, although none has a letter that an id may have
    assert all(re.fullmatch(r"[a-z0-9]+(-[a-z0-9]+)*", name) for name in others)


def test_a_file_is_named_by_its_title_in_any_letters_and_never_too_long():
    assert stem_for("Лодка & Salt") == "лодка-salt"
    assert stem_for("???") == "class"
    assert len(stem_for("樹" * 300).encode()) <= 120


def test_her_comments_and_her_other_movements_stay_as_they_are(terms):
    own_file().parent.mkdir(parents=True)
    own_file().write_text('# Mine, from the slip.\n[oar]\nname = "Oar" # as she says it\n')
    write_own("oar-pull", MINE, terms)
    text = own_file().read_text()
    assert text.startswith('# Mine, from the slip.\n[oar]\nname = "Oar" # as she says it\n')
    assert "[oar-pull]" in text
    forget_own("oar-pull")
    assert own_file().read_text().strip() == '# Mine, from the slip.\n[oar]\nname = "Oar" # as she says it'


@pytest.mark.parametrize("way", [0, 1, 3])
def test_whichever_way_of_placing_she_rewords_hers_is_the_one_from_then_on(terms, way):
    rest = load_teaching_data()[0].library["final-rest"]
    ways = (rest.card.place, *rest.card.placings)
    edit = LineEdit("place", "say", text="Lie as sand lies.", was=ways[way][0])
    card = kept_on_card(rest, edit, "", terms).card
    assert card.place == ("Lie as sand lies.", *ways[way][1:])
    assert card.placings == ()
