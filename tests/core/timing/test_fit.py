"""The tables are exact: held against every combination, one by one."""

from itertools import product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import examples
from yewhour.core.problem import CannotFit
from yewhour.core.timing.fit import Fit
from yewhour.core.timing.numbers import (
    ChosenNumber,
    RoundsChoice,
    SlackTime,
    Stretch,
    option_costs,
)


@st.composite
def small_number(draw, key):
    preferred = draw(st.integers(1, 6))
    options = tuple(range(draw(st.integers(1, preferred)), draw(st.integers(preferred, preferred + 3)) + 1))
    weight = draw(st.sampled_from([0.5, 1.0, 3.0]))
    return ChosenNumber(key, draw(st.integers(1, 40)), options, option_costs(options, preferred, weight))


@st.composite
def small_stretch(draw, key="s", depth=2):
    numbers = []
    for n in range(draw(st.integers(0, 2))):
        name = f"{key}.{n}"
        if depth and draw(st.booleans()):
            options = [
                (rounds, draw(st.floats(0, 2)), draw(small_stretch(f"{name}.{rounds}", depth - 1)))
                for rounds in range(1, draw(st.integers(1, 2)) + 1)
            ]
            numbers.append(RoundsChoice(name, tuple(options)))
        else:
            numbers.append(draw(small_number(name)))
    return Stretch(draw(st.integers(0, 30)), tuple(numbers))


small_parts = st.integers(1, 3).flatmap(
    lambda count: st.tuples(*(small_stretch(f"p{part}") for part in range(count)))
)


def every_way(stretch):
    """(length, cost) of every combination of a stretch, by trying them all."""
    choices = []
    for number in stretch.numbers:
        if isinstance(number, RoundsChoice):
            choices.append(
                [
                    (length, cost + more)
                    for _, cost, inner in number.options
                    for length, more in every_way(inner)
                ]
            )
        else:
            choices.append([(n * number.unit, c) for n, c in zip(number.options, number.costs, strict=True)])
    for picks in product(*choices):
        yield stretch.fixed + sum(length for length, _ in picks), sum(cost for _, cost in picks)


def every_class(parts):
    """Least cost by length, by trying every combination."""
    best: dict[int, float] = {}
    for picks in product(*(_least_by_length(part) for part in parts)):
        length, cost = sum(length for length, _ in picks), sum(cost for _, cost in picks)
        best[length] = min(cost, best.get(length, np.inf))
    return best


def _least_by_length(part):
    best: dict[int, float] = {}
    for length, cost in every_way(part):
        best[length] = min(cost, best.get(length, np.inf))
    return best.items()


def taken(stretch, choice):
    """(length, cost) of a stretch with the numbers of a choice."""
    length, cost = stretch.fixed, 0.0
    for number in stretch.numbers:
        if isinstance(number, RoundsChoice):
            _, own, inner = next(o for o in number.options if o[0] == choice.rounds[number.key])
            more, rest = taken(inner, choice)
            length, cost = length + more, cost + own + rest
        else:
            length += number.unit * choice.amounts[number.key]
            cost += number.costs[number.options.index(choice.amounts[number.key])]
    return length, cost


@examples(30)
@given(small_parts)
def test_every_length_has_the_least_cost_there_is(parts):
    fit, best = Fit(parts), every_class(parts)
    for length in range(min(best) - 2, max(best) + 3):
        assert fit.cost(length) == pytest.approx(best.get(length, np.inf), abs=1e-5)
    assert (fit.shortest, fit.longest) == (min(best), max(best))


@examples(20)
@given(small_parts, st.data())
def test_the_numbers_chosen_add_up_to_the_length_and_cost_what_is_said(parts, data):
    fit, best = Fit(parts), every_class(parts)
    length = data.draw(st.sampled_from(sorted(best)))
    choice = fit.at(length)
    sums = [taken(part, choice) for part in parts]
    assert sum(one for one, _ in sums) == length
    assert sum(cost for _, cost in sums) == pytest.approx(choice.cost)
    assert choice.cost == pytest.approx(best[length], abs=1e-5)


def test_groups_beside_each_other_are_chosen_one_by_one():
    """Seven groups of eight: two million combinations, each group on its own."""

    def options(n):
        return tuple((rounds, 0.1 * (rounds - 4) ** 2, Stretch(rounds * (50 + n))) for rounds in range(1, 9))

    groups = [RoundsChoice(f"g{n}", options(n)) for n in range(7)]
    fit = Fit([Stretch(0, tuple(groups))])
    assert fit.shortest == sum(50 + n for n in range(7))
    assert fit.longest == 8 * fit.shortest
    assert fit.at(4 * fit.shortest).rounds == {f"g{n}": 4 for n in range(7)}


def test_the_slack_takes_what_no_whole_breath_can():
    breaths = ChosenNumber("breaths", 75, (3, 4, 5), option_costs((3, 4, 5), 4, 1.0))
    fit = Fit([Stretch(0, (breaths, SlackTime("rest", 100, 200, 300, 1.0)))])
    for length in range(fit.shortest, fit.longest + 1):
        choice = fit.at(length)
        assert choice.amounts["breaths"] * 75 + choice.amounts["rest"] == length


def test_a_length_that_cannot_be_is_refused_with_what_can():
    fit = Fit([Stretch(100, (ChosenNumber("a", 50, (2, 3), (0.0, 1.0)),))])
    with pytest.raises(CannotFit) as refused:
        fit.at(1000)
    assert (refused.value.shortest_s, refused.value.longest_s) == (20.0, 25.0)
    with pytest.raises(CannotFit, match=r"0:20\.0 and 0:25\.0"):
        fit.at(220)
    assert fit.nearest(220) == 200


def test_the_same_plan_always_gives_the_same_numbers():
    tied = tuple(ChosenNumber(key, 10, (1, 2, 3), (1.0, 0.0, 1.0)) for key in "abc")
    choices = [Fit([Stretch(0, tied)]).at(70).amounts for _ in range(3)]
    assert choices[0] == choices[1] == choices[2]


def test_from_any_part_on_with_so_much_left_the_rest_is_fitted():
    options = (2, 3, 4, 5)
    parts = [
        Stretch(7, (ChosenNumber(key, unit, options, option_costs(options, 3, 1.0)),))
        for key, unit in (("a", 50), ("b", 60), ("c", 75))
    ]
    fit = Fit(parts)
    choice = fit.at(7 + 4 * 60 + 7 + 2 * 75, part=1)
    assert choice.amounts == {"b": 4, "c": 2}
    with pytest.raises(CannotFit):
        fit.at(10, part=1)


@examples(15)
@given(small_parts)
def test_one_table_in_eight_gives_the_same_class_as_all_of_them(parts):
    parts = parts * 4
    whole, sparse = Fit(parts), Fit(parts, keep=False)
    middle = whole.nearest((whole.shortest + whole.longest) // 2)
    assert sparse.at(middle) == whole.at(middle)


def test_rounds_that_are_too_long_however_many_there_are_of_them_are_said_to_be():
    def rounds_of(many):
        return Stretch(0, (ChosenNumber("a", 10_000, tuple(range(8 * many, 20 * many)), (0.0,) * 12 * many),))

    repeat = RoundsChoice("r", ((3, 0.0, rounds_of(3)), (4, 1.0, rounds_of(4))))
    with pytest.raises(CannotFit, match="longer than four hours"):
        Fit([Stretch(0, (repeat,))])
