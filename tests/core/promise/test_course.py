"""A course: how it is read, that it grows and repeats, and that each class keeps its own promise."""

import pytest

from tests.conftest import shipped
from yewhour.content.draft_model_file import load_model
from yewhour.content.promise_file import promise_reader
from yewhour.core.problem import Problem
from yewhour.core.promise.course import course_in, drafted_course


@pytest.mark.parametrize(
    ("text", "weeks", "each"),
    [
        ("four weeks of three 20-minute mat classes for beginners", 4, 3),
        ("a 6-week course of gentle yoga twice a week", 6, 2),
        ("six weeks of yin", 6, 1),
        ("6 weeks of 30 minute beginners pilates, twice a week", 6, 2),
        ("two classes a week for six weeks, hatha 30", 6, 2),
        ("three 10 minute classes for my office, necks, backs", 1, 3),
        ("a series of eight classes, hatha", 8, 1),
        ("hatha, 3 weeks of two classes", 3, 2),
        ("five-week programme, three times a week, flow", 5, 3),
    ],
)
def test_a_course_is_read_however_it_is_put(text, weeks, each):
    shape, rest = course_in(text)
    assert (shape.weeks, shape.each) == (weeks, each)
    assert "week" not in rest


@pytest.mark.parametrize(
    "text", ["32 weeks pregnant", "20-minute hatha", "6 weeks postpartum", "after four weeks in bed, slow"]
)
def test_one_class_is_no_course(text):
    assert course_in(text) is None


def test_more_than_half_a_year_is_refused():
    with pytest.raises(Problem, match="can't be drafted") as raised:
        course_in("ninety weeks of yin")
    assert raised.value.do


def test_it_grows_repeats_and_goes_to_its_peak_each_class_on_its_own():
    shape, rest = course_in("three weeks of two hatha classes growing from 10 to 15 minutes, to camel")
    read = promise_reader(shipped()).read(rest)
    classes = [*drafted_course(read, shape, 0, shipped(), load_model())]
    lengths = [one.draft.timed.length_s for one in classes]
    assert (lengths[0], lengths[-1]) == (600.0, 900.0)
    assert lengths == sorted(lengths)
    assert classes[0].again == ()
    assert all(one.again for one in classes[1:])
    assert "camel" in classes[-1].new + classes[-1].again
    assert all("camel" not in one.new + one.again for one in classes[:2])
    talk = [one.draft.plan.brief.ways.get("talk", 1.0) for one in classes]
    assert talk == sorted(talk, reverse=True)
    for one in classes:
        assert one.draft.timed.length_s == one.draft.plan.brief.target_s
        assert [finding for finding in one.draft.timed.findings if finding.severity != "note"] == []


@pytest.mark.parametrize(
    ("text", "each"),
    [("three 10 minute classes for the week", 3), ("5 gentle 20-minute classes this week", 5),
     ("two classes for a week", 2)],
)  # fmt: skip
def test_the_classes_of_one_week_are_a_course_too(text, each):
    shape, rest = course_in(text)
    assert (shape.weeks, shape.each) == (1, each)
    assert "class" in rest
    assert course_in("a class for one week before the race") is None
