"""What each mark does to a take."""

from collections import Counter
from collections.abc import Callable

import msgspec

from yewhour.core.edits.arrange import with_node
from yewhour.core.lengths import TICKS_PER_S, show_length, ticks
from yewhour.core.pace import breath_ticks
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import Rounds, SideDifference
from yewhour.core.plan.places import nodes_of
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.take.cutting import begin_of, cut_out, piece_of
from yewhour.core.take.marks import Mark
from yewhour.core.take.refit import is_slack, refitted
from yewhour.core.take.rewriting import with_new_lines
from yewhour.core.take.take import Take, course_of, lasting
from yewhour.core.timing.doses import amount_range
from yewhour.core.timing.layout import Segment
from yewhour.core.timing.step_use import StepUse

JUST_BEGUN = ticks(2.0)  # going back so soon goes back to the movement before
JUST_OVER = ticks(2.0)  # so long after something ended, one more is still meant for it
MORE = ticks(5.0)  # of what has no number of its own


def apply_mark(take: Take, mark: Mark) -> Take:
    """The take after one more mark, its lines with it. What can't be done is told, and changes nothing."""
    return with_new_lines(apply_mark_numbers(take, mark))


def apply_mark_numbers(take: Take, mark: Mark) -> Take:
    """The take after one more mark in its numbers alone: what is quick. `with_new_lines` writes its lines."""
    if isinstance(mark.cut, tuple) and take.state != "ended":
        return _noted(cut_out(take, mark.cut), mark)
    return _noted(_applied(take, mark), mark)


def _noted(take: Take, mark: Mark) -> Take:
    """The take with how it is now among what it was."""
    state = msgspec.structs.replace(take, history=())
    return msgspec.structs.replace(take, history=(*take.history, (ticks(mark.at_s), state)))


def _applied(take: Take, mark: Mark) -> Take:
    take = msgspec.structs.replace(take, did="")
    at = ticks(mark.at_s) - take.out
    if take.state == "ended":
        return _told(take, mark, "the take is over")
    if at < take.now:
        at = take.now
    if mark.do == "start":
        return msgspec.structs.replace(take, state="running", now=at)
    if mark.do == "note":
        return msgspec.structs.replace(take, notes=(*take.notes, mark), now=at)
    if take.paused is not None and mark.do != "pause":
        resumed = _resume(take, at, mark)
        if mark.do == "resume":
            return resumed
        acted = _applied(resumed, mark)
        # One more, or one fewer, does not set a class going that stands still.
        return _pause(acted, at, mark) if mark.do in ("again", "fewer") else acted
    if take.index_at(at) is None and mark.do != "end":
        return _told(take, mark, "the class is over")
    return _ACTS[mark.do](msgspec.structs.replace(take, state="running"), at, mark)


def _told(take: Take, mark: Mark, why: str) -> Take:
    messages = f"{mark.do} at {show_length(mark.at_s, True)} changed nothing: {why}."
    return msgspec.structs.replace(take, messages=(*take.messages, messages))


def _refitted(take: Take, happened: list[Segment], first: int, at: int) -> Take:
    """The rest fitted anew, its lines to be written."""
    unsaid = at if take.unsaid is None else min(at, take.unsaid)
    return msgspec.structs.replace(refitted(take, happened, first, at), unsaid=unsaid)


# --- the clock of the plan ------------------------------------------------------------------------------


def _pause(take: Take, at: int, mark: Mark) -> Take:
    if take.paused is not None:
        return _told(take, mark, "it stands still already")
    return msgspec.structs.replace(take, paused=at, camera_stopped=mark.camera == "stopped", now=at)


def _resume(take: Take, at: int, mark: Mark) -> Take:
    since = take.paused
    if since is None:
        return _told(take, mark, "it goes on already")
    said = tuple(cue for cue in take.cues if cue.start < since)
    going = msgspec.structs.replace(take, paused=None, camera_stopped=False, now=at)
    if take.camera_stopped or mark.camera == "stopped":
        return msgspec.structs.replace(going, out=take.out + at - since, now=since)
    index = take.index_at(since)
    if index is None or at == since:
        return going
    going = msgspec.structs.replace(going, cues=said)  # nothing is said while it stands still
    segment = take.segments[index]
    if is_slack(take, segment):  # it takes what is left, standing still or not
        return _refitted(going, list(take.segments[: index + 1]), take.place(segment) + 1, at)
    pauses = {**take.pauses, segment.id: (*take.pauses.get(segment.id, ()), (since, at - since))}
    longer = lasting(take, segment, segment.length - take.paused_in(segment), pauses[segment.id])
    going = msgspec.structs.replace(going, pauses=pauses)
    return _refitted(going, [*take.segments[:index], longer], take.place(segment) + 1, at)


# --- what is being done ---------------------------------------------------------------------------------


def _next(take: Take, at: int, mark: Mark) -> Take:
    index = _present(take, at)
    segment = take.segments[index]
    return _refitted(take, _cut(take, index, at), take.place(segment) + 1, at)


def _end(take: Take, at: int, mark: Mark) -> Take:
    take = with_new_lines(take)
    index = take.index_at(at)
    happened = list(take.segments) if index is None else _cut(take, index, at)
    ids = {segment.id for segment in happened}
    said = tuple(cue for cue in take.cues if cue.start < at and cue.segment in ids)
    return msgspec.structs.replace(
        take, segments=tuple(happened), cues=said, now=at, state="ended", unsaid=None
    )


def _present(take: Take, at: int) -> int:
    index = take.index_at(at)
    assert index is not None, "a mark after the end is told before"
    return index


def _cut(take: Take, index: int, at: int) -> list[Segment]:
    """What has happened when a segment is ended at a moment."""
    segment, before = take.segments[index], list(take.segments[:index])
    if at <= segment.start:
        return before
    length = max(0, at - segment.start - take.paused_in(segment))
    use = segment.use
    if use.pair and use.unit and length:
        # Whole units, though it was cut: a little longer or shorter each.
        each = max(1, length // max(1, round(length / use.unit)))
        segment = msgspec.structs.replace(segment, use=msgspec.structs.replace(use, unit=each))
    done = lasting(take, segment, length, take.pauses.get(segment.id, ()))
    spans = tuple(
        msgspec.structs.replace(span, end=min(span.end, at)) for span in done.spans if span.start < at
    )
    return [*before, msgspec.structs.replace(done, end=at, spans=spans)]


def _again(take: Take, at: int, mark: Mark) -> Take:
    return _numbered(take, at, mark, 1)


def _fewer(take: Take, at: int, mark: Mark) -> Take:
    return _shorter(take, at, mark) if mark.segment else _numbered(take, at, mark, -1)


def _shorter(take: Take, at: int, mark: Mark) -> Take:
    """A stillness ahead, under its least, by what the class runs over: as the teacher has chosen."""
    index = _present(take, at)
    ahead = {one.id: one for one in take.segments[index + 1 :]}
    stillness, over = ahead.get(mark.segment), take.end - take.target
    if stillness is None or not stillness.behaviour.is_rest or stillness.length <= max(0, over):
        return _told(take, mark, f"{mark.segment} is no stillness ahead that could give so much")
    if over <= 0:
        return _told(take, mark, "the class does not run over")
    least = max(1, (stillness.length - over) // TICKS_PER_S)
    try:
        plan = with_node(take.solved.plan, stillness.use.step.id, least=least, locked=False)
        changed = _solved(take, plan)
    except Problem as problem:
        return _told(take, mark, problem.what.rstrip(".").lower())
    segment = take.segments[index]
    return _refitted(changed, list(take.segments[: index + 1]), changed.place(segment) + 1, at)


def _numbered(take: Take, at: int, mark: Mark, by: int) -> Take:
    """One more or one fewer of what is meant: a breath, a repetition, some seconds; in a flow a round.

    On the way that is what the way leads to, on its whole pair; just after the end of something, it is that.
    """
    index = _present(take, at)
    meant = _meant(take, index, at, by)
    segment = take.segments[meant]
    if segment.behaviour.is_phase and segment.use.within:
        return _round(take, meant, at, mark, by)
    if meant > index:
        return _ahead(take, index, meant, at, mark, by)
    unit = _unit(segment)
    length = segment.length - take.paused_in(segment)
    gone = at - segment.start - take.paused_in(segment)
    wanted = length + by * unit
    if by < 0:
        whole = -(-gone // unit) * unit
        wanted = max(wanted, whole, unit)
    if wanted >= length and by < 0:
        return _told(take, mark, f"{segment.name} has no fewer left")
    changed = lasting(take, segment, wanted, take.pauses.get(segment.id, ()))
    happened = [*take.segments[:meant], changed]
    if meant < index:  # what was said of the next is said again
        ids = {one.id for one in happened}
        take = msgspec.structs.replace(take, cues=tuple(one for one in take.cues if one.segment in ids))
    kept = msgspec.structs.replace(take, kept=take.kept | {segment.id}, did=_did(take, segment, by))
    return _refitted(kept, happened, take.place(segment) + 1, at)


def _meant(take: Take, index: int, at: int, by: int) -> int:
    """The segment that one more or fewer is meant for, at a moment of another."""
    last = next((n for n in range(index - 1, -1, -1) if not take.segments[n].use.setup_for), None)
    here = take.segments[index]
    if by > 0 and last is not None and at - take.segments[last].end < JUST_OVER:
        ended = take.segments[last]
        counted = ended.amount and not ended.is_closing_pause and not is_slack(take, ended)
        if counted and not ended.attempt and piece_of(ended.use) != piece_of(here.use):
            return last
    if here.use.setup_for:
        ahead = range(index + 1, len(take.segments))
        return next((n for n in ahead if take.segments[n].use.key == here.use.setup_for), index)
    return index


def _ahead(take: Take, index: int, meant: int, at: int, mark: Mark, by: int) -> Take:
    """More or fewer of what the way that is on leads to: of its step, and so of both its sides."""
    segment, use = take.segments[meant], take.segments[meant].use
    amount = segment.amount + by * (_unit(segment) // use.unit if use.unit else 0)
    if not use.unit or not segment.behaviour.unit:
        return _told(take, mark, f"{segment.name} has no number")
    if amount < 1:
        return _told(take, mark, f"{segment.name} has no fewer left")
    if use.second and use.pair:
        more = (use.step.second.more if use.step.second is not None else 0) + by
        fields: dict[str, object] = {"second": SideDifference(more=more, why="asked for in the take")}
    else:
        clock = use.by_clock or None
        fields = {"amount": amount, "least": None, "most": None, "locked": True, "clock": clock}
    try:
        changed = _solved(take, with_node(take.solved.plan, use.step.id, **fields))
    except Problem:
        return _told(take, mark, f"{segment.name} is in a block, and keeps its number")
    kept = {use.key, take.course.partners.get(use.key, use.key)}
    changed = msgspec.structs.replace(changed, kept=take.kept | kept, did=_did(take, segment, by))
    here = take.segments[index]
    return _refitted(changed, list(take.segments[: index + 1]), changed.place(here) + 1, at)


def _did(take: Take, segment: Segment, by: int) -> str:
    """What was asked for, by name, and for which sides."""
    use = segment.use
    number = f"{'+' if by > 0 else '−'}{abs(by) * (_unit(segment) // use.unit if use.unit else 1)}"
    if segment.side not in ("left", "right") or not use.pair:
        return f"{number} {segment.name}"
    other = "left" if segment.side == "right" else "right"
    also = f"{segment.side} only" if use.second else f"{segment.side}, and {other} too"
    return f"{number} {segment.name}, {also}"


def _unit(segment: Segment) -> int:
    """Ticks of one more of what a segment has; an even number of repetitions from side to side."""
    use = segment.use
    if not use.unit or not segment.behaviour.unit or segment.is_closing_pause:
        return MORE
    if segment.behaviour.unit == "seconds":
        return MORE
    span = amount_range(use.step, use.movement, use.kind, breath_ticks(use.pace) / TICKS_PER_S)
    return use.unit * (2 if span.by % 2 == 0 else 1)


def _round(take: Take, index: int, at: int, mark: Mark, by: int) -> Take:
    """One more round of a flow, or one fewer; two where they change sides."""
    segment = take.segments[index]
    key, present = segment.use.within[-1]
    group = take.solved.unfolded.groups[key]
    times = segment.use.rounds + by * group.by
    if times < present or ((times - present) % group.by and by < 0):
        return _told(take, mark, f"this is the last round of {segment.section} already")
    words = "One more round" if by > 0 else "One round fewer"
    changed = msgspec.structs.replace(
        take, forced={**take.forced, key: times}, did=f"{words}: {times} in all"
    )
    if times > group.most:
        changed = _solved(changed, _longer(take.solved.plan, group.node, times))
        if changed.solved.unfolded.groups[key].most < times:
            return _told(take, mark, "this flow has all its rounds")
    happened = list(take.segments[: index + 1])
    return _refitted(changed, happened, changed.place(segment) + 1, at)


def _longer(plan: Plan, group: str, times: int) -> Plan:
    """The plan with more rounds allowed to a group; as it is, where that is in a block of the library."""
    node = nodes_of(plan).get(group)
    if not isinstance(node, Rounds):
        return plan
    return with_node(plan, group, most=times, least=node.least or node.times, locked=False)


def _solved(take: Take, plan: Plan, skipped: frozenset[str] = frozenset()) -> Take:
    """The take with its class solved anew: turns left out, or more rounds."""
    skipped = take.skipped | skipped
    solved = solve(plan, take.solved.teaching_data, without=skipped)
    return msgspec.structs.replace(take, course=course_of(solved), skipped=skipped)


# --- back and over --------------------------------------------------------------------------------------


def _back(take: Take, at: int, mark: Mark) -> Take:
    index = _present(take, at)
    first = begin_of(take.segments, index)
    if at - take.segments[first].start < JUST_BEGUN and first:
        first = begin_of(take.segments, first - 1)
    again, happened = _tried(take, _cut(take, index, at), first, at)
    return _refitted(again, happened, take.place(take.segments[first]), at)


def _tried(take: Take, happened: list[Segment], first: int, at: int) -> tuple[Take, list[Segment]]:
    """What happened from a segment on as something that was tried: it stays, under a name of its own."""
    before = Counter(one.use.key for one in take.segments if one.attempt)
    names: dict[str, str] = {}
    for place, segment in enumerate(happened):
        if place >= first and not segment.attempt:
            attempt = before[segment.use.key] + 1
            names[segment.id] = f"{segment.id}~{attempt}"
            happened[place] = msgspec.structs.replace(segment, id=names[segment.id], attempt=attempt)
    cues = tuple(
        msgspec.structs.replace(cue, segment=names[cue.segment])
        if cue.segment in names and cue.start < at else cue
        for cue in take.cues
    )  # fmt: skip
    pauses = {names.get(key, key): value for key, value in take.pauses.items()}
    return msgspec.structs.replace(take, cues=cues, pauses=pauses, kept=take.kept - names.keys()), happened


def _skip(take: Take, at: int, mark: Mark) -> Take:
    index = _present(take, at)
    segment = take.segments[index]
    place = take.place(segment)
    if mark.segment:
        left = [one for one in take.solved.uses[place + 1 :] if mark.segment in _names(take, one)]
        if not left:
            return _told(take, mark, f"{mark.segment} is not ahead")
        out, happened, after = {one.key for one in left}, [*take.segments[: index + 1]], segment.use.key
    else:
        piece = piece_of(segment.use)
        mine = [one for one in take.solved.uses[place:] if piece_of(one) == piece]
        out = {one.key for one in mine if one.key != segment.use.key}
        # Where the body is already on its way, or there, the next way begins: the use stays, undone.
        reached = segment.use.setup_for or segment.use.key
        out.discard(reached)
        happened, after = _cut(take, index, at), reached
        out |= {take.course.partners[key] for key in out | {reached} if key in take.course.partners}
        if not segment.behaviour.is_phase and not segment.use.setup_for and len(happened) > index:
            take, happened = _tried(take, happened, index, at)
    movements = frozenset(out) & {one.key for one in take.solved.unfolded.uses}
    try:
        changed = _solved(take, take.solved.plan, movements)
    except Problem:
        return _told(take, mark, "nothing would be left")
    last = len(changed.solved.uses) - 1  # where the closing pause is left out
    return _refitted(changed, happened, changed.course.places.get(after, last) + 1, at)


def _names(take: Take, use: StepUse) -> set[str]:
    """What a use can be called by to leave it out: itself, its step, the part of the class it is in."""
    return {use.key, use.step.id, take.solved.unfolded.nodes[use.node][1].id}


_ACTS: dict[str, Callable[[Take, int, Mark], Take]] = {
    "next": _next,
    "again": _again,
    "fewer": _fewer,
    "pause": _pause,
    "resume": _resume,
    "back": _back,
    "skip": _skip,
    "end": _end,
}
