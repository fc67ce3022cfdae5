"""The promise: every value is the teacher's, what the style sets is said, and the consequence is shown."""

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from yewhour.ui.promise.style import NAMES


def page_of(desk):
    desk.press("to_promise")
    return desk.window.promise_page


def test_what_is_typed_is_promised_at_once_and_what_is_no_length_changes_nothing(desk):
    page = page_of(desk)
    page.length.selectAll()
    QTest.keyClicks(page.length, "26:00")
    desk.settle()
    assert desk.made.length_s == 1560
    plan = desk.session.plan
    page.length.setText("")
    QTest.keyClicks(page.length, "soon")
    desk.settle()
    assert desk.session.plan is plan
    assert "not a length" in page.length.toolTip()
    QTest.keyClicks(page.title, "!")
    desk.settle()
    assert desk.window.head.title.text() == "Ropes and shoulders!"


def test_three_hours_are_refused_with_what_can_be_done(desk):
    page = page_of(desk)
    page.length.selectAll()
    QTest.keyClicks(page.length, "3:00:00")
    desk.settle()
    assert "can't last 3:00:00" in desk.window.foot.message.text()
    assert desk.made.length_s == desk.session.solved.longest_s
    assert "longest" in page.length_picture.accessibleDescription()
    desk.window.grab()


def test_who_is_there_and_what_is_at_hand_is_pressed_in_and_out(desk):
    page = page_of(desk)
    desk.click(page.cautions.chips["knees"])
    assert "knees" in desk.session.plan.brief.cautions
    desk.click(page.cautions.chips["knees"])
    assert "knees" not in desk.session.plan.brief.cautions
    desk.click(page.facing.chips["side"])
    assert desk.session.plan.brief.facing == "side"
    desk.click(page.mirror.chips["yes"])
    assert desk.session.plan.brief.ways["mirror"] is True
    desk.click(page.mirror.chips[""])
    assert "mirror" not in desk.session.plan.brief.ways


def test_the_pace_is_tapped_along(desk):
    page = page_of(desk)
    clock = iter([0.0, 6.0, 12.1, 18.0, 24.0, 30.1, 40.0])
    page.tap.now = lambda: next(clock)
    for _ in range(6):
        QTest.mouseClick(page.tap.tap_button, Qt.MouseButton.LeftButton)
    desk.settle()
    assert desk.session.plan.brief.pace.breaths_per_min == 10.0
    assert "10 breaths a minute" in page.tap.said.text()
    assert page.picture.rate_bpm == 10.0
    page.tap.tap()
    page.tap.take()
    assert "Too few taps" in page.tap.said.text()
    desk.click(page.usual)
    assert desk.session.plan.brief.pace is None


def test_the_voice_is_taken_from_a_paragraph_read_aloud(desk):
    page = page_of(desk)
    from yewhour.ui.promise.breath import PARAGRAPH

    usual_s = desk.session.words.seconds(PARAGRAPH, "instruct", 1.0)
    clock = iter([100.0, 100.0 + usual_s / 1.2, 200.0, 201.0])
    page.read.now = lambda: next(clock)
    desk.click(page.read.press_button)
    assert page.read.paragraph.isVisible()
    desk.click(page.read.press_button)
    assert desk.session.plan.brief.voice_rate == 1.2
    page.read.press()
    page.read.press()
    assert "can't be right" in page.read.said.text()


def test_what_the_style_sets_is_named_changed_and_given_back(desk):
    page = page_of(desk)
    ways = page.ways
    assert set(ways._fields) == set(NAMES)
    assert ways._whose["lead"].text() == "from Flow"
    ways._fields["lead"].setCurrentIndex(ways._fields["lead"].findData("left"))
    ways._fields["lead"].activated.emit(1)
    desk.settle()
    assert desk.session.plan.brief.ways["lead"] == "left"
    assert desk.session.solved.setting.school.lead == "left"
    desk.click(ways._whose["lead"])
    assert "lead" not in desk.session.plan.brief.ways
    page.style_box.setCurrentIndex(page.style_box.findData("hatha"))
    page.style_box.activated.emit(0)
    desk.settle()
    assert desk.session.plan.brief.style == "hatha"
    assert ways._whose["lead"].text() == "from Hatha"


def test_a_breath_nobody_could_breathe_is_refused_and_the_picture_stays(desk):
    page = page_of(desk)
    plan = desk.session.plan
    page.ratio[0].setValue(0.0)
    desk.settle()
    assert desk.session.plan is plan
    assert "inhale and an exhale" in desk.window.foot.message.text()
    desk.window.grab()
