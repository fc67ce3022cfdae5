"""The log: every fault is in it, it stays small, and a report has nothing in it that is not asked for."""

import logging
import sys
import threading

import pytest

from yewhour.background import log


@pytest.fixture
def hooks(monkeypatch):
    """The hooks for faults, put back afterwards."""
    monkeypatch.setattr(sys, "excepthook", sys.excepthook)
    monkeypatch.setattr(threading, "excepthook", threading.excepthook)
    monkeypatch.setattr(sys, "__excepthook__", lambda *error: None)


def raised():
    try:
        return [][3]
    except IndexError as error:
        return error


def test_a_fault_is_in_the_log_with_its_place():
    log.fault("Drawing the pages", raised())
    text = "\n".join(log.last_lines())
    assert "Drawing the pages" in text
    assert "IndexError" in text
    assert "test_log.py" in text


def test_the_log_stays_small(monkeypatch):
    log._logger.cache_clear()
    monkeypatch.setattr(log, "LARGEST", 20_000)
    for number in range(400):
        log.note(f"{number} " + "x" * 200)
    files = sorted(log.folder().glob("yewhour.log*"))
    assert len(files) == log.OLDER + 1
    assert sum(one.stat().st_size for one in files) < 70_000
    assert any("399 x" in line for line in log.last_lines(1))
    log._logger.cache_clear()


def test_where_nothing_can_be_written_nothing_breaks(monkeypatch, tmp_path):
    (tmp_path / "state").write_text("a file where a folder should be")
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "state"))
    log.note("lost")
    log.fault("Lost too", raised())
    assert log.last_lines() == []
    assert "(there are none)" in log.report()
    logging.raiseExceptions = True


def test_faults_that_nobody_catches_are_written_down(hooks):
    told = []
    log.watch(told.append)
    error = raised()
    sys.excepthook(type(error), error, error.__traceback__)
    work = threading.Thread(target=lambda: {}["nothing"], name="stray")
    work.start()
    work.join()
    text = "\n".join(log.last_lines())
    assert told == [error]
    assert "IndexError" in text
    assert "On the thread stray" in text
    assert "KeyError" in text
    assert log.native_file().exists()


def test_a_report_has_what_is_known_and_the_class_only_if_it_is_given():
    log.note("opened something")
    report = log.report("Drafting broke off.")
    assert report.startswith("What went wrong in Yew Hour\n\nYew Hour ")
    assert "Drafting broke off." in report
    assert "opened something" in report
    assert "The class" not in report
    assert "low lunge" in log.report("", "low lunge 5b")
