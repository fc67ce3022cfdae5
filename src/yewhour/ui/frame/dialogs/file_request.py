"""What is asked for, when a file or a folder is."""

from typing import NamedTuple


class FileRequest(NamedTuple):
    """What is asked for. suffixes: of the files that are shown. save: a file that need not be there yet."""

    title: str
    go: str  # what the button says
    suffixes: tuple[str, ...] = ()
    save: bool = False
    folder: bool = False
