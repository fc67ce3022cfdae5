"""Find: movements for what a teacher typed, ranked by what can follow from where the class stands.

What is typed may be part of a name (English or traditional), an area, a prop, a position, a mark or a
family, followed by a dose as in an outline: "lunge 5b pair".
"""

import re
from collections.abc import Iterable, Sequence

import msgspec

from yewhour.core.conditions.room import Room
from yewhour.core.library.movement import Library, Movement
from yewhour.core.library.names import NameIndex, plain_name
from yewhour.core.library.position import PositionGraph
from yewhour.core.outline.step_lines import dose_split, read_step
from yewhour.core.plan.nodes import Node, Pair
from yewhour.core.sides import fill

_UNFINISHED = re.compile(r"\s+\d+$")  # a dose whose unit is still to be typed
_BARE = re.compile(r"(\d+)(?=\s|$)")  # a dose without a unit
CLOSE = 0.72  # how like a word must be to one of the library to have been meant for it
_WORD = re.compile(r"[^\W_]+")
FOCUS_WORTH = 0.4
EXACT = 8.0  # what a name typed in full is worth
SETUP_WORTH = 0.12  # a second of set-up weighs as much as this much of a match


class SearchHit(msgspec.Struct, frozen=True):
    """A movement found: how well it matches, what it matched by, seconds to get into it, who minds it.

    matters: the cautions of this room that the movement carries.
    """

    movement: Movement
    score: float
    by: str
    setup_s: float
    matters: tuple[str, ...]
    block: str = ""  # the block that is put in, for what is one idea and several movements


_NOTHING = SearchHit(Movement(id="", name="", kind="setup"), -99.0, "", 0.0, ())


def _read_as(hit: SearchHit, words: Sequence[str]) -> SearchHit:
    return msgspec.structs.replace(hit, by=f"as “{' '.join(words)}”")


class MovementSearch:
    """Searches a library. Make one for each library; asking is quick."""

    def __init__(self, library: Library, positions: PositionGraph, blocks: Iterable[str] = ()) -> None:
        self.library = library
        self._blocks = [(name, plain_name(name).split()) for name in blocks]
        self.names = NameIndex(library)
        self.positions = positions
        self._entries = [(movement, _fields(movement)) for movement in library.values()]
        self._known_words: set[str] | None = None

    @property
    def _words(self) -> set[str]:
        """Every word that anything is found by; gathered when the first is misspelt."""
        if self._known_words is None:
            texts = [text for _, fields in self._entries for *_, text in fields]
            texts += [name.lower() for name, _ in self._blocks]
            self._known_words = {word for text in texts for word in _WORD.findall(text)}
        return self._known_words

    def find(
        self,
        typed: str,
        here: str = "",
        room: Room | None = None,
        focus: Iterable[str] = (),
        first: bool = False,
        most: int = 40,
    ) -> tuple[list[SearchHit], str]:
        """The best hits, best first, and the dose that was typed behind the name.

        here: the position the class is in where the movement would go, "" for anywhere. focus: areas the
        class is about; what works on them comes first where nothing else tells hits apart. first: the class
        has no movement yet, so that a welcome and easy movements are offered. room: who may be there; what is
        left out for them is found by its name alone.
        """
        name, dose = self.split(typed)
        words = [word.lower() for word in _WORD.findall(name)]
        hits = self._found(words, self.names.find(name), here, room, set(focus), first)
        hits += self._of_blocks(name)
        if not hits:
            hits, dose = self._near(words, dose, here, room, set(focus))
        hits.sort(key=lambda hit: (-hit.score, hit.movement.name))
        return hits[:most], dose

    def split(self, typed: str) -> tuple[str, str]:
        """What was typed as a name and the dose behind it; a number without a unit is one too."""
        name, dose = dose_split(typed.strip())
        bare = _UNFINISHED.search(name)
        if bare is None or self.names.find(name):  # "warrior 2": the number is of the name
            return name, dose
        return name[: bare.start()], f"{bare[0].strip()} {dose}".strip()

    def _near(
        self, words: Sequence[str], dose: str, here: str, room: Room | None, about: set[str]
    ) -> tuple[list[SearchHit], str]:
        """What is near to words that nothing has: as they may be meant, or most of them; and the dose."""
        meant = [word if len(word) < 3 or word in self._words else self._meant(word) for word in words]
        number, _, rest = dose.partition(" ")
        if "" not in meant and number.isdigit() and self.names.find(" ".join((*meant, number))):
            meant, dose = [*meant, number], rest  # "warior 2"
        text = " ".join(meant)
        if "" not in meant and meant != list(words):
            hits = self._found(meant, self.names.find(text), here, room, about, False) + self._of_blocks(text)
            if hits:
                return [_read_as(hit, meant) for hit in hits], dose
        known = [word for word in meant if word]
        best: dict[str, SearchHit] = {}
        for left in range(len(known) if len(words) > 1 else 0):
            some = known[:left] + known[left + 1 :] if len(known) == len(words) else known
            for hit in self._found(some, None, here, room, about, False) if some else ():
                if hit.score > best.get(hit.movement.id, _NOTHING).score:
                    best[hit.movement.id] = _read_as(hit, some)
        return list(best.values()), dose

    def _meant(self, word: str) -> str:
        """The word of the library that one may have been meant for; "" for none."""
        # 20 ms; hardly any word is misspelt.
        from rapidfuzz import process
        from rapidfuzz.distance import Indel

        known = sorted(self._words)  # of two as near, the same each time
        close = process.extractOne(word, known, scorer=Indel.normalized_similarity, score_cutoff=CLOSE)
        return close[0] if close else ""

    def _found(
        self,
        words: Sequence[str],
        exact: str | None,
        here: str,
        room: Room | None,
        about: set[str],
        first: bool,
    ) -> list[SearchHit]:
        """The movements that have every word."""
        hits = []
        for movement, fields in self._entries:
            found = (3.0, "name") if movement.id == exact else _matched(words, fields)
            if found is None:
                continue
            if not words and room is not None and room.left_out(movement) is not None:
                continue
            match, by = found
            setup_s = self.positions.between(here, fill(movement.start, "right"))
            score = match + EXACT * (movement.id == exact) - SETUP_WORTH * setup_s
            if about & {*movement.works, *movement.opens}:
                score += FOCUS_WORTH
            if not words:
                score += _unasked(movement, first)
            hits.append(SearchHit(movement, score, by, setup_s, room.met(movement) if room else ()))
        return hits

    def _of_blocks(self, name: str) -> list[SearchHit]:
        """The blocks whose name begins with, or has, every word typed."""
        words = plain_name(name).split() if name else []
        found = []
        for block, parts in self._blocks:
            if words and all(any(part.startswith(word) for part in parts) for word in words):
                stands_for = Movement(id=block, name=block[0].upper() + block[1:], kind="setup")
                score = EXACT if words == parts else 4.5
                found.append(SearchHit(stands_for, score, "name", 0.0, (), block))
        return found

    def step(self, movement: str, dose: str = "", pairs: bool = True) -> Node:
        """A step of a movement with a dose as typed; a pair when it says so, or has a side and `pairs`.

        A number alone is in the movement's own unit. Raises Problem for a dose that the movement can't have.
        """
        if bare := _BARE.match(dose):
            letter = self.library[movement].behaviour.letter
            dose = f"{bare[1]}{letter}{dose[bare.end(1) :]}" if letter else dose[bare.end() :]
        step, pair = read_step(f"{movement} {dose}".strip(), self.names, self.library)
        one_sided = self.library[movement].sides == "one" and not self.library[movement].side_by
        if pair is not None or (pairs and one_sided and step.side is None and step.phase is None):
            return Pair(body=(step,), lead="left" if pair == "left" else "right" if pair else None)
        return step


def _unasked(movement: Movement, first: bool) -> float:
    """What a movement is worth when nothing is typed: talk and pauses are asked for by name, but for a first
    welcome."""
    if first:
        return 3.0 * ("welcome" in movement.marks) + ("warming" in movement.marks) - 0.2 * movement.effort
    return -5.0 if movement.behaviour.bare else 0.0


def _fields(movement: Movement) -> tuple[tuple[float, str, str], ...]:
    """(worth, what it is, words) of everything a movement may be found by, best first."""
    return tuple(
        (worth, what, text.lower())
        for worth, what, text in (
            (3.0, "name", movement.name),
            (2.8, "name", movement.id.replace("-", " ")),
            (2.7, "name", "; ".join(movement.aliases)),
            (2.6, "traditional name", movement.traditional),
            (1.6, "opens", " ".join(movement.opens)),
            (1.5, "works", " ".join(movement.works)),
            (1.4, "prop", " ".join(movement.props)),
            (1.3, "position", f"{movement.start} {movement.end}"),
            (1.2, "family", movement.family),
            (1.0, "mark", " ".join(movement.marks)),
        )
        if text
    )


def _matched(words: Sequence[str], fields: tuple[tuple[float, str, str], ...]) -> tuple[float, str] | None:
    """How well all the words match, and the weakest kind of match; None when a word matches nothing."""
    if not words:
        return 0.0, ""
    total, weakest, least = 0.0, "", 9.0
    for word in words:
        for worth, what, text in fields:
            at = text.find(word)
            if at < 0 or (at and text[at - 1].isalnum() and len(word) < 4):
                continue
            whole = not text[at + len(word) : at + len(word) + 1].isalnum()
            worth += 0.5 if at == 0 else 0.25 if not text[at - 1].isalnum() else 0.0
            worth += 0.4 * whole
            total += worth
            if worth < least:
                weakest, least = what, worth
            break
        else:
            return None
    return total / len(words), weakest
