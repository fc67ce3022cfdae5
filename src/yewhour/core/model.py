"""The fit model of a plan: its turns gathered into parts, ways and vars for the tables of `fit`."""

from collections.abc import Callable, Iterator, Sequence
from itertools import islice, product

import msgspec
import numpy as np

from yewhour.core.choice import Choice
from yewhour.core.fit import Fit, Part, Var, Way, option_costs
from yewhour.core.lengths import TICKS_PER_S, ticks
from yewhour.core.plan import Block, Node, Rounds, Variant, children
from yewhour.core.position import Positions
from yewhour.core.problem import Problem
from yewhour.core.setup import Saying, with_setups
from yewhour.core.unfold import Range, Turn, Unfolder, range_of, way_of

PAUSE = "closing pause"  # key of the slack of a class that ends without a stillness
PAUSE_MOST = ticks(15.0)
MOST_WAYS = 256  # of one part: combinations of rounds tried

Needs = Callable[[Turn], int]  # ticks that what must be said inside a turn takes


class Model:
    """What fit needs of one plan. `slack_key` is the step that takes what no whole breath can."""

    def __init__(self, unfolder: Unfolder, positions: Positions, saying: Saying, needs: Needs) -> None:
        self.unfolder = unfolder
        self.positions = positions
        self.saying = saying
        self.needs = needs
        self._unfolded: tuple[dict[str, int], list[Turn]] | None = None
        self._seen: list[frozenset[str]] = []
        self._before: list[Turn | None] = []
        parts: list[list[Turn]] = []
        seen: set[str] = set()
        before: Turn | None = None
        for index in range(len(unfolder.nodes)):
            self._seen.append(frozenset(seen))
            self._before.append(before)
            turns = self._node(index, {})
            parts.append(turns)
            seen |= {turn.movement.id for turn in turns}
            before = turns[-1] if turns else before
        self.slack_key = self._slack(parts)
        self.parts: list[Part] = [self._part(index, turns) for index, turns in enumerate(parts)]
        if self.slack_key == PAUSE:
            self.parts.append((Way((), 0.0, 0, (_slack_var(PAUSE, 0, 0, PAUSE_MOST, 4.0),)),))

    def turns(self, choice: Choice) -> list[Turn]:
        """Every turn of the class, set-ups included, with the rounds chosen; the last are remembered."""
        if self._unfolded is not None and self._unfolded[0] == choice.rounds:
            return self._unfolded[1]
        result: list[Turn] = []
        before: Turn | None = None
        for index in range(len(self.unfolder.nodes)):
            turns = self._node(index, choice.rounds, before)
            result += turns
            before = turns[-1] if turns else before
        self._unfolded = dict(choice.rounds), result
        return result

    def ticks_of(self, marks: set[str]) -> int:
        """Fixed ticks of the turns whose movements carry any of these marks."""
        turns = (turn for index in range(len(self.unfolder.nodes)) for turn in self.turns_of(index))
        return sum(turn.fixed for turn in turns if marks & set(turn.movement.marks))

    def turns_of(self, index: int) -> list[Turn]:
        """The turns of one top-level node with its preferred rounds."""
        return self._node(index, {})

    def solve(self, keep: bool = True) -> Fit:
        """The tables of the plan; see Fit for `keep`."""
        return Fit(self.parts, keep)

    # --- turns ----------------------------------------------------------------------------------------

    def _node(self, index: int, rounds: dict[str, int], before: Turn | None = None) -> list[Turn]:
        before = before or self._before[index]
        seen = set(self._seen[index])
        turns = []
        for turn in self.unfolder.node(index, rounds):
            turns.append(msgspec.structs.replace(turn, seen=True) if turn.movement.id in seen else turn)
            seen.add(turn.movement.id)
        return [self._timed(turn) for turn in with_setups(turns, before, self.positions, self.saying)]

    def _timed(self, turn: Turn) -> Turn:
        """Talk and set-ups of the plan itself last as long as their lines take, and as moving takes."""
        if turn.kind not in ("talk", "setup") or turn.setup_for:
            return turn
        return msgspec.structs.replace(turn, fixed=max(ticks(turn.movement.moving_s), self.saying(turn)))

    # --- parts ----------------------------------------------------------------------------------------

    def _part(self, index: int, preferred: list[Turn]) -> Part:
        groups = list(self._groups((self.unfolder.nodes[index][1],)))
        if not groups:
            return (self._way((), 0.0, preferred),)
        choices = [self._options(group) for group in groups]
        # Nearest to preferred first, should there be more combinations than are tried.
        combinations = sorted(
            product(*choices),
            key=lambda rounds: sum(abs(n - g.times) for n, g in zip(rounds, groups, strict=True)),
        )
        ways = []
        for counts in islice(combinations, MOST_WAYS):
            rounds = {group.id: n for group, n in zip(groups, counts, strict=True)}
            cost = sum(
                option_costs((n,), group.times, 1.0)[0] for group, n in zip(groups, counts, strict=True)
            )
            ways.append(self._way(tuple(rounds.items()), cost, self._node(index, rounds)))
        return tuple(ways)

    def _groups(self, nodes: tuple[Node, ...]) -> Iterator[Rounds]:
        """The groups whose number of rounds may vary."""
        for node in nodes:
            if isinstance(node, Rounds) and len(self._options(node)) > 1:
                yield node
            if isinstance(node, Block):
                yield from self._groups(self.unfolder.block(node))
            elif isinstance(node, Variant):
                yield from self._groups(way_of(node, self.unfolder.plan.brief.lineage))
            else:
                yield from self._groups(children(node))

    def _options(self, group: Rounds) -> tuple[int, ...]:
        return round_options(group, self.unfolder.alternates(group))

    def _way(self, rounds: tuple[tuple[str, int], ...], cost: float, turns: Sequence[Turn]) -> Way:
        fixed = 0
        units: dict[str, int] = {}
        first: dict[str, Turn] = {}
        least: dict[str, int] = {}
        for turn in turns:
            fixed += turn.fixed
            if turn.unit:
                key = turn.step.id
                first.setdefault(key, turn)
                units[key] = units.get(key, 0) + turn.unit
                needed = -(-(self.needs(turn) - turn.fixed) // turn.unit)
                more = -turn.fixed // turn.unit + 1 if turn.fixed < 0 else 0
                least[key] = max(least.get(key, 0), needed, more)
        made = [self._var(turn, units[key], least[key]) for key, turn in first.items()]
        given = tuple((var.key, var.options[0]) for var in made if len(var.options) == 1)
        fixed += sum(var.unit * var.options[0] for var in made if len(var.options) == 1)
        return Way(rounds, cost, fixed, tuple(var for var in made if len(var.options) > 1), given)

    def _var(self, turn: Turn, unit: int, least: int) -> Var:
        span = range_of(turn.step, turn.movement, turn.kind)
        if turn.step.id == self.slack_key:
            return _slack_var(
                turn.step.id,
                span.least * TICKS_PER_S,
                span.preferred * TICKS_PER_S,
                span.most * TICKS_PER_S,
                span.weight,
            )
        options = amounts_of(span, least)
        return Var(turn.step.id, unit, options, option_costs(options, span.preferred, span.weight))

    def _slack(self, parts: list[list[Turn]]) -> str:
        """The last stillness that is done once and not locked, or else the closing pause."""
        for turns in reversed(parts):
            for turn in reversed(turns):
                alone = not turn.pair and not turn.round and not turn.step.locked
                if turn.kind == "stillness" and alone and not turn.setup_for:
                    return turn.step.id
        return PAUSE


def amounts_of(span: Range, least: int = 0) -> tuple[int, ...]:
    """The numbers a step may have, through the preferred one in steps of `by`.

    When what must be said needs more than the most, that need wins; a lock is never broken.
    """
    if span.least == span.most:
        return (span.preferred,)
    low = max(span.least, least)
    numbers = [n for n in range(span.preferred % span.by, span.most + 1, span.by) if n >= low and n > 0]
    if not numbers:
        return (max(1, -(-low // span.by) * span.by),)
    return tuple(numbers)


def _slack_var(key: str, least: int, preferred: int, most: int, weight: float) -> Var:
    options = range(least, most + 1)
    numbers = np.arange(least, most + 1, dtype=np.float64)
    costs = weight * ((numbers - preferred) / max(preferred, 10 * TICKS_PER_S)) ** 2
    return Var(key, 1, options, costs, slack=True)


def round_options(group: Rounds, alternate: bool) -> tuple[int, ...]:
    """The numbers of rounds a group may have. Raises Problem for an odd number that changes sides."""
    by = 2 if alternate else 1
    least, most = group.least or group.times, group.most or group.times
    if alternate and group.times % 2:
        raise Problem(
            f"Rounds that change sides need an even number, not {group.times}.",
            f"group {group.id}",
            "Use one more or one fewer, so that both sides lead equally often.",
        )
    if group.locked:
        return (group.times,)
    numbers = range(group.times - (group.times - least) // by * by, most + 1, by)
    return tuple(numbers)
