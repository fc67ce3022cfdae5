"""What a teacher writes is shown as she wrote it, and never taken for markup, wherever it is shown."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QLabel, QWidget

from yewhour.core.plan.edit import with_brief
from yewhour.files.file_names import stem_for

HOSTILE = "<b>Ebb</b> <img src=x> & {side}"


def test_no_widget_takes_a_title_for_markup(desk):
    plan = with_brief(desk.session.plan, title=HOSTILE, audience=HOSTILE)
    desk.session.do(f"Call it {HOSTILE}", plan)
    desk.settle()
    pages = ("to_promise", "to_words", "to_sprig")
    for command in (*pages, "show_acts", "show_library", "show_versions", "export_script"):
        desk.press(command)
    desk.window.show_first_page()
    desk.settle()
    shown = [one for top in QApplication.topLevelWidgets() for one in [top, *top.findChildren(QWidget)]]
    labels = [one for one in shown if isinstance(one, QLabel) and one.text()]
    assert len(labels) > 40
    assert [one.text() for one in labels if one.textFormat() != Qt.TextFormat.PlainText] == []
    tips = [one.toolTip() for one in shown if "Ebb" in one.toolTip()]
    assert tips
    assert all(tip.startswith("<qt>&lt;b&gt;") for tip in tips)
    for dialog in desk.window._dialogs:
        dialog.close()


def test_a_title_can_not_leave_its_folder_or_be_an_option():
    for title in ("../../etc/passwd", "-rf", "--help", "/", "..", ".hidden", "a\x00b", "con: \\ *?"):
        stem = stem_for(title)
        assert stem.strip("-") == stem
        assert not set(stem) & set("/\\.:*?\x00")
