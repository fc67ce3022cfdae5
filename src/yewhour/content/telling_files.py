"""How a class is told to some: one TOML file a condition, a table a movement, one of standing lines."""

from functools import cache
from pathlib import Path

import msgspec

from yewhour.content.paths import DATA
from yewhour.core.library.telling import Telling, Tellings, TellingsOf
from yewhour.core.problem import Problem
from yewhour.files.toml_files import read_toml

FOLDER = DATA / "told_to"


def tellings_but(hers: frozenset[str]) -> TellingsOf:
    """The tellings that ship, read when a class first asks; of movements that are hers there is none."""

    @cache
    def tellings(tag: str) -> Tellings | None:
        path = FOLDER / f"{tag}.toml"
        if not path.is_file():
            return None
        shipped = load_tellings(path)
        movements = {name: one for name, one in shipped.movements.items() if name not in hers}
        return msgspec.structs.replace(shipped, movements=movements)

    return tellings


def load_tellings(path: Path) -> Tellings:
    """A file of tellings. Raises Problem for one that can't be read."""
    tables = read_toml(path)
    try:
        wording = msgspec.convert(tables.pop("wording", {}), dict[str, tuple[str, ...]])
        return Tellings(msgspec.convert(tables, dict[str, Telling]), wording)
    except msgspec.ValidationError as error:
        raise Problem(f"It can't be read: {error}.", str(path), "Mend that line.") from error
