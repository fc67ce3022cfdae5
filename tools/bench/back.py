"""Looking back: how much of simulated takes is found, how surely, how quickly, and in how much memory."""

import os
import re
import resource
import tempfile
import time
from itertools import pairwise
from pathlib import Path
from random import Random
from statistics import median

import soundfile

from tools.bench.table import against, line
from tools.spoken import LATER, SPOKEN, brought, shares, told
from tools.teachers import REMARKS, captions, taught
from yewhour.content.paths import DEMO
from yewhour.core.pipeline import solve
from yewhour.core.review.learning import learnt_shares, observe
from yewhour.core.review.review import look_back
from yewhour.core.timed_class import TimedClass
from yewhour.core.transcript.captions import read_captions
from yewhour.core.transcript.line_matches import match_lines
from yewhour.state.classes.class_file import read_plan
from yewhour.state.takes.recordings import free_listener
from yewhour.state.teaching_data import load_teaching_data
from yewhour.voice.recognition.recording_words import recognise_apart
from yewhour.voice.recognition.simulated_teacher import simulated_speech
from yewhour.voice.sound.shipped_voice import shipped_voice
from yewhour.voice.sound.sound_events import SoundEvent

TAKES, FIRST = int(os.environ.get("YEW_TAKES", "100")), int(os.environ.get("YEW_FIRST_TAKE", "0"))
SHORT = ("four-at-the-slip", "five-planks", "ten-on-the-lockside", "first-light-two-ways")
VOICES, NOISES = ("en-us", "en"), (0.001, 0.004, 0.012)
NEAR_S, LENGTH_S = 0.7, 1.5
OWN = {"ways": 1.3, "teaching": 1.2, "holds": 1.1, "repetitions": 1.15, "speech": 1.1}
WANTED = {"ways": 1.3, "teaching": 1.2, "breath": 1.1, "count": 1.15, "voice": 1.1}


def bench_captions() -> None:
    """Captions of half an hour, and what three takes teach."""
    words, _ = load_teaching_data()
    timed = solve(read_plan(DEMO / "hips-after-the-helm.yewhour"), words).make()
    content = captions(taught(timed, Random(1), skipped=0.06, remarks=0.06, misheard=0.05))
    took = []
    for _ in range(5):
        before = time.perf_counter()
        look_back(timed, None, read_captions(content))
        took.append(time.perf_counter() - before)
    title = f"captions of {timed.length_s / 60:.0f} minutes beside their class"
    against(f"{title} / a yardstick", median(took), 45)
    notes = [
        observe(
            look_back(timed, None, read_captions(captions(taught(timed, Random(n), skipped=0.06, own=OWN))))
        )
        for n in range(3)
    ]
    off = max(abs(one.ratio / WANTED[one.what] - 1) for one in learnt_shares(notes))
    line("learnt after three takes: the furthest off", f"{off:.1%}", "within 10 %", off <= 0.1)


def bench_recordings() -> None:
    """What is heard of classes in other words, without a plan."""
    listener = free_listener(load_teaching_data()[0])
    for title, folder in (("set on these", SPOKEN), ("written later", LATER)):
        paths = [path.with_suffix(".txt") for path in sorted(folder.glob("*.done"))]
        found, besides, sides, off_s = shares([told(path, brought(path, listener).items) for path in paths])
        line(f"{len(paths)} recordings, {title}: found", f"{found:.0%}", "85 %", found >= 0.85)
        line("told that nobody did", f"{besides:.0%}", "6 %", besides <= 0.06)
        line("sides that are right", f"{sides:.0%}", "95 %", sides >= 0.95)
        line("beginnings off, at the median", f"{off_s:.1f} s", "5 s", off_s <= 5)


def bench_back(takes: int = TAKES) -> None:
    """Simulated takes, two voices, three noise levels, drift, lines left out, remarks."""
    words, _ = load_teaching_data()
    classes = [solve(read_plan(DEMO / f"{name}.yewhour"), words).make() for name in SHORT]
    said = near = wrong = lengths = right = 0
    speeds, megabytes = [], [0.0]
    with tempfile.TemporaryDirectory() as room:
        path = Path(room) / "take.wav"
        for number in range(FIRST, FIRST + takes):
            timed = classes[number % len(classes)]
            truth, starts, length_s = _spoken(timed, path, number)
            before = _children_s()
            hearing = recognise_apart(path, timed.cues, lambda share: megabytes.append(_child_mb()))
            speeds.append(length_s / (_children_s() - before))
            lines, _ = match_lines(timed.cues, hearing)
            said += len(truth)
            for place, one in enumerate(lines):
                at_s = truth.get(place)
                if one.said_s is None:
                    continue
                if at_s is not None and abs(one.said_s - at_s) <= NEAR_S:
                    near += 1
                else:
                    wrong += 1
            back = look_back(timed, None, hearing)
            for one in back.segments:
                if one.sure >= 0.8:
                    start_s, end_s = starts[one.segment.id]
                    lengths += 1
                    right += abs((one.end_s - one.start_s) - (end_s - start_s)) <= LENGTH_S
    line(
        f"{takes} takes by ear: said lines within {NEAR_S} s",
        f"{near / said:.1%}",
        "at least 95 %",
        near >= 0.95 * said,
    )
    line("   lines told wrongly", f"{wrong / said:.2%}", "at most 1 %", wrong <= 0.01 * said)
    share = right / max(1, lengths)
    line(f"   real lengths of {lengths} sure segments within {LENGTH_S} s", f"{share:.1%}")
    line("   times real time, in processor time: median, least", f"{median(speeds):.1f}, {min(speeds):.1f}",
         "at least 8", median(speeds) >= 8)  # fmt: skip
    line("   memory", f"{max(megabytes):.0f} MB", "under 400 MB", max(megabytes) < 400)


def _child_mb() -> float:
    """The most memory that the process that listens has had so far."""
    children = Path(f"/proc/self/task/{os.getpid()}/children").read_text().split()
    rows = [Path(f"/proc/{one}/status").read_text() for one in children]
    found = re.findall(r"VmHWM:\s+(\d+)", "".join(rows))
    return max(map(int, found), default=0) / 1024


def _children_s() -> float:
    """Processor time of the processes that have listened."""
    used = resource.getrusage(resource.RUSAGE_CHILDREN)
    return used.ru_utime + used.ru_stime


def _spoken(
    timed: TimedClass, path: Path, number: int
) -> tuple[dict[int, float], dict[str, tuple[float, float]], float]:
    """A take in a file: the seconds of its lines, of its segments, and of all of it."""
    dice = Random(number)
    drift, skipped = dice.uniform(-0.02, 0.03), dice.uniform(0.05, 0.1)
    holds = [one.id for one in timed.segments if one.kind in ("hold", "reps", "clock")]
    longer = {one: dice.randrange(10, 90) for one in dice.sample(holds, min(3, len(holds)))}
    seed = dice.randrange(10**6)
    moved, shifts, starts = 0, {}, {}
    for one in timed.segments:
        shifts[one.id] = moved
        start_s = (one.start + moved) / 10 * (1 + drift)
        moved += longer.get(one.id, 0)
        starts[one.id] = (start_s, (one.end + moved) / 10 * (1 + drift))
    inner = Random(seed)
    truth = {
        place: (cue.start + shifts[cue.segment]) / 10 * (1 + drift)
        for place, cue in enumerate(timed.cues)
        if inner.random() >= skipped
    }
    ends = {
        place: at_s + (timed.cues[place].end - timed.cues[place].start) / 10 for place, at_s in truth.items()
    }
    order = sorted(truth)
    remarks = [
        SoundEvent(round((ends[one] + 1.2) * 10), 60, "line", dice.choice(REMARKS))
        for one, two in pairwise(order)
        if truth[two] - ends[one] > 6 and dice.random() < 0.15
    ]
    shipped_voice().use(VOICES[number % 2])
    sound = simulated_speech(
        timed, shipped_voice(), longer, Random(seed), skipped, drift, remarks, NOISES[number % 3]
    )
    soundfile.write(path, sound, shipped_voice().rate)
    return truth, starts, len(sound) / shipped_voice().rate
