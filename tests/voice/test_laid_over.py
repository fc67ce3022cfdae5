"""What lies over a frame is where it was laid, as strong as it is, and nothing else is touched."""

import av
import numpy as np
import pytest

from yewhour.voice.film.laid_over import LaidPicture, flattened, laid_picture, lay_over


def frame_of(grey: int) -> av.VideoFrame:
    return av.VideoFrame.from_ndarray(np.full((60, 80, 3), grey, np.uint8), format="rgb24").reformat(
        format="yuv420p"
    )


def square(cover: int, colour: tuple[int, int, int] = (255, 255, 255)) -> LaidPicture:
    pixels = np.zeros((20, 20, 4), np.uint8)
    pixels[:, :, :3], pixels[:, :, 3] = colour, cover
    return LaidPicture(10, 20, pixels)


@pytest.mark.parametrize(("cover", "seen"), [(255, 255), (128, 178), (0, 100)])
def test_a_picture_is_blended_where_it_lies(cover, seen):
    frame = frame_of(100)
    lay_over(frame, [square(cover)])
    grey = frame.to_ndarray(format="gray").astype(int)
    assert grey[22:38, 12:28] == pytest.approx(np.full((16, 16), seen), abs=3)
    outside = grey.copy()
    outside[20:40, 10:30] = 100
    assert np.abs(outside - 100).max() <= 1


def test_its_colour_is_kept_and_what_lies_outside_is_left_off():
    frame = frame_of(16)
    red = square(255, (200, 20, 20))
    lay_over(frame, [red, LaidPicture(70, 50, red.pixels)])
    pixels = frame.to_ndarray(format="rgb24").astype(int)
    assert pixels[30, 20] == pytest.approx([200, 20, 20], abs=6)
    assert pixels[55, 75] == pytest.approx([200, 20, 20], abs=6)
    assert pixels[10, 10] == pytest.approx([16, 16, 16], abs=3)


def test_a_frame_that_somebody_else_holds_is_not_painted_into():
    frame = frame_of(100)
    kept = frame.reformat(format="yuv420p").to_ndarray().copy()
    lay_over(frame, [])
    assert (frame.to_ndarray() == kept).all()


def test_what_covers_nothing_is_left_off_and_the_rest_stays_where_it_was():
    whole = np.zeros((40, 60, 4), np.uint8)
    whole[11:14, 21:30] = (9, 8, 7, 255)
    found = laid_picture(2, 4, 60, 40, whole.tobytes())
    assert (found.x, found.y, found.pixels.shape) == (22, 14, (4, 10, 4))
    back = flattened([found], 80, 60)
    assert (back[4:44, 2:62] == whole).all()
    nothing = laid_picture(0, 0, 8, 8, bytes(8 * 8 * 4))
    assert not flattened([nothing], 10, 10).any()


def test_one_over_the_other_without_a_ground():
    under, above = square(255, (0, 0, 200)), square(128, (200, 0, 0))
    found = flattened([under, above], 80, 60)
    assert found[30, 20] == pytest.approx([100, 0, 100, 255], abs=2)
    alone = flattened([above], 80, 60)
    assert alone[30, 20] == pytest.approx([200, 0, 0, 128], abs=1)
