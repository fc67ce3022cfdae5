"""How gestures are painted: what is carried or pulled, the length handle, where the class can't follow."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QPainter, QPen

from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.ui.kit.theme import Theme, font, scale
from yewhour.ui.sprig.gestures import Gestures
from yewhour.ui.sprig.picture.hit_map import HitMap
from yewhour.ui.sprig.picture.scene import Scene

LEFT, RIGHT = Qt.AlignmentFlag.AlignLeft, Qt.AlignmentFlag.AlignRight
MIDDLE, CENTRE = Qt.AlignmentFlag.AlignVCenter, Qt.AlignmentFlag.AlignCenter


class Brush:
    """A painter with the colours and the unit of the sprig."""

    def __init__(self, painter: QPainter, theme: Theme) -> None:
        self.painter, self.theme, self.unit = painter, theme, scale()

    def text(
        self, box: QRectF, words: str, colour: str, size: float, align: Qt.AlignmentFlag, **look: bool
    ) -> None:
        """Words in a box."""
        self.painter.setFont(font(size, **look))
        self.painter.setPen(QColor(colour))
        self.painter.drawText(box, align, words)


class GesturePainter:
    """Paints what a hand does, over the class."""

    def __init__(self, brush: Brush, scene: Scene, hits: HitMap, gestures: Gestures) -> None:
        self.brush, self.scene, self.hits, self.gestures = brush, scene, hits, gestures
        self.painter, self.theme, self.unit = brush.painter, brush.theme, brush.unit
        self.stem_x = scene.stem_x

    def paint(self, length_s: float) -> None:
        """What is held, and the handle at the end of a class of this length."""
        self._paint_held()
        self._paint_handle(length_s)

    def _paint_held(self) -> None:
        """Where what is carried would go, or how much is being pulled."""
        scene, gestures, painter = self.scene, self.gestures, self.painter
        words, y = "", 0.0
        if gestures.held == "length":
            self._paint_limits()
        if gestures.held == "move" and gestures.slot is not None:
            y = scene.y_at(gestures.slot.at / TICKS_PER_S)
            painter.setPen(QPen(QColor(self.theme.aril), 3))
            indent = 20 * gestures.slot.depth * self.unit
            right = scene.right - 10 - indent
            painter.drawLine(QPointF(60 * self.unit + indent, y), QPointF(right, y))
            words = gestures.slot.label
        elif gestures.held == "pull":
            words, y = f"{gestures.pulled}", gestures.pointer.y()
        if words:
            painter.setFont(font(10, bold=True))
            wide = QFontMetricsF(painter.font()).horizontalAdvance(words) + 24 * self.unit
            x = min(max(8.0, gestures.pointer.x() + 14), scene.width - wide - 8)
            box = QRectF(x, y - 32 * self.unit if y > 60 * self.unit else y + 8, wide, 26 * self.unit)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QColor(self.theme.ink))
            painter.drawRoundedRect(box, 8, 8)
            self.brush.text(box, words, self.theme.paper, 10, CENTRE, bold=True)

    def _paint_limits(self) -> None:
        """Where the class can't follow the handle: its shortest and its longest."""
        can = self.scene.session.lengths
        for time_s, name in ((can.shortest_s, "shortest"), (can.longest_s, "longest")) if can else ():
            y = self.scene.y_at(time_s)
            if self.scene.viewport.top < y < self.scene.height - 8:
                self.painter.setPen(QPen(QColor(self.theme.aril), 1.6, Qt.PenStyle.DashLine))
                self.painter.drawLine(QPointF(52 * self.unit, y), QPointF(self.stem_x + 90 * self.unit, y))
                box = QRectF(
                    self.stem_x + 94 * self.unit, y - 10 * self.unit, 150 * self.unit, 20 * self.unit
                )
                self.brush.text(box, f"{name} {show_length(time_s)}", self.theme.trouble, 9.8, LEFT | MIDDLE)

    def _paint_handle(self, length_s: float) -> None:
        session, painter, unit = self.scene.session, self.painter, self.unit
        box = self.hits.handle_rect()
        lit = "length" in (self.gestures.held, self.gestures.hovering)
        trial = session.trial
        refused = bool(trial.refusal and not trial.unfinished if trial else session.refusal)
        refused = refused and (trial is not None or not session.unfinished)
        painter.setPen(QPen(QColor(self.theme.aril if refused else self.theme.accent), 2.5 if refused else 2))
        painter.setBrush(QColor(self.theme.accent if lit else self.theme.paper))
        painter.drawRoundedRect(box, box.height() / 2, box.height() / 2)
        colour = self.theme.on_accent if lit else self.theme.ink
        self.brush.text(
            box.adjusted(0, 0, -20 * unit, 0), show_length(length_s), colour, 15, CENTRE, bold=True
        )
        x, y = box.right() - 24 * unit, box.center().y()
        painter.setPen(QPen(QColor(colour), 1.8, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        for sign in (-1, 1):  # a small double arrow: up and down
            tip = QPointF(x, y + sign * 9 * unit)
            for across in (-4, 4):
                painter.drawLine(tip, QPointF(x + across * unit, y + sign * 5 * unit))
        painter.drawLine(QPointF(x, y - 8 * unit), QPointF(x, y + 8 * unit))
