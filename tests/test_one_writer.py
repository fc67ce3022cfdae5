"""One writer, one reader: what is written goes through `files`, and what is hers is read within bounds.

A module that opens a file for writing by itself, or reads one whole without a bound, is named here with its
reason, or it fails.
"""

import ast
from functools import cache
from pathlib import Path

import pytest

from tests.conftest import ROOT

CODE = ROOT / "src/yewhour"
WRITERS = {
    "voice/devices/recorder.py": "the sound of a take, flushed second by second while it goes on",
    "voice/film/overlay_file.py": "pictures in a folder made aside, moved into place whole",
    "voice/recognition/recogniser.py": "the dictionary of one hearing, in a folder that is thrown away",
    "voice/sound/neural_voice.py": "spoken lines kept for speed, beside their place and moved there",
    "background/log.py": "the log of native faults, which the system writes into",
    "state/takes/take_folder.py": "marks, each added and flushed as it is pressed",
    "state/takes/interrupted_takes.py": "the mark that ends a take which broke off",
    "state/classes/unsaved_work.py": "locks",
}
READERS = {
    "content": "what ships with the program",
    "render/film_page.py": "what ships with the program",
    "ui/kit/theme.py": "what ships with the program",
    "state/desktop_entry.py": "what ships with the program",
    "voice/numbers.py": "what ships with the program",
    "voice/sound/neural_voice.py": "a voice that was checked as it was installed",
    "voice/recognition/recording_words.py": "what its own parent wrote for it",
    "background/log.py": "the program's own log, which is bounded",
    "state/takes/before_taking.py": "what the system tells of the battery",
    "state/logbook/logbook.py": "what the system tells of the machine",
    "state/classes/own_movements.py": "a file that was read within bounds just before",
}
WRITING = {"w", "a", "x", "wb", "ab", "xb", "r+", "rb+", "wt", "w+b"}


@cache
def calls(path: Path) -> list[tuple[str, ast.Call]]:
    """Every call in a module, by the last part of what is called."""
    found = []
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Call):
            name = node.func.attr if isinstance(node.func, ast.Attribute) else getattr(node.func, "id", "")
            found.append((name, node))
    return found


def writes(name: str, call: ast.Call) -> bool:
    """Whether a call writes a file, or opens one to be written."""
    if name in ("write_text", "write_bytes", "copyfile", "copyfileobj", "copytree"):
        return True
    if name != "open" or getattr(getattr(call.func, "value", None), "id", "") in ("av", "os", "webbrowser"):
        return False
    said = [*call.args, *(one.value for one in call.keywords if one.arg == "mode")]
    return any(isinstance(one, ast.Constant) and one.value in WRITING for one in said)


def modules() -> list[Path]:
    return [path for path in sorted(CODE.rglob("*.py")) if path.relative_to(CODE).parts[0] != "files"]


def allowed(path: Path, named: dict[str, str]) -> bool:
    inside = path.relative_to(CODE).as_posix()
    return inside in named or inside.split("/")[0] in named


def test_nobody_else_writes():
    found = {path for path in modules() for name, call in calls(path) if writes(name, call)}
    strange = sorted(str(path.relative_to(CODE)) for path in found if not allowed(path, WRITERS))
    assert strange == [], "write through files.atomic_files, or say here why not"
    known = {path.relative_to(CODE).as_posix() for path in found}
    assert set(WRITERS) <= known, "named and writes nothing any more"


def test_nobody_else_reads_a_whole_file_without_a_bound():
    found = {
        path for path in modules() for name, _ in calls(path) if name in ("read_text", "read_bytes")
    }  # fmt: skip
    strange = sorted(str(path.relative_to(CODE)) for path in found if not allowed(path, READERS))
    assert strange == [], "read by files.atomic_files.read_all or files.small_files, or say here why not"


@pytest.mark.parametrize(
    ("code", "whether"),
    [
        ("path.write_text('x')", True), ("open(path, 'w')", True), ("path.open('ab')", True),
        ("path.open(mode='r+')", True), ("path.open('rb')", False), ("open(path)", False),
        ("av.open(str(path), 'w')", False), ("shutil.copyfileobj(a, b)", True),
    ],
)  # fmt: skip
def test_what_writes_is_told_from_what_reads(tmp_path, code, whether):
    (tmp_path / "one.py").write_text(code)
    assert any(writes(name, call) for name, call in calls(tmp_path / "one.py")) == whether
