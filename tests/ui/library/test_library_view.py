"""The library: read, searched, changed; what is wrong is said while it is typed."""

from yewhour.store.own import own_file


def test_a_movement_is_read_with_both_sides_lines(desk):
    desk.press("show_library")
    view = desk.window._dialogs[-1]
    assert view.list.count() == len(desk.session.words.library)
    view.search.setText("low lunge")
    assert view.name.text() == "Low lunge"
    text = view.preview.toPlainText()
    assert "Right" in text
    assert "left knee" in text
    assert "right knee" in text


def test_a_movement_of_her_own_is_kept_found_and_put_in(desk, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    desk.press("show_library")
    view = desk.window._dialogs[-1]
    view.new()
    view.name.setText("Oar pull")
    view.sides.setCurrentText("one")
    view.lines.setPlainText("call: Draw the {side} elbow back. | {Side} elbow back.\nalign: Long neck.")
    assert view.keep_button.isEnabled()
    view.lines.setPlainText("call: Draw the {hand} back.")
    assert not view.keep_button.isEnabled()
    assert "{hand}" in view.said.text()
    view.lines.setPlainText("call: Draw the {side} elbow back. | {Side} elbow back.")
    view.keep()
    desk.settle()
    assert own_file().exists()
    assert desk.session.words.library["oar-pull"].sides == "one"
    view.close()
    desk.press("find_movement")
    desk.window.finder.field.setText("oar")
    desk.window.finder.add()
    desk.settle()
    assert {s.side for s in desk.made.segments if s.turn.movement.id == "oar-pull"} >= {"left", "right"}


def test_a_name_that_is_taken_is_told(desk):
    desk.press("show_library")
    view = desk.window._dialogs[-1]
    view.new()
    view.name.setText("Low lunge")
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


def test_what_was_changed_is_kept_when_one_goes_elsewhere_or_closes(desk, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    desk.press("show_library")
    view = desk.window._dialogs[-1]
    view.choose("low-lunge")
    view.effort.setValue(5)
    view.choose("child")
    assert desk.session.words.library["low-lunge"].effort == 5
    view.effort.setValue(4)
    view.reject()
    assert not view.isVisible()
    assert desk.session.words.library["child"].effort == 4


def test_what_can_not_be_kept_is_told_before_it_is_let_go_of(desk, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    desk.press("show_library")
    view = desk.window._dialogs[-1]
    view.choose("low-lunge")
    view.lines.setPlainText("call: Draw the {hand} back.")
    view.choose("child")
    assert view.name.text() == "Low lunge"
    view.reject()
    assert view.isVisible()
    assert "{hand}" in view.said.text()
    view.reject()
    assert not view.isVisible()


def test_leaving_a_movement_as_it_was_keeps_nothing(desk, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    desk.press("show_library")
    view = desk.window._dialogs[-1]
    for name in ("low-lunge", "child", "clam", "equal-breath"):
        view.choose(name)
    view.reject()
    assert not own_file().exists()
