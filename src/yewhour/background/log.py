"""The log: what happened lately, and every fault with its place in the code, in a file that stays small.

It lies in the XDG state folder and is written by one machine for its own user; nothing of it is ever sent.
`report` makes of it what she may read and send herself.
"""

import contextlib
import faulthandler
import sys
import threading
import traceback
from functools import cache
from pathlib import Path
from types import TracebackType
from typing import IO, TYPE_CHECKING, Any

from platformdirs import user_state_path

from yewhour import __version__
from yewhour.files.late import late

if TYPE_CHECKING:
    import logging
    import platform
    from logging import handlers
else:
    platform = late("platform")  # only what is told of the machine needs it
    handlers = late("logging.handlers")  # likewise
    logging = late("logging")  # 9 ms that a start without a word to write can do without


LARGEST = 400_000  # bytes of one file
OLDER = 2  # files kept besides
LAST_LINES = 200
_native: IO[bytes] | None = None  # kept open for faults in native code


def folder() -> Path:
    """Where the log lies."""
    return user_state_path("yewhour", appauthor=False)


def file() -> Path:
    """The log of now."""
    return folder() / "yewhour.log"


def native_file() -> Path:
    """What was running when native code broke off, of the last start."""
    return folder() / "native.log"


@cache
def _logger(path: Path) -> "logging.Logger":
    """What writes into a file of its own, and makes room in it. Nothing is said where it can't be written."""
    logging.raiseExceptions = False
    logger = logging.getLogger(f"yewhour {path}")
    logger.setLevel(logging.INFO)
    logger.propagate = False
    with contextlib.suppress(OSError):
        path.parent.mkdir(parents=True, exist_ok=True)
        handler = handlers.RotatingFileHandler(
            path, maxBytes=LARGEST, backupCount=OLDER, encoding="utf-8", delay=True
        )
        handler.setFormatter(logging.Formatter("%(asctime)s %(process)d %(levelname)s %(message)s"))
        logger.addHandler(handler)
    return logger


def note(text: str) -> None:
    """Something that happened, for who reads the log later."""
    _logger(file()).info(text)


def fault(doing: str, error: BaseException) -> None:
    """A fault of ours, with its place in the code."""
    lines = "".join(traceback.format_exception(type(error), error, error.__traceback__))
    _logger(file()).error("%s\n%s", doing, lines.rstrip())


def last_lines(count: int = LAST_LINES) -> list[str]:
    """The last lines of the log; none where there is none."""
    with contextlib.suppress(OSError):
        return file().read_text(encoding="utf-8", errors="replace").splitlines()[-count:]
    return []


def system() -> list[str]:
    """What this program runs on."""
    return [
        f"Yew Hour {__version__}",
        f"Python {platform.python_version()} at {sys.prefix}",
        f"{platform.system()} {platform.release()}, {platform.machine()}",
    ]


def report(more: str = "", class_text: str = "") -> str:
    """What went wrong, to be read and sent: program, system, the last lines; a class if it is given."""
    with contextlib.suppress(OSError):
        native = native_file().read_text(encoding="utf-8", errors="replace").strip()
        more = f"{more}\n\nNative code broke off:\n{native}" if native else more
    parts = ["What went wrong in Yew Hour", "\n".join(system())]
    parts += [more.strip()] if more.strip() else []
    parts += ["The last lines of the log:\n" + ("\n".join(last_lines()) or "(there are none)")]
    parts += [f"The class:\n{class_text}"] if class_text else []
    return "\n\n".join(parts) + "\n"


def watch(on_fault: Any = None) -> None:
    """Has every fault that nobody catches written down: in the interface, on threads, and in native code.

    on_fault: called with the error of one on the interface's thread.
    """

    def caught(kind: type[BaseException], error: BaseException, where: TracebackType | None) -> None:
        if issubclass(kind, KeyboardInterrupt):
            sys.__excepthook__(kind, error, where)
            return
        fault("Something was being done in the window", error)
        if sys.stderr is not None:
            sys.__excepthook__(kind, error, where)
        if on_fault is not None:
            on_fault(error)

    def on_thread(happened: threading.ExceptHookArgs) -> None:
        if happened.exc_value is not None and happened.exc_type is not SystemExit:
            fault(f"On the thread {happened.thread.name if happened.thread else '?'}", happened.exc_value)

    sys.excepthook, threading.excepthook = caught, on_thread
    global _native
    with contextlib.suppress(OSError):
        folder().mkdir(parents=True, exist_ok=True)
        _native = native_file().open("wb")
        faulthandler.enable(_native)
