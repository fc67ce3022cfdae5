"""Looking back at a recording: its sources read, a class compared with it, and the answer written."""

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any

import msgspec

from yewhour.content.paths import DATA
from yewhour.core.finding import CheckRules
from yewhour.core.lengths import seconds, show_length
from yewhour.core.outline.reader import read_outline
from yewhour.core.pipeline import SolvedPlan, solve
from yewhour.core.problem import Problem
from yewhour.core.review.actual_class import actual_class
from yewhour.core.review.bring_in import (
    BroughtClass,
    doses_of,
    heard_class,
    own_share_of,
    with_length,
    with_own_seconds,
    written_down,
)
from yewhour.core.review.findings import ReviewFinding, review_finding, review_findings
from yewhour.core.review.listening.described import DescriptionIndex, Descriptions
from yewhour.core.review.listening.free_listener import FreeListener
from yewhour.core.review.review import Review, look_back, pace_of
from yewhour.core.review.review_values import as_json, finding_value, review_values
from yewhour.core.review.whose import likeliest
from yewhour.core.review.without_plan import findings_alone
from yewhour.core.script.cue import Cue
from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.core.sides import unmarked
from yewhour.core.take.take import Take
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.core.transcript.captions import read_captions
from yewhour.core.transcript.mentions import EverydayWords, MentionIndex
from yewhour.core.transcript.transcript import HeardWord, SpeechStretch, Transcript
from yewhour.files.atomic_files import read_all, write_whole
from yewhour.files.late import late
from yewhour.files.toml_files import read_toml
from yewhour.render.formats import FORMATS

if TYPE_CHECKING:
    from yewhour.voice.recognition import recording_words
else:
    recording_words = late(
        "yewhour.voice.recognition.recording_words"
    )  # the recogniser and its codecs, which captions do not need


Progress = Callable[[float], None]
EARLIER = 600  # ticks before a part of a recording whose lines may still be in it
MOST_BYTES = 20_000_000  # of captions: a day of talk


class RecordingSource(msgspec.Struct, frozen=True):
    """What there is of a recording: captions, or sounds, each from a second of it on."""

    captions: Path | None = None
    sounds: tuple[tuple[float, Path], ...] = ()

    @property
    def name(self) -> str:
        """What the recording is called."""
        paths = [*filter(None, [self.captions]), *(path for _, path in self.sounds)]
        return paths[0].stem if paths else ""


class ReviewedRecording(msgspec.Struct, frozen=True):
    """A class looked back at, what was noticed, and what was heard."""

    back: Review
    found: tuple[ReviewFinding, ...]
    hearing: Transcript | None = None

    @property
    def json(self) -> bytes:
        """For other programs."""
        return as_json(review_values(self.back, self.found))

    @property
    def text(self) -> bytes:
        """To be read."""
        back = self.back
        rows = [
            f"{back.timed.plan.brief.title}: {_clock(back.length_s)}, {_clock(back.target_s)} were planned."
        ]
        if back.own_words:
            rows.append("It is this class, in other words than its script's.")
        due = [line for line in back.lines if back.went(line)]
        if due:
            said = sum(line.said_s is not None for line in due)
            rows.append(f"{said} of {len(due)} lines were said; {len(back.extra)} remarks besides.")
        if back.drift and not back.causes:
            spent = ", ".join(f"{name} {value:+.0f} s" for name, value in back.drift.items())
            rows.append(f"More or less than planned: {spent}.")
        if back.pace is not None:
            pace = back.pace
            rows.append(
                f"{pace.words_per_min:.0f} words a minute while speaking, {pace.silence:.0%} silence."
            )
        rows += _rows(self.found)
        return ("\n".join([*rows, *back.messages]) + "\n").encode()


class UnplannedRecording(msgspec.Struct, frozen=True):
    """A recording without its plan, and what was noticed."""

    hearing: Transcript
    found: tuple[ReviewFinding, ...]

    @property
    def json(self) -> bytes:
        """For other programs; what only a plan can tell is left out."""
        value: dict[str, Any] = {
            "length_s": round(self.hearing.length_s, 2),
            "pace": pace_of(self.hearing, self.hearing.length_s),
            "findings": [finding_value(one) for one in self.found],
            "told": list(self.hearing.messages),
        }
        return as_json(value)

    @property
    def text(self) -> bytes:
        """To be read."""
        rows = [f"A recording of {_clock(self.hearing.length_s)}, {len(self.hearing.words)} words."]
        return ("\n".join([*rows, *_rows(self.found), *self.hearing.messages]) + "\n").encode()


def _clock(at_s: float) -> str:
    return show_length(round(at_s, 1), True)


def _rows(found: tuple[ReviewFinding, ...]) -> list[str]:
    rows = [f"{_clock(one.at_s):>9}  {one.severity:5}  {one.code}: {one.message}" for one in found]
    return rows or ["Nothing to say about it."]


def load_looking(data: Path = DATA) -> CheckRules:
    """The words of what is noticed in a recording."""
    return msgspec.convert(read_toml(data / "looking.toml"), CheckRules)


def captions_in(path: Path, lasts_s: float = 0.0) -> Transcript:
    """What captions say. Raises Problem for a file that can't be read, or has none. lasts_s: how long their
    recording is, where that is known."""
    if path.is_dir():
        raise Problem("This is a folder, not captions.", str(path), "Name a file of SubRip, WebVTT or text.")
    content = read_all(path)
    if len(content) > MOST_BYTES:
        raise Problem("This is too large for captions.", str(path), "Give SubRip, WebVTT or text.")
    return read_captions(content, str(path), lasts_s)


def heard_in(
    source: RecordingSource, cues: Sequence[Cue], progress: Progress = lambda share: None
) -> Transcript | None:
    """What is heard in captions, or in sound where there are none; None for neither. Raises Problem.

    cues: the lines that may be heard. progress: told the share that is done; what it raises stops the work.
    """
    if source.captions is not None:
        return captions_in(source.captions, seconds(max((cue.end for cue in cues), default=0)))
    if not source.sounds:
        return None
    parts: list[tuple[float, Transcript]] = []
    share = 1 / len(source.sounds)
    for number, (from_s, path) in enumerate(source.sounds):
        due = [msgspec.structs.replace(cue, start=cue.start - round(from_s * 10)) for cue in cues]
        due = [cue for cue in due if cue.start > -EARLIER] or due

        def onward(done: float, before: float = number * share) -> None:
            progress(before + done * share)

        parts.append((from_s, recording_words.recognise_apart(path, due, onward)))
    return joined_transcripts(parts)


def joined_transcripts(parts: Sequence[tuple[float, Transcript]]) -> Transcript:
    """What was heard in several recordings of one take, each from a second of it on."""
    talks = [
        SpeechStretch(one.start_s + from_s, one.end_s + from_s, one.text)
        for from_s, heard in parts
        for one in heard.talks
    ]
    words = [
        HeardWord(one.text, one.start_s + from_s, one.end_s + from_s)
        for from_s, heard in parts
        for one in heard.words
    ]
    length_s = max((from_s + heard.length_s for from_s, heard in parts), default=0.0)
    return Transcript(
        tuple(talks),
        tuple(words),
        length_s,
        tuple(message for _, heard in parts for message in heard.messages),
    )


def any_line(teaching_data: TeachingData) -> list[Cue]:
    """Lines of every movement, for a recording of which no class is known."""
    texts = {
        unmarked(text)
        for one in teaching_data.library.values()
        for lines in one.lines.values()
        for wordings in lines
        for text in wordings
    }
    return [Cue(0, 30, text, "say", "both", "", True) for text in sorted(texts)]


def review_recording(timed: TimedClass, take: Take | None, hearing: Transcript | None) -> ReviewedRecording:
    """A class beside a recording of it."""
    back = look_back(timed, take, hearing)
    return ReviewedRecording(back, tuple(review_findings(back, load_looking())), hearing)


REAL = ("srt", "vtt", "chapters", "ffmetadata", "podcast", "labels", "csv", "otio")


def told_whose(
    looked: ReviewedRecording, teaching_data: TeachingData, sheets: Callable[[], Sequence[ClassSheet]]
) -> ReviewedRecording:
    """The same, with the class of the shelf that it is of, where it is not the one it was held against.

    sheets: gives the classes of the shelf; asked only where they are needed.
    """
    if not looked.back.stranger or looked.hearing is None:
        return looked
    heard = [one.movement for one in free_listener(teaching_data).heard(looked.hearing)]
    classes = {one.title: tuple(one.movements) for one in sheets()}
    title = likeliest(heard, classes, looked.back.timed.plan.brief.title)
    if not title:
        return looked
    told = review_finding(load_looking(), "whose", 0.0, title=title)
    return msgspec.structs.replace(looked, found=(*looked.found, told))


def write_real(
    looked: ReviewedRecording, source: RecordingSource, folder: Path, stem: str, replace: bool = False
) -> list[Path]:
    """Writes captions, chapters, labels, cue sheet and timeline as it was; Problem for what is there."""
    if not folder.is_dir():
        raise Problem("There is no such folder.", str(folder), "Make it first, or name another.")
    timed = actual_class(looked.back, source.captions is not None)
    paths = [(FORMATS[name], folder / f"{stem}.as-it-was{FORMATS[name].suffix}") for name in REAL]
    for _, path in paths:
        if path.exists() and not replace:
            do = "Write into another folder, or say --replace."
            raise Problem("This is there already; nothing was written.", str(path), do)
    for form, path in paths:
        write_whole(path, form.write(timed))
    return [path for _, path in paths]


DOSED = 2  # times that the doses of a class that was brought in are set anew
_listeners: list[tuple[TeachingData, FreeListener]] = []  # the last one that was made


def free_listener(teaching_data: TeachingData) -> FreeListener:
    """What hears movements in any words. Some 2 s the first time; its lines and names are the library's."""
    for known, listener in _listeners:
        if known is teaching_data:
            return listener
    talk = msgspec.convert(read_toml(DATA / "mentions.toml"), EverydayWords)
    words = msgspec.convert(read_toml(DATA / "described.toml"), Descriptions)
    names = MentionIndex(teaching_data.library, list(teaching_data.blocks), talk)
    phrases = msgspec.convert(read_toml(DATA / "heard_in_other_words.toml"), dict[str, tuple[str, ...]])
    made = FreeListener(teaching_data, names, DescriptionIndex(words), phrases)
    _listeners[:] = [(teaching_data, made)]
    return made


def brought_from(hearing: Transcript, teaching_data: TeachingData, title: str) -> BroughtClass:
    """A recording as the outline of a class, which can be read."""
    listener = free_listener(teaching_data)
    heard = heard_class(hearing, listener)
    brought = written_down(heard, listener, title)
    if not brought.items:
        return msgspec.structs.replace(brought, told=" ".join(hearing.messages))
    best, solved = brought, _solved(brought, hearing, teaching_data)
    for _ in range(DOSED):  # its doses are set by the ways and the words that it has with them
        made = _solved(brought, hearing, teaching_data)
        doses = doses_of(brought, made.make(made.preferred_s), teaching_data.library)
        brought = written_down(heard, listener, title, doses)
        made = _solved(brought, hearing, teaching_data)
        if abs(made.preferred_s - hearing.length_s) < abs(solved.preferred_s - hearing.length_s):
            best, solved = brought, made
    best = msgspec.structs.replace(best, outline=_with_share(best, hearing, teaching_data))
    target_s = solved.plan.brief.target_s
    best = with_length(best, target_s, solved.nearest_s(target_s))
    return msgspec.structs.replace(best, told=" ".join(filter(None, (*hearing.messages, best.told))))


def _solved(brought: BroughtClass, hearing: Transcript, teaching_data: TeachingData) -> SolvedPlan:
    """A class that was brought in, with her own seconds of ways and teaching."""
    plan = read_outline(_with_share(brought, hearing, teaching_data), teaching_data.library)
    return solve(plan, teaching_data)


def _with_share(brought: BroughtClass, hearing: Transcript, teaching_data: TeachingData) -> str:
    """The outline with the share of the usual ways and teaching that makes it as long as it was."""

    def natural_s(share: float) -> float:
        plan = read_outline(with_own_seconds(brought.outline, share), teaching_data.library)
        return solve(plan, teaching_data).preferred_s

    return with_own_seconds(brought.outline, own_share_of(hearing.length_s, natural_s))


def review_unplanned(hearing: Transcript, title: str) -> UnplannedRecording:
    """A recording by itself."""
    return UnplannedRecording(hearing, tuple(findings_alone(hearing, load_looking(), title)))
