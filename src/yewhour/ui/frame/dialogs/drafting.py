"""Drafting: a class from its promise, another one, some of it kept, something else in a place; and why."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import msgspec
from PySide6.QtCore import QObject

from yewhour.content.draft_model_file import load_model
from yewhour.content.promise_file import promise_reader
from yewhour.content.terms import load_terms
from yewhour.core.draft.draft import Draft, draft_class
from yewhour.core.draft.draft_model import DraftRequest
from yewhour.core.draft.partial import (
    Alternative,
    alternatives_for,
    fill_empty,
    gentler_class,
    keep_sections,
    one_like,
    redraft_section,
    seated_class,
)
from yewhour.core.draft.reasons import sentence, turned_down
from yewhour.core.lengths import show_length
from yewhour.core.plan.nodes import Node, Step, walk
from yewhour.core.plan.plan import Brief, Plan
from yewhour.core.problem import Problem
from yewhour.core.promise.course import CourseClass, CourseShape, course_in, drafted_course
from yewhour.core.promise.outcome import outcome_of
from yewhour.core.promise.reader import PromiseReader
from yewhour.core.promise.wishes import ReadPromise, Wish, told
from yewhour.core.shelf.weeks import given_classes, lately
from yewhour.state.logbook.courses import fresh_folder, shelve_course, write_course
from yewhour.state.paths import kept_courses
from yewhour.ui.desk.session import Session
from yewhour.ui.frame.dialogs.draft_dialogs import AlternativesDialog, WhyDialog
from yewhour.ui.frame.host import Host
from yewhour.ui.frame.pages import Pages

LEAST_FILL_S = 30.0


class Drafting(QObject):
    """Drafts for one window. Each public verb is a command; what takes long is a job."""

    def __init__(self, window: Host, session: Session, pages: Pages) -> None:
        super().__init__()
        self.window, self.session, self.pages = window, session, pages
        self.begun: Callable[[Plan], object] = lambda plan: None  # takes a class that was drafted
        self.seed = 0
        self.shown_series: Callable[[], object] = lambda: None  # shows the series on the shelf
        self.last: Draft | None = None
        self.wishes: tuple[Wish, ...] = ()
        self._reader: PromiseReader | None = None

    @property
    def areas(self) -> dict[str, str]:
        """The areas with their names."""
        return load_terms(self.session.teaching_data.positions).areas

    @property
    def reader(self) -> PromiseReader:
        """What reads promises, made when the first is typed."""
        if self._reader is None or self._reader.teaching_data is not self.session.teaching_data:
            self._reader = promise_reader(self.session.teaching_data)
        return self._reader

    def read_ahead(self, text: str) -> ReadPromise | None:
        """What is understood of a promise that is being typed; None where that is nothing yet."""
        try:
            course = course_in(text)
            read = self.reader.read(text if course is None else course[1])
        except Problem:
            return None
        return read if course is None else ReadPromise(read.brief, (course[0].wish, *read.wishes))

    def _ask(self, brief: Brief) -> DraftRequest:
        seen = {}
        if self.pages.has_shelf():
            seen = lately(given_classes(self.pages.shelving().shelf), self.pages.shelving().today())
        return DraftRequest(brief, self.seed, lately=seen)

    # --- a whole class ----------------------------------------------------------------------------------

    def promise(self, text: str) -> None:
        """A class from a promise in words."""
        words, model = self.session.teaching_data, load_model()
        try:
            course = course_in(text)
            read = self.reader.read(text if course is None else course[1])
        except Problem as problem:
            self.window.tell(problem)
            return
        if (question := read.question) is not None:
            self.window.tell(question)
            return
        self.seed = 0
        if course is not None:
            self._course(read, course[0])
            return
        ask = self._ask(read.brief)

        def show(timed: Draft) -> None:
            self.last = timed
            self.wishes = outcome_of(read.wishes, timed, words, self.areas)
            self.begun(timed.plan)
            lost = [one for one in self.wishes if one.state in ("unmet", "unknown")]
            said = f" {'; '.join(told(one) for one in lost[:2])}." if lost else ""
            self.window.say(f"Drafted. Ctrl+J makes another, Ctrl+Shift+J says why.{said}")

        self._run("drafting", lambda: draft_class(ask, words, model), show)

    def _course(self, read: ReadPromise, shape: CourseShape) -> None:
        """A course: its classes in a folder of hers, and a series on the shelf that has them in their
        order."""
        words, model, title = self.session.teaching_data, load_model(), read.brief.title

        def work() -> tuple[list[CourseClass], list[Path]]:
            classes = [*drafted_course(read, shape, self.seed, words, model)]
            return classes, write_course(classes, fresh_folder(kept_courses(), title))

        def show(made: tuple[list[CourseClass], list[Path]]) -> None:
            classes, files = made
            shelving = self.pages.shelving()
            shelve_course(shelving.book, title, shape, classes, files)
            shelving.changed.emit()
            self.window.go_to("to_shelf")
            self.shown_series()
            self.window.say(f"{title}: {len(classes)} classes are on the shelf, in {files[0].parent}.")

        self._run("drafting a course", work, show)

    def draft_another(self) -> None:
        """Another class that keeps the same promise."""
        plan = self._plan()
        self.seed += 1
        ask, words, model = self._ask(plan.brief), self.session.teaching_data, load_model()
        self._run(
            "drafting another",
            lambda: draft_class(ask, words, model),
            lambda timed: self._put("Another draft", timed),
        )

    def draft_rest(self) -> None:
        """Keeps the parts in which something is chosen, and changes the others."""
        plan, stay = self._plan(), self._sections()
        if not stay:
            raise Problem(
                "Nothing is chosen to be kept.", do="Choose a movement, or a part, and press again."
            )
        self.seed += 1
        ask, words, model = self._ask(plan.brief), self.session.teaching_data, load_model()
        self._run(
            "changing the rest", lambda: keep_sections(plan, stay, ask, words, model),
            lambda timed: self._put("Keep this, change the rest", timed, True),
        )  # fmt: skip

    def draft_like(self) -> None:
        """One more class like this one, with as little of it as can be."""
        self._more("One more like it", one_like)

    def draft_gentler(self) -> None:
        """The same class for a gentler level."""
        self._more("A gentler one", gentler_class)

    def draft_chair(self) -> None:
        """The same class on a chair."""
        self._more("One on a chair", seated_class)

    def _more(self, title: str, make: Callable[..., Draft]) -> None:
        plan = self._plan()
        self.seed += 1
        ask, words, model = self._ask(plan.brief), self.session.teaching_data, load_model()

        def show(timed: Draft) -> None:
            self.last = timed
            self.begun(timed.plan)
            self.window.say(f"{title}: {timed.plan.brief.title}. What was open is kept.")

        self._run(title.lower(), lambda: make(plan, ask, words, model), show)

    # --- parts of one -----------------------------------------------------------------------------------

    def draft_part(self) -> None:
        """The part in which something is chosen, anew."""
        plan, timed, sections = self._plan(), self.session.timed, self._sections()
        if not sections or timed is None:
            raise Problem("Nothing is chosen.", do="Choose a movement of the part that is to be other.")
        self.seed += 1
        ask, words, model, index = (
            self._ask(plan.brief),
            self.session.teaching_data,
            load_model(),
            min(sections),
        )
        title = plan.sections[index].title
        self._run(
            f"{title} anew", lambda: redraft_section(plan, timed, index, ask, words, model),
            lambda after: self.session.do(f"{title} anew", after, pick=()),
        )  # fmt: skip

    def draft_fill(self) -> None:
        """Fills what is still to fill."""
        plan, lengths = self._plan(), self.session.lengths
        if lengths is None:
            return
        missing_s = lengths.promised_s - lengths.preferred_s
        if missing_s < LEAST_FILL_S or not (
            self.session.unfinished or any(not one.body for one in plan.sections)
        ):
            raise Problem(
                "There is nothing to fill: the class is as long as it promises.", do="Promise more."
            )
        ask, words, model = self._ask(plan.brief), self.session.teaching_data, load_model()
        self._run(
            "filling", lambda: fill_empty(plan, missing_s, ask, words, model),
            lambda after: self.session.do("Fill what was missing", after),
        )  # fmt: skip

    def draft_else(self) -> None:
        """Something else in place of what is chosen: three that fit, seen before they are taken."""
        plan, node = self._plan(), self._node()
        ask, words, model = self._ask(plan.brief), self.session.teaching_data, load_model()
        self._run("looking", lambda: alternatives_for(plan, node, ask, words, model), self._offer)

    def draft_not(self) -> None:
        """What is chosen is not wanted: something else in its place, and it does not come again."""
        plan, node = self._plan(), self._node()
        picked = next(one for one in _steps(plan) if one.id == node)
        without = tuple(dict.fromkeys((*plan.brief.without, picked.movement)))
        brief = msgspec.structs.replace(plan.brief, without=without)
        ask, words, model = self._ask(brief), self.session.teaching_data, load_model()
        known = words.library.get(picked.movement)
        name = known.name if known is not None else picked.movement

        def put(found: list[Alternative]) -> None:
            if not found:
                raise Problem(f"Nothing else fits where {name} is.", do="Leave it out, with Delete.")
            after = msgspec.structs.replace(found[0].plan, brief=brief)
            self.session.do(f"Not {name}", after)
            self.window.say(
                f"{found[0].name} instead of {name}, which does not come again. Ctrl+Z takes it back."
            )

        self._run("looking", lambda: alternatives_for(plan, node, ask, words, model), put)

    def _offer(self, found: list[Alternative]) -> None:
        if not found:
            raise Problem("Nothing else fits here.", do="Change what stands beside it, or leave it out.")
        dialog = AlternativesDialog(self.session, found, self.window.theme)
        self.window.keep_open(dialog)
        dialog.beside(self.window)

    # --- why --------------------------------------------------------------------------------------------

    def draft_why(self) -> None:
        """Why each movement is there, and what was turned down."""
        draft, words, model = self.last, self.session.teaching_data, load_model()
        if draft is None:
            raise Problem(
                "This class was not drafted here.", do="Draft one: Ctrl+Home, and say what you promise."
            )
        there = {step.id for step in _steps(self._plan())}
        chosen = {self._node()} if self.session.picked else set()
        mine = [one for one in draft.choices if one.step in chosen] or [
            one for one in draft.choices if one.step in there or one.movement in words.blocks
        ]
        said = self._plan().brief.said
        lines = [sentence(one, words.library, self.areas, model, said) for one in mine]
        wished = [told(one) for one in self.wishes]
        self.window.keep_open(WhyDialog(wished, lines, list(turned_down(draft, words, model, said))))

    # --- the desk ---------------------------------------------------------------------------------------

    def _plan(self) -> Plan:
        if self.session.plan is None:
            raise Problem("No class is open.", do="Say what you promise on the first page (Ctrl+Home).")
        return self.session.plan

    def _sections(self) -> set[int]:
        """The parts in which something is chosen."""
        session, plan = self.session, self._plan()
        if session.section is not None:
            return {session.section}
        picked = set(session.picked)
        return {
            index
            for index, section in enumerate(plan.sections)
            if picked & {node.id for node in walk(section.body)}
        }

    def _node(self) -> str:
        if not self.session.picked:
            raise Problem("No movement is chosen.", do="Choose one on the sprig.")
        plan, picked = self._plan(), self.session.picked[0]
        for step in _steps(plan):
            if step.id == picked:
                return picked
        inside = [
            step.id
            for section in plan.sections
            for node in walk(section.body)
            if node.id == picked
            for step in walk((node,))
            if isinstance(step, Step)
        ]
        if not inside:
            raise Problem("What is chosen is no movement of its own.", do="Choose a single movement.")
        return inside[0]

    def _put(self, title: str, timed: Draft, kept: bool = False) -> None:
        """Takes a draft. kept: what is chosen stays in it, and stays chosen; else nothing is."""
        self.last = timed
        stays = {node.id for node in _nodes(self._plan())} if kept else set()
        self.session.do(title, timed.plan, pick=[one for one in self.session.picked if one in stays])
        self.window.say(f"{title}: {show_length(timed.timed.length_s)}. Ctrl+Z takes it back.")

    def _run(self, stage: str, work: Callable[[], Any], then: Callable[[Any], None]) -> None:
        if self.busy:
            return
        self.session.working.emit(stage)
        self.session.jobs.run(
            "draft", lambda job: work(), self._ended(then), doing="Drafting",
            lost="The class is as it was.", failed=self._ended(self.window.tell),
            faulted=self._ended(lambda fault: None), owner=self,
        )  # fmt: skip

    def _ended(self, then: Callable[[Any], None]) -> Callable[[Any], None]:
        """What comes after the work: nothing is being done any more, and then what came of it."""

        def ended(value: Any) -> None:
            self.session.working.emit("")
            try:
                then(value)
            except Problem as problem:
                self.window.tell(problem)

        return ended

    @property
    def busy(self) -> bool:
        """Whether a draft is being made."""
        return self.session.jobs.busy("draft")


def _nodes(plan: Plan) -> list[Node]:
    return [node for section in plan.sections for node in walk(section.body)]


def _steps(plan: Plan) -> list[Step]:
    return [node for section in plan.sections for node in walk(section.body) if isinstance(node, Step)]
