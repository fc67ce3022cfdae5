"""A class says a thing in one of several ways, and plainer the second time."""

from tests.conftest import made_of, said, shipped
from yewhour.core.plan.nodes import Pair, Step


def _placed(telling: int, **brief: object) -> tuple[str, ...]:
    timed = made_of(Step(movement="chair-cat-cow"), Step(movement="final-rest"), telling=telling, **brief)
    return tuple(said(timed, "place"))


def test_a_placing_is_another_one_in_another_telling_and_the_first_where_none_was_asked_for():
    card = shipped().library["final-rest"].card
    assert card is not None
    ways = {_placed(telling)[-2:] for telling in range(1, 60)}
    assert ways == {card.place, *card.placings}
    assert _placed(0)[-2:] == card.place == _placed(0, title="Another title")[-2:]


def test_a_placing_speaks_of_nothing_that_is_not_there():
    without = [" ".join(_placed(telling, without=("blankets",))) for telling in range(1, 25)]
    assert len(set(without)) > 1
    assert not any("blanket" in text for text in without)


def test_a_way_is_told_otherwise_in_another_telling():
    steps = Step(movement="seated-fold"), Step(movement="bridge")
    ways = {text for telling in range(9) for text in said(made_of(*steps, telling=telling), "way")}
    onto_the_back = {text for text in ways if "onto your back" in text}
    assert len(onto_the_back) > 1


def test_leaving_is_plainer_where_it_has_been_said():
    twice = made_of(Pair(body=(Step(movement="wrist-stretch"),)), Step(movement="mountain"))
    assert said(twice, "leave") == [
        "Let go, and shake that hand as if it were wet.",
        "Let go, and shake it out.",
    ]
