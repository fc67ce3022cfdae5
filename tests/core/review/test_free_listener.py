"""What is heard of classes that are described and hardly named, without a plan."""

import re
from functools import cache
from pathlib import Path

import pytest

from tests.conftest import shipped
from yewhour.core.outline.reader import read_outline
from yewhour.core.pipeline import solve
from yewhour.core.review.bring_in import brought_in
from yewhour.core.review.free_listener import FreeListener
from yewhour.core.transcript.captions import read_captions
from yewhour.core.transcript.transcript import Transcript
from yewhour.state.takes.recordings import brought_from, free_listener

SPOKEN = Path(__file__).parent.parent / "transcript" / "spoken"
NAMES = sorted(path.stem for path in SPOKEN.glob("*.done"))
NEAR_S = 25.0
# One thing with more names than one: what a class in words can't tell apart.
SAME = (
    {"butterfly", "melting-butterfly"}, {"cat", "cow", "cat-cow"},
    {"fold", "half-lift", "arms-up", "ragdoll", "mountain", "standing-roll-down"},
    {"final-rest", "evening-rest"}, {"neck-lean", "chair-neck-lean"}, {"low-lunge", "low-lunge-back"},
    {"imprint-breath", "floor-breath", "deep-belly-breath"}, {"marichi-c", "half-lord-twist", "seated-twist"},
    {"chair-sit-tall", "seated-breath", "quiet-breath"}, {"cobra", "baby-cobra"}, {"child", "shell-stretch"},
)  # fmt: skip


@cache
def listener() -> FreeListener:
    return free_listener(shipped())


@cache
def heard(name):
    return brought_in(read_captions((SPOKEN / f"{name}.txt").read_bytes()), listener(), name)


def done(name):
    """(second, movement, side) of what was done in a recording."""
    rows = [row.split() for row in (SPOKEN / f"{name}.done").read_text().splitlines()]
    return [
        (60 * int(at.split(":")[0]) + int(at.split(":")[1]), movement, "".join(side))
        for at, movement, *side in rows
    ]


def same(one, two):
    return one == two or any({one, two} <= row for row in SAME)


def matched(name):
    """What was done, each with what was found of it, or None; and what was found besides."""
    left, pairs = list(heard(name).items), []
    for at_s, movement, side in done(name):
        near = [one for one in left if same(one.movement, movement) and abs(one.start_s - at_s) <= NEAR_S]
        found = min(near, key=lambda one: abs(one.start_s - at_s), default=None)
        if found is not None:
            left.remove(found)
        pairs.append((side, found))
    return pairs, left


def test_most_of_what_was_described_is_found_and_little_else():
    pairs = [pair for name in NAMES for pair in matched(name)[0]]
    besides = [one for name in NAMES for one in matched(name)[1]]
    found = [one for _, one in pairs if one is not None]
    assert len(found) >= 0.78 * len(pairs)
    assert len(besides) <= 0.25 * (len(found) + len(besides))
    sides = [(side, one.side) for side, one in pairs if one is not None and side]
    assert sum(side == told for side, told in sides) >= 0.75 * len(sides)


@pytest.mark.parametrize("name", NAMES)
def test_no_word_of_it_is_lost(name):
    said = read_captions((SPOKEN / f"{name}.txt").read_bytes())
    outline = heard(name).outline.lower()
    for talk in said.talks:
        for sentence in re.split(r"(?<=[.!?]) ", talk.text):
            assert sentence.strip(" .?!").lower()[:40] in outline, sentence


def test_a_base_is_kept_until_another_is_told():
    index = listener().descriptions
    said = read_captions(
        b"[0:00] Come and sit on the edge of your chair.\n[0:10] Fold forward over your legs.\n"
        b"[0:20] Sit up tall.\n[0:30] Stand up behind it.\n[0:40] Lie down on your back.\n"
        b"[0:50] Put a hand on your belly.\n[1:00] Roll onto your front."
    ).talks
    assert index.bases(said) == ["chair", "chair", "chair", "standing", "supine", "supine", "prone"]


def test_a_side_is_told_by_what_its_own_lines_send_where():
    one = listener()
    assert one.side_of("warrior-two", ["step", "your", "left", "foot", "way", "back"]) == "right"
    assert one.side_of("figure-four", ["right", "ankle", "over", "the", "left", "knee"]) == "right"
    assert one.side_of("figure-four", ["cross", "that", "one", "over"]) == ""


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
    assert row.endswith(" right")
    assert brought.told
    plan = read_outline(brought.outline, shipped().library)
    solved = solve(plan, shipped())
    assert solved.shortest_s <= plan.brief.target_s <= solved.longest_s
