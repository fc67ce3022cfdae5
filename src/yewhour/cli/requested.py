"""The class that a command asks for."""

import argparse
import sys
from pathlib import Path

from yewhour.cli.terminal import say
from yewhour.core.edits.cuts import with_given_pace
from yewhour.core.pipeline import SolvedPlan, solve
from yewhour.core.plan.vocabulary import unknown_fields
from yewhour.core.problem import CannotFit, Problem
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.state.classes.any_class import read_class
from yewhour.state.teaching_data import load_teaching_data


def teaching_data() -> TeachingData:
    words, problems = load_teaching_data()
    for problem in problems:
        say(f"yewhour: {problem}", file=sys.stderr)
    return words


def solved_class(path: Path, keep: bool = False) -> SolvedPlan:
    words = teaching_data()
    plan = read_class(path, words)
    for problem in unknown_fields(plan):
        say(f"yewhour: {problem}", file=sys.stderr)
    try:
        return solve(plan, words, keep)
    except CannotFit:
        raise
    except Problem as problem:
        problem.where = f"{path}{', ' + problem.where if problem.where else ''}"
        raise


def timed_class(options: argparse.Namespace) -> TimedClass:
    """The class at the length asked for, its pace given where the brief lets it."""
    solved = solved_class(options.class_file)
    length_s = options.length if options.length is not None else solved.promised_s
    return with_given_pace(solved, length_s).make(length_s)
