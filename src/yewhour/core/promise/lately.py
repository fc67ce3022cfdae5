"""What happened lately: how long ago a promise says it was, and whether a doctor has said yes to it.

Soon after a birth, an operation or a heart attack nothing is drafted before somebody is asked: it isn't for a
program to say when a body may begin again. Whoever writes that a doctor has said yes is believed.
"""

import math
import re
from collections.abc import Mapping, Sequence

import msgspec

from yewhour.core.conditions.condition import Condition
from yewhour.core.promise.grammar import NUMBER, number_of
from yewhour.core.promise.wishes import Wish

_DAYS = {"day": 1, "week": 7, "month": 30, "year": 365}
_SOME = {"a couple of": 2.0, "a few": 3.0, "some": 3.0, "several": 4.0, "a": 1.0, "an": 1.0}
_MONTHS = (
    r"january|february|march(?! on\b)|april|may(?! be)|june|july|august|september|october|november|december"
    r"|spring|summer|autumn|winter|christmas|easter"
)
_COUNT = rf"(?P<count>{NUMBER}|a couple of|a few|some|several|an?)"
_SINCE = re.compile(
    rf"\b{_COUNT}[- ]+(?P<unit>day|week|month|year)s?[- ]+"
    r"(?:ago|old|out|(?=(?:after|post|since|on from|following)))"
    r"|\b(?P<last>yesterday|this week|last week|last month|last year|recently|just had)\b"
    rf"|\b(?:since|in|last) (?P<month>{_MONTHS})\b",
    re.IGNORECASE,
)
_LAST = {"yesterday": 1, "this week": 3, "last week": 7, "last month": 30, "last year": 365, "recently": 21,
         "just had": 14}  # fmt: skip
_WHO = (
    r"(?:(?:the|her|his|my|their|our|a) )?"
    r"(?:doctors?|doc|gp|midwife|physio(?:therapist)?|surgeon|consultant|cardiologist|hospital)"
)
_YES = (
    r"(?:ok|okay|okayed it|(?:said|says) (?:yes|ok|okay|fine|all good|it's (?:fine|ok|okay))"
    r"|cleared (?:her|him|me|them|us|it|this)"
    r"|agrees|agreed|go-ahead|permission|blessing|clearance|consent|approved(?: it)?)"
)
_MAY = r"cleared (?:to|for) (?:exercise|yoga|pilates|movement|practi[sc]e|move|start)"
_CLEARED = re.compile(
    r"(?P<no>\b(?:not|never|isn't|wasn't|hasn't been|haven't been|until|before)(?: yet| been| fully)* )?(?:"
    rf"\b(?:cleared|signed off|approved|okayed|passed)\b(?: to \w+| for \w+)?,? (?:by|from|with) {_WHO}\b"
    rf"|\b(?:with )?{_WHO}(?:'s)? (?:has |have |had )?{_YES}\b"
    rf"|\b(?:medically cleared|all[- ]clear|{_MAY})\b)",
    re.IGNORECASE,
)
_NO = (
    r"(?:has|have|did|does|will) not|(?:has|have|did|does)n't|won't|(?:said|says) no|forbids|forbade"
    r"|(?:is|are|was) against|(?:advises|advised) against|told \w+ not"
)
_AGAINST = re.compile(rf"\b{_WHO} (?P<no>{_NO})\b[^,;.|]*", re.IGNORECASE)
# What is fresh for some weeks, whatever part of a body it is.
_FRESH = re.compile(
    r"\b(?:broke|broken|fractured?|cracked|tore|torn|ruptured?|dislocated|sprained|strained|pulled|twisted"
    r"|slipped|herniated|stitches|operations?|operated|surgery|ops?|whiplash|concussion|concussed|injur(?:y|ed|ies)"
    r"|accident|crash(?:ed)?|fell|(?:a|had a) fall)\b",
    re.IGNORECASE,
)
FRESH_WEEKS = 6
# What is broken now, as far as anybody says; and what says that it is long past.
_BROKEN = re.compile(r"\b(?:broken|fractured|dislocated|in a cast|in plaster)\b", re.IGNORECASE)
_BROKEN_BEFORE = re.compile(r"\b(?:broken|fractured|dislocated)\s+(?:\w+\s+){0,2}$", re.IGNORECASE)
_LONG_PAST = re.compile(
    r"\b(?:old|once|healed|mended|years?|used to|as a (?:child|kid|teenager)|ages|long ago)\b", re.IGNORECASE
)
FIRST = "a doctor or midwife has to say yes first"


def cleared_in(text: str) -> re.Match[str] | None:
    """Where a promise says that a doctor or a midwife has said yes, or has not (its group `no`)."""
    return _AGAINST.search(text) or _CLEARED.search(text)


def since_in(text: str) -> list[tuple[int, int, float]]:
    """(start, end, days) of every time that something is said to be past."""
    return [(found.start(), found.end(), _days(found)) for found in _SINCE.finditer(text)]


def _days(found: re.Match[str]) -> float:
    if found["month"]:
        return math.inf  # nobody here knows what month it is
    if found["last"]:
        return _LAST[found["last"].lower()]
    count = found["count"].lower()
    return (_SOME[count] if count in _SOME else number_of(count)) * _DAYS[found["unit"].lower()]


def asked_about(wishes: Sequence[Wish], text: str, conditions: Mapping[str, Condition]) -> list[Wish]:
    """The wishes, with a question at what is so recent that a doctor says when one begins again; none where
    the promise says that one has said yes."""
    cleared = cleared_in(text)
    if cleared and not cleared["no"]:
        return list(wishes)
    times, fresh = since_in(text), FRESH_WEEKS * bool(_FRESH.search(text))
    found: list[Wish] = []
    for wish in wishes:
        known = conditions.get(wish.key) if wish.kind == "condition" else None
        soon = max(known.soon_weeks, fresh) if known is not None else 0
        at = text.lower().find(wish.text.lower())
        near = min(times, key=lambda one: abs(one[0] - at), default=None)
        broken = near is None and known is not None and _is_broken(wish, text, at)
        if (soon and ((near is not None and near[2] < 7 * soon) or cleared)) or broken:
            when = text[near[0] : near[1]].strip() if near is not None and not cleared else ""
            reason = f"{when} is so soon that {FIRST}" if when else FIRST
            reason = "while it is broken, a doctor has to say yes first" if broken else reason
            wish = msgspec.structs.replace(wish, state="guessed", reason=reason, asks=True)
        found.append(wish)
    if cleared and not any(wish.asks for wish in found):
        found.append(Wish(cleared[0].strip(), "", "unknown", FIRST, asks=True))
    return found


def _is_broken(wish: Wish, text: str, at: int) -> bool:
    """Whether what is minded is broken, or out of its joint, and nobody says that it is long ago."""
    broken = _BROKEN.search(wish.text) or _BROKEN_BEFORE.search(text[: max(0, at)])
    return bool(broken) and not _LONG_PAST.search(text)
