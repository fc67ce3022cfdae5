"""The library: each movement read on its plate, changed where it stands; what is wrong is told beside it."""

import msgspec
import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QCheckBox, QLabel, QPushButton

from yewhour.core.plan.nodes import Step
from yewhour.state.classes.own_movements import own_file


@pytest.fixture
def view(desk, tmp_path, monkeypatch):
    """The dialog, over a folder of her own that is empty."""
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    desk.press("show_library")
    return desk.window._dialogs[-1]


def shown_words(widget):
    """All words on a widget, of labels and of buttons."""
    widgets = [*widget.findChildren(QLabel), *widget.findChildren(QPushButton)]
    return [one.text() for one in widgets if not one.isHidden()]


def write(line, text):
    """A line opened by the pointer, and written anew."""
    QTest.mouseClick(line, Qt.MouseButton.LeftButton)
    line.editor.selectAll()
    QTest.keyClicks(line.editor, text)


def test_a_movement_is_read_on_its_plate(desk, view):
    assert view.list.count() == len(desk.session.teaching_data.library)
    view.search.setText("low lunge")
    plate = view.plate
    assert plate.name.text() == "Low lunge"
    assert plate.traditional.text() == "Anjaneyasana"
    right, left = (words.text() for words in plate.lines.of("place")[0].said)
    assert "right thigh" in right
    assert "left thigh" in left
    said = plate.editor.sentence.accessibleDescription()
    assert "3 to 10 breaths, 5 by itself" in said
    assert "this foot in front, knee down" in said
    assert "tender knees" in said
    desk.settle()
    words = shown_words(plate.beside)
    assert any(one.startswith("Tender knees:") for one in words)
    assert "Prepares" in words
    assert any("This class" in one for one in words)


def test_it_opens_on_what_is_chosen_and_goes_to_what_is_named_beside_it(desk):
    desk.choose("low-lunge")
    desk.press("show_library")
    view = desk.window._dialogs[-1]
    assert view.plate.id == "low-lunge"
    desk.settle()
    names = [one for one in view.plate.beside.findChildren(QPushButton) if not one.isHidden()]
    other = names[0].text()
    names[0].click()
    assert view.plate.name.text() == other
    assert view.list.currentItem().text() == other


def test_a_word_of_the_sentence_opens_its_choices_by_keyboard(desk, view):
    view.choose("low-lunge")
    plate = view.plate
    plate.editor.sentence.words["end"].setFocus()
    QTest.keyClick(plate.editor.sentence.words["end"], Qt.Key.Key_Return)
    assert plate.editor.panels["end"].isVisible()
    QTest.keyClicks(QApplication.focusWidget(), "squat")
    QTest.keyClick(QApplication.focusWidget(), Qt.Key.Key_Space)
    assert plate.table["end"] == "squat"
    assert plate.editor.sentence.words["end"].text() == "a squat"
    QTest.keyClick(QApplication.focusWidget(), Qt.Key.Key_Escape)
    assert QApplication.focusWidget() is plate.editor.sentence.words["end"]


def test_only_sides_that_a_movement_has_are_offered(view):
    view.choose("child")
    offered = [key for key, chip in view.plate.places["start"].chips.items() if not chip.isHidden()]
    assert offered
    assert not any("{" in key for key in offered)
    view.choose("low-lunge")
    offered = [key for key, chip in view.plate.places["start"].chips.items() if not chip.isHidden()]
    assert "split {other} high" in offered
    assert not any("right" in key or "left" in key for key in offered)


def test_a_movement_of_her_own_is_kept_found_and_put_in(desk, view):
    view.new()
    plate = view.plate
    assert QApplication.focusWidget() is plate.name
    QTest.keyClicks(plate.name, "Oar pull")
    plate.sides.chips["one"].click()
    write(plate.lines.of("call")[0], "Draw the {side} elbow back.")
    assert view.keep_button.isEnabled()
    assert [words.text() for words in plate.lines.of("call")[0].said] == [
        "Draw the right elbow back.", "Draw the left elbow back."]  # fmt: skip
    view.keep()
    desk.settle()
    assert own_file().exists()
    assert desk.session.teaching_data.library["oar-pull"].sides == "one"
    view.close()
    desk.press("find_movement")
    desk.window.finder.field.setText("oar")
    desk.window.finder.add()
    desk.settle()
    assert {s.side for s in desk.timed.segments if s.use.movement.id == "oar-pull"} >= {"left", "right"}


def test_her_own_words_on_a_card_are_said_in_her_classes(desk, view):
    view.choose("low-lunge")
    write(view.plate.lines.of("place")[0], "Knee over ankle, chest up, and look at the harbour.")
    view.keep()
    desk.settle()
    lunge = desk.session.teaching_data.library["low-lunge"]
    assert lunge.card.place == ("Knee over ankle, chest up, and look at the harbour.",)
    assert len(lunge.card.aim) >= 2
    assert any("look at the harbour" in cue.text for cue in desk.timed.cues)


def test_what_is_wrong_is_told_beside_its_field_and_waits_there(view):
    view.choose("low-lunge")
    plate = view.plate
    line = plate.lines.of("aim")[0]
    write(line, "Draw the {hand} back.")
    assert "{hand}" in line.fault.text()
    assert not line.fault.isHidden()
    least = plate.dose[0]
    least.setValue(20)
    assert not plate.faults["dose"].isHidden()
    assert "least" in plate.faults["dose"].text()
    assert plate.table["dose"] == [3, 5, 10]
    assert not view.keep_button.isEnabled()
    least.setValue(2)
    assert plate.faults["dose"].isHidden()
    assert plate.table["dose"][0] == 2
    line.editor.selectAll()
    QTest.keyClicks(line.editor, "Draw the {side} hand back.")
    assert line.fault.isHidden()
    assert view.keep_button.isEnabled()
    plate.name.selectAll()
    QTest.keyClick(plate.name, Qt.Key.Key_Delete)
    assert "name" in plate.faults["name"].text()
    assert not view.keep_button.isEnabled()


def test_a_side_that_is_written_is_said_of_the_other_side_too_unless_it_is_unlinked(desk, view):
    view.choose("low-lunge")
    line = view.plate.lines.of("aim")[0]
    write(line, "Lift the right knee, all right, past the left hand.")
    assert [one.text() for one in line.said] == [
        "Lift the right knee, all right, past the left hand.",
        "Lift the left knee, all right, past the right hand.",
    ]
    assert line.text == "Lift the {side} knee, all right, past the {other} hand."
    mirror = line.findChild(QCheckBox)
    mirror.click()
    assert len({one.text() for one in line.said}) == 1
    mirror.click()
    assert len({one.text() for one in line.said}) == 2
    QTest.keyClick(line.editor, Qt.Key.Key_Escape)
    line.open()
    assert line.editor.toPlainText() == "Lift the right knee, all right, past the left hand."


def test_a_kind_that_needs_a_rhythm_gets_one_that_can_be_changed(view):
    view.choose("low-lunge")
    plate = view.plate
    plate.kind.chips["reps"].click()
    assert plate.table["kind"] == "reps"
    assert plate.rhythm.text() == "exhale 4 inhale 4"
    plate.editor.open("kind")
    plate.rhythm.setFocus()
    plate.rhythm.selectAll()
    QTest.keyClicks(plate.rhythm, "exhale 2 in")
    assert not plate.faults["rhythm"].isHidden()
    QTest.keyClicks(plate.rhythm, "hale 3")
    assert plate.faults["rhythm"].isHidden()
    assert plate.table["rhythm"] == "exhale 2 inhale 3"


def test_a_line_is_added_and_one_that_says_nothing_goes(view):
    view.choose("child")
    plate = view.plate
    before = len(plate.lines.rows)
    plate.lines.more.click()
    plate.lines.purposes.chips["image"].click()
    line = plate.lines.of("image")[-1]
    QTest.keyClicks(line.editor, "Like a snail at noon.")
    assert plate.table["talk"]["image"][-1] == "Like a snail at noon."
    assert len(plate.lines.rows) == before + 1
    line.editor.selectAll()
    QTest.keyClick(line.editor, Qt.Key.Key_Delete)
    QTest.keyClick(line.editor, Qt.Key.Key_Escape)
    assert QApplication.focusWidget() is not line.editor
    QApplication.processEvents()
    assert len(plate.lines.rows) == before


def test_a_name_that_is_taken_is_told(view):
    view.new()
    view.plate.name.selectAll()
    QTest.keyClicks(view.plate.name, "Low lunge")
    view.keep()
    assert "already" in view.said.text()


def test_nothing_that_fits_is_said_with_what_to_try(desk):
    desk.press("find_movement")
    desk.window.finder.field.setText("zebra")
    assert "Nothing fits" in desk.window.finder.where.text()
    desk.window.finder.add()
    desk.window.finder.field.setText("downward dog 5x")
    desk.window.finder.add()
    assert "not counted in" in desk.window.finder.where.text()


def test_what_was_changed_is_kept_when_one_goes_elsewhere_or_closes(desk, view):
    view.choose("low-lunge")
    view.plate.effort.chips["5"].click()
    view.choose("child")
    assert desk.session.teaching_data.library["low-lunge"].effort == 5
    view.plate.effort.chips["4"].click()
    view.reject()
    assert not view.isVisible()
    assert desk.session.teaching_data.library["child"].effort == 4


def test_what_can_not_be_kept_is_told_before_it_is_let_go_of(view):
    view.choose("low-lunge")
    write(view.plate.lines.of("place")[0], "Draw the {hand} back.")
    view.choose("child")
    assert view.plate.name.text() == "Low lunge"
    view.reject()
    assert view.isVisible()
    assert "{hand}" in view.said.text()
    view.reject()
    assert not view.isVisible()


def test_leaving_a_movement_as_it_was_keeps_nothing(desk, view):
    for name in list(desk.session.teaching_data.library)[::7]:
        view.choose(name)
        assert view.plate.sound
        assert not view.keep_button.isEnabled()
    view.reject()
    assert not own_file().exists()


def test_a_movement_taken_away_in_use_says_where_and_comes_back(desk, view):
    view.new()
    plate = view.plate
    plate.name.selectAll()
    QTest.keyClicks(plate.name, "Tide stretch")
    view.keep_button.click()
    plan = desk.session.plan
    step = Step(movement="tide-stretch", amount=4)
    section = msgspec.structs.replace(plan.sections[0], body=(step, *plan.sections[0].body))
    desk.session.do("Put in", msgspec.structs.replace(plan, sections=(section, *plan.sections[1:])))
    desk.settle()
    view.choose("tide-stretch")
    assert view.forget_button.text() == "Take it away"
    view.forget_button.click()
    desk.settle()
    assert "This class" in view.said.text()
    assert "tide-stretch" not in desk.session.teaching_data.library
    assert "stand-in" in [one.code for one in desk.session.timed.findings]
    view.back_button.click()
    desk.settle()
    assert "tide-stretch" in desk.session.teaching_data.library
    assert "stand-in" not in [one.code for one in desk.session.timed.findings]
    view.choose("cat")
    assert view.forget_button.text() == "As it came"
    view.choose("tide-stretch")
    view.forget_button.click()
    view.reject()
    desk.settle()
    desk.press("undo")  # in the class, with the library closed
    assert desk.window.foot.message.text() == "Taken back: Take away Tide stretch."
    assert "tide-stretch" in desk.session.teaching_data.library
    assert "stand-in" not in [one.code for one in desk.session.timed.findings]


def test_each_way_of_building_a_shape_is_a_line_and_hers_is_the_only_one(desk, view):
    view.search.setText("savasana")
    plate = view.plate
    assert plate.name.text() == "Savasana"
    ways = plate.lines.of("placings")
    assert len(ways) == len(desk.session.teaching_data.library["final-rest"].card.placings)
    assert " // " in ways[0].text
    write(plate.lines.of("place")[0], "Lie as sand lies.")
    QTest.keyClick(plate.lines.of("place")[0].editor, Qt.Key.Key_Return)
    desk.settle()
    assert not plate.table["talk"].get("placings")
    assert plate.table["talk"]["place"][0] == "Lie as sand lies."
