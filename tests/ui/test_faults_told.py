"""A fault put into every kind of work beside the interface: each is told, and the window goes on."""

import pytest
from PySide6.QtWidgets import QApplication

from yewhour.background import log
from yewhour.content.paths import DEMO
from yewhour.core.plan.edit import with_brief
from yewhour.ui.frame.dialogs.went_wrong import WentWrong
from yewhour.voice.devices.recorder import SoundFile


class Planted(Exception):
    """What no part of ours raises."""


def broken(*arguments, **more):
    raise Planted


def told(desk):
    """What the dialog of a fault says, once it is there."""
    desk.qtbot.waitUntil(
        lambda: any(isinstance(one, WentWrong) for one in desk.window._dialogs), timeout=20_000
    )
    dialog = next(one for one in desk.window._dialogs if isinstance(one, WentWrong))
    assert "Planted" in dialog.report()
    dialog.accept()
    desk.window._dialogs.remove(dialog)
    return dialog.windowTitle(), dialog.fault.doing, dialog.fault.lost


def change(desk):
    desk.session.do("Another title", with_brief(desk.session.plan, title="Something else"))


def look_at(desk):
    desk.session.try_plan("Shorter", with_brief(desk.session.plan, title="As it would be"))


def draft(desk):
    desk.press("draft_another")


def cut(desk):
    desk.window.pages.shelf().making._plan_of = lambda name: desk.session.plan
    desk.window.pages.shelf().making.cut("any", 10)


def export(desk):
    desk.press("export_script")
    desk.window._dialogs[-1].write()


def show_pages(desk):
    desk.press("export_script")
    dialog = desk.window._dialogs[-1]
    dialog.list.setCurrentRow(list(dialog.formats).index("pdf"))


def look_back(desk):
    desk.window.go_to("to_back")
    desk.window.pages.review().look_at_file(DEMO / "bell-ringers.yewhour")


KINDS = {
    "the class": ("yewhour.ui.desk.class_maker.solve", change, "Making the class"),
    "what is looked at": ("yewhour.ui.desk.class_maker.solve", look_at, "Making the class"),
    "a draft": ("yewhour.ui.frame.dialogs.drafting.draft_class", draft, "Drafting"),
    "a cut": ("yewhour.ui.shelf.making.cut", cut, "Cutting the class"),
    "an export": ("yewhour.ui.frame.dialogs.exporting.write_whole", export, "Writing"),
    "its pages": ("yewhour.render.script_pdf.new_pdf", show_pages, "Drawing the pages"),
    "a look back": ("yewhour.ui.review.recording_reader.heard_in", look_back, "Looking at the recording"),
}


@pytest.mark.parametrize("kind", KINDS)
def test_a_fault_in_it_is_told_in_words_and_the_class_is_there(desk, monkeypatch, kind):
    where, do, doing = KINDS[kind]
    before = desk.session.timed
    monkeypatch.setattr(where, broken)
    do(desk)
    _, said, lost = told(desk)
    assert said.startswith(doing)
    assert lost.endswith(".")
    assert any("Planted" in line for line in log.last_lines())
    monkeypatch.undo()
    assert before is not None
    desk.session.undo()
    desk.settle()
    assert desk.session.timed is not None


@pytest.fixture
def stage(desk):
    desk.window.go_to("to_take")
    desk.window.pages.take().get_ready()
    return desk.window.pages.take()


def test_a_fault_in_the_lines_of_a_take_is_told_there_and_covers_nothing(desk, stage, monkeypatch):
    monkeypatch.setattr("yewhour.ui.take.take_runner.with_new_lines", broken)
    stage.runner.count_in()
    stage.runner._start()
    stage.runner.act("again")
    desk.qtbot.waitUntil(lambda: "broke off" in stage.showing.told, timeout=20_000)
    assert "The take goes on" in stage.showing.told
    assert not [one for one in desk.window._dialogs if isinstance(one, WentWrong)]
    assert any("Planted" in line for line in log.last_lines())
    stage.runner.act("end")


def test_a_fault_in_the_voice_in_her_ear_is_told(desk, stage, monkeypatch):
    stage.sounds.device = "null"
    monkeypatch.setattr("yewhour.ui.take.sound.ear_prompter.sound_events", broken)
    stage.sounds.next_in_ear()
    assert told(desk)[1] == "Speaking the lines for your ear"


def test_a_fault_while_she_is_heard_is_told(desk, stage, monkeypatch):
    monkeypatch.setattr("yewhour.ui.take.sound.voice_follower.LineRecogniser", broken)
    stage.sounds.device = "fed"
    stage.runner.leading.leads = "voice"
    stage.sounds.listen()
    assert told(desk)[1] == "Hearing your voice"


def test_a_fault_while_the_sound_is_recorded_is_told(tmp_path, monkeypatch):
    said = []
    monkeypatch.setattr(SoundFile, "_encode", broken)
    file = SoundFile(tmp_path / "sound.flac", said.append)
    file.close()
    assert said == ["Recording the sound broke off. The take goes on; what was recorded before is there."]


def test_a_fault_while_a_take_is_kept_is_told(desk, stage, monkeypatch):
    monkeypatch.setattr("yewhour.state.takes.take_folder.TakeFolder._flush", broken)
    said = []
    stage.runner.message.connect(said.append)
    stage.runner.count_in()
    stage.runner._start()
    desk.qtbot.waitUntil(
        lambda: any("Keeping the take on the disk broke off" in one for one in said), timeout=20_000
    )
    monkeypatch.undo()
    stage.runner.act("end")


def test_what_went_wrong_is_written_into_one_file_and_the_class_only_if_ticked(desk, tmp_path):
    log.note("something happened")
    desk.press("what_went_wrong")
    dialog = desk.window._dialogs[-1]
    assert desk.session.plan.brief.title not in dialog.text.toPlainText()
    dialog.write(tmp_path / "without.txt")
    dialog.with_class.setChecked(True)
    assert desk.session.plan.brief.title in dialog.text.toPlainText()
    dialog.write(tmp_path / "with.txt")
    assert "something happened" in (tmp_path / "without.txt").read_text()
    assert desk.session.plan.brief.title not in (tmp_path / "without.txt").read_text()
    assert "# " in (tmp_path / "with.txt").read_text()
    dialog.write(tmp_path / "no folder" / "x.txt")
    assert "no folder" in dialog.answer.text()
    dialog.accept()
    QApplication.processEvents()
