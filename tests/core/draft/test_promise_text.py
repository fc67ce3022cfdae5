"""A promise in words: what is understood, what is not, and what can't be."""

import pytest

from tests.conftest import shipped
from yewhour.content.draft_model_file import load_model
from yewhour.content.terms import load_terms
from yewhour.core.draft.promise_text import read_promise
from yewhour.core.problem import Problem


def read(text):
    words = shipped()
    areas = load_terms(words.positions).areas
    return read_promise(text, words.known, areas, load_model().words, words.library)


def test_a_whole_sentence_is_understood():
    said = read(
        "A 25-minute gentle hatha class for the crew, evening, about hips, mind knees, a block at hand."
    )
    brief = said.brief
    assert (brief.target_s, brief.style, brief.level, brief.time_of_day) == (
        1500,
        "hatha",
        "gentle",
        "evening",
    )
    assert (brief.focus, brief.cautions, brief.props) == (("hips",), ("knees",), ("block",))
    assert brief.audience == "the crew"
    assert brief.title == "Hips in the evening"
    assert said.not_understood == ()


@pytest.mark.parametrize(
    ("text", "field", "value"),
    [
        ("half an hour of flow", "target_s", 1800.0),
        ("classical pilates, 20 min", "style", "mat-classical"),
        ("mat pilates", "style", "mat-modern"),
        ("hatha for beginners", "level", "beginners"),
        ("a morning vinyasa", "time_of_day", "morning"),
        ("hatha about the lower back and shoulders", "focus", ("low back", "shoulders")),
        ("slow with a bolster and two blocks", "props", ("bolster", "two blocks")),
        ("hatha, no props", "props", ()),
        ("hatha with a block, a bolster, and a strap", "props", ("block", "bolster", "strap")),
        ("hatha, mind knees, wrists, about hips", "cautions", ("knees", "wrists")),
        ("hatha, mind wrists and knees", "cautions", ("wrists", "knees")),
        ("hatha, called Ropes and tides", "title", "Ropes and tides"),
        ("hatha, hamstrings", "focus", ("hamstrings",)),
        ("slow evening hips and low back", "focus", ("hips", "low back")),
        ("slow evening hips, mind knees, bolster", "props", ("bolster",)),
        ("ten minutes of chair yoga for my mother", "target_s", 600.0),
        ("ten minutes of chair yoga for my mother", "props", ("chair",)),
        ("hatha hips hamstrings mind wrists strap", "cautions", ("wrists",)),
        ("hatha hips hamstrings mind wrists strap", "focus", ("hips", "hamstrings")),
        ("hatha hips mind wrists and knees strap", "props", ("strap",)),
        ("a gentle flow for bad knees", "cautions", ("knees",)),
        ("hatha, sore wrists", "cautions", ("wrists",)),
        ("hatha for low back pain", "cautions", ("low-back",)),
        ("a flow, knee trouble", "cautions", ("knees",)),
        ("pilates for the back", "focus", ("upper back",)),
        ("hatha for stiff shoulders and hips", "focus", ("shoulders", "hips")),
        ("slow, before bed", "time_of_day", "night"),
        ("a forty-five minute flow", "target_s", 2700.0),
        ("an hour and a quarter of hatha", "target_s", 4500.0),
        ("three quarters of an hour, slow", "target_s", 2700.0),
    ],
)
def test_each_part_of_it(text, field, value):
    assert getattr(read(text).brief, field) == value


def test_what_is_not_wanted_and_what_means_nothing():
    said = read("20-minute hatha, without pigeon and camel, purple moonlight")
    assert {"pigeon", "camel"} <= said.without
    assert read("a morning flow, no downward dog").without == {"downward-dog"}
    for spared in ("hatha, sore wrists", "hatha mind wrists strap", "a flow for bad wrists"):
        assert "wrists" not in read(spared).brief.focus  # what hurts is never what it is about
    assert said.not_understood == ("purple moonlight",)


@pytest.mark.parametrize(
    ("text", "messages"),
    [
        ("", "Nothing is promised"),
        ("purple moonlight", "Nothing in 'purple moonlight' is a promise"),
        ("about wings", "no area 'wings'"),
        ("hatha, mind dragons", "no caution 'dragons'"),
        ("hatha with a sword", "no prop 'sword'"),
        ("hatha without xyzzy", "no movement 'xyzzy'"),
    ],
)
def test_what_there_is_not_is_named(text, messages):
    with pytest.raises(Problem, match=messages):
        read(text)
