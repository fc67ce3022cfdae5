"""The model of what makes a good class, as it is declared in data/draft.toml; and what is asked for."""

from collections.abc import Mapping
from typing import Literal

import msgspec

from yewhour.core.plan.plan import Brief

About = Literal["warm", "focus", "peak", "ease", "order", "breath", "flow"]


class DeclaredPart(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Something that stands in the file; a word that is not known there is refused."""


class DraftPart(DeclaredPart, frozen=True):
    """A part of a class: its share of the length, what the body rests on in it, in order, and how hard it is.

    chain: how many one-sided movements may stand in one pair. blocks: flows it may begin with; must: it
    does. least: seconds of a class from which on it is there. more: families besides those of the style.
    again: what came in another part may come here too.
    """

    title: str
    role: str
    share: float
    bases: tuple[str, ...]
    effort: tuple[int, int]
    about: About
    chain: int = 1
    blocks: tuple[str, ...] = ()
    must: bool = False
    least: int = 0
    more: tuple[str, ...] = ()
    again: bool = False


class DraftRoute(DeclaredPart, frozen=True):
    """One way a class of a style may go: the openings it may begin with, and its parts."""

    opening: tuple[str, ...]
    parts: tuple[DraftPart, ...]


class DraftStyle(DeclaredPart, frozen=True):
    """A style. rest: the rests it may end in, none for none; closings: by time of day, "" for any other.

    only: words of which a movement's props or id must have one. order: the block that gives a tradition's
    order; begin: what stands first in it wherever it can; before, after: what may stand right before or
    after a movement of the order, by that movement. between: what stands between two strong practices.
    needs: the prop it can't do without. few: seconds that a movement lasts at least, so that there are few.
    stretch: how much longer a movement is done than usual, for the same reason. quiet: what promises quiet
    before a long hold. kinds: those of movements there are, where not all. restful: all of it is rest.
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
    stretch: float = 1.0
    quiet: str = ""
    kinds: tuple[str, ...] = ()
    restful: bool = False


class DraftLevel(DeclaredPart, frozen=True):
    """The most effort of a level, and the marks it leaves out."""

    most: int
    without: tuple[str, ...]


class FlowBlock(DeclaredPart, frozen=True):
    """What a block is as one movement: where, what for, how hard, how long (seconds)."""

    bases: tuple[str, ...]
    areas: tuple[str, ...]
    effort: int
    seconds: float


class PromiseWords(DeclaredPart, frozen=True):
    """Other words for styles, levels, areas and times of day, and what each means."""

    styles: dict[str, str]
    levels: dict[str, str]
    areas: dict[str, str]
    times: dict[str, str]


class DraftWeights(DeclaredPart, frozen=True):
    """How much speaks for a movement, and how a class is put together; data/draft.toml says what each is."""

    way: float
    luck: float
    longer: float
    often: float
    beside: float
    again: float
    cold: float
    focus: float
    focus_elsewhere: float
    focus_least: float
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
    gentler: float
    face: float
    at_hand: float
    alike: float
    alike_focus: float
    same_family: float
    same_prop: float
    over: float
    empty: float
    wrists_s: float
    short_s: float
    least_part_s: float
    opening_s: float
    closing_s: float
    props_used: int
    keener: tuple[float, ...]
    focused: float
    first: float
    near: tuple[float, float]
    dropped: tuple[str, ...]


class DraftModel(DeclaredPart, frozen=True):
    """All of it. never: movements that are no part of a draft. unsaid: areas
    that are no part of the body to be warmed. words: how a promise may be
    put. weights: of the search. why, why_not: the wording of reasons, by their code."""

    never: frozenset[str]
    unsaid: frozenset[str]
    blocks: dict[str, FlowBlock]
    levels: dict[str, DraftLevel]
    styles: dict[str, DraftStyle]
    words: PromiseWords
    weights: DraftWeights
    why: dict[str, str]
    why_not: dict[str, str]


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
