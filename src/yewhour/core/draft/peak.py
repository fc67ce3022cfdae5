"""The peak of a class, named or the best there is; its stages, what prepares it and what answers it."""

from collections.abc import Mapping, Sequence

import msgspec

from yewhour.core.draft.candidate_pool import CandidatePool, PoolItem, fits_base
from yewhour.core.draft.draft_model import DraftPart, PeakSteps
from yewhour.core.draft.search import MovementJudge, SearchState

LATELY = 4.0  # how much less a peak is worth that was taught lately
LONGER_TRY = 2  # breaths more than usual, so that it can be taught
BETWEEN = 2  # breaths between two tries
PREPARED = 3  # movements, at least, that prepare a peak


class Peak(msgspec.Struct, frozen=True):
    """The highest point of a class. part: the title of the part it ends. stages: what grows into it.

    prepares: what may prepare it, the best first. after: what answers it. named: whether the promise did.
    """

    item: PoolItem
    part: str
    stages: tuple[PoolItem, ...] = ()
    prepares: tuple[PoolItem, ...] = ()
    after: tuple[PoolItem, ...] = ()
    named: bool = False

    @property
    def kept(self) -> tuple[str, ...]:
        """Movements that stand where the peak has them, and nowhere else."""
        return tuple(one.id for one in (*self.stages, self.item, *self.after))

    @property
    def tries(self) -> tuple[PoolItem, ...]:
        """The peak as often as it is tried: gentler first, and again after a breath where it began;
        once what has two sides, turns upside down, or was not asked for by name."""
        item, movement = self.item, self.item.movement
        once = item.sided or "inversion" in item.marks or not self.named
        if once or movement is None or not movement.behaviour.is_hold or "peak" not in item.marks:
            return (item,)
        longer = msgspec.structs.replace(item, amount=min(movement.dose[2], movement.dose[1] + LONGER_TRY))
        has_way = movement.gentler is not None and not movement.gentler.movement
        first = msgspec.structs.replace(longer, take="gentler") if has_way else longer
        between = tuple(
            msgspec.structs.replace(one, amount=BETWEEN)
            for one in self.stages[-1:]
            if one.bases == item.bases and not one.sided and one.movement and one.movement.behaviour.is_hold
        )
        return (first, *between, longer)

    @property
    def costs(self) -> float:
        """Seconds of its stages and of itself."""
        return sum(one.costs for one in (*self.stages, *self.tries))


def chosen_peak(
    parts: Sequence[tuple[DraftPart, float]],
    pool: CandidatePool,
    judge: MovementJudge,
    known: Mapping[str, PeakSteps],
) -> Peak | None:
    """The peak of a class: chosen first, as other parts look to it. None where it has no such part.

    A tradition's order has its peaks in it: one that is named is then only asked for.
    """
    named = pool.items.get(judge.ask.brief.peak)
    part = next((one for one, _ in parts if one.about == "peak"), None)
    if part is None and named is not None and not (judge.order and named.id in judge.order):
        work = [one for one, _ in parts if one.role in ("build", "peak", "warm")] or [one for one, _ in parts]
        part = work[-1] if work else None
    if part is None:
        return None
    if named is not None:
        fitting = [
            one for one, _ in parts if one.role in ("build", "peak") and fits_base(named, one.bases) >= 0
        ]
        part = fitting[-1] if fitting else part
        return _around(named, part, pool, judge, known.get(named.id, PeakSteps()), True)
    low, high = part.effort
    ready = [
        item
        for item in pool.items.values()
        if item.movement is not None
        and low <= item.effort <= high
        and fits_base(item, part.bases) >= 0
        and item.family not in ("breath-practices", "breathing")
        and (not item.prepared_by or "peak" not in item.marks or set(item.prepared_by) & pool.items.keys())
        and item.id not in judge.ask.without
        and not (judge.ask.brief.level in ("gentle", "beginners") and "peak" in item.marks)
    ]
    lately = judge.ask.lately
    best = max(
        ready,
        key=lambda item: (judge.fits(item, part) - LATELY * lately.get(item.id, 0.0), item.id),
        default=None,
    )
    if best is None or "peak" not in best.marks:
        return None
    if judge.keen > 1 and judge.focus and not judge.about(best):
        return None  # what it is prepared by would fill a class that is about something else
    return _around(best, part, pool, judge, known.get(best.id, PeakSteps()), False)


def _around(
    item: PoolItem, part: DraftPart, pool: CandidatePool, judge: MovementJudge, steps: PeakSteps, named: bool
) -> Peak:
    """A peak with what there is for it: by data/draft.toml, else by its own file, else what is alike."""
    movement, there = item.movement, pool.items
    gentler = movement.gentler.movement if movement is not None and movement.gentler is not None else ""
    stages = [there[one] for one in steps.stages if one in there]
    if not stages:
        stages = [there[one] for one in (gentler, *item.prepared_by[-1:]) if one in there][:1]
    answers = [there[one] for one in (*steps.answers, *item.neutralised_by) if one in there][:1]
    kept = {one.id for one in (*stages, *answers)} | {item.id}
    ready = [
        there[one]
        for one in dict.fromkeys((*item.prepared_by, *steps.prepares))
        if one in there and one not in kept
    ]
    lately = judge.ask.lately
    ready.sort(key=lambda one: (one.id not in item.prepared_by, lately.get(one.id, 0.0) - judge.luck(one)))
    alike = [
        one
        for one in there.values()
        if one.movement is not None
        and one.id not in kept
        and one not in ready
        and one.effort < max(2, item.effort)
        and len(one.areas & item.areas) >= min(2, len(item.areas))
    ]
    alike.sort(key=lambda one: (lately.get(one.id, 0.0) - len(one.areas & item.areas), -judge.luck(one)))
    return Peak(item, part.title, tuple(stages), (*ready, *alike[: 2 * PREPARED]), tuple(answers), named)


def with_peak(
    items: tuple[PoolItem, ...], peak: Peak, own: bool, came: SearchState, judge: MovementJudge
) -> tuple[tuple[PoolItem, ...], SearchState]:
    """The items of the peak's own part with it at their end; those of the next part with its answer first."""
    there = peak.kept
    rest = tuple(one for one in items if one.id not in there)
    if own:
        work = (*peak.stages, *peak.tries)
        about = sum(one.lasts * judge.about(one) for one in work)
        came = msgspec.structs.replace(
            came, here=peak.item.ends or came.here, used=came.used | {*there},
            worked_s=came.worked_s + sum(one.lasts for one in work), focused_s=came.focused_s + about,
            last=(*came.last, *work)[-2:],
        )  # fmt: skip
        return (*rest, *work), came
    return (*peak.after, *rest), msgspec.structs.replace(came, used=came.used | {*there})
