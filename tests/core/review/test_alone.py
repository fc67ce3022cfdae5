"""A recording without its plan: what can be told is told, and otherwise it keeps quiet."""

from random import Random

import pytest

from tests.conftest import demo_maker
from tools.teachers import captions, taught
from yewhour.core.review.without_plan import findings_alone
from yewhour.core.transcript.captions import read_captions
from yewhour.state.takes.recordings import load_looking

RULES = load_looking()


def said(rows, title=""):
    text = "\n".join(f"[{at // 60}:{at % 60:02}] {line}" for at, line in rows)
    return findings_alone(read_captions(text.encode()), RULES, title)


FIRST = [
    (200, "Step the right foot forward."), (208, "Sink the right hip and lift the chest."),
    (220, "Keep the right knee over the ankle."), (232, "Stay for five breaths on the right side."),
]  # fmt: skip


def other(rows, after, slower=1.0):
    swap = {"right": "left"}
    start = rows[0][0]
    return [
        (round(after + (at - start) * slower), " ".join(swap.get(word, word) for word in line.split(" ")))
        for at, line in rows
    ]


def test_sides_that_are_held_alike_are_no_finding():
    assert said([*FIRST, (262, "Now the other side."), *other(FIRST, 266)]) == []


def test_sides_that_are_not_held_alike_are_told():
    (found,) = said([*FIRST, (262, "Now the other side."), *other(FIRST, 266, 1.8)])
    assert found.code == "sides-held"
    assert "32 s" in found.message
    assert found.sure < 0.9


def test_counts_that_differ_between_sides_are_told():
    rows = [(at, line.replace("five", "four")) for at, line in other(FIRST, 266)]
    (found,) = said([*FIRST, (262, "Now the other side."), *rows])
    assert found.code == "sides-counted"
    assert "five" in found.message


def test_the_same_side_again_after_the_change_is_told():
    (found,) = said([*FIRST, (262, "Now the other side."), (266, "Step the right foot forward.")])
    assert found.code == "side-again"


def test_a_slip_that_was_put_right_is_a_note():
    (found,) = said([(30, "Lift the left leg, sorry, the right leg.")])
    assert (found.code, found.severity) == ("side-slip", "note")


@pytest.mark.parametrize(
    ("rows", "messages"),
    [
        ([(400, "Take your block and place it under the hand.")], ["prop"]),
        ([(20, "Have a block beside you."), (400, "Take your block.")], []),
        ([(400, "If you have a block, you can use it here.")], []),
        ([(400, "Press the shoulder blades into the floor.")], []),
    ],
)
def test_props_that_turn_up_unannounced_are_told(rows, messages):
    assert [one.code for one in said(rows)] == messages


def test_a_title_that_promises_another_length_is_told():
    rows = [(10, "Welcome."), (1150, "Thank you.")]
    assert [one.code for one in said(rows, "Hips in 30 minutes")] == ["title-length"]
    assert said(rows, "Hips in 20 minutes") == []
    assert said(rows, "Hips") == []


@pytest.mark.parametrize(
    "name", ["bell-ringers", "sail-loft-mat", "lamps-out", "two-chairs-and-a-kettle", "sunrise-on-the-quay"]
)
def test_a_good_class_raises_less_than_one_false_alarm_in_ten_minutes(name):
    timed = demo_maker(name).make()
    hearing = read_captions(captions(taught(timed, Random(2), skipped=0.05, remarks=0.08, misheard=0.05)))
    found = findings_alone(hearing, RULES)
    assert len(found) <= timed.length_s / 600, [one.message for one in found]
