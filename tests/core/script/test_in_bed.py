"""What is done in bed is told of the bed, and takes as long."""

import re

import msgspec

from tests.conftest import shipped
from yewhour.content.draft_model_file import load_model
from yewhour.core.draft.draft import draft_class
from yewhour.core.draft.draft_model import DraftRequest
from yewhour.core.pipeline import solve
from yewhour.core.plan.plan import Brief
from yewhour.core.script.in_bed import IN_BED

BRIEF = Brief(title="In bed", target_s=1200.0, style="slow", level="gentle", without=(IN_BED,))
LAIN_ON = re.compile(r"\b(?:the|your) (?:mat|floor)\b(?! of)", re.IGNORECASE)


def said(timed):
    framed = {one.id for one in timed.segments if {"welcome", "farewell"} & {*one.use.movement.marks}}
    return [cue for cue in timed.cues if cue.segment not in framed]


def test_nobody_in_bed_hears_of_a_mat_and_every_line_takes_as_long():
    draft = draft_class(DraftRequest(BRIEF, 3), shipped(), load_model())
    here = said(draft.timed)
    assert [cue.text for cue in here if LAIN_ON.search(cue.text)] == []
    assert any("bed" in cue.text for cue in here)
    without = msgspec.structs.replace(draft.plan.brief, without=())
    elsewhere = solve(msgspec.structs.replace(draft.plan, brief=without), shipped()).make()
    mats = [cue for cue in said(elsewhere) if LAIN_ON.search(cue.text)]
    assert mats
    took = {cue.text: cue.end - cue.start for cue in here}
    alike = [(cue, re.sub(r"\b([Tt]he|[Yy]our) (?:mat|floor)\b", r"\1 bed", cue.text)) for cue in mats]
    alike = [(cue, text) for cue, text in alike if text in took]
    assert alike
    assert all(abs(took[text] - (cue.end - cue.start)) <= 2 for cue, text in alike)  # a fifth of a second
