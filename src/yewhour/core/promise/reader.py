"""A promise in words, read as a careful colleague would: `25-minute gentle hatha, sore knees, no kneeling`.

Phrases are looked for from the longest to a word. The word before (for, with, no, mind, after, about,
towards) says how one is meant and what is tried first: health and bodies, prohibitions, everyday words, the
rest. Only what nothing else explains is whom the class is for. A mistyped word is read as the one it is like,
and said so. What is not understood stays a wish; where it is of health, of a body or a prohibition, it asks.
"""

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import pairwise

import msgspec

from yewhour.core.plan.plan import Brief
from yewhour.core.problem import Problem
from yewhour.core.promise.complaints import complaint_to, fine_to, hurting_to, is_of_body, seat_of
from yewhour.core.promise.grammar import (
    AND,
    ARTICLES,
    AT_HAND,
    BREAKS,
    CALLED,
    CANNOT,
    COMPANIES,
    ENDS,
    EVERY_DAY,
    FEELS,
    FINE,
    FREE,
    GOES_ON,
    LEAVES,
    PERSONS,
    PREPARED,
    READS,
    REASONS,
    RECOVERING,
    STRICT,
    WELL,
    WHEN,
    WORSE,
    Context,
    is_number,
    pieces_of,
)
from yewhour.core.promise.lately import asked_about, cleared_in
from yewhour.core.promise.meanings import Meanings
from yewhour.core.promise.movement_list import listed_movements
from yewhour.core.promise.numbers_said import PromiseNumbers
from yewhour.core.promise.vocabulary import LONGEST, Kind, Lexicon, Phrase, Token, of_one_stem, tokens_of
from yewhour.core.promise.wished import brief_of
from yewhour.core.promise.wishes import ReadPromise, Wish
from yewhour.core.teaching_data import TeachingData

_SLASHED = re.compile(r"\bw/(o\b)?\s*", re.IGNORECASE)  # "w/ a bolster", "w/o jumping"
_ADDRESSED = re.compile(r"\bMs\.? (?=[A-Z][a-z])")  # somebody by her name, and no condition
_LATE = re.compile(
    r"\b(?:second|third|last|late|2nd|3rd|[2-4]\d.weeks?|1[4-9].weeks?|[4-9].months?)\b", re.IGNORECASE
)
# Before what somebody has: "someone with", "my aunt has a", "people who have".
_HAVING = re.compile(
    r"\b(?:(?:some|any)(?:one|body)|person|people|those|wom[ae]n|m[ae]n|lad(?:y|ies)|clients?|students?|pupils?"
    r"|members?|friends?|mother|mum|mom|father|dad|sister|brother|husband|wife|partner|daughter|son|aunt|uncle"
    r"|neighbours?|neighbors?|colleagues?|seniors|adults|beginners|gran\w*|nan|she|he|they|i)\s+"
    r"(?:with|(?:who\s+)?(?:has|have|had|got|lives? with|living with)(?:\s+(?:got|had|to))?)\s+"
    r"(?:(?:an?|the|her|his|their|some|body|bad|mild|severe|serious|very|rare|bit of|kind of|form of)\s+)*$",
    re.IGNORECASE,
)
_HAS = re.compile(
    r"\b(?:has|have|had|got)\b(?! (?:been|never|not|no|to|done|tried|given|just|only|already|all|little)\b)"
    r"(?: (?:an?|the|her|his|their|some)\b)?",
    re.IGNORECASE,
)
_NOBODY = re.compile(
    r"(?:some|any)(?:one|body)(?: (?:who|on|in|with|after))?"
    r"|(?:people|those|a person|the ones) (?:who|on|in|with|after)",
    re.IGNORECASE,
)
_A_CLASS = re.compile(
    r"\b(?:class(?:es)?|lesson|session|practi[cs]e|routine|sequence|workout|stretch\w*|exercises?|move(?:ment)?s?)\b",
    re.IGNORECASE,
)  # whoever says one of these wants a class, whatever else is said of it
HARDER = ("experienced", "strength")
_AILS = frozenset(("injured", "weak", "fragile", "recovering", "operated", "swollen", "unstable", "ruptured"))
MOST = 2000  # signs of a promise that are read
HEALTH: frozenset[Kind] = frozenset(("condition", "part", "health"))
_BODILY: frozenset[Kind] = frozenset(("area", "part"))
Read = tuple[Kind, str, int, Phrase | None]  # kind, key, words, and the phrase it was mistyped for


class PromiseReader:
    """Reads promises by one lexicon. Make one for each library; reading is quick."""

    def __init__(self, lexicon: Lexicon, teaching_data: TeachingData, areas: Mapping[str, str]) -> None:
        self.lexicon, self.teaching_data, self.areas = lexicon, teaching_data, areas
        self.meanings = Meanings(lexicon, teaching_data, areas)
        self.numbers = PromiseNumbers(self.meanings)

    def read(self, text: str, brief: Brief | None = None) -> ReadPromise:
        """A promise that was typed, over a brief that has the rest. Raises Problem for one that says
        nothing."""
        if not text.strip():
            raise Problem(
                "Nothing is promised yet.", "the promise", "Say: 25-minute gentle hatha about hips."
            )
        plain = _ADDRESSED.sub("", text[:MOST])
        for pattern, instead in self.lexicon.plainer:
            plain = pattern.sub(instead, plain)
        wishes = _told_once([*_joined(self._wishes(plain))])
        wishes = [self._had(wish, plain) for wish in wishes]
        wishes += self.numbers.left_over(plain, wishes)
        wishes = _asked_together(asked_about(wishes, plain, self.teaching_data.conditions.conditions), plain)
        known = [wish for wish in wishes if wish.state != "unknown"]
        if not (known or _A_CLASS.search(text) or any(wish.asks for wish in wishes)):
            do = "Say: 25-minute gentle hatha about hips."
            raise Problem(f"Nothing in {text.strip()[:60]!r} is a promise.", "the promise", do)
        return brief_of(wishes, brief, self.lexicon.words, self.teaching_data, self.areas)

    def _had(self, wish: Wish, text: str) -> Wish:
        """What somebody has, and nobody here knows, may be of health: "for someone with ..." asks. What
        anybody may have is nobody a class is for."""
        who, what = "", wish.text
        if found := _HAS.search(wish.text):  # "aunt who has it", and none of its words is known
            who, what = wish.text[: found.end()], wish.text[found.end() :].strip()
        before = text[: max(0, text.lower().find(wish.text.lower()))] + who
        unread = not wish.kind and wish.state in ("unmet", "unknown")
        if not ((unread or wish.kind == "audience") and what and _HAVING.search(f"{before.rstrip()} ")):
            return wish
        last = [token.plain for token in tokens_of(what)][-1:]  # of "busy lives", not of "body dysmorphia"
        harmless = last == [] or last[0] in self.lexicon.had
        if wish.kind == "audience" and (harmless or not found):
            return self.meanings.unknown(what, "", False)
        return wish if harmless else self.meanings.unknown(what, "mind", True)

    # --- the text in parts --------------------------------------------------------------------------------

    def _wishes(self, text: str) -> Iterator[Wish]:
        text = _SLASHED.sub(lambda found: "without " if found[1] else "with ", text)
        if found := cleared_in(text):
            if not found["no"]:
                yield Wish(found[0].strip(), "a doctor has said yes, as you say")
            text = f"{text[: found.start()]}, {text[found.end() :]}"
        if found := CALLED.search(text):
            title, *rest = BREAKS.split(found[1], maxsplit=1)
            title = title.strip("\"' ")
            yield Wish(found[0].strip(), f"its title: {title}", kind="title", key=title)
            text = f"{text[: found.start()]}, {' '.join(rest)}"
        numbered, text = self.numbers.read(text)
        yield from numbered
        left_out = False  # where a reason follows, it is minded: "no planks because of my wrist"
        for number, part in enumerate(REASONS.split(AT_HAND.sub(" ", text).replace("|", ","))):
            context: Context = "mind" if left_out and is_of_body(self.lexicon, tokens_of(part)) else ""
            pieces = [*pieces_of(part)]
            listed = listed_movements(self.lexicon, [piece for _, piece in pieces])
            for place, (begins, piece) in enumerate(pieces):
                if place in listed:
                    yield self.meanings.of(piece.strip(), "movement", listed[place], "with", None)
                    continue
                soft, context = "" if begins and place else context, ""
                for wish, after in self._piece(piece, soft):
                    if number and not place and wish.is_aside:
                        continue  # "standing only because the floor is wet"
                    # "with sore knees, chair": what people have is no list of what lies at hand
                    context = "" if (wish.kind, after) == ("condition", "with") else after
                    left_out = left_out or after == "without"
                    yield wish

    # --- one piece between two stops ------------------------------------------------------------------------

    def _piece(self, text: str, before: Context) -> Iterator[tuple[Wish, Context]]:
        """The wishes of a piece, each with the context it leaves. before: that of the piece before, which a
        list goes on with."""
        tokens = tokens_of(text)
        context: Context = ""
        soft = before if before in GOES_ON else ""
        people: list[tuple[int, int]] = []
        since: tuple[int, int] | None = None  # the words of the context: where they begin, and end
        fed, at = False, 0
        while at < len(tokens):
            if until := self._sore_to(tokens, at):
                yield (
                    self.meanings.unknown(text[tokens[at].start : tokens[until - 1].end], "mind", True),
                    context,
                )
                at = until
                continue
            read = self._read(tokens, at, context, soft, not fed)
            company = context == "for" and any(one.plain in COMPANIES for one in tokens[at + 1 : at + 2])
            if company and read is not None and not self._whom(read):
                read = None  # "for my book club"
            changed = self._context(tokens, at)
            if changed is not None and read is not None and changed[1] - at > read[2]:
                read = None  # "arthritis in the hands"
            if changed is not None and context in STRICT and not fed and changed[0] not in STRICT:
                changed = (context, changed[1])  # "don't want to kneel": still what is not wanted
            if read is None:
                if changed is not None:
                    goes_on = since and (since[1] == at or (context in STRICT and not fed))
                    since = (since[0] if since and goes_on else at, changed[1])
                    context, at = changed
                    soft, fed = "", False
                    continue
                if self._says_nothing(tokens[at].plain):
                    at += 1
                    continue
                read = None if company else self._mistyped(tokens, at, context or soft, not fed)
            if read is None:
                first, at = at, self._unknown_to(tokens, at, context, soft)
                at = self._who(tokens, first, at) if context == "for" else at
                alone = at == first + 1 and not tokens[first].plain.endswith("s")
                hers = context == "for" and alone and first > 0 and tokens[first - 1].plain in ("my", "our")
                named = first - hers
                if context == "for":  # "tall people", "people who knit", "the whole office"
                    named -= tokens[first].plain in ("whole", "entire") and tokens[first - 1].plain == "the"
                    at += at < len(tokens) and tokens[at].plain in PERSONS
                    led = [one.plain for one in tokens[first - 2 : first]] if first > 1 else []
                    named = first - 2 if led and led[0] in PERSONS and led[1] == "who" else named
                said = text[tokens[named].start : tokens[at - 1].end]
                run = {token.plain for token in tokens[first:at]}  # "cracks when I look up": so it is there
                health = bool(run & WHEN) or any(map(self.lexicon.is_health, run))
                if context == "for" and _NOBODY.fullmatch(said):
                    continue
                if context == "for" and not health:
                    people.append((tokens[named].start, tokens[at - 1].end))
                    yield Wish(said, f"for {said}", kind="audience", key=said), context
                else:
                    yield self.meanings.unknown(said, context or soft, health), context or soft
                continue
            prepared = at + read[2] < len(tokens) and tokens[at + read[2]].plain == PREPARED
            read = (prepared and self._read(tokens, at, "towards", "", True)) or read
            kind, key, length, typed_as = read
            meant = self.lexicon.phrases.get(tuple(token.plain for token in tokens[at : at + length]), {})
            of_body = kind in _BODILY or (soft in STRICT and bool(meant.keys() & _BODILY))
            done = kind in ("group", "movement") or (kind == "everyday" and "group" in meant)
            told = fed or context not in STRICT  # "bad knees are fine" and "no kneeling is fine" are not so
            fine = FINE if told and of_body else WELL if told and done else ()
            if fine and (well := fine_to(tokens, at + length, fine, at == 0 or done)) > at + length:
                at = well  # what is well asks for nothing
                continue
            if fed and context in STRICT and kind in ENDS:
                context = soft = ""
            end = at + length
            free = kind == "group" and end < len(tokens) and tokens[end].plain in FREE
            if free:
                end += 1
            elif prepared and kind == "movement":
                end += 1  # "handstand prep"
            elif kind in ("part", "condition"):
                end = complaint_to(self.lexicon, tokens, end)
            seat = ""
            if kind in ("condition", "health"):
                end, seat = seat_of(self.lexicon, tokens, end)
                kind, key = ("part", seat) if seat and kind == "health" else (kind, key)
                end += kind == "condition" and end < len(tokens) and tokens[end].plain in RECOVERING
            everyday = self.lexicon.words.everyday[key] if kind == "everyday" else None
            whom = everyday is not None and everyday.whom and context == "for"
            end += whom and end < len(tokens) and tokens[end].plain in COMPANIES
            one = whom and not tokens[end - 1].plain.endswith("s")  # for the choir, and for nurses
            leads = PERSONS | ARTICLES if one else PERSONS
            first = at - (everyday is not None and at > 0 and tokens[at - 1].plain in leads)
            said = text[tokens[first].start : tokens[end - 1].end]
            in_list = soft if soft and kind in GOES_ON[soft] else ""
            hurting = hurting_to(tokens, end) if done else end
            if hurting > end and context not in STRICT:  # "kneeling hurts"
                kind, key = ("group", meant["group"]) if "group" in meant else (kind, key)
                free, end = True, hurting
                said = text[tokens[first].start : tokens[end - 1].end]
            meant_as = "without" if free else context or in_list
            meant_as = meant_as or ("towards" if prepared and kind == "movement" else "")
            wish = self.meanings.of(said, kind, key, meant_as, typed_as)
            if hurting > at + length and wish.text == f"no {said}":
                wish = msgspec.structs.replace(wish, text=said)
            if wish.text == f"no {said}" and since and since[1] == at:  # in her own words: "can't get up"
                wish = msgspec.structs.replace(wish, text=text[tokens[since[0]].start : tokens[end - 1].end])
            yield wish, context or in_list
            if seat and seat != wish.key:
                yield self.meanings.condition(said, seat), context or in_list
            if kind in ("part", "condition") and (worse := self._worse(tokens, end)):
                left_out, until = worse
                said, end = text[tokens[end].start : tokens[until - 1].end], until
                if left_out is None:
                    wish = self.meanings.unknown(said, "without", True)
                else:
                    wish = self.meanings.of(said, *left_out, "without", None)
                    soft = "without"  # "when kneeling and squatting"
                yield msgspec.structs.replace(wish, text=said), context or in_list
            if kind in ("group", "movement") and free:
                soft = "mind"  # "lunges hurt my knee"
            fed = True
            if whom:
                people.append((tokens[at].start, tokens[end - 1].end))
            if (kind in LEAVES or (context and kind not in READS[context])) and context != "for":
                context = ""
            listed = end < len(tokens) and tokens[end].plain in AND
            if kind == "condition" and not context and soft != "without" and listed:
                soft = "mind"  # "headache and knees"
            at = end
        if since and not fed and self._complains(tokens[since[0] : since[1]]):  # "injured", and nothing else
            said = text[tokens[since[0]].start : tokens[since[1] - 1].end]
            yield self.meanings.nowhere(said), context
        if len(people) > 1:
            said = text[people[0][0] : people[-1][1]]
            yield Wish("", f"for {said}", kind="audience", key=said), context

    def _complains(self, tokens: Sequence[Token]) -> bool:
        """Whether words that something to mind should follow are of health by themselves."""
        return any(one.plain in self.lexicon.hurts or one.plain in _AILS for one in tokens)

    @staticmethod
    def _who(tokens: Sequence[Token], first: int, at: int) -> int:
        """Where those a class is for are told, and something of them begins: "my sister who ...", "a bride
        the morning of"."""
        ends = (number for number in range(first + 1, at) if tokens[number].plain in ("who", "that", "whose"))
        at = next(ends, at)
        return at - (at > first + 1 and tokens[at - 1].plain in ARTICLES)

    def _whom(self, read: Read) -> bool:
        """Whether what was read says who is there."""
        kind, key, *_ = read
        everyday = self.lexicon.words.everyday.get(key) if kind == "everyday" else None
        return kind in ("condition", "health") or (everyday is not None and bool(everyday.whom))

    def _says_nothing(self, plain: str) -> bool:
        filler = plain in self.lexicon.fillers and not self.lexicon.is_health(plain)
        return plain in AND or filler or is_number(plain)

    def _read(
        self, tokens: list[Token], at: int, context: Context, soft: Context, first: bool = False
    ) -> Read | None:
        """The longest phrase that begins here, as what it is tried first in its context.

        first: nothing has followed the context yet, which then must be fed by what it asks for.
        """
        for length in range(min(LONGEST, len(tokens) - at), 0, -1):
            phrase = tuple(token.plain for token in tokens[at : at + length])
            meant = self.lexicon.phrases.get(phrase)
            if meant is None or (length == 1 and self._of_a_part(tokens, at, meant, context)):
                continue
            after = tokens[at + length].plain if at + length < len(tokens) else ""
            if after in FREE and "group" in meant:
                return "group", meant["group"], length, None
            cannot = after in CANNOT  # "my knees can't kneel"
            if (cannot or complaint_to(self.lexicon, tokens, at + length) > at + length) and (
                meant.keys() & {"part", "condition"}
            ):
                kind: Kind = "condition" if "condition" in meant else "part"
                return kind, meant[kind], length, None
            if tokens[at + length - 1].several and context != "mind" and self._of_a_kind(meant):
                return "group", meant["group"], length, None  # "forward folds"
            for kind in self._tried(context, soft, first):
                listed = kind == "movement" and not context and "prop" in meant  # "no twists, a chair"
                if kind in meant and not listed and not self._is_of_every_day(kind, phrase, context or soft):
                    return kind, meant[kind], length, None
        return None

    def _of_a_part(self, tokens: list[Token], at: int, meant: Mapping[Kind, str], context: Context) -> bool:
        """Whether a word that leads to another, or says nothing by itself, does so here: `sore hips`, where
        `sore` alone is said of somebody."""
        plain = tokens[at].plain
        leads = not context and (plain,) in self.lexicon.contexts
        if not leads and plain not in self.lexicon.whole:
            return False
        if plain not in self.lexicon.whole and "health" not in meant:
            return True
        if at + 1 < len(tokens) and self._is_mistyped(tokens[at + 1].plain):
            return True  # "sore sholders"
        others = (*tokens[max(0, at - 3) : at], *tokens[at + 1 : at + 3])
        said = [(one.plain,) for one in others] + [(one.plain, two.plain) for one, two in pairwise(others)]
        return any(self.lexicon.phrases.get(one, {}).keys() & _BODILY for one in said)

    def _is_mistyped(self, plain: str) -> bool:
        """Whether a word is none that is known here, or of every day."""
        known = (plain,) in self.lexicon.phrases or (plain,) in self.lexicon.contexts
        return not (known or len(plain) < 5 or self._says_nothing(plain) or self.lexicon.is_common(plain))

    def _of_a_kind(self, meant: Mapping[Kind, str]) -> bool:
        """Whether a phrase, said of several, is a group: `backbends`, and not `splits`, which is one."""
        if not {"group", "movement"} <= meant.keys() or "prop" in meant:
            return False
        movement = self.teaching_data.library.get(meant["movement"])
        return movement is not None and not movement.name.endswith("s")

    def _sore_to(self, tokens: list[Token], at: int) -> int:
        """Where a part of the body that begins here and that no rule is for ends with its complaint: `thighs
        hurt`; 0 where there is none."""
        for length in range(min(LONGEST, len(tokens) - at), 0, -1):
            meant = self.lexicon.phrases.get(tuple(token.plain for token in tokens[at : at + length]))
            if meant is not None:
                until = complaint_to(self.lexicon, tokens, at + length)
                sore = until > at + length and "area" in meant and not meant.keys() & {"part", "condition"}
                sore = sore and tokens[until - 2].plain != "the"  # "hamstrings are the problem": about them
                return until if sore else 0
        return 0

    def _worse(self, tokens: list[Token], end: int) -> tuple[tuple[Kind, str] | None, int] | None:
        """Where a complaint that ends here is worse, which is then left out, and where that ends: `dizzy when
        lying flat`. Nothing to leave out where nobody knows the words: it asks. None where none follow."""
        at, says_when = end, False
        while at < len(tokens) and (
            tokens[at].plain in WORSE or (at > end and self._says_nothing(tokens[at].plain))
        ):
            says_when = says_when or tokens[at].plain in WHEN
            at += 1
        if at == len(tokens) or (at == end and tokens[end - 1].plain not in FEELS):
            return None
        read = self._read(tokens, at, "without", "", True)
        if says_when and (read is None or read[0] in ("part", "area")):
            read = self._mistyped(tokens, at, "without", True)
            if read is None or read[0] != "group":
                return None, len(tokens)
        if read is None or read[0] not in ("group", "movement"):
            return None
        kind, key, length, _ = read
        if kind == "movement" and length == 1 and tokens[at].plain in EVERY_DAY:
            return (None, len(tokens)) if says_when else None
        return (kind, key), at + length

    def _tried(self, context: Context, soft: Context, first: bool) -> Iterable[Kind]:
        """What is tried, in its order."""
        anything = () if first and context in STRICT else READS[""]
        return (*(GOES_ON[soft] if soft and not context else ()), *READS[context], *anything)

    def _is_of_every_day(self, kind: Kind, phrase: Phrase, context: Context) -> bool:
        """Whether a movement's name is no more than a word here: alone, and nothing says that it is meant."""
        if kind != "movement" or context in ("without", "towards", "with"):
            return False
        return len(phrase) == 1 and (phrase[0] in self.lexicon.fillers or phrase[0] in EVERY_DAY)

    def _context(self, tokens: list[Token], at: int) -> tuple[Context, int] | None:
        for length in range(min(5, len(tokens) - at), 0, -1):
            phrase = tuple(token.plain for token in tokens[at : at + length])
            if phrase in self.lexicon.contexts:
                return self.lexicon.contexts[phrase], at + length
        return None

    def _unknown_to(self, tokens: list[Token], at: int, context: Context, soft: Context) -> int:
        """Where the words that are not understood end."""
        at += 1
        while at < len(tokens):
            known = self._read(tokens, at, context, soft) or self._mistyped(tokens, at, context)
            if tokens[at].plain in AND or self._context(tokens, at) is not None or known is not None:
                break
            at += 1
        return at

    def _mistyped(self, tokens: list[Token], at: int, context: Context, first: bool = False) -> Read | None:
        """What a mistyped word, or two, is like, where that may follow here."""
        plain = tokens[at].plain
        two = f"{plain} {tokens[at + 1].plain}" if at + 1 < len(tokens) else ""
        for length, text in ((2, two), (1, plain)):
            if not text or (length == 1 and plain in self.lexicon.fillers):
                continue
            strict = READS[context] if context in STRICT and first else ()
            phrase = self.lexicon.near(text, length == 2, strict)
            meant = self.lexicon.phrases.get(phrase, {}) if phrase else {}
            if phrase and self.lexicon.is_common(text):
                if not of_one_stem(text, " ".join(phrase)):
                    continue  # "a prison" is no slip for Parkinson's
                meant = {kind: key for kind, key in meant.items() if kind not in HEALTH}
            for kind in self._tried(context, "", first):
                harder = meant.get(kind) in HARDER  # nobody is worked harder for a slip of the pen
                if kind in meant and not harder and not (kind == "movement" and context in ("", "for")):
                    return kind, meant[kind], length, phrase
        return None


def _joined(wishes: Iterator[Wish]) -> Iterator[Wish]:
    """The wishes, an audience in several words once, as a whole."""
    known = list(wishes)
    whole = [wish for wish in known if wish.kind == "audience" and not wish.text]
    for wish in known:
        if wish.kind == "audience" and any(wish.key in one.key for one in whole if one is not wish):
            continue
        named = msgspec.structs.replace(wish, text=wish.key) if wish.kind == "audience" else wish
        if named.text.strip():
            yield named


def _asked_together(wishes: Sequence[Wish], text: str) -> list[Wish]:
    """The wishes, words that ask and stand side by side as one question: `prostate surgery recovery`."""
    told = list[Wish]()
    for wish in wishes:
        both = f"{told[-1].text} {wish.text}" if told and told[-1].asks and wish.asks else ""
        if both and both.lower() in text.lower():
            told[-1] = msgspec.structs.replace(told[-1], text=both, could=told[-1].could or wish.could)
        else:
            told.append(wish)
    return told


def _told_once(wishes: list[Wish]) -> list[Wish]:
    """Pregnancy once: as the month that was told, else as if late."""
    late = any(_LATE.search(wish.text) for wish in wishes if wish.key == "pregnancy")
    if {"pregnancy", "pregnancy-first"} <= {wish.key for wish in wishes} and not late:
        return [wish for wish in wishes if wish.key != "pregnancy"]
    return wishes
