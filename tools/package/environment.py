"""What Yew Hour runs on: its distributions as they are installed here, and the files of them that it needs.

A window needs a small part of Qt, and nothing needs the tests, headers and sources that wheels bring along.
"""

import re
from collections.abc import Iterator
from importlib.metadata import Distribution, PathDistribution, distribution
from pathlib import Path

NAME = "yewhour"

# What is left out of every distribution, as a path in it.
UNUSED = re.compile(
    r"(^|/)(tests?|testing|__pycache__|include|docs?|examples?|benchmarks?)/"
    r"|\.(pyi|pyx|pxd|h|hpp|c|cpp|a|lib|typed)$"
    r"|^\.\./|(^|/)(RECORD|INSTALLER|REQUESTED|direct_url\.json)$"
)
NEEDED = re.compile(r"^numpy/(testing|_core/tests/_natype)|^numpy/_core/include/empty")
# Of PySide6 only what this matches is kept, and the libraries that those need.
QT = re.compile(
    r"^shiboken6/|^PySide6/(__init__|_config|_git_pyside_version)\.py$|^PySide6/Qt(Core|Gui|Widgets)\.abi3\.so$"
    r"|^PySide6/libpyside6\.abi3\.so|^PySide6/support/"
    r"|^PySide6/Qt/plugins/(platforms/libq(xcb|wayland|offscreen|minimal)|iconengines/"
    r"|imageformats/libq(svg|ico|jpeg)|platforminputcontexts/|platformthemes/libqxdg|xcbglintegrations/"
    r"|wayland-(shell-integration|decoration-client|graphics-integration-client)/)"
)
QT_LIBRARIES = re.compile(
    r"^PySide6/Qt/lib/lib(Qt6(Core|Gui|Widgets|DBus|XcbQpa|OpenGL|Svg|WaylandClient|WaylandEglClientHwIntegration"
    r"|WlShellIntegration)|icu\w+)\.so"
)


def requirements(name: str = NAME) -> list[Distribution]:
    """The distributions that this one needs to run, itself left out, in the order of their names."""
    found: dict[str, Distribution] = {}
    todo = [name]
    while todo:
        one = distribution(todo.pop())
        for line in one.requires or ():
            wanted, _, marker = (part.strip() for part in line.partition(";"))
            if "extra ==" in marker or ("platform" in marker and "win32" in marker):
                continue
            key = re.split(r"[\s<>=!~\[(]", wanted)[0].lower().replace("_", "-")
            if key not in found:
                try:
                    found[key] = distribution(key)
                except ModuleNotFoundError:  # for another system or Python than this
                    continue
                todo.append(key)
    return [found[key] for key in sorted(found)]


def files(of: Distribution) -> Iterator[tuple[str, Path]]:
    """(path in an environment, file here) of what is needed of a distribution."""
    for file in of.files or ():
        path = file.as_posix()
        if not is_needed(path):
            continue
        here = Path(str(of.locate_file(file)))
        if here.is_file():
            yield path, here


def is_needed(path: str) -> bool:
    """Whether a file of an environment is needed to run."""
    if path.startswith(("PySide6/", "shiboken6/")):
        return not path.endswith(".pyi") and bool(QT.search(path) or QT_LIBRARIES.search(path))
    return bool(NEEDED.search(path)) or not UNUSED.search(path)


def licence_of(one: Distribution) -> str:
    """The licence of a distribution, as it says it itself."""
    about = one.metadata
    said = about.get("License-Expression") or ""
    if not said:
        named = [
            line.split("::")[-1].strip() for line in about.get_all("Classifier") or () if "License ::" in line
        ]
        said = ", ".join(named)
    first = (about.get("License") or "").strip().splitlines()[:1]
    return said or (first[0] if first else "see its own files")


def licence_files(one: Distribution) -> list[str]:
    """The names of its licence files in its own folder."""
    names = [file.name for file in one.files or () if re.search(r"(?i)licen[cs]e|copying|notice", file.name)]
    return sorted(set(names))


def folder_of(one: Distribution) -> Path | None:
    """The folder of a distribution's own facts."""
    return Path(str(one._path)) if isinstance(one, PathDistribution) else None
