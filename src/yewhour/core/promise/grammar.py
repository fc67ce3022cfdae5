"""The grammar of a promise: what each context may be followed by; its stops, numbers and lengths."""

import re
from collections.abc import Iterator, Sequence
from typing import Any, NamedTuple

from yewhour.core.promise.vocabulary import Kind

Context = str  # "", for, with, without, mind, after, about, towards


# What a context may be followed by, in the order it is tried. "" is no context.
READS: dict[Context, tuple[Kind, ...]] = {
    "": (
        "condition", "health", "begins", "length", "time", "level", "style", "prop", "area", "everyday",
        "unmet", "movement", "group",
    ),
    "mind": ("condition", "part", "health"),
    "after": ("condition", "everyday", "time", "health", "part"),
    "without": (
        "group", "ways", "prop", "movement", "condition", "part", "health", "unmet", "area", "style", "level",
        "everyday",
    ),
    "with": (
        "condition", "health", "prop", "everyday", "movement", "unmet", "area", "group", "style", "time",
        "level",
    ),
    "about": ("condition", "health", "area", "everyday", "group", "movement", "style", "time"),
    "for": (
        "condition", "health", "everyday", "level", "time", "area", "group", "style", "prop", "movement",
        "unmet", "length",
    ),
    "towards": ("movement", "group", "condition", "health", "everyday", "area", "time", "style", "level"),
}  # fmt: skip
# What a list may go on with behind a comma, and what leaves the context it comes in.
GOES_ON: dict[Context, tuple[Kind, ...]] = {
    "mind": ("condition", "part", "health"), "without": ("group", "movement", "part", "ways"),
    "with": ("prop", "movement"), "about": ("area", "group"),
}  # fmt: skip
LEAVES: frozenset[Kind] = frozenset(("begins", "style", "level", "everyday", "time", "length"))
# After these, what comes first must be what they are about: health, or what is to be left out.
STRICT = ("mind", "without", "after")
# What ends what is not wanted, once something is named: "no sit-ups pilates".
ENDS: frozenset[Kind] = frozenset(("style", "level", "time", "unmet", "everyday"))
CALLED = re.compile(r"\b(?:called|titled|named)\s+(.+)$", re.IGNORECASE | re.DOTALL)
BREAKS = re.compile(r"[,;.()!?:]|\s[-\u2013\u2014]\s|\s(?:just|instead)\s")
SENTENCES = re.compile(
    r"(?<!\bmin)(?<!\bmins)[.!?]\s+"
)  # no list goes on over one: "hate pigeon. Love lunges"
REASONS = re.compile(r"\b(?:because|'cause|cos)\b", re.IGNORECASE)
AT_HAND = re.compile(
    r"\b(?:(?:at|to)\s+hand|(?:on\s+)?(?:both|each|either)\s+sides?"
    r"|(?:no|not)\s+(?:more|longer|less)\s+than|not\s+(?:only|just))\b",
    re.IGNORECASE,
)
# What may stand between a part of the body and its complaint: "my knees are rubbish".
BETWEEN = frozenset(
    ("is", "are", "the", "that", "which", "feel", "feels", "get", "gets", "a", "bit", "really", "very",
     "quite", "so", "too", "always", "in", "still", "now", "has", "have", "been", "was", "were",
     "go", "goes", "going", "do", "does")
)  # fmt: skip
# What stands between a complaint and where it is worse: "dizzy when lying flat", "sore knees in pigeon".
WHEN = frozenset(("when", "whenever", "while", "if"))
WORSE = WHEN | {"in", "during", "doing"}
# Complaints that are so somewhere without such a word: "dizzy lying down".
FEELS = frozenset(
    ("dizzy", "giddy", "lightheaded", "headed", "breathles", "breathless", "nauseous", "faint", "sick",
     "hurt", "hurting", "ache", "aching", "pain", "painful", "flare", "flaring", "worse", "click", "clicking",
     "cramp", "cramping", "lock", "locking", "unstable", "numb", "burn", "tingle", "tingling", "throb",
     "throbbing", "sting", "spasm", "swell", "give")
)  # fmt: skip
# What something does to who does it, "kneeling hurts", "twists bother my back"; and what it is for her.
HURTING = frozenset(
    ("hurt", "hurting", "ache", "aching", "painful", "pain", "bother", "aggravate", "irritate", "flare",
     "trigger", "upset", "worsen", "injure")
)  # fmt: skip
# "standing makes her dizzy", "folds give me a headache"
MAKES = frozenset(("make", "give", "leave", "cause", "bring"))
MADE = FEELS | {"headache", "migraine", "vertigo", "sore"}
BEYOND = frozenset(
    ("hard", "difficult", "impossible", "bad", "out", "tricky", "uncomfortable", "unsafe", "agony",
     "forbidden", "beyond", "problem")
)  # fmt: skip
OUT_OF_BOUNDS = frozenset(("bad", "impossible", "unsafe", "agony", "forbidden", "out"))  # "heat bad"
WORSENED = "worse"  # "heat makes me worse", and whom or what it makes so
SOMEBODY = frozenset(("me", "it", "her", "him", "them", "thing", "this", "that", "much", "a", "lot"))
WELL = frozenset(("fine", "ok", "okay", "alright", "healthy"))  # said by themselves: "wrists ok"
FINE = WELL | {"good", "great"}  # "my wrists are fine"
# "kneeling is not possible for me", "twists don't suit me": what is not so of what is left out then.
NOT_DONE = frozenset(
    ("possible", "option", "ok", "okay", "good", "great", "fine", "comfortable", "easy", "allowed", "safe",
     "nice", "doable", "work", "suit", "agree", "advisable", "recommended", "permitted", "right",
     "happy", "strong", "wanted", "welcome", "needed")
)  # fmt: skip
NOT_FINE = frozenset(("not", "arent", "isnt", "never"))  # "... but my knees are not"
# What a complaint that sits somewhere ends with: behind it a part of the body is where it sits.
LOCAL = (
    "rheumatoid",
    "itis",
    "oedema",
    "edema",
    "eczema",
    "neuropathy",
    "sprain",
    "strain",
    "tear",
    "arthrosis",
)
RECOVERING = frozenset(("recovery", "rehab", "rehabilitation", "aftercare"))  # from what stands before it
SIDES = frozenset(("left", "right", "both", "side"))
OF_WHOM = SIDES | {"my", "her", "his", "their", "the"}
RADIATING = frozenset(("down", "into"))  # "sciatica down the leg": a side or not, it is the complaint's
LEADING = RADIATING | {"in", "of", "on"}
CANNOT = frozenset(("cant", "cannot", "dont", "doesnt", "wont"))
# Said before whom a class is for; a part of who they are, where more is told: "women over fifty".
ARTICLES = frozenset(("the", "a", "an", "my", "our"))  # before those a class is for
COMPANIES = frozenset(("team", "crew", "club", "squad", "group", "society"))  # of those it is for
PERSONS = frozenset(
    ("woman", "women", "man", "men", "lady", "ladies", "people", "adult", "folk", "guy", "mum", "dad",
     "friend")
)  # fmt: skip
FREE = frozenset(("free", "les", "less", "fewer"))  # "twist-free", "I want to kneel less": without
PREPARED = "prep"  # "crow prep": towards it
AND = frozenset(("and", "or", "&", "nor"))

# Names of movements that alone are words of every day: they need a word before them to be meant.
EVERY_DAY = frozenset(
    (
        "sit", "rest", "child", "cat", "cow", "chair", "table", "mountain", "hero", "staff", "square", "deer",
        "easy", "sage", "wave", "swim", "swan", "gate", "dog",
    )
)  # fmt: skip
_NUMBERS = {
    "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9,
    "ten": 10, "eleven": 11, "twelve": 12, "thirteen": 13, "fourteen": 14, "fifteen": 15, "sixteen": 16,
    "seventeen": 17, "eighteen": 18, "nineteen": 19, "twenty": 20, "thirty": 30, "forty": 40, "fourty": 40,
    "fifty": 50, "sixty": 60, "seventy": 70, "eighty": 80, "ninety": 90,
}  # fmt: skip
_UNITS = "|".join(word for word, number in _NUMBERS.items() if number < 10)
_TENS = "|".join(word for word, number in _NUMBERS.items() if number >= 20 and number % 10 == 0)
WORDED = rf"(?:(?:{_TENS})[- ](?:{_UNITS})|{'|'.join(sorted(_NUMBERS, key=len, reverse=True))})"
NUMBER = rf"(?:\d{{1,3}}(?:\.\d+)?|{WORDED})"
_HOUR, _MINUTES = r"(?:hours?|hrs?|h)(?![a-z])", r"(?:minutes?|mins?|min|m)\b"
LENGTHS = tuple(
    re.compile(pattern, re.IGNORECASE)
    for pattern in (
        rf"\b(?:an|one|1) hour and (?:(?:a )?(?P<and>half|quarter|three quarters)"
        rf"|(?P<more>{NUMBER})[\s-]*min\w*)",
        rf"\b(?P<half>{NUMBER}) and a half hours?\b",
        rf"\b(?P<hours>{NUMBER})[\s-]*{_HOUR}"
        rf"(?:\s*(?:and\s+)?(?P<minutes>{NUMBER})[\s-]*(?:min\w*|m)\b|(?P<bare>\d\d)\b)?",
        r"\b(?:three[- ]quarters of an hour|three[- ]quarter hour)\b(?P<three>)",
        r"\b(?:a )?half[- ](?:an |a )?(?:hour|hr)\b(?P<thirty>)",
        r"\b(?:a )?quarter (?:of an )?hour\b(?P<fifteen>)",
        r"\b(?:an|one|the|full) hour\b(?P<sixty>)|\bhour[- ]long\b(?P<long>)",
        r"(?<!lunch )(?<!happy )\bhour\b(?P<alone>)",
        rf"\b(?:an?\s+)?(?P<low>{NUMBER})(?:\s*[-\u2013]\s*(?=\d)|\s+(?:to|or)\s+)"
        rf"(?P<high>{NUMBER})[\s-]*{_MINUTES}",
        rf"\b(?:an?\s+)?(?P<mins>{NUMBER})[\s-]*(?:minutes?|mins?|min|m|')(?![a-z])",
        r"\b(?P<clock>\d{1,2}:\d\d)\b",
    )
)


def pieces_of(text: str) -> Iterator[tuple[bool, str]]:
    """The pieces between the stops of a text, and whether each begins a sentence."""
    for sentence in SENTENCES.split(text):
        for place, piece in enumerate(BREAKS.split(sentence)):
            yield place == 0, piece


def is_number(word: str) -> bool:
    """Whether a word is a number, in figures or words."""
    return word in _NUMBERS or word[0].isdigit()


def number_of(text: str) -> float:
    """A number in figures or words."""
    text = text.lower().replace("-", " ")
    return float(text) if text[0].isdigit() else float(sum(_NUMBERS[word] for word in text.split()))


_CLOCK = r"(\d{1,2})(?:[:.](\d\d))?\s*(am|pm|a\.m\.|p\.m\.|o'clock)?"
_WHEN = re.compile(
    rf"\b(?:at |from )?{_CLOCK}\s*(?:-|–|to|till|until)\s*{_CLOCK}(?![\w:.])|\b(at )?{_CLOCK}(?![\w:.])",
    re.IGNORECASE,
)
# Until which hour it is which time of day.
DAY = ((4, "night"), (10, "morning"), (15, "midday"), (17, ""), (21, "evening"), (24, "night"))


class ClockTime(NamedTuple):
    """When a class is, as a promise says it: where in the text, the time of day, and how long, or 0."""

    start: int
    end: int
    time: str
    long_s: float


def clock_in(text: str) -> ClockTime | None:
    """The first time by the clock in a text: "at 18:30", "7 am", "7:30 to 8:15"."""
    for found in _WHEN.finditer(text):
        first, until = found.group(1, 2, 3), found.group(4, 5, 6)
        if first[0] is None:
            first, until = found.group(8, 9, 10), (None, None, None)
            if not (first[2] or (found[7] and first[1])):
                continue
        elif not ((first[1] and until[1]) or first[2] or until[2]):
            continue  # "from 15 to 30 minutes"
        begins, ends = _minute(first, until[2]), _minute(until, "") if until[0] else 0
        if begins < 24 * 60:
            time = next(name for hour, name in DAY if begins < 60 * hour)
            return ClockTime(found.start(), found.end(), time, 60.0 * max(0, ends - begins))
    return None


def _minute(clock: Sequence[Any], other: str | None) -> int:
    """The minute of the day of an hour, a minute and a half of the day; other: that of what it goes on to."""
    hour, half = int(clock[0]), (clock[2] or other or "").lower()
    if half.startswith("p") and hour < 12:
        hour += 12
    return 60 * hour + int(clock[1] or 0)


def length_in(text: str) -> tuple[int, int, float] | None:
    """(start, end, seconds) of the first length in a text, in hours, minutes, or parts of an hour."""
    found = min(
        (one for pattern in LENGTHS if (one := pattern.search(text))),
        key=lambda one: (one.start(), -one.end()),
        default=None,
    )
    if found is None:
        return None
    got = {name: value for name, value in found.groupdict().items() if value is not None}
    parts = {"half": 30, "quarter": 15, "three quarters": 45}
    if "and" in got:
        minutes = 60.0 + parts[got["and"].lower()]
    elif "more" in got:
        minutes = 60.0 + number_of(got["more"])
    elif "half" in got:
        minutes = 60 * number_of(got["half"]) + 30
    elif "hours" in got:
        minutes = 60 * number_of(got["hours"]) + number_of(got.get("minutes") or got.get("bare") or "0")
    elif "low" in got:
        minutes = number_of(got["high"])
    elif "mins" in got:
        minutes = number_of(got["mins"])
    elif "clock" in got:
        whole, seconds = got["clock"].split(":")
        return found.start(), found.end(), int(whole) * 60.0 + int(seconds)
    else:
        said = {"three": 45, "thirty": 30, "fifteen": 15}
        minutes = float(next((said[name] for name in got if name in said), 60))
    return found.start(), found.end(), minutes * 60
