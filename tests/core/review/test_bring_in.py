"""A recording brought in: the movements that are named, in order, with their sides and doses."""

import re
from difflib import SequenceMatcher
from pathlib import Path
from random import Random

import msgspec
import pytest

from tests.conftest import demo_maker, shipped, some_of
from tools.spoken import LATER
from tools.teachers import captions, taught
from yewhour.core.outline.reader import read_outline
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import Pair
from yewhour.core.plan.plan import steps_of
from yewhour.core.transcript.captions import read_captions
from yewhour.core.transcript.transcript import plain_words
from yewhour.state.takes.recordings import brought_from

FLOW = """hi everyone today a short flow for tired legs no props needed
okay coming onto all fours for some cat cows keep going for five breaths
...
tuck the toes and press up and back into your first downward facing dog
...
on an inhale lift the right leg high and step it all the way through low lunge with the back knee down
...
lift the back knee and come up into crescent lunge arms reach up stay for three breaths
...
open up to warrior two front knee bends gaze over the front fingers
...
straighten the front leg for triangle pose top arm to the sky
...
and the other side left leg lifts step it through low lunge
...
rise up crescent lunge
...
and open it out warrior two on this side
...
triangle
...
walk the feet to the hands and hang in a forward fold let the head go heavy
...
sit down on the mat extend the legs for a seated forward fold stay five breaths
...
lie down on your back hug the knees into the chest and drop them over to the right for a supine twist
...
and then let it all go for your final savasana stay as long as you like
...
wiggle the fingers roll to one side and come up to sit thank you so much for practising with me"""
MAT = """Good morning. Today's mat class is all about the centre, so grab some water. Lie on your back.
...
We'll warm up with some pelvic tilts. Exhale and press the low back down. Eight repetitions of those.
...
From there peel up into a bridge, one bone at a time. We'll do six repetitions.
...
Now bring the legs to table top and curl up for the hundred. Pump the arms.
...
Reach long overhead for the roll up. Five times, slowly.
...
Single leg stretch next. Draw the right knee in and switch, ten times.
...
Straight into double leg stretch, eight repetitions. Not like the bridge before.
...
Then scissors, and criss cross to finish the abdominals.
...
Roll over onto your front for a gentle swan. Five times.
...
Press back to child's pose and breathe. Slide back to your chair if you need to."""


def talk(text):
    """The lines of somebody who speaks, a silence for each row of dots, as captions of nine words."""
    at_s, rows = 0.0, []
    for line in text.split("\n"):
        if line.strip() == "...":
            at_s += 22
            continue
        words = line.split()
        for start in range(0, len(words), 9):
            part = words[start : start + 9]
            rows.append(f"[{int(at_s // 60)}:{at_s % 60:04.1f}] {' '.join(part)}")
            at_s += len(part) / 2.3
    return read_captions("\n".join(rows).encode())


def movements(hearing):
    return brought_from(hearing, shipped(), "Brought in")


def test_a_flow_by_ear_becomes_pairs_of_its_movements():
    brought = movements(talk(FLOW))
    assert [one.movement for one in brought.items if one.movement != "hands-and-knees"] == [
        "cat-cow", "downward-dog", "low-lunge", "high-lunge", "warrior-two", "triangle", "low-lunge",
        "high-lunge", "warrior-two", "triangle", "fold", "seated-fold", "knees-to-chest", "lying-twist",
        "final-rest",
    ]  # fmt: skip
    plan = read_outline(brought.outline, shipped().library)
    pairs = [node for section in plan.sections for node in section.body if isinstance(node, Pair)]
    assert [step.movement for step in pairs[0].body] == ["low-lunge", "high-lunge", "warrior-two", "triangle"]
    assert pairs[0].lead == "right"
    assert "seated fold 5b" in brought.outline
    assert "high lunge 3b" in brought.outline


def test_everyday_words_are_no_movements():
    brought = movements(talk(MAT))
    found = [one.movement for one in brought.items]
    assert found == [
        "pelvic-tilt", "bridge-roll", "hundred", "roll-up", "single-leg-stretch",
        "double-leg-stretch", "criss-cross", "scissors", "swan-prep", "child",
    ]  # fmt: skip
    assert "pelvic tilt 8x" in brought.outline
    assert "roll up 5x" in brought.outline


@pytest.mark.parametrize(
    ("name", "kind"),
    some_of(
        [
            ("bell-ringers", "vtt"),
            ("hips-after-the-helm", "bare"),
            ("low-water", "bare"),
            ("sail-loft-mat", "vtt"),
        ],
        2,
    ),
)
def test_what_it_makes_can_be_read_made_and_has_what_was_named(name, kind):
    brief = msgspec.structs.replace(demo_maker(name).plan.brief, ways={"say_names": "always"})
    named_class = solve(msgspec.structs.replace(demo_maker(name).plan, brief=brief), shipped())
    timed = named_class.make()
    hearing = read_captions(captions(taught(timed, Random(1), misheard=0.03), kind))
    brought = movements(hearing)
    plan = read_outline(brought.outline, shipped().library)
    solved = solve(plan, shipped())
    assert solved.make(solved.preferred_s).segments
    named = []
    for one in timed.segments:
        shown = one.use.movement.id
        if not one.use.setup_for and one.kind not in ("talk", "phase", "setup") and named[-1:] != [shown]:
            named.append(shown)
    found = [one.movement for one in brought.items]
    same = sum(
        block.size for block in SequenceMatcher(None, named, found, autojunk=False).get_matching_blocks()
    )
    assert same >= 0.6 * len(named), (named, found)


def test_nothing_that_is_named_leaves_everything_as_notes():
    brought = movements(read_captions(b"[0:10] Lovely weather today. [1:00] And so on it goes."))
    assert brought.items == ()
    assert "// 0:10 Lovely weather today." in brought.outline
    assert read_outline(brought.outline, shipped().library)


CHAIR = """Hello friends and welcome to chair yoga. You will need a sturdy chair.
...
We begin with seated mountain pose, hands on the thighs.
...
Ankle circles next, lift the right foot. Ten circles.
...
Sit to stand now, use your hands if you like. Eight times. Stop if you feel dizzy.
...
Stand behind the chair and hold on for heel raises, twelve of them.
...
Tree pose, right foot to the ankle, hold the chair.
...
And tree on the other side.
...
Thank you for coming, and see you on Thursday."""


def test_talk_stays_talk_at_both_ends():
    brought = movements(talk(CHAIR))
    found = [(one.movement, one.count) for one in brought.items]
    assert found == [
        ("mountain", 0), ("ankle-circles", 10), ("sit-to-stand", 8), ("calf-raise", 12), ("tree", 0),
        ("tree", 0),
    ]  # fmt: skip
    assert "  > say: Hello friends and welcome to chair yoga." in brought.outline
    assert "tree 3b pair left" in brought.outline  # the right foot is set to the left leg
    assert brought.outline.rstrip().endswith("  > say: Thank you for coming, and see you on Thursday.")
    assert read_outline(brought.outline, shipped().library)


def test_what_the_second_side_leaves_out_does_not_part_the_pair():
    said = """left side first of all warrior two left foot forward
...
reverse warrior
...
triangle pose
...
and the other side warrior two right foot forward
...
triangle"""
    brought = movements(talk(said))
    assert "pair left\n  warrior two" in brought.outline
    assert brought.outline.count("triangle") == 1


@pytest.mark.parametrize("name", ["bell-ringers", "lamps-out"])
def test_no_word_of_a_recording_is_lost(name):
    """Every sentence stands in the class that is brought in, whole, under the movement it was said in."""
    path = Path(__file__).parent.parent / "transcript/spoken" / f"{name}.txt"
    hearing = read_captions(path.read_bytes())
    brought = brought_from(hearing, shipped(), name)
    plan = read_outline(brought.outline, shipped().library, "here", shipped().known)
    texts = [edit.text for edit in plan.edits]
    texts += [line for step in steps_of(plan) for lines in step.lines.values() for line in lines]
    kept = " ".join(plain for text in texts for plain in plain_words(str(text)))
    for talk in hearing.talks:
        for sentence in re.split(r"(?<=[.!?])\s+", talk.text):
            assert " ".join(plain_words(sentence)) in kept, sentence


def test_one_stride_has_one_side_and_a_place_gone_through_is_no_movement():
    said = """step your left foot forward rise up crescent lunge arms by your ears
...
...
open to warrior two
...
...
flip your front palm slide your back hand down your back leg and reverse
...
...
come onto hands and knees
cat and cow belly drops on the breath in and the back rounds on the breath out
..."""
    items = [(one.movement, one.side) for one in movements(talk(said)).items]
    assert ("warrior-two", "left") in items
    assert ("reverse-warrior", "left") in items
    assert "hands-and-knees" not in [movement for movement, _ in items]
    assert items[-1][0] == "cat-cow"


BUMPS = """\
[0:00] Hello and welcome to you and your bumps. Have a cushion and a wall near you.
[0:20] Sit on the cushion with your legs crossed, right hand to the floor, left arm up and over your ear.
[0:50] And the other side.
[1:15] Come onto all fours.
[1:22] Draw circles with your hips, big ones, lovely for getting baby in a good position.
[2:00] Back against the wall, slide down it as if there is a chair, and hold.
[2:40] Lie on your left side, pillow between the knees, and rest.
[4:00] Thank you, see your midwife if anything worries you.
"""


def test_who_it_is_for_and_what_lies_at_hand_stand_at_the_head():
    brought = brought_from(read_captions(BUMPS.encode()), shipped(), "bumps")
    plan = read_outline(brought.outline, shipped().library)
    assert plan.brief.cautions == ("pregnancy",)
    assert {"cushion", "wall"} <= {*plan.brief.props}


@pytest.mark.parametrize(
    ("said", "ends"),
    [
        ("Turn your head to the right, look over your shoulder. And then the left.", "pair"),
        ("Turn your head to the right and look over your shoulder, nice and slow.", "right"),
    ],
)
def test_both_sides_are_drafted_where_both_were_said(said, ends):
    text = f"[0:00] Sit tall on your chairs.\n[0:20] {said}\n[0:40] Roll your shoulders up and back.\n"
    outline = brought_from(read_captions(f"{text}[1:10] Thank you all.".encode()), shipped(), "short").outline
    row = next(one for one in outline.splitlines() if one.startswith("neck turn"))
    assert ("pair" in row.split()) is (ends == "pair")


def test_what_was_said_is_said_and_the_cards_are_silent():
    brought = brought_from(read_captions(BUMPS.encode()), shipped(), "bumps")
    plan = read_outline(brought.outline, shipped().library)
    timed = solve(plan, shipped()).make()
    told = " ".join(cue.text for cue in timed.cues)
    assert "Draw circles with your hips" in told
    circles = next(one for one in steps_of(plan) if one.movement == "knee-hip-circles")
    assert not circles.carded
    card = shipped().library["knee-hip-circles"].card
    assert not any(text in told for text in (*card.place, *card.aim, *card.check))


def test_most_recordings_are_naturally_about_as_long_as_they_were():
    off = []
    for path in sorted(LATER.glob("*.txt"))[::6]:
        hearing = read_captions(path.read_bytes())
        plan = read_outline(brought_from(hearing, shipped(), path.stem).outline, shipped().library)
        off.append(abs(solve(plan, shipped()).preferred_s / hearing.length_s - 1))
    assert sum(one <= 0.12 for one in off) >= 0.6 * len(off)
    assert max(off) < 0.5
