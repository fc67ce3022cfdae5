"""The lines about sides, counts and time: what they are called here, their words are data.

A voice, inviting or direct, is what makes two schools sound like two teachers.
"""

import msgspec

from yewhour.core.plan.movement import Wordings

Line = tuple[Wordings, ...]


class Voice(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """How a school speaks: frames for ways and alignment, and the lines that keep company."""

    way: Line
    align: Line
    again: Line
    easy: Line
    held: Line
    strong: Line
    counted: Line
    ended: Line
    rest: Line


class Wording(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """One or more lines for each occasion, each from its full wording to its bare one."""

    side: Line
    side_uppermost: Line
    side_on_top_already: Line
    caution: Line
    caution_again: Line
    prop: Line
    mat_back: Line
    mat_front: Line
    prop_away: Line
    prop_moved: Line
    prop_there: Line
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
    count_announced: Line
    tempo: Line
    go_or_stay: Line
    together: Line
    stage_held: Line
    stage_pulsed: Line
    stage_repeated: Line
    on_phase: dict[str, Line]
    hold_full: Line
    hold_empty: Line
    count_down_from: Line
    breathe_nose: Line
    breathe_nose_and_mouth: Line
    pelvis_neutral: Line
    pelvis_imprint: Line
    mirror: Line
    change_half: Line
    missing_phase: Line
    stay_breath: Line
    minutes_left: Line
    one_minute_left: Line
    half_minute_left: Line
    ten_seconds_left: Line
    silence: Line
    imperatives: frozenset[str]
    voices: dict[str, Voice]
