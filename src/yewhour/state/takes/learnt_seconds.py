"""What was learnt of the teacher: notes of each recording, and what new classes of a style begin with."""

import re
from datetime import date

import msgspec

from yewhour.core.plan.plan import Plan
from yewhour.core.review.learning import (
    LearntShare,
    RecordingNotes,
    learnt_shares,
    with_own,
)
from yewhour.files.atomic_files import make_folder, write_whole
from yewhour.files.small_files import read_small
from yewhour.state.paths import learnt_file

MOST_RECORDINGS = 200
ALL = ""  # every style


class LearntStore(msgspec.Struct, frozen=True):
    """recordings: notes by what tells each from others. own: what new classes of a style begin with.
    left_out: recordings that teach nothing."""

    recordings: dict[str, RecordingNotes] = {}
    own: dict[str, dict[str, float]] = {}
    left_out: tuple[str, ...] = ()


def read_learnt() -> LearntStore:
    """What is kept; nothing where it can't be read, and then it is set aside whole."""
    return read_small(learnt_file(), LearntStore, LearntStore())


def _keep(now: LearntStore) -> None:
    make_folder(learnt_file().parent)
    write_whole(learnt_file(), msgspec.json.encode(now))


def keep_notes(recording: str, notes: RecordingNotes) -> None:
    """Keeps what a recording shows, in place of what it showed before. Raises Problem where it can't."""
    now = read_learnt()
    others = {name: one for name, one in now.recordings.items() if name != recording}
    latest = dict([*others.items(), (recording, notes)][-MOST_RECORDINGS:])
    _keep(msgspec.structs.replace(now, recordings=latest))


def all_notes() -> list[RecordingNotes]:
    """The notes of every recording that is not left out."""
    return list(_teaching(read_learnt()).values())


def _teaching(store: LearntStore) -> dict[str, RecordingNotes]:
    return {name: one for name, one in store.recordings.items() if name not in store.left_out}


def leave_out(recording: str) -> None:
    """A recording teaches nothing from now on; what it showed is kept. Raises Problem where it can't be."""
    now = read_learnt()
    if recording not in now.left_out:
        _keep(msgspec.structs.replace(now, left_out=(*now.left_out, recording)))


def take_back(recording: str) -> None:
    """A recording teaches again. Raises Problem where that can't be kept."""
    now = read_learnt()
    if recording in now.left_out:
        kept = tuple(one for one in now.left_out if one != recording)
        _keep(msgspec.structs.replace(now, left_out=kept))


def is_left_out(recording: str) -> bool:
    """Whether a recording teaches nothing."""
    return recording in read_learnt().left_out


_DATED = re.compile(r"(\d{4})-(\d\d)-(\d\d)-\d{6}")


def learnt_by_month() -> dict[str, list[LearntShare]]:
    """What the takes of each month taught, the first month first: by the date that a take's folder has."""
    by_month: dict[str, list[RecordingNotes]] = {}
    for name, notes in sorted(_teaching(read_learnt()).items(), key=lambda row: _dated(row[0])):
        if _dated(name):
            month = date(*map(int, _dated(name).split("-"))).strftime("%B %Y")
            by_month.setdefault(month, []).append(notes)
    return {month: learnt_shares(notes) for month, notes in by_month.items()}


def _dated(name: str) -> str:
    found = _DATED.search(name)
    return "-".join(found.groups()) if found else ""


def begin_with(style: str, own: dict[str, float]) -> None:
    """New classes of a style (ALL: of any) begin with her own seconds; with none, as usual again."""
    now = read_learnt()
    others = {name: one for name, one in now.own.items() if name != style}
    _keep(msgspec.structs.replace(now, own={**others, **({style: own} if own else {})}))


def begun_with(style: str) -> dict[str, float]:
    """What new classes of a style begin with."""
    own = read_learnt().own
    return own.get(style, own.get(ALL, {}))


def as_hers(plan: Plan) -> Plan:
    """A new class with her own seconds, where she has taken them."""
    own = begun_with(plan.brief.style)
    return with_own(plan, own) if own else plan
