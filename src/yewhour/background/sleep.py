"""Keeps the machine awake while something runs that must not be interrupted, where the system lets itself be
asked to."""

import shutil
import subprocess

WHY = "A class is being recorded"
COMMAND = (
    "systemd-inhibit",
    "--what=idle:sleep:handle-lid-switch",
    "--who=Yew Hour",
    f"--why={WHY}",
    "--mode=block",
)


class KeptAwake:
    """Holds off sleep from `begin` to `end`. able: whether the system can be asked to."""

    def __init__(self) -> None:
        self._child: subprocess.Popen[bytes] | None = None

    @property
    def able(self) -> bool:
        """Whether there is anything that holds off sleep here."""
        return shutil.which(COMMAND[0]) is not None

    def begin(self) -> None:
        """Holds off sleep from now on; nothing where it can't be."""
        if self._child is not None or not self.able:
            return
        try:
            self._child = subprocess.Popen(
                [*COMMAND, "sleep", "infinity"],
                stdin=subprocess.DEVNULL, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, cwd="/",
            )  # fmt: skip
        except OSError:
            self._child = None

    @property
    def held(self) -> bool:
        """Whether sleep is held off just now."""
        return self._child is not None and self._child.poll() is None

    def end(self) -> None:
        """Lets the machine sleep again."""
        if self._child is not None:
            self._child.terminate()
            self._child.wait(timeout=5)
            self._child = None
