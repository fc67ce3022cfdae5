"""The command that drafts a class: its promise in words or by single options, written as class or outline."""

import argparse
import json
import sys
from pathlib import Path
from typing import Any

import msgspec

from yewhour.cli.requested import teaching_data
from yewhour.cli.terminal import say, write_out
from yewhour.content.draft_model_file import load_model
from yewhour.content.promise_file import promise_reader
from yewhour.content.terms import load_terms
from yewhour.core.draft.draft import draft_class as drafted
from yewhour.core.draft.draft_model import DraftRequest
from yewhour.core.draft.reasons import reasons_told
from yewhour.core.outline.brief_lines import read_brief_line
from yewhour.core.outline.writer import write_outline
from yewhour.core.plan.plan import Brief
from yewhour.core.problem import Problem, Refused
from yewhour.core.promise.course import CourseClass, course_in, drafted_course
from yewhour.core.promise.outcome import outcome_of
from yewhour.core.promise.title import title_of
from yewhour.core.promise.wishes import ReadPromise, Wish, told
from yewhour.core.teaching_data import TeachingData
from yewhour.state.classes.class_file import plan_bytes
from yewhour.state.logbook.courses import shelve_course, write_course
from yewhour.state.logbook.logbook import Logbook
from yewhour.state.paths import kept_shelf

# Options, and the line of a brief that each is.
LINES = {"for": "for", "time": "time of day"} | {
    name: name for name in ("style", "level", "title", "focus", "cautions", "props")
}


def draft(options: argparse.Namespace) -> None:
    """Drafts a class. Raises Refused for a promise that asks back, and for one no class can keep."""
    words, model = teaching_data(), load_model()
    areas = load_terms(words.positions).areas
    if options.series:
        _series(options, words)
        return
    if (course := course_in(options.promise or "")) is not None:
        total = course[0].weeks * course[0].each
        say(
            f"yewhour: {course[0].said}: one class of {total} is drafted; --series drafts all of them",
            file=sys.stderr,
        )
    read = _promised(options, words)
    if (question := read.question) is not None:
        _show(options, read.wishes)
        raise Refused(question.what, question.where, question.do)
    _agreed(options, read.wishes)
    try:
        made = drafted(DraftRequest(read.brief, options.seed), words, model)
    except Problem as problem:
        _show(options, read.wishes)
        raise Refused(problem.what, problem.where, problem.do) from problem
    wishes = outcome_of(read.wishes, made, words, areas)
    if options.why:
        for line in reasons_told(made, words, areas, model):
            say(f"yewhour: {line}", file=sys.stderr)
    if options.format == "json":
        content = {"wishes": shown(wishes), "class": json.loads(plan_bytes(made.plan))}
        write_out(
            f"{json.dumps(content, ensure_ascii=False, indent=1)}\n".encode(),
            options.out,
            replace=options.replace,
        )
        return
    _tell(wishes)
    content_bytes = write_outline(made.plan, words.library, words.blocks).encode()
    if options.out is not None and options.out.suffix.lower() == ".yewhour":
        content_bytes = plan_bytes(made.plan)
    write_out(content_bytes, options.out, replace=options.replace)


def _series(options: argparse.Namespace, teaching_data: TeachingData) -> None:
    """Drafts a course: its classes into a folder, and what each brings."""
    found = course_in(options.promise or "")
    if found is None:
        what = "No course is promised."
        raise Problem(what, "the promise", "Say: four weeks of three 20-minute mat classes.")
    shape, options.promise = found
    read = _promised(options, teaching_data)
    read = ReadPromise(read.brief, (shape.wish, *read.wishes))
    if (question := read.question) is not None:
        _show(options, read.wishes)
        raise Refused(question.what, question.where, question.do)
    _agreed(options, read.wishes)

    def stage(text: str) -> None:
        say(f"yewhour: {text}", file=sys.stderr)

    try:
        classes = [*drafted_course(read, shape, options.seed, teaching_data, load_model(), stage)]
    except Problem as problem:
        _show(options, read.wishes)
        raise Refused(problem.what, problem.where, problem.do) from problem
    files = write_course(classes, options.out, options.replace) if options.out is not None else []
    if options.shelf:
        if not files:
            what = "A course that is not written can't be put on the shelf."
            raise Problem(what, "--shelf", "Say where: --out FOLDER.")
        shelve_course(Logbook(kept_shelf()), read.brief.title, shape, classes, files)
    areas = load_terms(teaching_data.positions).areas
    wishes = outcome_of(read.wishes, classes[-1].draft, teaching_data, areas)
    rows = [_row(one, files[n] if files else None, teaching_data) for n, one in enumerate(classes)]
    if options.format == "json":
        content = {"wishes": shown(wishes), "classes": rows}
        write_out(f"{json.dumps(content, ensure_ascii=False, indent=1)}\n".encode(), None)
        return
    _tell(wishes)
    for one, row in zip(classes, rows, strict=True):
        new, again = (", ".join(row[key]) or "nothing" for key in ("new", "again"))
        say(f"week {one.week}  {row['title']}: new: {new}; again: {again}")


def _row(one: CourseClass, file: Path | None, teaching_data: TeachingData) -> dict[str, Any]:
    """One class of a course as others read it."""
    library = teaching_data.library
    return {
        "week": one.week, "title": one.draft.plan.brief.title, "file": str(file or ""),
        "new": [library[name].name for name in one.new], "again": [library[name].name for name in one.again],
    }  # fmt: skip


def shown(wishes: tuple[Wish, ...]) -> list[dict[str, str]]:
    """Wishes as others read them."""
    return [
        {"text": one.text, "meaning": one.meaning, "state": one.state, "reason": one.reason} for one in wishes
    ]


def _show(options: argparse.Namespace, wishes: tuple[Wish, ...]) -> None:
    """What was understood, where there is no class."""
    if options.format == "json":
        content = {"wishes": shown(wishes), "class": None}
        write_out(f"{json.dumps(content, ensure_ascii=False, indent=1)}\n".encode(), None)
    else:
        _tell(wishes)


def _agreed(options: argparse.Namespace, wishes: tuple[Wish, ...]) -> None:
    """At a terminal, what was guessed or can't be kept is shown first, and Enter goes on."""
    doubtful = any(one.state != "kept" for one in wishes)
    if options.yes or not doubtful or not (sys.stdin.isatty() and sys.stderr.isatty()):
        return
    _tell(wishes)
    say("yewhour: Enter drafts it, Ctrl+C leaves it.", file=sys.stderr)
    sys.stdin.readline()


def _tell(wishes: tuple[Wish, ...]) -> None:
    for wish in wishes:
        say(f"yewhour: {told(wish)}", file=sys.stderr)


def _promised(options: argparse.Namespace, teaching_data: TeachingData) -> ReadPromise:
    """The promise: the sentence first, then what each option says. Raises Problem for what is not known."""
    reader = promise_reader(teaching_data)
    read = ReadPromise(Brief(title=""))
    if options.promise:
        read = reader.read(options.promise, read.brief)
    brief, wishes = read.brief, list(read.wishes)
    for name, key in LINES.items():
        value = getattr(options, f"asked_{name}")
        if value is None:
            continue
        if name in ("cautions", "focus"):
            lead = "mind" if name == "cautions" else "about"
            more = reader.read(f"{lead} {value.replace(',', ' and ')}", Brief(title="."))
            wishes += more.wishes
            brief = msgspec.structs.replace(
                brief, **{name: getattr(more.brief, name)}, said={**brief.said, **more.brief.said}
            )
            continue
        if name == "props":
            more = reader.read(f"with {value.replace(',', ' and ')}", Brief(title="."))
            wishes += more.wishes
            brief = msgspec.structs.replace(brief, props=more.brief.props)
            continue
        brief = msgspec.structs.replace(brief, **read_brief_line(key, value, teaching_data.known))
    if options.length is not None:
        brief = msgspec.structs.replace(brief, target_s=options.length)
    if options.asked_without:
        more = reader.read(f"without {options.asked_without.replace(',', ' and ')}", Brief(title="."))
        wishes += more.wishes
        without = tuple(dict.fromkeys((*brief.without, *more.brief.without)))
        brief = msgspec.structs.replace(brief, without=without)
    if not brief.title or (options.asked_title is None and not options.promise):
        areas = load_terms(teaching_data.positions).areas
        brief = msgspec.structs.replace(brief, title=title_of(brief, areas, teaching_data))
    return ReadPromise(brief, tuple(wishes))
