"""A camera's file for pictures: a figure goes through a class in a made-up room."""

from fractions import Fraction
from pathlib import Path

import numpy as np

from yewhour.core.timed_class import TimedClass
from yewhour.ui.kit.film.painter import FilmPainter
from yewhour.voice.film.drawn_film import drawn_pictures
from yewhour.voice.film.film_file import KINDS, FilmText, StoredSound, write_film
from yewhour.voice.film.laid_over import LaidPicture

WIDE, HIGH, FPS = 640, 360, 25
WALL, FLOOR, WINDOW = (203, 190, 166), (128, 100, 78), (214, 226, 233)


def room() -> LaidPicture:
    """A wall, a floor and a window."""
    pixels = np.full((HIGH, WIDE, 4), 255, np.uint8)
    pixels[:250, :, :3], pixels[250:, :, :3] = WALL, FLOOR
    pixels[36:140, 60:170, :3] = WINDOW
    return LaidPicture(0, 0, pixels)


def posed(path: Path, timed: TimedClass, sound: StoredSound) -> None:
    """Films a class as it went; what does not move is filmed twice a second."""
    painter = FilmPainter(timed, WIDE, HIGH, ["figure"], alone=True)
    pictures = drawn_pictures(room(), lambda at_s: painter(round(at_s)), round(timed.length_s * FPS))
    for _ in write_film(path, KINDS[".mp4"], pictures, Fraction(FPS), sound, FilmText(""), timed.length_s):
        pass
