"""The class that a command asks for."""

import argparse
import sys
from pathlib import Path

from yewhour.core.edits.cuts import with_given_pace
from yewhour.core.made import Made
from yewhour.core.pipeline import Solved, solve
from yewhour.core.plan.known import unknown_fields
from yewhour.core.problem import CannotFit, Problem
from yewhour.core.words import Words
from yewhour.store.anyclass import read_class
from yewhour.store.words import load_words
from yewhour.terminal import say


def words_of() -> Words:
    words, problems = load_words()
    for problem in problems:
        say(f"yewhour: {problem}", file=sys.stderr)
    return words


def solved_of(path: Path, keep: bool = False) -> Solved:
    words = words_of()
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


def made_of(options: argparse.Namespace) -> Made:
    """The class at the length asked for, its pace given where the brief lets it."""
    solved = solved_of(options.class_file)
    length_s = options.length if options.length is not None else solved.promised_s
    return with_given_pace(solved, length_s).make(length_s)
