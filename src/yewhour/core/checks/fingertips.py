"""Checks to the fingertips: what is lifted comes down in words, what alternates says where it begins, and
another way is told before the weight comes. The listener hears by data/ear.toml alone."""

from collections.abc import Iterator

from yewhour.core.checks.registry import check
from yewhour.core.finding import Notice
from yewhour.core.lengths import seconds, ticks
from yewhour.core.library.position import START, base_of
from yewhour.core.plan.edit import EditLines
from yewhour.core.preparation import PreparedPlan
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.directions import directions
from yewhour.core.wording.own_words import line_edit

LATE = ticks(8.0)  # after the last placing line a choice begins no later (TEACHING.md)
SOON = ticks(12.0)  # of work that alternates: by then the side that begins has been named
CHOICES = ("choice", "option", "protect", "caution")
PLACING = ("call", "place", "way", "protect", "first", "prop", "remind", "setup", "caution", "side", "flow")
LEADING = ("leave", "exit", "way", "side", "prop", "say", "call", "place", "flow")


@check("left-up")
def left_up(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """A part of the body that was lifted in words, and is still up when what begins does not lift it."""
    ear, up, here = prepared.teaching_data.ear, frozenset[str](), START
    cues = [cue for cue in reversed(timed.cues) if cue.purpose in LEADING]
    placed = _placed(timed)
    before: Segment | None = None
    for segment in timed.segments:
        if segment.use.setup_for or segment.behaviour.is_phase or segment.behaviour.framing:
            continue
        moment = placed.get(segment.id, segment.start)
        while cues and cues[-1].start < moment:
            cue = cues.pop()
            here = ear.after(here, cue.text)
            up = ear.lifted(up, here, cue.text)
        for facet in sorted(up - _lifted_by(segment)):
            verb = "are" if facet == "hips" else "is"
            edit = _down(before, facet) if before is not None else None
            yield Notice(segment.id, {"facet": facet, "verb": verb, "name": segment.name}, edit)
        while cues and cues[-1].start < segment.end and cues[-1].purpose != "leave":
            cues.pop()  # what is said of a movement itself ends where it ends
        before, here, up = segment, base_of(segment.use.end), _lifted_by(segment)


def _placed(timed: TimedClass) -> dict[str, int]:
    """When each movement is first placed, by segment."""
    found: dict[str, int] = {}
    for cue in timed.cues:
        if cue.purpose in ("call", "place", "protect", "caution"):
            found.setdefault(cue.segment.removesuffix("/into"), cue.start)
    return found


def _lifted_by(segment: Segment) -> frozenset[str]:
    """What a movement holds up by itself."""
    shape = segment.use.shape
    found = {"head"} if shape.get("head") in ("up", "lifted") else set()
    found |= {"hips"} if shape.get("hips") or segment.use.end.endswith("bridge") else set()
    found |= {"hand"} if shape.get("arms") == "nostril" else set()
    return frozenset(found)


def _down(before: Segment, facet: str) -> EditLines:
    text, at_s = f"{facet.capitalize()} down.", max(0.0, seconds(before.length) - 2.0)
    said = line_edit(before.use, "leave", "add", text=text, at_s=at_s)
    return EditLines(step=before.use.step.id, title="Say it down", say=(said,))


@check("which-first")
def which_first(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Work from side to side, and no line says which side begins."""
    noticed: set[str] = set()
    for segment in timed.segments:
        use = segment.use
        if (
            segment.side != "alternating"
            or use.setup_for
            or use.seen
            or use.round > 1
            or use.step.id in noticed
        ):
            continue
        near = (cue for cue in timed.cues if cue.segment in (segment.id, f"{segment.id}/into"))
        if not any(directions(cue.text) for cue in near if cue.start < segment.start + SOON):
            noticed.add(use.step.id)
            said = line_edit(use, "first", "add", text=f"The {use.told_side} side begins.", at_s=0.5)
            edit = EditLines(step=use.step.id, title=f"Say that the {use.told_side} begins", say=(said,))
            yield Notice(segment.id, {"name": segment.name, "side": use.told_side}, edit)


@check("late-choice")
def late_choice(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """Another way that is told when the weight is there already."""
    starts = {segment.id: segment for segment in timed.segments}
    placed: dict[str, int] = {}
    for cue in timed.cues:
        key = cue.segment.removesuffix("/into")
        if cue.purpose in PLACING and cue.purpose not in ("option", "choice"):
            placed[key] = cue.end
        if cue.purpose in CHOICES and key in starts:
            since = cue.start - max(placed.get(key, 0), starts[key].start)
            if since > LATE:
                edit = EditLines(
                    step=starts[key].use.step.id, title="Leave it unsaid there",
                    say=(line_edit(starts[key].use, cue.purpose, "mute", number=cue.number),),
                )  # fmt: skip
                words = {"name": starts[key].name, "late": round(seconds(since)), "line": cue.text}
                yield Notice(cue.segment, words, edit)
