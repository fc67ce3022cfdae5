"""The movements that are named in what somebody says, or entered without a name, in their order."""

import re
from collections import defaultdict
from collections.abc import Collection, Sequence
from typing import NamedTuple

import msgspec
from rapidfuzz import fuzz, process

from yewhour.core.library.movement import Library
from yewhour.core.library.names import NameIndex, plain_name
from yewhour.core.transcript.transcript import HeardWord

MOST_WORDS = 6  # of a name
APART_S = 1.0  # of silence that no name goes over
SHORT = 6  # letters of words that are not taken for one another
ALIKE, LEAST_LETTERS = 88, 10  # of 100, and how long a name has to be to be known when it was heard wrongly


class Mention(NamedTuple):
    """A movement or a block that was named: its id, the word it begins at, how many words, and the second."""

    movement: str
    block: bool
    at: int
    size: int
    start_s: float


class EntryPhrase(msgspec.Struct, frozen=True):
    """Words that bring one into a movement without naming it."""

    movement: str
    say: tuple[str, ...]


class EverydayWords(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """What tells names from words of every day. Declared in data/mentions.toml, which says what each is."""

    fillers: frozenset[str]
    named_of: frozenset[str]
    everyday: frozenset[str]
    phrases: frozenset[str]
    things: frozenset[str]
    strong: frozenset[str]
    strongest: frozenset[str]
    surely: frozenset[str]
    naming: frozenset[str]
    legs: frozenset[str]
    leaving: frozenset[str]
    words_of_talk: frozenset[str]
    kinds_of_class: frozenset[str]
    entered: tuple[EntryPhrase, ...]


class MentionIndex:
    """The names of a library and its blocks, as they may be heard."""

    def __init__(self, library: Library, blocks: Sequence[str], talk: EverydayWords) -> None:
        self._talk = talk
        self.library = library
        self.names: dict[str, tuple[str, bool]] = {
            name: (id_, False) for name, id_ in NameIndex(library).known.items()
        }
        for name in blocks:
            if not name.endswith(("opening", "close")):
                self.names[plain_name(name)] = (name, True)
        self.names[plain_name("cat cow")] = self.names[plain_name("cat and cow")] = ("cat-cow", True)
        # By how many words they are: a name that is heard wrongly has as many.
        self._long: dict[int, list[str]] = defaultdict(list)
        for name in self.names:
            if len(name) >= LEAST_LETTERS and " " in name:
                self._long[name.count(" ")].append(name)
        self._entered = [(one.movement, re.compile("|".join(one.say))) for one in talk.entered]
        self._fuzzy: dict[str, str] = {}
        # Names, and what they end in, that somebody has gone to already, and what they were.
        self._said: dict[str, tuple[str, bool]] = {}

    def mentions(self, words: Sequence[HeardWord], ends: Collection[int] = ()) -> list[Mention]:
        """All that is named, in order; of names within a name the longest.

        ends: the words a sentence ends before, as far as that is known; no name goes over them, or over a
        silence.
        """
        found: list[Mention] = []
        self._said = {}
        texts = [word.text for word in words]
        bounds = {0, len(words), *ends}
        bounds |= {at for at in range(1, len(words)) if words[at].start_s - words[at - 1].end_s > APART_S}
        at = 0
        while at < len(words):
            mention = self._at(texts, at, words[at].start_s, bounds)
            if mention is None:
                at += 1
                continue
            found.append(mention)
            at += mention.size
        return sorted([*found, *self._unnamed(words, found)], key=lambda one: one.at)

    def announced(self, words: Sequence[HeardWord], one: Mention) -> bool:
        """Whether somebody goes there by the word before a name: then, now, next, into."""
        return one.at > 0 and words[one.at - 1].text in self._talk.strong

    def _at(self, texts: Sequence[str], at: int, start_s: float, bounds: set[int]) -> Mention | None:
        if texts[at] in self._talk.fillers or texts[at] in self._talk.named_of:
            return None
        for count in range(min(MOST_WORDS, len(texts) - at), 0, -1):
            last = texts[at + count - 1]
            if any(number in bounds for number in range(at + 1, at + count)):
                continue
            if count > 1 and last in self._talk.fillers - {"that"}:
                continue
            name = plain_name(" ".join(texts[at : at + count]))
            known = self.names.get(name) or self.names.get(self._near(name))
            if known is None:
                continue
            movement, block = known = self._said.get(name, known)
            alone = at in bounds and at + count in bounds
            if (alone or self._meant(texts, at, count, name, bounds)) and self._speaks(movement, block):
                for said in {name, name.rsplit(" ", 1)[-1]} & self._talk.everyday - self._talk.things:
                    self._said.setdefault(said, known)
                return Mention(movement, block, at, count, start_s)
        return None

    def _speaks(self, movement: str, block: bool) -> bool:
        return block or not self.library[movement].behaviour.framing

    def _near(self, name: str) -> str:
        """The long name that one heard wrongly is, or ""."""
        if len(name) < LEAST_LETTERS or " " not in name:
            return ""
        if name not in self._fuzzy:
            match = process.extractOne(
                name, self._long[name.count(" ")], scorer=fuzz.ratio, score_cutoff=ALIKE
            )
            self._fuzzy[name] = match[0] if match and _same_short(match[0], name) else ""
        return self._fuzzy[name]

    def _meant(self, texts: Sequence[str], at: int, count: int, name: str, bounds: set[int]) -> bool:
        """Whether somebody goes there now, and does not leave it, compare it, or say an everyday word."""
        before = [
            word for word in texts[max(0, at - 5) : at] if word not in self._talk.fillers | {"left", "right"}
        ]
        if before and before[-1] in self._talk.leaving:
            return False
        if name in ("table top", "tabletop") and self._talk.legs & set(texts[max(0, at - 6) : at]):
            return False
        if texts[at + count : at + count + 1] and texts[at + count] in self._talk.kinds_of_class:
            return False
        if (
            name in self._talk.phrases
            and at in bounds
            and texts[at + count : at + count + 1] in (["now"], ["next"])
        ):
            return True
        if name in self._talk.phrases:
            named = texts[at] in self._talk.naming and texts[at - 1 : at] == ["the"]
            return (
                named
                or texts[at - 1 : at] in (["a"], ["some"])
                or before[-1:] in [[w] for w in self._talk.strongest]
            )
        if " " in name or name not in self._talk.everyday:
            return True
        if any(
            word in self._talk.named_of
            for word in [*texts[at + count : at + count + 1], texts[at + count - 1]]
        ):
            return True
        if name in ("fold", "sit") or name in self._talk.words_of_talk:
            return False
        # "Into the swan", "cobra", but not "into your chair": what stands in a room is a thing.
        own = at and texts[at - 1] in (
            ("your", "my", "the", "a", "that") if name in self._talk.things else ("your", "my")
        )
        said = (
            name in self._talk.surely
            or name in self._said
            or bool(before and before[-1] in self._talk.strong and not own)
        )
        return said and not (own and name in self._talk.things)

    def _unnamed(self, words: Sequence[HeardWord], found: Sequence[Mention]) -> list[Mention]:
        text, places = "", []
        for number, word in enumerate(words):
            places += [number] * (len(word.text) + 1)
            text += word.text + " "
        entered = []
        for movement, pattern in self._entered:
            if movement not in self.library:
                continue
            for match in pattern.finditer(text):
                at = places[match.start()]
                near = any(abs(one.at - at) < 14 and one.movement == movement for one in found)
                if not near and not any(one.at <= at < one.at + one.size for one in found):
                    count = places[max(match.start(), match.end() - 1)] - at + 1
                    entered.append(Mention(movement, False, at, count, words[at].start_s))
        return entered


def _same_short(one: str, two: str) -> bool:
    """Whether two names have as many words, and the short ones of them are the same."""
    pairs = list(zip(one.split(), two.split(), strict=False))
    alike = all(a == b for a, b in pairs if len(a) < SHORT or len(b) < SHORT)
    return len(one.split()) == len(two.split()) and alike
