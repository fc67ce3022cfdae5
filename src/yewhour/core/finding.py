"""A finding: something a check noticed."""

from typing import Literal

import msgspec

from yewhour.core.edit import Edit

Severity = Literal["wrong", "look", "note"]


class Finding(msgspec.Struct, frozen=True):
    """Where (a segment's id or ""), how bad, why, what would mend it, and the edit that does."""

    code: str
    severity: Severity
    segment: str
    message: str
    fix: str
    edit: Edit | None = None
