"""What every test may ask for: the data that ships, small plans, and a window that shows nothing."""

import os
import tempfile
from collections.abc import Iterable
from functools import cache
from pathlib import Path

import hypothesis
import pytest

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
os.environ["XDG_DATA_HOME"] = tempfile.mkdtemp(prefix="yewhour-tests-")  # no test touches a teacher's own
os.environ["XDG_CACHE_HOME"] = os.environ["XDG_STATE_HOME"] = os.environ["XDG_DATA_HOME"]

from yewhour.content.paths import DEMO, FIRST_DEMO
from yewhour.core.pipeline import SolvedPlan, solve
from yewhour.core.plan.nodes import Node
from yewhour.core.plan.plan import (
    Brief,
    Plan,
    Section,
    with_ids,
)
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.state.classes.class_file import read_plan
from yewhour.state.teaching_data import load_teaching_data

# The same examples each time, so that a run says something of the change and not of luck, and without a
# deadline, for other programs run on the machine too. `./yew bench --long` tries many more, and new ones.
MORE = int(os.environ.get("YEW_EXAMPLES", "1"))
hypothesis.settings.register_profile(
    "house", deadline=None, derandomize=MORE == 1, max_examples=40 * MORE,
    suppress_health_check=[hypothesis.HealthCheck.too_slow],
)  # fmt: skip
hypothesis.settings.load_profile("house")
ROOT = Path(__file__).resolve().parent.parent


def examples(count: int) -> hypothesis.settings:
    """So many examples of a property in every run, where the 40 of the house are too many or too few."""
    return hypothesis.settings(max_examples=count * MORE)


def some_of(values: Iterable[object], every: int) -> list[object]:
    """Values for a test: one of so many in every run, all of them in `./yew bench --long`."""
    told = [value if isinstance(value, tuple) else (value,) for value in values]
    return [
        pytest.param(*value, marks=pytest.mark.long if number % every else ())
        for number, value in enumerate(told)
    ]


@cache
def shipped() -> TeachingData:
    words, problems = load_teaching_data(Path("/nonexistent"))
    assert problems == []
    return words


@cache
def demo_maker(name: str) -> SolvedPlan:
    return solve(read_plan(DEMO / f"{name}.yewhour"), shipped())


@pytest.fixture(scope="session")
def words() -> TeachingData:
    """The library, schools, wording and voice that ship."""
    return shipped()


@pytest.fixture(scope="session")
def ringers() -> SolvedPlan:
    """The first demo class, solved."""
    return demo_maker(FIRST_DEMO.stem)


def plan_of(*nodes: Node, **brief: object) -> Plan:
    """A plan of one section with these nodes."""
    return with_ids(Plan(brief=Brief(**brief), sections=(Section(title="All", body=nodes),)))  # type: ignore[arg-type]


def made_of(*nodes: Node, length_s: float | None = None, **brief: object) -> TimedClass:
    """A class of these nodes, at a length or as preferred."""
    solved = solve(plan_of(*nodes, **brief), shipped())
    return solved.make(solved.preferred_s if length_s is None else length_s)


def said(timed: TimedClass, purpose: str) -> list[str]:
    """The lines said with one purpose, in order."""
    return [cue.text for cue in timed.cues if cue.purpose == purpose]
