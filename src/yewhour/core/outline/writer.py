"""A plan written as an outline."""

from collections.abc import Iterable, Iterator
from typing import TypeGuard

from yewhour.core.library.movement import Library
from yewhour.core.outline.brief_lines import one_line, write_brief
from yewhour.core.outline.edited_lines import write_edited_lines
from yewhour.core.outline.step_lines import BECAUSE, INDENT, MISSING, write_step
from yewhour.core.pace import show_pace
from yewhour.core.plan.nodes import (
    Block,
    Blocks,
    Node,
    Pair,
    Rounds,
    Step,
    Variant,
)
from yewhour.core.plan.plan import Plan, Section
from yewhour.core.plan.stand_ins import missing_blocks


def write_outline(plan: Plan, library: Library, blocks: Blocks | None = None) -> str:
    """The outline of a plan; read again it gives the same plan, ids and unknown fields apart.

    blocks: those of the library, where a block that nobody has is to be marked as missing, so that it can be
    read where it is missed.
    """
    lines = write_brief(plan.brief)
    for section in plan.sections:
        lines += ["", _heading(section)]
        lines += _nodes(section.body, library, 0)
    for name, body in plan.blocks.items():
        lines += ["", f"# block {name}"]
        lines += _nodes(body, library, 0)
    gone = missing_blocks(plan, blocks) if blocks is not None else ()
    missing = {f"insert {name}".strip() for name in gone}  # one may have lost its name, too
    marked = f"insert {MISSING}".rstrip()
    lines = [
        line.replace("insert", marked, 1).rstrip() if line.strip() in missing else line for line in lines
    ]
    return "\n".join(lines) + "\n"


def nodes_text(nodes: Iterable[Node], library: Library) -> str:
    """Some nodes as lines of an outline."""
    return "".join(f"{line}\n" for line in _nodes(nodes, library, 0))


def _nodes(nodes: Iterable[Node], library: Library, depth: int) -> Iterator[str]:
    """The lines of nodes one after another; the stages of a movement are written under it."""
    before: Node | None = None
    for node in nodes:
        if isinstance(before, Step) and _is_stage(node, before):
            yield from _stage(node, library, depth)
        else:
            yield from _node(node, library, depth)
            before = node


def _is_stage(node: Node, of: Step) -> TypeGuard[Step]:
    """Whether a node goes on with a step, and all that there is to say of it fits in a stage's line."""
    goes_on = isinstance(node, Step) and node.movement == of.movement and (node.done or node.pattern)
    return bool(goes_on) and isinstance(node, Step) and (not node.lines or _one_call(node))


def _one_call(step: Step) -> bool:
    calls = step.lines.get("call", [])
    return list(step.lines) == ["call"] and len(calls) == 1 and calls[0] == calls[0].strip() != ""


def _stage(step: Step, library: Library, depth: int) -> Iterator[str]:
    words = write_step(step, library).removeprefix(step.movement.replace("-", " ")).strip()
    said = f": {step.lines['call'][0]}" if step.lines else ""
    yield f"{' ' * INDENT * (depth + 1)}+ {words}{said}"
    yield from _under_it(step, depth + 1)


def _heading(section: Section) -> str:
    words = []
    if section.role:
        words.append(f"role {section.role}")
    if section.pace:
        words.append(f"pace {show_pace(section.pace)}")
    if section.glide_to is not None:
        words.append(f"glide {section.glide_to:g}")
    if section.mat:
        words.append(f"mat {section.mat}")
    if section.priority:
        words.append(f"priority {section.priority}")
    title = one_line(section.title)
    if title.split(" ")[0] == "block":  # which would begin a block
        title = title.capitalize()
    return f"# {title}{' | ' if words else ''}{', '.join(words)}"


def _node(node: Node, library: Library, depth: int) -> Iterator[str]:
    space = " " * INDENT * depth
    later = f" from round {node.from_round}" if node.from_round > 1 else ""
    if isinstance(node, Step):
        yield from _step(node, library, depth, None)
    elif isinstance(node, Pair):
        body = [inner for inner in node.body if not _nothing(inner)]
        only, stages = next(iter(body), None), body[1:]
        if (
            isinstance(only, Step) and not later and _sided(only, library)
            and all(_is_stage(stage, only) for stage in stages)
        ):  # fmt: skip
            yield from _step(only, library, depth, node.lead or "")
            for stage in stages:
                if isinstance(stage, Step):
                    yield from _stage(stage, library, depth)
            return
        yield from _under(
            f"{space}pair{f' {node.lead}' if node.lead else ''}{later}", node.body, library, depth
        )
    elif isinstance(node, Rounds):
        span = f" ({node.least or node.times}-{node.most or node.times})" if node.least or node.most else ""
        lock = "!" if node.locked else ""
        alternate = {True: " alternate", False: " same side"}.get(node.alternate, "")  # type: ignore[arg-type]
        teach = f" teach {node.teach}" if node.teach else ""
        head = f"{space}rounds {node.times}{span}{lock}{alternate}{teach}{later}"
        yield from _under(head, node.body, library, depth)
    elif isinstance(node, Variant) and node.ways:
        yield f"{space}variant {one_line(node.chosen) or next(iter(node.ways))}"
        for name, way in node.ways.items():
            yield f"{space}{' ' * INDENT}way {one_line(name)}"
            yield from _nodes(way, library, depth + 2)
    elif isinstance(node, Block):
        yield f"{space}insert {node.name}"
        yield from _indented(write_edited_lines(node.edits, node.name), depth + 1)


def _nothing(node: Node) -> bool:
    """Whether a group holds nothing at any depth."""
    return isinstance(node, Pair | Rounds) and all(map(_nothing, node.body))


def _under(head: str, body: Iterable[Node], library: Library, depth: int) -> Iterator[str]:
    """A group's line and what is in it; one that holds nothing is nothing."""
    inside = list(_nodes(body, library, depth + 1))
    if inside:
        yield head
        yield from inside


def _sided(step: Step, library: Library) -> bool:
    movement = library.get(step.movement)
    return movement is None or movement.sides == "one"


def _step(step: Step, library: Library, depth: int, pair: str | None) -> Iterator[str]:
    space = " " * INDENT * depth
    yield space + write_step(step, library, pair)
    for purpose, texts in step.lines.items():
        for text in texts:
            yield f"{space}{' ' * INDENT}> {purpose}: {one_line(text)}"
    yield from _under_it(step, depth)


def _under_it(step: Step, depth: int) -> Iterator[str]:
    """What stands under a step's line whatever it is: why its sides differ, what was done to its lines."""
    if step.second is not None and (why := one_line(step.second.why)):
        yield f"{' ' * INDENT * (depth + 1)}{BECAUSE} {why}"
    yield from _indented(write_edited_lines(step.edits), depth + 1)


def _indented(lines: Iterable[str], depth: int) -> Iterator[str]:
    return (f"{' ' * INDENT * depth}{line}" for line in lines)
