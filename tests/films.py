"""A small class, and a camera's file of it, for whatever makes films."""

from functools import cache
from pathlib import Path
from random import Random

from tests.conftest import made_of, plan_of, shipped
from tools import camera
from tools.teachers import Spoken, Taught, captions, taught
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import Pair, Step
from yewhour.core.timed_class import TimedClass
from yewhour.state.classes.class_file import write_plan

BEFORE_S, LONGER_S, AFTER_S = 12.0, 20.0, 9.0
SOUND_S = 60.0
PLAN = plan_of(
    Step(movement="welcome-short"), Step(movement="child", amount=4),
    Pair(body=(Step(movement="low-lunge", amount=3),)),
    Step(movement="final-rest", amount=90, least=30, most=200), title="Ebb", target_s=240.0,
)  # fmt: skip


@cache
def lunges(title: str = "Ebb", audience: str = "") -> TimedClass:
    """A short class with a side: a welcome, a rest, and a lunge on both."""
    return made_of(
        Step(movement="welcome-short"), Step(movement="child", amount=4),
        Pair(body=(Step(movement="low-lunge", amount=4),)), title=title, audience=audience,
    )  # fmt: skip


def film_class(folder: Path, sound: bool = False) -> Path:
    """A class, its captions, and a camera that ran before it and after, over a rest that took longer."""
    write_plan(PLAN, folder / "ebb.yewhour")
    timed = solve(PLAN, shipped()).make()
    rest = next(one.id for one in timed.segments if one.use.movement.id == "final-rest")
    said = taught(timed, Random(4), {rest: LONGER_S})
    moved = [Spoken(one.line, one.start_s + BEFORE_S, one.end_s + BEFORE_S, one.text) for one in said.said]
    long_s = BEFORE_S + said.length_s + AFTER_S
    (folder / "ebb.vtt").write_bytes(captions(Taught(tuple(moved), said.segments, long_s)))
    heard = camera.tones(SOUND_S) if sound else None  # of its beginning only: making it takes long
    camera.film(folder / "camera.mp4", long_s, fps=2, sound=sound, speech=heard)
    return folder
