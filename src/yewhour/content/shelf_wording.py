"""How what is noticed on the shelf is worded."""

from pathlib import Path

from yewhour.content.paths import DATA
from yewhour.core.shelf.weekly_notes import ShelfWording
from yewhour.files.toml_files import read_toml


def load_shelf_wording(data: Path = DATA) -> ShelfWording:
    """The messages by their code, and what nothing is said of. Raises Problem where it can't be read."""
    tables = read_toml(data / "shelf.toml")
    quiet = tuple(tables.pop("quiet"))
    return ShelfWording({code: row["message"] for code, row in tables.items()}, quiet)
