"""The search: the movements of a part, in an order, that are worth most in the time there is.

A beam: of all beginnings of a part the most promising are carried on, so many at a time. That is not the best
there is, but how far from it it can be is known: no order is worth more than its movements without their
ways, and of those the ones worth most a second fill the time best (`bound`).
"""

import math
import zlib
from collections.abc import Sequence

import msgspec

from yewhour.core.draft.candidate_pool import PoolItem, fits_base
from yewhour.core.draft.draft_model import DraftPart, DraftRequest, DraftWeights
from yewhour.core.library.position import PositionGraph, base_of
from yewhour.core.problem import Problem

WIDTH, TRIED = 10, 12  # beginnings carried on; movements tried after each
NO_WAY_S = 1000.0
NONE: frozenset[str] = frozenset()
LAST = 2  # movements that the next should not be like
LIKED = 2.4  # how welcome what is for who may be there is, against what she welcomes herself
WARMED = 2  # movements that a body is warmed with, whatever a class is about
STEADY = 4  # effort on the feet that nobody begins with
EVENED_S = 150.0  # that one of several areas can be behind another by, and be made up for
MAY_OVER, MUST_OVER = 0.45, 0.6  # of itself a movement may be over its part's room; a flow that must come
STRICT = ("focus", "peak", "breath")


class SearchState(msgspec.Struct, frozen=True):
    """How far a class has come: where the body is, what was used, seconds of work, of focus (what goes with
    it counts in part), on wrists.

    focus_s: seconds about each of several areas that the class is about.
    """

    here: str = "start"
    used: frozenset[str] = frozenset()
    twice: frozenset[str] = frozenset()
    props: frozenset[str] = frozenset()
    worked_s: float = 0.0
    focused_s: float = 0.0
    wrists_s: float = 0.0
    last: tuple[PoolItem, ...] = ()
    areas: dict[str, int] = {}
    focus_s: dict[str, float] = {}
    warmed: int = 0
    stood: bool = False


class SearchPath(msgspec.Struct, frozen=True):
    """A beginning of a part: its items with what each is worth, seconds it takes, and where it has come."""

    came: SearchState
    items: tuple[PoolItem, ...] = ()
    takes_s: float = 0.0
    worth: float = 0.0
    base: int = 0


class MovementJudge(msgspec.Struct, frozen=True):
    """What a movement is worth in a part of a class.

    focus: areas the class is about; next_to: those that go with them. ahead: areas that what comes later
    needs. wanted: movements that must come in this part, as something later asks for them. groups: of
    movements, that were asked for. order: places in a tradition's order; beside: what stands in it but is not
    of it. keen: how much more the focus counts than usual. few: seconds that a movement should last at least.
    blocks: those that may be there.
    kept: movements that have their place already. liked: those for who may be there. kin: what does nearly
    the same as each. grows, grown: what each grows out of, and what grows out of it.
    scarce: of several areas that the class is about, how much rarer than the commonest each is in what may be
    chosen; 1 for that one.
    """

    ask: DraftRequest
    weights: DraftWeights
    positions: PositionGraph
    focus: frozenset[str]
    next_to: frozenset[str] = frozenset()
    ahead: frozenset[str] = frozenset()
    wanted: frozenset[str] = frozenset()
    groups: frozenset[str] = frozenset()
    order: dict[str, int] = {}
    beside: frozenset[str] = frozenset()
    keen: float = 1.0
    few: int = 0
    blocks: frozenset[str] = frozenset()
    kept: frozenset[str] = frozenset()
    liked: frozenset[str] = frozenset()
    kin: dict[str, frozenset[str]] = {}
    grows: dict[str, tuple[str, ...]] = {}
    grown: dict[str, frozenset[str]] = {}
    scarce: dict[str, float] = {}

    def about(self, item: PoolItem) -> float:
        """1 for what is about the focus, a part of it for what goes with that, else 0."""
        return 1.0 if item.areas & self.focus else self.weights.focus_next * bool(item.areas & self.next_to)

    def luck(self, item: PoolItem) -> float:
        """From 0 to 1: what the seed thinks of a movement for this promise, the same each time."""
        return (zlib.crc32(f"{self.ask.seed}/{item.id}/{self.ask.promised}".encode()) % 10_000) / 10_000

    def alone(self, item: PoolItem, part: DraftPart) -> float:
        """What it is worth by itself, whatever stands before it, for the time it takes."""
        takes_s = item.costs * (
            0.7 if item.sided and self.order else 1.0
        )  # the other side is no new movement
        return self.fits(item, part) * math.pow(max(20.0, min(120.0, takes_s)) / 45, self.weights.longer)

    def fits(self, item: PoolItem, part: DraftPart) -> float:
        """How well it fits a part, however long it takes."""
        weights = self.weights
        worth = 1.0 + weights.luck * self.luck(item) - weights.lately * self.ask.lately.get(item.id, 0.0)
        worth += weights.liked * max(self.ask.liked.get(item.id, 0.0), LIKED * (item.id in self.liked))
        if self.focus:
            about = weights.focus if part.about in STRICT else weights.focus_elsewhere
            rarest = max((self.scarce.get(area, 1.0) for area in item.areas & self.focus), default=1.0)
            worth += self.keen * about * self.about(item) * rarest
        if self.groups and part.about != "ease":
            about = weights.focus if part.about in STRICT else weights.focus_elsewhere
            worth += self.keen * about * bool(item.groups & self.groups)
        if part.about == "warm":
            worth += weights.warms * item.warms
            worth += weights.warms_ahead * bool(item.areas & self.ahead)
        elif part.about == "ease":
            worth += weights.eases * (item.effort <= 1) + weights.neutralises * ("neutralising" in item.marks)
            worth -= weights.ease_effort * item.effort
        elif part.about == "peak":
            worth += weights.peak_effort * item.effort + weights.peak * ("peak" in item.marks)
        elif part.about == "order" and self.ask.brief.target_s < weights.brief_s:
            worth -= weights.order_effort * max(0, item.effort - 2)  # so short a run is never warm enough
        if item.id in self.wanted:
            worth += weights.wanted
        worth -= weights.beside * (item.id in self.beside)
        if item.take == "gentler":
            worth -= weights.gentler
        if item.areas == {"face"} and "face" not in self.focus:
            worth -= weights.face
        worth += weights.at_hand * any(prop in self.ask.brief.props for prop in item.props)
        if self.few:
            worth *= min(1.0, item.lasts / (2 if item.sided else 1) / self.few)
        return max(0.05, worth)

    def after(self, item: PoolItem, came: SearchState) -> float:
        """What it is worth less, or more, after what came."""
        weights = self.weights
        less = (weights.way_between_few if self.few else weights.way) * self._way_s(came.here, item.start)
        areas, alike, named = item.areas, 0, False
        for one in came.last:  # loops: this is asked ten thousand times for an hour
            alike += len(areas & one.areas)
            less += weights.same_family * (item.family == one.family and not self.order)
            named = named or bool(item.names & one.names)
        less += weights.same_name * named
        about = self.focus | self.next_to
        alike_costs = weights.alike_focus if areas & about else weights.alike
        less += alike_costs * alike / max(1, len(areas))
        if self.scarce and (mine := item.areas & self.focus):
            most_s = max(came.focus_s.get(area, 0.0) for area in self.focus)
            behind_s = max(most_s - came.focus_s.get(area, 0.0) for area in mine)
            less -= weights.even * min(EVENED_S, behind_s) / 60
        others = item.areas - about
        if others and not self.order:  # a tradition's own order is about the same all through
            before = 0
            for area in others:
                before += came.areas.get(area, 0)
            less += weights.often * before / len(others)
        less += weights.same_balance * ("balance" in item.marks and "balance" in _marks(came.last[-1:]))
        hardest = max((one.effort for one in came.last), default=1)
        less += weights.jump * max(0, item.effort - hardest - 1) * (not self.order)
        less += weights.same_prop * bool(item.props and came.props.issuperset(item.props))
        return less

    def ends(self, here: str, need: str) -> str:
        """The position in which a need is met, coming from there."""
        try:
            return self.positions.way(here, need).end
        except Problem:
            return here

    def _way_s(self, here: str, need: str) -> float:
        return min(NO_WAY_S, self.positions.seconds(here, need))


def _marks(items: Sequence[PoolItem]) -> tuple[str, ...]:
    return tuple(mark for one in items for mark in one.marks)


def fill_part(
    items: Sequence[PoolItem], part: DraftPart, judge: MovementJudge, came: SearchState, room_s: float
) -> SearchPath:
    """The movements of a part in their order. items: those that may stand in it."""
    worth = {item.id: judge.alone(item, part) for item in items}
    bases = {item.id: fits_base(item, part.bases) for item in items}
    ranked = sorted(items, key=lambda item: (-worth[item.id] / math.sqrt(item.costs), item.id))
    if part.about == "order" and judge.order:
        return _in_order(ranked, part, judge, came, room_s)
    beam, best = [SearchPath(came)], SearchPath(came)
    while beam:
        grown: list[SearchPath] = []
        for path in beam:
            tried = 0
            for item in ranked:
                if tried >= TRIED:
                    break
                longer = _with(path, item, part, judge, worth[item.id], bases[item.id], room_s)
                if longer is not None:
                    grown.append(longer)
                    tried += 1
        grown.sort(key=lambda path: -_promise(path, judge.weights, room_s))
        beam = _apart(grown)
        for path in beam:
            must = part.must and not best.items  # what must come is better than nothing, however long
            if must or _promise(path, judge.weights, room_s) > _promise(best, judge.weights, room_s):
                best = path
    return best


def _apart(grown: list[SearchPath]) -> list[SearchPath]:
    """The most promising, of those with the same movements only one."""
    kept: dict[frozenset[str], SearchPath] = {}
    for path in grown:
        kept.setdefault(path.came.used, path)
        if len(kept) == WIDTH:
            break
    return list(kept.values())


def _in_order(
    ranked: Sequence[PoolItem], part: DraftPart, judge: MovementJudge, came: SearchState, room_s: float
) -> SearchPath:
    """The movements that are worth most a second, in the order of their tradition.

    A beam would go through the order in a few steps and could not go back; here what comes next is known.
    """
    chosen: list[PoolItem] = []
    best = SearchPath(came)
    for item in sorted(ranked, key=lambda item: item.id not in judge.wanted):
        there = sorted([*chosen, item], key=lambda one: (judge.order.get(one.id, 0), one.id))
        path: SearchPath | None = SearchPath(came)
        for one in there:
            assert path is not None
            worth = judge.alone(one, part)
            path = _with(path, one, part, judge, worth, fits_base(one, part.bases), room_s)
            if path is None:
                break
        if path is not None and _promise(path, judge.weights, room_s) > _promise(best, judge.weights, room_s):
            chosen, best = there, path
    return best


def _promise(path: SearchPath, weights: DraftWeights, room_s: float) -> float:
    """How good a beginning is: its worth, less what is too long or still empty."""
    off_s = path.takes_s - room_s
    return path.worth - (weights.over if off_s > 0 else weights.empty) * abs(off_s)


def _with(
    path: SearchPath,
    item: PoolItem,
    part: DraftPart,
    judge: MovementJudge,
    worth: float,
    base: int,
    room_s: float,
) -> SearchPath | None:
    came = path.came
    if item.id in came.used and (not part.again or any(one.id == item.id for one in path.items)):
        return None
    if item.id in came.twice and not judge.order:
        return None
    if item.movement is None and path.items:
        return None
    if judge.order:
        base = judge.order.get(item.id, -1)
        if any(judge.order.get(one.id, -1) > base for one in path.items):
            return None
    elif base < path.base:
        return None
    ends = item.ends or came.here
    if len(item.bases) > 1:  # of `seated or standing` the one that the body is nearest to
        ends = judge.ends(came.here, item.start)
        if base_of(ends) not in {one.partition(" ")[0] for one in part.bases}:
            return None
    way_s = judge._way_s(came.here, item.start)
    cost_s = item.costs + way_s
    must = (part.must and not path.items) or (part.about == "breath" and item.id in judge.wanted)
    over = MUST_OVER if must else MAY_OVER
    if way_s >= NO_WAY_S or path.takes_s + cost_s > room_s + over * item.costs + 8:
        return None
    if part.must and not path.items and item.movement is not None and judge.blocks & set(part.blocks):
        return None
    rested = part.must and not path.items  # a flow begins on the feet
    on_end_s = 0.0 if rested else came.wrists_s
    wrists_s = on_end_s + item.lasts if "wrist" in item.loads else 0.0
    if "wrist" in item.loads and wrists_s > judge.weights.wrists_s and on_end_s:
        return None
    if not judge.order and len(came.last) == LAST and all(one.folds for one in (*came.last, item)):
        return None  # no third fold running
    if item.strong and not came.warmed and not item.warms:
        return None
    if came.last and came.last[-1].id in judge.kin.get(item.id, NONE):
        return None  # the same thing twice running
    if (
        item.on_feet
        and item.effort >= STEADY
        and item.movement is not None
        and not (came.stood or judge.order)
    ):
        return None  # nobody stands up into the hardest of it
    mine = item.areas & judge.focus
    about = judge.about(item)
    worked_s, focused_s = came.worked_s + item.lasts, came.focused_s + item.lasts * about
    least = judge.weights.focus_least * min(1.0, judge.keen / 2)
    asked = item.id in judge.wanted or part.about == "breath"  # a breath is about no place of the body
    if judge.focus and not about and focused_s < least * worked_s and not asked:
        early = part.about in ("warm", "flow")
        # whatever it is about, nobody begins cold, or goes from the work to the rest
        frames = part.about == "warm" or (part.role == "settle" and part.about == "ease")
        if judge.keen > 1 and not (frames and len(path.items) < WARMED) and (not early or judge.keen > 2):
            return None
        worth -= judge.weights.off_focus * (not early)
    now = SearchState(
        here=ends,
        used=came.used | {item.id},
        twice=came.twice | ({item.id} & came.used),
        props=came.props | set(item.props),
        worked_s=worked_s,
        focused_s=focused_s,
        wrists_s=wrists_s,
        last=(*came.last, item)[-LAST:],
        areas={**came.areas, **{area: came.areas.get(area, 0) + 1 for area in item.areas}},
        focus_s={**came.focus_s, **{area: came.focus_s.get(area, 0.0) + item.lasts for area in mine}}
        if judge.scarce
        else came.focus_s,
        stood=came.stood or item.on_feet,
        warmed=came.warmed + (item.warms or (item.effort >= 2 and not item.strong)),
    )
    if part.about == "warm" and not path.items and item.movement is not None and not item.warms:
        worth -= judge.weights.cold
    if item.id in came.used:
        worth -= judge.weights.again
    if part.about != "order":  # a tradition's order knows what follows on what
        worth -= judge.weights.kin * bool(came.used & judge.kin.get(item.id, NONE))
        worth -= judge.weights.backwards * bool(came.used & judge.grown.get(item.id, NONE))
        out_of = judge.grows.get(item.id, ())
        worth -= judge.weights.ungrown * bool(out_of and came.used.isdisjoint(out_of))
    gained = worth - judge.after(item, came)
    return SearchPath(
        now, (*path.items, item), path.takes_s + cost_s, path.worth + gained, max(base, path.base)
    )


def worth_bound(items: Sequence[PoolItem], part: DraftPart, judge: MovementJudge, room_s: float) -> float:
    """No choice of movements for a part is worth more than that: they fit its time to the second, need no way
    between them, and none is like another."""
    worth = sorted(
        ((judge.alone(item, part), item.costs) for item in items), key=lambda row: -row[0] / row[1]
    )
    total, left_s = 0.0, room_s
    for gained, costs in worth:
        if left_s <= 0:
            break
        total += gained * min(1.0, left_s / costs)
        left_s -= costs
    return total
