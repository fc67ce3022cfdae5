"""The numbers of a promise: ages, weeks, times by the clock, lengths, and those that stand by themselves."""

import re
from collections.abc import Callable, Iterator, Sequence

from yewhour.core.promise.grammar import NUMBER, clock_in, number_of
from yewhour.core.promise.lately import since_in
from yewhour.core.promise.lengths_said import lengths_of, long_wish, told_lengths
from yewhour.core.promise.meanings import Meanings
from yewhour.core.promise.wishes import Wish

_OF_PREGNANCY = r"(?:pregnant|gone|along|into pregnancy|of pregnancy|into my pregnancy)"
_WEEKS = re.compile(rf"\b({NUMBER})[- ]weeks?[- ]{_OF_PREGNANCY}", re.IGNORECASE)
_MONTHS = re.compile(rf"\b({NUMBER})(?:st|nd|rd|th)?[- ]months?[- ]{_OF_PREGNANCY}", re.IGNORECASE)
_BORN = re.compile(
    rf"\b({NUMBER})[- ](?:weeks?|months?)[- ]"
    r"(?:postpartum|postnatal|after (?:the |a |my )?birth|after (?:having )?(?:the |a |my )?baby)"
    rf"|\b(?:baby|birth|born)\b(?:\W+(?:is|was|just|now|only|about|almost|nearly|came|born|turned)\b)*\W+"
    rf"{NUMBER}[- ](?:weeks?|months?)(?:[- ](?:old|ago))?",
    re.IGNORECASE,
)
# Weeks by themselves, of a number that no course has: "38 weeks, gentle".
_FAR_ALONG = re.compile(
    r"(?:^|[,|;]|\b(?:i'm|i am|she's|she is|at))\s*((?:1[4-9]|2\d|3\d|4[0-2])) weeks\s*(?=$|[,|;.])",
    re.IGNORECASE,
)
_AGE = re.compile(
    r"\b(?:(?:(?<!all )over|aged|age|past|above)\s+(?:the age of\s+)?(\d\d)s?|(\d\d)\s*\+"
    rf"|({NUMBER})(?:\s*(?:-|to)\s*{NUMBER})?[- ]years?[- ]olds?"
    r"|\b(?:in (?:their|her|his|my|our|the)|for)\s+(?:early |mid|late )*[- ]?([6-9]0)'?s\b"
    r"|(?:who is|who's|she is|she's|he is|he's|i am|i'm|of|parents?|mum|mom|mother|dad|father|gran\w*"
    r"|aunt|uncle|lady|i'm)(?: is|'s)?\W{1,3}(6[5-9]|[7-9]\d)\b"
    r"(?![\d:'’%]|[ -]*(?:min|m\b|sec|hour|breath|rep|times|weeks?|days?|kg|bpm)))",
    re.IGNORECASE,
)
_BARE_NUMBER = re.compile(r"(?:^|[,|;])\s*(\d{1,3})\s*(?=$|[,|;.])")
# "flow 45", "core in 20": at the end of what is said, and nothing that is counted.
_A_DAY = "|".join(
    f"(?<={how} {when})"
    for how in ("bad", "ard", "ong", "usy", "avy", "ful", "ugh")
    for when in ("day", "week")
)
_LAST_NUMBER = re.compile(
    rf"(?:(?<!\bclass)|(?<=\w class))(?:(?<!\bweek)(?<!\bday)|{_A_DAY})(?<!\bpart)(?<!\bnumber)"
    r"(?:(?<!\blesson)|(?<=\w lesson))(?<!\bage)(?<!\bkids)(?<!\bchildren)(?<!\baged)"
    r"(?<!\blevel)(?<!\bgrade)(?<!\byear)(?:(?<!\bgroup)|(?<=\w group)(?<!\bage group))(?<!\bof)(?<!\bto)"
    r"(?:(?<!\bover)|(?<=\ball over))(?<!\bunder)(?<!\bfor)"
    r"(?<!\d)\s([5-9]|1\d|[2-9]\d|1[0-2]\d)\s*(?=$|[,|;:.(!?]|\s(?:no|without|in total|in all|altogether)\b)",
    re.IGNORECASE,
)
# "flow 40 to crow", "hatha 30 shoulders": in between, and nothing of which there are so many.
_NUMBER_BETWEEN = re.compile(
    r"(?:^|(?<!\w)(?!(?:week|part|day|number|lesson|age|aged|over|under|for|of|class|past|above|turning)\b)"
    r"[a-z][\w'-]*\s+|[,;(]\s*|[.!?)]\s+)([1-9][05])(?=\s+(?!(?:people|persons?|women|men|kids|children|students|clients|pupils|members"
    r"|participants|ladies|teenagers|breaths?|reps?|rounds?|times|x|percent|degrees|sun|squats|somethings?|years?"
    r"|weeks?|days?|months?|kg|plus|yo|and|or|of|to \d)\b)[a-z])",
    re.IGNORECASE,
)
# "alternate nostril 12 for focus", "halloween kids 20": of minutes, whatever it is for, and however old.
_NUMBER_LED = re.compile(
    r"(?<!\w)(?!(?:week|part|day|number|lesson|age|aged|over|under|for|of|class|past|above|turning|level|year)\b)"
    r"[a-z][\w'-]*\s+([5-9]|[1-9]\d)(?=\s+(?:for|with|about|towards)\s+[a-z])",
    re.IGNORECASE,
)
_NUMBER_OF_NO_AGE = re.compile(r"\b(?:kids|children)\s+(1[5-9]|[2-9]\d)\s*(?=$|[,|;.(!?])", re.IGNORECASE)
_NUMBERS_OF_MINUTES = (_LAST_NUMBER, _NUMBER_BETWEEN, _NUMBER_LED, _NUMBER_OF_NO_AGE)
_NUMBER_FOR = re.compile(r"\bfor (\d\d)(?=\s+(?:with|who|and|without)\b|\s*(?:$|[,|;.]))", re.IGNORECASE)
_COUNTED = re.compile(
    r"\b(?:(?:week|class|part|day|number|lesson|session)s? )?(?<![\d.:])(\d{1,9})\b(?![\d.:])", re.I
)
LEAST_MIN, MOST_MIN = 3, 180  # that a number by itself is taken for
_BARE_AGE = re.compile(r"(?:^|[,|;])\s*(6[5-9]|[7-9]\d)\s*(?=$|[,|;.])")
OLD, TEEN, GROWN = 65, 13, 18


class PromiseNumbers:
    """Reads what is a number in a promise. meanings: what they are taken for."""

    def __init__(self, meanings: Meanings) -> None:
        self._meanings = meanings

    def read(self, text: str) -> tuple[list[Wish], str]:
        """The wishes that numbers make, and the text without them."""
        wishes: list[Wish] = []
        numbered: tuple[tuple[re.Pattern[str], Callable[[re.Match[str]], str]], ...] = (
            (_WEEKS, lambda found: "pregnancy-first" if number_of(found[1]) <= 13 else "pregnancy"),
            (_FAR_ALONG, lambda found: "pregnancy"),
            (_MONTHS, lambda found: "pregnancy-first" if number_of(found[1]) <= 3 else "pregnancy"),
            (_BORN, lambda found: "after-birth"),
            (_AGE, _aged),
        )
        for pattern, tag_of in numbered:
            while (found := pattern.search(text)) and (tag := tag_of(found)):
                wishes.append(self._meanings.condition(found[0], tag))
                text = f"{text[: found.start()]} | {text[found.end() :]}"
        # "10 weeks after an operation" is after it: what heals is minded however long ago it was.
        for start, end, _ in reversed(since_in(text)):
            text = f"{text[:start].rstrip()} {text[end:].lstrip()}"
        long = False
        if (when := clock_in(text)) is not None:
            at = text[when.start : when.end].strip()
            if when.time:
                wishes.append(self._meanings.of(at, "time", when.time, "", None))
            if long := when.long_s > 0:
                wishes.append(long_wish(at, when.long_s))
            text = f"{text[: when.start].rstrip()} {text[when.end :].lstrip()}"
        lengths, text = lengths_of(text)
        alone = _BARE_NUMBER.search(text) is not None  # which may be an age: "30 minutes, 68"
        bare = next(filter(None, (one.search(text) for one in _NUMBERS_OF_MINUTES)), None)
        told, known = told_lengths(lengths, 60.0 * int(bare[1]) if bare and not alone else 0.0, alone)
        wishes += told
        long = long or known
        found = _BARE_AGE.search(text)
        if found and (long or int(found[1]) % 5):  # the length is told already, or none is like that
            wishes.append(self._meanings.condition(found[1], "older"))
            text = f"{text[: found.start(1)]} {text[found.end(1) :]}"
        unsaid = () if long else _NUMBERS_OF_MINUTES
        if found := next(filter(None, (one.search(text) for one in (_BARE_NUMBER, *unsaid))), None):
            # minutes, where none were said; else nobody knows of what
            minutes, why = int(found[1]), "no unit was said; taken for minutes"
            if not long and LEAST_MIN <= minutes <= MOST_MIN:
                wishes.append(long_wish(found[1], 60.0 * minutes, "guessed", why))
            else:
                wishes.append(self._meanings.unknown(found[1], "", False))
            text = f"{text[: found.start(1)]} {text[found.end(1) :]}"
        if found := _NUMBER_FOR.search(text):  # of minutes or of people: nobody knows
            wishes.append(self._meanings.unknown(found[1], "", False))
        return wishes, text

    def left_over(self, text: str, wishes: Sequence[Wish]) -> Iterator[Wish]:
        """The numbers that no wish has: a class of several, how often, of whatever they are."""
        said = " ".join(f"{wish.text} {wish.meaning}" for wish in wishes).lower()
        for start, end, _ in reversed(since_in(text)):
            text = text[:start] + text[end:]
        if "minded: anyone pregnant" in said:
            text = re.sub(r"\d+[- ](?:weeks?|months?)", "", text)
        for found in _COUNTED.finditer(text):
            if not re.search(rf"\b{found[1]}\b", said):
                yield self._meanings.unknown(found[0].strip(), "", False)


def _aged(found: re.Match[str]) -> str:
    """The condition of an age, "" for none."""
    age = number_of(next(one for one in found.groups() if one))
    if found[3] and age < GROWN:
        return "children" if age < TEEN else "teenagers"
    return "older" if age >= OLD or (age >= OLD - 5 and (found[2] or found[4])) else ""
