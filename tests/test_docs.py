"""What docs/ names is there: every path, every file, every command."""

import re
import subprocess
from functools import cache
from pathlib import Path

import pytest

from tests.conftest import ROOT
from yewhour.cli.main import command_line

PAGES = sorted([*ROOT.glob("docs/*.md"), ROOT / "README.md", ROOT / "CONTRIBUTING.md"])
ROOMS = ("", "docs", "src/yewhour", "src/yewhour/core", "src/yewhour/ui", "src/yewhour/data", "data", "tests")
# A teacher's own files, and what a page writes of as an example.
HERS = re.compile(
    r"^(my-|takes/|dist/|yewhour/|class\.|talk\.|marks\.|script\.|NAME|FILE|WHEN|[A-Z]\b|~|/|\.\.|<|\d+/\d"
    r"|application/)"
)
NAMED = re.compile(
    r"`([\w./-]+/[\w./-]*|[\w-]+\.(?:py|toml|md|json|txt|yewhour|lock|xml))(?:::\w+)?`|\]\(([^)#:]+)\)"
)


def named(page):
    for match in NAMED.finditer(page.read_text(encoding="utf-8")):
        name = match[1] or match[2]
        if not HERS.match(name):
            yield name


@cache
def files():
    """The names of all files that are kept in the tree."""
    listed = subprocess.run(["git", "ls-files"], cwd=ROOT, capture_output=True, text=True, check=False)
    rows = listed.stdout.splitlines() or [str(one) for one in ROOT.rglob("*")]  # an archive has no history
    return {Path(row).name for row in rows} | {one.name for one in ROOT.iterdir()}


@pytest.mark.parametrize("page", PAGES, ids=lambda page: page.name)
def test_every_path_and_file_it_names_is_there(page):
    known = files()
    gone = [
        name
        for name in named(page)
        if not any((ROOT / room / name).exists() for room in (*ROOMS, page.parent.relative_to(ROOT)))
        and not ("/" not in name and name in known)
    ]
    assert gone == []


@pytest.mark.parametrize("page", PAGES, ids=lambda page: page.name)
def test_every_command_it_names_is_there(page):
    launcher = (ROOT / "yew").read_text()
    commands = next(one for one in command_line()._actions if one.choices and "fit" in one.choices).choices
    for name in re.findall(r"\./yew ([a-z][a-z-]+)", page.read_text(encoding="utf-8")):
        assert name in commands or f"\n{name})" in launcher, name
