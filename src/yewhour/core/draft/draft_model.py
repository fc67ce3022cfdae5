"""The model of what makes a good class, as it is declared in data/draft.toml; and what is asked for."""

from collections.abc import Container, Iterable, Mapping
from typing import Literal

import msgspec

from yewhour.core.conditions.room import Room
from yewhour.core.plan.plan import Brief
from yewhour.core.teaching_data import TeachingData

About = Literal["warm", "focus", "peak", "ease", "order", "breath", "flow"]

BREATHS = ("breathing", "breath-practices")  # families that stand where a class breathes, if it does
MORE_THAN_LEAST = 1.25  # a rest is drafted so much longer than the least it may have


class DeclaredPart(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Something that stands in the file; a word that is not known there is refused."""


class DraftPart(DeclaredPart, frozen=True):
    """A part of a class: its share of the length, what the body rests on in it, in order, and how hard it is.

    chain: how many one-sided movements may stand in one pair. between: flows that lead from one chain to the
    next, the first of them that all can do. blocks: flows it may begin with; must: it does. least: seconds of
    a class from which on it is there; most: up to which, 0 for any. more: families besides those of the
    style. again: what came in another part may come here too. areas: what all in it works or opens, one of
    these; none for anything. named: a base, and its title where something stands there and nothing on the
    first of its bases.
    """

    title: str
    role: str
    share: float
    bases: tuple[str, ...]
    effort: tuple[int, int]
    about: About
    chain: int = 1
    between: tuple[str, ...] = ()
    blocks: tuple[str, ...] = ()
    must: bool = False
    least: int = 0
    most: int = 0
    more: tuple[str, ...] = ()
    again: bool = False
    areas: tuple[str, ...] = ()
    named: tuple[str, str] = ("", "")

    def titled(self, bases: Iterable[str], taken: Container[str]) -> str:
        """Its title, of what stands on these bases, where some titles are taken."""
        base, other = self.named
        there = set(bases)
        return other if base in there and self.bases[0] not in there and other not in taken else self.title

    def is_of(self, target_s: float) -> bool:
        """Whether a class of a length has it."""
        return self.least <= target_s <= (self.most or target_s)


class DraftRoute(DeclaredPart, frozen=True):
    """One way a class of a style may go: the openings it may begin with, and its parts.

    times: times of day it is for, none for any. families, kinds, needs, rest, closing, stretch: instead of
    the style's own, for a way that any style goes where the body may not be where the style has it. people:
    conditions, groups that are left out, movements that are asked for, or `about` an area, that a way is for
    before all others, in these styles. least: seconds
    of a class from which on there is that way. opens: seconds that its opening takes besides a welcome.
    rests: the share of a class that it rests at the end. called: what a class is called that goes this way
    instead of its style's.
    """

    opening: tuple[str, ...]
    parts: tuple[DraftPart, ...]
    times: tuple[str, ...] = ()
    families: tuple[str, ...] = ()
    kinds: tuple[str, ...] = ()
    needs: str = ""
    rest: tuple[str, ...] = ()
    closing: str = ""
    stretch: float = 0.0
    people: tuple[str, ...] = ()
    styles: tuple[str, ...] = ()
    least: int = 0
    opens: int = 0
    rests: float = 0.0
    called: str = ""

    @property
    def any_style(self) -> bool:
        """Whether it is gone where too little of a style is left."""
        return bool(self.families) and not self.people


class DraftStyle(DeclaredPart, frozen=True):
    """A style. rest: the rests it may end in, none for none; closings: by time of day, "" for any other.

    only: words of which a movement's props or id must have one. order: the block that gives a tradition's
    order; begin: what stands first in it wherever it can; before, after: what may stand right before or
    after a movement of the order, by that movement. between: what stands between two strong practices.
    needs: the prop it can't do without. few: seconds that a movement lasts at least, so that there are few.
    stay: seconds that one can stay in a movement at least, on a side. stretch: how much longer a movement is
    done than usual, so that there are few. most: the most effort there is in it. quiet: what promises quiet
    before a long hold. kinds: those of movements there are, where not all. restful: all of it is rest.
    also: movements besides those of its families. not_here: those of them that are of another tradition.
    opens, rests: as of a route. nearest: the style whose way is gone where this one has none for somebody.
    """

    families: tuple[str, ...]
    closings: dict[str, str]
    routes: tuple[DraftRoute, ...]
    rest: tuple[str, ...] = ()
    only: tuple[str, ...] = ()
    order: str = ""
    begin: tuple[str, ...] = ()
    before: dict[str, tuple[str, ...]] = {}
    after: dict[str, tuple[str, ...]] = {}
    between: str = ""
    needs: str = ""
    few: int = 0
    stay: int = 0
    stretch: float = 1.0
    most: int = 9
    quiet: str = ""
    kinds: tuple[str, ...] = ()
    restful: bool = False
    also: tuple[str, ...] = ()
    not_here: tuple[str, ...] = ()
    opens: int = 0
    rests: float = 0.0
    nearest: str = ""


class DraftLevel(DeclaredPart, frozen=True):
    """The most effort of a level, and the marks it leaves out."""

    most: int
    without: tuple[str, ...]


class FlowBlock(DeclaredPart, frozen=True):
    """What a block is as one movement: where, what for, how hard, how long (seconds). unless: blocks before
    it in the list that come instead wherever all can do one of them. of: the groups that it is."""

    bases: tuple[str, ...]
    areas: tuple[str, ...]
    effort: int
    seconds: float
    unless: tuple[str, ...] = ()
    of: tuple[str, ...] = ()


class PeakSteps(DeclaredPart, frozen=True):
    """What grows into a peak, what prepares and what answers it: movements, the first that can be first."""

    stages: tuple[str, ...] = ()
    prepares: tuple[str, ...] = ()
    answers: tuple[str, ...] = ()


class DraftWeights(DeclaredPart, frozen=True):
    """How much speaks for a movement, and how a class is put together; data/draft.toml says what each is."""

    way: float
    way_between_few: float
    luck: float
    longer: float
    often: float
    beside: float
    again: float
    kin: float
    backwards: float
    ungrown: float
    cold: float
    focus: float
    focus_elsewhere: float
    focus_next: float
    focus_least: float
    focus_longer: float
    off_focus: float
    lately: float
    liked: float
    wanted: float
    warms: float
    warms_ahead: float
    eases: float
    neutralises: float
    ease_effort: float
    peak_effort: float
    peak: float
    order_effort: float
    gentler: float
    face: float
    at_hand: float
    alike: float
    alike_focus: float
    even: float
    same_family: float
    same_name: float
    same_prop: float
    same_balance: float
    jump: float
    over: float
    empty: float
    wrists_s: float
    short_s: float
    brief_s: float
    least_part_s: float
    opening_s: float
    closing_s: float
    props_used: int
    keener: tuple[float, ...]
    focused: float
    covered: float
    wanted_group: int
    first: float
    near: tuple[float, float]
    dropped: tuple[str, ...]


class DraftModel(DeclaredPart, frozen=True):
    """All of it. never: movements that are no part of a draft; early: those that no class settles with;
    small: those that are no class's highest point.
    kin: what does nearly the same, in rows. grows: what a movement grows out of. near: bases beside a base,
    for what is asked for. unsaid: areas that are no part of the body to be warmed. next_to: areas that go
    with one that a class is about. without_at: what a class of a time of day does without. elsewhere: ways
    that any style goes. weights: of the search. peaks: what
    prepares, grows into and answers a peak. why, why_not: the wording of reasons, by their code.
    """

    never: frozenset[str]
    early: frozenset[str]
    small: frozenset[str]
    kin: tuple[tuple[str, ...], ...]
    grows: dict[str, tuple[str, ...]]
    near: dict[str, tuple[str, ...]]
    unsaid: frozenset[str]
    next_to: dict[str, tuple[str, ...]]
    blocks: dict[str, FlowBlock]
    levels: dict[str, DraftLevel]
    styles: dict[str, DraftStyle]
    without_at: dict[str, tuple[str, ...]]
    elsewhere: tuple[DraftRoute, ...]
    weights: DraftWeights
    peaks: dict[str, PeakSteps]
    why: dict[str, str]
    why_not: dict[str, str]

    def kin_of(self) -> dict[str, frozenset[str]]:
        """What does nearly the same, by movement."""
        found: dict[str, frozenset[str]] = {}
        for row in self.kin:
            for one in row:
                found[one] = (found.get(one, frozenset()) | frozenset(row)) - {one}
        return found

    def grown_of(self) -> dict[str, frozenset[str]]:
        """What grows out of a movement."""
        found: dict[str, set[str]] = {}
        for later, earlier in self.grows.items():
            for one in earlier:
                found.setdefault(one, set()).add(later)
        return {one: frozenset(later) for one, later in found.items()}


class DraftRequest(msgspec.Struct, frozen=True):
    """What is asked for: a promise, and which of the many classes that keep it (its seed).

    without: movements that are not wanted. lately: movements taught lately, from 0 to 1 by how lately. liked:
    those that would be welcome, likewise.
    """

    brief: Brief
    seed: int = 0
    without: frozenset[str] = frozenset()
    lately: Mapping[str, float] = {}
    liked: Mapping[str, float] = {}

    @property
    def promised(self) -> str:
        """What the luck of a draft hangs on."""
        brief = self.brief
        return f"{brief.style}/{brief.audience}/{brief.focus}/{brief.time_of_day}/{brief.target_s:.0f}"

    def room(self, teaching_data: TeachingData, model: DraftModel) -> Room:
        """Who may be in the room, and what the class does without, by its time of day as well."""
        brief = self.brief
        more = model.without_at.get(brief.time_of_day, ())
        return teaching_data.room(msgspec.structs.replace(brief, without=(*brief.without, *more)))
