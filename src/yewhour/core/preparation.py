"""Setting: a plan with the school it is taught by and the words it is made with."""

import msgspec

from yewhour.core.library.position import base_of
from yewhour.core.plan.nodes import Block
from yewhour.core.plan.plan import Plan, Section
from yewhour.core.plan.school import School, school_of
from yewhour.core.plan.stand_ins import with_stand_ins
from yewhour.core.plan.validate import validate_plan, validate_school
from yewhour.core.plan.vocabulary import GENTLE_LEVELS, check_vocabulary
from yewhour.core.problem import Problem
from yewhour.core.teaching_data import TeachingData

HARD_WAYS = ("plank",)  # bases that the ways of a gentle class keep from, wherever there are others


class PreparedPlan(msgspec.Struct, frozen=True):
    """A plan that is sound, closed as its school closes, its school, and the words."""

    plan: Plan
    school: School
    teaching_data: TeachingData


def prepare_plan(plan: Plan, teaching_data: TeachingData) -> PreparedPlan:
    """The setting of a plan. Raises Problem for one that can't be a class at any length."""
    if not any(section.body for section in plan.sections):
        raise Problem("This class has no steps yet.", do="Add a first one.")
    library, blocks = with_stand_ins(plan, teaching_data.library, teaching_data.blocks)
    if library is not teaching_data.library or blocks is not teaching_data.blocks:
        teaching_data = msgspec.structs.replace(teaching_data, library=library, blocks=blocks)
    validate_plan(plan, teaching_data.blocks)
    check_vocabulary(plan.brief)
    school = school_of(plan.brief, teaching_data.schools)
    validate_school(school)
    room = teaching_data.room(plan.brief)
    gentle = plan.brief.level in GENTLE_LEVELS
    if (told := teaching_data.told_to(room)) is not None:
        teaching_data, gentle = teaching_data.telling(told), True
    if room.roll:
        school = msgspec.structs.replace(school, roll=room.roll)
    positions = room.positions(teaching_data.positions)
    kept_from = {*school.keeps_from, *(HARD_WAYS if gentle else ())}
    if kept_from:
        positions = positions.avoiding(
            frozenset(one for one in positions.places if base_of(one) in kept_from)
        )
    if positions is not teaching_data.positions:
        teaching_data = msgspec.structs.replace(teaching_data, positions=positions)
    return PreparedPlan(_closed(plan, school), school, teaching_data)


def _closed(plan: Plan, school: School) -> Plan:
    """The plan with the school's closing block at its end, where it has no closing of its own."""
    if not school.closing or any(section.role == "close" for section in plan.sections):
        return plan
    close = Section(title="Close", role="close", body=(Block(name=school.closing, id="closing"),))
    return msgspec.structs.replace(plan, sections=(*plan.sections, close))
