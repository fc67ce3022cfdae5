"""The scripts and the messages are those that were read last; a change shows here, to be read."""

import json

import pytest

from tests.conftest import shipped
from tools import as_read

HOW = "Read what changed; if it is as it should be, `python -m tools.as_read` writes it anew."


@pytest.mark.parametrize("part", ["scripts", "edited", "finds"])
def test_what_is_made_is_as_it_was_read(part):
    was = json.loads((as_read.FOLDER / "digests.json").read_text())[part]
    now = getattr(as_read, part)(shipped())
    assert [name for name in {**was, **now} if was.get(name) != now.get(name)] == [], HOW


def test_every_message_is_as_it_was_read():
    was = json.loads((as_read.FOLDER / "messages.json").read_text())
    assert as_read.messages(shipped()) == was, HOW


@pytest.mark.parametrize("messages", json.loads((as_read.FOLDER / "messages.json").read_text()))
def test_no_message_speaks_our_own_language(messages):
    for word in ("Error", "NoneType", "msgspec", "object at 0x", "Traceback"):
        assert word not in messages
