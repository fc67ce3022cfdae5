"""The commands of a window: each with its action, its menu, its keys, and the function that does it."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import partial

from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QAction, QKeySequence
from PySide6.QtWidgets import QMainWindow, QMenu, QWidget

from yewhour.core.problem import Problem
from yewhour.ui.kit.commands import AT_HAND, COMMANDS, Command, with_letter

Act = Callable[[], object]


class Commands:
    """Makes an action of every command there is. tell: hears why one could not be done. unseen: why one can't
    be done from where one is, None when it can. hovered: hears which one is pointed at in a menu, and "" when
    the menu is left.

    Raises KeyError for a command without a function, ValueError for a function without a command.
    """

    def __init__(
        self,
        window: QMainWindow,
        acts: Mapping[str, Act],
        tell: Callable[[Problem], None],
        unseen: Callable[[Command], Problem | None],
        hovered: Callable[[str], object],
    ) -> None:
        self._acts, self._tell, self._unseen, self._hovered = dict(acts), tell, unseen, hovered
        self._commands = {one.name: one for one in COMMANDS}
        self.actions: dict[str, QAction] = {}
        self._letters: dict[str, list[QAction]] = {}  # whose keys work only in one widget
        unknown = acts.keys() - {command.name for command in COMMANDS}
        if unknown:
            raise ValueError(f"no command is called {sorted(unknown)}")
        menus: dict[str, QMenu] = {}
        letters: set[str] = set()
        for command in COMMANDS:
            self._acts[command.name]  # each has its function
            action = QAction(command.title, window)
            action.setShortcuts([QKeySequence(keys) for keys in command.keys])
            action.setStatusTip(command.about)
            action.triggered.connect(partial(self._triggered, command.name))
            action.hovered.connect(partial(hovered, command.name))
            if command.at != "window":
                action.setShortcutContext(Qt.ShortcutContext.WidgetShortcut)
                self._letters.setdefault(command.at, []).append(action)
            if command.menu not in menus:
                menus[command.menu] = window.menuBar().addMenu(with_letter(command.menu, letters))
                menus[command.menu].aboutToHide.connect(partial(hovered, ""))
            menus[command.menu].addAction(action)
            self.actions[command.name] = action

    def _triggered(self, name: str, _checked: bool = False) -> None:
        self.do(name)

    def do(self, name: str) -> None:
        """Does a command; told when it can't be done, or would change what is out of view."""
        try:
            if problem := self._unseen(self._commands[name]):
                raise problem
            self._acts[name]()
        except Problem as problem:
            self._tell(problem)

    def at(self, widget: QWidget, where: str, choose: Callable[[QPoint], object] | None = None) -> None:
        """Has the keys of a place work in a widget, and its menu open there. choose: what is pointed at."""
        for action in self._letters.get(where, ()):
            widget.addAction(action)
        widget.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        widget.customContextMenuRequested.connect(lambda point: self._show_menu(widget, where, point, choose))

    def _show_menu(
        self, widget: QWidget, where: str, point: QPoint, choose: Callable[[QPoint], object] | None
    ) -> None:
        if choose is not None:
            choose(point)
        menu = QMenu(widget)
        for name in AT_HAND[where]:
            if name:
                menu.addAction(self.actions[name])
            else:
                menu.addSeparator()
        menu.aboutToHide.connect(partial(self._hovered, ""))
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        menu.popup(widget.mapToGlobal(point))
