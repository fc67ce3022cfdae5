"""Where the glimpse of a class file lies, found without importing anything of the core."""

import hashlib
from pathlib import Path

from yewhour import __version__
from yewhour.store.atomic import read_all
from yewhour.store.paths import own_data, prepared


def own_glimpses() -> Path:
    """The folder of the glimpses of her classes."""
    return own_data() / "glimpses"


def glimpse_name(content: bytes) -> str:
    """The file for a class file's content: another content, or another program, is another glimpse."""
    name = hashlib.sha1(content + __version__.encode(), usedforsecurity=False).hexdigest()[:20]
    return f"{name}.msgpack"


def glimpse_files(path: Path) -> list[Path]:
    """The files where a glimpse of this class file may be, as it is now. Raises Problem as read_all."""
    name = glimpse_name(read_all(path))
    return [folder / name for folder in (own_glimpses(), prepared())]
