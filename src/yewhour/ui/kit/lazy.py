"""Something that is made when it is first asked for."""

from collections.abc import Callable
from typing import Generic, TypeVar

T = TypeVar("T")


class Lazy(Generic[T]):
    """Calls `make` once. made: what it gave, None as long as nobody has asked."""

    def __init__(self, make: Callable[[], T]) -> None:
        self._make = make
        self._then: list[Callable[[T], object]] = []
        self.made: T | None = None

    def __call__(self) -> T:
        """It, made now if it was not yet."""
        return self.made if self.made is not None else self.give(self._make())

    def give(self, made: T) -> T:
        """It is this one."""
        self.made = made
        for then in self._then:
            then(made)
        return made

    def when_made(self, then: Callable[[T], object]) -> None:
        """Calls this with it as soon as it is made."""
        self._then.append(then)
        if self.made is not None:
            then(self.made)

    def forget(self) -> None:
        """It is made anew when it is asked for again."""
        self.made = None
