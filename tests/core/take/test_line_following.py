"""A line is known by its words, the nearest of two alike; in doubt none is."""

import msgspec
import pytest

from tests.conftest import demo_maker, some_of
from yewhour.content.paths import DEMO
from yewhour.core.take.line_following import (
    act_heard,
    line_heard,
    matched,
    moved_on,
    words_of,
)
from yewhour.core.take.take import begin

DEMOS = sorted(path.stem for path in DEMO.glob("*.yewhour"))


def begun(name):
    return begin(demo_maker(name), demo_maker(name).make())


@pytest.mark.parametrize("name", some_of(DEMOS, 4))
def test_every_line_said_whole_is_known_or_in_doubt_and_never_another(name):
    take = begun(name)
    known = 0
    for cue in take.cues:
        found = line_heard(take, words_of(cue.text), cue.end)
        if found is not None:
            known += 1
            assert words_of(found.text) == words_of(cue.text)
    long = [cue for cue in take.cues if len(words_of(cue.text)) >= 5]
    assert known >= 0.8 * len(long)


@pytest.mark.parametrize("name", ["bell-ringers", "moorings"])
def test_the_other_sides_line_is_never_taken_for_it(name):
    take = begun(name)
    for cue in take.cues:
        heard = words_of(cue.text)
        found = line_heard(take, heard, cue.end)
        if found is not None:
            assert {"left", "right"} & set(words_of(found.text)) <= set(heard)


def test_other_talk_is_no_line():
    take = begun("bell-ringers")
    talk = "so the cat has just come in and wants to know what we are doing on the floor today"
    for at in range(0, take.end, 300):
        assert line_heard(take, words_of(talk), at) is None
        assert line_heard(take, [], at) is None


def test_she_has_moved_on_when_what_leads_out_of_it_is_heard():
    take = begun("bell-ringers")
    place, lunge = next(
        (n, one)
        for n, one in enumerate(take.segments)
        if one.kind == "hold" and take.segments[n + 1].use.setup_for and take.segments[n + 1].length > 50
    )
    out = [cue for cue in take.cues if cue.segment == take.segments[place + 1].id]
    within = [cue for cue in take.cues if cue.segment == lunge.id]
    assert any(moved_on(take, cue, lunge.start + 50) for cue in out)
    assert not any(moved_on(take, cue, lunge.start + 50) for cue in within)


def test_words_are_matched_in_their_order():
    assert matched(["a", "b", "c"], ["x", "a", "y", "c", "b"]) == 2
    assert matched(["a"], []) == 0
    assert words_of("Child's pose – and rest.") == ["child's", "pose", "and", "rest"]


def words(text, each=0.3, gaps=()):
    """Words with their seconds; gaps: what is waited before a word, by its place."""
    found, at = [], 10.0
    for number, word in enumerate(text.split()):
        at += dict(gaps).get(number, 0.0)
        found.append((word, at, at + each - 0.05))
        at += each
    return found


def test_an_act_is_heard_behind_its_call_and_only_whole():
    assert act_heard(words("tide table one more"), "tide table")[0] == "again"
    assert act_heard(words("breathe in tide table from here again please"), "tide table")[0] == "back"
    assert act_heard(words("tide table wait tide table go on"), "tide table")[0] == "resume"  # the last
    none = (
        "one more",
        "tide one more",
        "table one more",
        "tide table one",
        "tide table is one more",
        "tide table",
    )
    for text in none:
        assert act_heard(words(text), "tide table") is None, text
    assert act_heard(words("tide table one more", gaps=[(2, 1.5)]), "tide table") is None  # too far apart
    assert act_heard(words("one more"), "") is None


def test_of_two_lines_in_the_same_words_the_nearer_one_is_meant():
    take = begun("bell-ringers")
    said = take.cues[5]
    before = msgspec.structs.replace(said, start=3000, end=3030)
    after = msgspec.structs.replace(said, start=3100, end=3130)
    both = msgspec.structs.replace(take, cues=(before, after))
    heard = words_of(said.text)
    assert line_heard(both, heard, 3010) == before
    assert line_heard(both, heard, 3090) == after
