"""The window: shows values and sends intentions. All Qt code lives here; no timing is computed here.

PySide6 puts an import function of its own in Python's place, which reads the source of every module imported
afterwards to see whether it wants other spellings (`from __feature__ import snake_case`). None here does, and
it cost a class never opened before 25 ms: so Python's own is put back.
"""

import builtins

_plain = builtins.__import__
import PySide6.QtCore  # noqa: E402, F401 - it is there for what it does

builtins.__import__ = _plain
