"""The lines about sides, counts and time: what they are called here, their words are data.

A voice, inviting or direct, is what makes two schools sound like two teachers.
"""

import msgspec

from yewhour.core.library.movement import Wordings

LineVariants = tuple[Wordings, ...]


class SchoolVoice(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """How a school speaks: frames for ways and alignment, and the lines that keep company."""

    way: LineVariants
    align: LineVariants
    again: LineVariants
    easy: LineVariants
    held: LineVariants
    strong: LineVariants
    counted: LineVariants
    rest: LineVariants


class StandingLines(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """One or more lines for each occasion, each from its full wording to its bare one."""

    side: LineVariants
    side_uppermost: LineVariants
    side_on_top_already: LineVariants
    prop: LineVariants
    mat_back: LineVariants
    mat_front: LineVariants
    prop_away: LineVariants
    prop_moved: LineVariants
    prop_there: LineVariants
    props_opening: LineVariants
    props_handy: LineVariants
    more_breaths: LineVariants
    last_breath: LineVariants
    more_reps: LineVariants
    last_rep: LineVariants
    more_cycles: LineVariants
    last_cycle: LineVariants
    next_round: LineVariants
    last_round: LineVariants
    halfway: LineVariants
    option_gentler: LineVariants
    option_stronger: LineVariants
    option_both: LineVariants
    gentler_taken: LineVariants
    count_so_far: LineVariants
    number_first: LineVariants
    shape: LineVariants
    shape_one_place: LineVariants
    shape_one_place_quiet: LineVariants
    shape_mostly: LineVariants
    shape_early: LineVariants
    shape_quiet: LineVariants
    shape_peak: LineVariants
    shape_places: dict[str, str]
    shape_last: dict[str, str]
    area_words: dict[str, str]
    section_open: LineVariants
    section_again: LineVariants
    return_to: LineVariants
    number_alternating: LineVariants
    count_announced: LineVariants
    tempo: LineVariants
    go_or_stay: LineVariants
    quiet_over: LineVariants
    together: LineVariants
    stage_held: LineVariants
    stage_pulsed: LineVariants
    stage_repeated: LineVariants
    on_phase: dict[str, LineVariants]
    hold_full: LineVariants
    hold_empty: LineVariants
    count_down_from: LineVariants
    breathe_nose: LineVariants
    breathe_nose_and_mouth: LineVariants
    pelvis_neutral: LineVariants
    pelvis_imprint: LineVariants
    mirror: LineVariants
    change_half: LineVariants
    missing_phase: LineVariants
    stay_breath: LineVariants
    minutes_left: LineVariants
    one_minute_left: LineVariants
    half_minute_left: LineVariants
    ten_seconds_left: LineVariants
    silence: LineVariants
    imperatives: frozenset[str]
    voices: dict[str, SchoolVoice]
