"""The desktop finds the program, its icon and its kind of file."""

import configparser
import re
import shlex
import xml.etree.ElementTree as ElementTree

import pytest

from yewhour.state.desktop_entry import install


def test_entry_icon_and_file_kind_are_put_where_a_desktop_looks(tmp_path):
    written = install(tmp_path, "/opt/yew hour/yew")
    assert all(path.exists() for path in written)
    entry = configparser.ConfigParser(interpolation=None)
    entry.read(tmp_path / "applications/yewhour.desktop")
    assert entry["Desktop Entry"]["Exec"] == '"/opt/yew hour/yew" open %f'
    kind = ElementTree.parse(tmp_path / "mime/packages/yewhour.xml").getroot()[0]
    assert kind.attrib["type"] + ";" == entry["Desktop Entry"]["MimeType"]
    assert (tmp_path / "icons/hicolor/scalable/apps/yewhour.svg").read_text().startswith("<svg")


@pytest.mark.parametrize("folder", ['a "quoted" one', "cost $5", "back\\slash", "tick`", "100% oak", "plain"])
def test_the_entry_starts_the_program_wherever_the_checkout_lies(tmp_path, folder):
    command = f"/opt/{folder}/yew"
    install(tmp_path, command)
    entry = configparser.ConfigParser(interpolation=None)
    entry.read(tmp_path / "applications/yewhour.desktop")
    started = entry["Desktop Entry"]["Exec"].removesuffix(" open %f")
    # As a desktop reads it: first the escapes of the file, then field codes, then the quotes.
    started = started.replace("\\\\", "\\").replace("%%", "%")
    (started,) = shlex.split(started)
    assert re.sub(r"\\([$`])", r"\1", started) == command  # a desktop escapes two more signs than shlex does
