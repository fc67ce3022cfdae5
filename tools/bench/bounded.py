"""What would take long, against an hour's class: refused or made within so many times as long."""

import contextlib
from random import Random

from tests.core.test_bounded import PLANS
from tools.bench.table import ROOM, line, times
from yewhour.core.edits.compare import nearest_class
from yewhour.core.pipeline import solve
from yewhour.core.plan.nodes import Pair, Rounds, Step
from yewhour.core.plan.plan import Brief, Plan, Section, with_ids
from yewhour.core.problem import Problem
from yewhour.state.teaching_data import load_teaching_data

MOST = 60  # times an hour's class of 240 steps
WORDS, _ = load_teaching_data(ROOM / "nothing")


def _of(*nodes, target_s=3600.0) -> Plan:
    return with_ids(Plan(brief=Brief(target_s=target_s), sections=(Section(title="All", body=nodes),)))


def _made(plan: Plan) -> None:
    with contextlib.suppress(Problem):
        nearest_class(solve(plan, WORDS))


def bench_bounded() -> None:
    """Every plan of the tests that would take long, and some that once did."""
    dice, library = Random(1), sorted(WORDS.library)
    hour = _of(*(Step(movement=dice.choice(library), amount=2) for _ in range(120)))
    usual_s = times(lambda: _made(hour), 3)
    slow = {name: _of(*body, target_s=14400.0) for name, body in PLANS.items()}
    groups = tuple(
        Rounds(body=(Step(movement="cobra", amount=2),), times=4, least=1, most=8) for _ in range(7)
    )
    slow["seven groups of eight"] = _of(Pair(body=(Step(movement="low-lunge"), *groups)))
    lines = [f"Let breath number {n} come and go as it likes. | Breath {n}. | {n}." for n in range(100)]
    slow["a hundred lines in one posture"] = _of(
        Step(movement="child", amount=20, lines={"stay": lines}), target_s=300.0
    )
    worst, name = max((times(lambda plan=plan: _made(plan), 1), name) for name, plan in slow.items())
    ratio = worst / usual_s
    line(f"what would take long, the slowest ({name})", f"{ratio:.1f} x an hour", f"<= {MOST}", ratio <= MOST)
