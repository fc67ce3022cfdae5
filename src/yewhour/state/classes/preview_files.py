"""Where the glimpse of a class file lies, found without importing anything of the core."""

import zlib
from pathlib import Path

from yewhour import __version__
from yewhour.content.paths import prepared_folder
from yewhour.files.atomic_files import read_all
from yewhour.state.paths import own_data


def own_previews() -> Path:
    """The folder of the glimpses of her classes."""
    return own_data() / "glimpses"


def preview_name(content: bytes) -> str:
    """The file for a class file's content: another content, or another program, is another glimpse."""
    whole = content + __version__.encode()  # two sums and the length: hashlib brings 4 MB of OpenSSL with it
    return f"{zlib.crc32(whole):08x}{zlib.adler32(whole):08x}{len(whole):x}.msgpack"


def preview_files(path: Path) -> list[Path]:
    """The files where a glimpse of this class file may be, as it is now. Raises Problem as read_all."""
    name = preview_name(read_all(path))
    return [folder / name for folder in (own_previews(), prepared_folder())]
