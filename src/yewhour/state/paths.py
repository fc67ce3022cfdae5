"""Where the teacher's own things lie."""

from pathlib import Path

from platformdirs import user_cache_path, user_data_path


def own_data() -> Path:
    """The teacher's folder for movements, blocks and schools of her own."""
    return user_data_path("yewhour", appauthor=False)


def kept_classes() -> Path:
    """Where changes that were not saved are kept when a window closes."""
    return own_data() / "kept"


def kept_courses() -> Path:
    """Where drafted courses are kept, a folder each."""
    return own_data() / "courses"


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
