"""Where the data lie that ship with the program."""

import sys
from pathlib import Path

from yewhour.files.program import HERE

DATA = Path(__file__).resolve().parent.parent / "data"
DEMO = DATA / "demo"
FONTS = DATA / "fonts"
ICONS = DATA / "icons"
FIRST_DEMO = DEMO / "bell-ringers.yewhour"


def prepared_folder() -> Path:
    """What is prepared beside the program, so that it starts quickly the first time too."""
    beside = HERE / "yewhour-prepared"  # in a package
    return beside if beside.is_dir() else Path(sys.prefix) / "yewhour-prepared"


def demo_classes() -> list[Path]:
    """The demo classes, in the order of their names."""
    return sorted(DEMO.glob("*.yewhour"))
