"""How what is noticed on the shelf is worded."""

from pathlib import Path

from yewhour.core.shelf.noticed import Saying
from yewhour.store.paths import DATA
from yewhour.store.toml import read_toml


def load_saying(data: Path = DATA) -> Saying:
    """The messages by their code, and what nothing is said of. Raises Problem where it can't be read."""
    tables = read_toml(data / "shelf.toml")
    quiet = tuple(tables.pop("quiet"))
    return Saying({code: row["message"] for code, row in tables.items()}, quiet)
