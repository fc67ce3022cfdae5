"""Where the program starts, as `yewhour` or as `python -m yewhour`; it is imported for nothing else.

A class that is going to be opened is begun first of all, as the core takes a tenth of a second to import.
"""

import sys

from yewhour.state.classes.prewarm import prewarm_for

AHEAD = prewarm_for(sys.argv[1:])

from yewhour.cli.main import main as run  # noqa: E402


def main() -> int:
    """Runs the command line and returns its exit code."""
    return run(ahead=AHEAD)


if __name__ == "__main__":
    sys.exit(main())
