"""What is heard of classes that are described and hardly named, without a plan."""

import re
from functools import cache

import pytest

from tests.conftest import shipped, some_of
from tools.spoken import LATER, SPOKEN, brought, shares, told
from yewhour.core.outline.reader import read_outline
from yewhour.core.pipeline import solve
from yewhour.core.review.listening.free_listener import FreeListener
from yewhour.core.review.listening.spoken_of import bases_of as done_on
from yewhour.core.transcript.captions import read_captions
from yewhour.core.transcript.transcript import Transcript
from yewhour.state.takes.recordings import brought_from, free_listener

NAMES = sorted(path.stem for path in SPOKEN.glob("*.done"))
# Of those that were written later, one of each kind; `./yew bench recordings` hears them all.
OTHERS = ("vestry-elders", "tram-shed-core", "orchard-slow-flow", "packhouse-reform")


@cache
def listener() -> FreeListener:
    return free_listener(shipped())


@cache
def heard(name):
    return brought(SPOKEN / f"{name}.txt", listener())


def test_most_of_what_was_described_is_found_and_little_else():
    found, besides, sides, off_s = shares([told(SPOKEN / f"{name}.txt", heard(name).items) for name in NAMES])
    assert found >= 0.78
    assert besides <= 0.25
    assert sides >= 0.8
    assert off_s <= 5


def test_so_it_is_where_others_speak():
    paths = [LATER / f"{name}.txt" for name in OTHERS]
    found, besides, sides, off_s = shares([told(path, brought(path, listener()).items) for path in paths])
    assert found >= 0.78
    assert besides <= 0.2
    assert sides >= 0.8
    assert off_s <= 5


@pytest.mark.parametrize("name", some_of(NAMES, 4))
def test_no_word_of_it_is_lost(name):
    said = read_captions((SPOKEN / f"{name}.txt").read_bytes())
    outline = heard(name).outline.lower()
    for talk in said.talks:
        for sentence in re.split(r"(?<=[.!?]) ", talk.text):
            assert sentence.strip(" .?!").lower()[:40] in outline, sentence


def bases_of(captions):
    """The likeliest base at each line, by the words for bases alone."""
    bases = listener().bases
    said = read_captions(captions).talks
    return [bases.names[row.argmax()] for row in bases.likely(said, bases.told(said))]


def test_a_base_is_kept_until_another_is_told():
    assert bases_of(
        b"[0:00] Come and sit on the edge of your chair.\n[0:10] Let both hands hang.\n"
        b"[0:20] Sit up tall.\n[0:30] Stand up behind it.\n[0:40] Lie down on your back.\n"
        b"[0:50] Put a hand on your belly.\n[1:00] Roll onto your front."
    ) == ["chair", "chair", "chair", "standing", "supine", "supine", "prone"]


def test_words_that_sound_like_a_base_and_are_none_are_not_taken_for_one():
    assert (
        bases_of(
            b"[0:00] Come onto all fours.\n[0:10] Keep a glass of water on your back.\n"
            b"[0:20] Hands on the front edge of the mat.\n[0:30] Lift your right heel."
        )
        == ["four-point"] * 4
    )


def test_who_turns_over_lies_on_the_other_side():
    assert bases_of(
        b"[0:00] Lie on your left side.\n[0:10] Lift the top leg.\n"
        b"[0:20] Turn over.\n[0:30] Lift the top leg."
    ) == ["on-left", "on-left", "on-right", "on-right"]


def test_a_side_is_told_by_what_its_own_lines_send_where():
    one = listener()
    assert one.sides.side_of("warrior-two", ["step", "your", "left", "foot", "way", "back"]) == "right"
    stepped = {
        ("high-lunge", "big step back with the left foot front knee bent"): "right",
        ("low-lunge", "step your right foot way back and drop the knee"): "left",
        ("low-lunge", "your right foot forward back knee down"): "right",
    }
    assert {one.sides.side_of(name, text.split()) == side for (name, text), side in stepped.items()} == {True}
    assert one.sides.side_of("figure-four", ["right", "ankle", "over", "the", "left", "knee"]) == "right"
    assert one.sides.side_of("figure-four", ["cross", "that", "one", "over"]) == ""


def test_where_nothing_is_said_nothing_is_heard():
    assert listener().heard(Transcript((), (), 600.0)) == []


def test_a_side_that_was_not_heard_is_not_drafted_and_the_length_is_one_that_can_be():
    said = read_captions(
        b"[0:00] Lie down on your back, please, and be long.\n"
        b"[0:10] Right ankle over the left knee, figure four, and pull that thigh in.\n"
        b"[1:00] Savasana now, legs long, palms up.\n[1:20] Let everything be heavy."
    )
    brought = brought_from(said, shipped(), "short")
    row = next(row for row in brought.outline.splitlines() if row.startswith("figure four"))
    assert row.endswith(" right own words")
    assert brought.told
    plan = read_outline(brought.outline, shipped().library)
    solved = solve(plan, shipped())
    assert solved.shortest_s <= plan.brief.target_s <= solved.longest_s


def test_what_is_lain_on_one_side_is_done_on_either():
    library = shipped().library
    assert done_on(library["clam"]) >= {"on-right", "on-left"}
    assert not done_on(library["bridge"]) & {"on-right", "on-left"}


def test_who_lies_down_is_in_no_warrior_whatever_it_sounds_like():
    said = (
        b"[0:00] Sit, soles of the feet together, hold your feet, let your knees drop.\n"
        b"[1:00] Lie down. Knees to the right, arms out wide, look left.\n[1:40] Knees to the left.\n"
        b"[2:20] And sit up."
    )
    found = {one.movement for one in listener().heard(read_captions(said))}
    assert "lying-twist" in found
    assert "warrior-two" not in found
