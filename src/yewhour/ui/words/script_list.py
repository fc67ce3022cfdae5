"""The script as a list: one row a line, on the same clock as the sprig, edited in place."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import (
    QAbstractItemModel,
    QAbstractListModel,
    QEvent,
    QModelIndex,
    QObject,
    QPersistentModelIndex,
    QRect,
    QRectF,
    QSize,
    Qt,
    QTimer,
    Signal,
)
from PySide6.QtGui import QKeyEvent, QPainter
from PySide6.QtWidgets import QListView, QPlainTextEdit, QStyledItemDelegate, QStyleOptionViewItem, QWidget

from yewhour.core.edits.line_edits import clean
from yewhour.core.problem import Problem
from yewhour.core.timed_class import TimedClass
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.theme import (
    Theme,
    font,
    metrics,
    scale,
)
from yewhour.ui.words.row_painter import RowPaint
from yewhour.ui.words.rows import ScriptRow, rows_of

REST_MS = 80
Index = QModelIndex | QPersistentModelIndex


class ScriptModel(QAbstractListModel):
    """The rows of the class as shown."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.rows: list[ScriptRow] = []
        self.timed: TimedClass | None = None

    def refresh(self) -> bool:
        """Takes the class as it is shown; whether it is another."""
        timed = self.session.shown
        if timed is self.timed:
            return False
        self.beginResetModel()
        self.timed = timed
        self.rows = rows_of(timed) if timed is not None else []
        self.endResetModel()
        return True

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.rows)

    def flags(self, index: Index) -> Qt.ItemFlag:
        row = self.rows[index.row()] if index.isValid() else None
        base = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
        return base | Qt.ItemFlag.ItemIsEditable if row is not None and row.line is not None else base

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        row = self.rows[index.row()]
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole):
            return row.text
        if role == Qt.ItemDataRole.AccessibleTextRole:
            return row.said()
        if role == Qt.ItemDataRole.ToolTipRole:
            return row.left.reason if row.left else None
        if role == Qt.ItemDataRole.UserRole:
            return row
        return None

    def row_of(self, segment: str) -> int:
        """The first row of a segment, -1 when there is none."""
        for number, row in enumerate(self.rows):
            if row.segment.id == segment or (row.cue is not None and row.cue.segment == segment):
                return number
        return -1

    def row_with(self, key: tuple[str, str, int, str]) -> int:
        """The row known by a key, -1 when it is gone."""
        return next((number for number, row in enumerate(self.rows) if row.key == key), -1)


class LineEditor(QPlainTextEdit):
    """The line being reworded. Enter keeps it, Escape leaves it."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setFont(font(11.5))
        self.setAccessibleName("The line")
        self.setTabChangesFocus(True)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)
        self.setLineWrapMode(QPlainTextEdit.LineWrapMode.WidgetWidth)
        self.document().documentLayout().documentSizeChanged.connect(self._grow)

    def _grow(self) -> None:
        """As tall as the words need, and never less than it was."""
        lines = self.document().documentLayout().documentSize().height()
        height = round(lines * metrics(11.5).lineSpacing() + 26 * scale())
        if height > self.height():
            self.resize(self.width(), height)
        around = self.parentWidget()
        if around is not None and self.geometry().bottom() > around.height():
            self.move(self.x(), max(0, around.height() - self.height()))  # all of it stays in view


class RowDelegate(QStyledItemDelegate):
    """Paints the rows and edits a line in its place."""

    reworded = Signal(object, str)  # the row, the new words
    refused = Signal(object)  # why words that were typed can't be a line; they stay in the editor
    typing = Signal(object, str)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.paint_of = RowPaint(theme)
        self.unkept: dict[object, str] = {}  # what was typed and refused, by the row it was for

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        width = option.widget.viewport().width() if isinstance(option.widget, QListView) else 500
        return QSize(width, round(self.paint_of.height(index.data(Qt.ItemDataRole.UserRole), width)))

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        self.paint_of.paint(painter, option, index.data(Qt.ItemDataRole.UserRole))

    def createEditor(self, parent: QWidget, option: QStyleOptionViewItem, index: Index) -> QWidget:
        row: ScriptRow = index.data(Qt.ItemDataRole.UserRole)
        editor = LineEditor(parent)
        editor.textChanged.connect(lambda: self._typed(row, editor.toPlainText(), parent))
        return editor

    def _typed(self, row: ScriptRow, text: str, viewport: QWidget) -> None:
        self.typing.emit(row, text)
        viewport.update()

    def setEditorData(self, editor: QWidget, index: Index) -> None:
        if isinstance(editor, QPlainTextEdit):
            row: ScriptRow = index.data(Qt.ItemDataRole.UserRole)
            editor.setPlainText(self.unkept.get(row.key, index.data(Qt.ItemDataRole.EditRole)))
            editor.selectAll()

    def setModelData(self, editor: QWidget, model: QAbstractItemModel, index: Index) -> None:
        row: ScriptRow = index.data(Qt.ItemDataRole.UserRole)
        if isinstance(editor, QPlainTextEdit):
            text = " ".join(editor.toPlainText().split())
            if self._refused(text):
                self.unkept[row.key] = text
                return
            self.unkept.pop(row.key, None)
            if text != row.text:
                self.reworded.emit(row, text)

    def _refused(self, text: str) -> bool:
        """Whether words can't be a line, which is told."""
        try:
            clean(text)
        except Problem as problem:
            self.refused.emit(problem)
            return True
        return False

    def updateEditorGeometry(self, editor: QWidget, option: QStyleOptionViewItem, index: Index) -> None:
        row: ScriptRow = index.data(Qt.ItemDataRole.UserRole)
        box = self.paint_of.text_box(row, QRectF(option.rect))
        height = max(box.height() + 8, metrics(11.5).height() * 2 + 14)
        editor.setGeometry(
            QRect(round(box.left()) - 6, round(box.top()) - 4, round(box.width()) + 8, round(height))
        )

    def eventFilter(self, editor: QObject, event: QEvent) -> bool:
        enter = isinstance(event, QKeyEvent) and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter)
        if enter and event.type() == QEvent.Type.KeyPress:
            if isinstance(editor, QPlainTextEdit) and self._refused(editor.toPlainText()):
                return True  # the editor stays, with what was typed
            self.commitData.emit(editor)
            self.closeEditor.emit(editor)
            return True
        return super().eventFilter(editor, event)

    def destroyEditor(self, editor: QWidget, index: Index) -> None:
        self.paint_of.typing = None
        super().destroyEditor(editor, index)


class ScriptList(QListView):
    """The list of lines. Choosing a line chooses its segment, and the other way round."""

    current_changed = Signal()
    entered = Signal()  # Enter on a line that has no words to change

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session = session
        self.lines = ScriptModel(session)
        self.delegate = RowDelegate(theme)
        self._following = False
        self._resting = QTimer(self)
        self._resting.setSingleShot(True)
        self._resting.setInterval(REST_MS)
        self._resting.timeout.connect(self._take)
        self.setObjectName("script")
        self.setAccessibleName("Script: the lines to speak")
        self.setModel(self.lines)
        self.setItemDelegate(self.delegate)
        self.setVerticalScrollMode(QListView.ScrollMode.ScrollPerPixel)
        self.setResizeMode(QListView.ResizeMode.Adjust)
        self.setEditTriggers(QListView.EditTrigger.DoubleClicked | QListView.EditTrigger.EditKeyPressed)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.selectionModel().currentChanged.connect(self._line_chosen)
        self.delegate.typing.connect(self._typing)
        session.selected_changed.connect(self.show_segment)
        session.made_changed.connect(self.refresh)

    def set_theme(self, theme: Theme) -> None:
        """Shows itself in other colours."""
        self.delegate.paint_of.theme = theme
        self.scheduleDelayedItemsLayout()
        self.viewport().update()

    @property
    def row(self) -> ScriptRow | None:
        """The row that is current."""
        number = self.currentIndex().row()
        return self.lines.rows[number] if 0 <= number < len(self.lines.rows) else None

    def refresh(self) -> None:
        """Takes the class as it is shown; a trial, when the hand rests: the sprig goes first."""
        if self.session.trial is not None:
            self._resting.start()
        else:
            self._resting.stop()
            self._take()

    def _take(self) -> None:
        """Takes the class as it is shown, and stays where it was."""
        if not self.isVisible() or self.state() == QListView.State.EditingState:
            return
        row, at = self.row, self.verticalScrollBar().value()
        self._following = True
        if self.lines.refresh():
            self.doItemsLayout()
            self.verticalScrollBar().setValue(at)
            number = self.lines.row_with(row.key) if row is not None else -1
            if number >= 0:
                self.setCurrentIndex(self.lines.index(number))
        self._following = False
        if self.row is None and self.session.selected:
            self.show_segment(self.session.selected)
        self.current_changed.emit()

    def showEvent(self, event: object) -> None:
        self.refresh()

    def show_segment(self, segment: str) -> None:
        """Brings a segment's first line into view, unless one of its lines is current already."""
        row = self.row
        if not self.isVisible() or (row is not None and row.segment.id == segment):
            return
        number = self.lines.row_of(segment) if segment else -1
        if number >= 0:
            self._following = True
            index = self.lines.index(number)
            self.setCurrentIndex(index)
            self.scrollTo(index, QListView.ScrollHint.PositionAtCenter)
            self._following = False

    def _typing(self, row: ScriptRow, text: str) -> None:
        """How long the line being typed takes, at once."""
        solved = self.session.solved
        takes_s = solved.duration(text, row.purpose) / 10 if solved is not None and text.strip() else 0.0
        self.delegate.paint_of.typing = (row, takes_s)

    def _line_chosen(self, index: QModelIndex) -> None:
        # An editor that closes on the way here may have left another script behind the index.
        if 0 <= index.row() < len(self.lines.rows) and not self._following:
            self.session.select(self.lines.rows[index.row()].segment.id)
        self.current_changed.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.currentIndex().isValid():
            if self.lines.flags(self.currentIndex()) & Qt.ItemFlag.ItemIsEditable:
                self.edit(self.currentIndex())
            else:
                self.entered.emit()
        elif event.text() and event.text().isprintable():
            event.ignore()  # letters are keys of the list, not a search in it
        else:
            super().keyPressEvent(event)

    def closeEditor(self, editor: QWidget, hint: Any) -> None:
        super().closeEditor(editor, hint)
        self.setFocus()
        self.refresh()

    def resizeEvent(self, event: Any) -> None:
        super().resizeEvent(event)
        self.scheduleDelayedItemsLayout()
