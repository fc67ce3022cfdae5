"""Pictures laid over the frames of a film: blended in the planes of a video, where they lie and nowhere else.

A frame has its light whole and its colour at half the size; a picture laid over it is brought into the same
planes once, and blended with a few operations of NumPy for as long as it stands there.
"""

from collections.abc import Callable, Sequence
from functools import cached_property

import av
import numpy as np
import numpy.typing as npt

Bytes = npt.NDArray[np.uint8]
Shares = npt.NDArray[np.uint16]
HALF, EIGHT = np.uint16(128), np.uint16(8)


class LaidPicture:
    """A picture with its own transparency, and where its upper left corner lies: even, like its size.

    pixels: high x wide x 4, red, green, blue and how much it covers; not multiplied.
    """

    def __init__(self, x: int, y: int, pixels: Bytes) -> None:
        assert not any(one % 2 for one in (x, y, *pixels.shape[:2])), (x, y, pixels.shape)
        self.x, self.y, self.pixels = x, y, pixels

    @cached_property
    def planes(self) -> tuple[tuple[Shares, Shares], ...]:
        """Each plane of it, light and both colours: what it adds, and what it leaves of what lies below (both
        of 256, so that a shift divides)."""
        frame = av.VideoFrame.from_ndarray(np.ascontiguousarray(self.pixels), format="rgba")
        bright = frame.reformat(format="yuv420p")
        cover = self.pixels[:, :, 3].astype(np.uint16)
        cover += cover >> np.uint16(7)
        rows = cover[::2] + cover[1::2]
        quarter = (rows[:, ::2] + rows[:, 1::2]) // 4
        return tuple(
            (plane_of(bright, number).astype(np.uint16) * share + HALF, np.uint16(256) - share)
            for number, share in enumerate((cover, quarter, quarter))
        )


def laid_picture(x: int, y: int, wide: int, high: int, content: bytes) -> LaidPicture:
    """A picture of so many bytes: red, green, blue and cover of each of its pixels, row by row; what covers
    nothing around it is left off."""
    pixels = np.frombuffer(content, np.uint8).reshape(high, wide, 4)
    seen = pixels[:, :, 3] > 0
    rows, columns = np.flatnonzero(seen.any(axis=1)), np.flatnonzero(seen.any(axis=0))
    if not len(rows):
        return LaidPicture(x, y, pixels[:2, :2])
    top, left = rows[0] // 2 * 2, columns[0] // 2 * 2
    cut = pixels[top : (rows[-1] + 2) // 2 * 2, left : (columns[-1] + 2) // 2 * 2]
    return LaidPicture(x + int(left), y + int(top), cut)


Over = Callable[[float], Sequence[LaidPicture]]  # what lies over the picture at a second of the film


def plane_of(frame: av.VideoFrame, number: int) -> Bytes:
    """A plane of a frame, to be looked at and written into: high x wide."""
    plane = frame.planes[number]
    whole: Bytes = np.asarray(memoryview(plane)).reshape(plane.height, plane.line_size)
    return whole[:, : plane.width]


def lay_over(frame: av.VideoFrame, pictures: Sequence[LaidPicture]) -> None:
    """Blends pictures into a frame of planes (yuv420p), one after another; what lies outside is left off."""
    if not pictures:
        return
    frame.make_writable()
    for number in range(3):
        whole, half = plane_of(frame, number), 2 if number else 1
        for one in pictures:
            adds, leaves = one.planes[number]
            top, left = one.y // half, one.x // half
            below = whole[top : top + adds.shape[0], left : left + adds.shape[1]]
            high, wide = below.shape
            mixed = below * leaves[:high, :wide]
            mixed += adds[:high, :wide]
            np.right_shift(mixed, EIGHT, out=below, casting="unsafe")


def flattened(pictures: Sequence[LaidPicture], wide: int, high: int) -> Bytes:
    """Pictures alone, on nothing: high x wide x 4, not multiplied."""
    whole = np.zeros((high, wide, 4), np.float32)
    for one in pictures:
        below = whole[one.y : one.y + one.pixels.shape[0], one.x : one.x + one.pixels.shape[1]]
        above = one.pixels[: below.shape[0], : below.shape[1]].astype(np.float32)
        share = above[:, :, 3:] / 255
        covered = share + below[:, :, 3:] / 255 * (1 - share)
        colour = above[:, :, :3] * share + below[:, :, :3] * (below[:, :, 3:] / 255) * (1 - share)
        below[:, :, :3] = np.divide(colour, covered, out=np.zeros_like(colour), where=covered > 0)
        below[:, :, 3:] = covered * 255
    return whole.round().astype(np.uint8)
