"""The lines of a script among what was heard: when each was said, which were not, and what was besides."""

from random import Random

import pytest

from tests.conftest import demo_maker
from tools.teachers import captions, taught
from yewhour.core.transcript.alignment import aligned
from yewhour.core.transcript.captions import read_captions
from yewhour.core.transcript.line_matches import match_lines


def found(name, kind="vtt", seed=1, **slips):
    timed = demo_maker(name).make()
    said = taught(timed, Random(seed), **slips)
    return said, *match_lines(timed.cues, read_captions(captions(said, kind)))


def test_words_are_aligned_in_their_order_and_wrong_ones_are_left_out():
    script = ["step", "the", "right", "foot", "forward", "and", "sink", "the", "hips"]
    heard = ["well", "step", "the", "right", "foot", "forwart", "um", "and", "sink", "hips"]
    pairs = [(script[one], heard[two]) for one, two, _ in aligned(script, heard)]
    alike = ["step", "the", "right", "foot", "forward", "and", "sink", "hips"]
    assert [one for one, _ in pairs] == alike
    assert [two for _, two in pairs] == [word.replace("forward", "forwart") for word in alike]
    assert aligned([], heard) == aligned(script, []) == []


@pytest.mark.parametrize(("name", "kind"), [("bell-ringers", "rolling"), ("sunrise-on-the-quay", "bare")])
def test_what_was_said_is_found_at_its_moment_and_nothing_else(name, kind):
    held = {one.id: 9.0 for one in demo_maker(name).make().segments if one.kind == "hold"}
    longer = dict(list(held.items())[1:9:3])
    said, lines, _ = found(name, kind, longer=longer, drift=0.03, skipped=0.08, remarks=0.1, misheard=0.06)
    truth = {one.line: one.start_s for one in said.said if one.line is not None}
    near = sum(
        lines[number].said_s is not None and abs(lines[number].said_s - at_s) < 0.7
        for number, at_s in truth.items()
    )
    assert near >= 0.97 * len(truth)
    wrong = [
        line.cue.text
        for number, line in enumerate(lines)
        if line.said_s is not None and abs(line.said_s - truth.get(number, -99.0)) >= 1.5
    ]
    assert len(wrong) <= 0.01 * len(truth), wrong


def test_remarks_are_told_apart():
    said, _, extra = found("slack-tide", remarks=0.2)
    wanted = [one.text for one in said.said if one.line is None]
    assert wanted
    heard = [one.text for one in extra]
    assert sum(text in heard for text in wanted) >= 0.9 * len(wanted)


def line_of(lines, text):
    return next(line for line in lines if line.cue.text == text)


def with_said(timed, change):
    """Captions of a class with one line said otherwise."""
    rows = [f"[{cue.start // 600}:{cue.start % 600 / 10:04.1f}] {change(cue)}" for cue in timed.cues]
    return read_captions("\n".join(row for row in rows if not row.endswith("] ")).encode())


def test_another_side_said_is_told():
    timed = demo_maker("bell-ringers").make()
    cue = next(one for one in timed.cues if "right knee" in one.text or "right foot" in one.text)
    said = with_said(timed, lambda one: one.text.replace("right", "left") if one is cue else one.text)
    lines, _ = match_lines(timed.cues, said)
    line = lines[timed.cues.index(cue)]
    assert line.wrong_side == "left"
    assert [one for one in lines if one.wrong_side] == [line]


def test_a_line_that_was_put_otherwise_is_told_apart_from_one_that_was_not_said():
    timed = demo_maker("bell-ringers").make()
    cue = next(one for one in timed.cues if len(one.text.split()) > 12)
    words = cue.text.split()
    otherwise = " ".join([*words[:3], "and maybe", *words[8:]])
    lines, _ = match_lines(timed.cues, with_said(timed, lambda one: otherwise if one is cue else one.text))
    assert lines[timed.cues.index(cue)].how in ("reworded", "said")
    assert lines[timed.cues.index(cue)].sure < 0.95
    lines, _ = match_lines(timed.cues, with_said(timed, lambda one: "" if one is cue else one.text))
    assert lines[timed.cues.index(cue)].how == "unsaid"


def test_a_line_that_was_said_twice_is_told():
    timed = demo_maker("bell-ringers").make()
    cue = next(one for one in timed.cues if len(one.text.split()) > 9 and one.purpose == "aim")
    said = with_said(timed, lambda one: f"{one.text} {one.text}" if one is cue else one.text)
    _, extra = match_lines(timed.cues, said)
    assert [one.again for one in extra] == [cue.text]


def test_what_was_said_instead_of_a_line_stands_with_it():
    timed = demo_maker("bell-ringers").make()
    cue = next(one for one in timed.cues if len(one.text.split()) > 9 and one.purpose == "aim")
    other = "Oh listen to that gull up on the roof again"
    lines, extra = match_lines(timed.cues, with_said(timed, lambda one: other if one is cue else one.text))
    assert lines[timed.cues.index(cue)].how == "unsaid"
    assert [(one.text, one.instead) for one in extra] == [(other.lower(), timed.cues.index(cue))]


def test_nothing_heard_is_nothing_said():
    timed = demo_maker("four-at-the-slip").make()
    lines, extra = match_lines(timed.cues, read_captions(b"[0:10] Wonderful weather for the ducks."))
    assert all(line.said_s is None for line in lines)
    assert len(extra) == 1
