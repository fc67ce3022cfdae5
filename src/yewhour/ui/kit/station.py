"""A station: what the window shows of the work, one at a time. It asks the window for things by signals."""

from typing import Protocol

from yewhour.ui.kit.theme import Theme


class Station(Protocol):
    """A widget that is one of the stations; its text size comes with its theme."""

    def enter(self) -> None:
        """It is shown from now on: it takes the focus."""
        ...

    def leave(self) -> None:
        """Another one takes its place."""
        ...

    def set_theme(self, theme: Theme) -> None:
        """Other colours, or another text size."""
        ...

    def shut(self) -> None:
        """The window closes: what is not on the disk is put there."""
        ...
