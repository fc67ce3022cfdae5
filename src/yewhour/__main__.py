"""Where the program starts, as `yewhour` or as `python -m yewhour`."""

import sys

from yewhour.store.ahead import begun


def main() -> int:
    """Runs the command line and returns its exit code."""
    ahead = begun(sys.argv[1:])
    # The core takes a tenth of a second to import: the class that is to be opened is begun before.
    from yewhour.cli import main as run

    return run(ahead=ahead)


if __name__ == "__main__":
    sys.exit(main())
