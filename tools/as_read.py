"""What the core says today, so that a change in it is seen: every demo class at several lengths and in every
style, its outline, and the messages that a few hundred damaged inputs bring.

`python -m tools.as_read` writes it to tests/core/as_read/. A test compares. When it differs, read what is new
(`git diff` there, `./yew script` here and before the change) and, if it is as it should be, write it anew.
"""

import hashlib
import json
import re
from pathlib import Path
from random import Random
from typing import get_args

import msgspec

from tools.fuzz import damaged
from yewhour.content.paths import demo_classes
from yewhour.core.edits.remedies import explain, remedies
from yewhour.core.export.contract import script
from yewhour.core.outline.movement_search import MovementSearch
from yewhour.core.outline.reader import read_outline
from yewhour.core.outline.writer import write_outline
from yewhour.core.pace import Pace
from yewhour.core.pipeline import SolvedPlan, solve
from yewhour.core.plan.edit import Deed, Edit, apply_all
from yewhour.core.plan.nodes import walk
from yewhour.core.plan.vocabulary import unknown_fields
from yewhour.core.problem import Problem
from yewhour.core.teaching_data import TeachingData
from yewhour.state.classes.class_file import parse_plan, plan_bytes, read_plan

FOLDER = Path(__file__).resolve().parent.parent / "tests" / "core" / "as_read"
STYLED = ("bell-ringers", "sunrise-on-the-quay", "keel-and-ballast")  # held, flowing, counted
INPUTS = 300


def _digest(value: object) -> str:
    return hashlib.sha256(json.dumps(value, sort_keys=True).encode()).hexdigest()[:12]


def _at(solved: SolvedPlan, share: float) -> list[object]:
    """The script at a share of the way from the shortest to the longest, and what fit did for it."""
    wanted = solved.shortest_s + share * (solved.longest_s - solved.shortest_s)
    timed = solved.make(solved.nearest_s(wanted))
    return [script(timed), explain(solved, timed.choice), [msgspec.to_builtins(one) for one in timed.dropped]]


def scripts(words: TeachingData) -> dict[str, str]:
    """A digest of every class as it is now, by its name."""
    found = {}
    for path in demo_classes():
        plan = read_plan(path)
        solved = solve(plan, words)
        found[path.stem] = _digest([script(solved.make()), write_outline(plan, words.library)])
        found[f"{path.stem}, short"] = _digest(_at(solved, 0.1))
        found[f"{path.stem}, long"] = _digest(_at(solved, 0.9))
        if path.stem not in STYLED:
            continue
        found[f"{path.stem}, too short"] = _digest(
            [[one.title, one.gives_s] for one in remedies(solved, solved.shortest_s * 0.8)]
        )
        for style in sorted(words.schools):
            brief = msgspec.structs.replace(plan.brief, style=style, lineage="")
            try:
                other = solve(msgspec.structs.replace(plan, brief=brief), words)
                found[f"{path.stem}, {style}"] = _digest(_at(other, 0.4))
            except Problem as problem:
                found[f"{path.stem}, {style}"] = str(problem)
    return found


def messages(words: TeachingData) -> list[str]:
    """What damaged classes and outlines are told, each kind of message once, and what came of the rest."""
    found: dict[str, str] = {}
    whole: list[str] = []
    for number in range(INPUTS):
        dice = Random(number)
        for kind in ("class", "outline"):
            for line in _told(kind, damaged(kind, dice), words).splitlines():
                found.setdefault(re.sub(r"'[^']*'|\(at [^)]*\)|[\d.]+", "#", line.split(": ", 1)[-1]), line)
                whole.append(line)
    return [*sorted(found.values()), f"all of it: {_digest(whole)}"]


def _told(kind: str, content: bytes, words: TeachingData) -> str:
    """What one input is told; of an outline that can be read, a digest of how it is written again."""
    messages = []
    try:
        if kind == "class":
            plan = parse_plan(content)
        else:
            plan = read_outline(content.decode(errors="replace"), words.library, known=words.known)
            messages.append(f"written again: {_digest(write_outline(plan, words.library))}")
        messages += map(str, unknown_fields(plan))
        solve(parse_plan(plan_bytes(plan)), words)
    except Problem as problem:
        messages.append(str(problem))
    return "\n".join(messages)


def edited(words: TeachingData) -> dict[str, str]:
    """A digest of every class after each of the edits that can be done to its parts, by the deed."""
    found: dict[str, list[object]] = {}
    for path in demo_classes()[::3]:
        plan = read_plan(path)
        nodes = [node for section in plan.sections for node in walk(section.body)]
        for number, node in enumerate(nodes):
            for command in get_args(Deed):
                edit = Edit(
                    command,
                    node.id,
                    command,
                    "child",
                    number % 4,
                    number % 3 == 0,
                    "gentler",
                    "say",
                    Pace(6.0),
                )
                try:
                    after = apply_all(plan, [edit])
                    found.setdefault(command, []).append(msgspec.to_builtins(after))
                except Problem as problem:
                    found.setdefault(command, []).append(str(problem))
    return {command: _digest(plans) for command, plans in sorted(found.items())}


def finds(words: TeachingData) -> dict[str, str]:
    """A digest of what is found for names in part, for what they are about, and for names misspelt."""
    finder = MovementSearch(words.library, words.positions, words.blocks)
    found: dict[str, list[object]] = {}
    for movement in list(words.library.values())[::9]:
        name = movement.name
        for how, typed in (
            ("begun", name[:4]),
            ("last word", name.split()[-1]),
            ("misspelt", name[:3] + name[4:]),
            ("plural", f"{name}s 5b pair"),
            ("about", " ".join((*movement.opens[:1], *movement.props[:1], movement.family))),
        ):
            for here in ("", "supine", "standing"):
                hits, dose = finder.find(typed, here, ("knees",), ("hips",), not here, 8)
                shown = [[one.movement.id, round(one.score, 6), one.by, one.setup_s] for one in hits]
                found.setdefault(how, []).append([typed, shown, dose])
            found.setdefault("near", []).append(finder.names.nearest(typed))
    for first in (True, False):
        found[f"unasked, {first}"] = [one.movement.id for one in finder.find("", first=first)[0]]
    return {how: _digest(hits) for how, hits in sorted(found.items())}


def digests(words: TeachingData) -> dict[str, dict[str, str]]:
    """All that is compared by its digest."""
    return {"scripts": scripts(words), "edited": edited(words), "finds": finds(words)}


def main() -> None:
    """Writes both."""
    from yewhour.state.teaching_data import load_teaching_data

    words, _ = load_teaching_data(Path("/nonexistent"))
    FOLDER.mkdir(exist_ok=True)
    (FOLDER / "digests.json").write_text(json.dumps(digests(words), indent=1) + "\n")
    (FOLDER / "messages.json").write_text(json.dumps(messages(words), indent=1) + "\n")


if __name__ == "__main__":
    main()
