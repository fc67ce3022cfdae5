"""What there has to be before a take: room on the disk, power, a machine that does not fall asleep."""

import contextlib
import shutil
from pathlib import Path

import msgspec

from yewhour.core.lengths import said_length
from yewhour.state.paths import kept_takes

SOUND_BYTES_PER_S = 60_000  # of one voice as it is kept
FREE_BYTES = 200_000_000  # that stay free
LOW = 0.25  # of a battery that has to last for the class
POWER = Path("/sys/class/power_supply")


class BeforeTaking(msgspec.Struct, frozen=True):
    """room_s: seconds of sound there is room for. battery: its charge from 0 to 1, None for mains or none."""

    room_s: float
    battery: float | None

    def wanting(self, length_s: float, sound: bool) -> list[str]:
        """What is missing for a class of so many seconds, a sentence each; nothing where all is there."""
        said = []
        if self.room_s <= 0 or (sound and self.room_s < length_s * 1.5):
            said.append(f"The disk has room for {said_length(max(1.0, self.room_s))} of sound only.")
        if self.battery is not None and self.battery < LOW:
            said.append(f"The battery is at {self.battery:.0%} and not charging: plug it in.")
        return said


def before_taking(power: Path = POWER) -> BeforeTaking:
    """How things stand on this machine. power: where the system tells of batteries."""
    folder = next(one for one in (kept_takes(), *kept_takes().parents) if one.exists())
    room_s = 0.0
    with contextlib.suppress(OSError):
        room_s = (shutil.disk_usage(folder).free - FREE_BYTES) / SOUND_BYTES_PER_S
    return BeforeTaking(room_s, _battery(power))


def _battery(power: Path) -> float | None:
    """The charge of the emptiest battery that is not charging."""
    found = []
    for battery in sorted(power.glob("BAT*")):
        with contextlib.suppress(OSError, ValueError):
            if (battery / "status").read_text().strip() == "Discharging":
                found.append(int((battery / "capacity").read_text()) / 100)
    return min(found, default=None)
