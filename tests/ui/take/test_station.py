"""The take station, driven with a clock of its own: by keys, by pointer, through a class, through a kill."""

import os
from itertools import pairwise
from random import Random

import numpy as np
import pytest
import soundfile
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QImage, QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLabel

from tools.knocks import knock, mixed, room
from yewhour.content.paths import DEMO
from yewhour.core.take.rehearsal import beginnings, stretches
from yewhour.core.take.replay import replay
from yewhour.state.paths import kept_takes, own_data
from yewhour.state.settings import change_settings
from yewhour.state.takes.before_taking import BeforeTaking, before_taking
from yewhour.state.takes.interrupted_takes import interrupted_takes, leave
from yewhour.state.takes.stumbles import stumbled_in
from yewhour.state.takes.take_sounds import sounds_in
from yewhour.ui.kit import theme as look
from yewhour.ui.take import page as page_module
from yewhour.ui.take.notifications import KeptQuiet
from yewhour.ui.take.take_keys import COMMANDS
from yewhour.ui.take.take_runner import COUNT_IN_S
from yewhour.ui.take.take_words import late_words


class Stage:
    """The station on a class, and time that goes by when it is told to."""

    def __init__(self, desk):
        self.desk = desk
        self.now = 1000.0
        desk.press("to_take")
        self.page = desk.window.pages.take()
        self.runner = self.page.runner
        self.runner.clock = lambda: self.now
        self.wait(0)

    def wait(self, seconds, step=1.0):
        """Lets seconds go by, a frame each of them."""
        end = self.now + seconds
        while self.now < end - 1e-9:
            self.now = min(end, self.now + step)
            self.page.frame()
            QApplication.processEvents()
        self.page.frame()
        self.said()

    def until(self, at):
        """To a tick of the class."""
        left = max(0.0, at / 10 - self.runner.now_s)
        self.wait(max(0.0, left - 2), step=3.0)
        self.wait(min(left, 2))

    def said(self):
        """Waits until the lines are those of the numbers."""
        take = self.runner.take
        if take is not None and take.unsaid is not None:
            self.desk.qtbot.waitUntil(lambda: self.runner.take.unsaid is None, timeout=10_000)

    def key(self, key):
        QTest.keyClick(self.page, key)
        self.now += 0.3
        self.page.frame()
        self.said()

    def start(self):
        self.key(Qt.Key.Key_Space)
        self.wait(COUNT_IN_S)
        assert self.runner.state == "on"

    @property
    def take(self):
        return self.runner.take

    def segment(self, movement, side="both"):
        return next(
            one for one in self.take.segments
            if one.use.movement.id == movement and not one.use.setup_for and one.side == side
        )  # fmt: skip


def nothing_broken_off():
    for one in interrupted_takes():
        leave(one)


@pytest.fixture
def stage(desk):
    nothing_broken_off()
    change_settings(take_keys={})
    (own_data() / "rehearsed.json").unlink(missing_ok=True)
    timed = Stage(desk)
    yield timed
    timed.runner.close()


def test_the_station_has_the_whole_window_and_gives_it_back(stage, desk):
    assert not desk.window.head.isVisible()
    assert "Hello and welcome" in stage.page.line.text
    stage.key(Qt.Key.Key_Escape)
    assert desk.window.head.isVisible()
    assert desk.window.stations.body.currentWidget() is desk.window.stations.bench


def test_it_counts_in_and_then_the_class_runs_by_itself(stage):
    stage.key(Qt.Key.Key_Space)
    assert stage.runner.state == "counting"
    stage.wait(2)
    assert stage.page.left_s.text() == "3"
    stage.wait(3)
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 30)
    assert stage.page.name.text == "Low lunge, right"
    assert stage.page.bands["right"].side == "right"
    assert not stage.page.bands["right"].coming
    assert stage.page.bands["left"].side == ""
    assert stage.page.phase.text() == {"inhale": "in", "exhale": "out"}[lunge.spans[0].phase]
    assert stage.page.count.text() == f"1 of {lunge.amount}"
    assert stage.page.left_s.text() == str(-(-(lunge.length - 30) // 10))
    assert stage.page.coming.text() == "to Crescent side bend, right"
    assert stage.page.late.text() == "on time"


@pytest.mark.painted
def test_a_whole_class_goes_by_and_ends_to_the_second(stage):
    stage.start()
    stage.wait(24 * 60, step=3.5)
    assert stage.runner.overtime  # she may still be speaking
    stage.wait(8)
    assert stage.page.left_s.text() == "+0:08"
    assert "Press Space when you are done" in stage.page.line.text
    stage.key(Qt.Key.Key_Space)
    assert stage.runner.state == "over"
    assert stage.page.line.text == "Done, in 24:00 and 0:08 over."
    assert [mark.do for mark in stage.runner.marks] == ["start", "end"]
    assert interrupted_takes() == []


def test_two_breaths_more_and_the_second_side_follows_and_the_end_is_kept(stage):
    stage.start()
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 30)
    stage.key(Qt.Key.Key_PageUp)
    stage.key(Qt.Key.Key_Up)
    assert stage.page.count.text().endswith(f"of {lunge.amount + 2}")
    assert stage.segment("low-lunge", "left").amount == lunge.amount + 2
    assert stage.take.end == stage.take.target
    assert "late; the rest gives them" in stage.page.late.text()


@pytest.mark.parametrize("pressed_with", ["key", "clicker", "pointer"])
def test_going_on_at_once(stage, pressed_with):
    stage.start()
    here = next(one for one in stage.take.segments if one.kind == "hold")
    stage.until(here.start + 60)
    if pressed_with == "pointer":
        QTest.mouseClick(stage.page, Qt.MouseButton.LeftButton, pos=QPoint(500, 300))
        stage.now += 0.3
    else:
        stage.key(Qt.Key.Key_Right if pressed_with == "key" else Qt.Key.Key_PageDown)
    done = next(one for one in stage.take.segments if one.id == here.id)
    assert done.length < here.length
    assert stage.take.end == stage.take.target


def test_the_wheel_and_the_other_button_give_more_and_less(stage):
    stage.start()
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 30)
    QTest.mouseClick(stage.page, Qt.MouseButton.RightButton, pos=QPoint(500, 300))
    assert stage.segment("low-lunge", "right").amount == lunge.amount + 1
    stage.now += 1
    wheel = QWheelEvent(
        QPointF(500, 300), QPointF(500, 300), QPoint(), QPoint(0, -120), Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier, Qt.ScrollPhase.NoScrollPhase, False,
    )  # fmt: skip
    QApplication.sendEvent(stage.page, wheel)
    assert stage.segment("low-lunge", "right").amount == lunge.amount


def test_a_clicker_held_down_is_one_press(stage):
    stage.start()
    stage.wait(30)
    for _ in range(20):
        QTest.keyClick(stage.page, Qt.Key.Key_PageDown)
        stage.now += 0.03
    assert [mark.do for mark in stage.runner.marks] == ["start", "next"]


def test_going_on_just_as_it_goes_on_by_itself_skips_nothing(stage):
    stage.start()
    one = stage.take.segments[2]
    stage.until(one.end + 3)
    stage.key(Qt.Key.Key_Right)
    assert [mark.do for mark in stage.runner.marks] == ["start"]
    assert "by itself" in stage.page.late.text()


def test_standing_still_and_going_on(stage):
    stage.start()
    stage.wait(40)
    stage.key(Qt.Key.Key_Space)
    assert stage.page.name.text == "Standing still"
    ground = stage.page.theme.paper
    assert ground not in (look.LIGHT.paper, look.DARK.paper, look.DIM.paper)  # the whole screen shows it
    before = stage.runner.here().at
    stage.wait(5)
    assert stage.runner.here().at == before
    assert "stay in the film" in stage.page.line.text
    stage.wait(15)
    assert stage.page.left_s.text() == "0:20"
    assert stage.page.line.text.startswith("Space: cut 0:20 out, and go on from the start of this line")
    planned = made(stage)
    stage.key(Qt.Key.Key_Space)
    stage.wait(1)
    assert stage.page.theme.paper != ground
    assert "cut out" in stage.page.name.text
    assert stage.take.segments == planned
    assert len(stage.take.cuts) == 1
    assert stage.runner.here().late == 0
    line = max(cue.start for cue in stage.take.cues if cue.start <= before)
    assert stage.runner.here().at == pytest.approx(line + 13, abs=5)  # from the start of the line


def made(stage):
    """The segments of the class as it was made."""
    return stage.runner._made.segments


def test_what_stood_still_can_stay_in_the_film_or_was_not_in_it_at_all(stage):
    stage.start()
    stage.wait(40)
    stage.key(Qt.Key.Key_Space)
    stage.wait(30)
    stage.key(Qt.Key.Key_F)
    assert stage.take.cuts == ()
    assert stage.take.segments != made(stage)  # the rest gives it
    assert stage.take.end == stage.take.target
    stage.wait(40)
    ahead = [(one.id, one.length) for one in stage.take.segments]
    stage.key(Qt.Key.Key_Space)
    stage.wait(30)
    stage.key(Qt.Key.Key_S)
    assert stage.take.cuts == ()
    assert [(one.id, one.length) for one in stage.take.segments] == ahead
    assert stage.runner.marks[-1].camera == "stopped"


def test_it_goes_on_from_further_back_where_she_says_so(stage):
    stage.start()
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 150)
    stage.key(Qt.Key.Key_Space)
    stage.wait(12)
    stage.key(Qt.Key.Key_Up)
    stage.wait(0)
    assert "the start of this side: Low lunge, right" in stage.page.line.text
    stage.key(Qt.Key.Key_Space)
    assert stage.runner.here().at == pytest.approx(lunge.start, abs=5)


def test_after_the_end_a_stray_click_does_nothing_and_enter_looks_back(stage, desk):
    stage.start()
    stage.wait(20)
    stage.key(Qt.Key.Key_Escape)
    stage.key(Qt.Key.Key_Escape)
    assert stage.runner.state == "over"
    QTest.mouseClick(stage.page, Qt.MouseButton.LeftButton, pos=QPoint(500, 300))
    assert stage.runner.state == "over"
    stage.key(Qt.Key.Key_Space)
    assert stage.runner.state == "ready"  # and only the next begins another
    stage.start()
    stage.wait(5)
    stage.key(Qt.Key.Key_Escape)
    stage.key(Qt.Key.Key_Escape)
    QTest.keyClick(stage.page, Qt.Key.Key_F11)
    assert desk.window.stations.here.command == "to_back"
    review = desk.window.pages.review()
    desk.qtbot.waitUntil(lambda: review.looked is not None, timeout=20_000)  # at the one that just ended
    assert review.looked.back.length_s == pytest.approx(5.0, abs=1.5)  # and not the one before, of twenty


def test_under_a_new_movement_no_line_of_the_old_one_stands(stage):
    stage.start()
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 100)
    stage.key(Qt.Key.Key_Right)
    here = stage.runner.here()
    assert here.line is None or here.line.segment == here.segment.id
    assert here.following is not None


def test_what_goes_from_side_to_side_lights_the_side_that_is_on(stage, desk):
    desk.window.file_commands.open_file(DEMO / "sail-loft-mat.yewhour")
    desk.settle()
    other = Stage(desk)
    one = next(one for one in other.take.segments if one.side == "alternating" and one.amount >= 4)
    other.start()
    lit = []
    each = one.length // one.amount
    for number in range(3):
        other.until(one.start + number * each + each // 2)
        lit.append([band.side for band in other.page.bands.values() if band.side])
    assert all(len(sides) == 1 for sides in lit)
    assert lit[0] != lit[1]
    assert lit[0] == lit[2]
    assert lit[0] == [one.use.lead]
    other.runner.act("end")


def test_what_she_asks_for_is_told_large_with_its_sides(stage):
    stage.start()
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 30)
    stage.key(Qt.Key.Key_Up)
    assert stage.page.name.text == "+1 Low lunge, right, and left too"
    stage.wait(3)
    assert stage.page.name.text == "Low lunge, right"


def test_what_matters_is_large_enough_for_three_metres(stage):
    """At 1280x800: 28 pixels and more for the next line, the next movement, and what is offered."""
    page = stage.page
    stage.start()
    for cue in stage.take.cues:
        page.line.say(cue.text)
        page.following.say(cue.text)
        assert page.following.pixels() >= 28, cue.text
        assert page.line.pixels() >= 40, cue.text
    for one in (page.coming, page.late, page.phase, page.count, page.left_s):
        assert one.fontMetrics().height() >= 28
    for segment in stage.take.segments:
        assert page.coming.fontMetrics().boundingRect(
            page.coming.rect(), int(Qt.TextFlag.TextWordWrap), f"to {segment.name}, right"
        ).height() <= page.coming.height() + 1  # fmt: skip


def words_at_a_quarter(widget, page):
    """How many words can be told apart in a label, and how strongly it stands out (0 to 1), in the picture of
    the page at a quarter of its size: a screen seen from three metres and more."""
    picture = page.grab().toImage()
    small = picture.scaled(
        picture.width() // 4, picture.height() // 4, Qt.AspectRatioMode.IgnoreAspectRatio,
        Qt.TransformationMode.SmoothTransformation,
    ).convertToFormat(QImage.Format.Format_Grayscale8)  # fmt: skip
    grey = np.frombuffer(small.constBits(), np.uint8).reshape(small.height(), small.bytesPerLine())
    corner = widget.mapTo(page, QPoint(0, 0))
    left, top, wide, high = (n // 4 for n in (corner.x(), corner.y(), widget.width(), widget.height()))
    part = grey[top : top + high, left : left + wide].astype(float)
    ink = np.abs(part - np.median(part)) / 255
    columns = ink.max(axis=0) > 0.12
    gaps, last = 0, None
    for column in np.nonzero(columns)[0]:
        gaps += last is not None and column - last > 2
        last = column
    return (gaps + 1 if last is not None else 0), float(ink.max())


@pytest.mark.painted
def test_what_matters_can_be_read_at_a_quarter_of_the_size(stage):
    page = stage.page
    page.resize(1280, 800)
    stage.start()
    said = "Grow tall and stay"
    for one in (page.line, page.following, page.name):
        one.say(said)
        assert words_at_a_quarter(one, page)[0] == 4
        assert words_at_a_quarter(one, page)[1] > 0.45
    small = QLabel(said, page)  # what the test is held against: words that are too small to be told apart
    small.setStyleSheet("font-size: 9px")
    small.adjustSize()
    small.show()
    assert words_at_a_quarter(small, page)[0] != 4


def test_back_to_the_start_of_it(stage):
    stage.start()
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 150)
    said = max(cue.start for cue in stage.take.cues if cue.start <= lunge.start + 150)
    stage.key(Qt.Key.Key_Left)
    assert stage.page.name.text == "Once more: Low lunge, right"
    assert stage.runner.here().at == pytest.approx(said, abs=5)
    assert stage.take.segments == made(stage)  # it costs the class nothing: it is cut out
    stage.key(Qt.Key.Key_Left)
    assert stage.runner.here().at == pytest.approx(lunge.start, abs=5)
    (cut,) = stage.take.cuts
    assert cut[1] - cut[0] == pytest.approx(15.6, abs=1)


def test_leaving_something_out(stage):
    stage.start()
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 30)
    stage.key(Qt.Key.Key_Delete)
    assert not [
        one for one in stage.take.segments if one.use.movement.id == "low-lunge" and one.side == "left"
    ]
    assert stage.take.end == stage.take.target


def test_a_moment_is_noted(stage):
    stage.start()
    stage.wait(12)
    stage.key(Qt.Key.Key_N)
    assert stage.take.notes[0].at_s == pytest.approx(12, abs=0.4)
    assert stage.page.late.text() == "Noted."


def test_escape_stands_still_first_and_ends_then(stage):
    stage.start()
    stage.wait(15)
    stage.key(Qt.Key.Key_Escape)
    assert stage.runner.standing
    stage.key(Qt.Key.Key_Escape)
    assert stage.runner.state == "over"
    stage.key(Qt.Key.Key_Space)
    stage.key(Qt.Key.Key_Space)
    assert stage.runner.state == "counting"


def test_the_count_in_can_be_called_off_and_leaves_nothing(stage):
    stage.key(Qt.Key.Key_Space)
    stage.wait(1)
    stage.key(Qt.Key.Key_Escape)
    assert stage.runner.state == "ready"
    assert interrupted_takes() == []


def test_it_waits_for_her_when_she_leads(stage):
    stage.key(Qt.Key.Key_L)
    stage.start()
    breath = next(one for one in stage.take.segments if one.kind == "hold")
    stage.until(breath.start)
    stage.wait(breath.length / 10 + 20)
    here = stage.runner.here()
    assert here.segment.id == breath.id
    assert here.of > breath.amount
    stage.key(Qt.Key.Key_Right)
    assert stage.runner.here().segment.id != breath.id
    assert stage.take.end == stage.take.target


def test_a_machine_that_slept_stands_still_since_then(stage):
    stage.start()
    stage.wait(60)
    at = stage.runner.here().at
    stage.now += 600
    stage.runner.asleep = lambda: 600.0
    stage.page.frame()
    assert stage.runner.standing
    assert stage.runner.here().at == pytest.approx(at, abs=1)
    assert "asleep for 10:00" in stage.page.late.text()


def test_a_machine_that_stalls_does_not_stop_the_class(stage):
    stage.start()
    stage.wait(60)
    at = stage.runner.here().at
    stage.now += 8  # and it has not slept
    stage.page.frame()
    assert not stage.runner.standing
    assert stage.runner.here().at == pytest.approx(at + 80, abs=1)


def test_any_key_can_be_taught(stage):
    QTest.keyClick(stage.page, Qt.Key.Key_B)
    assert "now press what it should do" in stage.page.hints.text()
    QTest.keyClick(stage.page, Qt.Key.Key_Up)
    assert "B now does this: one more" in stage.page.late.text()
    stage.start()
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 30)
    stage.key(Qt.Key.Key_B)
    assert stage.segment("low-lunge", "right").amount == lunge.amount + 1


def test_a_known_key_can_be_taught_something_else(stage):
    QTest.keyClick(stage.page, Qt.Key.Key_K)
    QTest.keyClick(stage.page, Qt.Key.Key_PageDown)
    QTest.keyClick(stage.page, Qt.Key.Key_Up)
    assert stage.page.keys.command("PgDown") == "again"
    QTest.keyClick(stage.page, Qt.Key.Key_K)
    QTest.keyClick(stage.page, Qt.Key.Key_PageDown)
    QTest.keyClick(stage.page, Qt.Key.Key_Right)
    assert stage.page.keys.taught == {}


def test_darker_and_light_again(stage):
    papers = []
    for _ in range(4):
        papers.append(stage.page.theme.paper)
        stage.key(Qt.Key.Key_D)
    assert len(set(papers)) == 3
    assert papers[3] == papers[0]


def test_what_broke_off_is_offered_and_gone_on_with(stage, desk):
    stage.start()
    stage.wait(100)
    stage.key(Qt.Key.Key_Up)
    stage.wait(20)
    stage.runner.close()  # as when the power goes: no end is marked
    (broken,) = interrupted_takes()
    assert broken.until_s == pytest.approx(stage.runner.now_s, abs=1)
    before = [(one.id, one.start, one.end) for one in stage.take.segments]
    desk.window.stations.body.removeWidget(stage.page)
    desk.window.pages.take.forget()
    again = Stage(desk)
    assert "broken off at 2:0" in again.page.line.text
    again.key(Qt.Key.Key_Return)
    assert again.runner.standing
    again.wait(10)
    again.key(Qt.Key.Key_Space)
    again.wait(1)
    now = {one.id: (one.start, one.end) for one in again.take.segments}
    done = [one for one in before if one[2] < 1100]
    assert done
    assert all(now[id_] == (start, end) for id_, start, end in done)
    assert again.take.end == again.take.target
    again.runner.act("end")
    assert interrupted_takes() == []


def test_the_camera_ran_on_while_nothing_else_did(stage, desk):
    """Killed, and started again forty seconds later: the recording is as much longer, and that is cut out."""
    stage.start()
    stage.wait(100)
    stage.runner.close()
    (broken,) = interrupted_takes()
    desk.window.stations.body.removeWidget(stage.page)
    desk.window.pages.take.forget()
    again = Stage(desk)
    again.runner.wall = lambda: broken.left + 40
    again.key(Qt.Key.Key_Return)
    assert again.runner.now_s == pytest.approx(broken.until_s + 40, abs=1.5)
    assert "cut 0:4" in again.page.line.text
    assert "the camera stood still too" in again.page.following.text
    again.key(Qt.Key.Key_Space)
    cut = again.runner.marks[-1].cut
    assert cut[0] <= broken.until_s
    assert cut[1] == pytest.approx(broken.until_s + 40, abs=2)
    again.runner.act("end")
    assert broken.ago_s(broken.left + 3 * 3600) == 0
    assert broken.ago_s(broken.left - 60) == 0


def test_what_broke_off_can_be_left_as_it_is(stage, desk):
    stage.start()
    stage.wait(30)
    stage.runner.close()
    stage.runner.state = "ready"
    stage.page.get_ready()
    assert "broken off" in stage.page.line.text
    QTest.keyClick(stage.page, Qt.Key.Key_Delete)
    assert "broken off" not in stage.page.line.text
    assert interrupted_takes() == []


def test_two_takes_at_once_are_told(stage, desk):
    stage.start()
    other = type(stage.runner)(desk.session.jobs)
    other.prepare(desk.session.solved, desk.session.timed)
    with pytest.raises(Exception, match="Another take is going on"):
        other.count_in()


def test_a_class_taught_as_a_mirror_shows_what_her_own_body_does(desk):
    from yewhour.core.plan.edit import with_brief

    nothing_broken_off()
    desk.session.do("As a mirror", with_brief(desk.session.plan, ways={"mirror": True}))
    desk.settle()
    stage = Stage(desk)
    stage.start()
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 30)
    assert stage.page.bands["left"].side == "right"
    assert stage.page.bands["right"].side == ""
    stage.runner.act("end")


def test_a_breath_hold_is_shown(qtbot, desk):
    nothing_broken_off()
    desk.window.file_commands.open_file(DEMO / "tide-tables.yewhour")
    desk.settle()
    stage = Stage(desk)
    stage.start()
    span = next((span for one in stage.take.segments for span in one.spans if span.phase == "full"), None)
    assert span is not None
    stage.until(span.start + 2)
    assert stage.page.phase.text() == "hold"
    assert stage.page.pacer.filled() == 1.0
    stage.runner.act("end")


def test_lateness_is_told_in_words(stage):
    stage.start()
    assert late_words(stage.take, stage.runner.here()) == "on time"


def test_without_a_class_it_says_what_to_do(desk):
    desk.press("new_class")
    stage = Stage(desk)
    assert stage.page.line.text in ("There is no class to take yet.", "")


def test_a_voice_in_the_ear_is_ahead_and_stands_still_with_the_class(stage):
    stage.page.sounds.device = "null"
    stage.key(Qt.Key.Key_V)
    assert "every line in your ear" in stage.page.late.text().lower()
    prompter = stage.page.sounds.prompter
    stage.desk.qtbot.waitUntil(lambda: len(prompter.ear._placed) == len(stage.take.cues), timeout=30_000)
    placed, rate = prompter.ear._placed, prompter.ear.rate
    ahead = {stage.take.cues[n].start * rate // 10 - placed[n].at for n in range(5, 50)}
    assert ahead == {round(1.2 * rate)}
    stage.start()
    stage.wait(3)
    assert not prompter.ear._still
    stage.key(Qt.Key.Key_Space)
    assert prompter.ear._still
    stage.key(Qt.Key.Key_Space)
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 30)
    stage.key(Qt.Key.Key_Up)
    here = round(stage.runner.here().at)
    ahead = sum(cue.start >= here for cue in stage.take.cues)
    stage.desk.qtbot.waitUntil(lambda: 0 <= len(prompter.ear._placed) - ahead <= 3, timeout=30_000)
    for about in ("names and sides", "counts", "bells and tones", "nothing"):
        stage.key(Qt.Key.Key_V)
        assert about in stage.page.late.text().lower()
    prompter.close()


def test_without_a_sound_device_the_take_goes_on(stage, monkeypatch):
    import miniaudio

    def no_device(*arguments, **options):
        raise miniaudio.MiniaudioError("failed to init device", -401)

    monkeypatch.setattr(miniaudio, "PlaybackDevice", no_device)
    stage.start()
    stage.wait(5)
    stage.key(Qt.Key.Key_V)
    assert "no sound device" in stage.page.late.text()
    stage.wait(5)
    assert stage.runner.state == "on"


def test_when_the_end_can_not_be_kept_one_key_leaves_something_out(stage):
    stage.start()
    stage.wait(300)
    stage.key(Qt.Key.Key_Space)
    stage.wait(420)
    stage.key(Qt.Key.Key_F)
    stage.desk.qtbot.waitUntil(lambda: bool(stage.runner.choices), timeout=20_000)
    stage.wait(1)
    first = stage.runner.choices[0]
    assert "1 without" in stage.page.late.text()
    assert first.title.split()[2] in stage.page.late.text()
    assert "late at the end" in stage.page.late.text()
    before = stage.take.end
    stage.key(Qt.Key.Key_1)
    assert stage.take.end < before
    assert stage.take.end == pytest.approx(first.end_s * 10, abs=20)


def test_a_rehearsal_from_any_movement_at_half_speed_is_not_kept(stage):
    before = set(kept_takes().glob("2*"))
    stage.key(Qt.Key.Key_R)
    for _ in range(4):
        stage.key(Qt.Key.Key_Down)
    stage.key(Qt.Key.Key_Up)
    stage.key(Qt.Key.Key_S)
    first = beginnings(stage.take)[3]
    assert stage.page.name.text == first.use.name
    assert "at half speed" in stage.page.following.text
    stage.start()
    assert stage.runner.here().at == pytest.approx(first.start, abs=5)
    stage.wait(10)
    assert stage.runner.here().at == pytest.approx(first.start + 50, abs=5)
    stage.key(Qt.Key.Key_Escape)
    stage.key(Qt.Key.Key_Escape)
    assert stage.runner.state == "over"
    assert interrupted_takes() == []
    assert set(kept_takes().glob("2*")) == before


def test_only_the_changes_of_side_are_rehearsed(stage):
    stage.key(Qt.Key.Key_R)
    stage.key(Qt.Key.Key_O)
    assert "only the changes of side" in stage.page.following.text
    wanted = stretches(stage.take, "sides")
    stage.start()
    assert stage.runner.here().at == pytest.approx(wanted[0][0], abs=6)
    stage.wait((wanted[0][1] - wanted[0][0]) / 10 + 0.5)
    assert stage.runner.here().at == pytest.approx(wanted[1][0], abs=12)
    stage.wait(sum(end - start for start, end in wanted[1:]) / 10 + 4)
    assert stage.runner.state == "over"


def test_where_she_stumbled_is_offered_again_until_it_goes_well(stage):
    stage.key(Qt.Key.Key_R)
    for _ in range(4):
        stage.key(Qt.Key.Key_Down)
    stage.start()
    stage.wait(9)
    stage.key(Qt.Key.Key_Left)
    (place,) = stumbled_in(stage.take.solved.plan.brief.title)
    stage.key(Qt.Key.Key_Escape)
    stage.key(Qt.Key.Key_Escape)
    stage.key(Qt.Key.Key_R)
    stage.key(Qt.Key.Key_R)
    for _ in range(3):
        stage.key(Qt.Key.Key_O)
        if "stumbled" in stage.page.following.text:
            break
    assert "only where you stumbled" in stage.page.following.text
    stage.start()
    (only,) = stage.runner.stretches
    stage.wait((only[1] - only[0]) / 10 + 2)
    assert stage.runner.state == "over"
    assert place not in stumbled_in(stage.take.solved.plan.brief.title)


def test_a_take_that_broke_off_is_told_at_the_next_start(stage, desk):
    stage.start()
    stage.wait(42)
    stage.runner.close()
    desk.window.say_kept()
    assert "A take of Ropes and shoulders was broken off at 0:4" in desk.window.foot.message.text()
    leave(interrupted_takes()[0])


def test_the_sound_is_recorded_beside_the_marks_when_she_wants_it(stage):
    stage.page.sounds.device = "null"
    stage.key(Qt.Key.Key_M)
    assert "recorded beside the take" in stage.page.late.text()
    stage.start()
    QTest.qWait(700)
    folder = stage.runner._file.folder
    stage.key(Qt.Key.Key_Escape)
    stage.key(Qt.Key.Key_Escape)
    sound, rate = soundfile.read(folder / "sound.flac")
    assert 0.1 < len(sound) / rate < 3


def test_the_microphone_is_tried_before_the_start(stage, monkeypatch):
    sounds = stage.page.sounds
    sounds.device = "null"
    stage.key(Qt.Key.Key_M)
    assert "Say something" in stage.page.late.text()
    heard = np.full(48_000, 0.25, np.float32)
    sounds._trial.blocks[:] = [heard]
    sounds._try()
    assert stage.page.late.text() == "Your microphone  ▮▮▮▮▮▮▯▯▯▯▯▯"
    sounds._trial.blocks[:] = [heard, heard]
    sounds._try()
    assert "hears you; this is how" in stage.page.late.text()
    assert sounds._played is not None
    sounds._end_played()
    stage.key(Qt.Key.Key_M)
    assert stage.page.late.text() == "No sound is recorded."
    stage.key(Qt.Key.Key_M)
    sounds._trial.blocks[:] = [0 * heard, 0 * heard]
    sounds._try()
    assert "hears nothing so far" in stage.page.late.text()


def test_two_knocks_stand_still_and_go_on(stage):
    sounds, dice = stage.page.sounds, np.random.default_rng(3)
    sounds.device = "fed"
    for _ in range(2):
        stage.key(Qt.Key.Key_A)
    assert stage.page.late.text() == "Two knocks on the floor, or two claps, stand still or go on."
    assert "two knocks stand still" in sounds.turned_on()
    stage.start()
    heard = mixed(4, [(1.5, knock(dice)), (1.8, knock(dice))], room(dice, False))
    for standing in (True, False):
        stage.now += 1.0
        sounds.knocked.add(heard)
        stage.page.frame()
        assert stage.runner.standing is standing
    stage.key(Qt.Key.Key_A)  # aloud as well
    stage.key(Qt.Key.Key_A)
    assert sounds.knocked is None
    assert stage.page.late.text() == "Nothing is listened for."


def test_a_clicker_is_tried_before_the_start(stage):
    stage.key(Qt.Key.Key_PageDown)
    assert stage.page.late.text() == "That works: in the take it is \u201cgo on now\u201d."
    assert stage.runner.state == "ready"


def test_notifications_are_held_off_for_the_take_alone():
    log = []
    quiet = KeptQuiet(lambda: log.append("ask") or True, lambda: log.append("let go"))
    assert quiet.able
    assert log == ["ask", "let go"]
    quiet.begin()
    quiet.begin()
    assert quiet.held
    quiet.end()
    quiet.end()
    assert log == ["ask", "let go"] * 2
    refused = KeptQuiet(lambda: log.append("refused") or False, lambda: log.append("wrong"))
    assert not refused.able
    refused.begin()
    refused.end()
    assert not refused.held
    assert log[4:] == ["refused"]


def test_what_can_not_be_held_off_is_told_in_one_sentence(stage):
    stage.page.quiet = KeptQuiet(lambda: False, lambda: None)
    said = stage.page._wanting(600.0)[-1]
    assert said.endswith("otifications can't be held off here; that is yours to do.")
    stage.page.quiet = KeptQuiet(lambda: True, lambda: None)
    assert not any("otifications" in one for one in stage.page._wanting(600.0))


def test_what_a_take_lacks_is_told_before_it(stage, monkeypatch, tmp_path):
    for name, text in (("status", "Discharging"), ("capacity", "12")):
        (tmp_path / "BAT0").mkdir(exist_ok=True)
        (tmp_path / "BAT0" / name).write_text(f"{text}\n")
    low = before_taking(tmp_path)
    assert low.battery == 0.12
    assert low.wanting(1440, False) == ["The battery is at 12% and not charging: plug it in."]
    assert BeforeTaking(600.0, None).wanting(1440, True) == [
        "The disk has room for ten minutes of sound only."
    ]
    assert BeforeTaking(600.0, None).wanting(1440, False) == []
    monkeypatch.setattr(page_module, "before_taking", lambda: low)
    stage.page.get_ready()
    assert "battery is at 12%" in stage.page.late.text()


def test_a_long_press_anywhere_stands_still(stage):
    stage.start()
    stage.wait(20)
    middle = QPoint(500, 300)
    QTest.mousePress(stage.page, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, middle)
    stage.desk.qtbot.waitUntil(lambda: stage.runner.standing, timeout=5000)
    QTest.mouseRelease(stage.page, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, middle)
    assert [mark.do for mark in stage.runner.marks] == ["start", "pause"]


def test_what_she_asks_for_aloud_is_done_and_nothing_else(stage):
    stage.page.sounds.device = "fed"
    stage.key(Qt.Key.Key_A)
    assert "Say “tide table”, and then: one more, one fewer, wait" in stage.page.late.text()
    stage.start()
    lunge = stage.segment("low-lunge", "right")
    stage.until(lunge.start + 60)

    def said(text, after_s=0.0):
        at_s = stage.runner.now_s + after_s
        words = [(word, at_s + 0.3 * n, at_s + 0.3 * n + 0.25) for n, word in enumerate(text.split())]
        stage.runner.hear(1, words)
        stage.page.frame()
        stage.said()

    said("one more of these and then wait for the tide")
    said("the tide table is over there")
    assert stage.segment("low-lunge", "right").amount == lunge.amount
    said("tide table one more")
    assert stage.segment("low-lunge", "right").amount == lunge.amount + 1
    assert stage.page.name.text == "+1 Low lunge, right, and left too"
    said("tide table one more")  # the same stretch, told again as it grows
    assert stage.segment("low-lunge", "right").amount == lunge.amount + 1
    stage.wait(5)
    said("tide table wait")
    assert stage.runner.standing
    stage.wait(5)
    said("tide table cut it out")
    assert not stage.runner.standing
    assert len(stage.take.cuts) == 1


def test_a_take_that_goes_on_is_recorded_on(stage, desk):
    stage.page.sounds.device = "null"
    stage.key(Qt.Key.Key_M)
    stage.start()
    QTest.qWait(150)
    folder = stage.runner._file.folder
    stage.wait(30)
    stage.page.shut()
    desk.window.stations.body.removeWidget(stage.page)
    desk.window.pages.take.forget()
    again = Stage(desk)
    again.page.sounds.device = "null"
    again.key(Qt.Key.Key_Return)
    QTest.qWait(150)
    again.key(Qt.Key.Key_Escape)
    again.runner.act("end")
    assert [at_s for at_s, _ in sounds_in(folder)] == [0.0, pytest.approx(30, abs=2)]


def test_without_a_microphone_the_take_goes_on(stage, monkeypatch):
    import miniaudio

    def no_device(*arguments, **options):
        raise miniaudio.MiniaudioError("failed to init device", -401)

    monkeypatch.setattr(miniaudio, "CaptureDevice", no_device)
    stage.key(Qt.Key.Key_A)
    assert "no microphone, so nothing can be asked for" in stage.page.late.text()
    assert stage.runner.call == ""
    stage.key(Qt.Key.Key_M)
    assert "no microphone" in stage.page.late.text()  # before the count-in, and nothing is promised
    assert not stage.page.sounds.records
    stage.start()
    stage.wait(5)
    assert stage.runner.state == "on"


@pytest.mark.painted
@pytest.mark.parametrize("seed", range(int(os.environ.get("YEW_ACTS", "1"))))
def test_whatever_is_pressed_the_take_holds(stage, seed):
    dice = Random(seed)
    stage.page.sounds.device = "null"
    commands = [command.name for command in COMMANDS if command.name not in ("microphone", "leave")]
    for _ in range(80):
        command = dice.choice(
            [*commands, "stand", "again", "fewer", "next", "back", "wait", "wait", "wait", "leave"]
        )
        if command == "wait":
            stage.wait(dice.choice((0.3, 3.0, 40.0)), step=2.0)
        elif command != "leave" or dice.random() < 0.3:
            stage.page.do(command)
            stage.page._teaching = None
            stage.now += dice.choice((0.1, 0.3, 1.0))
            stage.page.frame()
        if not stage.page.isVisible():
            stage.desk.press("to_take")
        take = stage.take
        assert all(one.end == two.start for one, two in pairwise(take.segments))
        assert len({one.id for one in take.segments}) == len(take.segments)
        moments = [mark.at_s for mark in stage.runner.marks]
        assert moments == sorted(moments)
    stage.page.grab()
    stage.said()
    if stage.runner.marks and not stage.runner.rehearsing:
        again = replay(stage.desk.session.solved, stage.runner._made, stage.runner.marks)
        assert [(one.id, one.start, one.end) for one in again.segments] == [
            (one.id, one.start, one.end) for one in stage.take.segments
        ]
