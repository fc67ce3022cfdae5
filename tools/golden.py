"""What the core says today, as text, so that a change in it can be read: scripts, fits, edits, messages,
findings and what mends them, look-backs, drafts with their reasons.

`python -m tools.golden` writes it to tests/core/golden/; a test compares. Where it differs, read the
difference (`git diff` there) and, if it is as it should be, keep it.
"""

import difflib
import hashlib
import re
from collections.abc import Iterator
from pathlib import Path
from random import Random

import msgspec

from tools.causes import KINDS, recording_with
from tools.fuzz import damaged
from tools.teachers import captions
from yewhour.content.draft_model_file import load_model
from yewhour.content.paths import DEMO, demo_classes
from yewhour.content.promise_file import promise_reader
from yewhour.content.terms import load_terms
from yewhour.core.draft.draft import draft_class
from yewhour.core.draft.draft_model import DraftRequest
from yewhour.core.draft.reasons import reasons_told
from yewhour.core.edits.remedies import explain, remedies
from yewhour.core.export.contract import script
from yewhour.core.export.reading import text
from yewhour.core.lengths import show_length
from yewhour.core.outline.movement_search import MovementSearch
from yewhour.core.outline.reader import read_outline
from yewhour.core.outline.writer import write_outline
from yewhour.core.pace import Pace
from yewhour.core.pipeline import SolvedPlan, solve
from yewhour.core.plan import edit as edits
from yewhour.core.plan.edit import Edit, apply
from yewhour.core.plan.nodes import walk
from yewhour.core.plan.plan import Brief, Plan
from yewhour.core.plan.vocabulary import unknown_fields
from yewhour.core.problem import Problem
from yewhour.core.promise.outcome import outcome_of
from yewhour.core.promise.wishes import told
from yewhour.core.review.findings import review_findings
from yewhour.core.review.review import look_back
from yewhour.core.teaching_data import TeachingData
from yewhour.core.transcript.captions import read_captions
from yewhour.state.classes.class_file import parse_plan, plan_bytes, read_plan
from yewhour.state.takes.recordings import load_looking

FOLDER = Path(__file__).resolve().parent.parent / "tests" / "core" / "golden"
STYLED = ("bell-ringers", "sunrise-on-the-quay", "keel-and-ballast")  # held, flowing, counted
INPUTS = 300
EVERY = 9  # nodes of a class that each edit is tried on: one in so many


def _digest(value: object) -> str:
    return hashlib.sha256(msgspec.json.encode(value)).hexdigest()[:12]


def whole_scripts(words: TeachingData) -> dict[str, str]:
    """Every demo class at its own length, to be read; a digest of what the JSON says besides at its foot."""
    found = {}
    for path in demo_classes():
        timed = solve(read_plan(path), words).make()
        dropped = "\n".join(f"{one.segment}: {one.text} ({one.reason})" for one in timed.dropped)
        rest = _digest(script(timed))
        found[path.stem] = f"{text(timed)}\n\nLeft out:\n{dropped}\n\nAll of the JSON: {rest}\n"
    return found


def _at(solved: SolvedPlan, share: float) -> Iterator[str]:
    """What a class becomes at a share of the way from the shortest to the longest, a line a segment."""
    wanted = solved.shortest_s + share * (solved.longest_s - solved.shortest_s)
    timed = solved.make(solved.nearest_s(wanted))
    for one in timed.segments:
        side = "" if one.side == "both" else one.side
        yield f"  {show_length(one.start / 10, True):>9} {one.dose:>12} {side:11} {one.id}"
    yield from (f"  {line}" for line in explain(solved, timed.choice).splitlines())
    yield f"  lines: {_digest([(one.start, one.text) for one in timed.cues])}"


def fits(words: TeachingData) -> str:
    """Every demo class short and long, three of them in every style, and what helps where it can't be."""
    rows: list[str] = []
    for path in demo_classes():
        plan = read_plan(path)
        solved = solve(plan, words)
        rows += [f"{path.stem}, short", *_at(solved, 0.1), f"{path.stem}, long", *_at(solved, 0.9)]
        if path.stem in STYLED:
            rows.append(f"{path.stem}, too short")
            rows += [f"  {one.title}: {one.gives_s}" for one in remedies(solved, solved.shortest_s * 0.8)]
            for style in sorted(words.schools):
                rows += [f"{path.stem}, {style}", *_styled(plan, style, words)]
    return "\n".join(rows) + "\n"


def _styled(plan: Plan, style: str, words: TeachingData) -> Iterator[str]:
    brief = msgspec.structs.replace(plan.brief, style=style, lineage="")
    try:
        yield from _at(solve(msgspec.structs.replace(plan, brief=brief), words), 0.4)
    except Problem as problem:
        yield f"  {problem}"


def _edits(node: str, number: int) -> Iterator[Edit]:
    """Every edit there is of a node."""
    amount, clock = number % 4 + 1, number % 3 == 0
    yield edits.Drop(node=node, title="drop")
    yield edits.Unlock(node=node, title="unlock")
    yield edits.Repeat(node=node, title="repeat", more=amount)
    yield edits.Widen(node=node, title="widen", most=40 + amount)
    yield edits.PairUp(node=node, title="pair")
    yield edits.Insert(node=node, title="before", movement="child", before=True)
    yield edits.Insert(node=node, title="after", movement="child")
    yield edits.TakeGentler(node=node, title="gentler")
    yield edits.SetAmount(node=node, title="amount", amount=amount, clock=clock)
    yield edits.SetMost(node=node, title="most", amount=amount, clock=clock)
    yield edits.Face(node=node, title="face", facing="side")
    yield edits.SetPace(node=node, title="pace", pace=Pace(6.0))
    yield edits.SlowSection(node=node, title="slow", pace=Pace(6.0))
    yield edits.Append(title="append", section="Rest", movement="final-rest")


def edited(words: TeachingData) -> str:
    """What each edit changes in the outline of a class."""
    rows: list[str] = []
    for path in demo_classes()[::3]:
        plan = read_plan(path)
        before = write_outline(plan, words.library).splitlines()
        nodes = [node for section in plan.sections for node in walk(section.body)]
        for number, node in enumerate(nodes[::EVERY]):
            for edit in _edits(node.id, number):
                rows.append(f"{path.stem}: {edit.title} {node.id}")
                try:
                    after = write_outline(apply(plan, edit), words.library).splitlines()
                except Problem as problem:
                    rows.append(f"  {problem}")
                    continue
                changed = difflib.ndiff(before, after)
                rows += [f"  {line}" for line in changed if line[0] in "+-"]
    return "\n".join(rows) + "\n"


def finds(words: TeachingData) -> str:
    """What is found for names in part, for what they are about, and for names misspelt."""
    search = MovementSearch(words.library, words.positions, words.blocks)
    rows: list[str] = []
    for movement in list(words.library.values())[::9]:
        name = movement.name
        for typed in (
            name[:4],
            name.split()[-1],
            name[:3] + name[4:],
            f"{name}s 5b pair",
            " ".join((*movement.opens[:1], *movement.props[:1], movement.family)),
        ):
            for here in ("", "supine", "standing"):
                hits, dose = search.find(
                    typed, here, words.room(Brief(cautions=("knees",))), ("hips",), not here, 8
                )
                shown = " ".join(f"{one.movement.id}:{one.score:.3f}" for one in hits)
                rows.append(f"{typed!r} {here or 'anywhere'}{f', {dose}' if dose else ''}: {shown}")
        rows.append(f"near {name!r}: {', '.join(search.names.nearest(name[:-2]))}")
    return "\n".join(rows) + "\n"


def messages(words: TeachingData) -> str:
    """What damaged classes and outlines are told, each kind of message once, and a digest of all of it."""
    found: dict[str, str] = {}
    whole: list[str] = []
    for number in range(INPUTS):
        dice = Random(number)
        for kind in ("class", "outline"):
            for line in _told(kind, damaged(kind, dice), words).splitlines():
                found.setdefault(re.sub(r"'[^']*'|\(at [^)]*\)|[\d.]+", "#", line.split(": ", 1)[-1]), line)
                whole.append(line)
    return "\n".join([*sorted(found.values()), f"all of it: {_digest(whole)}"]) + "\n"


def _told(kind: str, content: bytes, words: TeachingData) -> str:
    """What one input is told; of an outline that can be read, a digest of how it is written again."""
    told = []
    try:
        if kind == "class":
            plan = parse_plan(content)
        else:
            plan = read_outline(content.decode(errors="replace"), words.library, known=words.known)
            told.append(f"written again: {_digest(write_outline(plan, words.library))}")
        told += map(str, unknown_fields(plan))
        solve(parse_plan(plan_bytes(plan)), words)
    except Problem as problem:
        told.append(str(problem))
    return "\n".join(told)


def findings(words: TeachingData) -> str:
    """What each check says of a class in which it speaks, and what would mend it."""
    from tests.core.checks.test_checks import SPEAKS, look

    rows: list[str] = []
    for code, (speaks, _) in SPEAKS.items():
        finding = look(speaks)[0][code]
        rows.append(f"{code}: {finding.message}")
        if finding.edit is not None:
            said = [one.text for one in getattr(finding.edit, "say", ())]
            rows.append(f"  {finding.edit.title}{': ' if said else ''}{' | '.join(said)}")
    return "\n".join(rows) + "\n"


def looked_back(words: TeachingData) -> str:
    """What is told of recordings with known causes."""
    rows: list[str] = []
    for number, name in enumerate(STYLED[:2]):
        timed = solve(read_plan(DEMO / f"{name}.yewhour"), words).make()
        for kind in KINDS:
            said, _ = recording_with(timed, Random(number), (kind,))
            back = look_back(timed, None, read_captions(captions(said)))
            rows += [
                f"{name}, {kind}",
                *(f"  {one.message}" for one in review_findings(back, load_looking())),
            ]
    return "\n".join(rows) + "\n"


def drafted(words: TeachingData) -> str:
    """Drafts and their reasons, and what became of each wish."""
    areas, model, rows = load_terms(words.positions).areas, load_model(), list[str]()
    reader = promise_reader(words)
    for promise in PROMISES:
        read = reader.read(promise)
        draft = draft_class(DraftRequest(read.brief, 1), words, model)
        rows += ["", promise, *(f"  {told(one)}" for one in outcome_of(read.wishes, draft, words, areas))]
        rows += [f"  {line}" for line in reasons_told(draft, words, areas, model)]
    return "\n".join(rows) + "\n"


PROMISES = (
    "45-minute hatha about hips, sore knees",
    "flow 40 to crow",
    "mat pilates 25, no planks",
    "restorative 50, pregnant",
    "chair 20 for over 70s with a band",
)
PARTS = {
    "fits": fits, "edited": edited, "finds": finds, "messages": messages, "findings": findings,
    "looked_back": looked_back, "drafted": drafted,
}  # fmt: skip


def difference(name: str, now: str) -> str:
    """How what is said now differs from what was kept, to be read; "" where it does not."""
    file = FOLDER / f"{name}.txt"
    was = file.read_text(encoding="utf-8") if file.is_file() else ""
    if was == now:
        return ""
    lines = difflib.unified_diff(
        was.splitlines(), now.splitlines(), "as it was", "as it is", n=1, lineterm=""
    )
    return "\n".join([line for _, line in zip(range(60), lines, strict=False)])


def main() -> None:
    """Writes all of it."""
    from yewhour.state.teaching_data import load_teaching_data

    words, _ = load_teaching_data(Path("/nonexistent"))
    (FOLDER / "scripts").mkdir(parents=True, exist_ok=True)
    for name, whole in whole_scripts(words).items():
        (FOLDER / "scripts" / f"{name}.txt").write_text(whole, encoding="utf-8")
    for name, part in PARTS.items():
        (FOLDER / f"{name}.txt").write_text(part(words), encoding="utf-8")


if __name__ == "__main__":
    main()
