"""The tables are exact: held against every combination, one by one."""

from itertools import product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from yewhour.core.fit import Fit, Var, Way, option_costs
from yewhour.core.problem import CannotFit


@st.composite
def small_var(draw, key):
    preferred = draw(st.integers(1, 6))
    least = draw(st.integers(1, preferred))
    most = draw(st.integers(preferred, preferred + 3))
    options = tuple(range(least, most + 1))
    weight = draw(st.sampled_from([0.5, 1.0, 3.0]))
    return Var(key, draw(st.integers(1, 40)), options, option_costs(options, preferred, weight))


@st.composite
def small_parts(draw):
    parts = []
    for part in range(draw(st.integers(1, 3))):
        ways = []
        for way in range(draw(st.integers(1, 2))):
            drawn = [draw(small_var(f"{part}.{way}.{n}")) for n in range(draw(st.integers(0, 2)))]
            ways.append(
                Way(((f"g{part}", way),), draw(st.floats(0, 2)), draw(st.integers(0, 30)), tuple(drawn))
            )
        parts.append(tuple(ways))
    return parts


def every_class(parts):
    """Least cost by length, by trying every combination."""
    best: dict[int, float] = {}
    for ways in product(*parts):
        drawn = [var for way in ways for var in way.vars]
        for picks in product(*(range(len(var.options)) for var in drawn)):
            length = sum(way.fixed for way in ways)
            length += sum(v.unit * v.options[p] for v, p in zip(drawn, picks, strict=True))
            cost = sum(way.cost for way in ways)
            cost += sum(v.costs[p] for v, p in zip(drawn, picks, strict=True))
            best[length] = min(cost, best.get(length, np.inf))
    return best


@settings(max_examples=60, deadline=None)
@given(small_parts())
def test_every_length_has_the_least_cost_there_is(parts):
    fit, best = Fit(parts), every_class(parts)
    for length in range(min(best) - 2, max(best) + 3):
        assert fit.cost(length) == pytest.approx(best.get(length, np.inf))
    assert (fit.shortest, fit.longest) == (min(best), max(best))


@settings(max_examples=40, deadline=None)
@given(small_parts(), st.data())
def test_the_numbers_chosen_add_up_to_the_length_and_cost_what_is_said(parts, data):
    fit, best = Fit(parts), every_class(parts)
    length = data.draw(st.sampled_from(sorted(best)))
    choice = fit.at(length)
    ways = [next(way for way in part if dict(way.rounds).items() <= choice.rounds.items()) for part in parts]
    drawn = [var for way in ways for var in way.vars]
    assert sum(way.fixed for way in ways) + sum(v.unit * choice.amounts[v.key] for v in drawn) == length
    cost = sum(way.cost for way in ways)
    cost += sum(v.costs[v.options.index(choice.amounts[v.key])] for v in drawn)
    assert cost == pytest.approx(choice.cost)


def test_the_slack_takes_what_no_whole_breath_can():
    breaths = Var("breaths", 75, (3, 4, 5), option_costs((3, 4, 5), 4, 1.0))
    rest = Var("rest", 1, range(100, 301), tuple(abs(n - 200) / 100 for n in range(100, 301)), slack=True)
    fit = Fit([(Way((), 0.0, 0, (breaths, rest)),)])
    for length in range(fit.shortest, fit.longest + 1):
        choice = fit.at(length)
        assert choice.amounts["breaths"] * 75 + choice.amounts["rest"] == length


def test_a_length_that_cannot_be_is_refused_with_what_can():
    fit = Fit([(Way((), 0.0, 100, (Var("a", 50, (2, 3), (0.0, 1.0)),)),)])
    with pytest.raises(CannotFit) as refused:
        fit.at(1000)
    assert (refused.value.shortest_s, refused.value.longest_s) == (20.0, 25.0)
    with pytest.raises(CannotFit, match=r"0:20\.0 and 0:25\.0"):
        fit.at(220)
    assert fit.nearest(220) == 200


def test_the_same_plan_always_gives_the_same_numbers():
    tied = [Var(key, 10, (1, 2, 3), (1.0, 0.0, 1.0)) for key in "abc"]
    choices = [Fit([(Way((), 0.0, 0, tuple(tied)),)]).at(70).amounts for _ in range(3)]
    assert choices[0] == choices[1] == choices[2]


def test_from_any_part_on_with_so_much_left_the_rest_is_fitted():
    options = (2, 3, 4, 5)
    parts = [
        (Way((), 0.0, 7, (Var(key, unit, options, option_costs(options, 3, 1.0)),)),)
        for key, unit in (("a", 50), ("b", 60), ("c", 75))
    ]
    fit = Fit(parts)
    choice = fit.at(7 + 4 * 60 + 7 + 2 * 75, part=1)
    assert choice.amounts == {"b": 4, "c": 2}
    with pytest.raises(CannotFit):
        fit.at(10, part=1)


@settings(max_examples=30, deadline=None)
@given(small_parts())
def test_one_table_in_eight_gives_the_same_class_as_all_of_them(parts):
    parts = parts * 4
    whole, sparse = Fit(parts), Fit(parts, keep=False)
    middle = whole.nearest((whole.shortest + whole.longest) // 2)
    assert sparse.at(middle) == whole.at(middle)
