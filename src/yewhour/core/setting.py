"""Setting: a plan with the school it is taught by and the words it is made with."""

import msgspec

from yewhour.core.plan.known import check_known
from yewhour.core.plan.nodes import Block
from yewhour.core.plan.plan import Plan, Section
from yewhour.core.plan.school import School, school_of
from yewhour.core.plan.sound import check_school, check_sound
from yewhour.core.problem import Problem
from yewhour.core.words import Words


class Setting(msgspec.Struct, frozen=True):
    """A plan that is sound, closed as its school closes, its school, and the words."""

    plan: Plan
    school: School
    words: Words


def set_up(plan: Plan, words: Words) -> Setting:
    """The setting of a plan. Raises Problem for one that can't be a class at any length."""
    if not any(section.body for section in plan.sections):
        raise Problem("This class has no steps yet.", do="Add a first one.")
    check_sound(plan, words.blocks)
    check_known(plan.brief, words.known)
    school = school_of(plan.brief, words.schools)
    check_school(school)
    return Setting(_closed(plan, school), school, words)


def _closed(plan: Plan, school: School) -> Plan:
    """The plan with the school's closing block at its end, where it has no closing of its own."""
    if not school.closing or any(section.role == "close" for section in plan.sections):
        return plan
    close = Section(title="Close", role="close", body=(Block(name=school.closing, id="closing"),))
    return msgspec.structs.replace(plan, sections=(*plan.sections, close))
