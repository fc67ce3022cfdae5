"""Steps put in, taken out, moved and gathered: nothing is lost, nothing comes twice."""

from collections import Counter

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import plan_of, shipped
from yewhour.core.edits.arrange import (
    copied_parts,
    copies,
    moved,
    put,
    put_parts,
    removed,
    shifted,
    with_node,
)
from yewhour.core.edits.groups import (
    flowing,
    in_rounds,
    new_section,
    paired,
    section_moved,
    undone,
    without_section,
)  # fmt: skip
from yewhour.core.plan.nodes import (
    Block,
    Pair,
    Rounds,
    Step,
)
from yewhour.core.plan.places import (  # fmt: skip
    GroupBody,
    NodePlace,
    SectionBody,
    after,
    bodies,
    end_of,
    group_of,
    nodes_of,
    outermost,
    place_of,
)
from yewhour.core.plan.plan import Plan, Section, steps_of
from yewhour.core.problem import Problem
from yewhour.core.timing.unfold import unfold

LUNGE, DOG, CHILD, TWIST = (
    Step(movement=name) for name in ("low-lunge", "downward-dog", "child", "lying-twist")
)


LIBRARY = shipped().library


def sides_of(plan):
    """The sides each movement is done on, however often."""
    unfolded = unfold(plan, LIBRARY, shipped().schools["hatha"], {})
    found = {}
    for use in unfolded.uses:
        found.setdefault(use.movement.id, set()).add(use.side)
    return found


def times_of(plan):
    """How often each movement is done on each side."""
    return Counter(
        (t.movement.id, t.side) for t in unfold(plan, LIBRARY, shipped().schools["hatha"], {}).uses
    )


def movements(plan):
    return [step.movement for step in steps_of(plan)]


def ids(plan, *names):
    return [
        node.id for name in names for node in nodes_of(plan).values() if getattr(node, "movement", "") == name
    ]


@pytest.fixture
def plan():
    return plan_of(DOG, Pair(body=(LUNGE, TWIST)), Rounds(body=(CHILD,), times=2))


def test_what_is_put_in_stands_where_it_was_put_with_an_id_of_its_own(plan):
    pair = next(node for node in nodes_of(plan).values() if isinstance(node, Pair))
    changed, new = put(plan, NodePlace(GroupBody(pair.id), 1), (CHILD,))
    assert movements(changed) == ["downward-dog", "low-lunge", "child", "lying-twist", "child"]
    assert place_of(changed, new[0]) == NodePlace(GroupBody(pair.id), 1)
    assert len(set(nodes_of(changed))) == len(nodes_of(changed))


def test_a_first_movement_in_an_empty_class_makes_its_first_section():
    changed, _ = put(Plan(), end_of(Plan()), (DOG,))
    assert [section.title for section in changed.sections] == ["Practice"]
    assert movements(changed) == ["downward-dog"]


def test_the_next_movement_goes_before_a_rest_that_is_there():
    plan = new_section(plan_of(DOG), "Rest", 1)
    assert end_of(plan) == NodePlace(SectionBody(0), 1)


def test_a_pair_left_empty_is_gone(plan):
    changed = removed(plan, ids(plan, "low-lunge", "lying-twist"))
    assert not [node for node in nodes_of(changed).values() if isinstance(node, Pair)]
    with pytest.raises(Problem, match="Nothing is chosen"):
        removed(plan, ["no such"])


def test_a_group_cannot_be_put_into_itself(plan):
    pair = next(node for node in nodes_of(plan).values() if isinstance(node, Pair))
    with pytest.raises(Problem, match="into itself"):
        moved(plan, [pair.id], NodePlace(GroupBody(pair.id), 1), LIBRARY)


def test_several_are_moved_together_in_their_order(plan):
    changed = moved(plan, ids(plan, "child", "downward-dog"), after(plan, ids(plan, "low-lunge")[0]), LIBRARY)
    assert movements(changed) == ["low-lunge", "downward-dog", "child", "lying-twist"]


def test_steps_become_a_pair_and_a_pair_steps_again():
    plan = plan_of(DOG, LUNGE, TWIST)
    changed, timed = paired(plan, ids(plan, "low-lunge", "lying-twist"), shipped().library)
    assert isinstance(nodes_of(changed)[timed[0]], Pair)
    assert movements(undone(changed, timed[0], {})) == movements(plan)
    with pytest.raises(Problem, match="both sides already"):
        paired(changed, timed, shipped().library)
    with pytest.raises(Problem, match="one side"):
        paired(plan, ids(plan, "downward-dog"), shipped().library)


def test_a_step_of_one_side_leads_the_pair_it_becomes():
    plan = plan_of(Step(movement="low-lunge", side="left"))
    changed, timed = paired(plan, ids(plan, "low-lunge"), shipped().library)
    pair = nodes_of(changed)[timed[0]]
    assert (pair.lead, pair.body[0].side) == ("left", None)


def test_a_flow_takes_a_movement_a_breath_inhale_and_exhale_by_turns():
    plan = plan_of(Step(movement="arms-up"), Step(movement="fold"), Step(movement="half-lift"))
    changed, timed = flowing(plan, list(nodes_of(plan)), shipped().library)
    assert [step.phase for step in nodes_of(changed)[timed[0]].body] == ["inhale", "exhale", "inhale"]


def test_a_block_taken_apart_becomes_steps_of_the_class():
    blocks = shipped().blocks
    name = next(iter(blocks))
    plan = plan_of(DOG, Block(name=name))
    block = next(node.id for node in nodes_of(plan).values() if isinstance(node, Block))
    changed = undone(plan, block, blocks)
    assert len(bodies(changed)[SectionBody(0)]) == 1 + len(blocks[name])


def test_moving_on_goes_past_a_group_and_out_of_one_but_never_into_one(plan):
    dog = ids(plan, "downward-dog")
    once = shifted(plan, dog, 1, LIBRARY)
    assert movements(once) == ["low-lunge", "lying-twist", "downward-dog", "child"]
    assert group_of(once, dog[0]) == ""
    assert times_of(once) == times_of(plan)
    twist = ids(plan, "lying-twist")
    out = shifted(plan, twist, 1, LIBRARY)
    assert movements(out) == ["downward-dog", "low-lunge", "lying-twist", "child"]
    assert times_of(out) == times_of(plan)


@pytest.mark.parametrize(
    ("chosen", "refused"),
    [
        (("downward-dog", "low-lunge"), "stands in a pair or in rounds"),
        (("downward-dog", "child"), "Low lunge stands between"),
        (("downward-dog", "cobra"), "2 parts of the class"),
    ],
)
def test_what_does_not_stand_side_by_side_is_not_made_one_group(plan, chosen, refused):
    plan, _ = put(new_section(plan, "Rest", 1), NodePlace(SectionBody(1), 0), (Step(movement="cobra"),))
    for act in (in_rounds, flowing):
        with pytest.raises(Problem, match=refused):
            act(plan, ids(plan, *chosen), LIBRARY)


@pytest.mark.parametrize(
    ("nodes", "refused"),
    [
        ((Step(movement="low-lunge", amount=6, locked=True),), "keep the number of Low lunge"),
        ((Step(movement="welcome"), DOG), "Welcome can't be one breath long"),
        ((DOG, Rounds(body=(CHILD,), times=2)), "is a group already"),
        ((DOG, Block(name="cat-cow")), "is a block"),
    ],
)
def test_a_flow_is_not_made_of_what_it_would_change_unsaid(nodes, refused):
    plan = plan_of(*nodes)
    with pytest.raises(Problem, match=refused):
        flowing(plan, list(nodes_of(plan)), LIBRARY)


def test_fields_of_one_node_are_replaced(plan):
    dog = ids(plan, "downward-dog")[0]
    assert nodes_of(with_node(plan, dog, amount=7, locked=True))[dog].amount == 7
    with pytest.raises(Problem, match="not in the class"):
        with_node(plan, "gone", amount=7)


def test_sections_are_added_moved_and_taken_out(plan):
    two = new_section(plan, "Rest", 1)
    assert [section.role for section in two.sections] == ["", "rest"]
    assert [section.title for section in section_moved(two, 1, -1).sections] == ["Rest", "All"]
    assert section_moved(two, 1, 1) is two
    assert without_section(two, 1).sections == plan.sections


def test_copies_have_no_ids_and_what_is_inside_another_choice_comes_once(plan):
    pair = next(node for node in nodes_of(plan).values() if isinstance(node, Pair))
    chosen = [pair.id, pair.body[0].id]
    assert [node.id for node in outermost(plan, chosen)] == [pair.id]
    copy = copies(plan, chosen, LIBRARY)[0]
    assert copy.id == ""
    assert all(inner.id == "" for inner in copy.body)


def test_all_that_is_cut_out_of_several_parts_is_put_back_each_into_its_own():
    plan = new_section(plan_of(DOG, Pair(body=(LUNGE, TWIST))), "Rest", 1)
    plan, _ = put(plan, NodePlace(SectionBody(1), 0), (CHILD,))
    every = list(nodes_of(plan))
    parts = copied_parts(plan, every, LIBRARY)
    back, new = put_parts(removed(plan, every), parts)
    assert [[type(node) for node in one.body] for one in back.sections] == [[Step, Pair], [Step]]
    assert len(new) == 3
    again, _ = put_parts(plan_of(DOG), parts)
    assert [one.title for one in again.sections] == ["All", "Rest"]
    assert movements(again) == ["downward-dog", "downward-dog", "low-lunge", "lying-twist", "child"]


NAMES = ("low-lunge", "downward-dog", "child", "lying-twist", "cobra", "bridge")
LEAVES = st.sampled_from(NAMES).map(lambda name: Step(movement=name))
TREES = st.recursive(
    LEAVES,
    lambda inner: st.one_of(
        st.lists(inner, min_size=1, max_size=3).map(lambda body: Pair(body=tuple(body))),
        st.lists(inner, min_size=1, max_size=3).map(lambda body: Rounds(body=tuple(body), times=2)),
    ),
    max_leaves=8,
)


@given(st.lists(TREES, min_size=1, max_size=6), st.data())
def test_whatever_is_moved_or_gathered_every_step_stays_once(nodes, data):
    plan = plan_of(*nodes)
    known = list(nodes_of(plan))
    chosen = data.draw(st.lists(st.sampled_from(known), min_size=1, max_size=4))
    key, body = data.draw(st.sampled_from(list(bodies(plan).items())))
    try:
        after_move = moved(plan, chosen, NodePlace(key, data.draw(st.integers(0, len(body)))), LIBRARY)
    except Problem:
        after_move = plan
    try:
        gathered, timed = in_rounds(plan, chosen, LIBRARY, 3)
    except Problem:
        gathered, timed = plan, ("none",)
    stepped = shifted(plan, chosen, data.draw(st.sampled_from([-1, 1])), LIBRARY)
    for changed in (after_move, gathered, stepped, undone(gathered, timed[0], {})):
        assert Counter(movements(changed)) == Counter(movements(plan))
        every = [node.id for body in bodies(changed).values() for node in body]
        assert len(every) == len(set(every))
        assert "" not in every


@given(st.lists(TREES, min_size=1, max_size=5), st.data())
def test_what_is_put_in_and_taken_out_again_leaves_the_class_as_it_was(nodes, data):
    plan = plan_of(*nodes)
    key, body = data.draw(st.sampled_from(list(bodies(plan).items())))
    changed, new = put(plan, NodePlace(key, data.draw(st.integers(0, len(body)))), (DOG, CHILD))
    assert removed(changed, new) == plan


def pair_of(*names):
    return Pair(body=tuple(Step(movement=name) for name in names))


def test_movements_paired_by_themselves_become_one_chain():
    plan = plan_of(pair_of("low-lunge"), pair_of("half-splits"), DOG)
    changed, timed = paired(plan, ids(plan, "low-lunge", "half-splits"), LIBRARY)
    assert [step.movement for step in nodes_of(changed)[timed[0]].body] == ["low-lunge", "half-splits"]
    assert times_of(changed) == times_of(plan)
    with pytest.raises(Problem, match="both sides already"):
        paired(changed, ids(changed, "low-lunge"), LIBRARY)


def test_all_of_a_class_but_its_rounds_becomes_one_chain():
    plan = plan_of(pair_of("low-lunge"), DOG, pair_of("half-splits"))
    changed, _ = paired(plan, list(nodes_of(plan)), LIBRARY)
    assert [type(node) for node in changed.sections[0].body] == [Pair]


def test_a_movement_paired_by_itself_moves_with_both_its_sides():
    plan = plan_of(pair_of("low-lunge"), DOG, pair_of("half-splits"))
    changed = shifted(plan, ids(plan, "low-lunge"), 1, LIBRARY)
    assert movements(changed) == ["downward-dog", "low-lunge", "half-splits"]
    assert movements(shifted(changed, ids(changed, "low-lunge"), 1, LIBRARY))[2] == "low-lunge"
    assert times_of(changed) == times_of(plan)


def test_copies_of_two_pairs_are_two_pairs():
    plan = plan_of(pair_of("low-lunge"), pair_of("half-splits"), pair_of("lizard", "low-lunge"))
    copied = copies(plan, ids(plan, "low-lunge", "half-splits"), LIBRARY)
    assert [[step.movement for step in pair.body] for pair in copied] == [
        ["low-lunge"],
        ["half-splits"],
        ["low-lunge"],
    ]


def test_into_a_pair_goes_what_was_a_pair_and_each_is_done_once_a_side():
    plan = plan_of(pair_of("low-lunge"), pair_of("lizard", "half-splits"))
    chain = plan.sections[0].body[1]
    changed = moved(plan, ids(plan, "low-lunge"), NodePlace(GroupBody(chain.id), 1), LIBRARY)
    assert movements(changed) == ["lizard", "low-lunge", "half-splits"]
    assert times_of(changed) == times_of(plan)
    put_in, _ = put(plan, NodePlace(GroupBody(chain.id), 0), (pair_of("lying-twist"),))
    assert times_of(put_in)["lying-twist", "left"] == 1


def test_let_go_of_where_it_was_a_pair_is_as_it_was():
    plan = plan_of(pair_of("low-lunge"), DOG)
    pair = plan.sections[0].body[0]
    assert moved(plan, ids(plan, "low-lunge"), NodePlace(GroupBody(pair.id), 0), LIBRARY) == plan


def test_a_flow_of_what_has_sides_leads_with_each_as_often():
    plan = plan_of(Step(movement="arms-up"), pair_of("low-lunge"), Step(movement="fold"))
    changed, timed = flowing(plan, list(nodes_of(plan)), LIBRARY)
    times = times_of(changed)
    assert times["low-lunge", "right"] == times["low-lunge", "left"] > 0
    assert nodes_of(changed)[timed[0]].alternate


SIDED = ("low-lunge", "lying-twist", "half-splits", "lizard")
PAIRS = st.lists(st.sampled_from((*SIDED, "downward-dog")), min_size=1, max_size=3).map(
    lambda names: pair_of(*names)
)
PLAINS = st.sampled_from(("downward-dog", "child", "cobra", "bridge")).map(lambda name: Step(movement=name))
IN_ROUNDS = st.lists(PAIRS | PLAINS, min_size=1, max_size=2).map(
    lambda body: Rounds(body=tuple(body), times=2)
)


@given(st.lists(PAIRS | PLAINS | IN_ROUNDS, min_size=1, max_size=6), st.data())
def test_no_act_on_the_order_loses_a_movement_or_a_side(nodes, data):
    plan = plan_of(*nodes)
    known = [node.id for node in nodes_of(plan).values()]
    chosen = data.draw(st.lists(st.sampled_from(known), min_size=1, max_size=4, unique=True))
    key, body = data.draw(st.sampled_from(list(bodies(plan).items())))
    place = NodePlace(key, data.draw(st.integers(0, len(body))))
    acts = {
        "moved": lambda: moved(plan, chosen, place, LIBRARY),
        "earlier": lambda: shifted(plan, chosen, -1, LIBRARY),
        "later": lambda: shifted(plan, chosen, 1, LIBRARY),
        "rounds": lambda: in_rounds(plan, chosen, LIBRARY)[0],
        "pasted": lambda: put(plan, end_of(plan), copies(plan, chosen, LIBRARY))[0],
        "paired": lambda: paired(plan, chosen, LIBRARY)[0],
    }
    act = data.draw(st.sampled_from(sorted(acts)))
    try:
        changed = acts[act]()
    except Problem:
        return
    before, now = sides_of(plan), sides_of(changed)
    assert {name: sides - {"both"} for name, sides in before.items() if "right" in sides} == {
        name: sides - {"both"} for name, sides in now.items() if "right" in sides
    }
    assert set(before) == set(now)
    if act != "pasted":
        assert Counter(movements(changed)) == Counter(movements(plan))


def test_what_has_no_sides_is_copied_out_of_a_pair_as_it_is():
    plan = plan_of(Pair(body=(Step(movement="low-lunge"), Step(movement="child"))))
    library = shipped().library
    lunge, child = (copies(plan, ids(plan, name), library) for name in ("low-lunge", "child"))
    assert isinstance(lunge[0], Pair)
    assert child == (Step(movement="child"),)


def test_in_a_class_of_nothing_but_its_end_the_next_goes_to_the_last_part():
    parts = tuple(Section(title=one, role=one, body=(Step(movement="child"),)) for one in ("rest", "close"))
    assert end_of(Plan(sections=parts)) == NodePlace(SectionBody(1), 1)
    work = Section(title="Work", role="work", body=())
    assert end_of(Plan(sections=(work, *parts))) == NodePlace(SectionBody(0), 0)


def test_a_flow_that_begins_with_what_is_entered_breathing_out_begins_with_a_breath_out():
    plan = plan_of(Step(movement="fold"), Step(movement="half-lift"))
    assert LIBRARY["fold"].enter == "exhale"
    changed, made = flowing(plan, list(nodes_of(plan)), LIBRARY)
    assert [step.phase for step in nodes_of(changed)[made[0]].body] == ["exhale", "inhale"]
