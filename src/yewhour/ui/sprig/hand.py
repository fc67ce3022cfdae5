"""The hand: what can be done to what is chosen on the sprig. Each act is one plan after another."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

import msgspec
from PySide6.QtCore import QMimeData
from PySide6.QtGui import QGuiApplication

from yewhour.core.edits.arrange import (
    Place,
    after,
    bodies,
    copies,
    end_of,
    flowing,
    group_of,
    in_rounds,
    new_section,
    nodes_of,
    outermost,
    paired,
    place_of,
    put,
    removed,
    section_key,
    section_moved,
    shifted,
    undone,
    with_node,
    without_section,
)
from yewhour.core.plan.movement import MEASURES
from yewhour.core.plan.nodes import Block, Difference, Node, Pair, Rounds, Step, children, walk
from yewhour.core.plan.outline_read import read_nodes
from yewhour.core.plan.outline_write import nodes_text
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.timing.doses import range_of
from yewhour.ui.desk.session import Session
from yewhour.ui.sprig.places import named

STEPS_TYPE = "application/x-yewhour-steps"


class Hand:
    """Acts on what is chosen in a session. What can't be done is told by `session.refused`."""

    def __init__(self, session: Session) -> None:
        self.session = session

    # --- putting in ------------------------------------------------------------------------------

    def place(self) -> Place:
        """Where the next movement goes: after what is chosen, or at the end."""
        plan = self._plan()
        if self.session.section is not None:
            index = self.session.section
            return Place(section_key(index), len(plan.sections[index].body))
        chosen = outermost(plan, self.session.picked)
        return after(plan, chosen[-1].id) if chosen else end_of(plan)

    def add(self, nodes: Iterable[Node], title: str) -> None:
        """Puts nodes in where the next movement goes, and chooses the last of them."""
        plan, ids = put(self._plan(), self.place(), tuple(nodes))
        self.session.do(title, plan, pick=ids[-1:])

    def new_section(self, title: str = "New part") -> None:
        """Starts a section after the one that is chosen, and chooses it."""
        plan = self._plan()
        at = self._section_here()
        self.session.do(f"New part: {title}", new_section(plan, title, at + 1), pick=())
        self.session.pick_section(min(at + 1, len(plan.sections)))

    def _section_here(self) -> int:
        """The number of the section that is chosen or holds what is chosen; else the last."""
        plan = self._plan()
        if self.session.section is not None:
            return self.session.section
        for index, section in enumerate(plan.sections):
            if any(node.id in self.session.picked for node in walk(section.body)):
                return index
        return len(plan.sections) - 1

    # --- more, fewer, locked ---------------------------------------------------------------------

    def more(self) -> None:
        """One more breath, repetition, count, or five seconds; one more round."""
        self._by(1)

    def fewer(self) -> None:
        """One fewer."""
        self._by(-1)

    def _by(self, sign: int) -> None:
        plan = self._plan()
        nodes = nodes_of(plan)
        for node in (nodes[name] for name in self.session.picked if name in nodes):
            if isinstance(node, Rounds):
                times = max(1, node.times + sign * (2 if node.alternate else 1))
                self._set((node.id,), f"{times} rounds", kind=f"rounds {node.id}", times=times, least=times,
                          most=times, locked=True)  # fmt: skip
                return
            if isinstance(node, Step):
                amount = self.amount_of(node.id)
                if amount:
                    self.set_amount(node.id, max(1, amount + sign * self._step_of(node)))
                    return
        self._refuse("This has no number to change.", "Choose a movement that is held or repeated.")

    def _step_of(self, node: Any) -> int:
        segments = self.session.segments_of((node.id,))
        kind = segments[0].kind if segments else self.session.words.library[node.movement].kind
        return range_of(node, self.session.words.library[node.movement], kind).by or MEASURES[kind].by

    def amount_of(self, node: str) -> int:
        """The whole number a step has in the class as it is."""
        found = [segment for segment in self.session.segments_of((node,)) if segment.turn.unit]
        first = [segment for segment in found if not segment.turn.second] or found
        return first[0].amount if first else 0

    def set_amount(self, node: str, amount: int) -> None:
        """So many, and not to be changed by fitting."""
        title, kept = f"{amount} in {self._name(node)}", {"least": None, "most": None, "locked": True}
        self._set((node,), title, kind=f"amount {node}", amount=amount, **kept)

    def lock(self) -> None:
        """Keeps the number of what is chosen as it is, or lets it give again."""
        plan = self._plan()
        nodes = [n for name, n in nodes_of(plan).items() if name in self.session.picked]
        able = [n for n in nodes if isinstance(n, Step | Rounds)]
        if not able:
            self._refuse("Nothing is chosen that could be kept as it is.", "Choose a movement or rounds.")
            return
        lock = not all(node.locked for node in able)
        for node in able:
            fields: dict[str, Any] = {"locked": lock}
            if lock and isinstance(node, Step) and (amount := self.amount_of(node.id)):
                fields |= {"amount": amount, "least": None, "most": None}
            plan = with_node(plan, node.id, **fields)
        self.session.do(f"{'Keep' if lock else 'Let give'}: {self._names(able)}", plan)

    def set_fields(self, node: str, title: str, **fields: Any) -> None:
        """Fields of one step, pair or rounds."""
        self._set((node,), title, **fields)

    def _set(self, nodes: Iterable[str], title: str, kind: str = "", **fields: Any) -> None:
        plan = self._plan()
        try:
            for node in nodes:
                plan = with_node(plan, node, **fields)
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        self.session.do(title, plan, kind)

    # --- the way it is taught, and how it is held ---------------------------------------------------------

    def gentler(self) -> None:
        """Teaches the gentler way; again, the movement as it is."""
        self.take("gentler")

    def stronger(self) -> None:
        """Teaches the stronger way; again, the movement as it is."""
        self.take("stronger")

    def take(self, level: str) -> None:
        """Teaches what is chosen in one of its ways; in the one it has already: as it is."""
        for step in self._steps():
            movement = self.session.words.library.get(step.movement)
            if level != "base" and (movement is None or getattr(movement, level) is None):
                self._refuse(f"{self._name(step.id)} has no {level} way.", "Write one in the library.")
                return
            now = "base" if step.take == level else level
            self._set((step.id,), f"{self._name(step.id)}: {now if now != 'base' else 'as it is'}", take=now)

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
        for step in self._steps():
            now = "breath" if how in (step.phase, "clock" if step.clock else "") else how
            phase = now if now in ("inhale", "exhale") else None
            clock = {"clock": True, "breath": False}.get(now)
            title = f"{self._name(step.id)} {names.get(now, f'on one {now}')}"
            free: dict[str, Any] = {"amount": None, "least": None, "most": None, "locked": False}
            self._set((step.id,), title, phase=phase, clock=clock, **free)

    def _steps(self) -> list[Step]:
        """The steps that are chosen; told when there are none."""
        nodes = nodes_of(self._plan())
        found = [node for name in self.session.picked if isinstance(node := nodes.get(name), Step)]
        if not found:
            self._refuse("No movement is chosen.", "Choose one on the sprig.")
        return found

    # --- groups ----------------------------------------------------------------------------------

    def both_sides(self) -> None:
        """Makes what is chosen a pair: done on one side, then mirrored on the other."""
        self._gather("Both sides", lambda plan, ids: paired(plan, ids, self.session.words.library))

    def rounds(self) -> None:
        """Makes what is chosen a group that is done in rounds."""
        self._gather("In rounds", lambda plan, ids: in_rounds(plan, ids, 2))

    def flow(self) -> None:
        """Makes what is chosen a flow: one movement a breath phase, in rounds."""
        self._gather(
            "A flow, one movement a breath", lambda plan, ids: flowing(plan, ids, self.session.words.library)
        )

    def _gather(self, title: str, group: Any) -> None:
        plan = self._plan()
        try:
            changed, ids = group(plan, self.session.picked)
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        self.session.do(f"{title}: {self._names(outermost(plan, self.session.picked))}", changed, pick=ids)

    def ungroup(self) -> None:
        """Takes a pair, rounds or a block apart: what is in it stands by itself, once."""
        plan = self._plan()
        nodes = nodes_of(plan)
        for name in self.session.picked:
            group = name if isinstance(nodes.get(name), Pair | Rounds | Block) else group_of(plan, name)
            if group and isinstance(nodes.get(group), Pair | Rounds | Block):
                inner = tuple(node.id for node in children(nodes[group]))
                title = f"Take apart: {self._names([nodes[group]])}"
                self.session.do(title, undone(plan, group, self.session.words.blocks), pick=inner)
                return
        self._refuse("This is in no pair and in no rounds.", "Choose something that is.")

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
        node = nodes_of(self._plan()).get(self.session.picked[0]) if self.session.picked else None
        if isinstance(node, Step) and any(s.turn.pair for s in self.session.segments_of((node.id,))):
            return node
        self._refuse("This has no second side.", "Choose a movement that is done on both sides.")
        return None

    def differ(self, more: int | None, why: str = "") -> None:
        """Makes the second side of a step differ on purpose: so much more or less; None leaves it out."""
        if not self.session.picked:
            return
        node = self.session.picked[0]
        name = self._name(node)
        before = getattr(nodes_of(self._plan())[node], "second", None)
        why = why or (before.why if before is not None else "")
        if more is None:
            self._set(
                (node,), f"Leave {name} out on the second side", second=Difference(leave_out=True, why=why)
            )
        elif more == 0:
            self._set((node,), f"Both sides of {name} alike", second=None)
        else:
            title = f"{abs(more)} {'more' if more > 0 else 'fewer'} on the second side of {name}"
            self._set((node,), title, second=Difference(more=more, why=why))

    # --- moving, copying, leaving out ------------------------------------------------------------

    def earlier(self) -> None:
        """One place earlier."""
        self._shift(-1)

    def later(self) -> None:
        """One place later."""
        self._shift(1)

    def _shift(self, by: int) -> None:
        plan = self._plan()
        if self.session.section is not None:
            index = self.session.section
            changed = section_moved(plan, index, by)
            title = f"Move {plan.sections[index].title}"
            self.session.do(title, changed, pick=self.session.picked)
            self.session.section = index + by if changed is not plan else index
            return
        names = self._names(outermost(plan, self.session.picked))
        self.session.do(f"Move {names}", shifted(plan, self.session.picked, by), pick=self.session.picked)

    def again(self) -> None:
        """Does what is chosen a second time, right after it."""
        plan = self._plan()
        nodes = copies(plan, self.session.picked)
        if nodes:
            self.add(nodes, f"Again: {self._names(outermost(plan, self.session.picked))}")

    def leave_out(self) -> None:
        """Takes what is chosen out of the class."""
        plan = self._plan()
        if self.session.section is not None:
            index = self.session.section
            self.session.do(f"Leave out {plan.sections[index].title}", without_section(plan, index), pick=())
            return
        try:
            changed = removed(plan, self.session.picked)
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        title = f"Leave out {self._names(outermost(plan, self.session.picked))}"
        self.session.do(title, changed, pick=self._next_to(self.session.picked))

    def _next_to(self, ids: tuple[str, ...]) -> tuple[str, ...]:
        """What is chosen after these are gone: the one before the first of them."""
        plan = self._plan()
        place = place_of(plan, ids[0])
        body = [node for node in bodies(plan)[place.body][: place.at] if node.id not in ids]
        return (body[-1].id,) if body else ()

    def copy(self) -> None:
        """Puts what is chosen on the clipboard, as steps and as an outline in plain text."""
        nodes = copies(self._plan(), self.session.picked)
        if nodes:
            clip = QMimeData()
            clip.setData(STEPS_TYPE, msgspec.json.encode(nodes))
            clip.setText(nodes_text(nodes, self.session.words.library))
            QGuiApplication.clipboard().setMimeData(clip)

    def cut(self) -> None:
        """Copies what is chosen and takes it out."""
        self.copy()
        self.leave_out()

    def paste(self) -> None:
        """Puts in what is on the clipboard: steps, or an outline in plain text."""
        clip: QMimeData | None = QGuiApplication.clipboard().mimeData()
        nodes: tuple[Node, ...]
        try:
            if clip is None:
                nodes = ()
            elif clip.hasFormat(STEPS_TYPE):
                nodes = msgspec.json.decode(bytes(clip.data(STEPS_TYPE).data()), type=tuple[Node, ...])
            else:
                nodes = read_nodes(clip.text(), self.session.words.library, "clipboard")
        except msgspec.DecodeError as error:
            self._refuse(f"What is on the clipboard can't be read: {error}.", "Copy it again.")
            return
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        if nodes:
            self.add(nodes, f"Paste {self._names(list(nodes))}")
        else:
            self._refuse(
                "There is nothing on the clipboard to put in.", "Copy movements, or lines of an outline."
            )

    # --- what things are called ------------------------------------------------------------------

    def _plan(self) -> Plan:
        return self.session.plan if self.session.plan is not None else Plan()

    def _refuse(self, what: str, do: str) -> None:
        self.session.refused.emit(Problem(what, do=do))

    def inside_pair(self) -> bool:
        """Whether the next movement goes into a pair."""
        plan = self._plan()
        nodes, body = nodes_of(plan), self.place().body
        while body and not body.startswith(("section ", "block ")):
            if isinstance(nodes.get(body), Pair):
                return True
            body = group_body(plan, body)
        return False

    def grouped(self, node: str) -> bool:
        """Whether a node stands in a pair, rounds or a variant."""
        return bool(group_of(self._plan(), node))

    def called(self, node: str) -> str:
        """What a node is called."""
        found = nodes_of(self._plan()).get(node)
        return self._names([found]) if found is not None else "it"

    def _name(self, node: str) -> str:
        return self._names([nodes_of(self._plan())[node]])

    def _names(self, nodes: list[Any]) -> str:
        if not nodes:
            return "nothing"
        more = f" and {len(nodes) - 1} more" if len(nodes) > 1 else ""
        return named(nodes[0], self.session.words.library) + more


def group_body(plan: Plan, body: str) -> str:
    """The body that a group's own node stands in, "" for a section's."""
    try:
        return place_of(plan, body.split("/")[0]).body
    except Problem:
        return ""
