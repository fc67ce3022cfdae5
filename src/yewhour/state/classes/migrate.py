"""Class files of earlier versions, brought up to this one step by step.

`MIGRATIONS[n]` takes a document of version n to version n + 1. Version 1 is the first.
"""

from collections.abc import Callable, Iterator
from typing import Any

Document = dict[str, Any]
VERSION = 3
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


def _own_lines_at_home(document: Document) -> Document:
    """What she did to the lines, from a list of the class to the steps and blocks it was done to.

    What is of no step any more stays in its list, which this version does not know and keeps.
    """
    edits = document.get("edits")
    if not isinstance(edits, list):
        return document
    homes: dict[str, Document] = {}
    named: dict[str, list[Document]] = {}
    for part in _parts([document.get("sections"), document.get("blocks")]):
        if part.get("is") == "step":
            homes.setdefault(str(part.get("id", "")), part)
        elif part.get("is") == "block":
            named.setdefault(str(part.get("name", "")), []).append(part)
    left = []
    for edit in edits:
        step = str(edit.get("step", "")) if isinstance(edit, dict) else ""
        if step in homes:
            at_home = {key: value for key, value in edit.items() if key != "step"}
            homes[step].setdefault("edits", []).append(at_home)
        elif ":" in step and named:  # of a step in a block, or in a block within one
            everywhere = [one for many in named.values() for one in many]
            for block in named.get(step.partition(":")[0]) or everywhere:
                block.setdefault("edits", []).append(edit)
        else:
            left.append(edit)
    return {key: value for key, value in document.items() if key != "edits"} | (
        {"edits": left} if left else {}
    )


def _parts(value: Any) -> Iterator[Document]:
    """Every object in a document, at any depth."""
    if isinstance(value, list):
        for one in value:
            yield from _parts(one)
    elif isinstance(value, dict):
        yield value
        for inner in value.values():
            yield from _parts(inner)


MIGRATIONS: dict[int, Callable[[Document], Document]] = {1: _renamed, 2: _own_lines_at_home}
