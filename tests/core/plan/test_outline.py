import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.conftest import plan_of, shipped
from yewhour.core.plan.nodes import Block, Difference, Pair, Rounds, Step, Variant
from yewhour.core.plan.outline_read import read_outline
from yewhour.core.plan.outline_write import write_outline
from yewhour.core.plan.pace import Pace
from yewhour.core.plan.plan import Plan, Section
from yewhour.core.problem import Problem

LIBRARY = shipped().library
HEAD = "title: T\nlength: 20:00\nstyle: hatha\n\n# One\n"


def read(body: str) -> Plan:
    return read_outline(HEAD + body, LIBRARY, "class.txt")


def only(body: str):
    return read(body).sections[0].body[0]


@pytest.mark.parametrize(
    ("line", "fields"),
    [
        ("low lunge 5b", {"amount": 5}),
        ("Anjaneyasana 5b", {"amount": 5}),
        ("LOW-LUNGE 5b (3-9) !", {"amount": 5, "least": 3, "most": 9, "locked": True}),
        ("low lunge 1:30", {"amount": 90, "clock": True}),
        ("low lunge 45s left", {"amount": 45, "clock": True, "side": "left"}),
        ("low lunge gentler no options", {"take": "gentler", "offer": False}),
        ("low lunge 5b second +1", {"amount": 5, "second": Difference(more=1)}),
        ("low lunge second out", {"second": Difference(leave_out=True)}),
        ("low lunge in", {"phase": "inhale"}),
        ("low lunge pace 6/4:0:6:0 from round 3", {"pace": Pace(6, (4, 0, 6, 0)), "from_round": 3}),
        ("low lunge facing side mat back weight 3", {"facing": "side", "mat": "back", "weight": 3.0}),
    ],
)
def test_a_step_is_read(line, fields):
    step = only(line)
    assert step == Step(movement="low-lunge", id=step.id, **fields)


def test_repetitions_counts_and_rests_have_their_own_units():
    assert only("hundred 10x").amount == 10
    assert only("table hold 30n").amount == 30
    assert only("final rest 3:00").amount == 180
    assert only("clam 12x halves last 10").countdown == 10


def test_groups_are_read_by_indentation():
    node = only("rounds 4 (2-6) alternate teach 2\n  arms up in\n  pair left\n    low lunge 3b\n  fold ex\n")
    assert isinstance(node, Rounds)
    assert (node.times, node.least, node.most, node.alternate, node.teach) == (4, 2, 6, True, 2)
    assert isinstance(node.body[1], Pair)
    assert node.body[1].lead == "left"


def test_lines_of_ones_own_variants_and_blocks_are_read():
    ways = "variant sea\n  way sea\n    cat 2b\n  way hill\n    cow 2b\n"
    plan = read(f"low lunge 5b\n  > call: Step out. | Out.\n{ways}insert end\n\n# block end\nfarewell\n")
    step, variant, block = plan.sections[0].body
    assert step.lines == {"call": ["Step out. | Out."]}
    assert isinstance(variant, Variant)
    assert set(variant.ways) == {"sea", "hill"}
    assert isinstance(block, Block)
    assert set(plan.blocks) == {"end"}


@pytest.mark.parametrize(
    ("body", "line", "says"),
    [
        ("low lunge 5b\nlow lunje 5b\n", 7, "Did you mean low lunge"),
        ("\tlow lunge 5b\n", 6, "tab"),
        ("pair\n  low lunge\n \tfold\n", 8, "tab"),
        ("pair\n   low lunge\n", 7, "whole step"),
        ("low lunge\n      fold\n", 7, "too far"),
        ("pair\n\n", 6, "Nothing is inside"),
        ("hundred 10b\n", 6, "not counted in breaths"),
        ("low lunge 5b\n  fold 2b\n", 7, "inside a movement"),
        ("moonwalk 5b\n", 6, "no movement 'moonwalk'"),
        ("variant a\n", 6, "no ways"),
    ],
)
def test_a_mistake_is_named_with_its_line(body, line, says):
    with pytest.raises(Problem) as refused:
        read(body)
    assert refused.value.where == f"class.txt, line {line}"
    assert says in str(refused.value)


@pytest.mark.parametrize(
    "head", ["titel: T\n", "length: soon\n", "pace: quick\n", "low lunge 5b\n", "voice rate: x\n"]
)
def test_a_mistake_in_the_brief_is_named_with_its_line(head):
    with pytest.raises(Problem, match=r"class\.txt, line 1"):
        read_outline(head, LIBRARY, "class.txt")


# --- round trip -------------------------------------------------------------------------------------

held = sorted(m.id for m in LIBRARY.values() if m.kind == "hold")
steps = st.builds(
    Step,
    movement=st.sampled_from(held),
    amount=st.none() | st.integers(1, 40),
    locked=st.booleans(),
    phase=st.none() | st.sampled_from(["inhale", "exhale"]),
    side=st.none() | st.sampled_from(["right", "left"]),
    take=st.sampled_from(["base", "gentler", "stronger"]),
    offer=st.booleans(),
    from_round=st.integers(1, 3),
    least=st.none() | st.integers(1, 3),
    second=st.none() | st.builds(Difference, more=st.integers(1, 3)) | st.just(Difference(leave_out=True)),
    pace=st.none() | st.builds(Pace, st.integers(4, 12).map(float)),
    mat=st.sampled_from(["", "front", "back"]),
)
nodes = st.recursive(
    steps,
    lambda inner: (
        st.builds(Pair, body=st.lists(inner, min_size=1, max_size=3).map(tuple))
        | st.builds(
            Rounds,
            body=st.lists(inner, min_size=1, max_size=3).map(tuple),
            times=st.integers(1, 5),
            alternate=st.sampled_from([None, True, False]),
            teach=st.integers(0, 2),
        )
    ),
    max_leaves=6,
)


@settings(max_examples=80, deadline=None)
@given(st.lists(nodes, min_size=1, max_size=3))
def test_a_plan_comes_back_from_its_outline(body):
    plan = plan_of(*body)
    text = write_outline(plan, LIBRARY)
    assert write_outline(read_outline(text, LIBRARY), LIBRARY) == text
    assert read_outline(text, LIBRARY).sections == plan.sections


def test_a_section_comes_back_with_its_words():
    section = Section(title="Settle", role="settle", pace=Pace(6), glide_to=4.0, mat="back", priority=2)
    text = write_outline(Plan(sections=(section,)), LIBRARY)
    assert read_outline(text, LIBRARY).sections == (section,)


@given(st.text(max_size=200))
def test_no_text_brings_the_reader_down(text):
    try:
        read_outline(text, LIBRARY)
    except Problem as problem:
        assert "line" in problem.where  # noqa: PT017
