"""Dosing: how much of what is chosen, in which way, and whether the second side differs."""

from __future__ import annotations

from typing import Any

from yewhour.core.library.kinds import BEHAVIOURS
from yewhour.core.plan.nodes import Rounds, SideDifference, Step
from yewhour.core.plan.places import nodes_of
from yewhour.core.timing.doses import amount_range
from yewhour.ui.sprig.chosen import Chosen


class DoseActions:
    """Numbers, ways and differences of what is chosen."""

    def __init__(self, chosen: Chosen) -> None:
        self.chosen, self.session = chosen, chosen.session

    # --- more, fewer, locked ---------------------------------------------------------------------

    def more(self) -> None:
        """One more breath, repetition, count, or five seconds; one more round."""
        self._by(1)

    def fewer(self) -> None:
        """One fewer."""
        self._by(-1)

    def _by(self, sign: int) -> None:
        nodes = nodes_of(self.chosen.plan())
        changes, titles = dict[str, dict[str, Any]](), list[str]()
        for node in (nodes[name] for name in self.session.picked if name in nodes):
            if isinstance(node, Rounds):
                times = max(1, node.times + sign * (2 if node.alternate else 1))
                changes[node.id] = {"times": times, "least": times, "most": times, "locked": True}
                titles.append(f"{times} rounds")
            elif isinstance(node, Step) and (amount := self.amount_of(node.id)):
                amount = max(1, amount + sign * self._step_of(node))
                changes[node.id] = self._kept(node.id, amount)
                titles.append(f"{amount} in {self.chosen.name(node.id)}")
        if not changes:
            self.chosen.refuse("This has no number to change.", "Choose a movement that is held or repeated.")
            return
        more = f" and {len(titles) - 1} more" if len(titles) > 1 else ""
        self.chosen.set_each(changes, titles[0] + more, kind=f"amount {' '.join(changes)}")

    def _step_of(self, node: Any) -> int:
        segments = self.session.segments_of((node.id,))
        if not segments:
            return 1
        use = segments[0].use
        return amount_range(node, use.movement, use.kind).by or BEHAVIOURS[use.kind].by

    def amount_of(self, node: str) -> int:
        """The whole number a step has in the class as it is."""
        found = [segment for segment in self.session.segments_of((node,)) if segment.use.unit]
        first = [segment for segment in found if not segment.use.second] or found
        return first[0].amount if first else 0

    def set_amount(self, node: str, amount: int) -> None:
        """So many, and not to be changed by fitting."""
        title = f"{amount} in {self.chosen.name(node)}"
        self.chosen.set_each({node: self._kept(node, amount)}, title, kind=f"amount {node}")

    def _kept(self, node: str, amount: int) -> dict[str, Any]:
        """The fields of a step whose number is kept."""
        return {"amount": amount, "least": None, "most": None, "locked": True, **self._seconds(node)}

    def _seconds(self, node: str) -> dict[str, Any]:
        """That a step's number is in seconds, where a hold is held by the clock."""
        by_clock = any(segment.use.by_clock for segment in self.session.segments_of((node,)))
        return {"clock": True} if by_clock else {}

    def lock(self) -> None:
        """Keeps the number of what is chosen as it is, or lets it give again."""
        nodes = [n for name, n in nodes_of(self.chosen.plan()).items() if name in self.session.picked]
        able = [n for n in nodes if isinstance(n, Step | Rounds)]
        if not able:
            self.chosen.refuse(
                "Nothing is chosen that could be kept as it is.", "Choose a movement or rounds."
            )
            return
        lock = not all(node.locked for node in able)
        changes = dict[str, dict[str, Any]]()
        for node in able:
            amount = self.amount_of(node.id) if lock and isinstance(node, Step) else 0
            changes[node.id] = self._kept(node.id, amount) if amount else {"locked": lock}
        self.chosen.set_each(changes, f"{'Keep' if lock else 'Let give'}: {self.chosen.names(able)}")

    # --- the way it is taught, and how it is held ---------------------------------------------------------

    def gentler(self) -> None:
        """Teaches the gentler way; again, the movement as it is."""
        self.take("gentler")

    def stronger(self) -> None:
        """Teaches the stronger way; again, the movement as it is."""
        self.take("stronger")

    def take(self, level: str) -> None:
        """Teaches what is chosen in one of its ways; in the one it has already: as it is."""
        steps = self._steps()
        library = self.session.teaching_data.library
        able = [one for one in steps if level == "base" or getattr(library.get(one.movement), level, None)]
        if steps and not able:
            what = f"{self.chosen.names(list(steps))} has no {level} way."
            self.chosen.refuse(what, "Write one in the library.")
        elif able:
            now = "base" if all(one.take == level for one in able) else level
            title = f"{self.chosen.names(list(able))}: {now if now != 'base' else 'as it is'}"
            self.chosen.set_each({one.id: {"take": now} for one in able}, title)

    def clock(self) -> None:
        """Holds by the clock; again, by breath."""
        self.hold("clock")

    def inhale(self) -> None:
        """On one inhale, as in a flow; again, held by breath."""
        self.hold("inhale")

    def exhale(self) -> None:
        """On one exhale; again, held by breath."""
        self.hold("exhale")

    def hold(self, how: str) -> None:
        """Holds what is chosen by breath, by the clock, or for one phase; as it is already: by breath."""
        names = {"clock": "by the clock", "breath": "by breath"}
        steps = self._steps()
        if not steps:
            return
        already = all(how in (step.phase, "clock" if step.clock else "") for step in steps)
        now = "breath" if already else how
        held = {
            "phase": now if now in ("inhale", "exhale") else None,
            "clock": {"clock": True, "breath": False}.get(now),
        }
        free = {"amount": None, "least": None, "most": None, "locked": False}
        title = f"{self.chosen.names(list(steps))} {names.get(now, f'on one {now}')}"
        self.chosen.set_each({step.id: {**held, **free} for step in steps}, title)

    def _steps(self) -> list[Step]:
        """The steps that are chosen; told when there are none."""
        nodes = nodes_of(self.chosen.plan())
        found = [node for name in self.session.picked if isinstance(node := nodes.get(name), Step)]
        if not found:
            self.chosen.refuse("No movement is chosen.", "Choose one on the sprig.")
        return found

    # --- the second side -------------------------------------------------------------------------

    def second_more(self) -> None:
        """One more on the second side, on purpose."""
        self._differ_by(1)

    def second_fewer(self) -> None:
        """One fewer there."""
        self._differ_by(-1)

    def second_out(self) -> None:
        """Left out on the second side, on purpose; again, and it is done there."""
        step = self._second_step()
        if step is not None:
            self.differ(0 if step.second is not None and step.second.leave_out else None)

    def _differ_by(self, sign: int) -> None:
        step = self._second_step()
        if step is not None:
            self.differ((step.second.more if step.second is not None else 0) + sign)

    def _second_step(self) -> Step | None:
        """The step that is chosen, if it has a second side."""
        node = nodes_of(self.chosen.plan()).get(self.session.picked[0]) if self.session.picked else None
        if isinstance(node, Step) and any(s.use.pair for s in self.session.segments_of((node.id,))):
            return node
        self.chosen.refuse("This has no second side.", "Choose a movement that is done on both sides.")
        return None

    def differ(self, more: int | None, why: str = "") -> None:
        """Makes the second side of a step differ on purpose: so much more or less; None leaves it out."""
        if not self.session.picked:
            return
        node = self.session.picked[0]
        name = self.chosen.name(node)
        before = getattr(nodes_of(self.chosen.plan())[node], "second", None)
        why = why or (before.why if before is not None else "")
        if more is None:
            self.chosen.set(
                (node,),
                f"Leave {name} out on the second side",
                second=SideDifference(leave_out=True, why=why),
            )
        elif more == 0:
            self.chosen.set((node,), f"Both sides of {name} alike", second=None)
        else:
            title = f"{abs(more)} {'more' if more > 0 else 'fewer'} on the second side of {name}"
            self.chosen.set((node,), title, second=SideDifference(more=more, why=why))
