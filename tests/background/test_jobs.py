"""Jobs: the newest wins, what is given up is heard no more, and no fault is lost."""

import threading

import pytest

from yewhour.background import log
from yewhour.background.jobs import Cancelled, Runner
from yewhour.core.problem import Problem


@pytest.fixture
def runner():
    faults = []
    made = Runner(on_fault=faults.append)
    made.faults = faults
    yield made
    made.close()


def wait_until_idle(runner):
    while runner.busy():
        threading.Event().wait(0.002)


def test_what_work_gives_is_heard(runner):
    heard = []
    runner.run("sum", lambda job: 2 + 3, heard.append, doing="Adding")
    wait_until_idle(runner)
    assert heard == [5]


def test_a_problem_and_a_fault_are_told_apart_and_the_lane_goes_on(runner):
    heard, problems = [], []

    def trouble(job):
        raise Problem("There is no bread.")

    runner.run("one", trouble, heard.append, doing="Baking", failed=problems.append, lane="kitchen")
    runner.run(
        "two", lambda job: 1 / 0, heard.append, doing="Sharing", lost="The cake is whole.", lane="kitchen"
    )
    runner.run("three", lambda job: "tea", heard.append, doing="Pouring", lane="kitchen")
    wait_until_idle(runner)
    assert heard == ["tea"]
    assert [one.what for one in problems] == ["There is no bread."]
    assert str(runner.faults[0]) == "Sharing broke off. The cake is whole."
    assert any("ZeroDivisionError" in line for line in log.last_lines())


def test_of_one_key_the_newest_wins_and_older_ones_are_heard_no_more(runner):
    heard, started, go = [], threading.Event(), threading.Event()

    def slow(job):
        started.set()
        go.wait()
        job.check()
        return "first"

    runner.run("key", slow, heard.append, doing="Working")
    started.wait()
    for number in range(5):
        runner.run("key", lambda job, number=number: number, heard.append, doing="Working")
    go.set()
    wait_until_idle(runner)
    assert heard == [4]


def test_one_with_patience_that_is_done_in_time_is_still_heard(runner):
    heard, started, go = [], threading.Event(), threading.Event()

    def quick(job):
        started.set()
        go.wait()
        return "first"

    runner.run("key", quick, heard.append, doing="Working", patience_s=60.0)
    started.wait()
    runner.run("key", lambda job: "second", heard.append, doing="Working", patience_s=60.0)
    go.set()
    wait_until_idle(runner)
    assert heard == ["first", "second"]


def test_what_is_to_be_done_first_is_done_first(runner):
    heard, started, go = [], threading.Event(), threading.Event()
    runner.run("a", lambda job: (started.set(), go.wait()), doing="Waiting", lane="one")
    started.wait()
    for first, name in ((2, "last"), (0, "first"), (1, "middle")):
        runner.run(name, lambda job, name=name: name, heard.append, doing="Working", lane="one", first=first)
    go.set()
    wait_until_idle(runner)
    assert heard == ["first", "middle", "last"]


def test_jobs_that_are_all_wanted_are_all_done_in_their_order_and_finish_waits_for_them(runner):
    heard = []
    for number in range(50):
        runner.run("disk", lambda job, number=number: number, heard.append, doing="Writing", newest=False)
    runner.finish()
    assert heard == list(range(50))


def test_what_is_cancelled_is_told_so_at_its_next_check_and_not_heard(runner):
    heard, told, started, go = [], [], threading.Event(), threading.Event()

    def work(job):
        started.set()
        go.wait()
        try:
            job.progress(0.5)
        except Cancelled:
            told.append(True)
            raise

    runner.run("key", work, heard.append, doing="Working", progress=heard.append)
    started.wait()
    runner.cancel("key")
    go.set()
    runner.finish()
    assert (heard, told, runner.faults) == ([], [True], [])


def test_nothing_is_heard_after_the_end(runner):
    heard, started, go = [], threading.Event(), threading.Event()
    runner.run("key", lambda job: (started.set(), go.wait()), heard.append, doing="Working")
    started.wait()
    threading.Timer(0.05, go.set).start()
    runner.close()
    assert runner.run("key", lambda job: 1, heard.append, doing="Working").unwanted
    assert heard == []


def test_what_is_given_up_keeps_nobody_waiting(runner):
    started, go = threading.Event(), threading.Event()

    def deaf(job):
        started.set()
        go.wait()

    runner.run("key", deaf, doing="Working")
    started.wait()
    runner.cancel("key")
    assert not runner.busy("key")
    go.set()
