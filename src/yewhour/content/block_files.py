"""Reusable blocks (openings, closings): outlines that ship and outlines of the teacher's own."""

from collections.abc import Iterable
from pathlib import Path

import msgspec

from yewhour.core.library.movement import Library
from yewhour.core.outline.reader import read_outline
from yewhour.core.plan.nodes import (
    Block,
    Blocks,
    Node,
    walk,
)
from yewhour.core.plan.plan import Plan, with_ids
from yewhour.core.problem import Problem


def load_blocks(
    folders: Iterable[Path], library: Library, before: Blocks | None = None
) -> tuple[Blocks, list[Problem]]:
    """Every block of the folders' .txt outlines, and what was wrong. Later folders win by name.

    before: blocks that those of the folders come on top of. A block that holds itself, straight or by others,
    is reported with file and line and left out.
    """
    blocks: Blocks = {}
    given = before or {}
    files: dict[str, Path] = {}
    problems: list[Problem] = []
    for folder in folders:
        for path in sorted(folder.glob("*.txt")):
            try:
                found = read_outline(path.read_text(encoding="utf-8"), library, str(path)).blocks
            except (OSError, UnicodeDecodeError) as error:
                problems.append(Problem(f"This can't be read: {error}.", str(path), "Save it as plain text."))
                continue
            except Problem as problem:
                problems.append(problem)
                continue
            for name, body in found.items():
                blocks[name], files[name] = body, path
    for name in list(blocks):
        circle = _circle(name, {**given, **blocks}, ())
        if circle:
            problems.append(
                Problem(
                    f"The block {name!r} holds itself: {' > '.join(circle)}.",
                    _line(files[name], circle[1]),
                    "Take that line out; the block is left out until then.",
                )
            )
            del blocks[name]
    return given | {name: _with_own_ids(name, body) for name, body in blocks.items()}, problems


def _circle(name: str, blocks: Blocks, path: tuple[str, ...]) -> tuple[str, ...]:
    """The way from a block back to one already on it, or nothing."""
    if name in path:
        return (*path[path.index(name) :], name)
    for node in walk(blocks.get(name, ())):
        if isinstance(node, Block) and (found := _circle(node.name, blocks, (*path, name))):
            return found
    return ()


def _with_own_ids(name: str, body: tuple[Node, ...]) -> tuple[Node, ...]:
    """The block's nodes with ids that no class uses."""

    def bare(node: Node) -> Node:
        return msgspec.structs.replace(node, id="")

    plan = Plan(blocks={name: tuple(bare(node) for node in body)})
    return with_ids(plan, prefix=f"{name}:").blocks[name]


def _line(path: Path, name: str) -> str:
    for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1):
        if line.strip().lower() == f"insert {name}".lower():
            return f"{path}, line {number}"
    return str(path)
