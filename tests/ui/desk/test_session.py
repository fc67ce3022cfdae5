"""The session and its maker: the newest request wins, what takes long can be stopped, acts be undone."""

import time

import pytest
from PySide6.QtWidgets import QApplication

from tests.conftest import plan_of, shipped
from yewhour.core.edits.arrange import with_node
from yewhour.core.plan.edit import with_brief
from yewhour.core.plan.nodes import Step
from yewhour.core.plan.places import nodes_of
from yewhour.ui.desk.class_maker import ClassMaker, MakeRequest
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.jobs import Jobs
from yewhour.ui.kit.undo_history import MOST_UNDO


@pytest.fixture
def session(qtbot):
    opened = Session()
    yield opened
    opened.jobs.close()


@pytest.fixture
def maker(qtbot):
    jobs = Jobs()
    yield ClassMaker(shipped, jobs)
    jobs.close()


def settle(qtbot, session):
    qtbot.waitUntil(lambda: not session.busy, timeout=20_000)
    QApplication.processEvents()


def ladder(amount=5, **brief):
    return plan_of(*[Step(movement="downward-dog", amount=amount + n % 3) for n in range(6)], **brief)


def test_the_newest_request_wins(qtbot, maker):
    done = []
    maker.done.connect(lambda outcome: done.append(outcome.request.serial))
    for number in range(1, 40):
        maker.ask(MakeRequest("class", number, ladder(target_s=300.0 + number)))
    qtbot.waitUntil(lambda: not maker.busy, timeout=20_000)
    assert done[-1] == 39
    assert len(done) < 39
    assert done == sorted(done)


def test_work_that_takes_long_gives_way_to_a_newer_request_and_can_be_stopped(qtbot, maker, monkeypatch):
    stages, done = [], []
    maker.stage.connect(stages.append)
    maker.done.connect(lambda outcome: done.append(outcome.request.serial))

    def slow(request):
        for _ in range(1000):
            time.sleep(0.02)
            maker._heard("fitting")

    quick = maker._make
    monkeypatch.setattr(maker, "_make", slow)
    maker.ask(MakeRequest("class", 1, ladder()))
    qtbot.waitUntil(lambda: bool(stages), timeout=20_000)
    assert stages[0] == "fitting"
    monkeypatch.setattr(maker, "_make", quick)
    maker.ask(MakeRequest("class", 2, ladder()))
    qtbot.waitUntil(lambda: done == [2], timeout=20_000)
    monkeypatch.setattr(maker, "_make", slow)
    maker.ask(MakeRequest("class", 3, ladder()))
    qtbot.waitUntil(lambda: maker._job is not None and maker._job.since > 0, timeout=20_000)
    maker.stop()
    qtbot.waitUntil(lambda: not maker.busy, timeout=20_000)
    assert done == [2]


def test_a_fault_of_the_program_is_told_and_the_maker_goes_on(qtbot, maker, monkeypatch):
    done, faults = [], []
    maker.done.connect(done.append)
    maker.jobs.faulted.connect(faults.append)
    quick = maker._make
    monkeypatch.setattr(maker, "_make", lambda request: 1 / 0)
    maker.ask(MakeRequest("class", 1, ladder()))
    qtbot.waitUntil(lambda: len(done) == 1, timeout=20_000)
    assert "could not be made" in str(done[0].problem)
    assert "Error" not in str(done[0].problem)
    assert isinstance(faults[0].error, ZeroDivisionError)
    monkeypatch.setattr(maker, "_make", quick)
    maker.ask(MakeRequest("class", 2, ladder(target_s=300.0)))
    qtbot.waitUntil(lambda: len(done) == 2, timeout=20_000)
    assert done[1].timed is not None


def test_the_interface_is_not_held_up_while_a_large_class_is_made(qtbot, session):
    """While it is made on its thread, events are handled: some of them between asking and having it."""
    many = plan_of(
        *[Step(movement=name) for name in ("downward-dog", "cobra", "child") * 50], target_s=2400.0
    )
    session.begin(many)
    assert session.busy
    assert session.timed is None
    handled = 0
    while session.busy:
        QApplication.processEvents()
        handled += 1
        time.sleep(0.001)
    assert handled > 20
    qtbot.waitUntil(lambda: session.timed is not None or session.trouble is not None, timeout=10_000)


def test_acts_of_one_kind_in_a_row_are_undone_together(qtbot, session):
    session.begin(ladder(target_s=300.0))
    first = session.plan
    for letter in ("E", "Eb", "Ebb"):
        session.do(f"Call it {letter}", with_brief(session.plan, title=letter), kind="brief title")
    session.do("For whom", with_brief(session.plan, audience="rowers"), kind="brief audience")
    assert session.past.undo_titles == ["For whom", "Call it Ebb"]
    session.undo(2)
    assert session.plan == first
    assert session.past.redo_titles == ["Call it Ebb", "For whom"]
    session.redo()
    assert session.plan.brief.title == "Ebb"
    settle(qtbot, session)


def test_what_changes_nothing_is_no_act(qtbot, session):
    session.begin(ladder(target_s=300.0))
    session.do("The same", with_brief(session.plan, target_s=300.0))
    assert session.past.undo_titles == []
    settle(qtbot, session)


def test_the_oldest_acts_are_forgotten(qtbot, session):
    session.begin(ladder(target_s=300.0))
    for number in range(MOST_UNDO + 20):
        session.do("Call it", with_brief(session.plan, title=str(number)))
    assert len(session.past.undo_titles) == MOST_UNDO
    settle(qtbot, session)


def test_a_trial_is_shown_and_dropped_without_an_act(qtbot, session):
    session.begin(ladder(target_s=300.0))
    settle(qtbot, session)
    timed = session.timed
    session.try_length(360.0)
    settle(qtbot, session)
    assert session.shown.length_s == 360
    assert session.timed is timed
    session.drop_trial()
    assert session.shown is timed
    assert session.past.undo_titles == []


def test_contradictory_locks_are_told_and_the_class_is_as_near_as_it_can_be(qtbot, session):
    plan = ladder(target_s=3600.0)
    for node in nodes_of(plan):
        plan = with_node(plan, node, locked=True)
    session.begin(plan)
    settle(qtbot, session)
    settle(qtbot, session)
    assert "at most" in session.refusal
    assert session.unfinished
    assert session.timed.length_s == session.solved.preferred_s
    assert session.offers[-1].title.startswith("Promise the nearest")


def test_a_class_that_opens_with_a_movement_that_is_not_there_stays_open_and_says_so(qtbot, session):
    plan = plan_of(Step(movement="no-such-thing"))
    session.begin(plan)
    settle(qtbot, session)
    assert session.plan is plan
    told = [one.message for one in session.timed.findings if one.code == "stand-in"]
    assert "No such thing" in told[0]


def test_a_choice_stays_through_changes_and_goes_with_its_step(qtbot, session):
    session.begin(ladder(target_s=300.0))
    settle(qtbot, session)
    first, second = list(nodes_of(session.plan))[:2]
    session.pick(second)
    assert session.segment(session.selected).use.step.id == second
    session.do("Another", with_node(session.plan, second, amount=7))
    settle(qtbot, session)
    assert session.picked == (second,)
    from yewhour.core.edits.arrange import removed

    session.do("Out", removed(session.plan, [second]), pick=(first,))
    settle(qtbot, session)
    assert session.picked == (first,)


def test_a_class_opened_before_is_seen_at_once_and_made_anew_behind_it(qtbot, session, tmp_path):
    path = tmp_path / "ladder.yewhour"
    from yewhour.state.classes.class_file import write_plan

    write_plan(ladder(target_s=300.0), path)
    session.open(path)
    assert session.timed is None
    settle(qtbot, session)
    timed = session.timed
    again = Session()
    again.open(path)
    assert again.timed == timed  # before anything was made
    assert again.solved is None
    assert again.busy
    again.set_length(330.0)  # and it can be worked on
    settle(qtbot, again)
    assert again.solved is not None
    assert again.timed.length_s == 330
    again.jobs.close()


def test_a_class_left_before_its_glimpse_was_made_anew_keeps_nobody_waiting(qtbot, session, tmp_path):
    path = tmp_path / "ladder.yewhour"
    from yewhour.state.classes.class_file import write_plan

    write_plan(ladder(target_s=300.0), path)
    session.open(path)
    settle(qtbot, session)
    again = Session()
    again.open(path)
    again.begin(plan_of())
    assert not again.busy
    qtbot.wait(80)
    assert not again.busy
    assert again.timed is None
    again.jobs.close()


def test_stopping_takes_back_the_change_that_was_waited_for_and_no_other(qtbot, session, monkeypatch):
    session.begin(ladder(target_s=300.0))
    settle(qtbot, session)
    session.do("Called", with_brief(session.plan, title="Called"))
    settle(qtbot, session)
    session.stop()  # nothing is being made: nothing is taken back
    assert session.plan.brief.title == "Called"
    quick = session.maker._make

    def slow(request):
        for _ in range(200):
            time.sleep(0.02)
            session.maker._heard("fitting")
        return None

    monkeypatch.setattr(session.maker, "_make", slow)
    session.do("Too much", with_brief(session.plan, title="Too much"))
    qtbot.waitUntil(lambda: session.maker._job is not None and session.maker._job.since > 0, timeout=5000)
    monkeypatch.setattr(session.maker, "_make", quick)
    session.stop()
    settle(qtbot, session)
    assert session.plan.brief.title == "Called"
    assert session.timed.plan.brief.title == "Called"
    assert session.past.redo_titles == ["Too much"]


def test_a_number_that_nobody_could_mean_is_refused_at_once_and_the_class_stays(desk):
    before = desk.session.plan
    desk.window.finder.field.setText("child 200000b")
    desk.window.finder.add()
    desk.settle()
    assert desk.session.plan == before
    assert "amount can't be 200000" in desk.window.foot.message.text()
