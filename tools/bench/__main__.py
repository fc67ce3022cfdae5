"""The benchmarks, as ratios and times measured in one run. Times on shared machines vary; ratios less.

`./yew bench` runs all, `./yew bench library fit` those named (`ear`
and `back`, of half an hour each, and `hour`, only so). `./yew bench --long` puts 100,000 damaged
inputs through everything, kills 1,000 saving processes and acts in the window; a number after it is where the
inputs begin. `./yew bench --mutants` makes small faults in the core and counts those that the tests notice;
names after it, as timing.doses, are the modules, a number is how many are drawn. Nothing is written but in a
folder of its own.
"""

import os
import shutil
import sys

from tools.bench.table import ROOM

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
os.environ["XDG_DATA_HOME"] = str(ROOM / "data")

from tools.bench import back, bounded, core, draft, figures, film, long, shelf, take, window

BENCHES = {
    "library": core.bench_library,
    "demo": core.bench_demo,
    "fit": core.bench_fit,
    "bounded": bounded.bench_bounded,
    "memory": core.bench_memory,
    "window": window.bench_window,
    "hand": window.bench_hand,
    "take": take.bench_take,
    "voice": take.bench_voice,
    "captions": back.bench_captions,
    "recordings": back.bench_recordings,
    "shelf": shelf.bench_shelf,
    "draft": draft.bench_draft,
    "figures": figures.bench_figures,
    "film": film.bench_film,
}

# Half an hour of real minutes, and of listening, and an hour of film: only where they are named.
LONGER = {"ear": take.bench_ear, "back": back.bench_back, "hour": film.bench_hour}


def main(names: list[str]) -> int:
    """The benchmarks named, or all."""
    if names[:1] == ["--long"]:
        return long.long(*map(int, names[1:]))
    if names[:1] == ["--mutants"]:
        return long.mutants(names[1:])
    unknown = [name for name in names if name not in BENCHES | LONGER]
    if unknown:
        print(f"bench: there is no {unknown[0]!r}; there are: {', '.join(BENCHES | LONGER)}", file=sys.stderr)
        return 2
    try:
        for name in names or BENCHES:
            (BENCHES | LONGER)[name]()
    finally:
        shutil.rmtree(ROOM, ignore_errors=True)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
