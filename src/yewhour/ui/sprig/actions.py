"""What can be done to what is chosen on the sprig. Each act is one plan after another."""

from __future__ import annotations

from collections.abc import Callable, Iterable

import msgspec
from PySide6.QtCore import QMimeData
from PySide6.QtGui import QGuiApplication

from yewhour.core.edits.arrange import (
    copied_parts,
    copies,
    put,
    put_parts,
    removed,
    shifted,
)
from yewhour.core.edits.groups import (
    flowing,
    in_rounds,
    new_section,
    paired,
    section_moved,
    undone,
    without_section,
)
from yewhour.core.outline.reader import read_nodes
from yewhour.core.outline.writer import nodes_text
from yewhour.core.plan.nodes import (
    Block,
    Node,
    Pair,
    Rounds,
    children,
    walk,
)
from yewhour.core.plan.places import (
    NodePlace,
    SectionBody,
    after,
    bodies,
    end_of,
    group_of,
    inside_pair,
    nodes_of,
    outermost,
    place_of,
    whole,
)
from yewhour.core.plan.plan import Plan, Section
from yewhour.core.problem import Problem
from yewhour.ui.desk.session import Session
from yewhour.ui.sprig.chosen import Chosen
from yewhour.ui.sprig.dose_actions import DoseActions

SEEN_BEFORE = ("both_sides", "rounds", "flow", "ungroup", "leave_out")  # drawn before they are done
STEPS_TYPE = "application/x-yewhour-steps"
# Commands that group or take apart, and what their deeds are called.
GROUPINGS = {
    "both_sides": "Both sides", "rounds": "In rounds", "flow": "A flow, one movement a breath",
    "ungroup": "Take apart",
}  # fmt: skip


class SprigActions:
    """Everything that can be done to what is chosen. dose: numbers, ways and differences."""

    def __init__(self, session: Session) -> None:
        self.session, self.chosen = session, Chosen(session)
        self.dose = DoseActions(self.chosen)

    @property
    def by_command(self) -> dict[str, Callable[[], None]]:
        """What each command of the sprig does."""
        return {
            "more": self.dose.more,
            "fewer": self.dose.fewer,
            "lock": self.dose.lock,
            "gentler": self.dose.gentler,
            "stronger": self.dose.stronger,
            "clock": self.dose.clock,
            "inhale": self.dose.inhale,
            "exhale": self.dose.exhale,
            "second_more": self.dose.second_more,
            "second_fewer": self.dose.second_fewer,
            "second_out": self.dose.second_out,
            "both_sides": self.both_sides,
            "rounds": self.rounds,
            "flow": self.flow,
            "ungroup": self.ungroup,
            "again": self.again,
            "earlier": self.earlier,
            "later": self.later,
            "cut": self.cut,
            "copy": self.copy,
            "paste": self.paste,
            "leave_out": self.leave_out,
            "new_part": self.new_section,
        }

    # --- putting in ------------------------------------------------------------------------------

    def place(self) -> NodePlace:
        """Where the next movement goes: after what is chosen, or at the end."""
        plan = self.chosen.plan()
        if self.session.section is not None:
            index = self.session.section
            return NodePlace(SectionBody(index), len(plan.sections[index].body))
        chosen = outermost(plan, self.session.picked)
        return after(plan, chosen[-1].id) if chosen else end_of(plan)

    def add(self, nodes: Iterable[Node], title: str, place: NodePlace | None = None) -> None:
        """Puts nodes in at a place, or where the next movement goes, and chooses the last of them."""
        plan, ids = put(self.chosen.plan(), place or self.place(), tuple(nodes))
        self.session.do(title, plan, pick=ids[-1:])

    def new_section(self, title: str = "New part") -> None:
        """Starts a section after the one that is chosen, and chooses it."""
        plan = self.chosen.plan()
        at = self._section_here()
        self.session.do(f"New part: {title}", new_section(plan, title, at + 1), pick=())
        self.session.pick_section(min(at + 1, len(plan.sections)))

    def _section_here(self) -> int:
        """The number of the section that is chosen or holds what is chosen; else the last."""
        plan = self.chosen.plan()
        if self.session.section is not None:
            return self.session.section
        for index, section in enumerate(plan.sections):
            if any(node.id in self.session.picked for node in walk(section.body)):
                return index
        return len(plan.sections) - 1

    # --- groups ----------------------------------------------------------------------------------

    def both_sides(self) -> None:
        """Makes what is chosen a pair: done on one side, then mirrored on the other."""
        self._gather("both_sides")

    def rounds(self) -> None:
        """Makes what is chosen a group that is done in rounds."""
        self._gather("rounds")

    def flow(self) -> None:
        """Makes what is chosen a flow: one movement a breath phase, in rounds."""
        self._gather("flow")

    def ungroup(self) -> None:
        """Takes a pair, rounds or a block apart: what is in it stands by itself, once."""
        self._gather("ungroup")

    def _gather(self, name: str) -> None:
        try:
            title, changed, ids = self._grouped(name)
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        self.session.do(title, changed, pick=ids, tell=True)

    def try_out(self, name: str) -> None:
        """Shows the class as a grouping, or leaving out, would leave it. Raises Problem when it can't be."""
        if name in GROUPINGS and self.session.picked:
            title, changed, _ = self._grouped(name)
            self.session.try_plan(title, changed)
        elif name == "leave_out" and (self.session.picked or self.session.section is not None):
            title, changed = self._without()
            self.session.try_plan(title, changed)

    def _grouped(self, name: str) -> tuple[str, Plan, tuple[str, ...]]:
        """What a grouping is called, the plan after it, and what is chosen then. Raises Problem."""
        plan, library = self.chosen.plan(), self.session.teaching_data.library
        if name == "ungroup":
            return self._apart(plan)
        title = GROUPINGS[name]
        group = {"both_sides": paired, "rounds": in_rounds, "flow": flowing}[name]
        changed, ids = group(plan, self.session.picked, library)
        return f"{title}: {self.chosen.names(whole(plan, self.session.picked))}", changed, ids

    def _apart(self, plan: Plan) -> tuple[str, Plan, tuple[str, ...]]:
        nodes = nodes_of(plan)
        for name in self.session.picked:
            group = name if isinstance(nodes.get(name), Pair | Rounds | Block) else group_of(plan, name)
            if group and isinstance(nodes.get(group), Pair | Rounds | Block):
                inner = tuple(node.id for node in children(nodes[group]))
                title = f"{GROUPINGS['ungroup']}: {self.chosen.names([nodes[group]])}"
                return title, undone(plan, group, self.session.teaching_data.blocks), inner
        raise Problem("This is in no pair and in no rounds.", do="Choose something that is.")

    def inside_pair(self) -> bool:
        """Whether the next movement goes into a pair."""
        plan = self.chosen.plan()
        return inside_pair(plan, self.place().body) is not None

    # --- moving, copying, leaving out ------------------------------------------------------------

    def earlier(self) -> None:
        """One place earlier."""
        self._shift(-1)

    def later(self) -> None:
        """One place later."""
        self._shift(1)

    def _shift(self, by: int) -> None:
        plan = self.chosen.plan()
        if self.session.section is not None:
            index = self.session.section
            changed = section_moved(plan, index, by)
            title = f"Move {plan.sections[index].title}"
            self.session.do(title, changed, pick=self.session.picked)
            self.session.section = index + by if changed is not plan else index
            return
        names = self.chosen.names(whole(plan, self.session.picked))
        self.session.do(
            f"Move {names}",
            shifted(plan, self.session.picked, by, self.chosen.library),
            pick=self.session.picked,
        )

    def again(self) -> None:
        """Does what is chosen a second time, right after it."""
        plan = self.chosen.plan()
        nodes = copies(plan, self.session.picked, self.chosen.library)
        if nodes:
            self.add(nodes, f"Again: {self.chosen.names(whole(plan, self.session.picked))}")

    def leave_out(self) -> None:
        """Takes what is chosen out of the class."""
        try:
            title, changed = self._without()
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        whole_part = self.session.section is not None
        self.session.do(title, changed, pick=() if whole_part else self._next_to(self.session.picked))

    def _without(self) -> tuple[str, Plan]:
        """What leaving out is called, and the plan after it. Raises Problem when nothing can be left out."""
        plan = self.chosen.plan()
        if self.session.section is not None:
            index = self.session.section
            return f"Leave out {plan.sections[index].title}", without_section(plan, index)
        title = f"Leave out {self.chosen.names(whole(plan, self.session.picked))}"
        return title, removed(plan, self.session.picked)

    def _next_to(self, ids: tuple[str, ...]) -> tuple[str, ...]:
        """What is chosen after these are gone: the one before the first of them."""
        plan = self.chosen.plan()
        place = place_of(plan, ids[0])
        body = [node for node in bodies(plan)[place.body][: place.at] if node.id not in ids]
        return (body[-1].id,) if body else ()

    def copy(self) -> None:
        """Puts what is chosen on the clipboard, as steps and as an outline in plain text."""
        parts = copied_parts(self.chosen.plan(), self.session.picked, self.chosen.library)
        nodes = [node for part in parts for node in part.body]
        if nodes:
            clip = QMimeData()
            clip.setData(STEPS_TYPE, msgspec.json.encode(parts))
            clip.setText(nodes_text(nodes, self.session.teaching_data.library))
            QGuiApplication.clipboard().setMimeData(clip)

    def cut(self) -> None:
        """Copies what is chosen and takes it out."""
        self.copy()
        self.leave_out()

    def paste(self) -> None:
        """Puts in what is on the clipboard: steps, or an outline in plain text.

        Movements of one part go to what is chosen; those of several go each to its own part again.
        """
        clip: QMimeData | None = QGuiApplication.clipboard().mimeData()
        nodes: tuple[Node, ...]
        parts: tuple[Section, ...] = ()
        try:
            if clip is None:
                nodes = ()
            elif clip.hasFormat(STEPS_TYPE):
                parts = msgspec.json.decode(bytes(clip.data(STEPS_TYPE).data()), type=tuple[Section, ...])
                nodes = tuple(node for part in parts for node in part.body)
            else:
                nodes = read_nodes(clip.text(), self.session.teaching_data.library, "clipboard")
        except msgspec.DecodeError as error:
            self.chosen.refuse(f"What is on the clipboard can't be read: {error}.", "Copy it again.")
            return
        except Problem as problem:
            self.session.refused.emit(problem)
            return
        title = f"Paste {self.chosen.names(list(nodes))}"
        if len(parts) > 1:
            plan, ids = put_parts(self.chosen.plan(), parts)
            self.session.do(title, plan, pick=ids)
        elif nodes:
            self.add(nodes, title)
        else:
            self.chosen.refuse(
                "There is nothing on the clipboard to put in.", "Copy movements, or lines of an outline."
            )
