"""The pages of the window that are not there at its start: each is made when it is first asked for."""

from __future__ import annotations

from abc import abstractmethod
from functools import cached_property
from typing import Any

from PySide6.QtGui import QAction
from PySide6.QtWidgets import QStackedWidget, QWidget

from yewhour.ui.desk.session import Session
from yewhour.ui.frame.dialogs.file_commands import FileCommands
from yewhour.ui.frame.shell import Shell
from yewhour.ui.frame.start.first_page import FirstPage


class Pages(Shell):
    """A window with pages. made_up: its shelf is the one of the demo.

    stations: what stands beside the sprig. body: what has the whole window.
    """

    session: Session
    clerk: FileCommands
    stations: QStackedWidget
    body: QStackedWidget
    made_up = False
    _dressed: list[Any]
    _letters: dict[str, list[QAction]]

    @abstractmethod
    def to_sprig(self) -> None:
        """The sprig and the movements."""

    @abstractmethod
    def show_beginnings(self) -> None:
        """The page with every way to begin a class."""

    @abstractmethod
    def _offer_at(self, widget: QWidget, where: str) -> None: ...

    @cached_property
    def shelving(self) -> Any:
        """The shelf."""
        session = self.rarely.ShelfSession(made_up=self.made_up)
        session.changed.connect(self.show_class)  # for what can be undone
        return session

    @cached_property
    def drafting(self) -> Any:
        """What drafts classes."""
        return self.rarely.Drafting(self, self.session)

    @abstractmethod
    def show_class(self) -> None:
        """The promise in the head, and what is next in the foot."""

    @cached_property
    def promise_page(self) -> Any:
        """The promise."""
        page = self.later.PromisePage(self.session, self.theme)
        self._dressed.append(page)
        self.stations.addWidget(page)
        return page

    @cached_property
    def words(self) -> Any:
        """The script."""
        page = self.later.WordsPage(self.session, self.theme)
        page.message.connect(self.say)
        for action in self._letters["script"]:
            page.script.addAction(action)
        self._offer_at(page.script, "script")
        self._dressed.append(page)
        self.stations.addWidget(page)
        return page

    @cached_property
    def take_page(self) -> Any:
        """The take, which has the whole window."""
        page = self.later.TakePage(self.session, self.theme)
        page.left.connect(self.to_sprig)
        self._dressed.append(page)
        self.body.addWidget(page)
        return page

    @cached_property
    def back_page(self) -> Any:
        """What really happened."""
        page = self.rarely.BackPage(self.session, self.theme)
        page.message.connect(self.say)
        page.troubled.connect(self.tell)
        page.opens.connect(self.keep_open)
        page.wanted.connect(self.clerk.choose_recording)
        page.folder_wanted.connect(self.clerk.choose_folder_as_it_was)
        self._dressed.append(page)
        self.body.addWidget(page)
        return page

    @cached_property
    def start(self) -> FirstPage:
        """The first page."""
        page = FirstPage(self.theme)
        page.pasted.connect(self.clerk.paste_outline)
        self._dressed.append(page)
        page.empty.connect(self.clerk.new_class)
        page.outline.connect(self.clerk.open_outline)
        page.recording.connect(self.clerk.bring_in)
        page.other.connect(self.clerk.open_class)
        page.path.connect(self.clerk.open_file)
        page.kept.connect(self.clerk.bring_back)
        page.promised.connect(lambda text: self.drafting.promise(text))
        self.body.addWidget(page)
        return page

    @cached_property
    def shelf_page(self) -> Any:
        """What was made, and what goes out when."""
        page = self.rarely.ShelfPage(self.session, self.shelving, self.theme)
        page.message.connect(self.say)
        page.troubled.connect(self.tell)
        page.opens.connect(self.keep_open)
        page.opened.connect(self.clerk.open_file)
        page.to_record.connect(self.clerk.open_to_record)
        page.begin.connect(self.show_beginnings)
        page.folder_wanted.connect(self.clerk.choose_folder_of_weeks)
        page.find_wanted.connect(self.clerk.find_shelved)
        page.viewed.connect(self.show_class)
        page.making.begun.connect(self.clerk.begin_from_shelf)
        page.making.changed.connect(self.clerk.change_from_shelf)
        self._dressed.append(page)
        self.body.addWidget(page)
        return page
