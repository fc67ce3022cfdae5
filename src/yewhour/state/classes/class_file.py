"""Class files (`NAME.yewhour`): versioned JSON, read with care and written whole.

Fields we don't know are kept in `extra` and written back where they were found.
"""

from pathlib import Path
from typing import Any, get_args, get_origin, get_type_hints

import msgspec

from yewhour.core.plan.plan import Plan, with_ids
from yewhour.core.problem import Problem, told_kind
from yewhour.files.atomic_files import read_all, write_whole
from yewhour.state.classes.migrate import VERSION, migrated

MARK = "yewhour"  # the field that says a JSON file is ours; its value is the version


def read_plan(path: Path) -> Plan:
    """The plan in a class file, every node with an id.

    Raises Problem (what, where, what to do) for a file that is missing, empty, damaged, not ours, or
    from a newer version.
    """
    return parse_plan(read_all(path), str(path))


def parse_plan(content: bytes, where: str = "") -> Plan:
    """As read_plan, from bytes."""
    if not content.strip():
        raise Problem("This file is empty.", where, "Open another, or go back to an earlier version of it.")
    try:
        document = msgspec.json.decode(content)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
        if content.lstrip()[:1] != b"{":
            raise Problem("This is not a class of Yew Hour.", where, "Open a .yewhour file.") from error
        raise Problem(
            f"This class is damaged: {_place_in(content, error)}.",
            where,
            "Go back to an earlier version of it, or mend that place in a text editor.",
        ) from error
    if not isinstance(document, dict) or not isinstance(document.get(MARK), int):
        raise Problem("This is not a class of Yew Hour.", where, "Open a .yewhour file.")
    if document[MARK] > VERSION:
        raise Problem(
            f"This class is from a newer Yew Hour (file version {document[MARK]}, this one reads {VERSION}).",
            where,
            "Open it with the newer one, or save it there as an outline.",
        )
    try:
        document = migrated(document)
        document.pop(MARK)
        return with_ids(msgspec.convert(_absorbed(document, Plan), Plan))
    except (msgspec.ValidationError, KeyError, TypeError, AttributeError, RecursionError) as error:
        raise Problem(
            f"This class is damaged: {told_kind(error)}.",
            where,
            "Mend that place in a text editor, or go back to an earlier version.",
        ) from error


def plan_bytes(plan: Plan) -> bytes:
    """The file's content for a plan: indented, in a steady order, what we don't know included."""
    document = {MARK: VERSION, **_released(msgspec.to_builtins(plan))}
    return msgspec.json.format(msgspec.json.encode(document), indent=1) + b"\n"


def write_plan(plan: Plan, path: Path) -> None:
    """Writes a class file whole; raises Problem when it can't be written."""
    write_whole(path, plan_bytes(plan))


def _place_in(content: bytes, error: Exception) -> str:
    """Line and column of a JSON error, from the byte the decoder names."""
    said = str(error)
    at = said.rsplit("(byte ", 1)
    if len(at) == 2 and at[1].rstrip(")").isdigit():
        before = content[: int(at[1].rstrip(")"))]
        line = before.count(b"\n") + 1
        return f"line {line}, column {len(before) - before.rfind(chr(10).encode())}: {at[0].strip()}"
    return f"it ends too early (line {content.count(chr(10).encode()) + 1})"


# --- fields we don't know -------------------------------------------------------------------------------


def _absorbed(raw: Any, kind: Any) -> Any:
    """`raw` with every field that `kind` doesn't have moved into its `extra`."""
    origin, args = get_origin(kind), get_args(kind)
    if isinstance(raw, list) and args:
        return [_absorbed(item, args[0]) for item in raw]
    if origin is dict and isinstance(raw, dict):
        return {key: _absorbed(item, args[1]) for key, item in raw.items()}
    if not isinstance(raw, dict):
        return raw
    struct = _struct_for(raw, kind)
    if struct is None:
        return raw
    hints = _hints(struct)
    tag = struct.__struct_config__.tag_field
    known = {
        key: _absorbed(value, hints[key]) for key, value in raw.items() if key in hints and key != "extra"
    }
    unknown = {
        key: value for key, value in raw.items() if (key not in hints or key == "extra") and key != tag
    }
    if tag and tag in raw:
        known[tag] = raw[tag]
    if unknown:
        known["extra"] = unknown
    return known


def _struct_for(raw: dict[str, Any], kind: Any) -> type[msgspec.Struct] | None:
    """The struct a raw object stands for, found by its tag where there are several."""
    choices: list[type[msgspec.Struct]] = [
        one for one in (get_args(kind) or (kind,)) if "extra" in getattr(one, "__struct_fields__", ())
    ]
    for one in choices:
        config = one.__struct_config__
        if not config.tag_field or raw.get(config.tag_field) == config.tag:
            return one
    return None


_HINTS: dict[type, dict[str, Any]] = {}


def _hints(struct: type[msgspec.Struct]) -> dict[str, Any]:
    if struct not in _HINTS:
        _HINTS[struct] = get_type_hints(struct)
    return _HINTS[struct]


def _released(document: Any) -> Any:
    """The document with every `extra` flattened back to where it was found."""
    if isinstance(document, list | tuple):
        return [_released(item) for item in document]
    if isinstance(document, dict):
        extra = document.get("extra")
        released = {
            key: _released(value)
            for key, value in document.items()
            if key != "extra" or not isinstance(value, dict)
        }
        return {**released, **extra} if isinstance(extra, dict) else released
    return document
