"""Every rule: a class where it speaks, and one where it is silent."""

from pathlib import Path

import msgspec
import pytest

from tests.conftest import demo_maker, plan_of, shipped
from yewhour.content.paths import demo_classes
from yewhour.content.terms import load_rules
from yewhour.core.checks.all_checks import verified_rules
from yewhour.core.checks.registry import CHECKS
from yewhour.core.pace import Pace
from yewhour.core.pipeline import solve
from yewhour.core.plan.edit import apply, with_edits
from yewhour.core.plan.nodes import LineEdit, Pair, Rounds, Step
from yewhour.core.problem import Problem

REST = Step(movement="final-rest", id="rest", amount=180)
BACK = Step(movement="return", id="return")
WARM = Step(movement="downward-dog", id="dog")
FLOW = (
    Step(movement="arms-up", phase="inhale", id="up"),
    Step(movement="fold", phase="exhale", id="fold"),
)


def found(*nodes, edits=(), length_s=None, **brief):
    """The codes found in a class made as it prefers, or to a length."""
    plan = with_edits(plan_of(*nodes, **brief), edits)
    solved = solve(plan, shipped())
    promised = msgspec.structs.replace(plan.brief, target_s=solved.preferred_s)
    solved = solve(msgspec.structs.replace(plan, brief=promised), shipped())
    timed = solved.make(length_s)
    return {finding.code: finding for finding in timed.findings}, solved


def own(text, step="lunge", side="right", purpose="stay", **more):
    return LineEdit(step=step, purpose=purpose, do="add", text=text, side=side, **more)


BRIDGE_OUT = Step(movement="bridge", phase="exhale")
SILENT_WAY = LineEdit(step="b", purpose="way", do="mute")
SILENT_SIDE = tuple(LineEdit(step="n", purpose=purpose, do="mute") for purpose in ("side", "call", "exit"))
LONG = Step(movement="seated-breath", amount=140, most=140)
BOX = Step(movement="box-breath", id="box")
MUTED = LineEdit(step="box", purpose="caution", do="mute")
LUNGE = Pair(body=(Step(movement="low-lunge", id="lunge", amount=6, locked=True),), lead="right")

FEW_WORDS = {"talk": 0.01, "breath_words": "none"}
UNTAUGHT = tuple(
    LineEdit(step="c", purpose=purpose, do="mute", number=number)
    for purpose in ("count", "aim", "keep", "check", "late", "first")
    for number in range(3)
)
STAY_UP = LineEdit(step="b", purpose="leave", do="mute")
NO_FIRST = LineEdit(step="t", purpose="first", do="mute")
LATE_CHOICE = LineEdit(step="c", purpose="choice", do="add", text="Or lie on your back instead.", at_s=50.0)
LONG_TALK = (own("talk " * 82, "c", ""),)
SOME_TALK = (own("talk " * 30, "p", ""),)


def of(**spec):
    return spec


# code -> (a class where it speaks, the same mended)
SPEAKS = {
    "uneven": (of(nodes=[WARM, Step(movement="low-lunge", side="right")]), of(nodes=[WARM, LUNGE])),
    "side-word": (
        of(nodes=[LUNGE], edits=(own("Your left foot is in front."),)),
        of(nodes=[LUNGE], edits=(own("Your right foot is upright, all right."),)),
    ),
    "count-word": (
        of(nodes=[LUNGE], edits=(own("Five more.", at_s=30.0),)),
        of(nodes=[LUNGE], edits=(own("A little more weight in the heel.", at_s=30.0),)),
    ),
    "unsaid": (
        of(nodes=[LUNGE], edits=(own("word " * 200),)),
        of(nodes=[LUNGE], edits=(own("A few words."),)),
    ),
    "dense": (
        of(nodes=[Step(movement="child", id="c", amount=3, locked=True)], edits=LONG_TALK),
        of(nodes=[Step(movement="child", id="c", amount=3)]),
    ),
    "short-phase": (
        of(nodes=[Rounds(body=FLOW, times=3)], pace=Pace(40)),
        of(nodes=[Rounds(body=FLOW, times=3)], pace=Pace(9)),
    ),
    "long-silence": (
        of(nodes=[Step(movement="half-lift", amount=250, most=250, clock=True)], style="slow"),
        of(nodes=[Step(movement="half-lift", amount=30, clock=True)], style="slow"),
    ),
    "quiet-count": (
        of(nodes=[Step(movement="chest-lift", id="c", amount=9)], ways=FEW_WORDS, edits=UNTAUGHT),
        of(nodes=[Step(movement="chest-lift", id="c", amount=9)], ways=FEW_WORDS),
    ),
    "left-up": (
        of(nodes=[Step(movement="hundred", id="h"), Step(movement="bridge-roll", id="b")], edits=(STAY_UP,)),
        of(nodes=[Step(movement="hundred", id="h"), Step(movement="bridge-roll", id="b")]),
    ),
    "stand-in": (
        of(nodes=[Step(movement="tide-stretch"), WARM]),
        of(nodes=[Step(movement="child"), WARM]),
    ),
    "which-first": (
        of(nodes=[Step(movement="toe-taps", id="t", lines={"call": ["Tap."]})], edits=(NO_FIRST,)),
        of(nodes=[Step(movement="toe-taps", id="t")]),
    ),
    "late-choice": (
        of(nodes=[Step(movement="child", id="c", amount=12)], edits=(LATE_CHOICE,)),
        of(nodes=[Step(movement="child", id="c", amount=12)]),
    ),
    "prop": (
        of(nodes=[Step(movement="block-squeeze")], props=("strap",)),
        of(nodes=[Step(movement="block-squeeze")], props=("block",)),
    ),
    "prop-unsaid": (
        of(
            nodes=[Step(movement="block-squeeze", id="b", lines={"call": ["Squeeze your knees."]})],
            edits=tuple(LineEdit(step="b", purpose=one, do="mute") for one in ("prop", "first")),
        ),
        of(nodes=[Step(movement="block-squeeze")]),
    ),
    "unprepared": (
        of(nodes=[Step(movement="camel"), Step(movement="child")]),
        of(nodes=[Step(movement="cobra"), Step(movement="camel"), Step(movement="child")]),
    ),
    "not-neutralised": (
        of(nodes=[Step(movement="cobra"), Step(movement="camel"), *[Step(movement="arms-up")] * 5]),
        of(nodes=[Step(movement="cobra"), Step(movement="camel"), Step(movement="child")]),
    ),
    "cold": (
        of(nodes=[Step(movement="dart")]),
        of(nodes=[Step(movement="pelvic-tilt"), Step(movement="dart")]),
    ),
    "level": (
        of(nodes=[Step(movement="shoulder-stand")], level="gentle"),
        of(nodes=[Step(movement="shoulder-stand")], level="experienced"),
    ),
    "wrists": (
        of(nodes=[Step(movement="downward-dog", amount=40, most=40)]),
        of(nodes=[Step(movement="downward-dog", amount=8)]),
    ),
    "up-and-down": (
        of(nodes=[Step(movement=name) for name in ["mountain", "staff"] * 5]),
        of(nodes=[Step(movement=name) for name in ["mountain"] * 4 + ["staff"] * 4]),
    ),
    "pace-jump": (
        of(nodes=[Step(movement="cobra", pace=Pace(12)), Step(movement="child")], pace=Pace(6)),
        of(nodes=[Step(movement="cobra"), Step(movement="child")], pace=Pace(6)),
    ),
    "placeholder": (
        of(nodes=[Step(movement="cobra"), Step(movement="child")], cautions=("dragons",)),
        of(nodes=[Step(movement="cobra"), Step(movement="child")], cautions=("elbows",)),
    ),
    "left-out": (
        of(nodes=[Step(movement="plank"), Step(movement="staff")], cautions=("pregnancy",)),
        of(nodes=[Step(movement="cobra"), Step(movement="child")]),
    ),
    "breath": (
        of(nodes=[BOX], cautions=("breath-holding",), edits=(MUTED,)),
        of(nodes=[Step(movement="box-breath")]),
    ),
    "no-rest": (of(nodes=[LONG] * 4, rest=False), of(nodes=[WARM], rest=False)),
    "short-rest": (
        of(nodes=[LONG, LONG, LONG, Step(movement="final-rest", amount=60)], rest=False),
        of(nodes=[LONG, Step(movement="final-rest", amount=60)], rest=False),
    ),
    "quick-close": (
        of(nodes=[WARM, REST], rest=False),
        of(nodes=[WARM, REST, Step(movement="sit", amount=2)], rest=False),
    ),
    "turned-away": (
        of(nodes=[Step(movement="downward-dog", facing="back")]),
        of(nodes=[Step(movement="downward-dog", facing="side")]),
    ),
    "hidden-side": (
        of(nodes=[WARM, LUNGE], facing="left"),
        of(nodes=[WARM, LUNGE], facing="front"),
    ),
    "hard-to-speak": (
        of(nodes=[Step(movement="plank", id="p", amount=2, locked=True)], edits=SOME_TALK),
        of(nodes=[Step(movement="plank", amount=2)]),
    ),
    "lost": (
        of(nodes=[Step(movement="mountain"), Step(movement="bridge", id="b")], edits=(SILENT_WAY,)),
        of(nodes=[Step(movement="mountain"), Step(movement="bridge", id="b")]),
    ),
    "wrong-side-heard": (
        of(nodes=[Pair(body=(Step(movement="neck-turn", id="n"),))], edits=(*SILENT_SIDE,)),
        of(nodes=[Pair(body=(Step(movement="neck-turn", id="n"),))]),
    ),
    "lost-edit": (
        of(nodes=[WARM], edits=(LineEdit("half", "rewrite", step="dog", text="Gone."),)),
        of(nodes=[WARM], edits=(own("Here.", "dog", ""),)),
    ),
}  # fmt: skip


def look(spec):
    spec = dict(spec)
    nodes = spec.pop("nodes")
    if spec.pop("rest", True):
        nodes = [*nodes, REST, BACK]
    return found(*nodes, **spec)


def test_every_rule_is_tried():
    assert set(SPEAKS) | {"length"} == set(shipped().rules) == set(CHECKS)


@pytest.mark.parametrize("code", SPEAKS)
def test_a_rule_speaks_where_it_should_and_is_silent_elsewhere(code):
    speaks, silent = SPEAKS[code]
    assert code in look(speaks)[0]
    assert code not in look(silent)[0]


def test_quiet_that_was_promised_is_no_long_silence():
    hold = Step(movement="cow", amount=250, most=250, clock=True)
    promised = of(nodes=[Step(movement="silence-ahead"), hold], style="slow", ways={"talk": 0.01})
    assert "long-silence" not in look(promised)[0]
    other = Step(movement="half-lift", amount=250, most=250, clock=True)
    later = of(nodes=[Step(movement="silence-ahead"), hold, other], style="slow", ways={"talk": 0.01})
    assert "long-silence" not in look(later)[0]  # its card has said how long it will be quiet
    untold = tuple(LineEdit(step="n3", purpose="time", do="mute", number=number) for number in range(2))
    assert "long-silence" in look({**later, "edits": untold})[0]


def test_the_length_is_held_against_the_title():
    assert "length" in found(WARM, REST, BACK, length_s=300)[0]
    assert "length" not in found(WARM, REST, BACK)[0]


@pytest.mark.parametrize("code", SPEAKS)
def test_a_fix_can_be_applied_and_mends_it(code):
    codes, solved = look(SPEAKS[code][0])
    edit = codes[code].edit
    assert edit is not None
    assert edit.title
    mended = solve(apply(solved.plan, edit), shipped())
    assert code not in {finding.code for finding in mended.make(mended.preferred_s).findings}


def test_every_finding_of_a_demo_class_has_a_fix_that_does_not_bring_it_down():
    for path in demo_classes():
        solved = demo_maker(path.stem)
        for finding in solved.make(solved.promised_s).findings:
            assert finding.edit is not None, finding
            solve(apply(solved.plan, finding.edit), shipped())


def test_words_for_the_wrong_side_are_mended_in_place():
    codes, solved = look(SPEAKS["side-word"][0])
    mended = apply(solved.plan, codes["side-word"].edit)
    assert [edit.text for edit in mended.edits] == ["Your right foot is in front."]


def test_two_sides_that_differ_are_given_the_same():
    nodes = [WARM, *[Step(movement="low-lunge", side=side, amount=n, locked=True)
                     for side, n in (("right", 7), ("left", 4))]]  # fmt: skip
    codes, solved = look(of(nodes=nodes))
    mended = solve(apply(solved.plan, codes["uneven"].edit), shipped())
    timed = mended.make(mended.preferred_s)
    assert "uneven" not in {finding.code for finding in timed.findings}
    held = [
        (one.side, one.amount) for one in timed.segments if one.use.movement.id == "low-lunge" and one.spans
    ]
    assert held == [("right", 7), ("left", 7)]  # the most that either had
    others = {one.use.movement.id: one.amount for one in timed.segments if one.spans}
    before = {
        one.use.movement.id: one.amount for one in solved.make(solved.preferred_s).segments if one.spans
    }
    assert {**others, "low-lunge": 0} == {**before, "low-lunge": 0}


def test_no_rule_speaks_on_more_than_two_demo_classes():
    spoke = {}
    for path in demo_classes():
        solved = demo_maker(path.stem)
        for finding in solved.make(solved.plan.brief.target_s).findings:
            spoke.setdefault(finding.code, set()).add(path.stem)
    assert {code: names for code, names in spoke.items() if len(names) > 2} == {}


def test_a_rule_file_with_a_typo_is_named(tmp_path: Path):
    rules = dict(shipped().rules)
    rules["unevan"] = rules.pop("uneven")
    with pytest.raises(Problem, match="unev"):
        verified_rules(rules)
    (tmp_path / "checks.toml").write_text('[uneven]\nseverety = "wrong"\n')
    with pytest.raises(Problem, match=r"checks\.toml"):
        load_rules(tmp_path)


def test_what_is_said_in_between_has_not_been_said_already():
    codes, solved = look(SPEAKS["quiet-count"][0])
    said = {cue.text for cue in solved.make(solved.preferred_s).cues}
    added = [line.text for line in codes["quiet-count"].edit.say]
    assert added
    assert not said & {*added}


def test_what_is_said_in_between_is_the_movement_s_own_as_long_as_there_is_any():
    codes, _ = look(SPEAKS["quiet-count"][0])
    card = shipped().library["chest-lift"].card
    assert {line.text for line in codes["quiet-count"].edit.say} <= {text for _, text in card.lines()}


def test_a_movement_that_is_left_out_is_told_by_its_name():
    codes, _ = found(Step(movement="camel"), WARM, without=("camel",))
    assert "in a class without Camel" in codes["left-out"].message
