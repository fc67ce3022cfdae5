"""How what is noticed on the shelf is worded."""

from pathlib import Path

from yewhour.store.paths import DATA
from yewhour.store.toml import read_toml


def load_shelf_words(data: Path = DATA) -> dict[str, str]:
    """The messages, by their code. Raises Problem where the file can't be read."""
    return {code: row["message"] for code, row in read_toml(data / "shelf.toml").items()}
