"""From a recording that was looked back at to the window that makes its film."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from yewhour.state.takes.camera_film import CameraFilm, CameraSource
from yewhour.state.takes.recording_kinds import CAMERAS
from yewhour.state.takes.recordings import RecordingSource, ReviewedRecording
from yewhour.state.takes.take_sounds import CLASS, MARKS, has_sound
from yewhour.ui.desk.session import Session
from yewhour.ui.kit.theme import Theme
from yewhour.ui.review.film.film_window import FilmWindow
from yewhour.voice.film.cut_film import camera_length_s


def film_window(session: Session, theme: Theme, looked: ReviewedRecording) -> FilmWindow:
    """The window for the film of a recording that was looked back at."""
    return FilmWindow(session.jobs, theme, looked.back.timed, session.teaching_data)


def seen_already(looked: ReviewedRecording, source: RecordingSource) -> CameraFilm | None:
    """The camera's file, where it is that which was looked back at; None where it has to be named yet.
    Raises Problem where it can't be read any more."""
    if len(source.sounds) != 1 or source.sounds[0][1].suffix.lower() not in CAMERAS:
        return None
    camera = source.sounds[0][1]
    back = looked.back
    return CameraFilm(
        CameraSource(camera, Path(CLASS)), camera_length_s(camera), back.timed, back, looked.hearing
    )


def look_in(
    window: FilmWindow, session: Session, source: RecordingSource, recording: str
) -> Callable[[Path], None]:
    """What looks for the class in a camera's file that is named: by the take's marks and its sound, by the
    captions, or by what is heard. recording: what tells it from others; of a take, its folder."""

    def look(camera: Path) -> None:
        folder = Path(recording)
        marks = folder / MARKS if (folder / MARKS).is_file() else None
        sound = source.sounds[0][1] if source.sounds and marks is not None and has_sound(folder) else None
        class_file = folder / CLASS if marks is not None else session.path or Path(CLASS)
        window.look_at(CameraSource(camera, class_file, source.captions, marks, sound))

    return look
