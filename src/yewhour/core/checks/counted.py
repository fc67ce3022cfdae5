"""Checks of counted work: that whoever does it hears how far they are."""

from collections.abc import Iterator, Sequence
from itertools import pairwise

from yewhour.core.checks.registry import check
from yewhour.core.finding import Notice
from yewhour.core.lengths import seconds, ticks
from yewhour.core.plan.edit import EditLines
from yewhour.core.preparation import PreparedPlan
from yewhour.core.sides import fill
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.own_words import line_edit

# Of a card, what may be said while one counts; the first of these that the class has not said yet.
THOUGHTS = ("keep", "check", "aim", "image", "deepen")
QUIET = ticks(30)  # in counted work something is said at least this often: the number was told before it


@check("quiet-count")
def quiet_count(timed: TimedClass, prepared: PreparedPlan) -> Iterator[Notice]:
    """More than 30 s without a word in a counted set, where the school counts at all."""
    if prepared.school.counting == "silent":
        return
    starts: dict[str, list[int]] = {}
    for cue in timed.cues:
        starts.setdefault(cue.segment, []).append(cue.start)
    lines = prepared.teaching_data.wording.voices[prepared.school.voice].counted
    for segment in timed.segments:
        if not segment.behaviour.told_by_number:
            continue
        last = segment.end - (
            segment.use.unit if segment.amount > 1 else 0
        )  # the last one is done by oneself
        heard = [segment.start, *starts.get(segment.id, ()), last]
        gaps = [(now, later - now) for now, later in pairwise(heard) if later - now > QUIET]
        if not gaps:
            continue
        step = segment.use.step.id
        at = [
            now + gap * n // parts
            for now, gap in gaps
            for parts in (gap // QUIET + 1,)
            for n in range(1, parts)
        ]
        texts = _unsaid(segment, timed, [line[0] for line in lines])
        said = [texts[n % len(texts)] for n in range(len(at))]
        more = tuple(
            line_edit(segment.use, "stay", "add", text=text, at_s=seconds(moment - segment.start))
            for moment, text in zip(at, said, strict=True)
        )
        edit = EditLines(step=step, title="Say something in between", say=more)
        longest = max(gap for _, gap in gaps)
        yield Notice(segment.id, {"length": round(seconds(longest)), "name": segment.name}, edit)


def _unsaid(segment: Segment, timed: TimedClass, lines: Sequence[str]) -> list[str]:
    """What a counted set may still say, the best first: thoughts of its card that the class has not had, then
    the school's lines; the card's own once more where all of it has been said."""
    card, side = segment.use.movement.card, segment.use.told_side
    own = [fill(text, side) for name in THOUGHTS for text in getattr(card, name)] if card is not None else []
    heard = {cue.text for cue in timed.cues}
    return [one for one in (*own, *lines) if one not in heard] or own or list(lines)
