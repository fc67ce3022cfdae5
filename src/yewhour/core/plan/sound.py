"""What makes a plan sound before anything is worked out with it."""

from yewhour.core.plan.nodes import Rounds, Step, walk
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem


def check_sound(plan: Plan) -> None:
    """Raises Problem for the first step whose numbers contradict each other."""
    for section in plan.sections:
        for node in walk(section.body):
            where = f"section {section.title!r}"
            if isinstance(node, Step):
                given = [n for n in (node.least, node.amount, node.most) if n is not None]
                if any(number < 1 for number in given):
                    raise Problem(
                        f"{node.movement} can't be done {min(given)} times.",
                        where,
                        "Use a number above zero.",
                    )
                if given != sorted(given):
                    raise Problem(
                        f"{node.movement} has a least, preferred and most out of order: {given}.",
                        where,
                        "Write them as least, preferred, most.",
                    )
            elif isinstance(node, Rounds) and not (
                1 <= (node.least or node.times) <= node.times <= (node.most or node.times)
            ):
                raise Problem(
                    f"A group has its rounds out of order: least {node.least}, preferred {node.times}, "
                    f"most {node.most}.",
                    where,
                    "Use at least one round, and write least, preferred, most in order.",
                )
