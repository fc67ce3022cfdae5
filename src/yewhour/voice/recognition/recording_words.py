"""The words of a recording: its sound decoded block by block, and recognised offline with a script's lines.

Run as a program it does this in a process of its own, which can be stopped at any moment:
`python -m yewhour.voice.sound.recording_words RECORDING LINES`, LINES being a JSON list of lines with their
ticks. It writes JSON lines: `{"at"}` as it goes, `{"words"}` at the end, or `{"problem"}`.
"""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
from collections.abc import Callable, Iterator, Sequence
from functools import cache
from pathlib import Path
from typing import Any

import av
import numpy as np

from yewhour.background import children
from yewhour.core.problem import Problem
from yewhour.core.script.cue import Cue
from yewhour.core.transcript.line_matches import expected_s, match_lines
from yewhour.core.transcript.transcript import (
    HeardWord,
    Transcript,
    joined_words,
    plain_words,
)
from yewhour.voice.recognition.recogniser import RATE, LineRecogniser, SpeechWindow, anybody, heard_once
from yewhour.voice.sound.shipped_voice import Samples
from yewhour.voice.sound.spoken_track import spoken_stream

BLOCK_S = 5.0
LONGEST_S = 6 * 3600.0
QUIET = 0.0003  # of full scale: a recording that never gets louder has nothing in it
FIRST, LAST = 0.35, 0.95  # of the work is done after the first time, and after the second
ROUND_S = 0.2  # around what is heard once more
MOST_REMARKS = 0.2  # of a recording that may be in no line
EVERY_S, BEFORE_S, AFTER_S = 20.0, 20.0, 30.0  # which lines are due: around so many seconds
Progress = Callable[[float], None]  # told the share that is done; what it raises stops the work


def sound_of(path: Path) -> Iterator[tuple[Samples, float]]:
    """The sound of a file in blocks at RATE, with the share of the file that is done.

    Raises Problem for what can't be read or has no sound. A file that ends in the middle, as one that is
    still being written, is read as far as it goes.
    """
    try:
        file = av.open(str(path))
    except (OSError, av.error.FFmpegError, ValueError) as error:
        raise _cannot(error, path) from error
    with file:
        if not file.streams.audio:
            raise Problem("There is no sound in this file.", str(path), "Give the recording with its sound.")
        stream = spoken_stream(file)
        length_s = float(file.duration or 0) / 1_000_000
        resampler = av.AudioResampler("flt", "mono", RATE)
        parts: list[Samples] = []
        count, at_s = 0, 0.0
        frames = file.decode(stream)
        while True:
            try:
                frame = next(frames, None)
            except av.error.FFmpegError:
                if at_s == 0 and not parts:
                    raise Problem(
                        "The sound of this file can't be read.", str(path), "Give another file."
                    ) from None
                break  # it ends in the middle
            done = resampler.resample(frame)
            for one in done:
                part = np.asarray(one.to_ndarray(), np.float32).reshape(-1)
                parts.append(part)
                count += len(part)
            at_s += sum(one.samples for one in done) / RATE
            if count >= BLOCK_S * RATE or frame is None:
                yield (
                    np.concatenate([np.zeros(0, np.float32), *parts]),
                    min(1.0, at_s / length_s) if length_s else 0.0,
                )
                parts, count = [], 0
            if frame is None or at_s > LONGEST_S:
                break
        if parts:
            yield np.concatenate(parts), 1.0


def recognise(path: Path, cues: Sequence[Cue], progress: Progress = lambda share: None) -> Transcript:
    """What is heard in a recording by who knows its lines. Raises Problem for what has no sound.

    It is listened to twice: first for any of the lines, which tells how late each of them is, then in each
    place for those that are due. Lines that are all due at one moment are of no class, and may come anywhere.
    """
    lines = [cue.text for cue in cues]
    if len({cue.start for cue in cues}) == 1:  # of no class: any of them at any time
        return _heard(path, LineRecogniser(lines, partly=False), progress)
    first = _heard(
        path, LineRecogniser(lines, partly=False, quick=True), lambda share: progress(FIRST * share)
    )
    if not first.words:
        return first
    due = sorted(zip(expected_s(cues, first), lines, strict=True))

    @cache
    def near(number: int) -> tuple[str, ...]:
        at_s = number * EVERY_S
        return tuple(text for due_s, text in due if at_s - BEFORE_S <= due_s <= at_s + EVERY_S + AFTER_S)

    listener = LineRecogniser(lines, partly=False, expecting=lambda at_s: near(int(at_s / EVERY_S)) or lines)
    second = _heard(path, listener, lambda share: progress(FIRST + (LAST - FIRST) * share))
    found = _with_remarks(path, second, cues)
    progress(1.0)
    return found


def _with_remarks(path: Path, hearing: Transcript, cues: Sequence[Cue]) -> Transcript:
    """What is in no line heard once more, by who knows every word: a remark is made of other words.

    Not where most is in no line: that is another recording, and nothing is known of it.
    """
    _, extra = match_lines(cues, hearing)
    spans = [(one.start_s - ROUND_S, one.end_s + ROUND_S) for one in extra]
    if not spans or sum(end - start for start, end in spans) > MOST_REMARKS * hearing.length_s:
        return hearing
    anyone = anybody()
    remarks: list[HeardWord] = []
    at_s, waiting = 0.0, list(spans)
    kept = np.zeros(0, np.float32)  # the sound before, that a remark may have begun in
    for block, _ in sound_of(path):
        kept, at_s = np.concatenate([kept, block]), at_s + len(block) / RATE
        from_s = at_s - len(kept) / RATE
        while waiting and waiting[0][1] <= at_s:
            start_s, end_s = waiting.pop(0)
            piece = kept[max(0, round((start_s - from_s) * RATE)) : round((end_s - from_s) * RATE)]
            remarks += _plain([SpeechWindow(0, heard_once(anyone, piece, max(start_s, from_s)))])
        since_s = waiting[0][0] if waiting and waiting[0][0] < at_s else at_s - BLOCK_S
        kept = kept[max(0, round((since_s - from_s) * RATE)) :]
    others = [word for word in hearing.words if not any(start <= word.start_s < end for start, end in spans)]
    words = sorted([*others, *remarks], key=lambda word: word.start_s)
    return Transcript(tuple(joined_words(words)), tuple(words), hearing.length_s, hearing.messages)


def _heard(path: Path, listener: LineRecogniser, progress: Progress) -> Transcript:
    words: list[HeardWord] = []
    samples, loudest = 0, 0.0
    for block, share in sound_of(path):
        samples += len(block)
        loudest = max(loudest, float(np.abs(block).max(initial=0.0)))
        words += _plain(listener.hear(block))
        progress(share)
    words += _plain(listener.end())
    messages = []
    if loudest < QUIET:
        messages.append(f"{path}: there is no sound but silence in it.")
    elif not words:
        messages.append(f"{path}: no words were heard in it.")
    return Transcript(tuple(joined_words(words)), tuple(words), samples / RATE, tuple(messages))


def _plain(stretches: Sequence[Any]) -> list[HeardWord]:
    found = []
    for stretch in stretches:
        for word in stretch.words:
            own = plain_words(word.text)
            each_s = (word.end_s - word.start_s) / max(1, len(own))
            found += [
                HeardWord(text, word.start_s + n * each_s, word.start_s + (n + 1) * each_s)
                for n, text in enumerate(own)
            ]
    return found


def _cannot(error: Exception, path: Path) -> Problem:
    reason = getattr(error, "strerror", None) or str(error)
    return Problem(
        f"The sound can't be read: {reason.lower()}.", str(path), "Give a recording: sound or video."
    )


# --- in a process of its own ----------------------------------------------------------------------------


def recognise_apart(path: Path, cues: Sequence[Cue], progress: Progress = lambda share: None) -> Transcript:
    """The same, in a process of its own, which ends when `progress` raises."""
    with tempfile.NamedTemporaryFile("w", suffix=".json", encoding="utf-8") as script:
        json.dump([(cue.start, cue.end, cue.text) for cue in cues], script)
        script.flush()
        command = children.command(
            "yewhour.voice.recognition.recording_words", str(path.resolve()), script.name
        )
        with subprocess.Popen(
            command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, stdin=subprocess.DEVNULL,
            cwd=children.FOLDER, env=children.environment(),
        ) as process:  # fmt: skip
            try:
                return _listened(process, path, progress)
            finally:
                process.kill()


def _listened(process: Any, path: Path, progress: Progress) -> Transcript:
    for row in process.stdout:
        value = json.loads(row)
        if "at" in value:
            progress(value["at"])
        elif "problem" in value:
            raise Problem(*value["problem"])
        else:
            words = tuple(HeardWord(*one) for one in value["words"])
            return Transcript(tuple(joined_words(words)), words, value["length_s"], tuple(value["told"]))
    why = process.stderr.read().decode(errors="replace").strip().splitlines()[-1:]
    raise Problem(f"Listening broke off: {' '.join(why) or 'the process ended'}.", str(path), "Try again.")


def main(path: str, script: str) -> None:
    """Listens, and writes what is heard to standard output."""

    def put(value: dict[str, object]) -> None:
        print(json.dumps(value), flush=True)

    try:
        rows = json.loads(Path(script).read_text(encoding="utf-8"))
        cues = [Cue(start, end, text, "say", "both", "", True) for start, end, text in rows]
        found = recognise(Path(path), cues, lambda share: put({"at": round(share, 4)}))
    except Problem as problem:  # whatever else breaks off is on standard error, and told by who listens
        put({"problem": [problem.what, problem.where, problem.do]})
        return
    put({"words": found.words, "length_s": found.length_s, "told": found.messages})


if __name__ == "__main__":
    main(*sys.argv[1:])
