"""The hit map: what of the sprig is where the pointer is."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF

from yewhour.core.lengths import TICKS_PER_S
from yewhour.ui.kit.theme import scale
from yewhour.ui.sprig.picture import strips
from yewhour.ui.sprig.picture.needles import Needle
from yewhour.ui.sprig.picture.scene import Scene

GRIP = 5.0  # pixels about a needle's end where it can be pulled, at most
ROOM = 18.0  # pixels of height under which a needle can only be carried


class HitMap:
    """Asks a scene; changes nothing."""

    def __init__(self, scene: Scene) -> None:
        self.scene = scene

    def handle_rect(self) -> QRectF:
        """The length handle at the tip of the stem, or at the foot when the tip is out of view."""
        scene, timed = self.scene, self.scene.session.shown
        foot = scene.viewport.top + scene.viewport.room
        y = min(scene.y_at(timed.length_s if timed else 60.0), foot) + 12 * scale()
        width, height = 116 * scale(), 38 * scale()
        return QRectF(scene.stem_x - width / 2, y, width, height)

    def on_handle(self, at: QPointF) -> bool:
        """Whether the length handle can be taken hold of here."""
        return self.handle_rect().adjusted(-8, -12, 8, 8).contains(at)

    def needle_at(self, y: float) -> Needle | None:
        """The needle at a height."""
        at = self.scene.time_at(y) * TICKS_PER_S
        return next((n for n in self.scene.needles if n.segment.start <= at < n.segment.end), None)

    def pull_at(self, at: QPointF) -> Needle | None:
        """The needle whose end is under the pointer."""
        scene = self.scene
        if abs(at.x() - scene.stem_x) > scene.needle_room * 1.1:
            return None
        for needle in scene.needles:
            top, bottom = scene.span(needle)
            elastic = needle.segment.use.unit and not needle.segment.use.setup_for
            if not elastic or bottom - top < ROOM * scale():
                continue
            if abs(at.y() - bottom) <= min(GRIP, (bottom - top) / 6):
                return needle
        return None

    def section_at(self, at: QPointF) -> int | None:
        """The section whose title is under the pointer."""
        found = (one for one in self.scene.sections() if one.box is not None and one.box.contains(at))
        return next((one.number for one in found), None)

    def strip_at(self, at: QPointF) -> str:
        """What the strip under the pointer shows, "" for none."""
        number = int((at.x() - (self.scene.width - strips.room())) // (strips.WIDE * scale()))
        about = list(strips.STRIPS.values())
        return about[number] if self.scene.strips_room and 0 <= number < len(about) else ""


def signs_of(needle: Needle) -> str:
    """What the signs on a needle mean."""
    signs = (
        (needle.aril, "The red berry: the side changes here."),
        (needle.meant, "The dashed edge: the second side is meant to differ."),
        (needle.knot, "The knot: you keep this number."),
    )
    return " ".join(words for there, words in signs if there)
