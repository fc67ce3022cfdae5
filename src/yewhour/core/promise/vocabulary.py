"""The words of a promise as data, and the lexicon of all phrases it may be read by."""

import re
from collections.abc import Callable, Container, Iterable, Iterator, Mapping
from functools import lru_cache
from typing import Literal

import msgspec

from yewhour.core.library.names import spellings
from yewhour.core.plan.vocabulary import LEVELS
from yewhour.core.teaching_data import TeachingData

Kind = Literal[
    "condition", "part", "group", "movement", "prop", "style", "area", "time", "level", "length", "everyday",
    "unmet", "ways", "health", "begins",
]  # fmt: skip
Phrase = tuple[str, ...]
LONGEST = 6  # words of a phrase
_TOKEN = re.compile(r"\d+(?:\.\d+)?|[^\W\d_]+(?:['\u2019][^\W\d_]+)*")


class EverydayWord(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """An everyday word as data/promise.toml declares it: what it changes where nothing else is said. called:
    what a class is called that nothing else names. rests: the share of a class that it rests at least.
    gives_way: it says where one is only where nothing else does. beside: what it means where she named
    another style. milder: areas that its level is not meant for, as in strong feet. thread: of [threads],
    what is said in the welcome, in the middle and at the end."""

    words: tuple[str, ...]
    meaning: str
    style: str = ""
    level: str = ""
    time: str = ""
    focus: tuple[str, ...] = ()
    props: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    without: tuple[str, ...] = ()
    wanted: tuple[str, ...] = ()
    minutes: int = 0
    called: str = ""
    rests: float = 0.0
    whom: bool = False
    bare: bool = False
    gives_way: bool = False
    beside: str = ""
    milder: tuple[str, ...] = ()
    thread: str = ""


class HealthSigns(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """What a word of health ends in, and words that go with one, where nobody has told it here."""

    endings: tuple[str, ...]
    words: tuple[str, ...]


class PromiseVocabulary(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """data/promise.toml: words -> what they mean. health: words no rule is for -> the nearest conditions.
    plainer: what is read as something plainer, a regular expression and what stands for it.
    style_for: the style of a class about an area, where none was said; style_of_family: about
    movements of some families. nothing_for: areas that a style has
    nothing for. nearest: what may be minded where an area hurts. reasons: why a class is taught, by an
    everyday word, an area, a condition, a level, a time of day or a style. had: what people have that asks
    nothing of it."""

    fillers: tuple[str, ...]
    whole: tuple[str, ...]
    hurts: tuple[str, ...]
    had: frozenset[str]
    plainer: tuple[tuple[str, str], ...]
    contexts: dict[str, tuple[str, ...]]
    styles: dict[str, str]
    style_for: dict[str, str]
    style_of_family: dict[str, str]
    nothing_for: dict[str, tuple[str, ...]]
    nearest: dict[str, tuple[str, ...]]
    levels: dict[str, str]
    areas: dict[str, str]
    times: dict[str, str]
    lengths: dict[str, int]
    begins: dict[str, str]
    unmet: dict[str, str]
    ways: dict[str, str]
    health: dict[str, tuple[str, ...]]
    signs: HealthSigns
    everyday: dict[str, EverydayWord]
    threads: dict[str, tuple[tuple[str, str, str], ...]]
    reasons: dict[str, tuple[str, ...]]

    @property
    def threads_shipped(self) -> frozenset[tuple[str, ...]]:
        """Every thread as it is said here: one that is none of these is hers."""
        return frozenset(way for ways in self.threads.values() for way in ways)

    @property
    def reasons_shipped(self) -> frozenset[str]:
        """Every reason as it is said here: one that is none of these is hers."""
        return frozenset(line for lines in self.reasons.values() for line in lines)


class Token(msgspec.Struct, frozen=True):
    """A word of a promise: its plain form, where it stands in the text, and whether it means several."""

    plain: str
    start: int
    end: int
    several: bool = False


def tokens_of(text: str) -> list[Token]:
    """The words of a text, without hyphens and stops."""
    return [
        Token(plain := _plain(found[0]), found.start(), found.end(), found[0].lower() == f"{plain}s")
        for found in _TOKEN.finditer(text)
    ]


def phrase_of(text: str) -> Phrase:
    """A phrase in the form that all its spellings share."""
    return tuple(map(_plain, _TOKEN.findall(text)))


def _other_articles(phrase: Phrase) -> Iterator[Phrase]:
    """`on the back` as it may be said too: on my back, on your back, on back."""
    if "the" in phrase[1:]:
        at = phrase.index("the", 1)
        for other in (("my",), ("your",), ("their",), ()):
            yield (*phrase[:at], *other, *phrase[at + 1 :])


@lru_cache(maxsize=20_000)
def _plain(word: str) -> str:
    word = word.lower().replace("'", "").replace("\u2019", "")
    return (
        word[:-1] if len(word) > 3 and word.endswith("s") and not word.endswith(("ss", "us", "is")) else word
    )


def of_one_stem(one: str, two: str) -> bool:
    """Whether one word is another's, with another ending: `gently`, and `gentle`."""
    least = max(4, min(len(one), len(two)) - 1)
    return one[:least] == two[:least]


class Lexicon:
    """Every phrase there is, with what it may mean, by kind. common: the words of every day, of five letters
    and more, in their plain form: one of them is no slip of the pen for another."""

    def __init__(
        self,
        words: PromiseVocabulary,
        teaching_data: TeachingData,
        areas: Mapping[str, str],
        common: Callable[[], Container[str]] = frozenset,
    ) -> None:
        self.words, self._common = words, common
        self.phrases: dict[Phrase, dict[Kind, str]] = {}
        conditions, groups = teaching_data.conditions.conditions, teaching_data.conditions.groups
        for tag, condition in conditions.items():
            parts = {phrase_of(one) for one in condition.parts}
            names = [one for one in (condition.name, tag) if phrase_of(one) not in parts]
            self._add("condition", tag, (*condition.words, *names))
            self._add("part", tag, condition.parts)
        for tag, group in groups.items():
            self._add("group", tag, group.words)
        for movement in teaching_data.library.values():
            if movement.start and not movement.behaviour.framing:
                more = (movement.traditional,) if movement.traditional else ()
                names = [*spellings(movement), *more]
                bare = [re.sub(r"\bpose\b", "", one) for one in names]
                self._add("movement", movement.id, (*names, *bare, *(f"{one} pose" for one in bare)))
        for prop in teaching_data.props:
            self._add("prop", prop, (prop,))
        for school in teaching_data.schools.values():
            self._add("style", school.id, (school.id, school.name))
        self._add_all("style", words.styles)
        self._add_all(
            "area", {name: tag for tag, name in areas.items()} | {tag: tag for tag in areas} | words.areas
        )
        self._add_all("level", {one: one for one in LEVELS} | words.levels)
        self._add_all("time", words.times)
        self._add_all("length", {word: str(minutes) for word, minutes in words.lengths.items()})
        self._add_all("begins", words.begins)
        self._add_all("unmet", {word: word for word in words.unmet})
        self._add_all("ways", words.ways)
        self._add_all("health", {word: word for word in words.health})
        for key, everyday in words.everyday.items():
            self._add("everyday", key, everyday.words)
        self.contexts = {phrase_of(one): name for name, row in words.contexts.items() for one in row}
        self.hurts = {" ".join(phrase_of(one)) for one in words.hurts}
        self.had = {_plain(one) for one in words.had}
        self.fillers = {_plain(one) for one in words.fillers}
        self.plainer = [(re.compile(one, re.IGNORECASE), plain) for one, plain in words.plainer]
        self.whole = {_plain(one) for one in words.whole}
        self.single = sorted(
            {phrase[0] for phrase in self.phrases if len(phrase) == 1 and len(phrase[0]) > 3}
        )
        self.joined = {
            "".join(phrase): phrase
            for phrase, meant in self.phrases.items()
            if len(phrase) > 1 and "movement" in meant
        }  # "sideplank"
        self.double = sorted({" ".join(phrase) for phrase in self.phrases if len(phrase) == 2})

    def _add_all(self, kind: Kind, words: Mapping[str, str]) -> None:
        for word, key in words.items():
            self._add(kind, key, (word,))

    def _add(self, kind: Kind, key: str, words: Iterable[str]) -> None:
        for word in words:
            phrase = phrase_of(word)
            for one in (phrase, *_other_articles(phrase)):
                if one and len(one) <= LONGEST:
                    self.phrases.setdefault(one, {}).setdefault(kind, key)

    def is_health(self, plain: str) -> bool:
        """Whether a word that is not known here is one of health, by its look."""
        signs = self.words.signs
        ends = any(plain.endswith(_plain(one)) and len(plain) > len(one) + 2 for one in signs.endings)
        return ends or plain in {_plain(one) for one in signs.words}

    def is_common(self, plain: str) -> bool:
        """Whether each of some words is one of every day, spelt as it should be."""
        return all(one in self._common() for one in plain.split())

    def near(self, plain: str, doubled: bool = False, kinds: Container[Kind] = ()) -> Phrase | None:
        """The phrase that a mistyped word, or two, may be meant as: of some kinds, for none of any."""
        # 20 ms; only a word that is not known asks.
        from rapidfuzz import fuzz, process

        if len(plain) < 5:
            return None
        if plain in self.joined:
            return self.joined[plain]
        least = 88 if doubled else 83 if len(plain) > 6 else 79
        known = [one for one in (self.double if doubled else self.single) if one[0] == plain[0]]
        if kinds:
            known = [one for one in known if any(kind in kinds for kind in self.phrases[tuple(one.split())])]
        found = process.extractOne(plain, known, scorer=fuzz.ratio, score_cutoff=least)
        return tuple(found[0].split()) if found else None
