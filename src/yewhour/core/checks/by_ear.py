"""Checks by ear: a listener follows the spoken lines alone; where it would be lost is a finding.

It knows what words mean for the body (data/ear.toml) and where a movement has to be done; it does not know
how lines were written. Lines of the teacher's own are heard like any.
"""

from collections.abc import Iterator

from yewhour.core.checks.registry import check
from yewhour.core.finding import Notice
from yewhour.core.lengths import ticks
from yewhour.core.library.position import START, base_of
from yewhour.core.plan.edit import Edit, EditLines
from yewhour.core.preparation import PreparedPlan
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.directions import directions
from yewhour.core.wording.own_words import is_of

# Lines that don't say where the body goes next.
ASIDE = (
    "option", "caution", "align", "stay", "rest", "count", "time", "prop", "breath", "protect", "choice",
    "aim", "check", "image", "deepen", "compare", "keep", "late", "first", "remind", "half",
)  # fmt: skip
LATE = ticks(2.5)  # a line may come this long after a segment has begun


@check("lost")
def lost(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A listener in another position than a movement needs when it is called, or else when it begins."""
    here, noticed = START, set()
    cues = [cue for cue in reversed(timed.cues) if cue.purpose not in ASIDE]  # the first one last
    called = _called(timed)
    for segment in timed.segments:
        if segment.use.setup_for:
            continue
        moment = called.get(segment.id, segment.start + LATE)
        need = _place(segment.use.start) if segment.use.movement.start else ""
        while cues and cues[-1].start < moment:
            cue = cues.pop()
            if cue.purpose != "place" or not _there(here, need):  # who is there already builds on it
                here = prepared.teaching_data.ear.after(here, cue.text)
        if need and not _there(here, need) and segment.use.step.id not in noticed:
            noticed.add(segment.use.step.id)
            yield _lost(timed, segment, here, need)
        while (
            cues and not segment.behaviour.is_talk and cues[-1].segment in (segment.id, f"{segment.id}/into")
        ):
            cues.pop()  # what is said of the movement itself, and what it does, ends where it ends
        if need and not segment.behaviour.is_talk:
            here = _place(segment.use.end)


def _called(timed: TimedClass) -> dict[str, int]:
    """When each movement is called, by segment: its way has been said by then."""
    found: dict[str, int] = {}
    for cue in timed.cues:
        key = cue.segment.removesuffix("/into")
        if cue.purpose == "call":
            found.setdefault(key, cue.start)
        elif cue.purpose == "place":
            found[key] = cue.end  # the body is there when all of it has been said
    return found


@check("wrong-side-heard")
def wrong_side(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A change of side that no line names before it is worked on."""
    last, noticed, since, here = "", set(), 0, ""
    for segment in timed.segments:
        stayed = here == segment.use.start and here.startswith("on-") and segment.behaviour.is_rest
        here = segment.use.end
        if segment.use.setup_for or segment.behaviour.is_talk or segment.side not in ("right", "left"):
            continue
        if last and segment.side != last and segment.use.step.id not in noticed and not stayed:
            spoken = (cue for cue in timed.cues if since <= cue.start <= segment.start + LATE)
            if not any(directions(cue.text) for cue in spoken):
                noticed.add(segment.use.step.id)
                edit = _said_again(timed, segment, f"Say {segment.side} there again")
                yield Notice(segment.id, {"name": segment.use.name, "side": segment.side}, edit)
        last, since = segment.side, segment.end - LATE


def _place(position: str) -> str:
    """What a listener knows of a position: its base, and the foot in front where that matters."""
    base, _, form = position.partition(" ")
    return f"{base} {form.split()[0]}" if base == "split" and form else base


def _there(here: str, need: str) -> bool:
    return here == need or (base_of(here) == base_of(need) and " " not in here)


def _said_again(timed: TimedClass, segment: Segment, title: str) -> Edit | None:
    """The lines to a movement that were muted, said again; or else her own lines before it taken out."""
    step = segment.use.step.id
    muted = tuple(
        e for e in timed.plan.edits if is_of(e, segment.use) and e.do == "mute" and e.purpose not in ASIDE
    )
    if muted:
        return EditLines(step=step, title=title, unsay=muted)
    before = {cue.segment for cue in timed.cues if cue.own and cue.start <= segment.start + LATE}
    steps = {s.use.step.id for s in timed.segments if s.id in before}
    own = tuple(e for e in timed.plan.edits if e.step in steps and e.text and e.purpose not in ASIDE)
    return EditLines(step=own[-1].step, title="Take your line back", unsay=own[-1:]) if own else None


def _lost(timed: TimedClass, segment: Segment, here: str, need: str) -> Notice:
    name = segment.use.name
    where = "nowhere yet" if here == START else base_of(here)
    edit = _said_again(timed, segment, f"Say the way to {name} again")
    return Notice(segment.id, {"name": name, "here": where, "need": base_of(need)}, edit)
