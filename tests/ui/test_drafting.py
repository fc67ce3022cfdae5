"""Drafting in the real window: a promise and Enter, another, some kept, something else here, and why."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QPushButton

from yewhour.core.plan.nodes import Step, walk
from yewhour.core.plan.plan import Section
from yewhour.ui.desk.promise_line import PROMISE
from yewhour.ui.frame.dialogs.draft_dialogs import AlternativesDialog, WhyDialog

TEXT = "20-minute gentle hatha for the bell-ringers, evening, about hips, mind knees, a block at hand"


def wait(desk):
    desk.qtbot.waitUntil(lambda: not desk.window.pages.drafting().busy, timeout=20_000)
    desk.settle()


def movements(plan):
    return [
        node.movement for section in plan.sections for node in walk(section.body) if isinstance(node, Step)
    ]


@pytest.fixture
def drafted(bare_desk):
    """A desk with a class drafted from a promise that was typed on the first page."""
    assert bare_desk.window.pages.start().promise.field.hasFocus()
    bare_desk.type(TEXT)
    bare_desk.key(Qt.Key.Key_Return)
    bare_desk.qtbot.waitUntil(lambda: bare_desk.session.timed is not None, timeout=20_000)
    wait(bare_desk)
    return bare_desk


def choose_work(desk):
    """Chooses a movement in the middle of the class."""
    timed = desk.session.timed
    work = [one for one in timed.segments if one.section not in ("Arrive", "Rest", "Close") and one.amount]
    work = [one for one in work if not one.use.setup_for and one.kind != "talk"]
    desk.session.select(work[len(work) // 2].id)
    desk.settle()
    return work[len(work) // 2]


def test_a_promise_and_enter_stand_on_the_sprig(drafted):
    plan = drafted.session.plan
    assert plan.brief.title == "Hips for the bell-ringers in the evening"
    assert drafted.session.timed.length_s == 1200.0
    assert [one for one in drafted.session.timed.findings if one.severity != "note"] == []
    assert drafted.window.stations.body.currentWidget() is drafted.window.stations.bench
    assert drafted.window.foot.message.text().startswith("Drafted.")
    assert drafted.session.changed


def test_the_example_is_drafted_where_nothing_was_typed(bare_desk):
    assert bare_desk.window.pages.start().promise.field.placeholderText() == PROMISE
    bare_desk.click(
        next(b for b in bare_desk.window.pages.start().findChildren(QPushButton) if b.text() == "Draft it")
    )
    wait(bare_desk)
    assert bare_desk.session.plan.brief.target_s == 1500.0


def test_what_can_t_be_read_or_kept_is_told_and_what_was_typed_stays(bare_desk):
    page = bare_desk.window.pages.start()
    bare_desk.type("hatha, mind dragons")
    bare_desk.key(Qt.Key.Key_Return)
    assert "What does \u201cdragons\u201d ask for?" in bare_desk.window.foot.message.text()
    assert page.promise.field.text() == "hatha, mind dragons"
    page.promise.field.setText("lying only, standing only")
    bare_desk.key(Qt.Key.Key_Return)
    wait(bare_desk)
    assert "leave too little to do together" in bare_desk.window.foot.message.text()
    assert bare_desk.session.plan is None


def shown(desk):
    """What is said to be understood."""
    desk.qtbot.waitUntil(lambda: not desk.window.pages.start().promise._soon.isActive(), timeout=5_000)
    desk.settle()
    return " ".join(one.text() for one in desk.window.pages.start().promise.understood.findChildren(QLabel))


def test_what_is_understood_is_shown_while_it_is_typed_and_a_question_is_answered_with_a_press(bare_desk):
    page = bare_desk.window.pages.start()
    bare_desk.type("20-minute hatha, sore knees, yoga for lupus")
    words = shown(bare_desk)
    assert "minded: tender knees" in words
    assert "What does \u201clupus\u201d ask for?" in words
    choices = [
        one for one in page.promise.understood.findChildren(QPushButton) if one.text().startswith("Mind")
    ]
    assert choices
    bare_desk.click(choices[0])
    assert "lupus" not in page.promise.field.text()
    assert "ask for?" not in shown(bare_desk)
    bare_desk.key(Qt.Key.Key_Return)
    wait(bare_desk)
    assert bare_desk.session.plan.brief.cautions[0] == "knees"


def test_what_is_too_recent_is_asked_about_and_a_doctor_answers_with_a_press(bare_desk):
    promise = bare_desk.window.pages.start().promise
    bare_desk.type("hatha, 20 minutes, 10 days after a caesarean")
    assert "has a doctor said yes?" in shown(bare_desk)
    bare_desk.key(Qt.Key.Key_Return)
    assert bare_desk.session.plan is None
    (yes,) = [one for one in promise.understood.findChildren(QPushButton) if "has said yes" in one.text()]
    bare_desk.click(yes)
    assert promise.field.text().endswith("caesarean, cleared by the doctor")
    assert "has a doctor said yes?" not in shown(bare_desk)
    bare_desk.key(Qt.Key.Key_Return)
    wait(bare_desk)
    assert bare_desk.session.plan.brief.cautions == ("c-section",)


def test_after_a_draft_nothing_is_highlighted_that_the_inspector_does_not_edit(drafted):
    choose_work(drafted)
    drafted.press("draft_another")
    wait(drafted)
    assert drafted.session.picked == ()
    assert drafted.session.selected == ""
    chosen = choose_work(drafted)
    drafted.press("draft_rest")
    wait(drafted)
    assert drafted.session.picked
    step = drafted.session.picked[0]
    now = next(one for one in drafted.timed.segments if one.use.step.id == step and one.kind != "talk")
    assert now.use.movement.id == chosen.use.movement.id


def test_a_course_that_is_promised_stands_on_the_shelf_as_a_ladder(bare_desk):
    bare_desk.type("two weeks of two 10-minute mat classes for beginners, towards the hundred")
    assert "A course of 4 classes, 2 a week" in shown(bare_desk)
    bare_desk.key(Qt.Key.Key_Return)
    wait(bare_desk)
    shelf = bare_desk.window.pages.shelving().shelf
    series = next(iter(shelf.series.values()))
    assert (series.weeks, series.each, len(series.classes)) == (2, 2, 4)
    assert [shelf.classes[name].sheet.title[-1] for name in series.classes] == ["1", "2", "3", "4"]
    assert bare_desk.window.pages.shelf().isVisible()
    assert bare_desk.window.pages.shelf().courses.isVisible()


def test_another_is_another_and_undo_takes_it_back_whole(drafted):
    before = drafted.session.plan
    drafted.press("draft_another")
    wait(drafted)
    assert set(movements(drafted.session.plan)) != set(movements(before))
    assert drafted.session.timed.length_s == 1200.0
    assert drafted.session.past.undo_titles[0] == "Another draft"
    drafted.press("undo")
    assert drafted.session.plan == before


def test_what_is_chosen_stays_and_the_rest_changes(drafted):
    chosen = choose_work(drafted)
    before = drafted.session.plan
    kept = next(one for one in before.sections if one.title == chosen.section)
    drafted.press("draft_rest")
    wait(drafted)
    after = next(one for one in drafted.session.plan.sections if one.role == kept.role)
    assert movements(type(before)(sections=(after,))) == movements(type(before)(sections=(kept,)))
    assert movements(drafted.session.plan) != movements(before)


def test_a_part_anew(drafted):
    chosen = choose_work(drafted)
    before = drafted.session.plan
    drafted.press("draft_part")
    wait(drafted)
    other = [
        one.title
        for one, two in zip(before.sections, drafted.session.plan.sections, strict=True)
        if movements(type(before)(sections=(one,))) != movements(type(before)(sections=(two,)))
    ]
    assert other == [chosen.section]


def test_something_else_is_seen_before_it_is_taken(drafted):
    chosen = choose_work(drafted)
    before = drafted.session.plan
    drafted.press("draft_else")
    wait(drafted)
    dialog = drafted.window._dialogs[-1]
    assert isinstance(dialog, AlternativesDialog)
    assert len(dialog.choices) == 3
    dialog.choices[1].setFocus()
    drafted.settle()
    assert drafted.session.plan == before
    shown = {one.use.movement.id for one in drafted.session.shown.segments}
    assert dialog.choices[1].one.movement in shown
    drafted.click(dialog.choices[1])
    assert dialog.choices[1].one.movement in movements(drafted.session.plan)
    assert chosen.use.movement.id not in movements(drafted.session.plan)
    drafted.press("undo")
    assert drafted.session.plan == before


def test_leaving_it_as_it_is_leaves_no_trace(drafted):
    choose_work(drafted)
    before = drafted.session.plan
    drafted.press("draft_else")
    wait(drafted)
    drafted.window._dialogs[-1].reject()
    drafted.settle()
    assert drafted.session.plan == before
    assert drafted.session.trial is None


def test_what_is_not_wanted_does_not_come_again(drafted):
    chosen = choose_work(drafted)
    drafted.press("draft_not")
    wait(drafted)
    assert chosen.use.movement.id not in movements(drafted.session.plan)
    for _ in range(3):
        drafted.press("draft_another")
        wait(drafted)
        assert chosen.use.movement.id not in movements(drafted.session.plan)


def test_why_is_told_of_each_and_of_what_was_turned_down(drafted):
    drafted.press("draft_why")
    dialog = drafted.window._dialogs[-1]
    assert isinstance(dialog, WhyDialog)
    words = " ".join(one.text() for one in dialog.findChildren(QLabel))
    assert "about hips" in words
    assert "Not for tender knees, because you said \u201cknees\u201d" in words
    assert "What you asked for" in words


def test_an_unfinished_class_is_filled_from_its_card(drafted):
    session = drafted.session
    plan = session.plan
    stay = ("arrive", "rest", "close")
    empty = tuple(
        one if one.role in stay else Section(title=one.title, role=one.role) for one in plan.sections
    )
    session.do("Emptied", type(plan)(brief=plan.brief, sections=empty, blocks=plan.blocks))
    drafted.settle()
    assert session.unfinished
    session.select("")
    drafted.settle()
    fill = next(
        one for one in drafted.window.inspector.findChildren(QPushButton)
        if one.text() == "Draft what is missing" and one.isVisible()
    )  # fmt: skip
    drafted.click(fill)
    wait(drafted)
    assert session.timed.length_s == 1200.0
    assert not session.unfinished
    assert all(section.body for section in session.plan.sections)


@pytest.mark.parametrize("command", ["draft_like", "draft_gentler", "draft_chair"])
def test_one_more_class_of_this_one(drafted, command):
    before = drafted.session.plan
    drafted.press(command)
    wait(drafted)
    assert movements(drafted.session.plan) != movements(before)
    assert drafted.session.timed.length_s == 1200.0
    assert drafted.session.path is None


@pytest.mark.parametrize(
    ("command", "message"),
    [
        ("draft_rest", "Nothing is chosen"),
        ("draft_else", "No movement is chosen"),
        ("draft_fill", "nothing to fill"),
    ],
)
def test_what_can_t_be_done_is_told(drafted, command, message):
    drafted.session.select("")
    drafted.press(command)
    assert message in drafted.window.foot.message.text()


def test_without_a_class_it_says_where_to_begin(bare_desk):
    bare_desk.press("draft_another")
    assert "No class is open" in bare_desk.window.foot.message.text()
