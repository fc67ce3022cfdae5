"""Damaged inputs, put through everything: class files, outlines, movement files, marks of takes, captions.

`damaged(kind, dice)` makes one from something sound; `put_through` does with it what the program would, and
raises what the program must never raise. `run` does so many, in processes, and tells what it found. Dice is
any random.Random: one of hypothesis's shrinks what it found.
"""

import contextlib
import copy
import faulthandler
import json
import math
import multiprocessing
import signal
import sys
import tempfile
import time
import traceback
from collections import Counter
from functools import cache
from itertools import pairwise
from pathlib import Path
from random import Random
from typing import Any

import msgspec

from tools.teachers import captions, taught
from yewhour.content.movement_files import load_library
from yewhour.content.paths import DATA, demo_classes
from yewhour.content.terms import load_terms
from yewhour.core.edits.compare import nearest_class
from yewhour.core.edits.remedies import remedies
from yewhour.core.outline.reader import read_outline
from yewhour.core.outline.writer import write_outline
from yewhour.core.pipeline import SolvedPlan, solve
from yewhour.core.plan.plan import steps_of
from yewhour.core.problem import CannotFit, Problem
from yewhour.core.review.actual_class import actual_class
from yewhour.core.take.marks import DOES, read_marks
from yewhour.core.take.replay import replay
from yewhour.core.take.take_values import take_json
from yewhour.core.timed_class import TimedClass
from yewhour.core.transcript.captions import read_captions
from yewhour.render.formats import FORMATS
from yewhour.state.classes.class_file import parse_plan, plan_bytes
from yewhour.state.takes.recordings import brought_from, review_recording, review_unplanned
from yewhour.state.teaching_data import load_teaching_data

KINDS = ("class", "outline", "movement", "marks", "captions")
MARK_FIELDS = ("at_s", "do", "text", "segment", "cut", "version", "title", "key", "length_s", "x")
SLOW_S = 20.0  # what takes longer is a hang
HOSTILE: tuple[Any, ...] = (
    None, True, False, 0, -1, 1, 2, 3, 7, 60, 1000, 10**6, 2**31, 2**63, 2**64, -(2**63), 10**30, 0.0,
    -0.0, 0.1, 0.5,
    1e-9, 1e9, 1e300, math.nan, math.inf, -math.inf, "", " ", "x", "hold", "right", "left", "both",
    "start", "{side}",
    "{name}", "{", "}", "low-lunge", "child", "final-rest", "warrior-2", "n1", "n2", "clam", "hatha",
    "=1+1", "../x", "-->", "<b>",
    "a" * 5000,
    "\u202e\u05e9\u05dc\u05d5\u05dd", "\U0001f9d8", "\x00\x1b[2J", "\n\n", [], {}, [[]], [None], ["x"],
    {"is": "step"},
    {"is": "rounds", "times": 99, "body": []}, {"is": "pair", "body": []}, {"is": "block", "name": "x"},
    {"is": "step", "movement": "child"}, {"breaths_per_min": 0}, {"breaths_per_min": math.nan},
    {"ratio": [0, 0, 0, 0]}, {"more": 10**9}, {"x": {"y": 1}},
)  # fmt: skip
OUTLINE_BITS = (
    "5b", "10x", "30s", "1.2.3", "5..8b", "..", "5b..", "pair", "rounds 3", "3 rounds", "x", "-", "+",
    "# ", "*", "|",
    "(", ")", "[", "]", "{side}", "right", "left", "first", "or", "or stay", "repeated 3x", "held 3b",
    "pulsed 9x",
    "last 4", "pattern 4:2:6:0", "pattern 0:0:0:0", "lock", "locked", "0b", "-3b", "99999999999b", "1e9s",
    "nan", "inf",
    "length: 24:00", "length: soon", "style: none", "title:", "mind: knees", "breath: 0", "breath: 6 4:0:6:0",
    "low lunge", "child", "downward dog", "clam", "squats 45s", "sun salutation a", "\t", "    ", "\u00bd",
    "\u221e",
    "\u05e9\u05dc\u05d5\u05dd", "%", "=", ":", "::", "4:60", "0:00", "every 2nd", "from round 3",
    "gentler", "stronger",
)  # fmt: skip


class Hang(BaseException):
    """It took too long: not an Exception, so that nothing takes it for a fault that it can tell of."""


class Lost(AssertionError):
    """Something was lost on the way to the disk and back."""


@cache
def _words() -> Any:
    return load_teaching_data(Path(tempfile.gettempdir()) / "yewhour-nobody")[0]


@cache
def _sound(kind: str) -> tuple[Any, ...]:
    """What is damaged: documents of classes, texts of outlines, tables of movements."""
    if kind == "class":
        return tuple(json.loads(path.read_bytes()) for path in demo_classes())
    if kind == "marks":
        return tuple(_marks(Random(number)) for number in range(40))
    if kind == "captions":
        timed = _recorded()
        forms = ("vtt", "srt", "brackets", "rolling", "bare")
        return tuple(
            captions(taught(timed, Random(n), remarks=0.1), forms[n % 5]).decode() for n in range(10)
        )
    if kind == "outline":
        texts = [write_outline(parse_plan(path.read_bytes()), _words().library) for path in demo_classes()]
        return tuple(texts + [path.read_text() for path in sorted((DATA / "blocks").glob("*.txt"))])
    return tuple(path.read_text() for path in sorted((DATA / "movements").rglob("*.toml")))


def _marks(dice: Random) -> str:
    """The marks of a sound take."""
    at, lines = 0.0, [{"at_s": 0.0, "do": "start"}]
    for _ in range(dice.randrange(1, 12)):
        at = round(at + dice.uniform(0.1, 200), 1)
        do, cut = dice.choice(DOES[1:]), dice.choice([False, False, True])
        cut = [round(at * dice.random(), 1), at] if do in ("resume", "back") and dice.random() < 0.5 else cut
        lines.append({"at_s": at, "do": do, "text": "x", "cut": cut})
    return "\n".join(map(json.dumps, lines))


# --- damage -------------------------------------------------------------------------------------------------


def damaged(kind: str, dice: Random) -> bytes:
    """One input of a kind, damaged in one to four places; one in thirty is sound."""
    one = dice.choice(_sound(kind))
    times = 0 if dice.random() < 0.03 else dice.choice((1, 1, 1, 2, 2, 3, 4))
    if kind == "class":
        document = _smaller(copy.deepcopy(one), dice)
        for _ in range(times):
            _damage(document, dice)
        content = json.dumps(document).encode()
    else:
        lines = one.splitlines()
        start = dice.randrange(max(1, len(lines) - 10)) if dice.random() < 0.7 else 0
        if kind == "movement":
            while start > 0 and not lines[start].startswith("["):
                start -= 1
        lines = lines[start : start + dice.choice((8, 14, 30, 90))]
        for _ in range(times):
            _damage_lines(lines, dice, kind)
        content = "\n".join(lines).encode(errors="replace")
    if dice.random() < 0.06:
        content = _damage_bytes(content, dice)
    return content


def _smaller(document: dict[str, Any], dice: Random) -> dict[str, Any]:
    """Fewer sections, mostly, so that many can be tried."""
    sections = document.get("sections", [])
    if dice.random() < 0.8 and len(sections) > 2:
        keep = sorted(dice.sample(range(len(sections)), 2))
        document["sections"] = [sections[number] for number in keep]
    return document


def _places(value: Any) -> list[tuple[Any, Any]]:
    """Every (container, key) in a document."""
    found: list[tuple[Any, Any]] = []
    stack = [value]
    while stack:
        here = stack.pop()
        keys = list(here) if isinstance(here, dict) else range(len(here)) if isinstance(here, list) else ()
        for key in keys:
            found.append((here, key))
            stack.append(here[key])
    return found


def _damage(document: dict[str, Any], dice: Random) -> None:
    places = _places(document)
    if not places:
        return
    holder, key = dice.choice(places)
    act = dice.random()
    if act < 0.45:
        holder[key] = copy.deepcopy(dice.choice(HOSTILE))
    elif act < 0.55:
        del holder[key]
    elif act < 0.65:
        other, at = dice.choice(places)
        with contextlib.suppress(IndexError, KeyError):
            holder[key] = copy.deepcopy(other[at])
    elif act < 0.75:
        fields = (
            "amount", "least", "most", "times", "locked", "second", "pace", "clock", "done", "from_round",
                  "more", "title", "teach", "weight", "id", "is", "extra", "or_stay", "countdown",
                  "lead")  # fmt: skip
        if isinstance(holder, dict):
            holder[dice.choice(fields)] = copy.deepcopy(dice.choice(HOSTILE))
    elif act < 0.85:
        if isinstance(holder, list):
            holder += [copy.deepcopy(holder[key]) for _ in range(dice.choice((1, 3, 40)))]
    elif act < 0.95:
        value = holder[key]
        if isinstance(value, int | float) and not isinstance(value, bool):
            holder[key] = value * dice.choice((-1, 0, 10, 1000, 0.5, 10**20))
    else:
        holder[key] = {
            "is": dice.choice(("pair", "rounds")),
            "times": dice.choice((2, 9, 999)),
            "body": [holder[key]],
        }


def _damage_lines(lines: list[str], dice: Random, kind: str) -> None:
    if not lines:
        return
    at = dice.randrange(len(lines))
    act = dice.random()
    if kind == "marks" and act < 0.7:
        with contextlib.suppress(ValueError, TypeError):
            mark = json.loads(lines[at])
            mark[dice.choice(MARK_FIELDS)] = dice.choice((*HOSTILE, *DOES, 60.0, 300, 1e4, "n3", "n5/into"))
            lines[at] = json.dumps(mark)
    elif kind == "movement" and act < 0.5 and "=" in lines[at]:
        key = lines[at].partition("=")[0]
        value = dice.choice((*HOSTILE, "[1, 2, 3]", "[3, 2, 1]"))
        lines[at] = f"{key}= {_toml(value)}"
    elif act < 0.35:
        words = lines[at].split(" ")
        words[dice.randrange(len(words))] = dice.choice(OUTLINE_BITS)
        lines[at] = " ".join(words)
    elif act < 0.6:
        lines.insert(
            at, f"{' ' * dice.choice((0, 2, 4, 12))}{dice.choice(OUTLINE_BITS)} {dice.choice(OUTLINE_BITS)}"
        )
    elif act < 0.7:
        del lines[at]
    elif act < 0.8:
        lines[at] = " " * dice.choice((0, 1, 2, 4, 6)) + lines[at].strip()
    elif act < 0.9:
        lines += [lines[at]] * dice.choice((1, 3, 60))
    else:
        lines[at] += f" {dice.choice(OUTLINE_BITS)}"


def _toml(value: Any) -> str:
    if isinstance(value, bool):
        return str(value).lower()
    if isinstance(value, str):
        return value if value.startswith("[1") or value.startswith("[3") else json.dumps(value)
    if isinstance(value, list) and all(isinstance(one, str) for one in value):
        return json.dumps(value)
    return str(value) if isinstance(value, int | float) else '""'


def _damage_bytes(content: bytes, dice: Random) -> bytes:
    at = dice.randrange(len(content) + 1)
    return dice.choice((
        content[:at], content[:at] + b"\xff\xfe" + content[at:], content + content[:at], content[at:],
        content.replace(b'"', b"'", 1), content.replace(b",", b",,", 1), content.replace(b"\n", b"\r\n"),
        b"\xef\xbb\xbf" + content,
    ))  # fmt: skip


# --- and put through ----------------------------------------------------------------------------------------


def put_through(kind: str, content: bytes, exports: tuple[str, ...]) -> str:
    """Does with an input what the program does; how far it came. Raises what the program must never raise."""
    words = _words()
    if kind == "movement":
        return _movement(content)
    if kind == "marks":
        return _take(content)
    if kind == "captions":
        return _recording(content)
    try:
        if kind == "class":
            plan = parse_plan(content, "a file")
        else:
            plan = read_outline(content.decode("utf-8-sig", "replace"), words.library, "a file", words.known)
    except Problem as problem:
        _told(problem)
        return "refused"
    written = plan_bytes(plan)
    if parse_plan(written) != plan:
        raise Lost("the class comes back from its file as another one")
    if kind == "class":
        _kept_all(json.loads(content), json.loads(written))
    try:
        solved = solve(plan, words)
        timed = nearest_class(solved)
    except Problem as problem:
        _told(problem)
        return "can't be made"
    try:
        solved.make()
    except CannotFit as problem:
        _told(problem)
        if len(timed.segments) < 60:
            remedies(solved, solved.promised_s)
    for name in exports:
        FORMATS[name].write(timed)
    if not all(step.movement in words.library for step in steps_of(plan)):
        return "made"  # what has no name here can't be named in an outline
    text = write_outline(plan, words.library, words.blocks)
    try:
        again = read_outline(text, words.library, "an outline", words.known)
    except Problem as problem:
        raise Lost(f"an outline that was written can't be read: {problem}") from problem
    if write_outline(again, words.library, words.blocks) != text:
        raise Lost("an outline comes back as another one")
    return "made"


def _movement(content: bytes) -> str:
    with tempfile.TemporaryDirectory() as folder:
        (Path(folder) / "hers.toml").write_bytes(content)
        words = _words()
        library, problems = load_library([Path(folder)], load_terms(words.positions), words.library)
        for problem in problems:
            _told(problem)
        hers = [one for one in library.values() if one.source.startswith(folder)]
        if not hers:
            return "refused"
        given = msgspec.structs.replace(words, library=library)
        lines = "\n".join(f"{one.id}" for one in hers[:8])
        outline = f"title: Hers\nlength: 12:00\n# One\n{lines}\nchild 5b\n"
        try:
            nearest_class(solve(read_outline(outline, library, "hers", given.known), given))
        except Problem as problem:
            _told(problem)
            return "can't be made"
    return "made"


@cache
def _demo(number: int) -> SolvedPlan:
    paths = demo_classes()
    return solve(parse_plan(paths[number % len(paths)].read_bytes()), _words())


def _take(content: bytes) -> str:
    try:
        read = read_marks(content.split(b"\n"), "marks")
    except Problem as problem:
        _told(problem)
        return "refused"
    solved = _demo(len(content))
    take = replay(solved, solved.make(), read.marks)
    if any(one.end != two.start for one, two in pairwise(take.segments)):
        raise Lost("there is a gap in a take")
    ids = {one.id for one in take.segments}
    if len(ids) != len(take.segments) or not {cue.segment for cue in take.cues} <= ids:
        raise Lost("two segments have one name, or a line has none")
    if [mark for mark in read.marks if mark.do == "note"] and take.state != "ended" and not take.notes:
        raise Lost("a note is lost")
    take_json(take)
    return "made"


@cache
def _recorded() -> TimedClass:
    path = next(one for one in demo_classes() if one.stem == "four-at-the-slip")
    return solve(parse_plan(path.read_bytes()), _words()).make()


def _recording(content: bytes) -> str:
    try:
        hearing = read_captions(content, "captions")
    except Problem as problem:
        _told(problem)
        return "refused"
    if any(two.start_s < one.start_s for one, two in pairwise(hearing.words)):
        raise Lost("words are out of order")
    looked = review_recording(_recorded(), None, hearing)
    value = json.loads(looked.json)
    lines = 0 if value["own_words"] else len(_recorded().cues)  # in other words than the script's
    if len(value["lines"]) != lines or len(value["segments"]) != len(_recorded().segments):
        raise Lost("a line or a segment is lost")
    if any(one["end_s"] < one["start_s"] for one in value["segments"]):
        raise Lost("a segment ends before it begins")
    for form in ("vtt", "csv"):
        FORMATS[form].write(actual_class(looked.back, True))
    json.loads(review_unplanned(hearing, "20 minutes").json)
    brought = brought_from(hearing, _words(), "Brought in")
    try:
        nearest_class(solve(read_outline(brought.outline, _words().library, "brought in"), _words()))
    except Problem as problem:
        _told(problem)
        return "can't be made"
    return "made"


def _told(problem: Problem) -> None:
    """A message a teacher can read: no names of Python's, not without end."""
    said = str(problem)
    for bad in ("Traceback", "Error(", "object at 0x", "NoneType"):
        if bad in said:
            raise Lost(f"a message of ours: {said[:200]}")
    if max(map(len, said.splitlines())) > 1300:
        raise Lost(f"a message of {len(said)} letters: {said[:80]}")


def _kept_all(before: Any, after: Any, where: str = "") -> None:
    """Every field that we don't know came back where it was, at every level."""
    if isinstance(before, dict) and isinstance(after, dict):
        for key, value in before.items():
            if key in after:
                _kept_all(value, after[key], f"{where}.{key}")
            elif key.startswith("unknown") or key == "x":
                raise Lost(f"the field {where}.{key} is lost")
    elif isinstance(before, list) and isinstance(after, list) and len(before) == len(after):
        for number, (one, other) in enumerate(zip(before, after, strict=True)):
            _kept_all(one, other, f"{where}[{number}]")


# --- many ---------------------------------------------------------------------------------------------------


def one(seed: int, pdf: float = 0.02) -> tuple[str, str, str]:
    """(kind, outcome, the fault's last lines) of the input with this number."""
    dice = Random(seed)
    kind = dice.choices(KINDS, (6, 3, 1, 2, 1))[0]
    content = damaged(kind, dice)
    some = dice.sample([name for name in FORMATS if name != "pdf"], 3)
    exports = (*some, "pdf") if dice.random() < pdf else tuple(some)
    signal.signal(signal.SIGPROF, _hang)  # of the processor's seconds: what waits its turn hangs not
    signal.setitimer(signal.ITIMER_PROF, SLOW_S)
    try:
        return kind, put_through(kind, content, exports), ""
    except (Exception, Hang) as error:
        where = [
            f"{Path(f.filename).name}:{f.lineno} {f.name}"
            for f in traceback.extract_tb(error.__traceback__)[-3:]
        ]
        return kind, "fault", f"{type(error).__name__}: {str(error)[:160]} | {' < '.join(reversed(where))}"
    finally:
        signal.setitimer(signal.ITIMER_PROF, 0)


def _hang(*_: object) -> None:
    raise Hang


def run(first: int, count: int, processes: int = 2, tell: bool = True) -> dict[str, list[int]]:
    """Puts inputs first, first + 1, ... through; each fault with the numbers of its inputs."""
    faults: dict[str, list[int]] = {}
    came: Counter[tuple[str, str]] = Counter()
    start = time.perf_counter()
    with multiprocessing.Pool(processes, faulthandler.enable, maxtasksperchild=4000) as pool:
        for number, (kind, outcome, fault) in enumerate(pool.imap(one, range(first, first + count), 20)):
            came[kind, outcome] += 1
            if fault:
                faults.setdefault(fault, []).append(first + number)
    if tell:
        print(f"{count} inputs, {time.perf_counter() - start:.0f} s, {sum(map(len, faults.values()))} faults")
        for (kind, outcome), times in sorted(came.items()):
            print(f"  {kind:9} {outcome:14} {times}")
        for fault, numbers in sorted(faults.items(), key=lambda item: -len(item[1])):
            print(f"  {len(numbers):5} x  {fault}   first: {numbers[0]}")
    return faults


if __name__ == "__main__":
    run(int(sys.argv[1]) if len(sys.argv) > 1 else 0, int(sys.argv[2]) if len(sys.argv) > 2 else 1000)
