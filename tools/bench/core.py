"""The core: loading, fitting, the whole pipeline, ten times the class, memory."""

import time

from tools.bench.plans import long_class, ninety_minutes, sixty_steps
from tools.bench.table import ROOM, against, fresh, line, times
from tools.milp import optimum
from yewhour.content.paths import FIRST_DEMO, demo_classes
from yewhour.core.export.contract import script_json
from yewhour.core.lengths import ticks
from yewhour.core.pipeline import solve
from yewhour.core.script.candidates import candidate_lines
from yewhour.core.timing.fit import Fit
from yewhour.state.classes.class_file import plan_bytes, read_plan
from yewhour.state.teaching_data import load_teaching_data


def bench_demo() -> None:
    """The first demo class, after the first time."""
    words, _ = load_teaching_data()
    plan = read_plan(FIRST_DEMO)
    script_json(solve(plan, words).make())
    both = times(lambda: script_json(solve(plan, words).make()))
    against("fit and script of the first demo class / a yardstick", both, 3)
    solved = solve(plan, words)
    again = times(lambda: solved.make(1260))
    line("   another length of it, script included", f"{again * 1000:.1f} ms")


def bench_library() -> None:
    """Loading everything, and opening each demo class to a laid-out plan, the first time."""
    load = times(load_teaching_data)
    against("loading the whole library and its data / a yardstick", load, 1)
    words, _ = load_teaching_data()
    solve(read_plan(FIRST_DEMO), words)  # NumPy's own start is measured elsewhere
    slowest = 0.0, ""
    for path in demo_classes():
        start = time.perf_counter()
        solved = solve(read_plan(path), words)
        solved.laid_out(solved.fit.at(ticks(solved.plan.brief.target_s)))
        slowest = max(slowest, (time.perf_counter() - start, path.stem))
    took, name = slowest
    against("opening a demo class, the slowest / a yardstick", took, 2.2)
    line("   which is", name)


def bench_fit() -> None:
    """The tables against milp on the same model, and the whole pipeline against milp's fit alone."""
    words, _ = load_teaching_data()
    solved = solve(sixty_steps(), words)
    length = 36000
    ours = times(lambda: Fit(solved.fit.parts).at(length))
    theirs = times(lambda: optimum(solved.fit.parts, length), 3)
    best = optimum(solved.fit.parts, length)
    cost = solved.fit.at(length).cost
    line(
        "fit, 60 minutes, 60 elastic steps: milp / ours",
        f"{theirs / ours:.1f}",
        "at least 10",
        theirs >= 10 * ours,
    )
    line("   the two times", f"{theirs * 1000:.0f} / {ours * 1000:.1f} ms")
    line("   the two optima", f"{best:.6f} / {cost:.6f}", "never worse", cost <= best + 1e-6)
    other = iter(range(30000, 42000, 100))
    again = times(lambda: solved.fit.at(next(other)), 50)
    against("another length after the first solve / a yardstick", again, 0.1)

    plan = long_class()
    hour = solve(plan, words)
    timed = hour.make(3600)
    lines = len(candidate_lines(timed.segments, hour.entries))
    whole = times(lambda: solve(plan, words).make(3600), 5)
    theirs = times(lambda: optimum(hour.fit.parts, 36000), 3)
    name = f"whole pipeline, {len(timed.segments)} segments, {lines} lines / milp's fit"
    line(name, f"{whole / theirs:.2f}", "at most 0.4", whole <= 0.4 * theirs)
    line("   the two times", f"{whole * 1000:.0f} / {theirs * 1000:.0f} ms")
    bench_growth(words)


def bench_growth(words) -> None:
    """Ten times the class."""
    makers = [solve(long_class(size, 2), words) for size in (1, 10)]
    solves, wholes, makes = ([[], []] for _ in range(3))
    for use in range(15):  # the two sizes by turns, so that both meet the same noise
        for which, solved in enumerate(makers):
            solves[which].append(times(lambda solved=solved: Fit(solved.fit.parts), 1))
            if use < 5:
                wholes[which].append(times(lambda solved=solved: solve(solved.plan, words).fit, 1))
                makes[which].append(times(lambda solved=solved: solved.make(solved.preferred_s), 1))
    small_fit, large_fit = map(min, solves)
    small_rest, large_rest = (
        min(whole) - min(solve) + min(make) for whole, solve, make in zip(wholes, solves, makes, strict=True)
    )
    ratio = large_rest / small_rest
    line("ten times the class, apart from fit", f"{ratio:.1f}", "at most 12", ratio <= 12)
    ratio = large_fit / small_fit
    line("ten times the class, fit", f"{ratio:.1f}", "at most 40", ratio <= 40)


def bench_memory() -> None:
    """Peak memory of `script` on a 90-minute class against Python with NumPy imported."""
    path = ROOM / "ninety.yewhour"
    path.write_bytes(plan_bytes(ninety_minutes()))
    code = "import time; start = time.perf_counter(); from yewhour.cli.main import main; "
    code += f"main(['script', '{path}', '--out', '{ROOM / 'script.txt'}'])"
    _, ours = fresh(code)
    _, numpy = fresh("import time; start = time.perf_counter(); import numpy")
    line(
        "peak memory of a 90-minute script / NumPy alone",
        f"{ours / numpy:.2f}",
        "at most 1.45",
        ours <= 1.45 * numpy,
    )
