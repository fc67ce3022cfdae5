"""Her own words go with the use they are of, through every act on the order, and are lost only with it."""

from collections import Counter

import msgspec
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples, plan_of, shipped
from yewhour.core.edits.arrange import copied_parts, copies, moved, put, put_parts, removed, shifted
from yewhour.core.edits.cuts import cut
from yewhour.core.edits.groups import flowing, in_rounds, new_section, paired, section_moved, undone
from yewhour.core.outline.reader import read_nodes, read_outline
from yewhour.core.outline.writer import nodes_text, write_outline
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import words_gone
from yewhour.core.plan.nodes import Block, LineEdit, Pair, Rounds, Step
from yewhour.core.plan.places import NodePlace, bodies, end_of, nodes_of
from yewhour.core.problem import Problem
from yewhour.core.script.own_lines import edit_behind

LIBRARY = shipped().library
CLOSE = "quiet close"
FIRST = next(one for one in shipped().blocks[CLOSE] if isinstance(one, Step))
NAMES = ("low-lunge", "downward-dog", "child", "lying-twist", "cobra", "bridge")


def said(name, number):
    step = FIRST.id if name == CLOSE else ""
    return LineEdit("aim", "rewrite", step=step, text=f"Mine in {name}, {number}.")


@st.composite
def plans(draw):
    count = iter(range(1000))

    def step(name):
        return Step(movement=name, edits=(said(name, next(count)),))

    leaves = st.sampled_from(NAMES).map(step)
    blocks = st.just(CLOSE).map(lambda name: Block(name=name, edits=(said(name, next(count)),)))
    groups = st.lists(leaves, min_size=1, max_size=3).map(tuple)
    nodes = leaves | blocks | groups.map(lambda body: Pair(body=body))
    nodes |= groups.map(lambda body: Rounds(body=body, times=2))
    plan = plan_of(*draw(st.lists(nodes, min_size=1, max_size=5)))
    plan = new_section(plan, "Rest", 1)
    plan, _ = put(plan, NodePlace(bodies(plan).__iter__().__next__(), 0), (step("child"),))
    return plan


def texts(plan):
    return Counter(edit.text for edit in plan.edits)


@examples(30)
@given(plans(), st.data())
def test_no_act_loses_a_word_that_it_does_not_tell(plan, data):
    known = [node.id for node in nodes_of(plan).values()]
    chosen = data.draw(st.lists(st.sampled_from(known), min_size=1, max_size=4, unique=True))
    key, body = data.draw(st.sampled_from(list(bodies(plan).items())))
    place = NodePlace(key, data.draw(st.integers(0, len(body))))
    acts = {
        "moved": lambda: moved(plan, chosen, place, LIBRARY),
        "earlier": lambda: shifted(plan, chosen, -1, LIBRARY),
        "later": lambda: shifted(plan, chosen, 1, LIBRARY),
        "paired": lambda: paired(plan, chosen, LIBRARY)[0],
        "rounds": lambda: in_rounds(plan, chosen, LIBRARY)[0],
        "flow": lambda: flowing(plan, chosen, LIBRARY)[0],
        "apart": lambda: undone(plan, chosen[0], shipped().blocks),
        "part": lambda: section_moved(plan, 0, 1),
        "outline": lambda: read_outline(write_outline(plan, LIBRARY), LIBRARY),
        "cut and pasted": lambda: put_parts(removed(plan, chosen), copied_parts(plan, chosen, LIBRARY))[0],
    }
    try:
        after = acts[data.draw(st.sampled_from(sorted(acts)))]()
    except Problem:
        return
    assert texts(after) == texts(plan)


@examples(20)
@given(plans(), st.data())
def test_what_is_left_out_takes_its_words_along_and_says_so(plan, data):
    known = [node.id for node in nodes_of(plan).values()]
    chosen = data.draw(st.lists(st.sampled_from(known), min_size=1, max_size=4, unique=True))
    after = removed(plan, chosen)
    assert Counter(words_gone(plan, after)) == texts(plan) - texts(after)


@examples(20)
@given(plans(), st.data())
def test_a_copy_says_what_it_was_copied_from_through_the_clipboard_too(plan, data):
    known = [node.id for node in nodes_of(plan).values()]
    chosen = data.draw(st.lists(st.sampled_from(known), min_size=1, max_size=3, unique=True))
    nodes = copies(plan, chosen, LIBRARY)
    doubled, ids = put(plan, end_of(plan), nodes)
    mine = Counter(text for text, many in texts(doubled).items() if many > texts(plan)[text])
    assert ids
    typed, _ = put(plan, end_of(plan), read_nodes(nodes_text(nodes, LIBRARY), LIBRARY))
    assert texts(typed) == texts(doubled)
    assert sum(mine.values()) == len(set(mine))


def test_words_in_a_block_are_said_where_the_block_was_put_in_and_nowhere_else():
    mine = LineEdit("say", "rewrite", step=FIRST.id, text="Go home by the water.")
    plan = plan_of(Step(movement="child"), Block(name=CLOSE, edits=(mine,)))
    timed = solve(plan, shipped()).make(solve(plan, shipped()).preferred_s)
    assert [cue.text for cue in timed.cues if cue.own] == ["Go home by the water."]
    cue = next(cue for cue in timed.cues if cue.own)
    segment = next(one for one in timed.segments if one.id == cue.segment)
    assert edit_behind(timed.plan, segment, cue) is not None
    assert timed.lost_edits == ()


def test_a_shorter_form_keeps_the_words_of_what_it_keeps():
    plan = plan_of(*(Step(movement=name, amount=6, edits=(said(name, 0),)) for name in NAMES), target_s=600.0)
    solved = solve(msgspec.structs.replace(plan), shipped())
    shorter = cut(plan, solved, max(60.0, solved.shortest_s / 2)).plan
    kept = {step.movement for step in nodes_of(shorter).values() if isinstance(step, Step)}
    assert set(texts(shorter)) == {f"Mine in {name}, 0." for name in kept}
