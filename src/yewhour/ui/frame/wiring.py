"""What the late parts of a window ask for by signals, and who does it."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from yewhour.ui.frame.dialogs.file_commands import FileCommands
from yewhour.ui.frame.host import Host
from yewhour.ui.frame.pages import Pages
from yewhour.ui.frame.start.first_page import FirstPage

if TYPE_CHECKING:
    from yewhour.ui.review.page import BackPage
    from yewhour.ui.shelf.page import ShelfPage


def wire(pages: Pages, files: FileCommands, host: Host, changed: Callable[[], object]) -> None:
    """Connects each late part as soon as it is there."""

    def start(page: FirstPage) -> None:
        page.pasted.connect(files.paste_outline)
        page.empty.connect(files.new_class)
        page.outline.connect(files.open_outline)
        page.recording.connect(files.bring_in)
        page.other.connect(files.open_class)
        page.path.connect(files.open_file)
        page.kept.connect(files.bring_back)
        page.promised.connect(lambda text: pages.drafting().promise(text))
        page.typed.connect(lambda text: page.promise.put(pages.drafting().read_ahead(text)))

    def review(page: BackPage) -> None:
        page.message.connect(host.say)
        page.troubled.connect(host.tell)
        page.opens.connect(host.keep_open)
        page.wanted.connect(files.choose_recording)
        page.folder_wanted.connect(files.choose_folder_as_it_was)
        page.camera_wanted.connect(files.choose_camera)
        page.place_wanted.connect(files.choose_place_of_film)

    def shelf(page: ShelfPage) -> None:
        page.message.connect(host.say)
        page.troubled.connect(host.tell)
        page.opens.connect(host.keep_open)
        page.opened.connect(files.open_file)
        page.to_record.connect(files.open_to_record)
        page.begin.connect(lambda: host.show_beginnings())
        page.promise.promised.connect(lambda text: pages.drafting().promise(text))
        page.promise.typed.connect(lambda text: page.promise.put(pages.drafting().read_ahead(text)))
        page.folder_wanted.connect(files.choose_folder_of_weeks)
        page.adopt_wanted.connect(files.choose_folder_to_take_in)
        page.find_wanted.connect(files.find_shelved)
        page.viewed.connect(changed)
        page.making.begun.connect(files.begin_from_shelf)
        page.making.changed.connect(files.change_from_shelf)

    pages.start.when_made(start)
    pages.words.when_made(lambda page: page.message.connect(host.say))
    pages.take.when_made(lambda page: page.left.connect(lambda: host.go_to("to_sprig")))

    def look_back() -> None:
        host.go_to("to_back")
        pages.review().look_at_latest()

    pages.take.when_made(lambda page: page.looked_back.connect(look_back))
    pages.review.when_made(review)
    pages.shelf.when_made(shelf)
    pages.shelving.when_made(lambda shelving: shelving.changed.connect(changed))  # for what can be undone
