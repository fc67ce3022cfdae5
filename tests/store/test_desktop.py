"""The desktop finds the program, its icon and its kind of file."""

import configparser
import xml.etree.ElementTree as ElementTree

from yewhour.store.desktop import install


def test_entry_icon_and_file_kind_are_put_where_a_desktop_looks(tmp_path):
    written = install(tmp_path, "/opt/yew hour/yew")
    assert all(path.exists() for path in written)
    entry = configparser.ConfigParser(interpolation=None)
    entry.read(tmp_path / "applications/yewhour.desktop")
    assert entry["Desktop Entry"]["Exec"] == '"/opt/yew hour/yew" open %f'
    kind = ElementTree.parse(tmp_path / "mime/packages/yewhour.xml").getroot()[0]
    assert kind.attrib["type"] + ";" == entry["Desktop Entry"]["MimeType"]
    assert (tmp_path / "icons/hicolor/scalable/apps/yewhour.svg").read_text().startswith("<svg")
