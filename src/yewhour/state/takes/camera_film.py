"""A camera's file beside its class: where the class begins in it, what became of it, what would be cut."""

from collections.abc import Callable, Sequence
from pathlib import Path
from statistics import median

import msgspec

from yewhour.core.film.class_in_film import class_in_film
from yewhour.core.film.cut_list import CutList, cuts_of
from yewhour.core.lengths import show_length
from yewhour.core.problem import Problem
from yewhour.core.review.actual_class import actual_class
from yewhour.core.review.film_time import of_the_recording
from yewhour.core.review.review import Review
from yewhour.core.script.cue import Cue
from yewhour.core.take.take import Take
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timed_class import TimedClass
from yewhour.core.transcript.line_matches import TRUSTED, match_lines
from yewhour.core.transcript.transcript import Transcript
from yewhour.state.takes import recordings
from yewhour.state.takes.replayed_take import replay_take
from yewhour.voice.film.alignment import Alignment, align, clap_in
from yewhour.voice.film.cut_film import OwnSound, camera_length_s
from yewhour.voice.sound.spoken_track import told_track

LEAST_OF_IT = 0.7  # of the promised length, that a recording of the class has
TOGETHER_S = 2.0  # so near nought, what was heard tells no other beginning
Progress = Callable[[float], None]


class CameraSource(msgspec.Struct, frozen=True):
    """What there is: the camera's file, the captions of it, the marks of the take, and its sound where that
    was recorded apart. length_s: of the class, None as the take had it."""

    camera: Path
    class_file: Path
    captions: Path | None = None
    marks: Path | None = None
    sound: Path | None = None
    length_s: float | None = None


class CameraFilm(msgspec.Struct, frozen=True):
    """A camera's file looked at. told: what the beginning was found by, "" where nothing was needed. tracks:
    which of several tracks of sound is heard, "" where there is one."""

    source: CameraSource
    length_s: float
    timed: TimedClass
    back: Review
    hearing: Transcript | None
    lies: Alignment | None = None
    told: str = ""
    tracks: str = ""

    @property
    def own_sound(self) -> OwnSound | None:
        """The sound that was recorded apart, and where it lies."""
        return (self.source.sound, self.lies) if self.source.sound and self.lies else None

    def cuts(self) -> CutList:
        """The cuts that are proposed. Raises Problem for a recording in which the class is not whole."""
        found = cuts_of(self.back, self.hearing, self.length_s)
        if found.film_s < LEAST_OF_IT * found.promised_s:
            there, whole = (show_length(round(one)) for one in (found.film_s, found.promised_s))
            raise Problem(
                f"Only {there} of {whole} lie in this recording: it ends early, or is of another class.",
                str(self.source.camera), "Name the whole recording, and its own class.",
            )  # fmt: skip
        return found

    def in_film(self, cuts: CutList) -> TimedClass:
        """The class as it is in the film that cuts make: whatever writes classes writes of it."""
        return class_in_film(actual_class(self.back, True), self.back.cuts, cuts)


def look_at_camera(
    source: CameraSource, planned: Callable[[], TimedClass], words: TeachingData, progress: Progress
) -> CameraFilm:
    """A camera's file beside its class. Raises Problem for what can't be read, and for another class.

    planned: makes the class, where there are no marks.
    """
    length_s = camera_length_s(source.camera)
    lies = align(source.camera, source.sound) if source.sound is not None else None
    from_s, told = (lies.offset_s, "by its own sound") if lies is not None else (0.0, "")
    take: Take | None = None
    if source.marks is not None:
        taken = replay_take(source.class_file, source.marks, source.length_s, words, from_s)
        timed, take = taken.timed, taken.take
    else:
        timed = planned()
    cues = of_the_recording(take.cues, take.cuts) if take is not None else list(timed.cues)
    sounds: tuple[tuple[float, Path], ...] = () if source.captions else ((0.0, source.camera),)
    if source.captions is None and lies is not None and source.sound is not None:
        sounds = ((lies.offset_s, source.sound),)  # nearer to her
    hearing = recordings.heard_in(recordings.RecordingSource(source.captions, sounds), cues, progress)
    if source.marks is not None:
        more_s, found = _begins(source.camera, cues, hearing, lies is None)
        told = found or told
        if more_s:
            from_s += more_s
            take = replay_take(source.class_file, source.marks, source.length_s, words, from_s).take
    back = recordings.review_recording(timed, take, hearing).back
    if back.stranger:
        raise Problem(
            f"Hardly a line of {timed.plan.brief.title} was heard in it: this seems to be another class.",
            str(source.camera), "Name its own class, and its captions.",
        )  # fmt: skip
    tracks = told_track(source.camera) if lies is None else ""
    return CameraFilm(source, length_s, timed, back, hearing, lies, told, tracks)


def _begins(
    camera: Path, cues: Sequence[Cue], hearing: Transcript | None, clapped: bool
) -> tuple[float, str]:
    """By how much the marks begin later in a camera's file, and what tells it: a clap, where it is listened
    for, or else her lines."""
    lines = match_lines(cues, hearing)[0] if hearing is not None else []
    apart = [
        one.said_s - one.planned_s
        for one in lines
        if one.said_s is not None and one.sure >= TRUSTED
    ]  # fmt: skip
    by_lines = median(apart) if apart else None
    clap = clap_in(camera) if clapped else None
    if clap is not None and (by_lines is None or abs(clap - by_lines) < TOGETHER_S):
        return clap, f"by the clap at {show_length(clap, True)}"
    if by_lines is not None and abs(by_lines) > TOGETHER_S:
        return by_lines, "by what was said"
    return 0.0, ""
