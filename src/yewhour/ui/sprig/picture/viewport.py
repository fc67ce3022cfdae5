"""Reach: which stretch of the class the sprig shows, and how tall a second is. Numbers only."""

MOST_PX_PER_S = 60.0  # a breath of eight seconds then fills most of a window


class Viewport:
    """A stretch of time on a height of pixels.

    from_s: the time at `top`. room: pixels from top to the foot. px_per_s: pixels a second. whole:
    everything is shown, and stays so when the class or the window changes.
    """

    def __init__(self) -> None:
        self.top, self.room = 26.0, 500.0
        self.length_s = 60.0
        self.from_s, self.px_per_s = 0.0, 8.0
        self.whole = True

    def fit(self, top: float, room: float, length_s: float) -> None:
        """Takes another window height or class length."""
        self.top, self.room, self.length_s = top, max(40.0, room), max(1.0, length_s)
        if self.whole:
            self.from_s, self.px_per_s = 0.0, self.least
        self._clamp()

    @property
    def least(self) -> float:
        """Pixels a second when the whole class is shown."""
        return self.room / self.length_s

    def y_at(self, time_s: float) -> float:
        """Where a time is, in pixels."""
        return self.top + (time_s - self.from_s) * self.px_per_s

    def time_at(self, y: float) -> float:
        """The time at a height."""
        return self.from_s + (y - self.top) / self.px_per_s

    def zoom(self, factor: float, y: float) -> None:
        """Closer or further, with the time under `y` staying there."""
        held = self.time_at(y)
        self.px_per_s = min(MOST_PX_PER_S, max(self.least, self.px_per_s * factor))
        self.whole = self.px_per_s <= self.least * 1.001
        self.from_s = held - (y - self.top) / self.px_per_s
        self._clamp()

    def scroll(self, pixels: float) -> None:
        """Moves along the class."""
        self.from_s += pixels / self.px_per_s
        self._clamp()

    def show(self, start_s: float, end_s: float) -> None:
        """Brings a stretch into view, moving no more than needed."""
        margin = min(40.0, self.room / 6) / self.px_per_s
        seen = self.room / self.px_per_s
        if start_s - margin < self.from_s or end_s - start_s > seen:
            self.from_s = start_s - margin
        elif end_s + margin > self.from_s + seen:
            self.from_s = end_s + margin - seen
        self._clamp()

    def all(self) -> None:
        """The whole class."""
        self.whole = True
        self.fit(self.top, self.room, self.length_s)

    def _clamp(self) -> None:
        self.px_per_s = min(max(self.px_per_s, self.least), max(MOST_PX_PER_S, self.least))
        last = self.length_s - self.room / self.px_per_s
        self.from_s = min(max(0.0, self.from_s), max(0.0, last))
