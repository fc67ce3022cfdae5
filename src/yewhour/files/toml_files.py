"""TOML files: the data that ships, and the teacher's own."""

import re
from pathlib import Path
from typing import TYPE_CHECKING, Any

from yewhour.core.problem import Problem
from yewhour.files.late import late

if TYPE_CHECKING:
    import rtoml
else:
    rtoml = late("rtoml")  # 30 ms; nothing is read before the window is on screen


Table = dict[str, Any]
_given: dict[str, Table] = {}  # of files that were read and kept before, by path


def give_tables(tables: dict[str, Table]) -> None:
    """Tables of files that need not be read, in place of those given before: what they were found to hold."""
    _given.clear()
    _given.update(tables)


def read_toml(path: Path, do: str = "Mend it, or install Yew Hour again.") -> Table:
    """A file's tables. Raises Problem, with the line if that is known, when it can't be read; `do`: then."""
    if str(path) in _given:
        return _given[str(path)]
    try:
        return dict(rtoml.loads(path.read_text(encoding="utf-8")))
    except (OSError, UnicodeDecodeError, rtoml.TomlParsingError) as error:
        found = re.search(r"line (\d+)", str(error))
        where = f"{path}, line {found.group(1)}" if found else str(path)
        what = (str(error).splitlines() or [type(error).__name__])[0].rstrip(".")
        raise Problem(f"This file can't be read: {what}.", where, do) from error
