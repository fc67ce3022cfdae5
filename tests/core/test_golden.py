"""The scripts and the messages are those that were read last; a change shows here as text, to be read."""

import pytest

from tests.conftest import shipped
from tools import golden

HOW = "\nRead it; if it is as it should be, `python -m tools.golden` keeps it."


@pytest.mark.parametrize("part", golden.PARTS)
def test_what_is_said_is_as_it_was_read(part):
    changed = golden.difference(part, golden.PARTS[part](shipped()))
    assert not changed, changed + HOW


def test_every_script_is_as_it_was_read():
    for name, now in golden.whole_scripts(shipped()).items():
        changed = golden.difference(f"scripts/{name}", now)
        assert not changed, changed + HOW


def test_no_message_speaks_our_own_language():
    for line in (golden.FOLDER / "messages.txt").read_text().splitlines():
        for word in ("Error", "NoneType", "msgspec", "object at 0x", "Traceback"):
            assert word not in line
