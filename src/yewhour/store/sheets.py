"""The sheets of the demo classes, which ship."""

from functools import cache
from pathlib import Path

import msgspec

from yewhour.core.shelf.sheet import Sheet
from yewhour.store.paths import DATA

FILE = DATA / "sheets.json"


@cache
def demo_sheets(path: Path = FILE) -> dict[str, Sheet]:
    """The sheets of the demo classes, by the names of their files; none where they can't be read."""
    try:
        return msgspec.json.decode(path.read_bytes(), type=dict[str, Sheet])
    except (OSError, msgspec.DecodeError):
        return {}
