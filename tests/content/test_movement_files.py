"""Every movement that ships is sound; what is wrong in a teacher's own file is said with its line."""

import pytest

from tests.conftest import shipped
from yewhour.content.movement_files import load_library
from yewhour.content.terms import load_positions, load_terms
from yewhour.core.sides import SIDE_TOKENS, fill, tokens

TERMS = load_terms(load_positions()[0])
GOOD = '[nod]\nname = "Nod"\nkind = "hold"\ndose = [1, 2, 3]\ncall = "Nod."\n'


def load(tmp_path, **files):
    for name, text in files.items():
        (tmp_path / f"{name}.toml").write_text(text, encoding="utf-8")
    return load_library([tmp_path], TERMS)


@pytest.mark.parametrize("movement", shipped().library.values(), ids=lambda movement: movement.id)
def test_no_side_word_where_there_is_no_side_and_no_line_is_long(movement):
    lines = [text for lines in movement.lines.values() for line in lines for text in line]
    lines += [text for option in (movement.gentler, movement.stronger) if option for text in option.line]
    for text in lines:
        assert len(text.split()) <= 22
        assert " more breath" not in text
        if movement.sides == "one":
            assert not tokens(fill(text, "left")) & SIDE_TOKENS
        else:
            assert not tokens(text) & SIDE_TOKENS
        for word in ("left", "right"):
            assert f" {word} " not in f" {text.lower()} ".replace(",", " ").replace(".", " ")


@pytest.mark.parametrize(
    ("text", "line", "says"),
    [
        ('[nod]\nname = "Nod"\ndose = [1, 2, 3]\ncall = "Nod."\n', 1, "kind"),
        (GOOD + 'opens = ["tail"]\n', 6, "not a tag of opens"),
        (GOOD + 'start = "ceiling"\n', 6, "not a position"),
        (GOOD + 'setup = "Nod to the {side}."\n', 6, "names a side"),
        (GOOD + 'setup = "Nod to the {ceiling}."\n', 6, "ceiling"),
        (GOOD + 'colour = "red"\n', 6, "no field"),
        (GOOD + f'setup = "{"very " * 30}"\n', 6, "more than 22 words"),
        (GOOD.replace("[1, 2, 3]", "[3, 2, 1]"), 4, "not in order"),
        (GOOD.replace("dose = [1, 2, 3]\n", ""), 1, "no dose"),
        (GOOD.replace('call = "Nod."\n', ""), 1, "no 'call' line"),
        (GOOD.replace('"hold"', '"reps"'), 1, "no rhythm"),
        ("[nod\n", 1, "can't be read"),
        (GOOD + "count_s = nan\n", 6, "count_s"),
        (GOOD + "moving_s = inf\n", 6, "moving_s"),
        (GOOD + "weight = 0\n", 6, "weight"),
        (GOOD + "effort = 9\n", 6, "effort"),
        (GOOD + 'rhythm = "exhale 0 inhale 4"\n', 6, "lasts nothing"),
        (GOOD + "rhythm = 4\n", 6, "text in quotes"),
        (GOOD + "setup = 4\n", 6, "text in quotes"),
        (GOOD + 'setup = " | "\n', 6, "says nothing"),
        (GOOD.replace("[1, 2, 3]", "[1, 2, 999999]"), 4, "not in order"),
    ],
)
def test_what_is_wrong_is_named_with_file_and_line_and_the_rest_loads(tmp_path, text, line, says):
    library, problems = load(tmp_path, broken=text, sound=GOOD.replace("[nod]", "[bow]"))
    assert "bow" in library
    assert len(problems) == 1
    assert problems[0].where.endswith(f"broken.toml, line {line}")
    assert says in problems[0].what


def test_two_movements_with_one_id_are_both_named(tmp_path):
    library, problems = load(tmp_path, one=GOOD, two=GOOD.replace("Nod.", "Nod again."))
    assert library["nod"].said("call") == (("Nod.",),)
    assert "one.toml" in problems[0].what
    assert "two.toml, line 1" in problems[0].where


def test_the_teachers_own_movement_wins(tmp_path):
    ours, hers = tmp_path / "ours", tmp_path / "hers"
    for folder, call in ((ours, "Nod."), (hers, "Nod, friends.")):
        folder.mkdir()
        (folder / "all.toml").write_text(GOOD.replace("Nod.", call))
    library, problems = load_library([ours, hers], TERMS)
    assert problems == []
    assert library["nod"].said("call") == (("Nod, friends.",),)


def test_a_reference_to_nothing_is_said_and_left_out(tmp_path):
    library, problems = load(tmp_path, one=GOOD + 'prepared_by = ["bow"]\n')
    assert library["nod"].prepared_by == ()
    assert "'bow'" in problems[0].what
    assert problems[0].where.endswith("line 6")
