import contextlib
import os

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import ROOT
from yewhour.content.paths import FIRST_DEMO
from yewhour.core.plan.nodes import (
    Pair,
    Rounds,
    Step,
    walk,
)
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.files.atomic_files import write_whole
from yewhour.state.classes.class_file import (
    parse_plan,
    plan_bytes,
    read_plan,
    write_plan,
)
from yewhour.state.classes.migrate import VERSION


def test_a_class_comes_back_as_it_was_written(tmp_path):
    plan = read_plan(FIRST_DEMO)
    write_plan(plan, tmp_path / "copy.yewhour")
    assert read_plan(tmp_path / "copy.yewhour") == plan


def test_fields_we_do_not_know_are_kept_where_they_were():
    document = {
        "yewhour": 3,
        "mood": {"is": "calm"},
        "brief": {"title": "T", "colour": "red"},
        "sections": [
            {"title": "S", "body": [{"is": "step", "movement": "cat", "id": "a", "tag": [1, 2]}], "x": 1}
        ],
    }
    again = msgspec.json.decode(plan_bytes(parse_plan(msgspec.json.encode(document))))
    assert again == document


def test_every_node_gets_an_id_of_its_own():
    content = (
        b'{"yewhour":1,"sections":[{"title":"A","body":['
        b'{"is":"step","movement":"cat","id":"n1"},{"is":"step","movement":"cat","id":"n1"},'
        b'{"is":"pair","body":[{"is":"step","movement":"cow"}]}]}]}'
    )
    ids = [node.id for section in parse_plan(content).sections for node in walk(section.body)]
    assert len(ids) == len(set(ids)) == 4
    assert "" not in ids


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"", "empty"),
        (b"   \n", "empty"),
        (b"%PDF-1.4 ...", "not a class"),
        (b'{"name": "something else"}', "not a class"),
        (b"[1, 2]", "not a class"),
        (b'{"yewhour": 1, "brief": {"title": "x"', "damaged"),
        (b'{"yewhour": 1,\n "brief": {"title": }}', "line 2"),
        (b'{"yewhour": 99}', "newer"),
        (b'{"yewhour": 1, "sections": 5}', "damaged"),
        (b'{"yewhour": 1, "sections": [{"title": "x", "body": [{"is": "dance"}]}]}', "damaged"),
        (b'{"yewhour": 1, "brief": {"target_s": "long"}}', "damaged"),
        (b"\xff\xfe\x00", "not a class"),
        (b"{" * 3000, "damaged"),
    ],
)
def test_a_file_that_is_not_a_good_class_is_refused_with_advice(tmp_path, content, says):
    path = tmp_path / "odd.yewhour"
    path.write_bytes(content)
    with pytest.raises(Problem) as refused:
        read_plan(path)
    assert says in str(refused.value)
    assert str(path) in refused.value.where
    assert refused.value.do


def test_a_folder_and_a_missing_file_are_refused(tmp_path):
    for path in (tmp_path, tmp_path / "none.yewhour"):
        with pytest.raises(Problem, match=str(path)):
            read_plan(path)


@given(st.binary(max_size=200))
def test_no_bytes_bring_the_reader_down(content):
    with contextlib.suppress(Problem):
        assert isinstance(parse_plan(content), Plan)


def test_a_file_is_there_whole_or_as_it_was(tmp_path, monkeypatch):
    path = tmp_path / "out.txt"
    path.write_text("before")

    def full(*_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(Problem, match="no space left"):
        write_whole(path, b"after")
    assert path.read_text() == "before"
    assert [file.name for file in tmp_path.iterdir()] == ["out.txt"]


def test_the_demo_folder_at_the_root_is_the_one_that_ships():
    assert (ROOT / "data/demo").resolve() == FIRST_DEMO.parent.resolve()


def test_nodes_of_every_kind_come_back():
    step = Step(movement="cat", id="s", locked=True, lines={"call": ["Go. | Go."]})
    plan = Plan(sections=(), blocks={"end": (Pair(id="p", body=(Rounds(id="r", times=3, body=(step,)),)),)})
    assert parse_plan(plan_bytes(plan)) == plan


def test_what_we_do_not_know_is_kept_at_every_level_whatever_it_is_called():
    document = {
        "yewhour": VERSION,
        "later": 1,
        "extra": {"a": 2},
        "brief": {"title": "A", "pace": {"breaths_per_min": 7.0, "swell": 3, "extra": [4]}, "extra": "five"},
        "sections": [
            {"title": "All", "mood": 6, "body": [
                {"is": "step", "movement": "child", "id": "n1",
                 "pace": {"breaths_per_min": 6.0, "tide": 7}, "extra": 8},
                {"is": "rounds", "id": "n2", "times": 2, "wave": 9,
                 "body": [{"is": "step", "movement": "cow", "id": "n3"}]},
            ]},
        ],
    }  # fmt: skip
    again = msgspec.json.decode(plan_bytes(parse_plan(msgspec.json.encode(document))))
    assert again == document


def test_her_lines_of_an_earlier_file_come_home_to_their_steps_and_none_is_lost():
    def edit(step, text):
        return {"step": step, "purpose": "aim", "do": "rewrite", "text": text}

    document = {
        "yewhour": 2,
        "sections": [
            {
                "title": "S",
                "body": [
                    {"is": "pair", "id": "p", "body": [{"is": "step", "movement": "low-lunge", "id": "a"}]},
                    {"is": "block", "name": "quiet close", "id": "b"},
                ],
            }
        ],
        "edits": [edit("a", "Mine."), edit("quiet close:2", "At the end."), edit("gone", "Of what is gone.")],
    }
    plan = parse_plan(msgspec.json.encode(document))
    assert [(one.step, one.block, one.text) for one in plan.edits] == [
        ("a", "", "Mine."),
        ("quiet close:2", "b", "At the end."),
    ]
    again = msgspec.json.decode(plan_bytes(plan))
    assert again["edits"] == [edit("gone", "Of what is gone.")]
    assert parse_plan(plan_bytes(plan)) == plan
