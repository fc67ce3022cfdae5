"""The plans that are measured with."""

import msgspec

from yewhour.core.pace import Pace
from yewhour.core.plan.edit import bare
from yewhour.core.plan.nodes import Pair, Rounds, Step
from yewhour.core.plan.plan import (
    Brief,
    Plan,
    Section,
    with_ids,
)


def sixty_steps():
    """A plan of 60 elastic steps of about an hour, at five paces and three weights."""
    names = ["downward-dog", "seated-breath", "cobra", "child", "knees-to-chest", "seated-fold"]
    paces = [Pace(rate) for rate in (6.0, 7.0, 7.5, 8.0, 9.0)]
    steps = tuple(
        Step(movement=names[n % 6], amount=5 + n % 4, least=2, most=14, pace=paces[n % 5], weight=1 + n % 3)
        for n in range(60)
    )
    return with_ids(Plan(brief=Brief(target_s=3600.0), sections=(Section(title="All", body=steps),)))


def long_class(times: int = 1, parts: int = 6):
    """A class of `times` runs of parts; six parts are an hour, about 170 segments and 500 lines."""
    held = ["low-lunge", "warrior-two", "side-angle", "triangle", "pigeon", "half-splits"]
    sections = []
    for number in range(times):
        body = [Step(movement="welcome"), Step(movement="seated-breath")]
        for part in range(parts):
            flow = tuple(
                Step(movement=name, phase=phase)
                for name, phase in (("arms-up", "inhale"), ("fold", "exhale"), ("half-lift", "inhale"))
            )
            body.append(Rounds(body=(*flow, Step(movement="fold", phase="exhale")), times=2, least=1, most=3))
            body.append(
                Pair(body=(Step(movement=held[part], amount=7), Step(movement=held[part - 1], amount=6)))
            )
            body += [
                Step(movement=name) for name in ("downward-dog", "dart", "child", "bridge", "knees-to-chest")
            ]
        body.append(Step(movement="final-rest", amount=300))
        sections.append(Section(title=f"Hour {number + 1}", body=tuple(body)))
    return with_ids(Plan(brief=Brief(target_s=min(14_400.0, 3600.0 * times)), sections=tuple(sections)))


def ninety_minutes():
    """A class of 90 minutes."""
    plan = long_class()
    more = tuple(bare(node) for node in plan.sections[0].body[1:30])
    body = (*plan.sections[0].body[:-1], *more, plan.sections[0].body[-1])
    section = msgspec.structs.replace(plan.sections[0], body=body)
    brief = msgspec.structs.replace(plan.brief, target_s=5400.0)
    return with_ids(msgspec.structs.replace(plan, sections=(section,), brief=brief))
