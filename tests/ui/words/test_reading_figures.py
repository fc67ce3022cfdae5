"""The reading view: beside the first line of a movement stands its figure."""

import re

from PySide6.QtCore import QUrl
from PySide6.QtGui import QImage, QTextDocument

from yewhour.ui.kit.figure_view import portrait_of


def test_each_movement_has_its_figure_beside_its_first_line(desk):
    desk.press("show_stand")
    reading_view = desk.window.view.reading_view
    named = re.findall(r'src="figure:([^"]+)"', reading_view.text.toHtml())
    assert len(named) == len(set(named)) > 30
    document, timed = reading_view.text.document(), desk.session.timed
    segments = {one.id: one for one in timed.segments}
    for name in named:
        use = segments[name].use
        picture = document.resource(QTextDocument.ResourceType.ImageResource, QUrl(f"figure:{name}"))
        drawn = portrait_of(use.movement, segments[name].side, use.end if use.flow else use.start)
        assert (drawn is not None) is isinstance(picture, QImage), name
    lunge = segments[next(name for name in named if segments[name].use.movement.id == "low-lunge")]
    assert lunge.side == "right"
    reading_view.close()
