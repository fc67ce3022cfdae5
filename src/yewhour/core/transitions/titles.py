"""A title as it is spoken."""

from collections.abc import Mapping, Sequence

from yewhour.core.plan.plan import Brief

_TIMES = ("in the morning", "at midday", "in the evening", "before sleep")  # as a drafted title ends
_LOWERED = ("A", "An", "The")  # as a drafted title begins: "A hatha class"
_NAMES = frozenset(("Pilates",))  # what has a capital wherever it stands


def in_a_sentence(brief: Brief, area_words: Mapping[str, str]) -> str:
    """A title as it stands within a sentence: `a hatha class`, and `a class around the hips and shoulders`
    where it only names what the class is about. One with a name's capitals keeps them.
    """
    title, of, whom = brief.title.partition(" for ")
    first, _, rest = title.partition(" ")
    if any(word != word.lower() for word in rest.split() if word not in _NAMES):
        return brief.title
    names = {area: area_words.get(area, f"the {area}") for area in brief.focus}
    names |= {said.lower(): f"the {said.lower()}" for area in brief.focus if (said := brief.said.get(area))}
    bare = title.lower()
    for when in _TIMES:
        bare = bare.removesuffix(f" {when}")
    known = {word for pair in names.items() for name in pair for word in name.split()} | {"and"}
    if names and {*bare.replace(",", " ").split()} <= known:
        first_name = next((one for name, one in names.items() if bare.startswith(name)), "the")
        article = first_name.partition(" ")[0]
        return f"a class around {article} {title.lower()}{of}{whom}"
    return f"{first.lower()} {rest}{of}{whom}" if first in _LOWERED else brief.title


def for_whom(title: str, named: Sequence[str]) -> tuple[str, str]:
    """A title, and whom it says to be for: the first of those named that it names, or ""."""
    for whom in named:
        before, of, after = title.partition(f" for {whom}")
        if of and after[:1] in ("", " "):
            return before + after, whom
    return title, ""
