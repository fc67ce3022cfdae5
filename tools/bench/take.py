"""The take: how soon it is re-timed, whether a thousand takes keep their end, whether frames are in time."""

import time
from random import Random
from statistics import median

from tools.bench.plans import sixty_steps
from tools.bench.table import ROOM, against, frames, line
from tools.takes import could, misses, simulated
from yewhour.content.paths import DEMO, demo_classes
from yewhour.content.terms import load_voice
from yewhour.core.pipeline import solve
from yewhour.core.take.apply_marks import apply_mark_numbers
from yewhour.core.take.marks import Mark
from yewhour.core.take.rewriting import with_new_lines
from yewhour.core.take.take import begin
from yewhour.state.classes.class_file import read_plan
from yewhour.state.teaching_data import load_teaching_data
from yewhour.voice.devices.monitor import MonitorDevice, MonitorMix, PlacedSound
from yewhour.voice.sound.mix import ClassMix
from yewhour.voice.sound.shipped_voice import Samples, shipped_voice
from yewhour.voice.sound.sound_events import sound_events
from yewhour.voice.sound.sound_file import write_sound

TAKES = 1000
FRAME_S = 1 / 60


def bench_take() -> None:
    """All three."""
    words, _ = load_teaching_data()
    _retiming(words)
    _thousand(words)
    _frames()


def _retiming(words) -> None:
    solved = solve(sixty_steps(), words)
    timed = solved.make(3600.0)
    started = apply_mark_numbers(begin(solved, timed), Mark(0.0, "start"))
    dice, took, spoke = Random(3), [], []
    for _ in range(200):
        mark = Mark(round(dice.uniform(1, 3590), 1), dice.choice(("again", "fewer", "next", "pause")))
        marks = [mark, Mark(mark.at_s + 9, "resume")] if mark.do == "pause" else [mark]
        before = time.perf_counter()
        take = started
        for one in marks:
            take = apply_mark_numbers(take, one)
        took.append(time.perf_counter() - before)
        before = time.perf_counter()
        with_new_lines(take)
        spoke.append(time.perf_counter() - before)
    against("re-timing an hour at any moment, median / a yardstick", median(took), 0.3)
    line("   the slowest of 200", f"{max(took) * 1000:.1f} ms")
    line("   its lines, on a thread of their own, median", f"{median(spoke) * 1000:.1f} ms")


def _thousand(words) -> None:
    timed = [(solved, solved.make()) for solved in (solve(read_plan(one), words) for one in demo_classes())]
    dice, missed, able, wrong = Random(1), 0, 0, 0
    for number in range(TAKES):
        take, found = simulated(*timed[number % len(timed)], Random(dice.randrange(10**9)))
        wrong += bool(found)
        if misses(take):
            missed += 1
            able += could(take)
    line(f"{TAKES} takes that drift: end missed though it could be kept", str(able), "none", not able)
    line("   end missed, as no whole numbers keep it", str(missed))
    line("   with a lock broken, sides apart or a rest too short", str(wrong), "none", not wrong)


def _frames() -> None:
    """Every frame of the 26-minute demo at a quarter of a second, with a mark each half minute, painted."""
    from yewhour.ui.frame.app import application, first_window, open_first

    qt = application()
    window = first_window(False)
    window.resize(1280, 800)
    window.show()
    open_first(window, DEMO / "slack-tide.yewhour")
    while window.session.busy:
        qt.processEvents()
    now = [0.0]
    window.go_to("to_take")
    page = window.pages.take()
    page.frames.stop()
    page.runner.clock = lambda: now[0]
    page.do("stand")
    took = []
    while page.runner.state != "over":
        now[0] += 0.25
        if int(now[0] * 4) % 120 == 0:
            page.do("again" if int(now[0]) % 60 else "fewer")
        before = time.perf_counter()
        page.frame()
        qt.processEvents()
        took.append(time.perf_counter() - before)
    took.sort()
    frames("frames of a 26-minute take within three quarters of a yardstick", took)
    line(f"   of {len(took)}: median, slowest", f"{median(took) * 1000:.1f}, {took[-1] * 1000:.1f} ms")
    window.close()


class _Watched(MonitorMix):
    """An ear that notes, for each sound, how long after its moment it was given to the device."""

    def __init__(self, rate: int) -> None:
        super().__init__(rate)
        self.begun_s = time.monotonic()
        self.late_s: list[float] = []

    def block(self, count: int) -> Samples:
        """The next samples; what begins in them is noted."""
        reached, start = self._reached, self.played + self._offset
        wall_s = time.monotonic() - self.begun_s
        out = super().block(count)
        for one in self._placed:
            if reached <= one.at < start + count and start:
                self.late_s.append(wall_s + (one.at - start) / self.rate - one.at / self.rate)
        return out


def bench_ear(minutes: float = 30) -> None:
    """So many real minutes of lines on the null device, which is followed as the window does."""
    words, _ = load_teaching_data()
    timed = solve(read_plan(DEMO / "slack-tide.yewhour"), words).make()
    slower = {str(name): value for name, value in load_voice().slower.items()}
    mix = ClassMix(
        sound_events(timed.segments, timed.cues, {"lines"}), timed.length, shipped_voice(), 1.0, slower
    )
    placed = [PlacedSound(mix.sample_of(one.at), mix.sound_of(one)) for one in mix.heard]
    placed += [PlacedSound(one.at + mix.samples, one.sound) for one in placed]  # once more
    ear = _Watched(mix.rate)
    ear.place(placed)
    device = MonitorDevice(ear, print, "null")
    while (now_s := time.monotonic() - ear.begun_s) < minutes * 60:
        ear.follow(round(now_s * mix.rate))
        time.sleep(FRAME_S)
    device.close()
    late = sorted(abs(one) for one in ear.late_s)
    wanted = sum(one.at < minutes * 60 * mix.rate for one in placed)
    title = f"{len(late)} of {wanted} lines in {minutes:g} real minutes: the latest"
    line(title, f"{late[-1] * 1000:.0f} ms", "under 30 ms", late[-1] < 0.03)


def bench_voice() -> None:
    """The 26-minute demo spoken into a file: against its length, in processor time, as machines are noisy."""
    words, _ = load_teaching_data()
    timed = solve(read_plan(DEMO / "slack-tide.yewhour"), words).make()
    slower = {str(name): value for name, value in load_voice().slower.items()}
    path = ROOM / "class.flac"
    before = time.process_time()
    done = write_sound(timed, path, shipped_voice(), {"lines", "bells"}, slower)
    took = time.process_time() - before
    ratio = timed.length_s / took
    line("a class as sound: its length / the time it takes", f"{ratio:.0f}", "at least 50", ratio >= 50)
    drift = done.samples - timed.length * done.rate // 10
    line("   samples too many or too few in the whole file", str(drift), "none", not drift)
    line("   loudness, highest true peak", f"{done.loudness} LUFS, {done.peak} dB")
