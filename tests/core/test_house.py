"""The rules of the house that a machine can hold."""

import ast
from pathlib import Path

import yewhour

CORE = Path(yewhour.__file__).parent / "core"


def imports_of(path: Path) -> set[str]:
    names = set()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            names |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            names.add(node.module or "")
    return names


def test_the_core_imports_no_interface_store_or_voice():
    for path in CORE.rglob("*.py"):
        for name in imports_of(path):
            assert not name.startswith(("PySide6", "yewhour.ui", "yewhour.store", "yewhour.voice")), path


def test_the_core_opens_no_file_and_reads_no_clock():
    for path in CORE.rglob("*.py"):
        assert not imports_of(path) & {"os", "pathlib", "time", "datetime", "random"}, path


def test_nothing_heavy_is_imported_at_start():
    for path in CORE.parent.rglob("*.py"):
        assert not any(name.startswith("scipy") for name in imports_of(path)), path
