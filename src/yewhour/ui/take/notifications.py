"""Holds off the desktop's notifications while a class is recorded, where the desktop can be asked to."""

from __future__ import annotations

from collections.abc import Callable

from yewhour.background.sleep import WHY

SERVICE, PLACE = "org.freedesktop.Notifications", "/org/freedesktop/Notifications"
OWN_LINE = "yewhour-quiet"  # to the desktop: what was asked for on it holds for as long as it is open
PATIENCE_MS = 500


class KeptQuiet:
    """Holds off notifications from `begin` to `end`.

    ask: asks for it, and tells whether it was granted. let_go: takes it back. The desktop's own, if none.
    """

    def __init__(
        self, ask: Callable[[], bool] | None = None, let_go: Callable[[], object] | None = None
    ) -> None:
        self._ask, self._let_go = ask or _asked, let_go or _let_go
        self._able: bool | None = None
        self.held = False

    @property
    def able(self) -> bool:
        """Whether they can be held off here; tried once."""
        if self._able is None:
            self.begin()
            self._able = self.held
            self.end()
        return self._able

    def begin(self) -> None:
        """Holds them off from now on; nothing where they can't be."""
        if not self.held and self._able is not False:
            self.held = self._ask()

    def end(self) -> None:
        """Lets them come again."""
        if self.held:
            self._let_go()
        self.held = False


def _asked() -> bool:
    # 10 ms, and only where a take begins.
    from PySide6.QtDBus import QDBus, QDBusConnection, QDBusInterface, QDBusMessage

    bus = QDBusConnection.connectToBus(QDBusConnection.BusType.SessionBus, OWN_LINE)
    if bus.isConnected():
        service = QDBusInterface(SERVICE, PLACE, SERVICE, bus)
        service.setTimeout(PATIENCE_MS)
        answer = service.callWithArgumentList(QDBus.CallMode.Block, "Inhibit", ["yewhour", WHY, {}])
        if answer.type() == QDBusMessage.MessageType.ReplyMessage:
            return True
    _let_go()
    return False


def _let_go() -> None:
    # 10 ms, and only where a take begins.
    from PySide6.QtDBus import QDBusConnection

    QDBusConnection.disconnectFromBus(OWN_LINE)
