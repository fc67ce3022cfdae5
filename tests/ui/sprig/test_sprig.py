"""The sprig: what it shows, and everything that can be taken hold of."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QDragEnterEvent, QDragMoveEvent, QDropEvent, QGuiApplication
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QApplication

from tests.conftest import made_of
from tests.ui.conftest import ALT, CTRL, SHIFT, Desk
from yewhour.content.paths import DEMO
from yewhour.core.plan.nodes import LineEdit, Pair, Rounds, SideDifference, Step
from yewhour.core.plan.places import GroupBody, group_of, nodes_of
from yewhour.ui.desk.finding_cards import TrialButton
from yewhour.ui.kit import theme as look
from yewhour.ui.sprig.picture.drop_places import drop_places, nearest
from yewhour.ui.sprig.picture.needles import needles
from yewhour.ui.sprig.picture.scene import beside
from yewhour.ui.sprig.picture.viewport import MOST_PX_PER_S, Viewport

KEY = Qt.Key


@given(
    st.floats(60, 7200), st.floats(60, 2000),
    st.lists(st.tuples(st.floats(0.2, 5), st.floats(26, 2000), st.floats(-3000, 3000)), max_size=6),
)  # fmt: skip
def test_wherever_one_goes_the_reach_shows_only_the_class(length_s, room, moves):
    reach = Viewport()
    reach.fit(26, room, length_s)
    for factor, y, pixels in moves:
        held = reach.time_at(y)
        before = reach.px_per_s
        reach.zoom(factor, y)
        inside = 0 < reach.from_s < length_s - room / reach.px_per_s
        if inside and before != reach.px_per_s:
            assert reach.time_at(y) == pytest.approx(held, abs=0.01)
        reach.scroll(pixels)
        assert reach.from_s >= 0
        assert reach.least <= reach.px_per_s <= max(MOST_PX_PER_S, reach.least)
        assert reach.y_at(length_s) >= 26 + min(room, length_s * reach.px_per_s) - 0.01
    reach.all()
    assert reach.whole
    assert reach.y_at(0) == 26


def test_needles_stand_on_the_side_they_are_for_with_an_aril_at_each_change(desk):
    needles = desk.window.sprig.scene.needles
    by_side = {needle.segment.side: needle.sides for needle in needles if needle.sides}
    assert by_side.pop("alternating") == ("left", "right")
    assert by_side == {"left": ("left",), "right": ("right",), "both": ("left", "right")}
    pairs = {n.segment.use.pair for n in needles if n.segment.use.pair}
    assert sum(1 for needle in needles if needle.aril) == len(pairs)


def test_rounds_knots_and_meant_differences_are_marked(desk):
    needles = desk.window.sprig.scene.needles
    assert [n.whorl for n in needles if n.segment.use.flow and n.whorl][:3] == [1, 2, 3]
    desk.choose("dart")
    desk.press("lock")
    desk.choose("low-lunge")
    desk.window.sprig_actions.dose.differ(2, "the left is tighter")
    desk.settle()
    needles = desk.window.sprig.scene.needles
    assert [n.segment.use.movement.id for n in needles if n.knot] == ["dart"]
    assert {n.segment.side for n in needles if n.meant} == {"left"}
    right, left = desk.segment("low-lunge", "right"), desk.segment("low-lunge", "left")
    assert left.length == right.length + 2 * right.use.unit
    desk.window.sprig.setFocus()
    desk.key(KEY.Key_F, SHIFT)
    assert nodes_of(desk.session.plan)[desk.segment("low-lunge").use.step.id].second.more == 1
    desk.key(KEY.Key_M, SHIFT)
    right, left = desk.segment("low-lunge", "right"), desk.segment("low-lunge", "left")
    assert "uneven" not in {finding.code for finding in desk.timed.findings}
    assert nodes_of(desk.session.plan)[right.use.step.id].second == SideDifference(
        2, why="the left is tighter"
    )


@pytest.mark.painted
def test_one_can_come_as_near_as_one_breath_and_see_its_phases(desk):
    desk.choose("low-lunge")
    for _ in range(12):
        desk.press("closer")
    sprig, segment = desk.window.sprig, desk.segment("low-lunge")
    assert (
        sprig.scene.y_at(segment.end / 10) - sprig.scene.y_at(segment.start / 10) > sprig.scene.viewport.room
    )
    before = desk.window.grab().toImage()
    desk.press("whole_class")
    assert sprig.scene.viewport.whole
    assert desk.window.grab().toImage() != before


def test_the_wheel_moves_along_and_with_control_comes_nearer_under_the_hand(desk):
    from PySide6.QtCore import QPointF
    from PySide6.QtGui import QWheelEvent

    sprig = desk.window.sprig

    def wheel(by, keys):
        at = QPointF(200, 300)
        event = QWheelEvent(at, sprig.mapToGlobal(at), QPoint(), QPoint(0, by), Qt.MouseButton.NoButton, keys,
                            Qt.ScrollPhase.NoScrollPhase, False)  # fmt: skip
        QApplication.sendEvent(sprig, event)

    held = sprig.scene.time_at(300)
    wheel(480, CTRL)
    assert sprig.scene.time_at(300) == pytest.approx(held, abs=0.1)
    assert not sprig.scene.viewport.whole
    from_s = sprig.scene.viewport.from_s
    wheel(-120, Qt.KeyboardModifier.NoModifier)
    assert sprig.scene.viewport.from_s > from_s


def test_left_goes_out_to_the_pair_and_the_part_right_goes_in(desk):
    desk.choose("low-lunge")
    sprig = desk.window.sprig
    sprig.setFocus()
    step = desk.session.picked[0]
    desk.key(KEY.Key_Left)
    assert desk.session.picked == (group_of(desk.session.plan, step),)
    assert desk.window.inspector.findChildren(object, "heading")
    desk.key(KEY.Key_Left)
    assert desk.session.plan.sections[desk.session.section].title == "Peal"
    desk.key(KEY.Key_Right)
    assert desk.session.section is None
    assert desk.session.picked == (desk.session.plan.sections[3].body[0].id,)


def test_shift_takes_a_run_and_control_one_more(desk):
    desk.choose("finger-fans")
    desk.choose("neck-lean", SHIFT)
    names = [nodes_of(desk.session.plan)[node].movement for node in desk.session.picked]
    assert names == ["finger-fans", "wrist-stretch", "rope-shoulders", "neck-lean"]
    desk.choose("wrist-stretch", CTRL)
    assert len(desk.session.picked) == 3
    desk.press("leave_out")
    gone = {"finger-fans", "rope-shoulders", "neck-lean"}
    assert not gone & {s.use.movement.id for s in desk.timed.segments}
    desk.press("undo")
    assert gone <= {s.use.movement.id for s in desk.timed.segments}


def test_a_needle_carried_out_of_its_pair_keeps_both_its_sides(desk):
    sprig = desk.window.sprig
    pair = group_of(desk.session.plan, desk.segment("lunge-reach").use.step.id)
    end = sprig.scene.y_at(desk.segment("dart").end / 10)
    start = desk.at(desk.segment("lunge-reach"), x=round(sprig.scene.stem_x + 40))
    desk.drag(sprig, start, QPoint(round(sprig.scene.stem_x + 200), round(end)))
    assert desk.session.past.undo_titles[0].startswith("Put it")
    step = desk.segment("lunge-reach").use.step.id
    own = nodes_of(desk.session.plan)[group_of(desk.session.plan, step)]
    assert (own.id != pair, [one.id for one in own.body]) == (True, [step])
    assert len(nodes_of(desk.session.plan)[pair].body) == 1
    assert {s.side for s in desk.timed.segments if s.use.step.id == step} == {"right", "left"}


def test_a_needle_let_go_of_over_its_own_place_stays_there(desk):
    sprig, plan = desk.window.sprig, desk.session.plan
    start = desk.at(desk.segment("lunge-reach"), x=round(sprig.scene.stem_x + 40))
    desk.drag(sprig, start, QPoint(round(sprig.scene.stem_x + 200), start.y()))
    assert desk.session.plan == plan


def test_escape_lets_go_of_what_is_carried_or_pulled(desk):
    sprig, plan = desk.window.sprig, desk.session.plan
    start = desk.at(desk.segment("dart"), x=round(sprig.scene.stem_x + 40))
    QTest.mousePress(sprig, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start)
    for step in range(1, 5):
        QTest.mouseMove(sprig, start - QPoint(0, 40 * step))
    assert sprig.gestures.held == "move"
    assert sprig.gestures.slot is not None
    desk.window.grab()
    QTest.keyClick(desk.window, KEY.Key_Escape)
    QTest.mouseRelease(
        sprig, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start - QPoint(0, 160)
    )
    desk.settle()
    assert desk.session.plan is plan


def test_every_place_of_the_class_can_be_dropped_on(desk):
    found = drop_places(desk.session.plan, desk.timed, desk.session.teaching_data.library)
    assert {slot.depth for slot in found} >= {0, 1}
    assert all(0 <= slot.at <= desk.timed.length for slot in found)
    lunge = desk.segment("low-lunge")
    inner, outer = (nearest(found, lunge.start, 5, deep) for deep in (True, False))
    assert (inner.depth, outer.depth) == (1, 0)
    assert inner.label.startswith("in the pair")
    assert nearest([], 0, 5, True) is None


def test_a_group_dropped_into_itself_is_refused(desk):
    from yewhour.core.plan.places import NodePlace
    from yewhour.ui.sprig.picture.drop_places import DropPlace

    pair = next(node for node in nodes_of(desk.session.plan).values() if isinstance(node, Pair))
    desk.session.pick(pair.id)
    plan = desk.session.plan
    desk.window.sprig.gestures._drop(DropPlace(NodePlace(GroupBody(pair.id), 0), 0, 1, "inside"))
    desk.settle()
    assert desk.session.plan is plan
    assert "into itself" in desk.window.foot.message.text()


def test_steps_are_cut_and_pasted_into_another_window_and_as_an_outline(desk, qtbot):
    desk.choose("low-lunge")
    desk.window.sprig.setFocus()
    desk.key(KEY.Key_Left)
    desk.key(KEY.Key_C, CTRL)
    assert QGuiApplication.clipboard().text().startswith("pair")
    other = Desk(qtbot, DEMO / "four-at-the-slip.yewhour")
    other.window.sprig.setFocus()
    other.press("paste")
    assert [s for s in other.timed.segments if s.use.movement.id == "low-lunge"]
    QGuiApplication.clipboard().setText("cobra 3b\nno such movement 4b\n")
    plan = other.session.plan
    other.press("paste")
    assert other.session.plan is plan
    assert "line 2" in other.window.foot.message.text()
    QGuiApplication.clipboard().setText("cobra 3b\n")
    other.press("paste")
    assert [s for s in other.timed.segments if s.use.movement.id == "cobra"]
    other.leave()


def test_earlier_and_later_by_keys_and_the_undo_list_names_them(desk):
    desk.choose("dart")
    desk.window.sprig.setFocus()
    desk.key(KEY.Key_Up, ALT)
    desk.key(KEY.Key_D)
    assert desk.session.past.undo_titles[:2] == ["Again: Dart", "Move Dart"]
    assert len([s for s in desk.timed.segments if s.name == "Dart"]) == 2


def test_a_block_is_taken_apart_to_be_changed(qtbot):
    desk = Desk(qtbot, DEMO / "lamps-out.yewhour")
    from yewhour.core.plan.nodes import Block

    block = next(node.id for node in nodes_of(desk.session.plan).values() if isinstance(node, Block))
    desk.session.pick(block)
    desk.press("ungroup")
    assert not [node for node in nodes_of(desk.session.plan).values() if isinstance(node, Block)]
    assert all(not isinstance(node, Rounds) or node.body for node in nodes_of(desk.session.plan).values())
    desk.leave()


def test_what_a_grouping_would_do_is_drawn_before_and_told_after(desk):
    desk.choose("dart")
    before, lengths = desk.session.plan, desk.timed.length_s
    desk.window.commands.actions["rounds"].hover()  # pointed at in the menu
    desk.qtbot.waitUntil(lambda: desk.session.trial is not None, timeout=5000)
    assert desk.session.plan == before
    assert desk.session.shown is desk.session.trial.timed is not desk.timed
    would = desk.window.foot.message.text()
    assert would.startswith("As it would be – In rounds: Dart: ")
    desk.window.view.try_out("")
    assert desk.session.trial is None
    press = next(one for one in desk.window.inspector.findChildren(TrialButton) if one.text() == "In rounds")
    press.setFocus()
    desk.qtbot.waitUntil(lambda: desk.session.trial is not None, timeout=5000)
    desk.click(press)
    group = group_of(desk.session.plan, desk.segment("dart").use.step.id)
    assert isinstance(nodes_of(desk.session.plan)[group], Rounds)
    done = would.replace("As it would be – ", "")
    assert desk.window.foot.message.text() == f"{done} Ctrl+Z takes it back."
    assert desk.timed.length_s == lengths


def test_at_twice_the_size_needles_still_stand_on_their_side(desk):
    for _ in range(4):
        desk.press("larger_text")
    assert look.scale() == 2.0
    assert desk.window.sprig.scene.needle_room > 0
    desk.window.grab()
    for _ in range(4):
        desk.press("smaller_text")


def test_a_pair_with_work_on_both_sides_inside_still_has_its_aril(qtbot):
    desk = Desk(qtbot, DEMO / "round-the-compass.yewhour")
    chain = [n for n in desk.window.sprig.scene.needles if n.segment.section == "Front of the mat"]
    assert [n.segment.side for n in chain if n.aril] == ["left"]
    desk.leave()


def test_what_can_be_seen_is_said_too(desk):
    desk.choose("low-lunge")
    words = desk.window.sprig.accessibleDescription()
    assert words.startswith("Low lunge, right, ")
    from PySide6.QtWidgets import QAbstractSpinBox, QComboBox, QLineEdit, QPushButton

    for station in ("to_promise", "to_sprig", "to_words"):
        desk.press(station)
        for kind in (QPushButton, QComboBox, QAbstractSpinBox, QLineEdit):
            for widget in desk.window.findChildren(kind):
                inner = isinstance(widget, QLineEdit) and isinstance(
                    widget.parent(), QAbstractSpinBox | QComboBox
                )
                named = widget.accessibleName() or getattr(widget, "text", lambda: "")()
                assert named or inner or not widget.isVisible(), (station, widget)


def test_the_way_and_the_hold_are_a_key_each_and_the_same_key_takes_them_back(desk):
    desk.choose("low-lunge")
    desk.window.sprig.setFocus()
    step = desk.session.picked[0]
    for key, field, value, before in (
        (KEY.Key_G, "take", "gentler", "base"),
        (KEY.Key_S, "take", "stronger", "base"),
        (KEY.Key_C, "clock", True, False),
        (KEY.Key_I, "phase", "inhale", None),
        (KEY.Key_E, "phase", "exhale", None),
    ):
        desk.key(key)
        assert getattr(nodes_of(desk.session.plan)[step], field) == value
        desk.key(key)
        assert getattr(nodes_of(desk.session.plan)[step], field) == before
    library = desk.session.teaching_data.library
    plain = next(s.use.movement.id for s in desk.timed.segments
                 if s.kind == "hold" and library[s.use.movement.id].stronger is None)  # fmt: skip
    desk.choose(plain)
    desk.key(KEY.Key_S)
    assert "no stronger way" in desk.window.foot.message.text()


def test_a_result_is_carried_onto_the_sprig_and_put_in_where_it_is_let_go_of(desk):
    finder, sprig = desk.window.finder, desk.window.sprig
    finder.field.setText("cobra 4b")
    carried = finder.hits.mimeData([finder.hits.index(0)])
    dart = desk.segment("dart")
    at = QPointF(sprig.scene.stem_x + 200, sprig.scene.y_at(dart.end / 10))
    action, buttons, keys = (
        Qt.DropAction.CopyAction,
        Qt.MouseButton.LeftButton,
        Qt.KeyboardModifier.NoModifier,
    )
    sprig.dragEnterEvent(QDragEnterEvent(at.toPoint(), action, carried, buttons, keys))
    sprig.dragMoveEvent(QDragMoveEvent(at.toPoint(), action, carried, buttons, keys))
    assert sprig.gestures.slot is not None
    sprig.dropEvent(QDropEvent(at, action, carried, buttons, keys))
    desk.settle()
    order = [s.use.movement.id for s in desk.timed.segments if not s.use.setup_for]
    assert order[order.index("dart") + 1] == "cobra"
    assert desk.segment("cobra").use.step.amount == 4
    assert sprig.gestures.slot is None


def test_the_row_of_a_result_shows_the_dose_and_the_sides_that_were_typed(desk):
    finder = desk.window.finder
    role = Qt.ItemDataRole.AccessibleTextRole
    finder.field.setText("low lunge 5b right")
    assert finder.hits.data(finder.hits.index(0), role).startswith("Low lunge, 5 breaths, right side")
    finder.field.setText("low lunge 1b")
    assert finder.hits.data(finder.hits.index(0), role).startswith("Low lunge, 1 breath, both sides")
    finder.field.setText("squats 45s")
    assert finder.hits.data(finder.hits.index(0), role).startswith("Squats, 45 seconds")


def test_what_nothing_fits_is_chosen_to_be_typed_over_and_can_be_made_hers(desk):
    desk.press("find_movement")
    field = desk.window.finder.field
    for typed, enter in (("zwqx kvv 5b", 0), ("tide stretch 5b", 1)):
        field.selectAll()
        desk.type(typed)
        assert "movement of your own" in desk.window.finder.where.text()
        modifiers = (Qt.KeyboardModifier.NoModifier, Qt.KeyboardModifier.ShiftModifier)[enter]
        QTest.keyClick(field, Qt.Key.Key_Return, modifiers)
        assert field.selectedText() == typed
        library = desk.window._dialogs[-1]
        assert library.plate.name.text().lower() == typed.removesuffix(" 5b")
        library.reject()
        library.reject()


def test_what_would_take_own_words_away_says_so_before(desk):
    desk.choose("dart")
    segment = desk.segment("dart")
    edit = LineEdit(do="add", purpose="stay", text="Like a gull over the quay.", at_s=5.0)
    desk.window.sprig_actions.chosen.set((segment.use.step.id,), "Own words", edits=(edit,))
    desk.settle()
    before = desk.session.plan
    desk.window.commands.actions["leave_out"].hover()
    desk.qtbot.waitUntil(lambda: desk.session.trial is not None, timeout=5000)
    assert "Dart goes" in desk.window.foot.message.text()
    assert desk.window.foot.message.text().endswith("1 line of your own would go.")
    desk.window.view.try_out("")
    assert desk.session.plan == before


@pytest.mark.parametrize("name", ["bell-ringers", "sail-loft-mat", "lamps-out", "boat-builders-half-hour"])
def test_no_title_of_a_part_takes_the_room_of_a_name_where_there_is_other_room(desk, name):
    """A title stands below its line, or above it; never in the row of a name that it would cut, unless both
    rows are taken."""
    desk.window.file_commands.open_file(DEMO / f"{name}.yewhour")
    desk.settle()
    scene, measures = desk.window.sprig.scene, look.metrics(9.8)
    titles = [one.box for one in scene.sections() if one.box is not None]
    assert titles
    names = [one for one in scene.names() if one.side == "right"]
    for box in titles:
        near = [one for one in names if one.start + measures.horizontalAdvance(one.label) > box.left() - 6]
        if any(beside(one.middle, box) for one in near):
            above = box.translated(0, -19)
            others = [one for one in titles if one is not box and one.intersects(above)]
            assert any(beside(one.middle, above) for one in near) or others or above.top() < 26


def test_a_flow_of_one_round_is_called_a_flow_and_of_several_rounds():
    phases = (Step(movement="plank", phase="inhale"), Step(movement="downward-dog", phase="exhale"))
    for times, called in ((1, "Plank, in a flow"), (3, "Plank, in rounds")):
        rounds = Rounds(times=times, least=times, most=times, body=phases)
        timed = made_of(Step(movement="mountain", amount=3), rounds)
        assert called in [one.label for one in needles(timed)]


def test_a_movement_can_be_told_in_her_words_alone(desk):
    desk.choose("dart")
    step = desk.segment("dart").use.step
    edit = LineEdit(do="add", purpose="stay", text="Long like a pole.", at_s=2.0)
    desk.window.sprig_actions.chosen.set((step.id,), "Own words", edits=(edit,))
    desk.settle()
    desk.choose("dart")
    desk.settle()
    aims = desk.segment("dart").use.movement.card.aim
    said = next(
        one for one in desk.window.inspector.findChildren(QAbstractButton) if one.text() == "My words only"
    )
    desk.click(said)
    desk.settle()
    assert not nodes_of(desk.session.plan)[step.id].carded
    told = [cue.text for cue in desk.timed.cues if cue.segment == desk.segment("dart").id]
    assert "Long like a pole." in told
    assert not {*told} & {*aims}
    desk.press("undo")
    assert nodes_of(desk.session.plan)[step.id].carded
