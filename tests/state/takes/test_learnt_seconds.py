"""What was learnt is kept by recording; damage is set aside whole; new classes begin with what was taken."""

import pytest

from yewhour.core.plan.plan import Brief, Plan
from yewhour.core.review.learning import ObservedSeconds, RecordingNotes
from yewhour.state.paths import learnt_file
from yewhour.state.takes.learnt_seconds import (
    ALL,
    MOST_RECORDINGS,
    all_notes,
    as_hers,
    begin_with,
    begun_with,
    keep_notes,
    learnt_by_month,
    read_learnt,
)

SLOWER = {"ways": 1.2, "count bridge": 0.9}


@pytest.fixture(autouse=True)
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


def notes(seconds):
    return RecordingNotes("hatha", (ObservedSeconds("ways", "start to seated", 5.0, seconds),))


def test_a_recording_that_is_looked_at_again_is_one():
    keep_notes("one", notes(6.0))
    keep_notes("two", notes(7.0))
    keep_notes("one", notes(8.0))
    assert [one.observed[0].real_s for one in all_notes()] == [7.0, 8.0]
    for number in range(MOST_RECORDINGS + 5):
        keep_notes(str(number), notes(5.0))
    assert len(all_notes()) == MOST_RECORDINGS


def test_what_is_damaged_is_set_aside_whole():
    keep_notes("one", notes(6.0))
    learnt_file().write_text("{broken")
    assert read_learnt().recordings == {}
    assert learnt_file().with_name(learnt_file().name + ".damaged").read_text() == "{broken"
    keep_notes("two", notes(7.0))
    assert len(all_notes()) == 1


def test_new_classes_of_a_style_begin_with_her_seconds_and_others_do_not():
    hatha, slow = Plan(brief=Brief(style="hatha")), Plan(brief=Brief(style="slow"))
    begin_with("hatha", SLOWER)
    assert as_hers(hatha).brief.own == SLOWER
    assert as_hers(slow) == slow
    begin_with(ALL, SLOWER)
    assert as_hers(slow).brief.own == SLOWER
    begin_with("hatha", {})
    begin_with(ALL, {})
    assert begun_with("hatha") == {}
    assert as_hers(hatha) == hatha


def test_what_takes_taught_is_told_by_the_month_they_were_made_in():
    seen = tuple(ObservedSeconds("ways", "start to seated", 5.0, 6.0) for _ in range(4))
    keep_notes("/takes/2031-03-05-073000-000000", RecordingNotes("hatha", seen))
    keep_notes("/takes/2031-04-05-073000-000000", RecordingNotes("hatha", seen[:1]))
    keep_notes("/recordings/class.srt", RecordingNotes("hatha", seen))
    found = learnt_by_month()
    assert list(found) == ["March 2031", "April 2031"]
    assert [one.ratio for one in found["March 2031"]] == [1.2]
    assert found["April 2031"] == []
