"""The film of a class from the command line: listed, made, and refused in words."""

import json
from random import Random

import av
import pytest

from tests.cli.test_commands import DEMO, run
from tests.conftest import plan_of, shipped
from tools import camera
from tools.teachers import Spoken, Taught, captions, taught
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import Pair, Step
from yewhour.state.classes.class_file import write_plan

BEFORE_S, LONGER_S, AFTER_S = 12.0, 20.0, 9.0
PLAN = plan_of(
    Step(movement="welcome-short"), Step(movement="child", amount=4),
    Pair(body=(Step(movement="low-lunge", amount=3),)),
    Step(movement="final-rest", amount=90, least=30, most=200), title="Ebb", target_s=240.0,
)  # fmt: skip


@pytest.fixture(scope="module")
def filmed(tmp_path_factory):
    """A class, its captions, and a camera that ran before it and after, over a rest that took longer."""
    folder = tmp_path_factory.mktemp("filmed")
    write_plan(PLAN, folder / "ebb.yewhour")
    timed = solve(PLAN, shipped()).make()
    rest = next(one.id for one in timed.segments if one.use.movement.id == "final-rest")
    said = taught(timed, Random(4), {rest: LONGER_S})
    moved = [Spoken(one.line, one.start_s + BEFORE_S, one.end_s + BEFORE_S, one.text) for one in said.said]
    long_s = BEFORE_S + said.length_s + AFTER_S
    (folder / "ebb.vtt").write_bytes(captions(Taught(tuple(moved), said.segments, long_s)))
    camera.film(folder / "camera.mp4", long_s, fps=2, sound=False)
    return folder


def film(capsysbinary, folder, *more):
    arguments = ("--class", str(folder / "ebb.yewhour"), "--captions", str(folder / "ebb.vtt"), *more)
    return run(capsysbinary, "film", str(folder / "camera.mp4"), *arguments)


def test_what_would_be_cut_is_told_with_its_reason(capsysbinary, filmed):
    code, out, _ = film(capsysbinary, filmed, "--list", "--format", "json")
    assert code == 0
    found = json.loads(out)
    assert found["film_s"] == pytest.approx(240.0, abs=0.6)
    before, *still, after = found["cuts"]
    assert (before["why"], {one["why"] for one in still}, after["why"]) == ("before", {"still"}, "after")
    assert found["cuts"][0]["end_s"] == pytest.approx(BEFORE_S, abs=2.0)
    code, out, _ = film(capsysbinary, filmed, "--list")
    assert "cut: longer still than planned" in out


def test_the_film_has_the_promised_length_and_its_captions_beside_it(capsysbinary, filmed):
    out = filmed / "class.mp4"
    code, _, err = film(capsysbinary, filmed, "--out", str(out))
    assert code == 0, err
    with av.open(str(out)) as file:
        assert float(file.duration / av.time_base) == pytest.approx(240.0, abs=0.8)
    said = out.with_suffix(".vtt").read_text()
    assert said.startswith("WEBVTT")
    first = next(row for row in said.splitlines() if "-->" in row)
    assert first.startswith("00:00:01.") or first.startswith("00:00:00.")
    code, _, err = film(capsysbinary, filmed, "--out", str(out))
    assert code == 2
    assert "This is there already" in err


def test_what_can_not_be_made_is_told(capsysbinary, filmed, tmp_path):
    code, _, err = film(capsysbinary, filmed)
    assert (code, "Where the film goes is not said" in err) == (2, True)
    code, _, err = run(capsysbinary, "film", str(filmed / "ebb.vtt"), "--class", DEMO, "--list")
    assert code == 2
    assert "no picture in this file" in err
    code, _, err = run(
        capsysbinary, "film", str(filmed / "camera.mp4"), "--class", DEMO, "--captions",
        str(filmed / "ebb.vtt"), "--list",
    )  # fmt: skip
    assert code == 2
    assert "of another class" in err
