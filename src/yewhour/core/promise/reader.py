"""A promise in words, read as a careful colleague would: `25-minute gentle hatha for sore knees, no kneeling, a block`.

Phrases are looked for from the longest to a word; the word before (for, with, no, mind, after, about, towards) says
how one is meant, and what is tried first: health and bodies, prohibitions, everyday words, the rest. Only what
nothing else explains is whom the class is for. A mistyped word is read as the one it is like, and said so. What is
not understood stays a wish; where it is of health, of a body or a prohibition, it asks.
"""

import re
from collections.abc import Iterator, Mapping

import msgspec

from yewhour.core.lengths import show_length
from yewhour.core.library.names import listed
from yewhour.core.plan.plan import Brief
from yewhour.core.problem import Problem
from yewhour.core.promise.grammar import (
    AND,
    AT_HAND,
    BREAKS,
    CALLED,
    CONTEXTS,
    GOES_ON,
    HURTS,
    LEAVES,
    NUMBER,
    READS,
    STRICT,
    Context,
    is_number,
    length_in,
    number_of,
)
from yewhour.core.promise.vocabulary import LONGEST, Kind, Lexicon, Phrase, Token, tokens_of
from yewhour.core.promise.wished import brief_of
from yewhour.core.promise.wishes import ReadPromise, Wish
from yewhour.core.teaching_data import TeachingData

_WEEKS = re.compile(rf"\b({NUMBER})[- ]weeks?[- ](?:pregnant|gone|into pregnancy|of pregnancy)", re.IGNORECASE)
_MONTHS = re.compile(rf"\b({NUMBER})(?:st|nd|rd|th)?[- ]months?[- ](?:pregnant|gone|into pregnancy|of pregnancy)", re.IGNORECASE)
_BORN = re.compile(rf"\b({NUMBER})[- ](?:weeks?|months?)[- ](?:postpartum|postnatal|after (?:the |a )?birth)", re.IGNORECASE)
_AGE = re.compile(r"\b(?:(?:over|aged|age|past|above)\s+(?:the age of\s+)?(\d\d)s?|(\d\d)\s*\+|(\d{1,2})(?:\s*(?:-|to)\s*\d{1,2})?[- ]years?[- ]olds?)", re.IGNORECASE)
OLD, GROWN = 65, 16


class PromiseReader:
    """Reads promises by one lexicon. Make one for each library; reading is quick."""

    def __init__(self, lexicon: Lexicon, teaching_data: TeachingData, areas: Mapping[str, str]) -> None:
        self.lexicon, self.teaching_data, self.areas = lexicon, teaching_data, areas

    def read(self, text: str, brief: Brief | None = None) -> ReadPromise:
        """A promise that was typed, over a brief that has the rest. Raises Problem for a text that says nothing."""
        if not text.strip():
            raise Problem("Nothing is promised yet.", "the promise", "Say: 25-minute gentle hatha about hips.")
        wishes = [wish for wish in _joined(self._wishes(text[:2000])) if wish.text.strip()]
        wishes = _told_apart(wishes)
        known = [wish for wish in wishes if wish.state != "unknown" and wish.kind not in ("audience", "unmet")]
        if not known and not any(wish.asks for wish in wishes):
            do = "Say: 25-minute gentle hatha about hips."
            raise Problem(f"Nothing in {text.strip()[:60]!r} is a promise.", "the promise", do)
        return brief_of(wishes, brief, self.lexicon.words, self.teaching_data, self.areas)

    # --- the text in parts ---------------------------------------------------------------------------------

    def _wishes(self, text: str) -> Iterator[Wish]:
        if found := CALLED.search(text):
            title = BREAKS.split(found[1])[0].strip("\"' ")
            rest = found[1][len(BREAKS.split(found[1])[0]):]
            yield Wish(found[0].strip(), f"its title: {title}", kind="title", key=title)
            text = f"{text[: found.start()]}, {rest}"
        for pattern, read in ((_WEEKS, self._of_weeks), (_MONTHS, self._of_months), (_BORN, self._of_birth), (_AGE, self._of_age)):
            while found := pattern.search(text):
                wish = read(found)
                if wish is None:
                    break
                yield wish
                text = f"{text[: found.start()]} | {text[found.end():]}"
        while (length := length_in(text)) is not None:
            start, end, seconds = length
            said = text[start:end].strip()
            yield Wish(said, f"{show_length(seconds)} long", kind="length", key=str(seconds))
            text = f"{text[:start]} {text[end:]}"
        text = AT_HAND.sub(" ", text)
        context: Context = ""
        for part in re.split(r"\|", text):
            for piece in BREAKS.split(part):
                soft, context = context, ""
                for wish, after in self._piece(piece, soft):
                    context = after
                    yield wish

    def _of_weeks(self, found: re.Match[str]) -> Wish:
        return self._condition(found[0], "pregnancy-first" if number_of(found[1]) <= 13 else "pregnancy")

    def _of_months(self, found: re.Match[str]) -> Wish:
        return self._condition(found[0], "pregnancy-first" if number_of(found[1]) <= 3 else "pregnancy")

    def _of_birth(self, found: re.Match[str]) -> Wish:
        return self._condition(found[0], "after-birth")

    def _of_age(self, found: re.Match[str]) -> Wish | None:
        age = int(next(one for one in found.groups() if one))
        if found[3] and age < GROWN:
            return self._condition(found[0], "children")
        if age >= OLD or (age >= OLD - 5 and found[2]):
            return self._condition(found[0], "older")
        return None

    def _condition(self, text: str, tag: str) -> Wish:
        return Wish(text, f"minded: {self.teaching_data.conditions.conditions[tag].whom}", kind="condition", key=tag)

    # --- one piece between two stops ----------------------------------------------------------------------

    def _piece(self, text: str, before: Context) -> Iterator[tuple[Wish, Context]]:
        """The wishes of a piece, each with the context it leaves. before: that of the piece before, which a list
        goes on with."""
        tokens = tokens_of(text)
        context: Context = ""
        soft = before if before in GOES_ON else ""
        people: list[tuple[int, int]] = []
        fed, at = False, 0
        while at < len(tokens):
            read = self._read(tokens, at, context, soft, not fed)
            if read is None:
                changed = self._context(tokens, at)
                if changed is not None:
                    context, at = changed
                    soft, fed = "", False
                    continue
                plain = tokens[at].plain
                filler = plain in self.lexicon.fillers and not self.lexicon.is_health(plain)
                if plain in AND or filler or is_number(plain):
                    at += 1
                    continue
                read = self._mistyped(tokens, at, context or soft, not fed)
            if read is not None:
                kind, key, length, as_phrase = read
                end = at + length
                said = text[tokens[at].start : tokens[end - 1].end]
                if end < len(tokens) and tokens[end].plain in HURTS and kind in ("part", "condition"):
                    said, end = text[tokens[at].start : tokens[end].end], end + 1
                if context == "towards" and kind == "movement":
                    yield self._peak(said, key, as_phrase), context
                else:
                    in_list = soft if soft and kind in GOES_ON[soft] else ""
                    yield self._wish(said, kind, key, context or in_list, as_phrase), context or in_list
                fed = True
                if kind == "everyday" and self.lexicon.words.everyday[key].whom and context == "for":
                    people.append((tokens[at].start, tokens[end - 1].end))
                if kind in LEAVES or (context and kind not in READS[context]):
                    context = "" if context != "for" else context
                if kind == "condition" and not context and end < len(tokens) and tokens[end].plain in AND:
                    soft = "mind"  # "headache and knees"
                at = end
                continue
            first = at
            at += 1
            while at < len(tokens) and self._is_unknown(tokens, at, context, soft):
                at += 1
            said = text[tokens[first].start : tokens[at - 1].end]
            health = any(self.lexicon.is_health(token.plain) for token in tokens[first:at])
            if context == "for" and not health:
                people.append((tokens[first].start, tokens[at - 1].end))
                yield Wish(said, f"for {said}", kind="audience", key=said), context
            else:
                yield self._unknown(said, context or soft, health), context or soft
        if len(people) > 1:
            said = text[people[0][0] : people[-1][1]]
            yield Wish("", f"for {said}", kind="audience", key=said), context

    def _read(
        self, tokens: list[Token], at: int, context: Context, soft: Context, first: bool = False
    ) -> tuple[Kind, str, int, Phrase | None] | None:
        """The longest phrase that begins here, as what it is tried first in its context: (kind, key, words)."""
        for length in range(min(LONGEST, len(tokens) - at), 0, -1):
            phrase = tuple(token.plain for token in tokens[at : at + length])
            meant = self.lexicon.phrases.get(phrase)
            if meant is None or (length == 1 and not context and phrase in CONTEXTS):
                continue
            after = tokens[at + length].plain if at + length < len(tokens) else ""
            if after in HURTS and (meant.keys() & {"part", "condition"}):
                kind: Kind = "condition" if "condition" in meant else "part"
                return kind, meant[kind], length, None
            anything = () if first and context in STRICT else READS[""]
            for kinds in (GOES_ON[soft] if soft and not context else (), READS[context], anything):
                for one in kinds:
                    if one in meant and not self._is_word_of_every_day(one, meant, phrase, context or soft):
                        return one, meant[one], length, None
        return None

    def _is_word_of_every_day(self, kind: Kind, meant: Mapping[Kind, str], phrase: Phrase, context: Context) -> bool:
        """Whether a name of a movement is no more than a word here: alone, and nothing says that it is meant."""
        if kind != "movement" or context in ("without", "towards", "with"):
            return False
        return len(phrase) == 1 and (phrase[0] in self.lexicon.fillers or phrase[0] in WORDS)

    def _context(self, tokens: list[Token], at: int) -> tuple[Context, int] | None:
        for length in range(min(5, len(tokens) - at), 0, -1):
            phrase = tuple(token.plain for token in tokens[at : at + length])
            if phrase in CONTEXTS:
                return CONTEXTS[phrase], at + length
        return None

    def _is_unknown(self, tokens: list[Token], at: int, context: Context, soft: Context) -> bool:
        plain = tokens[at].plain
        if plain in AND or self._context(tokens, at) is not None or self._read(tokens, at, context, soft) is not None:
            return False
        return self._mistyped(tokens, at, context) is None

    def _mistyped(
        self, tokens: list[Token], at: int, context: Context, first: bool = False
    ) -> tuple[Kind, str, int, Phrase | None] | None:
        """What a mistyped word, or two, is like, where that may follow here."""
        plain = tokens[at].plain
        two = f"{plain} {tokens[at + 1].plain}" if at + 1 < len(tokens) else ""
        for length, text in ((2, two), (1, plain)):
            if not text or (length == 1 and plain in self.lexicon.fillers):
                continue
            phrase = self.lexicon.near(text, length == 2)
            meant = self.lexicon.phrases.get(phrase, {}) if phrase else {}
            for kind in (*READS[context], *(() if first and context in STRICT else READS[""])):
                if kind in meant and not (kind == "movement" and context in ("", "for")):
                    return kind, meant[kind], length, phrase
        return None

    # --- what a phrase is -----------------------------------------------------------------------------------

    def _wish(self, said: str, kind: Kind, key: str, context: Context, as_phrase: Phrase | None) -> Wish:
        conditions, words = self.teaching_data.conditions, self.lexicon.words
        state, reason = ("guessed", f"read as \u201c{' '.join(as_phrase)}\u201d") if as_phrase else ("kept", "")
        if kind == "health":
            near = [(*conditions.conditions[one].parts, *conditions.conditions[one].words)[0] for one in words.health[key]]
            asks = "It is a word of health that no rule here is for: what should the class leave out?"
            return Wish(said, "", "unknown", asks, "health", key, True, tuple(f"mind {one}" for one in near))
        if kind in ("condition", "part"):
            name = conditions.conditions[key].whom
            return Wish(said, f"minded: {name}", state, reason, "condition", key)
        if kind == "prop" and key == "block" and said.lower().endswith("s"):
            key = "two blocks"
        if context == "without" and kind in _LEAVES:
            return self._without(said, kind, key, state, reason)
        if kind == "group":
            return Wish(said, f"with {conditions.groups[key].name}", state, reason, "group", key)
        if kind == "movement":
            name = self.teaching_data.library[key].name
            return Wish(said, f"with {name}", state, reason, kind, key)
        if kind == "everyday":
            return Wish(said, words.everyday[key].meaning, "guessed", reason, kind, key)
        if kind == "length":
            minutes = int(key)
            return Wish(said, f"{minutes} minutes", "guessed", "no number was said", kind, str(minutes * 60.0))
        if kind == "unmet":
            return Wish(said, "", "unmet", words.unmet[key], kind, key)
        shown = {
            "prop": lambda: f"{key} at hand", "area": lambda: f"about {self.areas.get(key, key)}",
            "style": lambda: self.teaching_data.schools[key].noun, "time": lambda: _WHEN[key], "level": lambda: _LEVELS[key],
            "ways": lambda: said,
        }[kind]()  # fmt: skip
        return Wish(said, shown, state, reason, kind, key)

    def _without(self, said: str, kind: Kind, key: str, state: str, reason: str) -> Wish:
        groups, library = self.teaching_data.conditions.groups, self.teaching_data.library
        said = f"no {said}"
        if kind == "level":
            level = "gentle" if key == "experienced" else "mixed"
            return Wish(said, _LEVELS[level], "guessed", reason, "level", level)
        if kind == "area":  # a part of the body that is not to be worked is one to be minded
            tag = next((tag for tag, one in self.teaching_data.conditions.conditions.items() if key in (*one.parts, tag)), "")
            if tag:
                return self._condition(said, tag)
        if kind == "everyday" and self.lexicon.words.everyday[key].without:
            return Wish(said, "", "unknown", "It says where the body is not to be.", "", "", True, ("no standing", "no kneeling", "no floor"))
        if kind not in ("group", "movement", "prop", "ways"):
            return Wish(said, f"not {said}", "kept" if kind != "area" else "unmet", reason, "ways", "")
        name = groups[key].name if kind == "group" else library[key].name if kind == "movement" else key
        what = {"counting": "counting is silent", "talk": "few words", "names": "names in English"}.get(key, f"without {name}")
        return Wish(said, what, state, reason, "ways" if kind == "ways" else kind, f"-{key}")  # type: ignore[arg-type]

    def _peak(self, said: str, key: str, as_phrase: Phrase | None) -> Wish:
        reason = f"read as \u201c{' '.join(as_phrase)}\u201d" if as_phrase else ""
        name = self.teaching_data.library[key].name
        return Wish(said, f"its peak: {name}", "guessed" if as_phrase else "kept", reason, "peak", key)

    def _unknown(self, said: str, context: Context, health: bool) -> Wish:
        """A word that is not understood: it asks where it is of health, of a body or a prohibition."""
        if context in ("mind", "without", "after") or health:
            could = {
                "mind": ("mind knees", "mind low back"), "without": ("no kneeling", "no twists"), "after": ("mind low back",),
            }.get(context, ("mind knees", "mind low back"))  # fmt: skip
            what = {"mind": "It is to be minded", "without": "It is to be left out", "after": "It came before the class"}
            reason = f"{what.get(context, 'It sounds like a word of health')}, and nobody here knows the word."
            return Wish(said, "", "unknown", reason, "", "", True, could)
        if context == "with":
            return Wish(said, "", "unmet", "there is nothing of that name here; the class is made without it")
        if context == "towards":
            near = self.teaching_data and [" ".join(one) for one in self._near_movements(said)]
            return Wish(said, "", "unmet", "there is no movement of that name here" + (f"; near: {listed(near)}" if near else ""))
        return Wish(said, "", "unknown", "not understood; the class is made without it")

    def _near_movements(self, said: str) -> list[Phrase]:
        from rapidfuzz import fuzz, process

        names = [" ".join(phrase) for phrase, meant in self.lexicon.phrases.items() if "movement" in meant]
        return [tuple(found[0].split()) for found in process.extract(said, names, scorer=fuzz.ratio, limit=2, score_cutoff=60)]


# Names of movements that alone are words of every day: they need a word before them to be meant.
WORDS = frozenset(
    "sit rest child cat cow chair table mountain hero staff square deer easy sage wave swim swan bow boat bridge tree fish gate dog saw seal frog fold squat twist split lion crab hundred".split()  # noqa: SIM905
) - frozenset(("bow", "boat", "bridge", "tree", "fish", "saw", "seal", "frog", "hundred", "crab", "lion", "squat", "twist", "split", "fold"))
_LEAVES = ("group", "movement", "prop", "area", "style", "level", "everyday", "unmet", "ways")
_WHEN = {"morning": "for the morning", "midday": "for midday", "evening": "for the evening", "night": "for the night"}
_LEVELS = {"beginners": "for beginners", "gentle": "gentle", "mixed": "mixed level", "experienced": "for the experienced"}


def _joined(wishes: Iterator[Wish]) -> Iterator[Wish]:
    """The wishes, an audience in several words once, as a whole."""
    known = list(wishes)
    whole = [wish for wish in known if wish.kind == "audience" and not wish.text]
    for wish in known:
        if wish.kind == "audience" and any(wish.key in one.key for one in whole if one is not wish):
            continue
        yield msgspec.structs.replace(wish, text=wish.key) if wish.kind == "audience" and not wish.text else wish


def _told_apart(wishes: list[Wish]) -> list[Wish]:
    """Pregnancy once: as the month that was told, else as if late."""
    tags = {wish.key for wish in wishes if wish.kind == "condition"}
    late = any(
        re.search(r"\b(?:second|third|last|late|2nd|3rd|[2-4]\d.weeks?|[4-9].months?)\b", wish.text, re.IGNORECASE)
        for wish in wishes if wish.key == "pregnancy"
    )  # fmt: skip
    if {"pregnancy", "pregnancy-first"} <= tags and not late:
        return [wish for wish in wishes if wish.key != "pregnancy"]
    return wishes
