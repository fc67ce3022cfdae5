"""The voice of a class: how much is said, how it is put, and that two schools sound like two teachers."""

from collections import Counter
from itertools import pairwise

import pytest

from tests.conftest import demo_maker, made_of, said, shipped
from yewhour.content.paths import demo_classes
from yewhour.core.outline.reader import read_nodes
from yewhour.core.plan.nodes import Pair, Rounds, Step
from yewhour.core.sides import fill

REST = Step(movement="final-rest")
THOUGHTS = ("aim", "check", "image", "deepen", "compare", "keep", "late")
NAMES = [path.stem for path in demo_classes()]
QUIET = ("slow", "restorative", "breathing")
OUTLINE = (
    Step(movement="seated-breath", amount=5),
    Pair(body=(Step(movement="low-lunge", amount=6), Step(movement="half-splits", amount=6))),
    Step(movement="child", amount=5),
    REST,
)


def full_lines(timed, *purposes):
    """The body lines of held postures, outside flow and count."""
    held = {s.id for s in timed.segments if s.kind in ("hold", "clock") and not s.use.flow}
    return [cue for cue in timed.cues if cue.segment in held and cue.purpose in purposes]


@pytest.mark.parametrize("name", NAMES)
def test_a_demo_class_talks_as_much_as_teachers_do(name):
    timed = demo_maker(name).make()
    resting = {s.id for s in timed.segments if s.kind == "stillness" or "returning" in s.use.movement.marks}
    busy_s = timed.length_s - sum(s.length for s in timed.segments if s.id in resting) / 10
    words = sum(len(cue.text.split()) for cue in timed.cues if cue.segment not in resting)
    if timed.plan.brief.style in QUIET or busy_s < 60:
        assert words * 60 / busy_s < 140
    else:
        assert 65 <= words * 60 / busy_s < 140


@pytest.mark.parametrize("name", NAMES)
def test_body_lines_leave_each_other_room(name):
    timed = demo_maker(name).make()
    by_segment: dict[str, list[int]] = {}
    for cue in timed.cues:
        if cue.purpose in THOUGHTS and not cue.own:
            by_segment.setdefault(cue.segment, []).append(cue.start)
    assert all(later - one >= 30 for starts in by_segment.values() for one, later in pairwise(sorted(starts)))


@pytest.mark.parametrize("name", NAMES)
def test_no_body_line_is_said_twice_within_three_minutes(name):
    timed = demo_maker(name).make()
    last: dict[str, int] = {}
    for cue in full_lines(timed, *THOUGHTS):
        assert cue.start - last.get(cue.text, -10_000) > 1800, cue.text
        last[cue.text] = cue.start


@pytest.mark.parametrize("name", NAMES)
def test_not_every_third_line_begins_with_let(name):
    timed = demo_maker(name).make()
    lines = full_lines(timed, *THOUGHTS, "choice")
    assert sum(cue.text.startswith("Let ") for cue in lines) <= max(3, 0.36 * len(lines))


def test_an_inviting_and_a_direct_voice_are_two_teachers():
    texts = {
        voice: {cue.text for cue in made_of(*OUTLINE, style="hatha", ways={"voice": voice}).cues}
        for voice in ("inviting", "direct")
    }
    shared = texts["inviting"] & texts["direct"]
    assert len(shared) < 0.85 * min(len(lines) for lines in texts.values())
    frames = [line[0].split("{line}")[0] for line in shipped().wording.voices["inviting"].way]
    assert any(text.startswith(frame) for text in texts["inviting"] for frame in frames)
    assert not any(text.startswith(frame) for text in texts["direct"] for frame in frames)


@pytest.mark.parametrize("styles", [("flow", "hatha"), ("mat-classical", "mat-modern")])
def test_the_same_outline_reads_as_two_teachers_in_two_styles(styles):
    nodes = (Step(movement="bridge-roll", amount=6), Pair(body=(Step(movement="clam", amount=10),)), *OUTLINE)
    one, two = (
        {cue.text for cue in made_of(*nodes, style=style).cues if cue.purpose in THOUGHTS} for style in styles
    )
    assert len(one & two) < 0.8 * min(len(one), len(two))


def test_the_second_side_says_in_whole_sentences_what_was_not_said():
    timed = made_of(*OUTLINE, style="hatha", ways={"names": "both"})
    sides = {
        side: [c.text for c in full_lines(timed, *THOUGHTS) if c.side == side] for side in ("right", "left")
    }
    assert sides["left"]
    assert all(len(line.split()) >= 3 for line in sides["left"])
    evened = {line.replace("left", "right") for line in sides["left"]}
    assert not evened & {line.replace("left", "right") for line in sides["right"]}


def test_a_second_side_can_be_wordless():
    left = full_lines(made_of(*OUTLINE, style="hatha", ways={"second_side": "wordless"}), *THOUGHTS)
    assert not [cue for cue in left if cue.side == "left"]


def test_the_second_side_is_placed_more_briefly_and_named():
    card = shipped().library["low-lunge"].card
    timed = made_of(Pair(body=(Step(movement="low-lunge", amount=6),)), REST, style="hatha")
    placed = {
        side: [c.text for c in timed.cues if c.purpose == "place" and c.side == side]
        for side in ("right", "left")
    }
    assert placed["left"] == [fill(card.again, "left")]
    assert sum(map(len, placed["left"])) <= sum(map(len, placed["right"]))


def test_who_is_minded_hears_it_before_the_weight_comes_on_both_sides():
    timed = made_of(
        Pair(body=(Step(movement="low-lunge", amount=6),)), REST, style="hatha", cautions=("knees",)
    )
    protect = shipped().library["low-lunge"].card.protect["knees"]
    for segment in (
        one for one in timed.segments if one.use.movement.id == "low-lunge" and not one.use.setup_for
    ):
        told = next(c for c in timed.cues if c.purpose == "protect" and c.side == segment.side)
        own = fill(protect, segment.side)
        whom = "For tender knees:" if segment.side == "right" else "If the knees are tender,"
        assert told.text == f"{whom} {own[0].lower()}{own[1:]}"
        assert told.end <= segment.start


def test_a_class_that_is_theirs_alone_needs_no_telling_whose_line_it_is():
    timed = made_of(Step(movement="tree", amount=4), REST, style="hatha", cautions=("balance",))
    assert any(line.startswith("Stand beside your wall") for line in said(timed, "protect"))


def test_several_who_are_minded_are_told_whose_line_it_is():
    timed = made_of(Step(movement="camel", amount=4), REST, style="hatha", cautions=("knees", "neck"))
    lines = said(timed, "protect")
    assert any(line.startswith("For tender knees: ") for line in lines)
    assert any(line.startswith("For a tender neck: ") for line in lines)


def test_the_breath_is_told_as_often_as_the_school_has_it():
    counts = {
        way: len(said(made_of(Step(movement="clam", amount=14), REST, ways={"breath_words": way}), "breath"))
        for way in ("none", "first few", "always")
    }
    assert counts["none"] == 0 <= counts["first few"] < counts["always"]


def test_a_countdown_is_announced_before_it_begins():
    timed = made_of(Step(movement="chest-lift", amount=12, countdown=5, locked=True), REST)
    counts = [cue.text for cue in timed.cues if cue.purpose == "count"]
    five = counts.index("Five.")
    assert "five" in counts[five - 1].lower()
    assert len(counts[five - 1].split()) > 1


def test_who_does_not_go_on_waits_and_all_come_back_together():
    timed = made_of(
        Step(movement="downward-dog", amount=3), Step(movement="crow", amount=3, or_stay=True),
        Step(movement="child", amount=4), REST,
    )  # fmt: skip
    texts = [cue.text for cue in timed.cues]
    wording = shipped().wording
    offered = next(n for n, text in enumerate(texts) if text in {line[0] for line in wording.go_or_stay})
    together = next(n for n, text in enumerate(texts) if text in {line[0] for line in wording.together})
    assert offered < texts.index(next(t for t in texts if t.startswith("Crow:"))) < together
    assert "downward-facing dog" in " ".join(texts[offered + 3 : together])  # back to those who stayed


def test_props_are_moved_to_the_other_side_and_put_away():
    timed = made_of(
        Pair(body=(Step(movement="side-bolster", amount=60),)), Step(movement="child", amount=4), REST,
        style="restorative", props=("bolster",),
    )  # fmt: skip
    props = [(cue.side, cue.text) for cue in timed.cues if cue.purpose == "prop"]
    assert any(side == "left" and "left" in text for side, text in props)
    assert "bolster" in props[-1][1]
    assert props[-1][0] == "both"


def test_a_prop_put_away_for_what_came_between_is_taken_up_again_on_the_other_side():
    timed = made_of(
        Pair(body=(Step(movement="half-splits", amount=4), Step(movement="splits", amount=5))), REST,
        props=("two blocks",),
    )  # fmt: skip
    blocks = [
        (cue.side, "side of your front foot" in cue.text) for cue in timed.cues if cue.purpose == "prop"
    ]
    assert blocks == [("right", True), ("left", False), ("left", True), ("both", False)]


def test_where_there_is_time_each_direction_is_done_before_the_next_is_said():
    steps = (Step(movement="control-balance", amount=4), Step(movement="mat-push-up", amount=5), REST)
    timed = made_of(*steps, style="mat-classical", level="experienced")
    way = next(one for one in timed.segments if one.use.setup_for and one.use.movement.id == "mat-push-up")
    there = [cue for cue in timed.cues if cue.segment == way.id]
    assert len(there) >= 5
    spare = way.length - sum(cue.end - cue.start for cue in there)
    gaps = [after.start - cue.end for cue, after in pairwise(there)]
    assert spare > 100
    assert min(gaps) >= 10  # a second at least to do it in
    assert way.end - there[-1].end <= 0.6 * spare  # and not all of it at the end


@pytest.mark.parametrize("name", NAMES)
def test_no_part_of_the_body_is_softened_twice_in_one_movement(name):
    timed = demo_maker(name).make()
    own = {}
    for cue in timed.cues:
        own.setdefault((cue.segment, "jaw" in cue.text.lower()), []).append(cue.text)
    assert [texts for (_, jaw), texts in own.items() if jaw and len(texts) > 1] == []


def test_a_chair_is_come_to_when_it_is_not_what_one_sits_on_already():
    timed = made_of(
        Step(movement="chair-sit-tall", amount=3), Step(movement="chair-cat-cow", amount=4),
        Step(movement="ankle-pumps", amount=4), Step(movement="sit-to-stand", amount=4),
        Step(movement="calf-raise", amount=8),
        Pair(body=(Step(movement="chair-hip-abduction", amount=6),)), Step(movement="chair-silence"),
        style="chair-balance", props=("chair",),
    )  # fmt: skip
    props = [cue.text for cue in timed.cues if cue.purpose == "prop"]
    assert props == ["Take a steady chair, nothing on wheels, and stand it where it can't slide."]


def test_who_lies_on_the_right_side_for_it_already_is_not_sent_over():
    body = (Step(movement="clam", amount=8), Step(movement="inner-thigh-lift", amount=8))
    timed = made_of(Pair(body=body), REST, style="mat-modern")
    side = next(cue.text for cue in timed.cues if cue.purpose == "side" and cue.side == "left")
    already = {text for line in shipped().wording.side_on_top_already for text in line}
    assert side in {text.replace("{side}", "left") for text in already}
    alone = made_of(Pair(body=body[:1]), REST, style="mat-modern")
    assert not any("already" in cue.text for cue in alone.cues)


def test_a_name_that_is_the_traditional_one_is_said_once():
    timed = made_of(Step(movement="child", amount=4), REST, style="hatha", ways={"names": "both"})
    assert not any("Savasana, Savasana" in cue.text for cue in timed.cues)
    warrior = made_of(Step(movement="warrior-two", side="right"), REST, style="hatha", ways={"names": "both"})
    assert any("Virabhadrasana" in cue.text for cue in warrior.cues)


def test_a_prop_that_its_own_line_names_is_not_named_again():
    timed = made_of(Step(movement="wall-bolster", amount=120), REST, style="restorative")
    props = [cue.text for cue in timed.cues if cue.purpose == "prop" and "aside" not in cue.text.lower()]
    assert [text for text in props if "wall" in text] == []


def test_promised_quiet_is_kept_and_told_by_its_length():
    timed = made_of(
        Step(movement="silence-ahead"), Step(movement="final-rest", amount=240, locked=True), style="slow"
    )
    assert any("about four minutes" in cue.text for cue in timed.cues)
    rest = next(s for s in timed.segments if s.kind == "stillness")
    assert not [cue for cue in timed.cues if cue.segment == rest.id]


def test_turning_to_the_other_end_of_the_mat_is_said_once_each_way():
    standing = ("mountain", "warrior-two", "mountain")
    nodes = [Step(movement=name, amount=3, mat=mat, side="right" if name[0] == "w" else None)
             for name, mat in zip(standing, ("", "back", ""), strict=True)]  # fmt: skip
    ways = " ".join(said(made_of(*nodes, REST), "way"))
    assert ways.count("back end of your mat") + ways.count("back of your mat") == 1
    assert ways.count("front end of your mat") + ways.count("front of your mat") >= 1


def test_counted_work_is_never_left_alone_for_long():
    for name in ("roll-up", "chest-lift", "bridge-roll", "knee-bends"):
        timed = made_of(Step(movement=name, amount=8), REST)
        assert "quiet-count" not in {finding.code for finding in timed.findings}


def test_numbers_are_said_in_many_ways():
    flow = Rounds(
        body=(Step(movement="bridge-roll", amount=6), Step(movement="chest-lift", amount=8)), times=4
    )
    counts = Counter(said(made_of(flow, REST), "count"))
    assert counts.most_common(1)[0][1] <= 3


def test_quick_breath_is_told_at_its_tempo_and_given_in_strokes():
    (step,) = read_nodes("skull shining 40x\n", shipped().library)
    timed = made_of(step, REST, style="breathing")
    assert next(s for s in timed.segments if s.kind == "rapid").length == 400
    assert any("ten strokes in ten seconds" in cue.text for cue in timed.cues)


def test_each_round_is_begun_and_the_last_one_is_said_to_be():
    sets = (Step(movement="bridge-roll", amount=4), Step(movement="chest-lift", amount=5))
    wording = shipped().wording
    counts = said(made_of(Rounds(body=sets, times=3), REST), "count")
    again, last = (
        [text for line in lines for text in line] for lines in (wording.next_round, wording.last_round)
    )
    assert sum(text in again for text in counts) == 1
    assert sum(text in last for text in counts) == 1


def test_each_part_of_a_repetition_in_four_has_its_own_words():
    words = said(made_of(Step(movement="four-part-curl", amount=4), REST, style="mat-modern"), "breath")
    assert [word.split(", ")[1] for word in words[:4]] == [
        "curl up.",
        "lower the legs.",
        "lift them.",
        "head down.",
    ]


def test_where_silence_follows_the_second_side_is_told():
    pair = Pair(body=(Step(movement="lizard", amount=60, clock=True),))
    quiet = made_of(pair, REST, style="slow")
    card = shipped().library["lizard"].card
    assert fill(card.again, "left") in {cue.text for cue in quiet.cues if cue.side == "left"}
