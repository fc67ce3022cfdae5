"""Chips: things to have or not, pressed ones are in; and those of which exactly one is."""

from __future__ import annotations

from collections.abc import Iterable

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent
from PySide6.QtWidgets import QWidget

from yewhour.ui.kit.controls.controls import Press, Wrapping


class Chip(Press):
    """One of several things to have or not. Arrows go to its neighbours, letters narrow them down."""

    def __init__(self, words: str, chips: Chips) -> None:
        super().__init__(words)
        self.chips = chips
        self.setObjectName("chip")
        self.setCheckable(True)

    def focusInEvent(self, event: QFocusEvent) -> None:
        self.chips.stop_at(self)
        super().focusInEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        by = {Qt.Key.Key_Right: 1, Qt.Key.Key_Down: 1, Qt.Key.Key_Left: -1, Qt.Key.Key_Up: -1}
        key, typed = Qt.Key(event.key()), event.text()
        plain = not event.modifiers() & ~Qt.KeyboardModifier.ShiftModifier
        if key in by:
            self.chips.go(self, by[key])
        elif plain and (key == Qt.Key.Key_Backspace or (typed.isprintable() and typed.strip())):
            self.chips.narrow("" if key == Qt.Key.Key_Backspace else self.chips.typed + typed)
        else:
            super().keyPressEvent(event)


class Chips(QWidget):
    """Things to have or not: pressed ones are in. `changed` tells the ones that are.

    One stop for Tab, with arrows inside. What is typed leaves those that have it in their name.
    """

    changed = Signal(tuple)

    def __init__(self, title: str, options: Iterable[tuple[str, str, str]]) -> None:
        super().__init__()
        self.setAccessibleName(title)
        layout = Wrapping()
        self.typed = ""
        self.chips: dict[str, Chip] = {}
        self._offered: frozenset[str] | None = None  # all
        for key, words, about in options:
            chip = Chip(words, self)
            chip.setToolTip(about)
            chip.setAccessibleName(f"{title}: {words}")
            chip.clicked.connect(self._tell)
            layout.addWidget(chip)
            self.chips[key] = chip
        self.setLayout(layout)
        self.stop_at(next(iter(self.chips.values()), None))

    def stop_at(self, here: Chip | None) -> None:
        """Tab comes to this one, and to no other of them."""
        for chip in self.chips.values():
            strong = chip is here
            chip.setFocusPolicy(Qt.FocusPolicy.StrongFocus if strong else Qt.FocusPolicy.ClickFocus)

    def go(self, here: Chip, by: int) -> None:
        """To a neighbour that is shown."""
        shown = [chip for chip in self.chips.values() if not chip.isHidden()]
        if here in shown:
            shown[(shown.index(here) + by) % len(shown)].setFocus(Qt.FocusReason.TabFocusReason)

    def offer(self, keys: Iterable[str]) -> None:
        """Offers these alone; the others can't be chosen for now."""
        self._offered = frozenset(keys)
        self.narrow("")

    def narrow(self, typed: str) -> None:
        """Shows those that have this in their name; all of them when none has."""
        offered = [one for key, one in self.chips.items() if self._offered is None or key in self._offered]
        found = [chip for chip in offered if typed.lower() in chip.text().lower()]
        self.typed = typed if found else ""
        for chip in self.chips.values():
            chip.setVisible(chip in (found or offered))
        if found and typed:
            found[0].setFocus(Qt.FocusReason.TabFocusReason)

    def focus(self) -> None:
        """To the one that is in, or the first; all of them shown."""
        self.narrow("")
        pressed = [chip for chip in self.chips.values() if chip.isChecked()]
        first = pressed or list(self.chips.values())
        if first:
            first[0].setFocus(Qt.FocusReason.TabFocusReason)

    def set_chosen(self, chosen: Iterable[str]) -> None:
        """Presses these and no others, without telling."""
        chosen = set(chosen)
        for key, chip in self.chips.items():
            chip.setChecked(key in chosen)

    def _tell(self) -> None:
        self.changed.emit(tuple(key for key, chip in self.chips.items() if chip.isChecked()))


class OneOf(Chips):
    """Things of which one is in. `chosen` tells it when it is another."""

    chosen = Signal(str)

    def __init__(self, title: str, options: Iterable[tuple[str, str, str]], now: str = "") -> None:
        super().__init__(title, options)
        self.now = now
        self.changed.connect(self._pressed)

    def put(self, now: str) -> None:
        """Presses this one, without telling."""
        self.now = now
        self.set_chosen((now,))

    def _pressed(self, keys: tuple[str, ...]) -> None:
        new = [key for key in keys if key != self.now]
        self.put(new[0] if new else self.now)
        if new:
            self.chosen.emit(self.now)
