"""What recordings teach: a teacher's own seconds, robust to one that was odd; a plan with them is as long."""

from functools import cache
from random import Random

import msgspec
import pytest

from tests.conftest import demo_maker, shipped
from tools.teachers import captions, taught
from yewhour.core.back.captions import read_captions
from yewhour.core.back.compare import look_back
from yewhour.core.back.learn import adopted, learnt, observed
from yewhour.core.pipeline import solve

OWN = {"ways": 1.3, "teaching": 1.2, "holds": 1.1, "repetitions": 1.15, "speech": 1.1}
WANTED = {"ways": 1.3, "teaching": 1.2, "breath": 1.1, "count": 1.15, "voice": 1.1}


def recording(name, seed, own):
    made = demo_maker(name).make()
    said = taught(made, Random(seed), skipped=0.06, remarks=0.05, misheard=0.04, own=own)
    return said, observed(look_back(made, None, read_captions(captions(said))))


@cache
def three(name):
    return [recording(name, seed, OWN) for seed in range(3)]


@pytest.mark.parametrize("name", ["bell-ringers", "sail-loft-mat", "lamps-out"])
def test_after_three_recordings_her_seconds_are_known_and_a_plan_is_as_long(name):
    notes = [one for _, one in three(name)]
    found = learnt(notes)
    for one in found:
        assert one.ratio == pytest.approx(WANTED[one.what], rel=0.1), one
        assert one.recordings == 3
        assert one.low - 0.05 <= one.ratio <= one.high + 0.05
    solved = demo_maker(name)
    anew = solve(adopted(solved.plan, solved.setting.school, found), shipped())
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
    plain, with_odd = ({one.what: one.ratio for one in learnt(some)} for some in (notes, [*notes, odd]))
    for what, ratio in plain.items():
        assert with_odd[what] == pytest.approx(ratio, rel=0.06)


def test_what_is_learnt_is_told_by_kinds_with_how_often():
    found = {one.what: one for one in learnt([one for _, one in three("bell-ringers")])}
    kinds = found["ways"].kinds
    assert kinds
    assert all(hers > planned for _, planned, hers, count in kinds if count >= 6)


def test_nothing_is_learnt_of_another_style_or_of_a_stranger():
    notes = [one for _, one in three("bell-ringers")]
    assert learnt(notes, "slow") == []
    said, _ = recording("bell-ringers", 1, {})
    other = look_back(demo_maker("lamps-out").make(), None, read_captions(captions(said)))
    assert observed(other).observed == ()


def test_as_usual_is_no_difference():
    _, notes = recording("bell-ringers", 1, {})
    assert all(one.slight for one in learnt([notes]))
    assert learnt([]) == []
