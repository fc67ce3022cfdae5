"""The voice leads: a simulated teacher stays longer; the class waits for her, and moves on when she does."""

from random import Random

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication

from tests.conftest import plan_of
from tests.ui.take.test_station import Stage
from yewhour.core.plan.nodes import Pair, Step
from yewhour.state.classes.class_file import write_plan
from yewhour.state.takes.interrupted_takes import interrupted_takes, leave
from yewhour.voice.recognition.recogniser import RATE, resampled
from yewhour.voice.recognition.simulated_teacher import simulated_speech
from yewhour.voice.sound.shipped_voice import shipped_voice

PLAN = plan_of(
    Step(movement="child", amount=4),
    Pair(body=(Step(movement="low-lunge", amount=3),)),
    Step(movement="final-rest", amount=90, least=30, most=200),
    title="Ebb",
    target_s=270.0,
)


@pytest.fixture
def ebb(desk, tmp_path):
    for one in interrupted_takes():
        leave(one)
    write_plan(PLAN, tmp_path / "ebb.yewhour")
    desk.window.file_commands.open_file(tmp_path / "ebb.yewhour")
    desk.settle()
    stage = Stage(desk)
    stage.page.sounds.device = "fed"
    yield stage
    stage.runner.close()


def taught(stage, until_s, **teacher):
    """The class up to a second, with the teacher's sound fed as the time goes by."""
    timed = stage.runner._made
    shipped_voice().use("en-us")
    sound = resampled(
        simulated_speech(timed, shipped_voice(), teacher.pop("longer"), Random(4), **teacher),
        shipped_voice().rate,
    )
    shipped_voice().use("en")
    for _ in range(2):
        stage.key(Qt.Key.Key_L)
    stage.start()
    follower = stage.page.sounds.follower
    step = RATE // 4
    zero = round(stage.runner.now_s * RATE)
    for at in range(zero, round(until_s * RATE), step):
        follower.add(sound[at : at + step])
        follower.wait()
        QApplication.processEvents()
        stage.wait(step / RATE, step=step / RATE)


@pytest.mark.long
def test_she_stays_two_breaths_longer_and_says_nothing_and_the_other_side_follows(ebb):
    timed = ebb.runner._made
    first = next(one for one in timed.segments if one.kind == "hold" and one.side == "right")
    after = timed.segments[timed.segments.index(first) + 1]
    taught(ebb, (after.end + 150) / 10 + 6, longer={first.id: 150})
    done = next(one for one in ebb.take.segments if one.id == first.id)
    second = next(one for one in ebb.take.segments if one.kind == "hold" and one.side == "left")
    assert done.length - first.length == pytest.approx(150, abs=25)
    assert second.length == done.length
    assert ebb.take.end == ebb.take.target
    assert {mark.do for mark in ebb.runner.marks} <= {"start", "again", "next"}
    moments = [mark.at_s for mark in ebb.runner.marks]
    assert moments == sorted(moments)


def test_when_she_is_on_time_or_not_heard_it_does_nothing(ebb):
    timed = ebb.runner._made
    first = next(one for one in timed.segments if one.kind == "hold" and one.side == "right")
    taught(ebb, (first.end + 20) / 10, longer={}, skipped=1.0)
    assert [mark.do for mark in ebb.runner.marks] == ["start"]


def test_a_second_take_is_heard_like_the_first(ebb):
    ebb.runner.leading._heard_until, ebb.runner.leading._followed = 900.0, 900.0
    ebb.page.get_ready()
    assert ebb.runner.leading._heard_until < 0
    assert ebb.runner.leading._followed < 0
