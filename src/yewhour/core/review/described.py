"""Movements that are described and not named, by limb, direction and base; and the base the body is on."""

import re
from collections.abc import Sequence

import msgspec

from yewhour.core.library.position import START, base_of
from yewhour.core.teaching_data import TeachingData
from yewhour.core.transcript.transcript import SpeechStretch, plain_words

_SIDE = r"(?:right|left|other|opposite|top|bottom|first|second|one|front|back)"
_ANY = r"(?:[a-z']+ ){0,8}?"
_ON_THE_FLOOR = ("supine", "prone", "four-point")  # nobody is on a chair there
_SAT = ("seated", "folded", "split")  # what is meant by words of these, on a chair
GOES_ON_S = 2.5  # of silence that a description goes over, into the next sentence


class WordsOfBase(msgspec.Struct, frozen=True, forbid_unknown_fields=True, rename={"before": "from"}):
    """Words after which the body is on a base. before: the bases they mean that from; () for any."""

    on: str
    say: tuple[str, ...]
    before: tuple[str, ...] = ()


class WordsOfMovement(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Words that describe a movement, on any of some bases ("" for one that is not known yet)."""

    movement: str
    on: tuple[str, ...]
    say: tuple[str, ...]


class Descriptions(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """data/described.toml."""

    alike: tuple[str, ...]
    bases: tuple[WordsOfBase, ...]
    on_a_chair: tuple[str, ...]
    described: tuple[WordsOfMovement, ...]


class DescribedMovement(msgspec.Struct, frozen=True):
    """A movement that a sentence describes, and the second the sentence begins at."""

    movement: str
    at_s: float


class DescriptionIndex:
    """Descriptions ready to be found in sentences."""

    def __init__(self, words: Descriptions, teaching_data: TeachingData) -> None:
        self._ear = teaching_data.ear
        self.alike = {word: row.split()[0] for row in words.alike for word in row.split()}
        self._bases = [(one.on, frozenset(one.before), _patterns(one.say)) for one in words.bases]
        self._chair = _patterns(words.on_a_chair)
        self._described = [(one.movement, frozenset(one.on), _patterns(one.say)) for one in words.described]

    def bases(self, said: Sequence[SpeechStretch]) -> list[str]:
        """The base the body is on from each sentence on; "" where nothing has told yet."""
        found, here, on_a_chair = list[str](), START, False
        for talk in said:
            plain = " ".join(plain_words(talk.text))
            if self._chair.search(plain):
                here, on_a_chair = "chair", True
            ends = [
                (match.end(), number) for number, (_, before, words) in enumerate(self._bases)
                if not before or ("" if here == START else base_of(here)) in before
                for match in words.finditer(plain)
            ]  # fmt: skip
            if ends:
                here = self._bases[max(ends)[1]][0]
                on_a_chair = on_a_chair and here not in _ON_THE_FLOOR
                here = "chair" if on_a_chair and here == "seated" else here
            else:
                heard = self._ear.after(here, talk.text)
                here = here if on_a_chair and base_of(heard) in _SAT else heard
            found.append("" if here == START else base_of(here))
        return found

    def described(self, said: Sequence[SpeechStretch], bases: Sequence[str]) -> list[DescribedMovement]:
        """The movements that each sentence describes, or begins to, on the base it is said on."""
        plain = [" ".join(plain_words(talk.text)) + " " for talk in said]
        found = []
        for number, (talk, base) in enumerate(zip(said, bases, strict=True)):
            text = plain[number]
            if number + 1 < len(said) and said[number + 1].start_s - talk.end_s < GOES_ON_S:
                text += plain[number + 1]
            found += [
                DescribedMovement(movement, talk.start_s) for movement, on, words in self._described
                if (not on or base in on)
                and (match := words.search(text)) is not None and match.start() < len(plain[number])
            ]  # fmt: skip
        return found


def _patterns(say: Sequence[str]) -> re.Pattern[str]:
    """One pattern of several, with what `~` and `<s>` stand for."""
    whole = "|".join(f"(?:{one})" for one in say).replace("<s>", _SIDE).replace("~", _ANY)
    return re.compile(rf"(?<![a-z'])(?:{whole})\b")
