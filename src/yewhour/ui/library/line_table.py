"""What a movement says, each line as it sounds on either side, and changed where it stands."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QEvent, QObject, Qt, QTimer, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent, QMouseEvent
from PySide6.QtWidgets import (
    QApplication,
    QCheckBox,
    QFrame,
    QHBoxLayout,
    QPlainTextEdit,
    QVBoxLayout,
    QWidget,
)

from yewhour.core.library.movement import parse_wordings
from yewhour.core.sides import Side, fill
from yewhour.core.wording.directions import directions, tokenised
from yewhour.state.classes.own_movements import SAMPLE
from yewhour.ui.kit.controls.chips import Chips
from yewhour.ui.kit.controls.controls import (
    button,
    emptied,
    label,
    row,
)
from yewhour.ui.kit.theme import Theme, scale, side_colour
from yewhour.ui.library.plate_words import ALL_WORDS, BESIDE_CARD, CARD_WORDS, LINE_WORDS, lines_shown
from yewhour.ui.library.spoken_line import SpokenLine

HELP = "One wording a line: in full, shorter, barest. Nothing left takes the line out."
WRITTEN_ON: Side = "right"  # a line of a movement with sides is written as this one says it


class LineRow(QFrame):
    """One line. Pressed, or with Enter, it opens for writing; Escape closes it."""

    written = Signal()
    left = Signal()

    def __init__(self, purpose: str, text: str, sides: tuple[Side, ...], name: str, theme: Theme) -> None:
        super().__init__()
        self.purpose, self.text, self.sides, self.name = purpose, text, sides, name
        self.setObjectName("line")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(4, 3, 4, 3)
        layout.setSpacing(3)
        said = QHBoxLayout()
        said.setSpacing(round(14 * scale()))
        self.head = label(ALL_WORDS[purpose], "soft")
        self.head.setFixedWidth(round(104 * scale()))
        said.addWidget(self.head)
        self.said = [SpokenLine(side_colour(theme, side)) for side in sides]
        for words in self.said:
            said.addWidget(words, 1)
        layout.addLayout(said)
        self.editor: QPlainTextEdit | None = None
        self.mirrored = len(sides) > 1 and not directions(text)
        self.fault = label("", "fault")
        self.fault.hide()
        layout.addWidget(self.fault)
        self._show()

    def _show(self) -> None:
        wordings = parse_wordings(self.text)
        for side, words in zip(self.sides, self.said, strict=True):
            first = wordings[0] if wordings else "nothing: it will be taken out"
            words.setText(fill(first, side, name=self.name, **SAMPLE))
        whole = " / ".join(words.text() for words in self.said)
        self.setAccessibleName(f"{ALL_WORDS[self.purpose]}: {whole}")

    def open(self) -> None:
        """Opens it for writing."""
        if self.editor is None:
            self.editor = QPlainTextEdit("\n".join(self._as_typed(one) for one in parse_wordings(self.text)))
            self.editor.setAccessibleName(f"{ALL_WORDS[self.purpose]}, its wordings")
            self.editor.setFixedHeight(round(92 * scale()))
            self.editor.setTabChangesFocus(True)
            self.editor.installEventFilter(self)
            self.editor.textChanged.connect(self._written)
            layout = self.layout()
            assert isinstance(layout, QVBoxLayout)
            layout.insertWidget(1, self.editor)
            self.below = QWidget()
            under = QVBoxLayout(self.below)
            under.setContentsMargins(0, 0, 0, 0)
            if len(self.sides) > 1:
                mirror = QCheckBox("Written for the right; the left is made from it")
                mirror.setChecked(self.mirrored)
                mirror.toggled.connect(self._mirror)
                mirror.installEventFilter(self)
                under.addWidget(mirror)
            under.addWidget(label(HELP, "soft"))
            layout.insertWidget(2, self.below)
        self.editor.show()
        self.below.show()
        self.editor.setFocus(Qt.FocusReason.TabFocusReason)

    @property
    def is_open(self) -> bool:
        """Whether it is open for writing."""
        return self.editor is not None and not self.editor.isHidden()

    def close_editor(self) -> None:
        """Closes it again, unless what is in it can't be kept, or the keys are still in it."""
        if self.editor is not None and self.fault.isHidden() and not self._has_keys():
            self.editor.hide()
            self.below.hide()
            self.left.emit()

    def _has_keys(self) -> bool:
        at = QApplication.focusWidget()
        return at is not None and (at is self.editor or self.below.isAncestorOf(at))

    def tell(self, fault: str) -> None:
        """What is wrong with it, beside it; "" for nothing."""
        self.fault.setText(fault)
        self.fault.setVisible(bool(fault))

    def _as_typed(self, wording: str) -> str:
        return fill(wording, WRITTEN_ON) if self.mirrored else wording

    def _written(self) -> None:
        assert self.editor is not None
        typed = (part.strip() for part in self.editor.toPlainText().split("\n"))
        kept = (tokenised(part, WRITTEN_ON) if self.mirrored else part for part in typed if part)
        self.text = " | ".join(kept)
        self._show()
        self.written.emit()

    def _mirror(self, mirrored: bool) -> None:
        self.mirrored = mirrored
        self._written()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.FocusOut and isinstance(event, QFocusEvent):
            if event.reason() not in (
                Qt.FocusReason.ActiveWindowFocusReason,
                Qt.FocusReason.PopupFocusReason,
            ):
                QTimer.singleShot(0, self, self.close_editor)
        elif (
            event.type() == QEvent.Type.KeyPress
            and isinstance(event, QKeyEvent)
            and event.key() == Qt.Key.Key_Escape
        ):
            self.setFocus(Qt.FocusReason.TabFocusReason)
            return True
        return False

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.open()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_F2):
            self.open()
        else:
            super().keyPressEvent(event)


class LineTable(QWidget):
    """All lines of a movement. changed: the purpose whose lines are others now, with their texts."""

    changed = Signal(str, list)

    def __init__(self, theme: Callable[[], Theme]) -> None:
        super().__init__()
        self.theme = theme
        self.rows: list[LineRow] = []
        self._about: tuple[tuple[Side, ...], str] = (("both",), "")
        self._layout = QVBoxLayout(self)
        self._layout.setContentsMargins(0, 0, 0, 0)
        self._layout.setSpacing(4)
        self._lines = QVBoxLayout()
        self._lines.setSpacing(4)
        self._layout.addLayout(self._lines)
        self.more = button("Another line…", self._ask, "What it is for is asked first.")
        self._layout.addLayout(row(self.more))
        self.purposes = Chips("What it is for", [(key, words, "") for key, words in ALL_WORDS.items()])
        self.purposes.changed.connect(lambda keys: self.add(keys[0]))
        self.purposes.hide()
        self._layout.addWidget(self.purposes)

    def put(self, table: dict[str, Any], sides: tuple[Side, ...], name: str) -> None:
        """Shows these lines, as they sound on these sides."""
        self._about = sides, name
        emptied(self._lines)
        self.rows = []
        if len(sides) > 1:
            heads = [label(side.capitalize(), "prompt") for side in sides]
            for side, head in zip(sides, heads, strict=True):
                head.setStyleSheet(f"color: {side_colour(self.theme(), side).name()};")
            room = QWidget()
            room.setFixedWidth(round(104 * scale()))
            over = row(room, *heads, stretch=False)
            over.setSpacing(round(14 * scale()))
            over.setContentsMargins(6, 0, 0, 0)
            self._lines.addLayout(over)
        for purpose, texts in lines_shown(table).items():
            for text in texts:
                self._row(purpose, text)
        known = (*CARD_WORDS, *BESIDE_CARD) if table.get("talk") else LINE_WORDS
        self.purposes.offer(known)

    def add(self, purpose: str) -> None:
        """A line more, for this purpose, open for writing."""
        self.purposes.hide()
        row = self._row(purpose, "")
        row.show()
        row.open()

    def of(self, purpose: str) -> list[LineRow]:
        """The lines for a purpose."""
        return [one for one in self.rows if one.purpose == purpose]

    def _row(self, purpose: str, text: str) -> LineRow:
        sides, name = self._about
        row = LineRow(purpose, text, sides, name, self.theme())
        row.written.connect(lambda: self._written(purpose))
        row.left.connect(lambda: self._closed(row))
        after = [number for number, one in enumerate(self.rows) if _order(one.purpose) <= _order(purpose)]
        at = after[-1] + 1 if after else 0
        self.rows.insert(at, row)
        self._lines.insertWidget(at + (len(sides) > 1), row)  # below the names of the sides
        for before, line in zip(["", *(one.purpose for one in self.rows)], self.rows, strict=False):
            line.head.setText("" if line.purpose == before else ALL_WORDS[line.purpose])
        return row

    def _written(self, purpose: str) -> None:
        self.changed.emit(purpose, [one.text for one in self.of(purpose) if one.text])

    def _closed(self, line: LineRow) -> None:
        """A line that says nothing goes when its editor does."""
        if not line.text and line in self.rows:
            self.rows.remove(line)
            self._lines.removeWidget(line)
            line.hide()
            line.deleteLater()

    def _ask(self) -> None:
        self.purposes.set_chosen(())
        self.purposes.setVisible(self.purposes.isHidden())
        if not self.purposes.isHidden():
            self.purposes.focus()


def _order(purpose: str) -> int:
    return list(ALL_WORDS).index(purpose)
