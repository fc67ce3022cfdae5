"""Where things lie: the data that ships with the program, and the teacher's own."""

import sys
from pathlib import Path

from platformdirs import user_cache_path, user_data_path

DATA = Path(__file__).resolve().parent.parent / "data"
DEMO = DATA / "demo"
FONTS = DATA / "fonts"
ICONS = DATA / "icons"
FIRST_DEMO = DEMO / "bell-ringers.yewhour"


def own_data() -> Path:
    """The teacher's folder for movements, blocks and schools of her own."""
    return user_data_path("yewhour", appauthor=False)


def prepared() -> Path:
    """What `./yew` prepares beside the program, so that it starts quickly the first time too."""
    return Path(sys.prefix) / "yewhour-prepared"


def kept_classes() -> Path:
    """Where changes that were not saved are kept when a window closes."""
    return own_data() / "kept"


def kept_takes() -> Path:
    """Where takes are kept, a folder each."""
    return own_data() / "takes"


def learnt_file() -> Path:
    """What was learnt of the teacher from her recordings."""
    return own_data() / "learnt.json"


def kept_shelf() -> Path:
    """Where the logbook is kept, a file for each machine that writes in it."""
    return own_data() / "shelf"


def installed_voice() -> Path:
    """Where the neural voice is installed."""
    return own_data() / "voice"


def spoken_lines() -> Path:
    """Where the lines that the neural voice has said are kept."""
    return user_cache_path("yewhour", appauthor=False) / "spoken"


def demo_classes() -> list[Path]:
    """The demo classes, in the order of their names."""
    return sorted(DEMO.glob("*.yewhour"))
