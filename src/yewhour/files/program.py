"""What this program is called where it runs: `./yew` in a checkout, `yewhour` where it is installed."""

from pathlib import Path

HERE = Path(__file__).resolve().parent.parent.parent  # the folder that our package is in


CHECKOUT = HERE.parent


def in_checkout() -> bool:
    """Whether it runs from where it is built."""
    return (CHECKOUT / "yew").is_file()


def command() -> str:
    """What she types to start it."""
    return "./yew" if in_checkout() else "yewhour"


def shown(path: Path) -> str:
    """A file that ships, as she names it to that command."""
    return path.relative_to(HERE / "yewhour").as_posix() if in_checkout() else str(path)
