"""What a window does without at its start: stations, services and dialogs, made when first asked for."""

from __future__ import annotations

from functools import cached_property
from types import ModuleType
from typing import TYPE_CHECKING

from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.state.paths import kept_shelf
from yewhour.ui.desk.session import Session
from yewhour.ui.frame.host import Host
from yewhour.ui.frame.start.first_page import FirstPage
from yewhour.ui.kit.lazy import Lazy

if TYPE_CHECKING:
    from yewhour.ui.frame.dialogs.drafting import Drafting
    from yewhour.ui.promise.page import PromisePage
    from yewhour.ui.review.page import BackPage
    from yewhour.ui.shelf.page import ShelfPage
    from yewhour.ui.shelf.shelf_session import ShelfSession
    from yewhour.ui.take.page import TakePage
    from yewhour.ui.words.page import WordsPage


class Pages:
    """The parts of one window that come late. made_up: its shelf is the one of the demo, and kept nowhere."""

    def __init__(self, session: Session, host: Host) -> None:
        self.session, self.host = session, host
        self.made_up = False
        self.start = Lazy(lambda: FirstPage(host.theme))
        self.promise: Lazy[PromisePage] = Lazy(lambda: self.later.PromisePage(session, host.theme))
        self.words: Lazy[WordsPage] = Lazy(lambda: self.later.WordsPage(session, host.theme))
        self.take: Lazy[TakePage] = Lazy(lambda: self.later.TakePage(session, host.theme))
        self.review: Lazy[BackPage] = Lazy(lambda: self.rarely.BackPage(session, host.theme, self._sheets))
        self.shelving: Lazy[ShelfSession] = Lazy(lambda: self.rarely.ShelfSession(made_up=self.made_up))
        self.shelf: Lazy[ShelfPage] = Lazy(
            lambda: self.rarely.ShelfPage(session, self.shelving(), host.theme)
        )
        self.drafting: Lazy[Drafting] = Lazy(lambda: self.rarely.Drafting(host, session, self))

    @cached_property
    def later(self) -> ModuleType:
        """The stations and dialogs that are not there at the start."""
        # 60 ms of importing widgets that a window at its start does not show.
        from yewhour.ui.frame import later

        return later

    @cached_property
    def rarely(self) -> ModuleType:
        """The dialogs that bring in what is slow to import."""
        # 85 ms that changing a station can do without.
        from yewhour.ui.frame import rarely

        return rarely

    def has_shelf(self) -> bool:
        """Whether there is anything on the shelf, found without opening it."""
        if self.made_up or self.shelving.made is not None:
            return not self.shelving().shelf.empty
        return any(kept_shelf().glob("*.sqlite")) and not self.shelving().shelf.empty

    def _sheets(self) -> list[ClassSheet]:
        """The classes of the shelf, in numbers."""
        return [one.sheet for one in self.shelving().book.shelf.classes.values()]

    def shut(self) -> None:
        """The window closes."""
        for page in (self.promise.made, self.words.made, self.take.made, self.review.made, self.shelf.made):
            if page is not None:
                page.shut()
        if self.shelving.made is not None:
            self.shelving.made.close()
