"""What was learnt of the teacher: notes of each recording, and what new classes of a style begin with."""

import contextlib
import re
from datetime import date

import msgspec

from yewhour.core.back.learn import Learnt, Notes, learnt, with_own
from yewhour.core.plan.plan import Plan
from yewhour.store.atomic import make_folder, write_whole
from yewhour.store.paths import learnt_file

MOST_RECORDINGS = 200
ALL = ""  # every style


class Kept(msgspec.Struct, frozen=True):
    """recordings: notes by what tells each from others. own: what new classes of a style begin with."""

    recordings: dict[str, Notes] = {}
    own: dict[str, dict[str, float]] = {}


def kept() -> Kept:
    """What is kept; nothing where it can't be read, and then it is set aside whole."""
    try:
        return msgspec.json.decode(learnt_file().read_bytes(), type=Kept)
    except OSError:
        return Kept()
    except (msgspec.DecodeError, msgspec.ValidationError):
        with contextlib.suppress(OSError):
            learnt_file().replace(learnt_file().with_suffix(".damaged"))
        return Kept()


def _keep(now: Kept) -> None:
    make_folder(learnt_file().parent)
    write_whole(learnt_file(), msgspec.json.encode(now))


def keep_notes(recording: str, notes: Notes) -> None:
    """Keeps what a recording shows, in place of what it showed before. Raises Problem where it can't."""
    now = kept()
    others = {name: one for name, one in now.recordings.items() if name != recording}
    latest = dict([*others.items(), (recording, notes)][-MOST_RECORDINGS:])
    _keep(msgspec.structs.replace(now, recordings=latest))


def all_notes() -> list[Notes]:
    """The notes of every recording."""
    return list(kept().recordings.values())


_DATED = re.compile(r"(\d{4})-(\d\d)-(\d\d)-\d{6}")


def learnt_by_month() -> dict[str, list[Learnt]]:
    """What the takes of each month taught, the first month first: by the date that a take's folder has."""
    by_month: dict[str, list[Notes]] = {}
    for name, notes in sorted(kept().recordings.items(), key=lambda row: _dated(row[0])):
        if _dated(name):
            month = date(*map(int, _dated(name).split("-"))).strftime("%B %Y")
            by_month.setdefault(month, []).append(notes)
    return {month: learnt(notes) for month, notes in by_month.items()}


def _dated(name: str) -> str:
    found = _DATED.search(name)
    return "-".join(found.groups()) if found else ""


def begin_with(style: str, own: dict[str, float]) -> None:
    """New classes of a style (ALL: of any) begin with her own seconds; with none, as usual again."""
    now = kept()
    others = {name: one for name, one in now.own.items() if name != style}
    _keep(msgspec.structs.replace(now, own={**others, **({style: own} if own else {})}))


def begun_with(style: str) -> dict[str, float]:
    """What new classes of a style begin with."""
    own = kept().own
    return own.get(style, own.get(ALL, {}))


def as_hers(plan: Plan) -> Plan:
    """A new class with her own seconds, where she has taken them."""
    own = begun_with(plan.brief.style)
    return with_own(plan, own) if own else plan
