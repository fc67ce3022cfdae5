"""Marks are read as they were written; what is wrong with a file is told with its line."""

from contextlib import suppress

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from yewhour.core.problem import Problem
from yewhour.core.take.marks import (
    DOES,
    LATEST_S,
    Mark,
    mark_line,
    read_marks,
)

MARKS = st.lists(
    st.builds(
        Mark,
        at_s=st.floats(0, LATEST_S),
        do=st.sampled_from([do for do in DOES if do != "start"]),
        text=st.text(),
        segment=st.text(),
        camera=st.sampled_from(["", "stopped"]),
    )
).map(lambda marks: sorted(marks, key=lambda mark: mark.at_s))


@given(MARKS)
def test_marks_come_back_as_they_were_written(marks):
    read = read_marks(map(mark_line, marks))
    assert read.marks == tuple(marks)
    assert read.messages == ()


@given(MARKS.filter(bool), st.integers(1, 30))
@example([Mark(0.0, "next", segment="}")], 3)
def test_a_file_cut_off_anywhere_loses_its_last_mark_at_most(marks, cut):
    whole = b"".join(map(mark_line, marks))
    kept = read_marks(whole[: max(0, len(whole) - cut)].splitlines()).marks
    assert kept in (tuple(marks), tuple(marks[:-1]))


@given(st.lists(st.binary(max_size=60)))
def test_no_bytes_bring_the_reader_down(lines):
    with suppress(Problem):
        read_marks(lines)


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ('{"at_s": 3, "do": "dance"}', "'dance'"),
        ('{"at_s": -3, "do": "next"}', "no moment"),
        ('{"at_s": 1e300, "do": "next"}', "no moment"),
        ('{"at_s": "soon", "do": "next"}', "at_s"),
        ('{"do": "next"}', "at_s"),
        ('{"at_s": 3}', "do"),
        ('{"at_s": 3, "do": "start", "length_s": 99999}', "no length"),
        ('{"at_s": 3, "do": "next", "version": 9}', "newer"),
        ("[1, 2]", "mark"),
        ("hello}", "no mark"),
    ],
)
def test_a_line_that_is_no_mark_is_told_with_its_place(line, said):
    with pytest.raises(Problem) as messages:
        read_marks([b'{"at_s": 1, "do": "next"}', line.encode(), b'{"at_s": 9, "do": "end"}'], "marks.jsonl")
    assert said in str(messages.value)
    assert "marks.jsonl, line 2" in str(messages.value)


def test_marks_out_of_order_are_put_in_order_and_told():
    read = read_marks([b'{"at_s": 9, "do": "next"}', b'{"at_s": 3, "do": "again"}'])
    assert [mark.at_s for mark in read.marks] == [3, 9]
    assert "order" in read.messages[0]


def test_what_comes_before_the_start_is_left_out_and_told():
    read = read_marks([b'{"at_s": 1, "do": "next"}', b'{"at_s": 3, "do": "start"}'])
    assert [mark.do for mark in read.marks] == ["start"]
    assert "before the start" in read.messages[0]


def test_two_takes_in_one_file_are_refused():
    with pytest.raises(Problem, match="Two takes"):
        read_marks([b'{"at_s": 0, "do": "start"}'] * 2)


def test_a_cut_is_read_and_what_is_none_is_refused():
    read = read_marks(
        [b'{"at_s": 90, "do": "resume", "cut": [61.5, 90]}', b'{"at_s": 99, "do": "pause", "cut": true}']
    )
    assert read.marks[0].cut == (61.5, 90)
    assert (read.marks[1].camera, read.marks[1].cut) == ("stopped", False)  # as it was written once
    for line in (
        '{"at_s": 90, "do": "resume", "cut": [95, 90]}',
        '{"at_s": 90, "do": "resume", "cut": [61, 91]}',
        '{"at_s": 90, "do": "skip", "cut": [61, 90]}',
        '{"at_s": 90, "do": "back", "cut": [-1, 90]}',
    ):
        with pytest.raises(Problem, match="no cut"):
            read_marks([line.encode()])
