"""An outline read into a plan, with the line number of whatever is wrong in it."""

import re
from typing import Any, TypeVar

import msgspec

from yewhour.core.library.movement import Library
from yewhour.core.library.names import NameIndex, near_names, plain_name
from yewhour.core.outline.brief_lines import read_brief_line
from yewhour.core.outline.edited_lines import DO, SAID, WAS, is_edited_line, read_edited_line
from yewhour.core.outline.step_lines import (
    BECAUSE,
    COMMENT,
    INDENT,
    MISSING,
    PACE,
    read_step,
)
from yewhour.core.pace import read_pace
from yewhour.core.plan.nodes import (
    Block,
    Node,
    Pair,
    Rounds,
    Step,
    Variant,
)
from yewhour.core.plan.plan import (
    ROLES,
    Brief,
    Plan,
    Section,
    with_ids,
)
from yewhour.core.plan.validate import MOST_DEEP, validate_types
from yewhour.core.plan.vocabulary import Vocabulary
from yewhour.core.problem import Problem
from yewhour.core.purpose import LINE_PURPOSES

_ROUNDS = re.compile(
    r"rounds (\d{1,6})(?: \((\d{1,6})-(\d{1,6})\))?(!)?"
    r"( alternate| same side)?(?: teach (\d{1,6}))?(?: from round (\d{1,6}))?$",
    re.IGNORECASE,
)
_PAIR = re.compile(r"pair(?: (right|left))?(?: from round (\d{1,6}))?$", re.IGNORECASE)
_BLOCK = re.compile(r"(.+?)(?: (\d{1,3})x)?$", re.IGNORECASE)
_SECTION_WORDS = {
    "role": lambda text: {"role": text},
    "pace": lambda text: {"pace": read_pace(text)},
    "glide": lambda text: {"glide_to": float(text)},
    "mat": lambda text: {"mat": text},
    "priority": lambda text: {"priority": int(text)},
}
_SECTION_WORD = re.compile(
    rf"(role [a-z ]+|pace {PACE}|glide \d+(?:\.\d+)?|mat (?:front|back)|priority \d\d?\d?)"
)


def _number_of(where: str) -> int:
    found = re.search(r"line (\d+)$", where)
    return int(found[1]) if found else 0


Kept = TypeVar("Kept", Step, Block)


class _Line(msgspec.Struct):
    number: int
    depth: int
    text: str
    inner: list["_Line"] = []


def read_outline(
    text: str, library: Library, where: str = "outline", known: Vocabulary | None = None
) -> Plan:
    """The plan an outline describes. Raises Problem with every mistake: file and line, and what to do.

    known: the words a brief may use, and the blocks there are; None leaves them to be found out later.
    """
    plan = _OutlineReader(library, where, known=known).plan(text)
    try:
        return with_ids(validate_types(plan))
    except Problem as problem:
        problem.where = f"{where}, {problem.where}".removesuffix(", ")
        raise


def read_nodes(text: str, library: Library, where: str = "outline") -> tuple[Node, ...]:
    """The nodes that lines of an outline describe, without a brief or sections. Raises Problem."""
    plan = _OutlineReader(library, where, 1).plan(f"# Lines\n{text}")
    if len(plan.sections) != 1:
        raise Problem("These lines start a section.", where, "Leave the # headings out.")
    return plan.sections[0].body


class _OutlineReader:
    def __init__(
        self, library: Library, where: str, before: int = 0, known: Vocabulary | None = None
    ) -> None:
        self.before = before  # lines that were put in front of the reader's own
        self.library = library
        self.names = NameIndex(library)
        self.where = where
        self.known = known
        self.blocks: dict[str, str] = dict(known.blocks) if known else {}
        self.problems: list[Problem] = []

    def plan(self, text: str) -> Plan:
        brief: dict[str, Any] = {}
        sections: list[Section] = []
        blocks: dict[str, tuple[Node, ...]] = {}
        top = self._nested(text)
        named = [line.text[8:].strip() for line in top if line.text.startswith("# block ")]
        self.blocks |= {plain_name(name): name for name in named}
        for line in top:
            try:
                if line.text.startswith("# block "):
                    name = line.text[8:].strip()
                    if plain_name(name) in map(plain_name, blocks):
                        raise self._wrong(line, f"There is a block {name!r} already.", "Call one otherwise.")
                    blocks[name] = self._nodes(line.inner)
                elif line.text.startswith("#"):
                    sections.append(self._section(line))
                elif not sections and not blocks:
                    for name, got in self._brief(line).items():
                        brief[name] = (
                            {**brief.get(name, {}), **got} if name in ("ways", "own", "said") else got
                        )
                else:
                    what = f"{line.text!r} is not in a section."
                    raise self._wrong(line, what, "Put it under a # heading.")
            except Problem as problem:
                self.problems.append(problem)
        if self.problems:
            first, *others = sorted(self.problems, key=lambda problem: _number_of(problem.where))
            raise Problem(first.what, first.where, first.do, others)
        return Plan(brief=Brief(**brief), sections=tuple(sections), blocks=blocks)

    def _brief(self, line: _Line) -> dict[str, Any]:
        key, colon, value = line.text.partition(":")
        if not colon:
            raise self._wrong(line, f"{line.text!r} stands before any section.", "Start one with: # Title")
        found: dict[str, Any] = self._try(line, read_brief_line, key, value.strip(), self.known)
        return found

    # --- lines into a nest -----------------------------------------------------------------------------

    def _nested(self, text: str) -> list[_Line]:
        """The lines as a nest: what is indented deeper is inside; everything is inside its heading."""
        top: list[_Line] = []
        open_lines: list[_Line] = []
        for number, raw in enumerate(text.splitlines(), 1):
            stripped = raw.strip()
            if not SAID.match(stripped):
                stripped = re.sub(rf"\s+{COMMENT}(?:\s.*)?$", "", raw).strip()
            if not stripped or stripped.startswith(COMMENT):
                continue
            blank = raw[: len(raw) - len(raw.lstrip())]
            line = _Line(number, len(blank), stripped)
            if "\t" in blank:
                do = f"Use {INDENT} spaces for each step in."
                self.problems.append(self._wrong(line, "A tab is in the indentation.", do))
                line.depth = len(blank.expandtabs(INDENT)) // INDENT * INDENT
            elif len(blank) % INDENT:
                what = f"{len(blank)} spaces are not a whole step in."
                self.problems.append(self._wrong(line, what, f"Use {INDENT} for each."))
            if stripped.startswith("#"):
                top.append(line)
                open_lines = [line]
                continue
            if len(blank) > MOST_DEEP * INDENT:
                what = f"This is more than {MOST_DEEP} steps in."
                self.problems.append(self._wrong(line, what, "Take some groups apart."))
                continue
            level = line.depth // INDENT + (1 if open_lines and open_lines[0].text.startswith("#") else 0)
            if level > len(open_lines):
                do = "Step in once under what it belongs to."
                if line.depth == len(blank):  # what was wrong with it is told already
                    self.problems.append(self._wrong(line, "This line is indented too far.", do))
                level = len(open_lines)
            del open_lines[level:]
            (open_lines[-1].inner if open_lines else top).append(line)
            open_lines.append(line)
        return top

    # --- parts --------------------------------------------------------------------------------------------

    def _section(self, line: _Line) -> Section:
        title, _, words = line.text.lstrip("#").partition("|")
        body = self._nodes(line.inner)
        fields: dict[str, Any] = {}
        for part in filter(None, (part.strip() for part in words.split(","))):
            key, _, value = part.partition(" ")
            if not _SECTION_WORD.fullmatch(part):
                do = f"Use one of: {', '.join(_SECTION_WORDS)}."
                raise self._wrong(line, f"{part!r} can't follow a section's title.", do)
            if key == "role" and value not in ROLES:
                raise self._wrong(line, f"There is no role {value!r}.", f"Use one of: {', '.join(ROLES)}.")
            fields |= _SECTION_WORDS[key](value)  # type: ignore[no-untyped-call]
        return Section(title=title.strip(), body=body, **fields)

    def _nodes(self, lines: list[_Line]) -> tuple[Node, ...]:
        """The nodes of lines; what is wrong with one is noted, and the others are read."""
        nodes = []
        for line in lines:
            try:
                node = self._node(line)
                stages = self._stages(line)
                if stages and isinstance(node, Pair):
                    node, stages = msgspec.structs.replace(node, body=(*node.body, *stages)), ()
                nodes += [node, *stages]
            except Problem as problem:
                self.problems.append(problem)
        return tuple(nodes)

    def _node(self, line: _Line) -> Node:
        text = line.text
        if found := _ROUNDS.match(text):
            least, most = (int(found[2]), int(found[3])) if found[2] else (None, None)
            return Rounds(
                body=self._body(line),
                times=int(found[1]),
                least=least,
                most=most,
                locked=bool(found[4]),
                alternate={" alternate": True, " same side": False}.get((found[5] or "").lower()),
                teach=int(found[6] or 0),
                from_round=int(found[7] or 1),
            )
        if found := _PAIR.match(text):
            lead: Any = found[1].lower() if found[1] else None
            return Pair(body=self._body(line), lead=lead, from_round=int(found[2] or 1))
        if text.lower().startswith("insert "):
            return self._with_edits(self._block(line, text[7:].strip()), line)
        if text.lower().startswith("variant "):
            return self._variant(line)
        if (
            self.names.find(text) is None
            and (found := _BLOCK.match(text))
            and plain_name(found[1]) in self.blocks
        ):
            block = self._with_edits(Block(name=self.blocks[plain_name(found[1])]), line)
            return Rounds(body=(block,), times=int(found[2])) if found[2] else block
        try:
            return self._step(line)
        except Problem:
            if like := self._like(text):
                raise self._wrong(line, f"There is no movement or block {text!r}.", like) from None
            raise

    def _like(self, name: str) -> str:
        """The block that a name is much like, as a question; "" for none."""
        close = near_names(name, self.blocks, least=0.85)
        return f"Did you mean {self.blocks[close[0]]!r}?" if close else ""

    def _block(self, line: _Line, name: str) -> Block:
        if f"{name} ".lower().startswith(MISSING) and plain_name(name) not in self.blocks:
            name = name[len(MISSING) :].strip()
            return Block(name=self.blocks.get(plain_name(name), name))
        if self.known is not None and plain_name(name) not in self.blocks:
            raise self._wrong(
                line,
                f"There is no block {name!r}.",
                self._like(name) or "`list` on the command line has all there are.",
            )
        return Block(name=self.blocks.get(plain_name(name), name))

    def _body(self, line: _Line) -> tuple[Node, ...]:
        if not line.inner:
            raise self._wrong(line, f"Nothing is inside {line.text!r}.", "Indent its movements under it.")
        return self._nodes(line.inner)

    def _variant(self, line: _Line) -> Variant:
        ways = {}
        for way in line.inner:
            if not way.text.lower().startswith("way "):
                raise self._wrong(way, "A variant holds ways.", "Write: way NAME, and indent its movements.")
            ways[way.text[4:].strip()] = self._nodes(way.inner)  # one way may be to do nothing
        if not ways:
            raise self._wrong(line, "This variant has no ways.", "Write: way NAME, and indent its movements.")
        return Variant(ways=ways, chosen=line.text[8:].strip())

    def _step(self, line: _Line) -> Node:
        step: Step
        step, pair = self._try(line, read_step, line.text, self.names, self.library)
        lines: dict[str, list[str]] = {}
        for inner in line.inner:
            if inner.text.startswith(("+", BECAUSE)) or is_edited_line(inner.text):
                continue
            purpose, colon, words = inner.text.removeprefix(">").strip().partition(":")
            if not inner.text.startswith(">") or not colon or purpose not in LINE_PURPOSES:
                raise self._wrong(
                    inner,
                    f"{inner.text!r} can't stand inside a movement.",
                    "Step out, or write: > call: the line",
                )
            lines.setdefault(purpose, []).append(words.strip())
        step = self._told_under(msgspec.structs.replace(step, lines=lines), line)
        if pair is None:
            return step
        lead: Any = pair or None
        body: tuple[Step, ...] = (step,)
        return Pair(body=body, lead=lead)

    def _told_under(self, step: Step, line: _Line) -> Step:
        """A step with what stands under its line: why its sides differ, what she did to its lines."""
        for inner in line.inner:
            if inner.text.startswith(BECAUSE):
                if step.second is None:
                    raise self._wrong(inner, "The sides of this do not differ.", "Write second +1 behind it.")
                why = inner.text.removeprefix(BECAUSE).strip()
                step = msgspec.structs.replace(step, second=msgspec.structs.replace(step.second, why=why))
        return self._with_edits(step, line)

    def _with_edits(self, node: Kept, line: _Line) -> Kept:
        """A step or a block with what the lines under it say was done to its own."""
        name = node.name if isinstance(node, Block) else ""
        edits = []
        for inner in line.inner:
            if is_edited_line(inner.text):
                before = [
                    one.text.removeprefix(WAS).strip() for one in inner.inner if one.text.startswith(WAS)
                ]
                edits.append(self._try(inner, read_edited_line, inner.text, " ".join(before), name))
            elif name:
                raise self._wrong(inner, f"{inner.text!r} can't stand under a block.", DO)
        return msgspec.structs.replace(node, edits=tuple(edits))

    def _stages(self, line: _Line) -> tuple[Step, ...]:
        """The stages of a movement's line: `+ held 3b: Hold the last one up there.`"""
        lines = [inner for inner in line.inner if inner.text.startswith("+")]
        stages: list[Step] = []
        for inner in lines:
            words, _, said = inner.text[1:].partition(": ")
            first = self._try(line, read_step, line.text, self.names, self.library)[0]
            text = f"{first.movement} {words.strip()}"
            stage, pair = self._try(inner, read_step, text, self.names, self.library)
            if pair is not None or not (stage.done or stage.pattern):
                raise self._wrong(
                    inner,
                    f"{inner.text!r} is no stage of a movement.",
                    "Write: + held 3b, + pulsed 10x, + repeated 4x, + counted 8n or + 4x pattern 4:0:6:0",
                )
            stage = msgspec.structs.replace(stage, lines={"call": [said.strip()]} if said.strip() else {})
            stages.append(self._told_under(stage, inner))
        return tuple(stages)

    def _try(self, line: _Line, read: Any, *arguments: Any) -> Any:
        try:
            return read(*arguments)
        except Problem as problem:
            raise self._wrong(line, problem.what, problem.do) from problem

    def _wrong(self, line: _Line, what: str, do: str) -> Problem:
        return Problem(what, f"{self.where}, line {line.number - self.before}", do)
