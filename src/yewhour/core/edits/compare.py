"""Compare: what is other between two states of a class, as a teacher would tell it."""

from collections.abc import Iterator, Sequence
from typing import Literal

import msgspec

from yewhour.core.lengths import seconds, show_length
from yewhour.core.library.names import listed
from yewhour.core.pipeline import SolvedPlan
from yewhour.core.plan.plan import Brief
from yewhour.core.problem import CannotFit
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment

Kind = Literal["promise", "new", "gone", "longer", "shorter", "moved", "other", "said"]
SMALL_S = 1.0  # what differs by less is the same length to anybody

# The fields of a brief, and what they are called where they are changed.
PROMISES = {
    "title": "Title", "target_s": "Length", "style": "Style", "audience": "For whom",
    "time_of_day": "Time of day", "begins": "Begins", "level": "Level", "focus": "About", "cautions": "Mind",
    "props": "At hand", "peak": "Towards", "without": "Without", "wanted": "With", "reason": "The reason",
    "shape": "Its shape", "theme": "The theme", "telling": "Told in other words", "pace": "The breath",
    "voice_rate": "The voice", "facing": "You face", "own": "Your own seconds",
}  # fmt: skip


class ClassDifference(msgspec.Struct, frozen=True):
    """One thing that is other, and the step it is about, if it is about one."""

    kind: Kind
    words: str
    step: str = ""


class _Done(msgspec.Struct):
    """All that is done of one step: its name, its seconds, what it has, and its first side."""

    id: str
    name: str
    length_s: float
    dose: str
    side: str
    part: str = ""


def nearest_class(solved: SolvedPlan) -> TimedClass:
    """The class as it promises; else as near as it can, and an unfinished one by itself."""
    try:
        return solved.make()
    except CannotFit:
        promised_s = solved.promised_s
        unfinished = promised_s > solved.longest_s
        return solved.make(solved.preferred_s if unfinished else solved.nearest_s(promised_s))


def compare_classes(before: TimedClass, after: TimedClass) -> list[ClassDifference]:
    """Everything that is other: the promise, then what came and went, then the numbers, order and words."""
    old, new = _done(before), _done(after)
    pairs = _matched(list(old.values()), list(new.values()))
    found = [*_promises(before.plan.brief, after.plan.brief)]
    was, now = {one.id for one, _ in pairs}, {other.id for _, other in pairs}
    come = [one for one in new.values() if one.id not in now]
    gone = [one for one in old.values() if one.id not in was]
    found += [ClassDifference("new", f"{one.name}, {_length(one)}", one.id) for one in come]
    found += [ClassDifference("gone", f"{one.name}, {_length(one)}", one.id) for one in gone]
    for one, other in pairs:
        more_s = other.length_s - one.length_s
        if abs(more_s) >= SMALL_S:
            words = f"{other.name}: {_change(one, other)}"
            found.append(ClassDifference("longer" if more_s > 0 else "shorter", words, other.id))
        if one.side != other.side and {one.side, other.side} <= {"right", "left"}:
            found.append(ClassDifference("other", f"{other.name}: {other.side} side first", other.id))
    order = {one.id: number for number, one in enumerate(old.values())}
    stay = _longest_rise([order[one.id] for one, _ in pairs])
    elsewhere = [(one, other) for one, other in pairs if one.part != other.part]
    names = dict.fromkeys(
        pair[1].name for number, pair in enumerate(pairs) if number not in stay and pair not in elsewhere
    )
    found += [ClassDifference("moved", name) for name in names]
    found += _parts(before, after)
    found += _elsewhere(elsewhere)
    found += _said(before, after, new, old)
    rank = {kind: number for number, kind in enumerate(Kind.__args__)}  # type: ignore[attr-defined]
    return sorted(found, key=lambda one: rank[one.kind])


def _parts(before: TimedClass, after: TimedClass) -> Iterator[ClassDifference]:
    """Parts that came and went, by their titles, and those whose breath is another."""
    old = {one.title: one for one in before.plan.sections}
    new = {one.title: one for one in after.plan.sections}
    for kind, here, there in (("new", new, old), ("gone", old, new)):
        for title in here:
            if title not in there:
                yield ClassDifference(kind, f"The part {title}")  # type: ignore[arg-type]
    for title, one in new.items():
        was = old.get(title)
        if was is not None and (was.pace, was.glide_to, was.mat) != (one.pace, one.glide_to, one.mat):
            yield ClassDifference("other", f"The part {title}: its breath, or its end of the mat")


def _elsewhere(pairs: Sequence[tuple[_Done, _Done]]) -> Iterator[ClassDifference]:
    """Movements that stand in another part than before."""
    ways: dict[tuple[str, str], list[str]] = {}
    for one, other in pairs:
        ways.setdefault((one.part, other.part), []).append(other.name)
    for (was, now), names in ways.items():
        yield ClassDifference("moved", f"{listed(list(dict.fromkeys(names)))}: {was} → {now}")


def _done(timed: TimedClass) -> dict[str, _Done]:
    """What is done of each step, in the order of the class; ways and silent pauses belong to nothing."""
    found: dict[str, _Done] = {}
    for segment in timed.segments:
        if segment.use.setup_for:
            continue
        step = segment.use.step.id
        if step in found:
            found[step].length_s += seconds(segment.length)
        else:
            found[step] = _of(step, segment)
    return found


def _of(step: str, segment: Segment) -> _Done:
    return _Done(step, segment.use.name, seconds(segment.length), segment.dose, segment.side, segment.section)


def _matched(old: Sequence[_Done], new: Sequence[_Done]) -> list[tuple[_Done, _Done]]:
    """What is the same step in both, in the new order: by its id, and else by its name and number."""
    known = {one.id: one for one in old}
    pairs = {one.id: known[one.id] for one in new if one.id in known and known[one.id].name == one.name}
    taken = {one.id for one in pairs.values()}
    for one in new:
        if one.id not in pairs:
            like = next((other for other in old if other.id not in taken and other.name == one.name), None)
            if like is not None:
                pairs[one.id] = like
                taken.add(like.id)
    return [(pairs[one.id], one) for one in new if one.id in pairs]


def _length(one: _Done) -> str:
    return show_length(round(one.length_s))


def _change(one: _Done, other: _Done) -> str:
    lengths = f"{_length(one)} → {_length(other)}"
    counted = one.dose != other.dose and ":" not in one.dose + other.dose
    return f"{one.dose} → {other.dose} ({lengths})" if counted else lengths


def _promises(before: Brief, after: Brief) -> Iterator[ClassDifference]:
    for field, called in PROMISES.items():
        one, other = getattr(before, field), getattr(after, field)
        if one != other:
            yield ClassDifference("promise", f"{called}: {_value(field, one)} → {_value(field, other)}")
    rest = [field for field in Brief.__struct_fields__ if field not in PROMISES and field != "extra"]
    if any(getattr(before, field) != getattr(after, field) for field in rest):
        yield ClassDifference("promise", "What the style sets, or how the length counts")


def _value(field: str, value: object) -> str:
    if field == "target_s" and isinstance(value, int | float):
        return show_length(float(value))
    if field == "pace":
        rate = getattr(value, "breaths_per_min", None)
        return f"{rate:g} a minute" if rate is not None else "as the style has it"
    if isinstance(value, tuple):
        return listed([str(one) for one in value]) or "nothing"
    return f"{value:g}" if isinstance(value, float) else str(value) or "nothing"


def _longest_rise(numbers: Sequence[int]) -> set[int]:
    """The places of a longest rising row of numbers: what is not in it has moved."""
    best: list[tuple[int, int]] = []  # for each place: length of the row that ends there, place before
    for place, number in enumerate(numbers):
        longest = max(
            ((best[before][0], before) for before in range(place) if numbers[before] < number),
            default=(0, -1),
        )
        best.append((longest[0] + 1, longest[1]))
    if not best:
        return set()
    place = max(range(len(best)), key=lambda one: best[one][0])
    kept = set()
    while place >= 0:
        kept.add(place)
        place = best[place][1]
    return kept


def _said(
    before: TimedClass, after: TimedClass, new: dict[str, _Done], old: dict[str, _Done]
) -> Iterator[ClassDifference]:
    """Steps whose lines the teacher has written otherwise."""
    one, other = before.plan.edits, after.plan.edits
    changed: dict[str, int] = {}
    for edit in (*other, *one):
        if (edit in one) != (edit in other):
            changed[edit.step] = changed.get(edit.step, 0) + 1
    for step, number in changed.items():
        done = new.get(step) or old.get(step)
        name = done.name if done is not None else "A part that is not done"
        yield ClassDifference("said", f"{name}: {number} line{'' if number == 1 else 's'}", step)
