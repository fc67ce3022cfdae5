import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples, plan_of, shipped
from yewhour.core.outline.reader import read_outline
from yewhour.core.outline.writer import write_outline
from yewhour.core.pace import Pace
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import EditLines, apply, bare
from yewhour.core.plan.nodes import (
    Block,
    LineEdit,
    Pair,
    Rounds,
    SideDifference,
    Step,
    Variant,
)
from yewhour.core.plan.plan import Plan, Section, steps_of
from yewhour.core.problem import Problem
from yewhour.core.purpose import PURPOSES

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
        ("low lunge 5b second +1", {"amount": 5, "second": SideDifference(more=1)}),
        ("low lunge second out", {"second": SideDifference(leave_out=True)}),
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

said = st.text(
    st.characters(codec="utf-8", exclude_categories=("C", "Z")) | st.sampled_from(' :,/"#>+'), max_size=40
).map(lambda text: " ".join(text.split()))
worded = said.filter(bool)
moments = st.integers(0, 6000).map(lambda tenths: tenths / 10)
which = {
    "purpose": st.sampled_from(list(PURPOSES)),
    "number": st.integers(0, 4),
    "side": st.sampled_from(["", "right", "left"]),
    "both": st.booleans(),
    "was": said,
}
line_edits = (
    st.builds(LineEdit, do=st.just("rewrite"), text=worded, **which)
    | st.builds(LineEdit, do=st.just("mute"), **which)
    | st.builds(LineEdit, do=st.sampled_from(["pin", "move"]), text=said, at_s=moments, **which)
    | st.builds(LineEdit, do=st.just("add"), text=worded, at_s=moments, **which)
)
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
    carded=st.booleans(),
    from_round=st.integers(1, 3),
    least=st.none() | st.integers(1, 3),
    second=st.none()
    | st.builds(SideDifference, more=st.integers(1, 3), why=said)
    | st.just(SideDifference(leave_out=True)),
    pace=st.none() | st.builds(Pace, st.integers(4, 12).map(float)),
    mat=st.sampled_from(["", "front", "back"]),
    edits=st.lists(line_edits, max_size=2).map(tuple),
)
blocks = st.builds(
    Block,
    name=st.sampled_from(["closing", "sun salutation a"]),
    edits=st.lists(
        st.builds(
            msgspec.structs.replace, line_edits, step=st.sampled_from(["closing:2", "sun salutation a:7"])
        ),
        max_size=2,
    ).map(tuple),
)


def as_it_can_be(step):
    """A step with a side only where its movement has sides."""
    sided = LIBRARY[step.movement].sides == "one"
    return step if sided else msgspec.structs.replace(step, side=None)


nodes = st.recursive(
    steps.map(as_it_can_be) | blocks,
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


@examples(12)
@given(st.lists(nodes, min_size=1, max_size=3))
def test_a_plan_comes_back_from_its_outline(body):
    plan = plan_of(*body)
    text = write_outline(plan, LIBRARY)
    assert write_outline(read_outline(text, LIBRARY), LIBRARY) == text
    assert read_outline(text, LIBRARY).sections == plan.sections


@pytest.mark.parametrize(("telling", "comes_back"), [(-1, 0), (0, 0), (3, 3)])
def test_a_telling_that_is_none_is_not_written(telling, comes_back):
    plan = read("cat 5b")
    plan = msgspec.structs.replace(plan, brief=msgspec.structs.replace(plan.brief, telling=telling))
    assert read_outline(write_outline(plan, LIBRARY), LIBRARY).brief.telling == comes_back


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


# --- names, doses and mistakes as teachers write them --------------------------------------------------


@pytest.mark.parametrize(
    ("written", "movement"),
    [
        ("warrior 2", "warrior-two"), ("Warrior II pose", "warrior-two"), ("warrior two", "warrior-two"),
        ("Downward facing dog", "downward-dog"), ("downdog", "downward-dog"), ("arms overhead", "arms-up"),
        ("childs pose", "child"), ("Child\u2019s pose", "child"), ("Savasana", "final-rest"),
        ("rolling bridge", "bridge-roll"), ("plow", "plough"), ("the hundred", "hundred"),
        ("90/90", "ninety-ninety"), ("windshield wipers", "windscreen-wipers"), ("seal", "mat-seal"),
    ],
)  # fmt: skip
def test_a_movement_is_found_by_every_usual_name(written, movement):
    assert only(f"{written} 5b" if LIBRARY[movement].kind == "hold" else written).movement == movement


@pytest.mark.parametrize(
    ("written", "plain"),
    [
        ("low lunge 5b!", "low lunge 5b !"), ("low lunge 5 breaths", "low lunge 5b"),
        ("low lunge 5b // why", "low lunge 5b"), ("clam 8 reps", "clam 8x"),
        ("legs up wall 3m", "legs up wall 3:00"), ("saddle 90 seconds", "saddle 90s"),
        ("low lunge 5b teach 20s", "low lunge 5b teach 20"),
    ],
)  # fmt: skip
def test_a_dose_may_be_written_as_it_is_said(written, plain):
    assert only(written) == only(plain)


@pytest.mark.parametrize("written", ["12:00", "12 min", "12m", "720s", "720 seconds"])
def test_a_length_may_be_written_as_it_is_said(written):
    assert read_outline(f"length: {written}\n# All\ncat 5b", LIBRARY).brief.target_s == 720


def test_a_bare_number_is_asked_about():
    with pytest.raises(Problem, match="minutes or seconds") as refused:
        read_outline("length: 12\n# All\ncat 5b", LIBRARY)
    assert "12:00" in refused.value.do
    assert "12s" in refused.value.do


def test_a_caution_and_a_prop_that_mean_nothing_here_stand_as_they_were_written():
    text = "title: T\ncautions: grumpiness, knees\nprops: trampoline\n# All\ncat 5b"
    plan = read_outline(text, LIBRARY, "class.txt", shipped().known)
    assert plan.brief.cautions == ("grumpiness", "knees")
    assert plan.brief.props == ("trampoline",)
    solved = solve(plan, shipped())
    told = [one.message for one in solved.make(solved.preferred_s).findings if one.code == "placeholder"]
    assert len(told) == 2
    assert "grumpiness" in told[0]


def test_every_mistake_is_told_at_once_each_with_the_word_that_is_wrong():
    text = """title: T
style: jazz
level: hard
# Warm | role dance
moonwalk 5b
downward dog 5b wobbly
insert nonsense
   cow 2b
"""
    with pytest.raises(Problem) as refused:
        read_outline(text, LIBRARY, "class.txt", shipped().known)
    messages = str(refused.value).splitlines()
    words = (
        "jazz",
        "hard",
        "dance",
        "moonwalk",
        "wobbly",
        "nonsense",
        "3 spaces",
    )
    assert len(messages) == len(words)
    for number, (line, word) in enumerate(zip(messages, words, strict=True), 2):
        assert f"line {number}" in line
        assert word in line


def test_style_cautions_and_props_are_known_in_any_spelling():
    text = "style: Mat-Classical\ncautions: low back, Knees\nprops: blocks, strap\n# All\ncat 5b"
    brief = read_outline(text, LIBRARY, known=shipped().known).brief
    assert (brief.style, brief.cautions, brief.props) == (
        "mat-classical",
        ("low-back", "knees"),
        ("block", "strap"),
    )


def test_a_block_is_put_in_by_its_name_alone_once_or_several_times():
    text = "# All\nsun salutation A\ncat-cow\nSun Salutation B 3x\ninsert vinyasa"
    one, two, three, four = read_outline(text, LIBRARY, known=shipped().known).sections[0].body
    assert [one.name, two.name, four.name] == ["sun salutation a", "cat-cow", "vinyasa"]
    assert isinstance(three, Rounds)
    assert (three.times, three.body[0].name) == (3, "sun salutation b")
    with pytest.raises(Problem, match="no block 'moon dance'"):
        read_outline("# All\ninsert moon dance", LIBRARY, known=shipped().known)


@pytest.mark.parametrize(
    ("written", "says"),
    [
        ("cat 5b right", "has no sides"),
        ("cat 5b pair", "has no sides"),
        ("toe taps 7x", "one more on one side"),
    ],
)
def test_sides_that_can_t_be_meant_are_refused(written, says):
    with pytest.raises(Problem, match=says):
        only(written)


def test_a_mistake_names_the_word_and_not_what_could_be_read():
    with pytest.raises(Problem, match=r"line 6: 'wobbly' can't follow 'downward dog'"):
        only("downward dog 5b wobbly")


def test_a_block_that_is_not_there_is_answered_with_one_much_like_it():
    with pytest.raises(Problem, match="no movement or block 'sun salutation z'") as refused:
        read_outline("# All\nsun salutation z", LIBRARY, known=shipped().known)
    assert "sun salutation" in refused.value.do


@pytest.mark.parametrize(
    ("node", "lines"),
    [
        (Pair(body=()), []),
        (Rounds(times=3, body=(Pair(body=()),)), []),
        (Pair(body=(Rounds(times=2, body=()), Step(movement="low-lunge"))), ["low lunge pair"]),
        (Step(movement="welcome", amount=5), ["welcome"]),
        (Step(movement="child", side="right"), ["child"]),
        (Step(movement="toe-taps", amount=7), ["toe taps 8x"]),
        (Variant(ways={}, chosen="a"), []),
    ],
)
def test_what_an_outline_can_t_say_is_written_as_it_is_done(node, lines):
    plan = Plan(sections=(Section(title="A\n title", body=(node, Step(movement="child"))),))
    text = write_outline(plan, LIBRARY)
    assert text.splitlines()[-len(lines) - 2 :] == ["# A title", *lines, "child"]
    assert write_outline(read_outline(text, LIBRARY), LIBRARY) == text


def test_two_blocks_of_one_name_are_told():
    text = "title: T\nlength: 10:00\n\n# One\ninsert end\n\n# block end\nchild\n\n# block End\nchild\n"
    with pytest.raises(Problem, match="There is a block 'End' already"):
        read_outline(text, LIBRARY)


def test_a_way_may_be_to_do_nothing():
    text = "title: T\nlength: 10:00\n\n# One\nvariant a\n  way a\n    child\n  way b\n"
    plan = read_outline(text, LIBRARY)
    assert plan.sections[0].body[0].ways["b"] == ()


def test_a_section_may_be_called_block():
    plan = Plan(sections=(Section(title="block", role="rest", body=(Step(movement="child"),)),))
    text = write_outline(plan, LIBRARY)
    assert read_outline(text, LIBRARY).sections[0].role == "rest"
    assert write_outline(read_outline(text, LIBRARY), LIBRARY) == text


@pytest.mark.parametrize(
    "node",
    [
        Pair(body=(Step(movement="low-lunge", amount=5),), lead="left", from_round=2),
        Pair(body=(Step(movement="low-lunge", amount=5),), from_round=3),
        Rounds(body=(Step(movement="child", amount=5),), times=3, least=2, most=5, locked=True),
        Rounds(body=(Step(movement="child", amount=5),), times=4, teach=2, alternate=False),
        Variant(ways={"slow": (Step(movement="child", amount=5),), "quick": ()}, chosen="quick"),
        Step(movement="knee-bends", amount=45, clock=True, second=SideDifference(more=5)),
        Step(movement="low-lunge", phase="inhale", facing="side", mat="back"),
        Step(movement="child", amount=5, lines={"align": ["Let it be heavy."]}, from_round=2),
    ],
)
def test_every_shape_comes_back_from_its_outline(node):
    plan = plan_of(Rounds(body=(Step(movement="child"), node), times=4), title="Ebb # and flow")
    written = write_outline(plan, shipped().library)
    again = read_outline(written, shipped().library)
    assert write_outline(again, shipped().library) == written
    assert str(bare_plan(again)) == str(bare_plan(plan))


def bare_plan(plan):
    """A plan without the ids, which an outline does not hold."""
    return [bare(node) for section in plan.sections for node in section.body]


def test_a_section_title_may_hold_the_sign_of_a_section():
    plan = plan_of(Step(movement="child"))
    section = msgspec.structs.replace(plan.sections[0], title="C # minor")
    text = write_outline(msgspec.structs.replace(plan, sections=(section,)), shipped().library)
    assert read_outline(text, shipped().library).sections[0].title == "C # minor"


def test_a_movement_that_the_library_has_not_comes_back_with_its_place():
    steps = (
        Step(movement="gone-away", amount=4, locked=True),
        Pair(body=(Step(movement="tide-stretch", amount=3),)),
        Step(movement="lost", amount=40, clock=True),
    )
    plan = plan_of(*steps)
    text = write_outline(plan, shipped().library)
    assert "missing tide stretch 3b pair" in text
    back = read_outline(text, shipped().library, "here", shipped().known)
    assert [step.movement for step in steps_of(back)] == ["gone-away", "tide-stretch", "lost"]
    assert write_outline(back, shipped().library) == text


def test_a_line_of_what_is_a_block_by_now_is_refused_and_nothing_is_written_that_can_not_be_read():
    plan = plan_of(Block(name="closing"))
    block = plan.sections[0].body[0]
    late = EditLines(
        title="Reword", say=(LineEdit(purpose="say", do="reword", step=block.id, text="Right hand up."),)
    )
    with pytest.raises(Problem, match="not in the class any more"):
        apply(plan, late)


def test_a_block_that_nobody_has_goes_through_an_outline_and_back():
    words = shipped()
    lost = Block(name="fog bank", id="n1")
    plan = Plan(sections=(Section(title="One", body=(lost, Step(movement="child", id="n2"))),))
    text = write_outline(plan, words.library, words.blocks)
    assert "insert missing fog bank" in text
    again = read_outline(text, words.library)
    assert again.sections[0].body[0].name == "fog bank"
    assert write_outline(again, words.library, words.blocks) == text


def test_a_block_that_has_lost_its_name_keeps_its_place_in_an_outline():
    plan = plan_of(Step(movement="child"), Block(name=""), Step(movement="bridge"))
    words = shipped()
    text = write_outline(plan, words.library, words.blocks)
    assert "insert missing\n" in text
    again = read_outline(text, words.library, "an outline", words.known)
    assert again.sections[0].body[1].name == ""
    assert write_outline(again, words.library, words.blocks) == text


def test_where_a_class_begins_goes_through_an_outline_and_is_one_of_five():
    plan = plan_of(Step(movement="child"), begins="kneeling")
    text = write_outline(plan, shipped().library)
    assert "begins: kneeling" in text
    assert read_outline(text, shipped().library).brief.begins == "kneeling"
    with pytest.raises(Problem):
        solve(plan_of(Step(movement="child"), begins="upside down"), shipped())
