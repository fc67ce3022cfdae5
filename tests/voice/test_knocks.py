"""Two knocks are heard, and nothing else is taken for them. Whole classes: `python -m tools.knocks`."""

import numpy as np
import pytest

from tools.knocks import RATE, heard_in, knock, mixed, others, pairs, room
from yewhour.voice.recognition.knocks import KnockListener


@pytest.fixture
def dice():
    return np.random.default_rng(7)


@pytest.mark.parametrize("music", [False, True])
def test_two_knocks_are_heard_in_a_room_with_a_fan_and_with_music(music, dice):
    right, wrong = pairs(60, music, dice)
    assert right >= 57
    assert wrong == 0


def test_steps_single_knocks_and_claps_in_threes_are_none(dice):
    assert heard_in(mixed(400, others(400, dice), room(dice, False))) == []


def test_a_pair_among_them_is(dice):
    sounds = [(5.0, knock(dice)), (5.3, knock(dice))]
    assert heard_in(mixed(9, sounds, room(dice, False))) == [pytest.approx(5.3, abs=0.03)]
    third = [*sounds, (5.6, knock(dice))]
    assert heard_in(mixed(9, third, room(dice, False))) == []
    spoken = dice.normal(0, 0.05, RATE).astype(np.float32)
    assert heard_in(mixed(9, [*sounds, (5.6, spoken)], room(dice, False))) == []  # into a sentence


def test_it_is_the_same_however_the_sound_is_cut(dice):
    sound = mixed(9, [(5.0, knock(dice)), (5.3, knock(dice))], room(dice, False))
    whole = KnockListener(RATE).hear(sound)
    listener, bits, at = KnockListener(RATE), [], 0
    while at < len(sound):
        size = int(dice.integers(0, 900))
        bits += listener.hear(sound[at : at + size])
        at += size
    assert bits == whole
    assert len(whole) == 1
