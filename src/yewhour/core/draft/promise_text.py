"""A promise in words: `25-minute gentle hatha for the crew, evening, about hips, a block at hand`."""

import re
from collections.abc import Iterator, Mapping, Sequence

import msgspec

from yewhour.core.draft.draft_model import PromiseWords
from yewhour.core.library.movement import Library
from yewhour.core.library.names import plain_name
from yewhour.core.plan.plan import Brief
from yewhour.core.plan.vocabulary import LEVELS, Vocabulary, looked_up
from yewhour.core.problem import Problem

_NUMBERS = {
    "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9, "ten": 10, "twelve": 12,
    "fifteen": 15, "eighteen": 18, "twenty": 20, "twenty-five": 25, "thirty": 30,
    "thirty-five": 35, "forty": 40, "forty-five": 45, "fifty": 50,
    "sixty": 60, "seventy-five": 75, "ninety": 90,
}  # fmt: skip
_WORDED = "|".join(sorted((name.replace("-", "[- ]") for name in _NUMBERS), key=len, reverse=True))
_HOURS = {
    "an hour and a half": 90, "an hour and a quarter": 75, "three quarters of an hour": 45,
    "half an hour": 30, "half hour": 30, "a quarter of an hour": 15, "an hour": 60, "one hour": 60,
}  # fmt: skip
_LENGTH = re.compile(
    rf"\b(?:an?\s+)?(\d{{1,3}}|{_WORDED})[\s-]*(?:minutes?|mins?|min)\b|\b({'|'.join(_HOURS)})\b", re.I
)
# What is to be spared, however it is put: a sore knee must never become what a class is about.
_MIND = re.compile(
    r"\b(?:mind(?:ing)?|careful with|easy on|spar(?:e|ing)|protect(?:ing)?|bad|sore|tender|painful|injured"
    r"|hurt|aching)\s+(?:the\s+|their\s+|my\s+)?"
)
_HURTS = re.compile(
    r"\b((?:(?:low|lower|upper)\s+)?\w+)\s+(?:pains?|aches?|trouble|problems?|injur\w+|hurts?)\b"
)
_TIRED = re.compile(r"^(?:(?:tired|stiff|tight)\s+)+")
_ARTICLES = re.compile(r"^(?:an?|the|some|my|two)\s+", re.I)
_FILLERS = frozenset("a an the class practice session please of and in at for to by on yoga".split())  # noqa: SIM905


class ParsedPromise(msgspec.Struct, frozen=True):
    """What was understood: the promise, movements that are not wanted, and words that mean nothing here."""

    brief: Brief
    without: frozenset[str] = frozenset()
    not_understood: tuple[str, ...] = ()


def read_promise(
    text: str,
    known: Vocabulary,
    areas: Mapping[str, str],
    said: PromiseWords,
    library: Library,
    brief: Brief | None = None,
) -> ParsedPromise:
    """A promise that was typed, over a brief that has the rest. Raises Problem for a text that says nothing.

    areas: tag -> name. said: other words for styles, levels, areas and times.
    """
    if not text.strip():
        raise Problem("Nothing is promised yet.", "the promise", "Say: 25-minute gentle hatha about hips.")
    reader = _PromiseReader(known, areas, said, library)
    fields: dict[str, object] = {}
    without: set[str] = set()
    left: list[str] = []
    if found := _LENGTH.search(text):
        fields["target_s"] = _minutes(found[1] or "", found[2] or "") * 60.0
        text = text[: found.start()] + " " + text[found.end() :]
    for part in re.split(r"[,;.]|\s-\s", text):
        left += reader.part(" ".join(part.split()), fields, without)
    if not fields and not without:
        do = "Say: 25-minute gentle hatha about hips."
        raise Problem(f"Nothing in {text.strip()[:60]!r} is a promise.", "the promise", do)
    read = msgspec.structs.replace(brief or Brief(), **fields)
    if "title" not in fields and (brief is None or brief.title == Brief().title):
        read = msgspec.structs.replace(read, title=title_of(read, areas))
    return ParsedPromise(read, frozenset(without), tuple(left))


def _minutes(number: str, hours: str) -> int:
    """Minutes of a number in figures or words, or of so much of an hour."""
    if hours:
        return _HOURS[hours.lower()]
    return int(number) if number.isdigit() else _NUMBERS[number.lower().replace(" ", "-")]


class _PromiseReader:
    def __init__(
        self, known: Vocabulary, areas: Mapping[str, str], said: PromiseWords, library: Library
    ) -> None:
        self.styles = {**{plain_name(one): style for one, style in said.styles.items()}, **known.styles}
        self.levels = {**{one: one for one in LEVELS}, **said.levels}
        self.times = said.times
        self.areas = {plain_name(name): tag for tag, name in areas.items()}
        self.areas |= {plain_name(tag): tag for tag in areas} | {
            plain_name(one): tag for one, tag in said.areas.items()
        }
        self.known = known
        self.library = library
        self.listing = ""  # the list that the last part was of, and this one may go on with

    def part(self, text: str, fields: dict[str, object], without: set[str]) -> Iterator[str]:
        """Takes what one part of the sentence says; gives back the words that mean nothing."""
        text = _HURTS.sub(r"sore \1", text)
        low = text.lower()
        before, self.listing = self.listing, ""
        names = {"props": self.known.props, "cautions": self.known.cautions}.get(before, {})
        if low and names and all(plain_name(one) in names for one in _words_of(re.sub(r"^and\s+", "", low))):
            more = self._listed(re.sub(r"^and\s+", "", low), before.rstrip("s"), names)
            fields[before] = tuple(dict.fromkeys((*fields.get(before, ()), *more)))  # type: ignore[misc]
            self.listing = before
            return
        if found := re.match(r"(?:called|titled)\s+(.+)", text, re.I):
            fields["title"] = found[1].strip("\"' ")
        elif found := _MIND.search(low):
            minded, rest = self._minded(low[found.end() :])
            fields["cautions"] = tuple(dict.fromkeys((*fields.get("cautions", ()), *minded)))  # type: ignore[misc]
            self.listing = "" if rest else "cautions"
            yield from self._free(f"{text[: found.start()]} {rest}", fields)
        elif low in ("no props", "nothing at hand"):
            fields["props"] = ()
        elif found := re.match(r"(?:without|not|no|skip|leave out)\s+(?:the\s+)?(.+)", low):
            without |= {self._movement(one) for one in _words_of(found[1])}
        elif found := re.match(r"(.+?)\s+(?:at hand|to hand|ready)$", low):
            fields["props"] = self._listed(found[1], "prop", self.known.props)
        elif low:
            if found := re.search(r"\b(?:without|but not)\s+(?:the\s+)?(.+)$", low):
                without |= {self._movement(one) for one in _words_of(found[1])}
                text = text[: found.start()]
            yield from self._free(text, fields)

    def _minded(self, text: str) -> tuple[tuple[str, ...], str]:
        """The cautions that a text begins with, and what follows them. Raises Problem where there is none."""
        words = text.split()
        for end in range(len(words), 0, -1):
            head = " ".join(words[:end])
            if all(plain_name(one) in self.known.cautions for one in _words_of(head)) and _words_of(head):
                return self._listed(head, "caution", self.known.cautions), " ".join(words[end:])
        return self._listed(text, "caution", self.known.cautions), ""

    def _listed(self, text: str, what: str, names: Mapping[str, str]) -> tuple[str, ...]:
        found = []
        for one in _words_of(text):
            two = f"two {one}" if re.search(rf"\btwo {re.escape(one)}", text) else ""
            found.append(
                names[plain_name(two)] if two and plain_name(two) in names else looked_up(what, one, names)
            )
        return tuple(dict.fromkeys(found))

    def _movement(self, name: str) -> str:
        wanted = plain_name(name)
        exact = [m.id for m in self.library.values() if wanted in map(plain_name, (m.id, m.name, *m.aliases))]
        near = [m.id for m in self.library.values() if f" {wanted} " in f" {plain_name(m.name)} "]
        if not exact and not near:
            raise Problem(
                f"There is no movement {name!r}.", "the promise", "Write its name as in the library."
            )
        return (exact or near)[0]

    def _free(self, text: str, fields: dict[str, object]) -> Iterator[str]:
        """Style, level, time, whom and what about, wherever they stand in a part."""
        if found := re.search(r"\b(?:with|using)\s+(.+)$", text, re.I):
            fields["props"] = self._listed(found[1].lower(), "prop", self.known.props)
            self.listing = "props"
            text = text[: found.start()]
        if found := re.search(r"\babout\s+(.+)$", text, re.I):
            fields["focus"] = self._focus(found[1])
            text = text[: found.start()]
        if found := re.search(r"\bfor\s+(.+)$", text, re.I):
            whom = found[1].strip()
            level = self.levels.get(whom.lower())
            about = [self.areas.get(plain_name(_TIRED.sub("", one.lower()))) for one in _words_of(whom)]
            if all(about):
                for one in about:
                    self._add(fields, "focus", str(one))
            else:
                fields["level" if level else "audience"] = level or whom
            text = text[: found.start()]
        rest = f" {plain_name(text)} "
        for names, field in ((self.styles, "style"), (self.levels, "level"), (self.times, "time_of_day")):
            for name in sorted(names, key=len, reverse=True):
                if f" {plain_name(name)} " in rest:
                    fields[field] = names[name]
                    if plain_name(name) in self.known.props:  # a chair class has a chair
                        self._add(fields, "props", self.known.props[plain_name(name)])
                    rest = rest.replace(f" {plain_name(name)} ", " ", 1)
                    break
        for field, named in (("focus", self.areas), ("props", self.known.props)):
            there: list[tuple[int, str]] = []
            for name in sorted(named, key=len, reverse=True):
                if (at := rest.find(f" {name} ")) >= 0:
                    there.append((at, named[name]))
                    rest = rest.replace(f" {name} ", f" {' ' * len(name)} ", 1)
            for _, one in sorted(there):
                self._add(fields, field, one)
        words = [word for word in rest.split() if word not in _FILLERS]
        if words:
            yield " ".join(words)

    @staticmethod
    def _add(fields: dict[str, object], field: str, one: str) -> None:
        """Adds to what a list of the promise has already."""
        fields[field] = tuple(dict.fromkeys((*fields.get(field, ()), one)))  # type: ignore[misc]

    def _focus(self, text: str) -> tuple[str, ...]:
        found = []
        for one in _words_of(text):
            tag = self.areas.get(plain_name(one))
            if tag is None:
                known = ", ".join(dict.fromkeys(self.areas.values()))
                raise Problem(f"There is no area {one!r}.", "the promise, about", f"Use one of: {known}.")
            found.append(tag)
        return tuple(dict.fromkeys(found))


def _words_of(text: str) -> list[str]:
    """The words of a list: `a block and a strap`."""
    parts = re.split(r"\s+and\s+|\s*&\s*|\s*/\s*|\s+or\s+", text.strip())
    return [_ARTICLES.sub("", part.strip()) for part in parts if part.strip()]


def title_of(brief: Brief, areas: Mapping[str, str]) -> str:
    """A title for a class that was given none: what it is about, and when."""
    when = {"morning": "in the morning", "midday": "at midday", "evening": "in the evening",
            "night": "before sleep"}.get(brief.time_of_day, "")  # fmt: skip
    about = _and([areas.get(one, one) for one in brief.focus]) or "The whole body"
    title = f"{about[:1].upper()}{about[1:]}"
    return f"{title} {when}".strip()


def _and(names: Sequence[str]) -> str:
    return ", ".join(names[:-1]) + (" and " if len(names) > 1 else "") + names[-1] if names else ""
