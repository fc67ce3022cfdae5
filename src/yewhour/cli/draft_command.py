"""The command that drafts a class: its promise in words or by single options, written as class or outline."""

import argparse
import sys

import msgspec

from yewhour.cli.requested import teaching_data
from yewhour.cli.terminal import say, write_out
from yewhour.content.draft_model_file import load_model
from yewhour.content.terms import load_terms
from yewhour.core.draft.draft import draft_class as drafted
from yewhour.core.draft.draft_model import DraftRequest
from yewhour.core.draft.promise_text import read_promise, title_of
from yewhour.core.draft.reasons import reasons_told
from yewhour.core.outline.brief_lines import read_brief_line
from yewhour.core.outline.writer import write_outline
from yewhour.core.plan.plan import Brief
from yewhour.core.teaching_data import TeachingData
from yewhour.state.classes.class_file import plan_bytes

# Options, and the line of a brief that each is.
LINES = {"for": "for", "time": "time of day"} | {
    name: name for name in ("style", "level", "title", "focus", "cautions", "props")
}


def draft(options: argparse.Namespace) -> None:
    """Drafts a class."""
    words, model = teaching_data(), load_model()
    brief, without = _promised(options, words)
    draft = drafted(DraftRequest(brief, options.seed, without), words, model)
    if options.why:
        for line in reasons_told(draft, words.library, load_terms(words.positions).areas, model):
            say(f"yewhour: {line}", file=sys.stderr)
    content = write_outline(draft.plan, words.library).encode()
    if options.out is not None and options.out.suffix.lower() == ".yewhour":
        content = plan_bytes(draft.plan)
    write_out(content, options.out)


def _promised(options: argparse.Namespace, teaching_data: TeachingData) -> tuple[Brief, frozenset[str]]:
    """The promise: the sentence first, then what each option says. Raises Problem for what is not known."""
    areas, model = load_terms(teaching_data.positions).areas, load_model()
    brief, without = Brief(title=""), frozenset[str]()
    if options.promise:
        read = read_promise(options.promise, teaching_data.known, areas, model.words, teaching_data.library)
        brief, without = read.brief, read.without
        for one in read.not_understood:
            say(f"yewhour: not understood: {one}", file=sys.stderr)
    for name, key in LINES.items():
        value = getattr(options, f"asked_{name}")
        if value is not None:
            brief = msgspec.structs.replace(brief, **read_brief_line(key, value, teaching_data.known))
    if options.length is not None:
        brief = msgspec.structs.replace(brief, target_s=options.length)
    if options.asked_without:
        text = f"without {options.asked_without.replace(',', ' and ')}"
        without |= read_promise(text, teaching_data.known, areas, model.words, teaching_data.library).without
    if options.asked_focus:
        focus = " and ".join(brief.focus)
        read = read_promise(f"about {focus}", teaching_data.known, areas, model.words, teaching_data.library)
        brief = msgspec.structs.replace(brief, focus=read.brief.focus)
    if not brief.title:
        brief = msgspec.structs.replace(brief, title=title_of(brief, areas))
    return brief, without
