"""Which lines of a script were said, and when; which were not; and what was said besides."""

import re
from bisect import bisect_left
from collections import Counter, defaultdict
from collections.abc import Iterator, Sequence
from typing import Literal, NamedTuple

import msgspec
from rapidfuzz import fuzz

from yewhour.core.lengths import seconds
from yewhour.core.script.cue import Cue
from yewhour.core.transcript.alignment import aligned, worth
from yewhour.core.transcript.transcript import (
    HeardWord,
    SpeechStretch,
    Transcript,
    joined_words,
    plain_words,
)

SAID, REWORDED = 0.6, 0.34  # of a line's worth that was heard close together
ABSENT = 0.9  # how sure it is that a line of which not one word was found was not said
TRUSTED = 0.75  # of a line that tells how late she was
NEAR_S = 2.5  # between two words of one line
LATE_MOST_S = 25.0  # a line found further from where its neighbours place it is another one
INSTEAD_S = 3.0  # between a line that was due and what was said in its place
EXTRA_WORDS = 3  # fewer are no remark
AGAIN, AGAIN_S = 85, 60.0  # how alike (of 100), and how near, a line is that is said once more
HOW = Literal["said", "reworded", "unsaid"]
STOPS = {".": 6, "!": 6, "?": 6, ",": 3, ":": 4, ";": 4}  # a stop lasts as long as so many letters
SHORT, SHORT_S = (
    2,
    0.9,
)  # words of a line that is taken from what was heard at its moment, and how near that is
_PAUSE = re.compile(r"\[\d+(?:\.\d+)?s\]")


class LineMatch(msgspec.Struct, frozen=True):
    """A line of the script: when it was planned, when it was said (None: it was not), and how sure that is.

    words: what was heard of it. side: "left" or "right" where the other side was named than the one it was.
    """

    cue: Cue
    planned_s: float
    said_s: float | None
    sure: float
    how: HOW
    words: str = ""
    end_s: float = 0.0
    wrong_side: str = ""


class Remark(msgspec.Struct, frozen=True):
    """Something that is in no line. again: the line it says once more, "" for none.

    instead: the place of a line that was not said while this was, None for none.
    """

    text: str
    start_s: float
    end_s: float
    again: str = ""
    instead: int | None = None


class _Script(NamedTuple):
    words: list[str]
    line: list[int]  # of each word
    planned_s: list[float]  # of each word


def match_lines(cues: Sequence[Cue], hearing: Transcript) -> tuple[list[LineMatch], list[Remark]]:
    """Every line of a script as it was said or not, and what was said besides, in order."""
    script = _script(cues)
    said, times = [word.text for word in hearing.words], [word.start_s for word in hearing.words]
    found = aligned(script.words, said)
    curve = _curve(_lines(cues, script, found, hearing))
    expected = [_expected(curve, at_s) for at_s in script.planned_s]
    found = aligned(script.words, said, expected, times)
    lines = _checked(_lines(cues, script, found, hearing))
    lines = _with_shorts(lines, hearing)
    return lines, _instead(lines, _extra(lines, hearing))


def expected_s(cues: Sequence[Cue], hearing: Transcript) -> list[float]:
    """When each line of a script is to be expected in a recording of which something was heard."""
    script = _script(cues)
    said, times = [word.text for word in hearing.words], [word.start_s for word in hearing.words]
    curve: list[tuple[float, float]] = []
    found = aligned(script.words, said)
    for _ in range(2):
        curve = _curve(_lines(cues, script, found, hearing))
        found = aligned(script.words, said, [_expected(curve, at_s) for at_s in script.planned_s], times)
    return [_expected(curve, seconds(cue.start)) for cue in cues]


def _script(cues: Sequence[Cue]) -> _Script:
    words, line, planned_s = [], [], []
    for number, cue in enumerate(cues):
        own = list(_weighed(_PAUSE.sub(" ", cue.text)))
        each_s = seconds(cue.end - cue.start) / max(1, sum(weight for _, weight in own))
        at_s = seconds(cue.start)
        for word, weight in own:
            words.append(word)
            line.append(number)
            planned_s.append(at_s)
            at_s += weight * each_s
    return _Script(words, line, planned_s)


def _weighed(text: str) -> Iterator[tuple[str, int]]:
    """The words of a line, and how long each takes against the others, the stop behind it included."""
    for token in text.split():
        words = plain_words(token)
        for place, word in enumerate(words, 1):
            stop = STOPS.get(token[-1], 0) if place == len(words) else 0
            yield word, len(word) + 1 + stop


class _Part(NamedTuple):
    """Words of a line that were heard close together: (place in the script, in what was heard, alike)."""

    found: list[tuple[int, int, float]]
    share: float


def _lines(
    cues: Sequence[Cue], script: _Script, found: Sequence[tuple[int, int, float]], hearing: Transcript
) -> list[LineMatch]:
    worths: list[float] = worth(script.words).tolist()
    total: dict[int, float] = defaultdict(float)
    first: dict[int, int] = {}
    for place, number in enumerate(script.line):
        total[number] += worths[place]
        first.setdefault(number, place)
    mine: dict[int, list[tuple[int, int, float]]] = defaultdict(list)
    for one in found:
        mine[script.line[one[0]]].append(one)
    lines, taken = [], {at for _, at, _ in found}
    for number, cue in enumerate(cues):
        planned_s = seconds(cue.start)
        if not (parts := mine.get(number)):
            lines.append(LineMatch(cue, planned_s, None, ABSENT, "unsaid"))
            continue
        part = max(_parts(parts, hearing.words, worths, total[number]), key=lambda one: one.share)
        lines.append(_line(cue, planned_s, part, first[number], hearing, script, taken))
    return lines


def _parts(
    found: Sequence[tuple[int, int, float]], words: Sequence[HeardWord], worths: Sequence[float], total: float
) -> list[_Part]:
    parts: list[list[tuple[int, int, float]]] = []
    for one in found:
        if parts and words[one[1]].start_s - words[parts[-1][-1][1]].end_s <= NEAR_S:
            parts[-1].append(one)
        else:
            parts.append([one])
    return [_Part(one, sum(worths[place] * alike for place, _, alike in one) / total) for one in parts]


def _line(
    cue: Cue, planned_s: float, part: _Part, first: int, hearing: Transcript, script: _Script, taken: set[int]
) -> LineMatch:
    place, begun, _ = part.found[0]
    ended = part.found[-1][1]
    words = hearing.words[begun : ended + 1]
    strange = len(words) - len(part.found)
    share = part.share * (1 - 0.5 * strange / max(1, len(words)))
    how: HOW = (
        "said" if share >= SAID else "reworded" if share >= REWORDED and len(part.found) > 1 else "unsaid"
    )
    if how == "unsaid":
        return LineMatch(cue, planned_s, None, round(1 - share, 2), "unsaid")
    said_s = words[0].start_s - (script.planned_s[place] - script.planned_s[first])
    before = begun - 1
    while before >= 0 and before not in taken and hearing.words[before].end_s > said_s:
        before -= 1  # words of its own that were heard wrongly
    if before >= 0 and hearing.words[before].end_s > said_s:
        said_s = min(words[0].start_s, hearing.words[before].end_s)
    heard = [word.text for word in words]
    return LineMatch(
        cue, planned_s, round(max(0.0, said_s), 2), round(min(1.0, share), 2), how, " ".join(heard),
        words[-1].end_s, _other_side(script, part, hearing),
    )  # fmt: skip


def _other_side(script: _Script, part: _Part, hearing: Transcript) -> str:
    """The side that was named where the line names the other, between the same two words."""
    for (place, at, _), (next_place, next_at, _) in zip(part.found, part.found[1:], strict=False):
        said, heard = script.words[place + 1 : next_place], [w.text for w in hearing.words[at + 1 : next_at]]
        for one, other in (("left", "right"), ("right", "left")):
            if one in said and other in heard and one not in heard and len(heard) <= len(said) + 1:
                return other
    return ""


# --- how late she was -----------------------------------------------------------------------------------


def _curve(lines: Sequence[LineMatch]) -> list[tuple[float, float]]:
    """(planned, real) seconds of lines that are sure and stand once, in the order of both."""
    often = Counter(tuple(plain_words(line.cue.text)) for line in lines)
    sure = [
        (line.planned_s, line.said_s)
        for line in lines
        if line.said_s is not None
        and line.sure >= TRUSTED
        and often[tuple(plain_words(line.cue.text))] == 1
        and len(plain_words(line.cue.text)) > 2
    ]
    return _steady(sure)


def _steady(points: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """Without those that lie far from what the ones around them say."""
    found = []
    for number, (planned, real) in enumerate(points):
        around = sorted(one[1] - one[0] for one in points[max(0, number - 3) : number + 4])
        if abs(real - planned - around[len(around) // 2]) <= LATE_MOST_S:
            found.append((planned, real))
    return found


def _sure(lines: Sequence[LineMatch]) -> list[tuple[float, float]]:
    return [
        (line.planned_s, line.said_s) for line in lines if line.said_s is not None and line.sure >= TRUSTED
    ]


def _expected(curve: Sequence[tuple[float, float]], planned_s: float) -> float:
    if not curve:
        return planned_s
    place = bisect_left(curve, (planned_s, 0.0))
    if place == 0 or place == len(curve):
        planned, real = curve[0 if place == 0 else -1]
        return real + planned_s - planned
    (one, first), (two, second) = curve[place - 1], curve[place]
    return first + (second - first) * (planned_s - one) / max(0.1, two - one)


def _checked(lines: Sequence[LineMatch]) -> list[LineMatch]:
    """Lines that lie far from where their neighbours place them are not taken as said."""
    curve = _steady(_sure(lines))
    found = []
    for line in lines:
        if line.said_s is not None and curve:
            off = abs(line.said_s - _expected(curve, line.planned_s))
            if off > LATE_MOST_S or (line.how == "reworded" and off > LATE_MOST_S / 2):
                line = msgspec.structs.replace(
                    line, said_s=None, how="unsaid", sure=0.5, words="", wrong_side=""
                )
        found.append(line)
    return found


def _with_shorts(lines: Sequence[LineMatch], hearing: Transcript) -> list[LineMatch]:
    """A line of a word or two is easily heard wrongly: it is what was heard at its moment, and no line."""
    spans = sorted((line.said_s, line.end_s) for line in lines if line.said_s is not None)
    free = [word for word in hearing.words if not _in(spans, word)]
    starts = [word.start_s for word in free]
    curve = _sure(lines)
    found = []
    for line in lines:
        words = plain_words(line.cue.text)
        if line.said_s is None and len(words) <= SHORT and curve:
            due_s = _expected(curve, line.planned_s)
            place = min(
                range(max(0, bisect_left(starts, due_s) - 1), min(len(free), bisect_left(starts, due_s) + 1)),
                key=lambda number: abs(starts[number] - due_s), default=None,
            )  # fmt: skip
            if place is not None and abs(starts[place] - due_s) <= SHORT_S:
                word = free.pop(place)
                starts.pop(place)
                line = LineMatch(
                    line.cue, line.planned_s, word.start_s, 0.5, "reworded", word.text, word.end_s
                )
        found.append(line)
    return found


def _in(spans: Sequence[tuple[float, float]], word: HeardWord) -> bool:
    place = bisect_left(spans, (word.start_s + 0.01, 0.0))
    return any(start - 0.05 <= word.start_s < end for start, end in spans[max(0, place - 3) : place])


# --- what is in no line ---------------------------------------------------------------------------------


def _extra(lines: Sequence[LineMatch], hearing: Transcript) -> list[Remark]:
    """Stretches of words that are in no line that was said."""
    spans = sorted((line.said_s, line.end_s) for line in lines if line.said_s is not None)
    rest = [word for word in hearing.words if not _in(spans, word)]
    extras = []
    for talk in joined_words(rest):
        if len(talk.text.split()) >= EXTRA_WORDS:
            extras.append(Remark(talk.text, talk.start_s, talk.end_s, _again(talk, lines)))
    return extras


def _instead(lines: Sequence[LineMatch], extras: Sequence[Remark]) -> list[Remark]:
    """Each with the line that was due while it was said, and was not."""
    curve = _sure(lines)
    due = {
        number: _expected(curve, line.planned_s)
        for number, line in enumerate(lines)
        if curve and line.said_s is None
    }
    found = []
    for extra in extras:
        near = [
            (abs(at_s - extra.start_s), number)
            for number, at_s in due.items()
            if extra.start_s - INSTEAD_S <= at_s <= extra.end_s + INSTEAD_S
        ]
        if near and not extra.again:
            extra = msgspec.structs.replace(extra, instead=min(near)[1])
            del due[min(near)[1]]
        found.append(extra)
    return found


def _again(talk: SpeechStretch, lines: Sequence[LineMatch]) -> str:
    """The line near by that is said once more, or ""."""
    near = [line for line in lines if line.said_s is not None and abs(line.said_s - talk.start_s) < AGAIN_S]
    alike = [(fuzz.ratio(" ".join(plain_words(line.cue.text)), talk.text), line.cue.text) for line in near]
    best = max(alike, default=(0, ""))
    return best[1] if best[0] >= AGAIN else ""
