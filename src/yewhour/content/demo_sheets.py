"""The sheets of the demo classes, which ship."""

from functools import cache
from pathlib import Path

import msgspec

from yewhour.content.paths import DATA
from yewhour.core.shelf.class_sheet import ClassSheet

FILE = DATA / "sheets.json"


@cache
def demo_sheets(path: Path = FILE) -> dict[str, ClassSheet]:
    """The sheets of the demo classes, by the names of their files; none where they can't be read."""
    try:
        return msgspec.json.decode(path.read_bytes(), type=dict[str, ClassSheet])
    except (OSError, msgspec.DecodeError):
        return {}
