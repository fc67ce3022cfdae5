"""The command that drafts a class: its promise in words or by single options, written as class or outline."""

import argparse
import sys

import msgspec

from yewhour.asked import words_of
from yewhour.core.draft.draft import draft as drafted
from yewhour.core.draft.model import Ask
from yewhour.core.draft.promise import read_promise, title_of
from yewhour.core.draft.why import told
from yewhour.core.plan.outline_brief import read_brief_line
from yewhour.core.plan.outline_write import write_outline
from yewhour.core.plan.plan import Brief
from yewhour.core.words import Words
from yewhour.store.classfile import plan_bytes
from yewhour.store.draftmodel import load_model
from yewhour.store.terms import load_terms
from yewhour.terminal import put, say

# Options, and the line of a brief that each is.
LINES = {"for": "for", "time": "time of day"} | {
    name: name for name in ("style", "level", "title", "focus", "cautions", "props")
}


def draft(options: argparse.Namespace) -> None:
    """Drafts a class."""
    words, model = words_of(), load_model()
    brief, without = _promised(options, words)
    made = drafted(Ask(brief, options.seed, without), words, model)
    if options.why:
        for line in told(made, words.library, load_terms(words.positions).areas, model):
            say(f"yewhour: {line}", file=sys.stderr)
    content = write_outline(made.plan, words.library).encode()
    if options.out is not None and options.out.suffix.lower() == ".yewhour":
        content = plan_bytes(made.plan)
    put(content, options.out)


def _promised(options: argparse.Namespace, words: Words) -> tuple[Brief, frozenset[str]]:
    """The promise: the sentence first, then what each option says. Raises Problem for what is not known."""
    areas, model = load_terms(words.positions).areas, load_model()
    brief, without = Brief(title=""), frozenset[str]()
    if options.promise:
        read = read_promise(options.promise, words.known, areas, model.words, words.library)
        brief, without = read.brief, read.without
        for one in read.not_understood:
            say(f"yewhour: not understood: {one}", file=sys.stderr)
    for name, key in LINES.items():
        value = getattr(options, f"asked_{name}")
        if value is not None:
            brief = msgspec.structs.replace(brief, **read_brief_line(key, value, words.known))
    if options.length is not None:
        brief = msgspec.structs.replace(brief, target_s=options.length)
    if options.asked_without:
        text = f"without {options.asked_without.replace(',', ' and ')}"
        without |= read_promise(text, words.known, areas, model.words, words.library).without
    if options.asked_focus:
        focus = " and ".join(brief.focus)
        read = read_promise(f"about {focus}", words.known, areas, model.words, words.library)
        brief = msgspec.structs.replace(brief, focus=read.brief.focus)
    if not brief.title:
        brief = msgspec.structs.replace(brief, title=title_of(brief, areas))
    return brief, without
