"""What recordings teach: a teacher's own seconds, robust to one that was odd; a plan with them is as long."""

from functools import cache
from random import Random

import msgspec
import pytest

from tests.conftest import demo_maker, shipped, some_of
from tools.teachers import captions, freely, taught
from yewhour.content.paths import DATA
from yewhour.core.pipeline import solve
from yewhour.core.plan.own_shares import way_kind
from yewhour.core.review.learning import LEAST_SEEN, adopt, learnt_shares, observe
from yewhour.core.review.review import look_back
from yewhour.core.transcript.captions import read_captions
from yewhour.files.toml_files import read_toml

OWN = {"ways": 1.3, "teaching": 1.2, "holds": 1.1, "repetitions": 1.15, "speech": 1.1}
WANTED = {"ways": 1.3, "teaching": 1.2, "breath": 1.1, "count": 1.15, "voice": 1.1}


def recording(name, seed, own):
    timed = demo_maker(name).make()
    said = taught(timed, Random(seed), skipped=0.06, remarks=0.05, misheard=0.04, own=own)
    return said, observe(look_back(timed, None, read_captions(captions(said))))


@cache
def three(name):
    return [recording(name, seed, OWN) for seed in range(3)]


LONG = pytest.mark.long


@pytest.mark.parametrize(
    "name",
    ["hips-after-the-helm", pytest.param("bell-ringers", marks=LONG), pytest.param("lamps-out", marks=LONG)],
)
def test_after_three_recordings_her_seconds_are_known_and_a_plan_is_as_long(name):
    notes = [one for _, one in three(name)]
    found = learnt_shares(notes)
    for one in found:
        assert one.ratio == pytest.approx(WANTED[one.what], rel=0.1), one
        assert one.recordings >= min(2, one.count // LEAST_SEEN)  # some may have nothing to tell of it
        assert one.low - 0.05 <= one.ratio <= one.high + 0.05
    solved = demo_maker(name)
    anew = solve(adopt(solved.plan, found), shipped())
    choice = solved.make().choice
    taught_by = {one.what: one.ratio for one in found}.get("teaching", 1.0)
    amounts = {
        key: round(number * taught_by) if key.endswith("/into") else number
        for key, number in choice.amounts.items()
    }
    length_s = anew.laid_out(msgspec.structs.replace(choice, amounts=amounts))[-1].end / 10
    real_s = sum(said.length_s for said, _ in three(name)) / 3
    assert length_s == pytest.approx(real_s, rel=0.03)


def test_one_odd_recording_changes_little():
    notes = [one for _, one in three("bell-ringers")]
    _, odd = recording("bell-ringers", 9, {"ways": 2.2, "holds": 1.8})
    with_odd = {one.what: one.ratio for one in learnt_shares([*notes, odd])}
    known = [one for one in learnt_shares(notes) if one.recordings > 1]  # of what more than one has told
    assert {one.what for one in known} >= {"ways", "breath", "voice"}
    for one in known:
        assert with_odd[one.what] == pytest.approx(one.ratio, rel=0.06), one.what


def test_what_is_learnt_is_told_by_kinds_with_how_often():
    found = {one.what: one for one in learnt_shares([one for _, one in three("bell-ringers")])}
    kinds = found["ways"].kinds
    assert kinds
    assert all(one.count >= 3 and one.which for one in kinds)
    assert all(one.hers_s > one.usual_s for one in kinds if one.count >= 6)


def turning(timed, longer):
    """A recording's captions of somebody who takes longer over one kind of way, and is as planned else."""
    moved, starts = 0.0, {}
    for one in timed.segments:
        starts[one.id] = one.start / 10 + moved
        if one.use.setup_for and not one.amount and way_kind(one.use.start, one.use.end) == KIND:
            moved += longer * one.length / 10
    rows = [
        (starts[cue.segment] - by_id(timed)[cue.segment].start / 10 + cue.start / 10, cue)
        for cue in timed.cues
    ]
    said = [
        f"[{int(at_s // 60):02d}:{at_s % 60:05.2f}] {cue.text}"
        for at_s, cue in sorted(rows, key=lambda row: row[0])
    ]
    return "\n".join(said).encode()


KIND = "seated to seated"


def by_id(timed):
    return {one.id: one for one in timed.segments}


def test_one_kind_of_way_is_learnt_taken_and_then_not_seen_again():
    solved = demo_maker("bell-ringers")
    timed = solved.make()
    notes = observe(look_back(timed, None, read_captions(turning(timed, 0.5))))
    whole = next(one for one in learnt_shares([notes]) if one.what == "ways")
    kind = next(one for one in whole.kinds if one.which == KIND)
    assert kind.ratio == pytest.approx(1.5, rel=0.1)
    anew = solve(adopt(solved.plan, [kind]), shipped()).make()
    assert anew.plan.brief.own == {f"ways {KIND}": kind.ratio}

    def lengths(of):
        return [
            one.length for one in of.segments
            if one.use.setup_for and not one.amount and way_kind(one.use.start, one.use.end) == KIND
        ]  # fmt: skip

    assert sum(lengths(anew)) > 1.2 * sum(lengths(timed))
    again = observe(look_back(anew, None, read_captions(turning(anew, 0.0))))
    seen = next(one for one in learnt_shares([again]) if one.what == "ways")
    there = next(one for one in seen.kinds if one.which == KIND)
    assert there.ratio == pytest.approx(kind.ratio, rel=0.1)  # against the usual still, not against the plan


def test_nothing_is_learnt_of_another_style_or_of_a_stranger():
    notes = [one for _, one in three("bell-ringers")]
    assert learnt_shares(notes, "slow") == []
    said, _ = recording("bell-ringers", 1, {})
    other = look_back(demo_maker("lamps-out").make(), None, read_captions(captions(said)))
    assert observe(other).observed == ()


def test_as_usual_is_no_difference():
    _, notes = recording("bell-ringers", 1, {})
    assert all(one.slight for one in learnt_shares([notes]))
    assert learnt_shares([]) == []


@cache
def phrases():
    return read_toml(DATA / "heard_in_other_words.toml")


@pytest.mark.parametrize(
    ("name", "share"),
    some_of([("sail-loft-mat", 1.2), ("every-morning-at-the-mill", 0.85), ("round-the-compass", 1.0)], 3),
)
def test_a_class_in_other_words_teaches_her_seconds_too(name, share):
    """Its pieces are known as wholes: what they tell little of stays near the usual."""
    timed, notes = demo_maker(name).make(), []
    own = dict.fromkeys(("ways", "teaching", "holds", "repetitions"), share)
    for seed in range(3):
        said = taught(timed, Random(seed), own=own)
        back = look_back(timed, None, read_captions(freely(timed, said, phrases(), Random(seed))))
        assert back.own_words
        notes.append(observe(back))
    found = {one.what: one for one in learnt_shares(notes)}
    assert "voice" not in found
    assert found.keys() & {"breath", "count"}
    low, high = sorted((share, 1.0))
    assert min(abs(found[what].ratio - share) for what in ("breath", "count") if what in found) <= 0.12
    for what, one in found.items():
        assert low - 0.12 <= one.ratio <= high + 0.12, what
        if what == "ways":  # a few seconds in each piece: half of the difference at least
            assert abs(one.ratio - share) <= 0.5 * abs(share - 1) + 0.12
