"""A tip covers nothing of what it speaks of."""

import pytest
from PySide6.QtCore import QEvent, QPoint, QRect
from PySide6.QtGui import QHelpEvent
from PySide6.QtWidgets import QApplication, QLabel, QToolTip

from yewhour.ui.sprig.picture import strips


def tip_for(widget, at):
    """Where the tip is that is shown for a point of a widget, on the screen."""
    QToolTip.hideText()
    QApplication.sendEvent(widget, QHelpEvent(QEvent.Type.ToolTip, at, widget.mapToGlobal(at)))
    QApplication.processEvents()
    return next(
        QRect(one.mapToGlobal(QPoint()), one.size())
        for one in QApplication.topLevelWidgets()
        if isinstance(one, QLabel) and one.inherits("QTipLabel") and one.isVisible()
    )


@pytest.mark.parametrize("name", ["low-lunge", "seated-breath"])
def test_the_tip_of_a_needle_lies_below_it(desk, name):
    sprig = desk.window.sprig
    segment = next(s for s in desk.timed.segments if s.use.movement.id == name and not s.use.setup_for)
    at = desk.at(segment)
    sprig.gestures._hover(at.toPointF())
    tip = tip_for(sprig, at)
    foot = sprig.mapToGlobal(QPoint(0, round(sprig.scene.y_at(segment.end / 10)))).y()
    assert tip.top() >= foot - 1


def test_columns_and_signs_explain_themselves_where_the_pointer_rests(desk):
    sprig = desk.window.sprig
    tip_for(sprig, QPoint(round(sprig.scene.width - strips.room() + 5), 200))
    assert "Effort" in QToolTip.text()
    tip_for(sprig, QPoint(round(sprig.scene.width - 10), 200))
    assert "Talk" in QToolTip.text()
    aril = next(one for one in sprig.scene.needles if one.aril)
    sprig.gestures._hover(desk.at(aril.segment).toPointF())
    assert "the side changes here" in sprig.toolTip()
