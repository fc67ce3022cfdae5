"""Class files of earlier versions, brought up to this one step by step.

`MIGRATIONS[n]` takes a document of version n to version n + 1. Version 1 is the first.
"""

from collections.abc import Callable
from typing import Any

Document = dict[str, Any]
VERSION = 2
RENAMED = {"seal": "chin-lock"}  # ids of movements in version 1; Seal is what rolls, since version 2


def migrated(document: Document) -> Document:
    """The document in this version's form; its `yewhour` field says which it comes from."""
    for version in range(document["yewhour"], VERSION):
        document = {**MIGRATIONS[version](document), "yewhour": version + 1}
    return document


def _renamed(document: Document) -> Document:
    """Steps with the ids that movements have now, at any depth."""
    return {key: _with_ids(value) for key, value in document.items()}


def _with_ids(value: Any) -> Any:
    if isinstance(value, list):
        return [_with_ids(one) for one in value]
    if not isinstance(value, dict):
        return value
    held = {key: _with_ids(inner) for key, inner in value.items()}
    if value.get("is") == "step" and isinstance(value.get("movement"), str):
        held["movement"] = RENAMED.get(value["movement"], value["movement"])
    return held


MIGRATIONS: dict[int, Callable[[Document], Document]] = {1: _renamed}
