"""A recording looked at without its plan, from what was said alone. It keeps quiet where it does not know."""

import re
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from rapidfuzz import fuzz

from yewhour.core.finding import CheckRules
from yewhour.core.lengths import show_length
from yewhour.core.props import HEARD_BESIDES, PROPS
from yewhour.core.review.findings import GRAVE, ReviewFinding, review_finding
from yewhour.core.transcript.transcript import SpeechStretch, Transcript, plain_words

SWITCH = re.compile(
    r"\b(?:(?:other|second|opposite) side|(?:switch|change|swap) (?:sides|legs|feet|arms|hands)|"
    r"same (?:thing )?on the (?:other|left|right)(?: side)?|repeat on the (?:other|left|right)(?: side)?)\b"
)
BACK_S = 480.0  # how long before a change of side its first side may have begun
ALIKE = 86  # of 100: instructions of one side and the other
LEAST_WORDS = 4  # of an instruction that is compared
LEAST_PAIRS = 3  # instructions of both sides that are alike, before sides are held against each other
UNEVEN_S, UNEVEN = 8.0, 0.25
SLIP = re.compile(
    r"\b(left|right)\b[^.]{0,24}?\b(?:sorry|i mean|no wait|rather)\b[^.]{0,16}?\b(left|right)\b"
)
_USED = (
    r"\b(?:take|use|grab|place|put|slide|bring|get|hold|squeeze|set|on|onto|under|with) "
    r"(?:your|the|a|that|one|two|both) (?:\w+ )?(?:{})\b"
)
_OFFERED = re.compile(r"\b(?:if you (?:have|like|want|need|use)|you (?:can|could|might|may)|optional|or)\b")
READY_S = 150.0  # props named so early are announced
REST = re.compile(
    r"\b(?:savasana|shavasana|corpse|final rest|rest(?:ing)? (?:here|pose|back|down|on)|relax(?:ation)?|"
    r"lie down|lie back|lying down|close (?:your|the) eyes|let everything|let go|be heavy|lie heavy|"
    r"nothing (?:more )?to do)\b"
)
CLOSING = re.compile(
    r"\b(?:thank you|thanks|namaste|bow|see you|wiggle|roll (?:over |slowly )?(?:on)?to|"
    r"open (?:your|the) eyes|come (?:back )?(?:up )?to (?:sit|seated|a seat)|sit up|deepen|"
    r"end of|enjoy the rest of|good night|sleep well|(?:your|the) fingers|get up (?:later|slowly))\b"
)
REST_FROM, CLOSING_FROM = 0.6, 0.8  # of the recording
TALKED_S = 600.0  # a recording shorter than that may do without a rest
_MINUTES = re.compile(r"\b(\d{1,3})[\s-]*(?:min(?:ute)?s?)\b")
LENGTH_OFF = 0.12
NUMBERS = {
    "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "twelve", "fifteen",
    "twenty", "thirty",
}  # fmt: skip


class _Said(NamedTuple):
    talk: SpeechStretch
    words: list[str]
    mirrored: str
    plain: str


def findings_alone(hearing: Transcript, rules: CheckRules, title: str = "") -> list[ReviewFinding]:
    """What is to be noticed in a recording without a plan. title: its name, for the length it promises."""
    said = [_said(talk) for talk in sentences(hearing.talks)]
    found = [
        *_sides(said, rules), *_slips(said, rules), *_props(said, rules), *_ends(said, hearing, rules),
        *_title(title, hearing, rules),
    ]  # fmt: skip
    return sorted(found, key=lambda one: (GRAVE[one.severity], one.at_s))


def sentences(talks: Sequence[SpeechStretch]) -> list[SpeechStretch]:
    """Stretches parted at full stops, or where somebody drew breath; short ones that go on are joined."""
    found: list[SpeechStretch] = []
    for talk in talks:
        pieces = [piece for piece in re.split(r"(?<=[.!?])\s+", talk.text) if piece.strip()]
        letters = max(1, sum(map(len, pieces)))
        at_s = talk.start_s
        for piece in pieces:
            end_s = at_s + (talk.end_s - talk.start_s) * len(piece) / letters
            before = found[-1] if found else None
            goes_on = before is not None and at_s - before.end_s < 0.35 and before.text[-1:] not in ".!?"
            if before is not None and goes_on and len(before.text) < 90 and not piece[:1].isupper():
                found[-1] = SpeechStretch(before.start_s, end_s, f"{before.text} {piece}")
            else:
                found.append(SpeechStretch(at_s, end_s, piece))
            at_s = end_s
    return found


def _said(talk: SpeechStretch) -> _Said:
    words = plain_words(talk.text)
    other = {"left": "right", "right": "left"}
    return _Said(talk, words, " ".join(other.get(word, word) for word in words), " ".join(words))


def sided(words: Sequence[str]) -> set[str]:
    """The sides that words name."""
    return {word for word in words if word in ("left", "right")}


# --- sides ----------------------------------------------------------------------------------------------


def _sides(said: Sequence[_Said], rules: CheckRules) -> Iterator[ReviewFinding]:
    changes = [number for number, one in enumerate(said) if SWITCH.search(one.plain)]
    for place, change in enumerate(changes):
        before = changes[place - 1] if place else -1
        after = changes[place + 1] if place + 1 < len(changes) else len(said)
        pairs = _pairs(said, before, change, after)
        yield from _same_side(said, change, after, before, rules)
        if len(pairs) < LEAST_PAIRS:
            continue
        first, last = pairs[0], pairs[-1]
        one_s = last[0].talk.start_s - first[0].talk.start_s
        two_s = last[1].talk.start_s - first[1].talk.start_s
        if min(one_s, two_s) > 15 and abs(one_s - two_s) > max(UNEVEN_S, UNEVEN * max(one_s, two_s)):
            yield review_finding(
                rules, "sides-held", first[1].talk.start_s, "", 0.6, one=f"{one_s:.0f}", two=f"{two_s:.0f}"
            )
        for one, two in pairs:
            numbers = [[word for word in words if word in NUMBERS] for words in (one.words, two.words)]
            if len(numbers[0]) == len(numbers[1]) == 1 and numbers[0] != numbers[1]:
                yield review_finding(
                    rules, "sides-counted", two.talk.start_s, "", 0.6, one=numbers[0][0], two=numbers[1][0],
                    line=two.talk.text,
                )  # fmt: skip


def _pairs(said: Sequence[_Said], before: int, change: int, after: int) -> list[tuple[_Said, _Said]]:
    """Instructions of a second side with those of the first that say the same with the sides exchanged."""
    since_s = said[change].talk.start_s - BACK_S
    first = [
        one
        for one in said[before + 1 : change]
        if one.talk.start_s >= since_s and len(one.words) >= LEAST_WORDS
    ]
    pairs: list[tuple[_Said, _Said]] = []
    place = 0
    for two in said[change:after]:
        if len(two.words) < LEAST_WORDS or not sided(two.words):
            continue
        alike = [
            (fuzz.ratio(_no_numbers(one.plain), _no_numbers(two.mirrored)), number)
            for number, one in enumerate(first[place:], place)
            if sided(one.words)
        ]
        best = max(alike, default=(0, 0))
        if best[0] >= ALIKE:
            pairs.append((first[best[1]], two))
            place = best[1] + 1
    return pairs


def _no_numbers(plain: str) -> str:
    return " ".join("#" if word in NUMBERS else word for word in plain.split())


def _same_side(
    said: Sequence[_Said], change: int, after: int, before: int, rules: CheckRules
) -> Iterator[ReviewFinding]:
    """After a change of side, the words of the first side come again with the same side in them."""
    named = sided(said[change].words)
    until_s = said[change].talk.start_s + 40
    earlier = [
        one
        for one in said[before + 1 : change]
        if len(one.words) >= LEAST_WORDS and len(sided(one.words)) == 1
    ]
    for two in said[change + 1 : after]:
        if two.talk.start_s > until_s:
            return
        sides = sided(two.words)
        if len(two.words) < LEAST_WORDS or len(sides) != 1:
            continue
        same = max((fuzz.ratio(one.plain, two.plain) for one in earlier), default=0)
        other = max((fuzz.ratio(one.plain, two.mirrored) for one in earlier), default=0)
        if same >= 95 and other < same and named != sides:
            yield review_finding(
                rules, "side-again", two.talk.start_s, "", 0.7, side=min(sides), line=two.talk.text
            )
        return


def _slips(said: Sequence[_Said], rules: CheckRules) -> Iterator[ReviewFinding]:
    for one in said:
        match = SLIP.search(one.plain)
        if match and match.group(1) != match.group(2):
            yield review_finding(rules, "side-slip", one.talk.start_s, "", 0.8, line=one.talk.text)


# --- props, the end, the title --------------------------------------------------------------------------


def _props(said: Sequence[_Said], rules: CheckRules) -> Iterator[ReviewFinding]:
    heard = {name: one.heard for name, one in PROPS.items() if one.heard} | HEARD_BESIDES
    for prop, names in heard.items():
        named, used = re.compile(rf"\b(?:{names})\b"), re.compile(_USED.format(names))
        for one in said:
            if not named.search(one.plain):
                continue
            if one.talk.start_s > READY_S and used.search(one.plain) and not _OFFERED.search(one.plain):
                yield review_finding(rules, "prop", one.talk.start_s, "", 0.6, prop=prop, line=one.talk.text)
            break  # only the first time that it is named


def _ends(said: Sequence[_Said], hearing: Transcript, rules: CheckRules) -> Iterator[ReviewFinding]:
    length_s = hearing.length_s
    if length_s < TALKED_S or len(hearing.words) < 300:
        return
    if not any(REST.search(one.plain) for one in said if one.talk.start_s > REST_FROM * length_s):
        yield review_finding(rules, "no-rest", length_s * REST_FROM, "", 0.5)
    if not any(CLOSING.search(one.plain) for one in said if one.talk.start_s > CLOSING_FROM * length_s):
        yield review_finding(rules, "no-closing", length_s, "", 0.5)


def _title(title: str, hearing: Transcript, rules: CheckRules) -> Iterator[ReviewFinding]:
    match = _MINUTES.search(title.lower().replace("_", " "))
    if match is None or hearing.length_s <= 0:
        return
    promised_s = int(match.group(1)) * 60
    if abs(hearing.length_s - promised_s) > max(45, LENGTH_OFF * promised_s):
        yield review_finding(
            rules,
            "title-length",
            0.0,
            "",
            0.8,
            said=match.group(1),
            length=show_length(round(hearing.length_s)),
        )
