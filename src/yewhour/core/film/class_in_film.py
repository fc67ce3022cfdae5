"""A class as it is in its film: captions, chapters and cues at the film's own times."""

from collections.abc import Sequence

import msgspec

from yewhour.core.film.cut_list import CutList, carried
from yewhour.core.lengths import seconds, ticks
from yewhour.core.take.cutting import Range, in_recording
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import PhaseSpan


def class_in_film(timed: TimedClass, marked: Sequence[Range], film: CutList) -> TimedClass:
    """A class as it really went (see `actual_class`), in whose seconds only what was marked is left out, at
    the times of its film. A line that lies in a cut is not in it."""
    ranges, pieces = film.ranges, film.played

    def at(tick: int) -> int:
        return ticks(carried(pieces, in_recording(marked, seconds(tick))))

    def there(tick: int) -> bool:
        second = in_recording(marked, seconds(tick))
        return not any(start <= second < end for start, end in ranges)

    segments = tuple(
        msgspec.structs.replace(
            one, start=at(one.start), end=at(one.end),
            spans=tuple(PhaseSpan(span.phase, at(span.start), at(span.end), span.beat) for span in one.spans),
        )
        for one in timed.segments
    )  # fmt: skip
    cues = tuple(
        msgspec.structs.replace(cue, start=at(cue.start), end=max(at(cue.start) + 1, at(cue.end)))
        for cue in timed.cues if there(cue.start)
    )  # fmt: skip
    return msgspec.structs.replace(timed, length=ticks(film.film_s), segments=segments, cues=cues)
