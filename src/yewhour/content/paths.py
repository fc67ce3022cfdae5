"""Where the data lie that ship with the program."""

import sys
from pathlib import Path

DATA = Path(__file__).resolve().parent.parent / "data"
DEMO = DATA / "demo"
FONTS = DATA / "fonts"
ICONS = DATA / "icons"
FIRST_DEMO = DEMO / "bell-ringers.yewhour"


def prepared_folder() -> Path:
    """What `./yew` prepares beside the program, so that it starts quickly the first time too."""
    return Path(sys.prefix) / "yewhour-prepared"


def demo_classes() -> list[Path]:
    """The demo classes, in the order of their names."""
    return sorted(DEMO.glob("*.yewhour"))
