"""The twigs of the demo classes, which ship."""

from functools import cache
from pathlib import Path

import msgspec

from yewhour.core.shelf.twig import Twig
from yewhour.store.paths import DATA

FILE = DATA / "twigs.json"


@cache
def demo_twigs(path: Path = FILE) -> dict[str, Twig]:
    """The twigs of the demo classes, by the names of their files; none where they can't be read."""
    try:
        return msgspec.json.decode(path.read_bytes(), type=dict[str, Twig])
    except (OSError, msgspec.DecodeError):
        return {}
