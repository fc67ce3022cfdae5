"""Edges that were put where somebody heard them, by recording; they are there again when it is looked at."""

import contextlib
from collections.abc import Mapping

import msgspec

from yewhour.core.problem import Problem
from yewhour.files.atomic_files import make_folder, write_whole
from yewhour.files.small_files import read_small
from yewhour.state.paths import own_data

MOST_RECORDINGS = 200
CorrectedStarts = dict[str, float]  # the seconds that segments begin at, by their ids


def _all() -> dict[str, CorrectedStarts]:
    return read_small(own_data() / "edges.json", dict[str, CorrectedStarts], {})


def corrected_starts(recording: str) -> CorrectedStarts:
    """The edges of a recording."""
    return _all().get(recording, {})


def keep_corrected_starts(recording: str, edges: Mapping[str, float]) -> None:
    """Keeps the edges of a recording; where they can't be kept they are lost when the window closes."""
    others = {name: one for name, one in _all().items() if name != recording}
    if edges:
        others[recording] = dict(edges)
    with contextlib.suppress(Problem, OSError):
        make_folder(own_data())
        write_whole(
            own_data() / "edges.json", msgspec.json.encode(dict([*others.items()][-MOST_RECORDINGS:]))
        )
