"""The lines about sides, counts and time: what they are called here, their words are data."""

import msgspec

from yewhour.core.plan.movement import Wordings

Line = tuple[Wordings, ...]


class Wording(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """One or more lines for each occasion, each from its full wording to its bare one."""

    side: Line
    caution: Line
    prop: Line
    props_opening: Line
    more_breaths: Line
    last_breath: Line
    more_reps: Line
    last_rep: Line
    more_cycles: Line
    last_cycle: Line
    next_round: Line
    last_round: Line
    halfway: Line
    option_gentler: Line
    option_stronger: Line
    option_both: Line
    count_so_far: Line
    end_counted: Line
    breathe_nose: Line
    breathe_nose_and_mouth: Line
    pelvis_neutral: Line
    pelvis_imprint: Line
    mirror: Line
    change_half: Line
    missing_phase: Line
    stay_breath: Line
    other_leg: Line
    minutes_left: Line
    one_minute_left: Line
    half_minute_left: Line
    ten_seconds_left: Line
    silence: Line
