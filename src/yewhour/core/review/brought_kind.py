"""What kind of class a recording is of: its style by what was done and how long each thing was, the time of
day and who it is for by what is said at the beginning."""

import re
from collections.abc import Mapping, Sequence

from yewhour.core.library.movement import Library
from yewhour.core.props import PROPS
from yewhour.core.review.brought_items import BroughtItem
from yewhour.core.review.listening.described import DescriptionIndex
from yewhour.core.transcript.transcript import SpeechStretch, plain_words

# Families that make a class one of a style where so much of its time is theirs, the first that does.
STYLES: tuple[tuple[str, float, frozenset[str]], ...] = (
    ("chair-balance", 0.4, frozenset(("chair-practice", "chair-wall"))),
    ("breathing", 0.5, frozenset(("breathing", "breath-practices"))),
    ("restorative", 0.4, frozenset(("restorative",))),
    ("mat-classical", 0.35, frozenset(("classical-mat",))),
    ("mat-modern", 0.4, frozenset(("classical-mat", "modern-mat", "pilates", "side-lying"))),
)
ON_THE_FEET = frozenset(("standing", "lunges", "arms-and-inversions"))
SLOW_S, QUICK_S, FLOWS = 80.0, 34.0, 0.35  # of one thing, at the middle; on the feet, of all things done
BEGINNING_S = 90.0  # what is said until then is about the class
DIFFERENT, OFTEN = 2, 3  # words of those that a class is for: so many different ones, or one so often
_ARTICLE = "(?:a|an|your|some|any|two|three|one|couple of|pair of|rolled|folded)"
_LIKE = ("chair",)  # what one sits as on
_TWO = re.compile(r"\b(?:two|couple of|pair of) (?:blocks|bricks)\b")
TIMES = {
    "morning": re.compile(r"\b(?:good morning|this morning|morning class|before breakfast|sunrise)\b"),
    "evening": re.compile(r"\b(?:good evening|evening|tonight|this evening)\b"),
    "night": re.compile(r"\b(?:bedtime|before bed|in bed|to sleep|pyjamas|pajamas)\b"),
}
LEVELS = {
    "beginners": re.compile(r"\b(?:beginners?|first time|learn it|never done)\b"),
    "gentle": re.compile(r"\b(?:gentle one|gentle class|nice and gentle|easy one)\b"),
}


def headers(
    items: Sequence[BroughtItem], said: Sequence[SpeechStretch], library: Library, known: DescriptionIndex
) -> list[str]:
    """The lines at the head of an outline that tell the kind of class; nothing where nothing was heard."""
    done = [item for item in items if not item.block and not library[item.movement].behaviour.is_rest]
    rows = [f"style: {style_of(done, library)}"] if done else []
    beginning = " ".join(
        word for talk in said if talk.start_s <= BEGINNING_S for word in plain_words(talk.text)
    )
    for key, told in (("level", LEVELS), ("time of day", TIMES)):
        rows += [f"{key}: {value}" for value in _told(told, beginning)]
    if found := known.audience.search(beginning):
        rows.append(f"for: {found[1]}")
    if people := _people(said, known):
        rows.append(f"cautions: {', '.join(people)}")
    if props := _props(items, beginning, library):
        rows.append(f"props: {', '.join(props)}")
    return rows


def _people(said: Sequence[SpeechStretch], known: DescriptionIndex) -> list[str]:
    """Who the class is for, by the words that are used all through it."""
    text = " ".join(word for talk in said for word in plain_words(talk.text))
    found = []
    for tag, patterns in known.people.items():
        times = [len(pattern.findall(text)) for pattern in patterns]
        if sum(count > 0 for count in times) >= DIFFERENT or max(times, default=0) >= OFTEN:
            found.append(tag)
    return found


def _props(items: Sequence[BroughtItem], beginning: str, library: Library) -> list[str]:
    """What lies at hand: what was used, and what people were told to fetch."""
    used = [prop for item in items if not item.block for prop in library[item.movement].props]
    fetched = [
        name
        for name, prop in PROPS.items()
        if prop.heard and name not in _LIKE and _fetched(prop.heard, beginning)
    ]
    two = [("two blocks" if name == "block" and _TWO.search(beginning) else name) for name in fetched]
    return list(dict.fromkeys([*used, *two]))


def style_of(done: Sequence[BroughtItem], library: Library) -> str:
    """The style of what was done, rests left out."""
    lasted = [max(1.0, one.end_s - one.start_s) for one in done]
    movements = [library[one.movement] for one in done]
    families = [
        ""
        if one.family == "restorative" and not one.props
        else one.family  # a long hold that lies on nothing
        for one in movements
    ]

    def share(of: frozenset[str]) -> float:
        return sum(secs for secs, family in zip(lasted, families, strict=True) if family in of) / sum(lasted)

    for style, least, of in STYLES:
        if share(of) >= least:
            return style
    usual_s = sorted(lasted)[len(lasted) // 2]
    if usual_s >= SLOW_S:
        return "slow"
    flows = sum(family in ON_THE_FEET for family in families) / len(families)
    return "flow" if usual_s <= QUICK_S and flows >= FLOWS else "hatha"


def _told(known: Mapping[str, re.Pattern[str]], said: str) -> list[str]:
    return [value for value, words in known.items() if words.search(said)][:1]


def _fetched(heard: str, beginning: str) -> bool:
    """Whether a thing is spoken of as one: "a bolster", and not "sit in chair" or "block the nostril"."""
    return re.search(rf"\b{_ARTICLE} (?:[a-z]+ )?(?:{heard})\b(?! pose)", beginning) is not None
