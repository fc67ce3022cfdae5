"""The figures that ship: every movement has one, all are sound; those of her own, and what is wrong there."""

import shutil

import msgspec
import pytest

from tests.conftest import shipped, some_of
from yewhour.content.figure_files import (
    LINES,
    MADE,
    figures_from_lines,
    figures_of,
    load_figures,
    portrait,
)
from yewhour.content.movement_files import load_library
from yewhour.content.terms import load_terms
from yewhour.core.figure.body import mirrored, stance
from yewhour.core.figure.figures import Figures
from yewhour.core.figure.validate import figure_faults
from yewhour.files.toml_files import read_toml

FAMILIES = sorted(path.name for path in LINES.glob("*.toml") if path.name != "positions.toml")


@pytest.mark.parametrize("family", some_of(FAMILIES, 3))
def test_the_file_is_what_the_lines_say(family, tmp_path):
    for name in ("positions.toml", family):
        shutil.copy(LINES / name, tmp_path / name)
    timed, problems = figures_from_lines(shipped().library, tmp_path)
    assert [str(problem) for problem in problems] == []
    kept = msgspec.json.decode(MADE.read_bytes(), type=Figures)
    assert kept.positions.keys() == timed.positions.keys()
    assert timed.own
    for name, figures in timed.own.items():  # another machine may settle a tenth of a degree otherwise
        for one, other in zip(figures, kept.own[name], strict=True):
            assert (one.view, one.rests, one.held) == (other.view, other.rests, other.held), name
            assert all(abs(one.angle(a) - other.angle(a)) < 1 for a in other.angles), (
                f"{name}: run tools.figures"
            )


def test_every_figure_that_is_kept_has_its_lines():
    named = {name for family in FAMILIES for name in read_toml(LINES / family)}
    assert load_figures().own.keys() == named


def test_every_movement_that_is_done_has_a_figure_and_most_their_own():
    done = [one for one in shipped().library.values() if one.kind != "talk" and one.start]
    assert [one.id for one in done if not figures_of(one)] == []
    assert sum(one.id in load_figures().own for one in done) >= 380


def test_limits_and_contacts_hold_for_every_figure_on_both_sides():
    every = {**{name: (one,) for name, one in load_figures().positions.items()}, **load_figures().own}
    for name, figures in every.items():
        for figure in figures:
            for one in (figure, mirrored(figure)):
                assert list(figure_faults(one, exact=True)) == [], name
            assert stance(mirrored(mirrored(figure))) == stance(figure)


def test_every_position_of_the_data_is_drawn():
    for position in load_terms(shipped().positions).positions:
        assert load_figures().at(position) is not None, position


def test_what_repeats_goes_from_somewhere_to_somewhere():
    still = [
        one.id
        for one in shipped().library.values()
        if one.kind in ("reps", "pulses") and one.effort >= 2 and len(figures_of(one)) < 2
    ]
    assert len(still) <= 8, still  # what can hardly be seen to move


def test_a_movement_done_elsewhere_is_drawn_as_it_is_there():
    use = shipped().library["neck-turn"]
    assert figures_of(use, "seated crossed") == figures_of(use)
    on_chair = figures_of(use, "chair")[0]
    assert any(rest.on == "chair" for rest in on_chair.rests)


def test_a_portrait_is_where_it_goes_to_on_the_side_it_is_done():
    lift = shipped().library["side-leg-lift"]
    there = msgspec.structs.replace(figures_of(lift)[1], works=("leg",))
    assert portrait(lift, "right") == there
    assert portrait(lift, "left") == mirrored(there)


OWN = """
[my-twist]
name = "My twist"
kind = "hold"
dose = [2, 3, 5]
start = "seated long"
call = "Turn."
figure = {figure}
"""


def own(tmp_path, figure):
    folder = tmp_path / "movements"
    folder.mkdir()
    (folder / "mine.toml").write_text(OWN.format(figure=figure))
    library, problems = load_library([folder], load_terms(shipped().positions), shipped().library)
    return library["my-twist"], [one for one in problems if "my-twist" in one.what]


def test_a_teachers_own_figure_is_settled_and_drawn(tmp_path):
    movement, problems = own(tmp_path, '["arm 40", "arm 90/20"]')
    assert problems == []
    first, second = figures_of(movement)
    assert second.angle("arm") == pytest.approx(90, abs=5)
    assert list(figure_faults(first)) == []


@pytest.mark.parametrize(
    ("figure", "messages"),
    [
        ('"knee 300"', "No knee bends to 300"),
        ('"wing 20"', "no 'wing 20'"),
        ('"whole, side, trunk 90"', "can't be"),
        ('["arm 1", "arm 2", "arm 3", "arm 4"]', "three figures at most"),
    ],
)
def test_a_bad_figure_is_told_with_its_line_and_the_position_is_drawn(tmp_path, figure, messages):
    movement, problems = own(tmp_path, figure)
    assert messages in problems[0].what
    assert problems[0].where.endswith("mine.toml, line 8")
    assert problems[0].do
    assert figures_of(movement) == (load_figures().at("seated long"),)


def test_what_is_wrong_in_our_own_lines_is_told_with_file_and_line(tmp_path):
    (tmp_path / "positions.toml").write_text((LINES / "positions.toml").read_text())
    (tmp_path / "some.toml").write_text(
        'tree = "hip 10"\n\nnobody = "hip 4"\ncow = "tail 3"\ncat = "whole, side, trunk 90"\n'
    )
    timed, problems = figures_from_lines(shipped().library, tmp_path)
    wheres = [problem.where.rpartition("/")[2] for problem in problems]
    assert wheres[:2] == ["some.toml, line 3", "some.toml, line 4"]
    assert "cow" not in timed.own
    (tmp_path / "some.toml").write_text("tree = [")
    assert "some.toml" in figures_from_lines(shipped().library, tmp_path)[1][0].where
