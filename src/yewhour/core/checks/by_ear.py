"""Checks by ear: a listener follows the spoken lines alone; where it would be lost is a finding.

It knows what words mean for the body (data/ear.toml) and where a movement has to be done; it does not know
how lines were written. Lines of the teacher's own are heard like any.
"""

from collections.abc import Iterator

from yewhour.core.checks.registry import check
from yewhour.core.finding import Notice
from yewhour.core.lengths import ticks
from yewhour.core.library.position import START, base_of
from yewhour.core.plan.edit import Edit
from yewhour.core.preparation import PreparedPlan
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.directions import directions

# Lines that don't say where the body goes next.
ASIDE = ("option", "caution", "align", "stay", "rest", "count", "time", "prop", "breath")
LATE = ticks(2.5)  # a line may come this long after a segment has begun


@check("lost")
def lost(made: TimedClass, setting: PreparedPlan) -> Iterator[Notice]:
    """A listener in another position than a movement needs when it is called, or else when it begins."""
    here, told = START, set()
    cues = [cue for cue in reversed(made.cues) if cue.purpose not in ASIDE]  # the first one last
    called = _called(made)
    for segment in made.segments:
        if segment.turn.setup_for:
            continue
        moment = called.get(segment.id, segment.start + LATE)
        while cues and cues[-1].start < moment:
            here = setting.words.ear.after(here, cues.pop().text)
        need = _place(segment.turn.start) if segment.turn.movement.start else ""
        if need and not _there(here, need) and segment.turn.step.id not in told:
            told.add(segment.turn.step.id)
            yield _lost(made, segment, here, need)
        while cues and segment.kind != "talk" and cues[-1].segment in (segment.id, f"{segment.id}/into"):
            cues.pop()  # what is said of the movement itself, and what it does, ends where it ends
        if need and segment.kind != "talk":
            here = _place(segment.turn.end)


def _called(made: TimedClass) -> dict[str, int]:
    """When each movement is called, by segment: its way has been said by then."""
    found: dict[str, int] = {}
    for cue in made.cues:
        if cue.purpose == "call":
            found.setdefault(cue.segment.removesuffix("/into"), cue.start)
    return found


@check("wrong-side-heard")
def wrong_side(made: TimedClass, setting: PreparedPlan) -> Iterator[Notice]:
    """A change of side that no line names before it is worked on."""
    last, told, since, here = "", set(), 0, ""
    for segment in made.segments:
        stayed = here == segment.turn.start and here.startswith("on-") and segment.kind == "stillness"
        here = segment.turn.end
        if segment.turn.setup_for or segment.kind == "talk" or segment.side not in ("right", "left"):
            continue
        if last and segment.side != last and segment.turn.step.id not in told and not stayed:
            spoken = (cue for cue in made.cues if since <= cue.start <= segment.start + LATE)
            if not any(directions(cue.text) for cue in spoken):
                told.add(segment.turn.step.id)
                edit = _said_again(made, segment, f"Say {segment.side} there again")
                yield Notice(segment.id, {"name": segment.turn.name, "side": segment.side}, edit)
        last, since = segment.side, segment.end - LATE


def _place(position: str) -> str:
    """What a listener knows of a position: its base, and the foot in front where that matters."""
    base, _, form = position.partition(" ")
    return f"{base} {form.split()[0]}" if base == "split" and form else base


def _there(here: str, need: str) -> bool:
    return here == need or (base_of(here) == base_of(need) and " " not in here)


def _said_again(made: TimedClass, segment: Segment, title: str) -> Edit | None:
    """The lines to a movement that were muted, said again; or else her own lines before it taken out."""
    step = segment.turn.step.id
    muted = tuple(e for e in made.plan.edits if e.step == step and e.do == "mute" and e.purpose not in ASIDE)
    if muted:
        return Edit("lines", step, title, unsay=muted)
    before = {cue.segment for cue in made.cues if cue.own and cue.start <= segment.start + LATE}
    steps = {s.turn.step.id for s in made.segments if s.id in before}
    own = tuple(e for e in made.plan.edits if e.step in steps and e.text and e.purpose not in ASIDE)
    return Edit("lines", own[-1].step, "Take your line back", unsay=own[-1:]) if own else None


def _lost(made: TimedClass, segment: Segment, here: str, need: str) -> Notice:
    name = segment.turn.name
    where = "nowhere yet" if here == START else base_of(here)
    edit = _said_again(made, segment, f"Say the way to {name} again")
    return Notice(segment.id, {"name": name, "here": where, "need": base_of(need)}, edit)
