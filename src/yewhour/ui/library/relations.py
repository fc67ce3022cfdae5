"""What stands beside a movement: who is to be minded, what prepares and neutralises it, where it is used."""

from __future__ import annotations

from collections.abc import Mapping
from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QVBoxLayout, QWidget

from yewhour.content.terms import Terms
from yewhour.core.library.movement import Library, Movement
from yewhour.core.sides import unmarked
from yewhour.ui.kit.controls.controls import button, emptied, label
from yewhour.ui.kit.controls.fields import prompted


class Relations(QWidget):
    """The foot of a plate. `wanted`: a movement named there."""

    wanted = Signal(str)

    def __init__(self, terms: Terms) -> None:
        super().__init__()
        self.terms = terms
        self._layout = QVBoxLayout(self)
        self._layout.setContentsMargins(0, 8, 0, 0)

    def show_for(self, movement: Movement, library: Library, uses: Mapping[str, list[str]]) -> None:
        """Shows what there is for this movement; uses: titles of classes by the id of a movement."""
        emptied(self._layout)
        watched = [self.terms.cautions[one] for one in movement.cautions if one in self.terms.cautions]
        if watched:
            self._layout.addWidget(label("Who to mind", "heading"))
            for one in watched:
                self._layout.addWidget(label(f"{one.name}: {one.watch or one.about}"))
        self._layout.addWidget(label("What goes with it", "heading"))
        mine = movement.id
        gentler, stronger = movement.gentler, movement.stronger
        rows = (
            ("Prepared by", movement.prepared_by),
            ("Prepares", [one.id for one in library.values() if mine in one.prepared_by]),
            ("Neutralised by", movement.neutralised_by),
            ("Neutralises", [one.id for one in library.values() if mine in one.neutralised_by]),
            ("Gentler", [gentler.movement] if gentler and gentler.movement else ()),
            ("Stronger", [stronger.movement] if stronger and stronger.movement else ()),
        )
        for prompt, ids in rows:
            there = [library[one] for one in ids if one in library]
            if there:
                names = [button(one.name, partial(self.wanted.emit, one.id), "Show it") for one in there]
                self._layout.addLayout(prompted(prompt, *names, quietly()))
        for prompt, option in (("Gentler", gentler), ("Stronger", stronger)):
            if option is not None and not option.movement:
                self._layout.addLayout(prompted(prompt, label(unmarked(option.line[0]))))
        if not any(ids for _, ids in rows) and gentler is None and stronger is None:
            self._layout.addWidget(label("Nothing is named that prepares or neutralises it.", "soft"))
        self._layout.addWidget(label("Where it is used", "heading"))
        titles = uses.get(mine, [])
        self._layout.addWidget(label("; ".join(titles) or "In none of your latest classes.", "reading"))


def quietly() -> QWidget:
    """Nothing, so that a lone name stays as wide as it is."""
    return QWidget()
