"""A needle's end is pulled, its body is carried: told apart by room and by the pointer's shape."""

from PySide6.QtCore import QPoint, Qt


def shape_at(desk, at):
    seen = []
    desk.window.sprig.gestures.shaped.connect(seen.append)
    desk.window.sprig.gestures.move(at.toPointF())
    return seen[-1]


def test_the_pointer_says_what_it_would_do(desk):
    segment = max(desk.timed.segments, key=lambda one: one.length if one.use.unit else 0)
    assert shape_at(desk, desk.at(segment, 0.5)) == Qt.CursorShape.OpenHandCursor
    x = round(desk.window.sprig.scene.stem_x)
    assert shape_at(desk, desk.at(segment, 1.0, x)) == Qt.CursorShape.SplitVCursor


def test_a_needle_that_is_low_is_only_carried(desk):
    hits, scene = desk.window.sprig.hits, desk.window.sprig.scene
    low = [one for one in scene.needles if scene.span(one)[1] - scene.span(one)[0] < 12]
    assert low
    for needle in low:
        bottom = scene.span(needle)[1]
        assert hits.pull_at(QPoint(round(scene.stem_x), round(bottom)).toPointF()) is not needle


def test_no_pull_goes_beyond_what_anybody_would_hold(desk):
    scene = desk.window.sprig.scene
    needle = next(
        one for one in scene.needles if one.segment.use.movement.id == "puppy" and one.segment.use.unit
    )
    step, most = needle.segment.use.step.id, needle.segment.use.movement.dose[2]
    end = QPoint(round(scene.stem_x), round(scene.span(needle)[1]) - 1)
    desk.drag(desk.window.sprig, end, end + QPoint(0, 4000))
    amounts = {one.amount for one in desk.timed.segments if one.use.step.id == step and one.use.unit}
    assert max(amounts) > needle.segment.amount
    assert max(amounts) <= 2 * max(most, needle.segment.amount)
