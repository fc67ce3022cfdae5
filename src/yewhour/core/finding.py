"""A finding: something a check noticed; and the rule that says how it is worded and how bad it is."""

from collections.abc import Mapping
from typing import Literal

import msgspec

from yewhour.core.plan.edit import Edit

Severity = Literal["wrong", "look", "note"]


class CheckRule(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """How a finding is worded and how bad it is. Declared in data/checks.toml, one for each check."""

    severity: Severity
    message: str
    fix: str


CheckRules = dict[str, CheckRule]


class Notice(msgspec.Struct, frozen=True):
    """What a check noticed: the segment's id (or ""), words for the rule's message, and an edit."""

    segment: str
    words: Mapping[str, object]
    edit: Edit | None = None


class Finding(msgspec.Struct, frozen=True):
    """Where (a segment's id or ""), how bad, why, what would mend it, and the edit that does."""

    code: str
    severity: Severity
    segment: str
    message: str
    fix: str
    edit: Edit | None = None
