"""The whole story by mouse: from an empty window to an exported script. Only names are typed."""

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QPushButton

from tests.ui.conftest import CTRL
from yewhour.core.plan.nodes import Block, Pair, Rounds

pytestmark = pytest.mark.painted


def button(widget, words):
    """A button that is there to be pressed, by what is written on it or what it is called."""
    found = [
        one
        for one in widget.findChildren(QPushButton)
        if (one.text().startswith(words) or one.accessibleName() == words) and one.isVisible()
    ]
    assert found, f"no button {words!r}"
    return found[0]


def add(desk, name):
    """Types part of a name and clicks what is found."""
    finder = desk.window.finder
    finder.field.setText(name)
    index = finder.hits.index(0)
    desk.click(finder.list.viewport(), finder.list.visualRect(index).center())


def test_a_class_is_made_by_mouse(bare_desk, tmp_path, monkeypatch):
    desk = bare_desk
    window = desk.window

    # From the first page, an empty class, and what it promises.
    desk.click(button(window.pages.start(), "Empty"))
    assert window.stations.beside.currentWidget() is window.pages.promise()
    page = window.pages.promise()
    page.title.selectAll()
    QTest.keyClicks(page.title, "Ferry shoulders")
    desk.click(page.editor.sentence.words["length"])
    desk.click(button(page, "-5"))
    assert desk.session.plan.brief.target_s == 900
    desk.click(page.editor.sentence.words["cautions"])
    desk.click(button(page, "Who may be there: Tender elbows"))
    assert desk.session.plan.brief.cautions == ("elbows",)
    assert desk.session.plan.brief.title == "Ferry shoulders"

    # The movements.
    desk.click(button(window, "Sprig"))
    assert "No movements" not in window.head.promise.text()
    add(desk, "welcome")
    add(desk, "seated breath")
    add(desk, "downward dog")
    add(desk, "low lunge")
    assert isinstance(desk.session.plan.sections[0].body[-1], Pair)

    # A chain on two sides: into the pair goes what is put after its step.
    desk.choose("low-lunge")
    add(desk, "lunge with a turn")
    pair = desk.session.plan.sections[0].body[-1]
    assert [step.movement for step in pair.body] == ["low-lunge", "lunge-twist"]
    turned = [s for s in desk.timed.segments if s.use.movement.id == "lunge-twist" and s.kind == "hold"]
    assert {s.side for s in turned} == {"left", "right"}

    # A flow with rounds: three movements, chosen together.
    desk.click(window.sprig, QPoint(desk.window.sprig.width() // 2, 8))
    for name in ("arms overhead", "standing fold", "half lift"):
        add(desk, name)
    desk.choose("arms-up")
    for movement in ("fold", "half-lift"):
        desk.choose(movement, CTRL)
    desk.click(button(window.inspector, "As a flow"))
    group = next(node for node in desk.session.plan.sections[0].body if isinstance(node, Rounds))
    assert [step.phase for step in group.body] == ["inhale", "exhale", "inhale"]
    desk.click(button(window.inspector, "Rounds: one more"))
    assert desk.timed.choice.rounds.get(group.id, 4) == 4
    assert len([s for s in desk.timed.segments if s.name == "Upward salute"]) == 4

    # A counted set, and a rest.
    desk.click(window.sprig, QPoint(window.sprig.width() // 2, 8))
    add(desk, "rolling bridge")
    add(desk, "final rest")
    add(desk, "coming back")
    assert desk.timed.length_s == 900
    assert desk.segment("bridge-roll").reps

    # The end of a needle is pulled: two breaths more, and a knot.
    segment = desk.segment("downward-dog")
    sprig = window.sprig
    start = QPoint(round(sprig.scene.stem_x) + 20, round(sprig.scene.y_at(segment.end / 10)))
    more = round(2 * segment.use.unit / 10 * sprig.scene.viewport.px_per_s)
    desk.drag(sprig, start, start + QPoint(0, more))
    assert desk.segment("downward-dog").amount == segment.amount + 2
    assert desk.segment("downward-dog").use.step.locked
    assert (
        window.commands.actions["undo"].text() == f"Undo: {segment.amount + 2} breaths in Downward-facing dog"
    )

    # A needle is carried into the pair, and out of it again.
    order = [s.use.movement.id for s in desk.timed.segments if not s.use.setup_for]
    lunge = desk.segment("low-lunge")
    desk.drag(sprig, desk.at(desk.segment("downward-dog"), x=round(sprig.scene.stem_x) + 30),
              QPoint(round(sprig.scene.stem_x) + 10, round(sprig.scene.y_at(lunge.end / 10))))  # fmt: skip
    pair = next(node for node in desk.session.plan.sections[0].body if isinstance(node, Pair))
    assert [step.movement for step in pair.body] == ["low-lunge", "downward-dog", "lunge-twist"]
    desk.press("undo")
    assert [s.use.movement.id for s in desk.timed.segments if not s.use.setup_for] == order

    # What is wrong is seen, and mended.
    noticed = [finding for finding in desk.timed.findings if finding.edit is not None]
    if noticed:
        QTest.mouseMove(window.foot.mend_button)
        desk.click(window.foot.mend_button)
        assert noticed[0] not in desk.timed.findings

    # The length, by its handle.
    desk.drag_tip(18 * 60)
    assert abs(desk.timed.length_s - 1080) <= 10

    # The words: a line reworded in its place.
    desk.click(button(window, "Words"))
    script = window.pages.words().script
    number = next(
        n for n, row in enumerate(script.lines.rows) if row.segment.use.movement.id == "low-lunge" and row.cue
    )
    script.scrollTo(script.lines.index(number))
    box = script.visualRect(script.lines.index(number))
    QTest.mouseClick(
        script.viewport(), Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, box.center()
    )
    QTest.mouseDClick(
        script.viewport(), Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, box.center()
    )
    editor = desk.window.focusWidget()
    editor.setPlainText("Step your right foot through, as you would into a boat.")
    desk.click(script.viewport(), QPoint(400, script.viewport().height() - 4))
    assert any(cue.text.endswith("into a boat.") for cue in desk.timed.cues)
    assert any(cue.own for cue in desk.timed.cues)

    # And the script is written.
    desk.click(window.head.export)
    dialog = window._dialogs[-1]
    dialog.folder.setText(str(tmp_path))
    assert "boat" in dialog.preview.text.toPlainText()
    desk.click(dialog.write_button)
    desk.qtbot.waitUntil(dialog.folder_button.isVisible, timeout=5000)
    assert "into a boat." in (tmp_path / "ferry-shoulders.txt").read_text()


def test_a_block_is_put_in_from_the_finder(desk):
    add(desk, "sun salutation a")
    blocks = [
        node for section in desk.session.plan.sections for node in section.body if isinstance(node, Block)
    ]
    assert [block.name for block in blocks] == ["sun salutation a"]
    assert any(segment.use.movement.id == "upward-dog" for segment in desk.timed.segments)
