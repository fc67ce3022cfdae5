"""A course: so many weeks of so many classes from one promise, growing in load and independence, each on its
own.

What a class repeats is what the one before it had; what is new grows towards the peak, by its own stages. A
length that was said is every class's; one that grows (`from 15 to 30 minutes`) grows.
"""

import re
from collections.abc import Callable, Iterator

import msgspec

from yewhour.core.draft.draft import Draft, draft_class
from yewhour.core.draft.draft_model import DraftModel, DraftRequest, PeakSteps
from yewhour.core.plan.plan import Brief, movements_of
from yewhour.core.plan.school import school_of
from yewhour.core.plan.vocabulary import LEVELS
from yewhour.core.problem import Problem
from yewhour.core.promise.grammar import NUMBER, number_of
from yewhour.core.promise.wishes import ReadPromise, Wish
from yewhour.core.teaching_data import TeachingData

_TIMES = {"once": 1, "twice": 2}
_NO_LENGTH = r"(?!\d)(?![\s-]*(?:min|hour|hr|h\b|m\b|weeks?|year))"
_WEEKS = re.compile(
    rf"\b(?:an?\s+)?({NUMBER})[- ]weeks?(?P<course>\s+(?:course|series|programme|program|plan)\b)?"
    rf"(?P<of>\s+of\b)?(?:\s+(?P<each>{NUMBER}){_NO_LENGTH})?",
    re.IGNORECASE,
)
_CLASSES = re.compile(
    rf"\b(?:an?\s+)?(?:course|series|programme|program)\s+of\s+({NUMBER}){_NO_LENGTH}(?:\s+classes)?",
    re.IGNORECASE,
)
# "three 10-minute classes for the week", or "three 10-minute classes" to begin with: a course of one week.
_THIS_WEEK = re.compile(
    rf"(?:\b({NUMBER})\s+(?P<kind>[^,;.]*?\bclasses)\s+(?:for|in|during|of)?\s*(?:the|this|a|one|next)\s+week\b"
    rf"|^\s*(?P<first>{NUMBER}){_NO_LENGTH}\s+(?P<of_these>[^,;.]*?\bclasses)\b)",
    re.IGNORECASE,
)
_A_WEEK = re.compile(
    rf"\b(once|twice|{NUMBER}(?:\s+(?:times|classes|sessions|lessons))?)\s+(?:a|per|every|each)\s+week\b",
    re.IGNORECASE,
)
_GROWS = re.compile(
    rf"\b(?:growing\s+)?from\s+({NUMBER})(?:\s*min\w*)?\s+to\s+({NUMBER})[\s-]*min\w*", re.IGNORECASE
)
_CLASS_WORD = re.compile(r"\bclasses\b", re.IGNORECASE)
MOST_WEEKS, MOST_EACH = 26, 7
QUIETER, REPEATED = 0.3, 1.2  # less talk at the end of a course; how welcome what came before is
GROWN_AT = 0.67  # of a course that goes beyond its level, where it may


class CourseShape(msgspec.Struct, frozen=True):
    """So many weeks of so many classes; the first and the last length in seconds, where they grow. said: her
    words."""

    weeks: int
    each: int
    grows: tuple[float, float] | None = None
    said: str = ""

    @property
    def wish(self) -> Wish:
        """The course as a wish."""
        total = self.weeks * self.each
        meaning = f"a course of {total} classes, {self.each} a week, each building on the one before"
        return Wish(self.said, meaning)


class CourseClass(msgspec.Struct, frozen=True):
    """One class of a course: its place, and what it brings new and has again, by movement."""

    week: int
    number: int
    draft: Draft
    new: tuple[str, ...]
    again: tuple[str, ...]


def course_in(text: str) -> tuple[CourseShape, str] | None:
    """The course that a promise asks for, and the rest of the promise; None where it asks for one class.

    Raises Problem for more weeks, or more classes a week, than can be.
    """
    found, a_week = _WEEKS.search(text), _A_WEEK.search(text)
    if found is not None and (found["course"] or found["of"] or found["each"] or a_week):
        weeks = number_of(found[1])
        each = number_of(found["each"]) if found["each"] else 1.0
    elif (found := _CLASSES.search(text)) is not None:
        weeks, each = number_of(found[1]), 1.0
    elif (found := _THIS_WEEK.search(text)) is not None and number_of(found[1] or found["first"]) > 1:
        weeks, each = 1.0, number_of(found[1] or found["first"])
    else:
        return None
    kind = found.groupdict().get("kind") or found.groupdict().get("of_these") or ""
    said, rest = found[0].strip(), f"{text[: found.start()]} {kind} {text[found.end() :]}"
    if (again := _A_WEEK.search(rest)) is not None:
        word = again[1].lower().split()[0]
        each = float(_TIMES.get(word, 0) or number_of(word))
        rest = f"{rest[: again.start()]} {rest[again.end() :]}"
    grows = None
    if (grown := _GROWS.search(rest)) is not None:
        grows = (number_of(grown[1]) * 60, number_of(grown[2]) * 60)
        rest = f"{rest[: grown.start()]} {number_of(grown[2]):g} minutes {rest[grown.end() :]}"
    if not (1 <= weeks <= MOST_WEEKS and 1 <= each <= MOST_EACH):
        long = "one week" if weeks == 1 else f"{weeks:g} weeks"
        what = f"A course of {long}, {each:g} a week, can't be drafted."
        raise Problem(what, "the promise", f"Ask for {MOST_WEEKS} weeks of {MOST_EACH} at most.")
    return CourseShape(int(weeks), int(each), grows, said), _CLASS_WORD.sub("class", rest)


def drafted_course(
    read: ReadPromise,
    shape: CourseShape,
    seed: int,
    teaching_data: TeachingData,
    model: DraftModel,
    stage: Callable[[str], object] = lambda text: None,
) -> Iterator[CourseClass]:
    """The classes of a course, one after the other. stage: hears which one is made. Raises Problem as a
    draft."""
    total = shape.weeks * shape.each
    before: frozenset[str] = frozenset()
    seen: set[str] = set()
    ladder = _ladder(read.brief, model, total)
    for at in range(total):
        stage(f"class {at + 1} of {total}")
        week, number = at // shape.each + 1, at % shape.each + 1
        brief = _brief_at(read.brief, shape, at, total, ladder[at], teaching_data)
        liked = dict.fromkeys(before, REPEATED)
        draft = draft_class(DraftRequest(brief, seed + week, liked=liked), teaching_data, model)
        there = [name for name in _asked(draft, teaching_data) if name in teaching_data.library]
        again = tuple(name for name in there if name in seen)
        yield CourseClass(week, number, draft, tuple(name for name in there if name not in seen), again)
        seen.update(there)
        before = movements_of(draft.plan, draft.plan.sections)


def _asked(draft: Draft, teaching_data: TeachingData) -> list[str]:
    """The movements of work of a draft, in their order."""
    work = (one.use.step.movement for one in draft.timed.segments if not one.behaviour.bare)
    return list(dict.fromkeys(name for name in work if teaching_data.library[name].effort >= 1))


def _ladder(brief: Brief, model: DraftModel, total: int) -> list[tuple[str, tuple[str, ...]]]:
    """For each class the peak it goes to, and what is to be new in it: what prepares the course's own
    peak."""
    steps = model.peaks.get(brief.peak, PeakSteps())
    rungs = [*steps.stages, brief.peak] if brief.peak else [""]
    news = [one for one in steps.prepares if one not in rungs]
    return [
        (rungs[-1] if at == total - 1 else rungs[at * len(rungs) // total], tuple(news[at : at + 1]))
        for at in range(total)
    ]


def _brief_at(
    brief: Brief,
    shape: CourseShape,
    at: int,
    total: int,
    rung: tuple[str, tuple[str, ...]],
    teaching_data: TeachingData,
) -> Brief:
    """The promise of one class: its place in the title, its length, its load, and how much is said."""
    share = at / max(1, total - 1)
    target_s = brief.target_s
    if shape.grows is not None:
        first, last = shape.grows
        target_s = round((first + share * (last - first)) / 60) * 60.0
    level = brief.level
    if share > GROWN_AT and level in ("gentle", "beginners") and brief.peak:
        level = LEVELS[LEVELS.index("mixed")]
    talk = school_of(brief, teaching_data.schools).talk
    ways = {**brief.ways, "talk": round(talk * (1 - QUIETER * share), 2)} if share else brief.ways
    peak, new = rung
    wanted = tuple(dict.fromkeys((*brief.wanted, *new)))
    title = f"{brief.title} {at + 1}"
    why = "" if at else brief.reason  # nobody says it twelve times
    return msgspec.structs.replace(
        brief, title=title, target_s=target_s, level=level, ways=ways, peak=peak, wanted=wanted, reason=why
    )
