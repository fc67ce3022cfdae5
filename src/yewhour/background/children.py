"""Child processes of our own code: isolated, in a neutral folder, with an environment of few names.

`python -m` looks for modules in the folder it is started in, and Python heeds names of its own in the
environment: a folder with a package of our name beside a class would run by opening the class. So a child is
started with `-I`, looks for our code where this process has it from, and stands in the root folder.
"""

import os
import sys

from yewhour.files.program import HERE

FOLDER = "/"
_NAMES = {
    "PATH", "HOME", "USER", "LOGNAME", "LANG", "LANGUAGE", "TZ", "TMPDIR", "SYSTEMROOT", "DISPLAY",
    "WAYLAND_DISPLAY", "QT_QPA_PLATFORM",
}  # fmt: skip
_BEGINNINGS = ("LC_", "XDG_")
_NETWORK = ("PIP_", "SSL_", "REQUESTS_")
_PROXIES = ("_PROXY",)


def command(module: str, *arguments: str) -> list[str]:
    """The command that runs a module of ours as a program, whatever lies where this one stands."""
    begin = f"import sys; sys.path.insert(0, {str(HERE)!r}); import runpy; "
    run = f"runpy.run_module({module!r}, run_name='__main__', alter_sys=True)"
    return [sys.executable, "-I", "-c", begin + run, *arguments]


def installer(*arguments: str) -> list[str]:
    """The command that runs pip, isolated likewise."""
    return [sys.executable, "-I", "-m", "pip", *arguments]


def environment(network: bool = False) -> dict[str, str]:
    """What a child is told of this one's environment. network: also how the network is reached."""
    return {name: value for name, value in os.environ.items() if _is_kept(name, network)}


def _is_kept(name: str, network: bool) -> bool:
    if name in _NAMES or name.startswith(_BEGINNINGS):
        return True
    return network and (name.startswith(_NETWORK) or name.upper().endswith(_PROXIES))
