"""A school's ways: presets for a style, each value the teacher's to change."""

from typing import Any, Literal

import msgspec

from yewhour.core.pace import (
    Beat,
    Pace,
    Phase,
    check_pace,
)
from yewhour.core.plan.plan import Brief
from yewhour.core.problem import Problem
from yewhour.core.sides import Side


class School(msgspec.Struct, frozen=True, omit_defaults=True):
    """How a style teaches. Every field but id, name, noun and about can be overridden in a brief's `ways`.

    noun: what a class of it is called in a sentence. describes: a shape before people are in it, or while
    they are: bodies move at once then, and placing belongs to the dose. teaching: how long it teaches what
    is new, as a share of the usual; moving: how long it takes from one position to the next, likewise. talk:
    the largest share of a held posture that may be speech (0-1). count_s: seconds of a count. second_side:
    how much is said there of what was said on the first. voice: how things are put. breath_words: in which
    repetitions they are said. least_rest: share of the class its final rest should have at least (0 asks for
    none). keeps_from: bases of positions that no way goes through where there is another way."""

    id: str
    name: str
    noun: str = "class"
    about: str = ""
    lead: Literal["right", "left"] = "right"
    alternate_lead: bool = True
    effort_breath: Literal["exhale", "inhale"] = "exhale"
    breathe_by: Literal["nose", "nose and mouth", "free"] = "nose"
    pelvis: Literal["neutral", "imprint", "free"] = "neutral"
    holds: Literal["breaths", "clock"] = "breaths"
    counting: Literal["up", "down", "last three", "silent"] = "last three"
    retention: bool = False
    names: Literal["english", "traditional", "both"] = "english"
    say_names: Literal["first", "always", "never"] = "first"
    describes: Literal["before", "while"] = "before"
    teaching: float = 1.0
    moving: float = 1.0
    second_side: Literal["short", "full", "wordless"] = "short"
    voice: Literal["inviting", "direct"] = "direct"
    breath_words: Literal["always", "first few", "none"] = "first few"
    mirror: bool = False
    roll: Literal["right", "left", "by time of day", "free"] = "right"
    closing: str = ""
    talk: float = 0.6
    count_s: float = 1.0
    least_rest: float = 0.0
    keeps_from: tuple[str, ...] = ()
    pace: Pace = Pace()


Schools = dict[str, School]
FIXED = ("id", "name", "noun", "about")


def school_of(brief: Brief, schools: Schools) -> School:
    """The school of the brief's style with the brief's own ways and pace over it.

    Raises Problem for a style that doesn't exist, a way that isn't one, or a value it can't have.
    """
    if brief.style not in schools:
        raise Problem(
            f"There is no style {brief.style!r}.",
            "the promise, style",
            f"Choose one of: {', '.join(schools)}.",
        )
    school = schools[brief.style]
    ways: dict[str, Any] = dict(brief.ways)
    unknown = [name for name in ways if name not in School.__struct_fields__ or name in FIXED]
    if unknown:
        known = [name for name in School.__struct_fields__ if name not in FIXED]
        raise Problem(
            f"There is no way {unknown[0]!r}.", "the promise, ways", f"The ways are: {', '.join(known)}."
        )
    if brief.pace is not None:
        ways["pace"] = brief.pace
    if ways:
        try:
            school = msgspec.convert({**msgspec.to_builtins(school), **msgspec.to_builtins(ways)}, School)
        except msgspec.ValidationError as error:
            raise Problem(f"A way has a value it can't have: {error}.", "the promise, ways") from error
    check_pace(school.pace, "the promise, pace")
    return school


def breath_of(beat: Beat, school: School) -> Phase:
    """The phase of breath a beat falls on in this school."""
    if beat == "effort":
        return school.effort_breath
    if beat == "ease":
        return "inhale" if school.effort_breath == "exhale" else "exhale"
    return beat


def roll_side(school: School, time_of_day: str) -> Side:
    """The side a class rolls to out of its rest."""
    if school.roll == "by time of day":
        return "left" if time_of_day in ("evening", "night") else "right"
    return "left" if school.roll == "left" else "right"
