"""Edges that were put where somebody heard them, by recording; they are there again when it is looked at."""

import contextlib
from collections.abc import Mapping

import msgspec

from yewhour.core.problem import Problem
from yewhour.store.atomic import make_folder, write_whole
from yewhour.store.paths import own_data

MOST_RECORDINGS = 200
Edges = dict[str, float]  # the seconds that segments begin at, by their ids


def _all() -> dict[str, Edges]:
    try:
        return msgspec.json.decode((own_data() / "edges.json").read_bytes(), type=dict[str, Edges])
    except (OSError, msgspec.DecodeError):
        return {}


def edges_of(recording: str) -> Edges:
    """The edges of a recording."""
    return _all().get(recording, {})


def keep_edges(recording: str, edges: Mapping[str, float]) -> None:
    """Keeps the edges of a recording; where they can't be kept they are lost when the window closes."""
    others = {name: one for name, one in _all().items() if name != recording}
    if edges:
        others[recording] = dict(edges)
    with contextlib.suppress(Problem, OSError):
        make_folder(own_data())
        write_whole(
            own_data() / "edges.json", msgspec.json.encode(dict([*others.items()][-MOST_RECORDINGS:]))
        )
