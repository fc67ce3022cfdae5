"""JSON Schemas of the data files, made from the types that their readers convert them to.

A file may be written shorter than what it is read as: a line as `full | short | bare`, a rhythm as
`exhale 4 inhale 4`. `_as_written` says so in the schema.
"""

from typing import Any

import msgspec

from yewhour.content.movement_files import FIELDS
from yewhour.content.terms import PositionsFile, TermsFile
from yewhour.core.conditions.condition import Condition
from yewhour.core.conditions.groups import MovementGroup
from yewhour.core.draft.draft_model import DraftModel
from yewhour.core.finding import CheckRules
from yewhour.core.library.card import Card
from yewhour.core.library.cue_interpreter import BodyCue, LiftCue
from yewhour.core.library.facets import FacetValue
from yewhour.core.library.movement import Movement
from yewhour.core.library.telling import Telling
from yewhour.core.plan.school import School
from yewhour.core.promise.vocabulary import PromiseVocabulary
from yewhour.core.purpose import LINE_PURPOSES
from yewhour.core.review.listening.described import Descriptions
from yewhour.core.transcript.mentions import EverydayWords
from yewhour.core.wording.lines import StandingLines
from yewhour.core.wording.speech import SpeechRates

Schema = dict[str, Any]
TEXT: Schema = {"type": "string"}
TEXTS: Schema = {"anyOf": [TEXT, {"type": "array", "items": TEXT}]}


def schemas() -> dict[str, bytes]:
    """Every schema by the name of its file; `movements` is of each file in that folder."""
    kinds: dict[str, Schema] = {
        "body": msgspec.json.schema(dict[str, dict[str, FacetValue]]),
        "cards": msgspec.json.schema(dict[str, Card]),
        "cautions": msgspec.json.schema(dict[str, Condition]),
        "checks": msgspec.json.schema(CheckRules),
        "draft": msgspec.json.schema(DraftModel),
        "ear": {
            "type": "object",
            "required": ["words"],
            "properties": {"words": _inner(list[BodyCue]), "lifted": _inner(list[LiftCue])},
        },
        "groups": msgspec.json.schema(dict[str, MovementGroup]),
        "looking": msgspec.json.schema(CheckRules),
        "mentions": msgspec.json.schema(EverydayWords),
        "described": msgspec.json.schema(Descriptions),
        "heard_in_other_words": msgspec.json.schema(dict[str, tuple[str, ...]]),
        "movements": _movements(),
        "promise": msgspec.json.schema(PromiseVocabulary),
        "positions": msgspec.json.schema(PositionsFile),
        "schools": _without(msgspec.json.schema(dict[str, School]), "School", "id"),
        "shelf": _shelf(),
        "told_to": _told_to(),
        "terms": msgspec.json.schema(TermsFile),
        "voice": msgspec.json.schema(SpeechRates),
        "wording": _wording(),
    }
    kinds["ear"]["$defs"] = {
        name: one for kind in (BodyCue, LiftCue) for name, one in msgspec.json.schema(kind)["$defs"].items()
    }
    return {name: _whole(name, schema) for name, schema in kinds.items()}


def _told_to() -> Schema:
    """A table a movement, and one of standing lines."""
    lines = {"type": "object", "additionalProperties": {"type": "array", "items": TEXT}}
    return {**msgspec.json.schema(dict[str, Telling]), "properties": {"wording": lines}}


def _whole(name: str, schema: Schema) -> bytes:
    head = {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": f"{name} of Yew Hour"}
    return msgspec.json.format(msgspec.json.encode({**head, **schema}), indent=1) + b"\n"


def _inner(kind: Any) -> Schema:
    return {key: value for key, value in msgspec.json.schema(kind).items() if key != "$defs"}


def _without(schema: Schema, kind: str, field: str) -> Schema:
    one = schema["$defs"][kind]
    del one["properties"][field]
    one["required"] = [name for name in one.get("required", []) if name != field]
    return schema


def _movements() -> Schema:
    """A file of movements: its family, and a table for each."""
    schema = msgspec.json.schema(Movement)
    movement = schema["$defs"]["Movement"]
    fields = {name: value for name, value in movement["properties"].items() if name in FIELDS}
    for name in ("gentler", "stronger", "gentler_is", "stronger_is", "rhythm"):
        fields[name] = TEXT
    fields |= {"stages": TEXTS, "figure": TEXTS}
    fields["otherwise"] = {"type": "array", "items": TEXTS}
    fields["flow_from"] = {"type": "object", "additionalProperties": TEXT}
    fields |= dict.fromkeys(LINE_PURPOSES, TEXTS)
    one = {
        "type": "object",
        "properties": fields,
        "required": ["name", "kind"],
        "additionalProperties": False,
    }
    return {
        "type": "object",
        "properties": {"family": TEXT},
        "additionalProperties": one,
        "$defs": {name: value for name, value in schema["$defs"].items() if name != "Movement"},
    }


def _shelf() -> Schema:
    message = {"type": "object", "properties": {"message": TEXT}, "required": ["message"]}
    quiet = {"type": "array", "items": TEXT}
    return {"type": "object", "properties": {"quiet": quiet}, "additionalProperties": message}


def _wording() -> Schema:
    """The standing lines: what is read as wordings is written as one text."""
    return dict(_as_written(msgspec.json.schema(StandingLines)))


def _as_written(schema: Any) -> Any:
    if isinstance(schema, list):
        return [_as_written(one) for one in schema]
    if not isinstance(schema, dict):
        return schema
    items = schema.get("items")
    if schema.get("type") == "array" and isinstance(items, dict) and items.get("type") == "array":
        return {"type": "array", "items": TEXT}
    return {key: _as_written(value) for key, value in schema.items()}
