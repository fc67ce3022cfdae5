"""What comes back is not told in the same words each time."""

from tests.conftest import made_of, shipped
from yewhour.core.plan.nodes import Step


def placed(amount, *between):
    """The lines of child's pose that place it, each time it comes, with something else between."""
    card = shipped().library["child"].card
    steps = [Step(movement="child", amount=3)]
    for one in between:
        steps += [Step(movement=one), Step(movement="child", amount=3)]
    told = {card.again, *card.returns}
    return [cue.text for cue in made_of(*steps, length_s=amount).cues if cue.text in told]


def test_each_return_has_words_of_its_own_as_long_as_there_are_any():
    said = placed(900, "cobra", "locust", "camel", "puppy")
    assert len(said) == 4
    assert len({*said}) == 4


def test_the_first_return_is_told_as_a_second_side_is():
    assert placed(240, "cobra") == [shipped().library["child"].card.again]
