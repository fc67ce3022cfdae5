"""Which class of the shelf a recording is of: the one whose movements come in the order that was heard."""

from collections.abc import Mapping, Sequence

LIKE, AHEAD = 0.4, 0.12  # of all movements that both have in one order; and that much nearer than any other
FEWEST = 4  # movements that were heard


def likeliest(heard: Sequence[str], classes: Mapping[str, Sequence[str]], but: str) -> str:
    """The title of the class that a recording is of; "" where none is clearly nearest.

    heard: ids of movements, in order. classes: title -> the same of a class. but: the title of the class that
    it was held against.
    """
    order = list(dict.fromkeys(heard))
    if len(order) < FEWEST:
        return ""
    ranked = sorted(((alike(order, one), title) for title, one in classes.items()), reverse=True)
    (nearest, title), (next_to_it, _) = (*ranked, (0.0, ""), (0.0, ""))[:2]
    clear = nearest >= LIKE and nearest - next_to_it >= AHEAD
    return title if clear and title != but else ""


def alike(one: Sequence[str], other: Sequence[str]) -> float:
    """The share of two rows of movements that stands in both in one order, 0 to 1."""
    if not one or not other:
        return 0.0
    row = [0] * (len(other) + 1)
    for name in one:
        before = row
        row = [0]
        for place, there in enumerate(other):
            row.append(before[place] + 1 if there == name else max(before[place + 1], row[-1]))
    return 2 * row[-1] / (len(one) + len(other))
