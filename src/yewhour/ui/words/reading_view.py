"""The reading view for the music stand: nothing but the script, in type that can be read from the mat."""

from __future__ import annotations

from html import escape

from PySide6.QtCore import Qt, QUrl
from PySide6.QtGui import QImage, QKeyEvent, QTextDocument
from PySide6.QtWidgets import QTextBrowser, QVBoxLayout, QWidget

from yewhour.core.lengths import TICKS_PER_S, show_length
from yewhour.core.timed_class import TimedClass
from yewhour.ui.kit.figure_view import figure_image, portrait_of
from yewhour.ui.kit.theme import (
    BODY,
    TITLE,
    Theme,
    scale,
)
from yewhour.ui.words.rows import QUIET_S, rows_of

FIGURE_HIGH = 46.0  # pixels of the figure beside the first line of a movement


class ReadingView(QWidget):
    """A window of its own. Space and the arrows turn pages; Escape leaves."""

    def __init__(self, timed: TimedClass, theme: Theme) -> None:
        super().__init__()
        self.setWindowTitle(f"{timed.plan.brief.title}: the script")
        self.setObjectName("page")
        self.text = QTextBrowser()
        self.text.setAccessibleName("The script, to read from")
        self.text.setOpenLinks(False)
        self._draw_figures(timed, theme)
        self.text.setHtml(reading_html(timed, theme))
        self.text.document().setDocumentMargin(36 * scale())
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.text)
        self.text.installEventFilter(self)
        self.resize(1280, 800)

    def _draw_figures(self, timed: TimedClass, theme: Theme) -> None:
        """Gives the text the pictures that it names: a figure for each segment."""
        document = self.text.document()
        high = FIGURE_HIGH * scale()
        known: dict[object, QImage] = {}
        for segment in timed.segments:
            use = segment.use
            one = portrait_of(use.movement, segment.side, use.end if use.flow else use.start)
            if one is None or segment.behaviour.is_talk:
                continue
            key = (use.movement.id, segment.side, use.end if use.flow else use.start)
            if key not in known:
                known[key] = figure_image(one, theme, segment.side, high)
            url = QUrl(f"figure:{segment.id}")
            document.addResource(QTextDocument.ResourceType.ImageResource, url, known[key])

    def eventFilter(self, watched: object, event: object) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QKeyEvent.Type.KeyPress:
            bar = self.text.verticalScrollBar()
            by = round(bar.pageStep() * 0.85)
            key = Qt.Key(event.key())
            if key in (Qt.Key.Key_Space, Qt.Key.Key_PageDown, Qt.Key.Key_Right):
                bar.setValue(bar.value() + by)
                return True
            if key in (Qt.Key.Key_Backspace, Qt.Key.Key_PageUp, Qt.Key.Key_Left):
                bar.setValue(bar.value() - by)
                return True
            if key == Qt.Key.Key_Escape:
                self.close()
                return True
        return False


def reading_html(timed: TimedClass, theme: Theme) -> str:
    """The script in large type: the side in the margin, silences named."""
    size, small, margin = (round(of * scale()) for of in (23, 15, 44))
    parts = [
        f'<h1 style="font-family:{TITLE};font-size:{round(size * 1.2)}pt">'
        f"{escape(timed.plan.brief.title)}</h1>",
        '<table width="100%" cellspacing="0" cellpadding="6">',
    ]
    wide, drawn = round(1.5 * FIGURE_HIGH * scale()), ""
    for row in rows_of(timed):
        if row.section:
            parts.append(
                f'<tr><td colspan="4" style="font-family:{TITLE};font-size:{size}pt;color:{theme.bark}">'
                f"<br/>{escape(row.section)}</td></tr>"
            )
        if row.heading:
            parts.append(
                f'<tr><td></td><td></td><td colspan="2" style="font-size:{small}pt;color:{theme.soft}">'
                f"{escape(row.heading)}</td></tr>"
            )
        if row.cue is None:
            continue
        figure = ""
        if row.segment.id != drawn and not row.segment.use.setup_for and not row.segment.behaviour.is_talk:
            drawn = row.segment.id
            figure = f'<img src="figure:{drawn}" width="{wide}" height="{round(wide / 1.5)}"/>'
        colour = {"left": theme.left, "right": theme.right}.get(row.side, theme.ink)
        letter = row.side[0].upper() if row.side in ("left", "right") else ""
        quiet = f" <i>({row.quiet_s:.0f} s quiet)</i>" if row.quiet_s >= QUIET_S else ""
        parts.append(
            f'<tr><td style="font-size:{small}pt;color:{theme.soft}">{show_length(row.at / TICKS_PER_S)}</td>'
            f'<td width="{margin}" style="font-size:{size}pt;color:{colour}"><b>{letter}</b></td>'
            f'<td style="font-family:{BODY};font-size:{size}pt;color:{theme.ink}">{escape(row.text)}'
            f'<span style="font-size:{small}pt;color:{theme.soft}">{quiet}</span></td>'
            f'<td width="{wide}">{figure}</td></tr>'
        )
    return "".join([*parts, "</table>"])
