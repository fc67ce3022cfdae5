"""The promise: every value is the teacher's, what the style sets is said, and the consequence is shown."""

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from yewhour.core.lengths import show_length
from yewhour.core.outline.reader import read_outline
from yewhour.core.outline.writer import write_outline
from yewhour.core.plan.edit import with_brief
from yewhour.ui.promise.style_ways import NAMES


def page_of(desk, word=""):
    """The promise, with the choices of one word open."""
    desk.press("to_promise")
    page = desk.window.pages.promise()
    if word:
        desk.click(page.editor.sentence.words[word])
    return page


def test_what_is_typed_is_promised_at_once_and_what_is_no_length_changes_nothing(desk):
    page = page_of(desk, "length")
    page.length.selectAll()
    QTest.keyClicks(page.length, "26:00")
    desk.settle()
    assert desk.timed.length_s == 1560
    plan = desk.session.plan
    page.length.setText("")
    QTest.keyClicks(page.length, "soon")
    desk.settle()
    assert desk.session.plan is plan
    assert not page.no_length.isVisible()  # who is typing still is left in peace
    desk.qtbot.waitUntil(page.no_length.isVisible, timeout=3000)
    assert "'soon' is not a length" in page.no_length.text()
    assert "26:00" in page.no_length.text()
    page.length.selectAll()
    QTest.keyClicks(page.length, "27")
    desk.settle()
    assert desk.timed.length_s == 1620
    assert not page.no_length.isVisible()
    desk.click(page.editor.sentence.words["title"])
    page.title.end(False)
    QTest.keyClicks(page.title, "!")
    desk.settle()
    assert desk.window.head.title.text() == "Ropes and shoulders!"


def test_three_hours_are_refused_with_what_can_be_done(desk):
    page = page_of(desk, "length")
    page.length.selectAll()
    QTest.keyClicks(page.length, "3:00:00")
    desk.settle()
    assert "still to fill" in desk.window.foot.message.text()
    assert desk.timed.length_s == desk.session.solved.preferred_s  # not stretched to its most
    assert "still to fill of 3:00:00" in desk.window.head.promise.text()
    assert "longest" in page.length_picture.accessibleDescription()
    desk.window.grab()


def test_who_is_there_and_what_is_at_hand_is_pressed_in_and_out(desk):
    page = page_of(desk, "cautions")
    desk.click(page.cautions.chips["knees"])
    assert "knees" in desk.session.plan.brief.cautions
    desk.click(page.cautions.chips["knees"])
    assert "knees" not in desk.session.plan.brief.cautions
    desk.click(page.editor.sentence.words["camera"])
    desk.click(page.facing.chips["side"])
    assert desk.session.plan.brief.facing == "side"
    desk.click(page.mirror.chips["yes"])
    assert desk.session.plan.brief.ways["mirror"] is True
    desk.click(page.mirror.chips[""])
    assert "mirror" not in desk.session.plan.brief.ways


def test_the_pace_is_tapped_along(desk):
    page = page_of(desk, "pace")
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
    page = page_of(desk, "voice")
    from yewhour.ui.promise.breath import PARAGRAPH

    usual_s = desk.session.teaching_data.seconds(PARAGRAPH, "instruct", 1.0)
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
    desk.click(page.fold)
    ways = page.ways
    assert set(ways._fields) == set(NAMES)
    assert ways._whose["lead"].text() == "from Flow"
    ways._fields["lead"].setCurrentIndex(ways._fields["lead"].findData("left"))
    ways._fields["lead"].activated.emit(1)
    desk.settle()
    assert desk.session.plan.brief.ways["lead"] == "left"
    assert desk.session.solved.prepared.school.lead == "left"
    desk.click(ways._whose["lead"])
    assert "lead" not in desk.session.plan.brief.ways
    desk.click(page.editor.sentence.words["style"])
    desk.click(page.style_chips.chips["hatha"])
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


def test_the_promise_reads_as_a_sentence(desk):
    page = page_of(desk)
    said = page.editor.sentence.accessibleDescription()
    assert said.startswith(
        "Ropes and shoulders: a 24-minute flow for the bell-ringers of Saltmarsh Row, in the evening"
    )
    assert "Mind nobody in particular. At hand: nothing." in said
    assert page.editor.sentence.words["length"].accessibleName() == "Length: 24-minute"


def test_a_word_opens_its_choices_and_typing_narrows_them(desk):
    page = page_of(desk)
    assert not page.cautions.isVisible()
    page.editor.sentence.words["cautions"].setFocus()
    desk.key(Qt.Key.Key_Return)
    assert page.cautions.isVisible()
    QTest.keyClicks(QApplication.focusWidget(), "kn")
    shown = [chip.text() for chip in page.cautions.chips.values() if chip.isVisible()]
    assert shown == ["Tender knees", "A new knee"]
    desk.key(Qt.Key.Key_Space)
    assert "knees" in desk.session.plan.brief.cautions
    desk.key(Qt.Key.Key_Escape)
    assert not page.cautions.isVisible()
    assert QApplication.focusWidget() is page.editor.sentence.words["cautions"]
    assert "knees" in page.editor.sentence.words["cautions"].text()


def test_from_the_title_to_the_camera_is_a_dozen_stops_and_arrows_go_inside(desk):
    page = page_of(desk)
    words = page.editor.sentence.words
    words["title"].setFocus()
    stops = 1
    while QApplication.focusWidget() is not words["camera"]:
        desk.key(Qt.Key.Key_Tab)
        stops += 1
        assert stops <= 12
    desk.click(words["level"])
    first = QApplication.focusWidget()
    desk.key(Qt.Key.Key_Right)
    assert QApplication.focusWidget() is not first
    assert QApplication.focusWidget() in page.level.chips.values()


def test_a_class_too_short_for_its_promise_says_what_is_left_to_fill(desk):
    page = page_of(desk)
    desk.session.set_length(3600.0)
    desk.settle()
    left_s = 3600 - desk.session.lengths.preferred_s
    assert page.still.text() == f"{show_length(left_s)} still to fill."


def test_the_breath_is_told_as_promised_and_as_she_breathes(desk):
    page = page_of(desk)
    assert page.editor.sentence.words["pace"].text() == "8 a minute"
    desk.session.do("Hers", with_brief(desk.session.plan, own={"breath": 1.25}))
    desk.settle()
    assert page.editor.sentence.words["pace"].text() == "8 a minute, 6.4 as you breathe"
    assert "a breath 1.25" in page.ways.own.text()
    page.ways.usual.click()
    desk.settle()
    assert desk.session.plan.brief.own == {}


def test_why_it_is_given_its_shape_and_its_thread_are_written_where_they_are_promised(desk):
    desk.press("to_promise")
    page = desk.window.pages.promise()
    page.editor.open("reason")
    page.reason.setFocus()
    page.reason.selectAll()
    desk.type("For everyone who rang until midnight.")
    page.editor.open("theme")
    for line, text in zip(page.theme_lines, ("Letting go of the rope.", "", "It is let go."), strict=True):
        line.setFocus()
        line.selectAll()
        QTest.keyClick(line, Qt.Key.Key_Delete)
        desk.type(text)
    desk.settle()
    brief = desk.session.plan.brief
    assert brief.reason == "For everyone who rang until midnight."
    assert brief.theme == ("Letting go of the rope.", "", "It is let go.")
    said = [cue.text for cue in desk.timed.cues]
    for line in (brief.reason, brief.theme[0], brief.theme[2]):
        assert line in said
    assert "" not in said
    text = write_outline(desk.session.plan, desk.session.teaching_data.library)
    assert read_outline(text, desk.session.teaching_data.library).brief.theme == brief.theme
