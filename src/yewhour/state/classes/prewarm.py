"""A class never opened before, made in another process while this one builds its window.

Where it can't be made, or not soon, there is no glimpse of it, and it is made as any other. Nothing slow is
imported here, so that it is begun first of all.
"""

import contextlib
import subprocess
from collections.abc import Sequence
from pathlib import Path

from yewhour.background import children
from yewhour.content.paths import FIRST_DEMO
from yewhour.core.problem import Problem
from yewhour.state.classes.preview_files import preview_files

WAIT_S = 0.6  # it is waited for, once the window is on screen
OPENING = ("open", "demo")


class Prewarm:
    """The glimpse of a class on its way, or of one that has its glimpse already and needs none."""

    def __init__(self, path: Path) -> None:
        self._work: subprocess.Popen[bytes] | None = None
        with contextlib.suppress(OSError, Problem):
            # Only what can be read twice: not a pipe, whose content would be gone.
            if path.is_file() and not any(file.exists() for file in preview_files(path)):
                self._work = subprocess.Popen(
                    children.command("yewhour.state.classes.preview_cache", str(path.resolve())),
                    cwd=children.FOLDER,
                    env=children.environment(),
                    stdin=subprocess.DEVNULL,
                    stdout=subprocess.DEVNULL,
                    stderr=subprocess.DEVNULL,
                )

    def wait(self, most_s: float = WAIT_S) -> None:
        """Waits until it is there, at most so long; then it is given up."""
        if self._work is not None:
            with contextlib.suppress(subprocess.TimeoutExpired):
                self._work.wait(most_s)
            self._work.kill()
            self._work.wait()
            self._work = None


def prewarm_for(arguments: Sequence[str]) -> Prewarm | None:
    """The class that a command line is going to open, begun; None when it opens none."""
    if not arguments or arguments[0] not in OPENING:
        return None
    files = [one for one in arguments[1:] if not one.startswith("-")]
    path = Path(files[0]) if files else FIRST_DEMO if arguments[0] == "demo" else None
    return Prewarm(path) if path is not None else None
