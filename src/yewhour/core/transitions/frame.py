"""The frame of a class: why it is given, its shape in a sentence, its theme, and where the work turns.

Its `reason` and `theme` are hers; the sentence about its shape is made of what the class is, until she
writes one. A theme is named in the welcome, met once again where the work turns in the middle, and answered
at the end."""

from collections import Counter
from collections.abc import Sequence
from itertools import pairwise

from yewhour.core.library.position import START, base_of
from yewhour.core.problem import Problem
from yewhour.core.sides import fill
from yewhour.core.timing.step_use import StepUse
from yewhour.core.wording.phrasing import Phrasing

TOLD_S = 420.0  # a shorter class says neither why nor what
TURNED_S = 720.0  # nor where the work turns
MOST_TURNS = 3
ABOUT = 0.5  # of a section's movements, for what it is opened with
LEAST_USES = 2  # of a section that is worth opening
WORKED = 2  # effort from which on something is worked on, and not only eased
RESTFUL = 1  # effort, of a class in which nothing is asked for
ONE_PLACE = 0.8  # of what is done, for a class that is all in one place


class ClassFrame:
    """The words around the work of one class, and where they stand."""

    def __init__(self, phrasing: Phrasing, uses: Sequence[StepUse]) -> None:
        self.phrasing = phrasing
        self.work = [use for use in uses if not use.behaviour.framing and use.start and use.round <= 1]
        self.begins = _first(phrasing, next((use.start for use in uses if use.start), ""))
        brief = phrasing.brief
        self.reason = brief.reason if brief.target_s >= TOLD_S else ""
        self.theme = tuple(brief.theme)  # "" where nothing is said of it there
        self.shape = brief.shape or (self._shape() if brief.target_s >= TOLD_S else "")
        self.turns = self._turns()

    def welcome(self) -> list[str]:
        """What the welcome says after its first line."""
        return [line for line in (self.reason, self.shape, *self.theme[:1]) if line]

    def farewell(self) -> list[str]:
        """What is said before the last words, where a theme is answered."""
        return [line for line in self.theme[2:3] if line]

    def _shape(self) -> str:
        wording = self.phrasing.wording
        stood = self._stood()
        places = [place for use in self.work if (place := wording.shape_places.get(stood[use.key]))]
        if len(places) < LEAST_USES:
            return ""
        if arrived := wording.shape_places.get(base_of(self.begins)):
            places.insert(0, arrived)
        often, times = Counter(places).most_common(1)[0]
        last = wording.shape_last.get(base_of(self.work[-1].end), places[-1])
        for use in self.work:
            if use.movement.id == self.phrasing.brief.peak:
                return self._filled(wording.shape_peak, first=places[0], peak=_spoken(use), last=last)
        if times >= ONE_PLACE * len(places):
            one_place = times == len(places) or last == often  # to end where one was is no news
            quiet = all(use.movement.effort <= RESTFUL for use in self.work)
            alone = wording.shape_one_place_quiet if quiet else wording.shape_one_place
            lines = alone if one_place else wording.shape_mostly
            return self._filled(lines, place=often, last=last)
        focus = {*self.phrasing.brief.focus}
        about = [use for use in self.work if _areas(use) & focus] or self.work
        first = next(base for base, place in wording.shape_places.items() if place == places[0])
        hardest = max(about, key=lambda use: (use.movement.effort, stood[use.key] != first, not use.second))
        middle = wording.shape_places.get(stood[hardest.key], often)
        area = wording.area_words.get(self._area([hardest]) or self._area(self.work), "")
        if middle == places[0] or hardest.movement.effort <= RESTFUL:
            restful = hardest.movement.effort <= RESTFUL
            lines = wording.shape_quiet if restful else wording.shape_early
            return self._filled(lines, first=places[0], last=last)
        if not area:
            return ""
        return self._filled(wording.shape, first=places[0], middle=middle, area=area, last=last)

    def _stood(self) -> dict[str, str]:
        """The base that each use is done on: of `seated or chair` the one that the body is on by then."""
        found: dict[str, str] = {}
        here = base_of(self.begins)
        for use in self.work:
            for need in (use.start, use.end):
                bases = _bases(need) if need else [here]
                here = here if here in bases else bases[0]
                found.setdefault(use.key, here)
        return found

    def _turns(self) -> dict[str, str]:
        """Where the work turns: the key of the use that a section begins with -> how it is opened."""
        if self.phrasing.brief.target_s < TURNED_S:
            return {}
        found: list[tuple[StepUse, str]] = []
        before = self.work[0] if self.work else None
        for number, section in enumerate(dict.fromkeys(use.section for use in self.work)):
            mine = [use for use in self.work if use.section == section]
            area = self._area(mine)
            turned = before is not None and base_of(before.end) not in _bases(mine[0].start)
            resting = any(use.behaviour.is_rest or "rest" in use.movement.works for use in mine)
            resting = resting or mine[0].movement.effort < WORKED  # it begins with what only eases
            about = area not in self.phrasing.brief.focus and area in _areas(mine[0])
            about = about and sum(area in _areas(use) for use in mine) >= ABOUT * len(mine)
            opens = turned and about and not resting and len(mine) >= LEAST_USES and not mine[0].flow
            if number and area and opens:
                found.append((mine[0], area))
            before = mine[-1]
        named: dict[str, str] = {}
        told: set[str] = set()
        for use, area in found:
            if area in told or len(named) == MOST_TURNS:
                continue
            told.add(area)
            wording = self.phrasing.wording
            met = any(area in _areas(one) for one in self.work[: self.work.index(use)])
            lines = wording.section_again if met else wording.section_open
            line = lines[(self.phrasing.habit + len(named)) % len(lines)][0]
            named[use.key] = fill(line, "both", area=wording.area_words[area])
        if len(self.theme) > 1 and self.theme[1] and self.work:
            middle = self._middle([use for use, _ in found])
            if middle is not None:
                named[middle.key] = self.theme[1]
        return named

    def _middle(self, turns: Sequence[StepUse]) -> StepUse | None:
        """The turn that is nearest the middle of the class; or else whatever begins there."""
        places = {use.key: n for n, use in enumerate(self.work)}
        half = len(self.work) // 2
        first = [use for use in self.work[1:] if not use.second and not use.flow]
        return min(turns or first, key=lambda use: abs(places[use.key] - half), default=None)

    def _area(self, uses: Sequence[StepUse]) -> str:
        """What uses are about most, of what the class is about if they are; "" for nothing."""
        wording, focus = self.phrasing.wording, self.phrasing.brief.focus
        counts: Counter[str] = Counter()
        rank: dict[str, int] = {}  # what a movement names first it is most about
        for use in uses:
            for place, area in enumerate((*use.movement.works, *use.movement.opens)):
                rank[area] = min(place, rank.get(area, place))
            for area in _areas(use) & wording.area_words.keys():
                counts[area] += 2 if area in focus else 1
        return min(counts, key=lambda area: (-counts[area], rank[area], area), default="")

    def _filled(self, lines: Sequence[tuple[str, ...]], **words: str) -> str:
        text = fill(lines[len(self.phrasing.brief.title) % len(lines)][0], "both", **words)
        return text[0].upper() + text[1:]


def _spoken(use: StepUse) -> str:
    """The name of a movement within a sentence: `side crow`, but `Warrior III`."""
    first, *rest = use.movement.name.split()
    proper = first.endswith("'s") or any(word[0].isupper() for word in rest)
    return use.movement.name if proper else use.movement.name[0].lower() + use.movement.name[1:]


def _areas(use: StepUse) -> set[str]:
    return {*use.movement.works, *use.movement.opens}


def _bases(need: str) -> list[str]:
    """The bases of a need: those of `seated or chair`."""
    return [base_of(one) for one in need.split(" or ")]


def silent(uses: Sequence[StepUse]) -> frozenset[str]:
    """What is done in a quiet that was told before it, and that somebody is called back from."""
    found: set[str] = set()
    for told, use in pairwise(one for one in uses if not one.setup_for):
        if "quiet ahead" in told.movement.marks and not use.behaviour.framing:
            found.add(use.key)
    return frozenset(found)


def returned(uses: Sequence[StepUse]) -> frozenset[str]:
    """The uses that come back to a posture on no side for the third time or more: they are only named."""
    times: dict[str, int] = {}
    found: set[str] = set()
    for use in uses:
        if use.behaviour.framing or use.flow or use.side != "both" or use.round > 1:
            continue
        times[use.movement.id] = times.get(use.movement.id, 0) + 1
        if times[use.movement.id] > 2 and not use.movement.cautions:
            found.add(use.key)
    return frozenset(found)


def _first(phrasing: Phrasing, need: str) -> str:
    """Where a class begins: of `seated or supine` where the body may be; as it is asked for, where it may
    not."""
    try:
        return phrasing.positions.way(START, need).end if need else ""
    except Problem:
        return need
