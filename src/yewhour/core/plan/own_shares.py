"""Her own seconds: what a teacher takes for a thing, as a share of what the library and the style say.

They are kept by what time is spent on ("ways": 1.2) and by kinds of it ("ways standing to supine": 1.4,
"count bridge": 1.1, "voice count": 0.9); a kind that has its own share takes no other.
"""

from collections.abc import Mapping
from typing import Literal

from yewhour.core.library.position import base_of

What = Literal["ways", "teaching", "breath", "count", "voice"]
WHATS: dict[What, str] = {
    "ways": "getting from one position to the next",
    "teaching": "teaching what is new",
    "breath": "a breath",
    "count": "a count",
    "voice": "speaking",
}
LEAST, MOST = 0.3, 3.0  # beyond that it was something else
OwnShares = Mapping[str, float]


def own_share(own: OwnShares, what: What, which: str = "") -> float:
    """Her share of the usual seconds: of this kind where it has its own, else of all of it."""
    return own.get(share_key(what, which), own.get(what, 1.0))


def share_key(what: What, which: str = "") -> str:
    """What a share is kept by."""
    return f"{what} {which}" if which else what


def way_kind(start: str, end: str) -> str:
    """The kind of a way between two positions: from which base to which."""
    return f"{base_of(start) or 'start'} to {base_of(end)}"
