"""Class files of earlier versions, brought up to this one step by step.

`MIGRATIONS[n]` takes a document of version n to version n + 1. Version 1 is the first.
"""

from collections.abc import Callable
from typing import Any

Document = dict[str, Any]
VERSION = 1
MIGRATIONS: dict[int, Callable[[Document], Document]] = {}


def migrated(document: Document) -> Document:
    """The document in this version's form; its `yewhour` field says which it comes from."""
    for version in range(document["yewhour"], VERSION):
        document = {**MIGRATIONS[version](document), "yewhour": version + 1}
    return document
