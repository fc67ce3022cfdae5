"""The Debian package: the program with an environment of its own, and what a Linux desktop looks for.

usr/bin/yewhour                 starts it, wherever it lies
usr/lib/yewhour/                the program and what it runs on, without what nothing uses
usr/share/...                   menu entry, icon, file kind, man page, AppStream entry, licences
"""

import compileall
import gzip
import os
import re
import shutil
import subprocess
import sys
from pathlib import Path

from tools.package.environment import files, folder_of, licence_files, requirements

ROOT = Path(__file__).resolve().parent.parent.parent
DATA = ROOT / "src" / "yewhour" / "data"
START = """#!/usr/bin/python3 -I
# Starts Yew Hour from the environment beside it, whatever is installed elsewhere.
import os
import sys

sys.dont_write_bytecode = True  # it ships with its own; nothing is left behind when it is removed
here = os.path.dirname(os.path.realpath(__file__))
sys.path.insert(0, os.path.join(os.path.dirname(here), "lib", "yewhour"))
from yewhour.__main__ import main

sys.exit(main())
"""
CONTROL = """Package: yewhour
Version: {version}
Architecture: {machine}
Maintainer: The makers of Yew Hour <makers@yewhour.example>
Installed-Size: {size}
Depends: python3 (>= {python}), python3 (<< {next}), libc6 (>= 2.34), {libraries}
Section: education
Priority: optional
Homepage: https://yewhour.example
Description: times and words guided yoga and Pilates classes
 Fits a class to its promised length, times every segment from breath rate, counts
 and holds, keeps the two sides equal, and writes a timestamped script to be spoken.
 It carries its own environment and needs no network.
"""


def system_libraries() -> list[str]:
    """The Debian packages of what a window needs, as `./yew` has them."""
    launcher = (ROOT / "yew").read_text()
    found = re.search(r'^WINDOW="(.*?)"', launcher, re.M | re.S)
    assert found is not None
    return [pair.split(":")[1] for pair in found[1].split()]


def tree(target: Path, program: Path, link: bool = False) -> None:
    """Lays out what is to be installed. program: our package as an environment has it.

    link: files of this environment are linked, not copied, which is quick and takes no room.
    """
    site = target / "usr" / "lib" / "yewhour"
    put = os.link if link else shutil.copy2
    for one in requirements():
        for path, here in files(one):
            _put(here, site / path, put)
        about = folder_of(one)
        for name in licence_files(one) if about is not None else ():
            for found in about.rglob(name):
                _put(found, target / "usr/share/doc/yewhour/licences" / str(one.metadata["Name"]) / name, put)
    shutil.copytree(program, site / "yewhour", ignore=shutil.ignore_patterns("__pycache__"))
    start = target / "usr" / "bin" / "yewhour"
    start.parent.mkdir(parents=True)
    start.write_text(START)
    start.chmod(0o755)
    _desktop(target / "usr" / "share")


def _put(here: Path, there: Path, put: object) -> None:
    there.parent.mkdir(parents=True, exist_ok=True)
    if not there.exists():
        put(here, there)  # type: ignore[operator]


def _desktop(share: Path) -> None:
    for source, there in (
        (DATA / "desktop/yewhour.desktop", "applications/yewhour.desktop"),
        (DATA / "desktop/yewhour.xml", "mime/packages/yewhour.xml"),
        (DATA / "desktop/yewhour.metainfo.xml", "metainfo/example.yewhour.yewhour.metainfo.xml"),
        (DATA / "icons/yewhour.svg", "icons/hicolor/scalable/apps/yewhour.svg"),
        (ROOT / "LICENSE", "doc/yewhour/copyright"),
        (ROOT / "THIRD_PARTY.md", "doc/yewhour/THIRD_PARTY.md"),
    ):
        _put(source, share / there, shutil.copyfile)
    for source, there in (
        (DATA / "desktop/yewhour.1", "man/man1/yewhour.1.gz"),
        (ROOT / "CHANGELOG.md", "doc/yewhour/changelog.gz"),
    ):
        (share / there).parent.mkdir(parents=True, exist_ok=True)
        (share / there).write_bytes(gzip.compress(source.read_bytes(), mtime=0))


def compiled(target: Path) -> None:
    """Byte code, once, for the version of Python that will run it."""
    site = target / "usr" / "lib" / "yewhour"
    mode = compileall.py_compile.PycInvalidationMode.UNCHECKED_HASH
    compileall.compile_dir(
        site, quiet=2, invalidation_mode=mode, stripdir=str(target), prependdir="/", workers=2
    )


def package(target: Path, out: Path, version: str, level: int = 6) -> Path:
    """The package of what is laid out. level: of compression, 0 for none."""
    size = sum(path.stat().st_size for path in target.rglob("*") if path.is_file()) // 1024
    machine = subprocess.run(
        ["dpkg", "--print-architecture"], capture_output=True, text=True, check=True
    ).stdout
    major, minor = sys.version_info[:2]
    control = CONTROL.format(
        version=version, machine=machine.strip(), size=size, python=f"{major}.{minor}",
        next=f"{major}.{minor + 1}", libraries=", ".join(system_libraries()),
    )  # fmt: skip
    (target / "DEBIAN").mkdir()
    (target / "DEBIAN" / "control").write_text(control)
    file = out / f"yewhour_{version}_{machine.strip()}.deb"
    how = [f"-z{level}", "-Zxz" if level > 3 else "-Zgzip"] if level else ["-Znone"]
    build = ["dpkg-deb", "--root-owner-group", *how, "--build", str(target), str(file)]
    subprocess.run(build, check=True, stdout=subprocess.DEVNULL)
    return file
