"""A finding: something a check noticed."""

from typing import Literal

import msgspec

Severity = Literal["wrong", "look", "note"]


class Finding(msgspec.Struct, frozen=True):
    """Where (a segment's id or ""), how bad, why, and what would mend it."""

    code: str
    severity: Severity
    segment: str
    message: str
    fix: str
