"""The desktop: an entry in its menus, the icon, and the kind of file a class is."""

import os
import re
import shutil
from pathlib import Path

from yewhour.content.paths import DATA, ICONS
from yewhour.files.atomic_files import write_whole


def _quoted(command: str) -> str:
    """A command as a desktop entry wants it: quoted where it must be, its own signs escaped twice."""
    if re.fullmatch(r"[\w/.+-]+", command, re.ASCII):
        return command
    inner = re.sub(r'(["`$\\])', r"\\\1", command).replace("\\", "\\\\")
    return f'"{inner}"'.replace("%", "%%")


def install(share: Path, command: str) -> list[Path]:
    """Puts the entry, the icon and the file kind under `share` (as ~/.local/share); the files written.

    command: what starts the program. Desktops that keep a list of such files are told, where the tools for
    that are there. Raises Problem when a file can't be written.
    """
    entry = (DATA / "desktop/yewhour.desktop").read_text(encoding="utf-8")
    quoted = _quoted(command)
    files = {
        share / "applications/yewhour.desktop": entry.replace("Exec=yewhour", f"Exec={quoted}").encode(),
        share / "icons/hicolor/scalable/apps/yewhour.svg": (ICONS / "yewhour.svg").read_bytes(),
        share / "mime/packages/yewhour.xml": (DATA / "desktop/yewhour.xml").read_bytes(),
    }
    for path, content in files.items():
        path.parent.mkdir(parents=True, exist_ok=True)
        write_whole(path, content)
    for tool, folder in (("update-mime-database", "mime"), ("update-desktop-database", "applications")):
        if shutil.which(tool):
            os.spawnlp(os.P_WAIT, tool, tool, str(share / folder))
    return list(files)
