"""Colours, fonts and the style of the window, light and dark.

Text colours keep a contrast of at least 4.5:1 against what they stand on (tests/ui/test_theme.py).
Sides are told by place and letter; their colours only help.
"""

from functools import cache, lru_cache
from typing import NamedTuple

from PySide6.QtCore import QByteArray, QRectF, QSize, Qt
from PySide6.QtGui import (
    QColor,
    QFont,
    QFontDatabase,
    QFontMetricsF,
    QGuiApplication,
    QIcon,
    QPalette,
    QPixmap,
)
from PySide6.QtWidgets import QApplication

from yewhour.content.paths import FONTS, ICONS

BODY = "Atkinson Hyperlegible Next"
TITLE = "Young Serif"
MOST_SCALE, MOST_GROWN = 2.0, 1.4
USUAL = QSize(1280, 800)  # a window for which sizes are given


class Theme(NamedTuple):
    """The palette: what it is used for, as a colour."""

    paper: str  # behind the script
    ground: str  # behind the sprig
    line: str  # hairlines
    edge: str  # around what can be pressed or typed in
    ink: str  # text
    soft: str  # quieter text
    right: str  # needles and letters of the right side
    left: str
    both: str
    bark: str  # the stem
    aril: str  # a change of side
    chosen: str  # behind what is selected
    accent: str  # the one button, the handle
    on_accent: str
    trouble: str
    focus: str  # around what has the keys


LIGHT = Theme(
    paper="#fbf8f1", ground="#efeadd", line="#d8d0bd", edge="#8a8270", ink="#1f2a24", soft="#56605a",
    right="#2c6a4b", left="#2d5c7d", both="#5f6b2c", bark="#7a5c43", aril="#bf3328",
    chosen="#dfe8d3", accent="#274b39", on_accent="#f7f3e8", trouble="#a32a20", focus="#a86200",
)  # fmt: skip
DARK = Theme(
    paper="#171e1a", ground="#1e2722", line="#38443d", edge="#77867c", ink="#eee8da", soft="#a9b3aa",
    right="#86c7a0", left="#8fbfe0", both="#c2c97c", bark="#a98866", aril="#ef6a5c",
    chosen="#2d4034", accent="#9fcfae", on_accent="#13201a", trouble="#f08a7e", focus="#f0b45a",
)  # fmt: skip
# For a dark room, where the screen itself must not light the picture.
DIM = DARK._replace(
    paper="#090d0b", ground="#0c110e", line="#222b26", ink="#b4ae9f", soft="#7f887f", right="#5f9878",
    left="#6b93ad", both="#969c5c", bark="#7d6349", aril="#b9554a",
)  # fmt: skip


def theme_for(dark: bool) -> Theme:
    """The theme of a scheme."""
    return DARK if dark else LIGHT


def system_is_dark() -> bool:
    """Whether the desktop asks for dark windows."""
    return QGuiApplication.styleHints().colorScheme() == Qt.ColorScheme.Dark


@cache
def load_fonts() -> None:
    """Makes the fonts that ship with the program known to Qt."""
    for path in sorted(FONTS.glob("*.ttf")):
        if "Mono" not in path.name:
            QFontDatabase.addApplicationFont(str(path))


@cache
def fixed_font() -> str:
    """The family in which every sign is as wide as every other, for tables; loaded when first asked for."""
    QFontDatabase.addApplicationFont(str(FONTS / "AtkinsonHyperlegibleMono_400Regular.ttf"))
    return "Atkinson Hyperlegible Mono"


def font(size: float, bold: bool = False, title: bool = False, italic: bool = False) -> QFont:
    """A font of ours; `size` is in points at 100 %, scaled with the application's font."""
    return _font(size * scale(), bold, title, italic)


def metrics(size: float) -> QFontMetricsF:
    """The measures of the plain font, at the scale of now."""
    return _metrics(size * scale())


def cut_to(words: str, size: float, room: float) -> tuple[str, float]:
    """Words cut to so many pixels in the plain font, and how wide they are then; remembered."""
    return _cut(words, size * scale(), round(room))


def wrapped_height(words: str, size: float, room: float) -> float:
    """Pixels that words take in the plain font, in lines of so many pixels; remembered."""
    return _wrapped(words, size * scale(), round(room))


@lru_cache(10_000)
def _wrapped(words: str, points: float, room: int) -> float:
    measures = _metrics(points)
    if len(words) * measures.maxWidth() < room or measures.horizontalAdvance(words) < room:
        return measures.height()
    return measures.boundingRect(QRectF(0, 0, room, 10_000), Qt.TextFlag.TextWordWrap, words).height()


@lru_cache(2000)
def _cut(words: str, points: float, room: int) -> tuple[str, float]:
    measures = _metrics(points)
    shown = measures.elidedText(words, Qt.TextElideMode.ElideRight, room)
    return shown, measures.horizontalAdvance(shown)


@cache
def _metrics(points: float) -> QFontMetricsF:
    return QFontMetricsF(_font(points, False, False, False))


@cache
def _font(points: float, bold: bool, title: bool, italic: bool) -> QFont:
    chosen = QFont(TITLE if title else BODY)
    chosen.setPointSizeF(points)
    if bold:
        chosen.setWeight(QFont.Weight.DemiBold)
    chosen.setItalic(italic)
    return chosen


_chosen = 1.0  # by the teacher
_grown = 1.0  # with the window


def scale() -> float:
    """How much larger than usual text is shown, 1.0 to 2.0."""
    return min(MOST_SCALE, _chosen * _grown)


def chosen_scale() -> float:
    """How much larger than usual the teacher wants it."""
    return _chosen


def set_scale(value: float) -> None:
    """Sets the text scale the teacher wants; call apply() afterwards."""
    global _chosen
    _chosen = min(MOST_SCALE, max(1.0, value))


def grow_with(window: QSize) -> bool:
    """Lets text grow with a window that is larger than usual, by tenths; whether it is another size now."""
    global _grown
    share = min(window.width() / USUAL.width(), window.height() / USUAL.height())
    before, _grown = _grown, min(MOST_GROWN, max(1.0, int(share * 10) / 10))
    return _grown != before


def side_colour(theme: Theme, side: str) -> QColor:
    """The colour of a side."""
    return QColor({"right": theme.right, "left": theme.left}.get(side, theme.both))


def icon(name: str, colour: str) -> QIcon:
    """An icon of ours in a colour, sharp at twice the size."""
    drawing = (ICONS / f"{name}.svg").read_text(encoding="utf-8").replace("INK", colour)
    pixmap = QPixmap()
    pixmap.loadFromData(QByteArray(drawing.replace("<svg ", '<svg width="48" height="48" ').encode()), "SVG")
    return QIcon(pixmap)


def apply(application: QApplication, theme: Theme) -> None:
    """Dresses the whole application, unless it wears this already."""
    style = _style(theme)
    if application.styleSheet() == style:
        return
    application.setFont(font(10.5))
    palette = QPalette()
    for role, colour in (
        (QPalette.ColorRole.Window, theme.ground), (QPalette.ColorRole.WindowText, theme.ink),
        (QPalette.ColorRole.Base, theme.paper), (QPalette.ColorRole.Text, theme.ink),
        (QPalette.ColorRole.Button, theme.ground), (QPalette.ColorRole.ButtonText, theme.ink),
        (QPalette.ColorRole.Highlight, theme.accent), (QPalette.ColorRole.HighlightedText, theme.on_accent),
        (QPalette.ColorRole.PlaceholderText, theme.soft), (QPalette.ColorRole.ToolTipBase, theme.ink),
        (QPalette.ColorRole.ToolTipText, theme.paper),
    ):  # fmt: skip
        palette.setColor(role, QColor(colour))
    application.setPalette(palette)
    application.setStyleSheet(style)


def _style(theme: Theme) -> str:
    unit = round(8 * scale())
    return f"""
    QWidget {{ font-family: "{BODY}"; }}
    QMenuBar, QMenu, QPushButton {{ font-size: {10.5 * scale():.1f}pt; }}
    QWidget#page, QScrollArea#page, QScrollArea#page > QWidget > QWidget {{ background: {theme.paper}; }}
    QScrollArea {{ border: none; }}
    QLabel#heading {{ font-family: "{TITLE}"; font-size: {15 * scale():.1f}pt; }}
    QLabel#prompt {{ font-weight: 600; }}
    QLabel#soft {{ color: {theme.soft}; font-size: {9.8 * scale():.1f}pt; }}
    QLabel#big {{ font-size: {19 * scale():.1f}pt; font-weight: 600; }}
    QLabel#reading {{ font-size: {12.5 * scale():.1f}pt; }}
    QFrame#card {{ background: {theme.ground}; border: 1px solid {theme.line}; border-radius: {unit}px; }}
    QFrame#card[severity="wrong"] {{ border-left: 4px solid {theme.trouble}; }}
    QFrame#card[severity="look"] {{ border-left: 4px solid {theme.both}; }}
    QLineEdit, QPlainTextEdit, QTextEdit {{ background: {theme.paper};
        color: {theme.ink}; border: 1px solid {theme.edge}; border-radius: {unit // 2}px;
        padding: {unit // 2}px; selection-background-color: {theme.accent};
        selection-color: {theme.on_accent}; }}
    QLineEdit:focus, QPlainTextEdit:focus, QTextEdit:focus {{ border: 2px solid {theme.focus};
        padding: {unit // 2 - 1}px; }}
    QAbstractSpinBox QLineEdit, QComboBox QLineEdit, QAbstractSpinBox QLineEdit:focus,
    QComboBox QLineEdit:focus {{ border: none; padding: 0 0 0 {unit // 2}px; }}
    QAbstractSpinBox, QComboBox {{ min-height: {unit * 3}px; background: {theme.paper}; color: {theme.ink};
        border: 1px solid {theme.edge}; border-radius: {unit // 2}px; padding: {unit // 2}px {unit}px; }}
    QAbstractSpinBox:focus, QComboBox:focus, QComboBox:on {{ border: 2px solid {theme.focus}; }}
    QComboBox::drop-down {{ border: none; width: {unit * 3}px; }}
    QComboBox::down-arrow {{ image: url({ICONS.as_posix()}/down.svg); width: {unit + 6}px; }}
    QAbstractSpinBox::up-button, QAbstractSpinBox::down-button {{ border: none; background: transparent;
        width: {unit * 2 + 4}px; }}
    QAbstractSpinBox::up-arrow {{ image: url({ICONS.as_posix()}/up.svg); width: {unit + 2}px; }}
    QAbstractSpinBox::down-arrow {{ image: url({ICONS.as_posix()}/down.svg); width: {unit + 2}px; }}
    QListView::indicator {{ width: {unit + 4}px; height: {unit + 4}px; border: 2px solid {theme.soft};
        border-radius: 3px; background: {theme.paper}; }}
    QListView::indicator:checked {{ background: {theme.accent}; border-color: {theme.accent};
        image: url({ICONS.as_posix()}/tick.svg); }}
    QLineEdit#finder {{ font-size: {13 * scale():.1f}pt; padding: {unit}px {unit + 4}px;
        border-radius: {unit}px; }}
    QComboBox QAbstractItemView {{ background: {theme.paper}; color: {theme.ink};
        selection-background-color: {theme.chosen}; selection-color: {theme.ink};
        border: 1px solid {theme.line}; }}
    QPushButton#station {{ background: transparent; border: none; border-radius: 0;
        border-bottom: 3px solid transparent; padding: {unit // 2}px {unit}px;
        font-size: {12 * scale():.1f}pt; color: {theme.soft}; }}
    QPushButton#station:checked {{ color: {theme.ink}; border-bottom: 3px solid {theme.aril}; }}
    QPushButton#station:focus {{ border: 2px solid {theme.focus}; border-radius: 4px; }}
    QPushButton#chip {{ border-radius: {unit + 6}px; padding: {unit // 2}px {unit + 4}px; }}
    QPushButton#chip:checked {{ background: {theme.chosen}; border: 2px solid {theme.accent}; }}
    QPushButton#chip:focus {{ border: 2px solid {theme.focus}; }}
    QPushButton#small {{ padding: {unit // 2}px {unit}px; }}
    QPushButton:disabled {{ color: {theme.soft}; border-style: dashed; }}
    QCheckBox, QRadioButton {{ spacing: {unit}px; }}
    QCheckBox:focus, QRadioButton:focus {{ border: 2px solid {theme.focus}; border-radius: 4px; }}
    QSplitter::handle {{ background: {theme.line}; }}
    QMainWindow, QDialog {{ background: {theme.ground}; }}
    QLabel#title {{ font-family: "{TITLE}"; font-size: {21 * min(1.4, scale()):.1f}pt; }}
    QLineEdit#plate, QLineEdit#plate-2 {{ background: transparent; border: 1px solid transparent;
        padding: 0; }}
    QLineEdit#plate {{ font-family: "{TITLE}"; font-size: {21 * min(1.4, scale()):.1f}pt; }}
    QLineEdit#plate-2 {{ font-size: {12.5 * scale():.1f}pt; color: {theme.soft}; }}
    QLineEdit#plate:hover, QLineEdit#plate-2:hover {{ border: 1px dotted {theme.edge}; }}
    QLineEdit#plate:focus, QLineEdit#plate-2:focus {{ border: 2px solid {theme.focus}; padding: 0;
        background: {theme.paper}; }}
    QFrame#line {{ border: 2px solid transparent; border-radius: {unit // 2}px; }}
    QFrame#line:hover {{ background: {theme.chosen}; }}
    QFrame#line:focus {{ border: 2px solid {theme.focus}; }}
    QPlainTextEdit#fixed {{ font-family: "Atkinson Hyperlegible Mono"; font-size: {10 * scale():.1f}pt; }}
    QLabel#line-words {{ font-size: {11.5 * scale():.1f}pt; }}
    QLabel#fault {{ color: {theme.trouble}; font-weight: 600; }}
    QLabel#promise {{ font-size: {11 * scale():.1f}pt; color: {theme.soft}; }}
    QLabel#message {{ font-size: {10.5 * scale():.1f}pt; }}
    QMenuBar {{ background: {theme.ground}; padding: 2px {unit}px; }}
    QMenuBar::item {{ padding: {unit // 2}px {unit}px; border-radius: 6px; background: transparent; }}
    QMenuBar::item:selected, QMenu::item:selected {{ background: {theme.chosen}; color: {theme.ink}; }}
    QMenu {{ background: {theme.paper}; border: 1px solid {theme.line}; padding: {unit // 2}px; }}
    QMenu::item {{ padding: {unit // 2}px {unit * 3}px {unit // 2}px {unit * 2}px; border-radius: 5px; }}
    QMenu::separator {{ height: 1px; background: {theme.line}; margin: {unit // 2}px {unit}px; }}
    QPushButton {{ background: {theme.paper}; color: {theme.ink}; border: 1px solid {theme.edge};
        border-radius: {unit}px; padding: {unit}px {unit * 2}px; }}
    QPushButton:hover {{ border-color: {theme.accent}; }}
    QPushButton:focus {{ border: 2px solid {theme.focus}; }}
    QPushButton#accent {{ background: {theme.accent}; color: {theme.on_accent};
        border: 1px solid {theme.accent}; }}
    QPushButton#accent:focus {{ border: 2px solid {theme.focus}; }}
    QPushButton#accent:disabled {{ background: {theme.ground}; color: {theme.soft};
        border: 1px dashed {theme.soft}; }}
    QListWidget {{ padding: {unit // 2}px; }}
    QPushButton#mend {{ border: 1px solid {theme.aril}; padding: {unit // 2}px {unit * 2}px; }}
    QListView, QTextBrowser {{ background: {theme.paper}; color: {theme.ink}; border: none; outline: none; }}
    QListView:focus, QTextBrowser:focus {{ border-left: 3px solid {theme.focus}; }}
    QListView::item {{ padding: 2px {unit // 2}px; border: none; }}
    QListView::item:selected {{ background: {theme.chosen}; color: {theme.ink}; }}
    QProgressBar {{ background: {theme.ground}; border: 1px solid {theme.line}; border-radius: {unit // 2}px;
        min-height: {unit}px; max-height: {unit}px; }}
    QProgressBar::chunk {{ background: {theme.accent}; border-radius: {unit // 2}px; }}
    QScrollBar:vertical {{ background: transparent; width: {unit + 4}px; margin: 2px; }}
    QScrollBar::handle:vertical {{ background: {theme.line}; border-radius: {unit // 2}px;
        min-height: {unit * 4}px; }}
    QScrollBar::handle:vertical:hover {{ background: {theme.soft}; }}
    QScrollBar:horizontal {{ background: transparent; height: {unit + 4}px; margin: 2px; }}
    QScrollBar::handle:horizontal {{ background: {theme.line}; border-radius: {unit // 2}px;
        min-width: {unit * 4}px; }}
    QScrollBar::handle:horizontal:hover {{ background: {theme.soft}; }}
    QAbstractScrollArea::corner {{ background: transparent; border: none; }}
    QScrollBar::add-line, QScrollBar::sub-line, QScrollBar::add-page, QScrollBar::sub-page {{
        background: none; border: none; width: 0; height: 0; }}
    QToolTip {{ background: {theme.ink}; color: {theme.paper}; border: none; padding: {unit // 2}px; }}
    """
