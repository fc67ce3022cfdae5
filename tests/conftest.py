"""What every test may ask for: the data that ships, small plans, and a window that shows nothing."""

import os
import tempfile
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
# deadline, for other programs run on the machine too. New examples: `--hypothesis-profile=search`.
hypothesis.settings.register_profile("house", deadline=None, derandomize=True)
hypothesis.settings.register_profile("search", deadline=None)
hypothesis.settings.load_profile("house")
ROOT = Path(__file__).resolve().parent.parent


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
