"""Jobs of a window: work beside the interface, what came of it back on the interface's thread.

`background.jobs` says what a job is. Here it comes back by a signal, and not to what is gone by then.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QObject, Signal
from shiboken6 import isValid

from yewhour.background.jobs import Fault, Job, Runner
from yewhour.core.problem import Problem


class Jobs(QObject):
    """Runs jobs for one window. faulted: a Fault, to be shown."""

    faulted = Signal(object)
    _back = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self._back.connect(lambda call: call())
        self._runner = Runner(self._deliver, lambda fault: self.faulted.emit(fault))

    def _deliver(self, call: Callable[[], None]) -> None:
        if isValid(self):  # the window may be gone, and this with it
            self._back.emit(call)

    def run(
        self,
        key: str,
        work: Callable[[Job], Any],
        then: Callable[[Any], None] = lambda value: None,
        *,
        doing: str,
        lost: str = "",
        failed: Callable[[Problem], None] = lambda problem: None,
        faulted: Callable[[Fault], None] = lambda fault: None,
        progress: Callable[[Any], None] | None = None,
        owner: QObject | None = None,
        **more: Any,
    ) -> Job:
        """As `Runner.run`. owner: who must still be there for anything to be delivered."""

        def there(call: Callable[[Any], None]) -> Callable[[Any], None]:
            return lambda value: call(value) if owner is None or isValid(owner) else None

        return self._runner.run(
            key, work, there(then), doing=doing, lost=lost, failed=there(failed), faulted=there(faulted),
            progress=there(progress) if progress is not None else None, **more,
        )  # fmt: skip

    def busy(self, *keys: str) -> bool:
        """Whether a wanted job of these keys (of any, for none) waits, runs, or is on its way back."""
        return self._runner.busy(*keys)

    def cancel(self, key: str) -> None:
        """Nothing of this key is wanted any more."""
        self._runner.cancel(key)

    def close(self) -> None:
        """When the window closes: nothing is delivered any more."""
        self._runner.close()
