"""Retell: what a teacher does to a line of the script, each as an edit that can be applied and undone."""

import re
from collections.abc import Iterable

import msgspec

from yewhour.core.lengths import seconds
from yewhour.core.plan.edit import EditLines, place_of
from yewhour.core.plan.nodes import LineEdit
from yewhour.core.problem import Problem
from yewhour.core.script.cue import Cue, Dropped
from yewhour.core.script.own_lines import edit_behind
from yewhour.core.sides import fill, mirrored
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.core.wording.directions import directions, tokenised
from yewhour.core.wording.own_words import line_edit

LONGEST_WORDS = 60  # of one line; a breath holds a dozen


def segment_of(timed: TimedClass, line: Cue | Dropped) -> Segment:
    """The segment a line belongs to. Raises Problem when the class has none like it any more."""
    for segment in timed.segments:
        if segment.id == line.segment:
            return segment
    raise Problem("The place of this line is not in the class any more.", do="Choose another line.")


def clean(text: str) -> str:
    """A line as it is kept: one line, single spaces. Raises Problem for more than could be one line."""
    words = text.split()
    if len(words) > LONGEST_WORDS:
        raise Problem(
            f"A line of {len(words)} words is more than anybody says in one go.",
            "the line",
            f"Keep it under {LONGEST_WORDS} words, or make several lines of it.",
        )
    return " ".join(words)


def _changed(timed: TimedClass, line: Cue | Dropped, title: str, **fields: object) -> EditLines:
    """An edit of one line: the one behind it with fields changed, or a new one."""
    segment = segment_of(timed, line)
    old = edit_behind(timed.plan, segment, line)
    if old is None:
        side = segment.side if segment.side in ("left", "right") else ""
        linked = bool(fields.get("text")) and _has_twin(timed, segment, line)
        start = line_edit(
            segment.use, line.purpose, "rewrite", number=line.number, side=side, both=linked, was=line.text
        )
        return EditLines(step=start.step, title=title, say=(msgspec.structs.replace(start, **fields),))
    if "text" in fields and old.side in ("left", "right") and segment.side in ("left", "right"):
        fields["side"] = segment.side  # the words are now those of the side they were changed on
    return EditLines(step=old.step, title=title, unsay=(old,), say=(msgspec.structs.replace(old, **fields),))


def _has_twin(timed: TimedClass, segment: Segment, line: Cue | Dropped) -> bool:
    """Whether the other side of a movement says a line like this one, that is not hers already."""
    if segment.side not in ("left", "right"):
        return False
    there = {
        one.id: one
        for one in timed.segments
        if one.use.step.id == segment.use.step.id and one.side == mirrored(segment.side)
    }
    said: list[Cue | Dropped] = [*timed.cues, *timed.dropped]
    twins = [
        one
        for one in said
        if one.segment in there and (one.purpose, one.number) == (line.purpose, line.number)
    ]
    return bool(twins) and all(edit_behind(timed.plan, there[one.segment], one) is None for one in twins)


def on_the_other_side(segment: Segment, text: str) -> str:
    """The words of a line as the other side says them; "" where there is none."""
    if segment.side not in ("left", "right"):
        return ""
    return fill(tokenised(text, segment.side), mirrored(segment.side))


def rewritten(timed: TimedClass, line: Cue | Dropped, text: str) -> EditLines:
    """Other words for a line; none at all mutes it."""
    text = clean(text)
    return _changed(timed, line, f"Reword “{_short(line.text)}”", text=text) if text else muted(timed, line)


def muted(timed: TimedClass, line: Cue | Dropped) -> EditLines:
    """A line that is not said; one that the teacher added is gone."""
    segment = segment_of(timed, line)
    old = edit_behind(timed.plan, segment, line)
    title = f"Leave “{_short(line.text)}” unsaid"
    if old is not None and old.do == "add":
        return EditLines(step=old.step, title=title, unsay=(old,))
    was = old.was if old is not None else line.text
    return _changed(timed, line, title, do="mute", text="", was=was)


def pinned(timed: TimedClass, cue: Cue, by_s: float = 0.0) -> EditLines:
    """A line kept at the second it is said now, or so many seconds from it, whatever else moves."""
    segment = segment_of(timed, cue)
    at_s = round(seconds(cue.start - segment.start) + by_s, 1)
    old = edit_behind(timed.plan, segment, cue)
    if old is not None and old.do == "add":
        return _changed(timed, cue, "Move a line", at_s=at_s)
    title = f"Keep “{_short(cue.text)}” where it is" if not by_s else f"Move “{_short(cue.text)}”"
    return _changed(timed, cue, title, do="pin", at_s=at_s)


def is_pinned(timed: TimedClass, cue: Cue) -> bool:
    """Whether a line is kept where it is."""
    old = edit_behind(timed.plan, segment_of(timed, cue), cue)
    return old is not None and old.do in ("pin", "move")


def on_both_sides(timed: TimedClass, cue: Cue) -> EditLines:
    """A line of the teacher's said on the other side too, its sides mirrored; once more for each by itself.

    Raises Problem for a line that has no other side, or that is not hers.
    """
    segment = segment_of(timed, cue)
    old = edit_behind(timed.plan, segment, cue)
    if segment.side not in ("left", "right"):
        raise Problem("This line has no other side.", do="Choose a line said on the left or on the right.")
    if old is None or not old.text:
        raise Problem("The program says this on both sides already.", do="Reword it first; then mirror it.")
    here = msgspec.structs.replace(old, both=not old.both, text=cue.text, side=str(segment.side))
    if not old.both:
        other = (
            edit
            for edit in timed.plan.edits
            if place_of(edit)[:-1] == place_of(old)[:-1]
            and edit.side == mirrored(segment.side)
            and edit.do != "add"
        )
        title = "Say it on the other side too"
        return EditLines(step=old.step, title=title, unsay=(old, *other), say=(here,))
    there = msgspec.structs.replace(
        here, text=on_the_other_side(segment, cue.text), side=str(mirrored(segment.side))
    )
    return EditLines(step=old.step, title="Each side by itself", unsay=(old,), say=(here, there))


def is_linked(timed: TimedClass, cue: Cue) -> bool:
    """Whether a line of hers is said on the other side too, mirrored."""
    old = edit_behind(timed.plan, segment_of(timed, cue), cue)
    return old is not None and old.both


def restored(timed: TimedClass, line: Cue | Dropped) -> EditLines:
    """A line as the program has it. Raises Problem when nothing was changed."""
    old = edit_behind(timed.plan, segment_of(timed, line), line)
    if old is None:
        raise Problem("This line is as the program has it.", do="There is nothing to put back.")
    return EditLines(step=old.step, title=f"Put back “{_short(old.was or line.text)}”", unsay=(old,))


def unmuted(edit: LineEdit) -> EditLines:
    """A line that was left unsaid is said again."""
    return EditLines(step=edit.step, title=f"Say “{_short(edit.was)}” again", unsay=(edit,))


def taken_in(timed: TimedClass, line: Dropped) -> EditLines:
    """A line that was left out, said after all."""
    return _changed(timed, line, f"Take in “{_short(line.text)}”", text=line.text, both=False)


def added(segment: Segment, text: str, at_s: float = 0.0) -> EditLines:
    """A new line of the teacher's, so many seconds into a segment."""
    text = clean(text)
    if not text:
        raise Problem("There is nothing to say in that line.", do="Type the words first.")
    purpose = "rest" if segment.behaviour.is_rest else "say" if segment.behaviour.is_talk else "align"
    side = segment.side if segment.side in ("left", "right") else ""
    both = bool(side and directions(text))  # what names a side is meant for the other too
    line = line_edit(segment.use, purpose, "add", side=side, both=both, text=text, at_s=at_s)
    return EditLines(step=line.step, title=f"Add “{_short(text)}”", say=(line,))


def replaced(timed: TimedClass, find: str, by: str) -> tuple[EditLines, int]:
    """Words replaced in every line that has them, as one edit, and in how many lines; capitals are kept."""
    pattern = re.compile(re.escape(find), re.IGNORECASE)

    def word(match: re.Match[str]) -> str:
        return by[:1].upper() + by[1:] if match.group()[:1].isupper() else by

    unsay: list[LineEdit] = []
    say: list[LineEdit] = []
    for cue in lines_with(timed, find):
        text = clean(pattern.sub(word, cue.text))
        linked = is_linked(timed, cue)
        edit = _changed(timed, cue, "", text=text, both=linked)
        if linked and edit.unsay[0] in unsay:
            continue  # the other side of one that is done
        unsay += edit.unsay
        say += edit.say
    return EditLines(title=f"Say “{by}” for “{find}”", unsay=tuple(unsay), say=tuple(say)), len(say)


def lines_with(timed: TimedClass, find: str) -> Iterable[Cue]:
    """The lines that have these words, in the order they are said."""
    return [cue for cue in timed.cues if find and find.lower() in cue.text.lower()]


def _short(text: str) -> str:
    return text if len(text) <= 28 else f"{text[:26].rstrip()}…"
