"""Modules that are slow to import and seldom needed: named at the top of a file, imported when used.

if TYPE_CHECKING:
    import fpdf
else:
    fpdf = late("fpdf")  # 150 ms with its fonts; only a PDF needs it
"""

from importlib import import_module
from types import ModuleType
from typing import Any


class _Late(ModuleType):
    def __getattr__(self, name: str) -> Any:
        return getattr(import_module(self.__name__), name)


def late(name: str) -> Any:
    """A module that is imported when something of it is first asked for."""
    return _Late(name)
