"""Captions read: SubRip, WebVTT, plain text with times in square brackets, by people and by machines."""

import html
import re
from collections.abc import Iterator, Sequence
from itertools import pairwise, zip_longest

from yewhour.core.problem import Problem
from yewhour.core.transcript.transcript import (
    HeardWord,
    SpeechStretch,
    Transcript,
    plain_words,
    timed_words,
    transcript_of,
)

_CLOCK = r"(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2}(?:[.,]\d{1,3})?)"
_ARROW = re.compile(rf"{_CLOCK}\s*-->\s*{_CLOCK}")
_BRACKET = re.compile(rf"\[\s*{_CLOCK}(?:\s*(?:-|–|-->|to)\s*{_CLOCK})?\s*\]")
_INSIDE = re.compile(rf"<{_CLOCK}>")
_TAG = re.compile(r"<[^<>\n]{0,80}>|\{\\[^{}\n]{0,80}\}")
_NOISE = re.compile(
    r"\[[^\[\]\n]{0,60}\]|\((?:[a-z ]{0,20})?(?:music|bell|applause|laughs?|noise)[a-z ]{0,20}\)|[♪♫#]|>>",
    re.I,
)
_WORDS_PER_S = 2.2  # of speech that has a start only
ROLLING = 0.3  # of captions that say the one before again: they roll
TOUCH_S = 0.3  # captions so close are one flow of text
LONGEST_S = 12 * 3600.0
WORDS_A_MINUTE = 120.0  # of a whole class, where nobody says how long it was (FIGURES: 82 to 163)
LEAST_SPOKEN, LETTERS = 30, 0.7  # words, and share of signs that are letters or spaces, of what was spoken
_SENTENCE = re.compile(r"[^.!?\n]+[.!?]*")


def read_captions(content: bytes, where: str = "", lasts_s: float = 0.0) -> Transcript:
    """What captions say, and when. Raises Problem for what has no captions in it.

    Captions whose times run backwards are put in order, and that is told. Text without a time in it is spread
    over the recording by its words. lasts_s: how long that is, 0 where nobody knows.
    """
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = content.decode("latin-1")
    if "\0" in text[:4000]:
        raise Problem("These are no captions.", where, "Give SubRip, WebVTT, or text with times as [1:05].")
    text = text.replace("\r\n", "\n").replace("\r", "\n")
    pieces = list(_arrows(text) if _ARROW.search(text) else _brackets(text))
    messages = []
    if not pieces and _is_spoken(text):
        pieces = list(_spread(text, lasts_s))
        long = f"{round(pieces[-1][1]) // 60}:{round(pieces[-1][1]) % 60:02d}"
        messages.append(f"{where or 'the text'} has no times: it is spread over {long} by its words.")
    if not pieces:
        raise Problem(
            "There is no time in these captions.", where,
            "Give SubRip, WebVTT, text with times in square brackets, as [1:05], or all that was said: "
            f"{LEAST_SPOKEN} words or more without times are spread over the recording.",
        )  # fmt: skip
    if any(later[0] < earlier[0] - 0.5 for earlier, later in pairwise(pieces)):
        messages.append(
            f"{where or 'the captions'}: their times run backwards in places; they were put in order."
        )
        pieces.sort(key=lambda piece: piece[:2])
    talks, words = _unrolled(pieces)
    if not words:
        raise Problem("Nothing is said in these captions.", where, "Give captions with words in them.")
    hearing = transcript_of(talks, max(end for _, end, _ in pieces), messages)
    return Transcript(hearing.talks, tuple(words), hearing.length_s, hearing.messages)


def _seconds(hours: str | None, minutes: str, seconds: str) -> float:
    found = int(hours or 0) * 3600 + int(minutes) * 60 + float(seconds.replace(",", "."))
    return min(found, LONGEST_S)


Piece = tuple[float, float, str]


def _arrows(text: str) -> Iterator[Piece]:
    """The captions of SubRip and WebVTT: what stands under a line with an arrow, up to an empty one."""
    lines = text.split("\n")
    at = [number for number, line in enumerate(lines) if _ARROW.search(line)]
    for number, following in zip(at, [*at[1:], len(lines)], strict=True):
        match = _ARROW.search(lines[number])
        assert match is not None
        start_s, end_s = _seconds(*match.groups()[:3]), _seconds(*match.groups()[3:])
        said: list[str] = []
        for line in lines[number + 1 : following]:
            if not line.strip() and said:
                break
            if line.strip():
                said.append(line)
        if said and following < len(lines) and said[-1].strip().isdigit() and len(said) > 1:
            said.pop()  # the number of the next one, where no empty line parts them
        yield start_s, max(end_s, start_s + 0.1), "\n".join(said)


def _brackets(text: str) -> Iterator[Piece]:
    found = list(_BRACKET.finditer(text))
    for match, following in zip_longest(found, found[1:]):
        start_s = _seconds(*match.groups()[:3])
        said = text[match.end() : following.start() if following else len(text)].strip()
        end_s = start_s + max(0.5, len(plain_words(said)) / _WORDS_PER_S)
        if match.group(5) is not None:
            end_s = _seconds(*match.groups()[3:])
        elif following is not None and (next_s := _seconds(*following.groups()[:3])) > start_s:
            end_s = min(end_s, next_s)
        yield start_s, max(end_s, start_s + 0.1), said


def _is_spoken(text: str) -> bool:
    """Whether a text without times is what somebody said, and not a file of another kind."""
    plain = sum(sign.isalpha() or sign.isspace() for sign in text)
    return len(plain_words(text)) >= LEAST_SPOKEN and plain >= LETTERS * len(text) and "{" not in text


def _spread(text: str, lasts_s: float) -> Iterator[Piece]:
    """The sentences of a text without times, each where its words come by their number."""
    said = [found[0].strip() for found in _SENTENCE.finditer(text) if plain_words(found[0])]
    counts = [len(plain_words(one)) for one in said]
    whole_s = min(LONGEST_S, lasts_s or 60 * sum(counts) / WORDS_A_MINUTE)
    each_s, at_s = whole_s / sum(counts), 0.0
    for sentence, count in zip(said, counts, strict=True):
        last = at_s + count * each_s >= whole_s - 0.01
        yield at_s, whole_s if last else at_s + min(count * each_s, count / _WORDS_PER_S), sentence
        at_s += count * each_s


def clean(text: str) -> str:
    """What is said of a caption, without its signs and noises."""
    return " ".join(html.unescape(_NOISE.sub(" ", _TAG.sub(" ", text))).split())


def _unrolled(pieces: Sequence[Piece]) -> tuple[list[SpeechStretch], list[HeardWord]]:
    """Each thing that is said once, though captions that roll say it two or three times."""
    rows = [[clean(line) for line in said.split("\n") if clean(line)] for _, _, said in pieces]
    again = sum(
        _repeats(before, after, two[0] - one[1]) > 0
        for (one, before), (two, after) in pairwise(zip(pieces, rows, strict=True))
    )
    rolling = again > ROLLING * max(1, len(pieces) - 1)
    talks: list[SpeechStretch] = []
    words: list[HeardWord] = []
    before: list[str] = []
    before_s = 0.0
    for (start_s, end_s, said), row in zip(pieces, rows, strict=True):
        new = row
        if rolling:
            new = _new_rows(before, row, start_s - before_s)
        if row:
            before, before_s = row, end_s
        text = " ".join(new)
        if not plain_words(text):
            continue
        talk = SpeechStretch(start_s, max(end_s, start_s + 0.1), text)
        inside = list(_timed_inside(said, start_s, end_s)) if _INSIDE.search(said) else []
        if inside and rolling:
            count = len(plain_words(text))
            inside = inside[-count:]
        own = inside or timed_words(talk)
        if rolling and talks and start_s < talks[-1].end_s:
            talks[-1] = SpeechStretch(
                talks[-1].start_s, max(talks[-1].start_s + 0.1, start_s), talks[-1].text
            )
        talks.append(talk)
        words += own
    words.sort(key=lambda word: word.start_s)
    return talks, words


def _repeats(before: Sequence[str], after: Sequence[str], gap_s: float) -> int:
    """How many of the first rows of a caption were in the one before; a row that grows is one too.

    gap_s: seconds between the two. What comes again behind a silence, with nothing new, was said again.
    """
    if not before or not after or (before[-len(after) :] == after and gap_s > TOUCH_S):
        return 0
    for count in range(min(len(before), len(after)), 0, -1):
        if list(before[-count:]) == list(after[:count]):
            return count
    return int(after[0].startswith(before[-1]) and len(plain_words(before[-1])) > 1)


def _new_rows(before: Sequence[str], row: Sequence[str], gap_s: float) -> list[str]:
    count = _repeats(before, row, gap_s)
    if not count:
        return list(row)
    if before[-count:] == row[:count]:
        return list(row[count:])
    return [row[0][len(before[-1]) :].strip(), *row[1:]]


def _timed_inside(said: str, start_s: float, end_s: float) -> Iterator[HeardWord]:
    """Words that carry their own times within a caption."""
    at_s, rest = start_s, said
    while (match := _INSIDE.search(rest)) is not None:
        until_s = _seconds(*match.groups())
        yield from timed_words(SpeechStretch(at_s, max(until_s, at_s + 0.05), clean(rest[: match.start()])))
        at_s, rest = until_s, rest[match.end() :]
    words = plain_words(clean(rest))
    yield from timed_words(
        SpeechStretch(at_s, max(at_s + 0.05, min(end_s, at_s + len(words) / _WORDS_PER_S)), clean(rest))
    )
