"""The neural voice put in place: from a lock, into the teacher's folder, its size said first."""

import pytest

from yewhour.core.problem import Problem
from yewhour.state.paths import installed_voice
from yewhour.state.voices import SIZE, install_voice


@pytest.fixture
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


def test_its_size_is_said_and_it_is_where_the_teachers_things_are(own_folder, tmp_path):
    lock, messages = tmp_path / "lock", []
    lock.write_text("# nothing\n")
    install_voice(messages.append, lock)
    assert SIZE in messages[0]
    assert str(installed_voice()) in messages[0]
    assert len(messages) == 2


def test_what_fails_is_told(own_folder, tmp_path):
    lock, messages = tmp_path / "lock", []
    lock.write_text("no-such-package @ file:///nowhere/at/all.whl\n")
    with pytest.raises(Problem, match="could not be installed"):
        install_voice(messages.append, lock)
    assert len(messages) == 1
