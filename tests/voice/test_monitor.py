"""What is heard in a take begins at its sample, follows the take, and breaks off when it stands still."""

import time

import numpy as np
import pytest

from tests.conftest import demo_maker
from yewhour.voice.devices.monitor import MonitorDevice, MonitorMix, PlacedSound
from yewhour.voice.sound.mix import ClassMix
from yewhour.voice.sound.shipped_voice import shipped_voice
from yewhour.voice.sound.sound_events import sound_events

RATE = 22050
CLICK = np.full(700, 0.5, np.float32)


def silent_ear():
    """An ear whose device takes block after block, as quickly as it is asked to."""
    ear = MonitorMix(RATE, lambda: 0.0)
    ear.clock = lambda: ear.played / RATE
    return ear


def played(ear, seconds, block=882, clock=lambda seconds: seconds):
    """What a device is given that asks for a block after another; the take's clock is looked at each time."""
    out = []
    for number in range(round(seconds * RATE / block)):
        ear.follow(round(clock(number * block / RATE) * RATE))
        out.append(ear.block(block))
    return np.concatenate(out)


def begins(sound):
    on = np.flatnonzero(sound)
    return [] if not len(on) else [int(on[0]), *(int(one) for one in on[1:][np.diff(on) > 1])]


def test_sounds_begin_at_their_sample_whatever_the_blocks():
    places = [1000, 5000, 5000 + 441 * 3, 20_000]
    for block in (64, 441, 882, 5000):
        ear = silent_ear()
        ear.place([PlacedSound(at, CLICK) for at in places])
        assert begins(played(ear, 2.0, block))[:2] == places[:2]


def test_lines_are_within_thirty_milliseconds_over_half_an_hour():
    """Against the device's clock, with a take's clock that goes a little otherwise."""
    timed = demo_maker("round-the-compass").make()
    mix = ClassMix(
        sound_events(timed.segments, timed.cues, {"lines"}), timed.length, shipped_voice(), 1.0, {}
    )
    ear = silent_ear()
    marks = [PlacedSound(mix.sample_of(one.at), CLICK) for one in mix.heard]
    ear.place(marks)
    drift = 1.00005  # fifty in a million, as cheap clocks have
    found = begins(played(ear, timed.length_s / drift, clock=lambda now: now * drift))
    assert len(found) == len(marks)
    for place, mark in zip(found, marks, strict=True):
        assert abs(place * drift - mark.at) < 0.03 * RATE


def test_two_sounds_at_once_are_mixed_and_never_too_loud():
    ear = silent_ear()
    ear.place([PlacedSound(100, CLICK), PlacedSound(100, CLICK), PlacedSound(100, CLICK)])
    assert played(ear, 0.2).max() == 1.0


def test_standing_still_breaks_off_and_going_on_goes_on():
    ear = silent_ear()
    long = np.full(RATE, 0.5, np.float32)
    ear.place([PlacedSound(0, long), PlacedSound(2 * RATE, long)])
    assert played(ear, 0.2).any()
    ear.stand_still()
    assert not ear.block(RATE).any()
    ear.follow(round(1.9 * RATE))
    assert not ear.block(round(0.1 * RATE)).any()
    assert ear.block(RATE).all()


def test_another_class_takes_the_place_of_the_first():
    ear = silent_ear()
    ear.place([PlacedSound(5000, CLICK)])
    ear.follow(0)
    ear.block(882)
    ear.place([PlacedSound(9000, CLICK)])
    assert begins(np.concatenate([ear.block(882) for _ in range(20)])) == [9000 - 882]


@pytest.mark.filterwarnings("ignore")
def test_without_a_device_it_is_told_and_with_the_silent_one_time_goes_by():
    message = []
    ear = MonitorMix(RATE)
    device = MonitorDevice(ear, message.append, "null")
    assert device.open
    while ear.played < 0.2 * RATE:
        time.sleep(0.01)
    device.close()
    assert message == []


@pytest.mark.parametrize("speed", [0.5, 2.0, 0.9999])
def test_nothing_is_heard_twice_however_slowly_the_take_goes(speed):
    ear = silent_ear()
    places = [RATE // 2 + 3000 * number for number in range(20)]
    ear.place([PlacedSound(at, CLICK[:100]) for at in places])
    sound = played(ear, 8.0 / speed / 2, block=441, clock=lambda now: now * speed)
    assert len(begins(sound)) == sum(at < 4.0 * RATE - RATE // 20 for at in places)


def test_from_another_place_on_it_is_heard_again():
    ear = silent_ear()
    ear.place([PlacedSound(5000, CLICK)])
    assert begins(played(ear, 2.0)) == [5000]
    assert begins(played(ear, 2.0)) == [5000]
    ear.stand_still()
    assert begins(played(ear, 0.4)) == [5000]
