"""Simulated teachers: what they say of a class and when, with slowness, slips and remarks; as captions.

The truth comes with it, so that what is found can be held to it.
"""

from collections.abc import Mapping, Sequence
from itertools import groupby
from random import Random

import msgspec

from yewhour.core.lengths import TICKS_PER_S, seconds
from yewhour.core.review.review import ActualSegment, spent_on
from yewhour.core.script.cue import Cue
from yewhour.core.timed_class import TimedClass

REMARKS = (
    "lovely work everyone",
    "if your phone is on please put it away",
    "the kettle is on for afterwards",
    "there is a gull on the roof again",
    "you are doing so well today",
    "i moved the lamp a little so you can see",
)
MISHEARD = {"thigh": "tie", "knee": "need", "hips": "hits", "inhale": "in hail", "breath": "breathe",
            "heel": "heal", "palms": "poems", "four": "for", "toes": "toe's"}  # fmt: skip


class Spoken(msgspec.Struct, frozen=True):
    """Something that was said: the number of its line, or None for a remark, and its seconds."""

    line: int | None
    start_s: float
    end_s: float
    text: str


class Taught(msgspec.Struct, frozen=True):
    """A class as it was taught: what was said, and the seconds its segments really began and ended at."""

    said: tuple[Spoken, ...]
    segments: dict[str, tuple[float, float]]
    length_s: float


def taught(
    timed: TimedClass,
    dice: Random,
    longer: Mapping[str, float] | None = None,
    drift: float = 0.0,
    skipped: float = 0.0,
    remarks: float = 0.0,
    misheard: float = 0.0,
    own: Mapping[str, float] | None = None,
) -> Taught:
    """A class as she taught it.

    longer: seconds by which she stays longer in segments, by id. drift: how much slower she is, as a share.
    skipped, remarks, misheard: shares of lines left out, followed by a remark, with a word heard wrongly.
    own: her time against the planned, by what it is spent on: ways, teaching, holds, repetitions, speech.
    """
    own = own or {}
    moved, shifts, segments = 0.0, dict[str, float](), {}
    for one in timed.segments:
        shifts[one.id] = moved
        spent = spent_on(ActualSegment(one, 0.0, 0.0, 0.0, 0.0, 1.0))
        if spent == "teaching":
            moved += (own.get("ways", 1.0) - 1) * seconds(one.use.fixed)
            moved += (own.get("teaching", 1.0) - 1) * seconds(one.length - one.use.fixed)
        else:
            by_the_clock = one.kind in ("clock", "stillness", "rapid")
            moved += (own.get(spent, 1.0) - 1) * seconds(0 if by_the_clock else one.length)
        start_s = (seconds(one.start) + shifts[one.id]) * (1 + drift)
        moved += (longer or {}).get(one.id, 0.0)
        segments[one.id] = (start_s, (seconds(one.end) + moved) * (1 + drift))
    said: list[Spoken] = []
    for number, (cue, following) in enumerate(zip(timed.cues, [*timed.cues[1:], None], strict=True)):
        if dice.random() < skipped:
            continue
        start_s = (seconds(cue.start) + shifts[cue.segment]) * (1 + drift) + dice.uniform(-0.3, 0.3)
        end_s = start_s + seconds(cue.end - cue.start) * own.get("speech", 1.0)
        said.append(Spoken(number, start_s, end_s, _heard(cue, dice, misheard)))
        if following is not None and dice.random() < remarks:
            room = (seconds(following.start) + shifts[following.segment]) * (1 + drift) - end_s
            text = dice.choice(REMARKS)
            if room > len(text) / 12 + 1:
                said.append(Spoken(None, end_s + 0.7, end_s + 0.7 + len(text) / 14, text))
    return Taught(tuple(said), segments, (timed.length / TICKS_PER_S + moved) * (1 + drift))


def _heard(cue: Cue, dice: Random, misheard: float) -> str:
    words = cue.text.split()
    return " ".join(
        MISHEARD.get(word.lower().strip(".,"), word[:-1] or word) if dice.random() < misheard else word
        for word in words
    )


def _clock(at_s: float) -> str:
    at_ms = max(0, round(at_s * 1000))
    return f"{at_ms // 3_600_000:02}:{at_ms // 60_000 % 60:02}:{at_ms // 1000 % 60:02}.{at_ms % 1000:03}"


def captions(taught: Taught, kind: str = "vtt") -> bytes:
    """What was said as captions: `vtt`, `srt`, `brackets`, `rolling`, or `bare` (small, without signs)."""
    said = sorted(taught.said, key=lambda one: one.start_s)
    if kind == "brackets":
        return "\n".join(f"[{_clock(one.start_s)}] {one.text}" for one in said).encode()
    rows = ["WEBVTT", ""] if kind != "srt" else []
    before = ""
    for number, one in enumerate(said, 1):
        text = one.text
        if kind in ("bare", "rolling"):
            text = "".join(letter if letter.isalnum() or letter == "'" else " " for letter in text.lower())
        times = f"{_clock(one.start_s)} --> {_clock(one.end_s)}"
        if kind == "srt":
            rows += [str(number), times.replace(".", ",")]
        else:
            rows.append(times)
        rows += [*([before] if kind == "rolling" and before else []), text, ""]
        before = text
    return "\n".join(rows).encode()


def freely(timed: TimedClass, taught: Taught, phrases: Mapping[str, Sequence[str]], dice: Random) -> bytes:
    """Captions of a class that was taught in other words than its script's, at the seconds it really took.

    phrases: how others teach each movement, by its id.
    """
    rows = []
    for use, group in groupby(
        timed.segments, key=lambda one: one.use.flow or one.use.setup_for or one.use.key
    ):
        segments = list(group)
        if segments[0].id not in taught.segments or not use:
            continue
        main = next((one for one in segments if not one.use.setup_for), segments[-1])
        at_s = taught.segments[segments[0].id][0] + dice.uniform(0, 3)
        until_s = taught.segments[segments[-1].id][1]
        known = phrases.get(main.use.movement.id, (main.use.movement.name,))
        for text in dice.sample(list(known), min(3, len(known))):
            if at_s > until_s - 3:
                break
            rows.append(f"[{_minutes(at_s)}] {_on_side(text, main.side)}.")
            at_s += len(text.split()) / 2.3 + dice.uniform(2, 12)
    return "\n".join([*rows, f"[{_minutes(taught.length_s)}] Thank you."]).encode()


def _minutes(at_s: float) -> str:
    return f"{int(at_s // 60)}:{at_s % 60:04.1f}"


def _on_side(text: str, side: str) -> str:
    """A phrase told for the right side, on a side."""
    if side != "left":
        return text
    return text.replace("right", "\0").replace("left", "right").replace("\0", "left")
