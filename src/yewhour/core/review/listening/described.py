"""Movements that are described and not named, by limb and direction; and what is said on which base."""

import re
from collections.abc import Sequence

import msgspec

from yewhour.core.transcript.transcript import SpeechStretch, plain_words

_SIDE = r"(?:right|left|other|opposite|top|bottom|first|second|one|front|back)"
_ANY = r"(?:[a-z']+ ){0,8}?"
_ENDING = re.compile(r"\b((?:for|back|up|down|in|out)ward)s\b")
GOES_ON_S = 2.5  # of silence that a description goes over, into the next sentence


class WordsOfBase(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Words after which the body is on one of some bases, and how surely."""

    on: tuple[str, ...]
    tells: float
    say: tuple[str, ...]


class WordsOfMovement(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Words that describe a movement on some bases; () for any."""

    movement: str
    on: tuple[str, ...]
    say: tuple[str, ...]


class Descriptions(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """data/described.toml. props: a prop -> the words one of which is said where it is used. people: who may
    be in the room -> what is said to them all through. audience: whom a class is said to be for."""

    props: dict[str, tuple[str, ...]]
    alike: tuple[str, ...]
    bases: tuple[WordsOfBase, ...]
    turned: tuple[str, ...]
    places: frozenset[str]
    described: tuple[WordsOfMovement, ...]
    people: dict[str, tuple[str, ...]]
    audience: dict[str, tuple[str, ...]]


class DescribedMovement(msgspec.Struct, frozen=True):
    """A movement that a sentence describes, by its number. on: the bases that are meant; () for any."""

    movement: str
    sentence: int
    on: tuple[str, ...]


class DescriptionIndex:
    """Descriptions ready to be found in sentences."""

    def __init__(self, words: Descriptions) -> None:
        self.alike = {word: row.split()[0] for row in words.alike for word in row.split()}
        self.props = words.props
        self.bases, self.turned, self.places = words.bases, words.turned, words.places
        self.people = {tag: [patterns([one]) for one in say] for tag, say in words.people.items()}
        named = "|".join(word for say in words.audience.values() for word in say)
        self.audience = re.compile(
            rf"\bfor (?:(?:all|any|my|our|you|the|of you|those|fellow|tired|busy|new) ){{0,3}}({named})\b"
        )
        self._described = [(one.movement, one.on, patterns(one.say)) for one in words.described]

    def described(self, said: Sequence[SpeechStretch]) -> list[DescribedMovement]:
        """The movements that each sentence describes, or begins to."""
        plain = [in_plain(talk.text) + " " for talk in said]
        found = []
        for number, talk in enumerate(said):
            text = plain[number]
            if number + 1 < len(said) and said[number + 1].start_s - talk.end_s < GOES_ON_S:
                text += plain[number + 1]
            found += [
                DescribedMovement(movement, number, on) for movement, on, words in self._described
                if (match := words.search(text)) is not None and match.start() < len(plain[number])
            ]  # fmt: skip
        return found


def in_plain(text: str) -> str:
    """A sentence in plain words, as patterns are written: `left foot forward`, whoever says `forwards`."""
    return _ENDING.sub(r"\1", " ".join(plain_words(text)))


def patterns(say: Sequence[str]) -> re.Pattern[str]:
    """One pattern of several, with what `~` and `<s>` stand for."""
    whole = "|".join(f"(?:{one})" for one in say).replace("<s>", _SIDE).replace("~", _ANY)
    return re.compile(rf"(?<![a-z'])(?:{whole})\b")
