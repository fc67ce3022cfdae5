"""The terminal: what is said on it and written to it, so that nothing in a file can steer it."""

import re
import sys
from collections.abc import Callable
from pathlib import Path
from typing import TextIO

import msgspec

from yewhour.core.problem import Problem
from yewhour.files.atomic_files import write_whole

CANNOT = 1  # the exit code for a class that can't be what was asked
_STEERING = re.compile(r"[\x00-\x08\x0b-\x1f\x7f-\x9f]")
_CONTROL = re.compile(rb"[\x00-\x08\x0b-\x1f\x7f]|\xc2[\x80-\x9f]")  # what would steer a terminal


def say(text: object, file: TextIO | None = None) -> None:
    """A line on the terminal; what is in a file can't steer it."""
    print(_STEERING.sub("", str(text)), file=file or sys.stdout)


def write_json(value: object) -> None:
    write_out(msgspec.json.format(msgspec.json.encode(value), indent=1) + b"\n", None)


def may_write(out: Path | None, replace: bool, *sources: Path | None) -> None:
    """Raises Problem where a file is there already and nobody said `--replace`, or where it is one of those
    that something is made from. A pipe or a device is no file that could be lost."""
    if out is None:
        return
    for source in sources:
        if source and out.exists() and source.exists() and out.samefile(source):
            what = "This is what it is made from; it is not written over."
            raise Problem(what, str(out), "Name another file.")
    if out.is_file() and not replace:
        raise Problem("This is there already.", str(out), "Name another file, or say --replace.")


def write_out(content: bytes, out: Path | None, *sources: Path | None, replace: bool = False) -> None:
    """Writes to a path, whole or not at all, or to standard output; see `may_write`."""
    if out:
        may_write(out, replace, *sources)
        write_whole(out, content)
    elif sys.stdout is None:
        raise Problem("Standard output is closed.", do="Name a file, with --out.")
    else:
        sys.stdout.buffer.write(_CONTROL.sub(b"", content) if sys.stdout.isatty() else content)
        sys.stdout.flush()


def progress() -> Callable[[float], None]:
    """Shows on a terminal how far something is."""
    shown = -1

    def progress(share: float) -> None:
        nonlocal shown
        percent = int(share * 100)
        if sys.stderr is not None and sys.stderr.isatty() and percent != shown:
            shown = percent
            print(f"\ryewhour: {percent} %", end="" if percent < 100 else "\n", file=sys.stderr, flush=True)

    return progress
