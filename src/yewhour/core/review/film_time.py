"""What was heard of a recording, as it is in the film: without what was cut out of it; and the other way."""

from collections.abc import Iterable, Sequence

import msgspec

from yewhour.core.lengths import TICKS_PER_S, ticks
from yewhour.core.script.cue import Cue
from yewhour.core.take.cutting import Range, in_film, in_recording, is_cut
from yewhour.core.transcript.transcript import HeardWord, SpeechStretch, Transcript


def of_the_film(hearing: Transcript, cuts: Sequence[Range]) -> Transcript:
    """A transcript in seconds of the film; what was said in a cut is not in it."""

    def there(start_s: float, end_s: float) -> bool:
        return not is_cut(cuts, (start_s + end_s) / 2)

    words = [
        HeardWord(one.text, in_film(cuts, one.start_s), in_film(cuts, one.end_s))
        for one in hearing.words
        if there(one.start_s, one.end_s)
    ]
    talks = [
        SpeechStretch(in_film(cuts, one.start_s), in_film(cuts, one.end_s), one.text)
        for one in hearing.talks
        if there(one.start_s, one.end_s)
    ]
    return Transcript(tuple(talks), tuple(words), in_film(cuts, hearing.length_s), hearing.messages)


def of_the_recording(cues: Iterable[Cue], cuts: Sequence[Range]) -> list[Cue]:
    """Lines of a film at the moments of its recording, where they are to be heard."""
    if not cuts:
        return list(cues)
    found = []
    for cue in cues:
        start = ticks(in_recording(cuts, cue.start / TICKS_PER_S))
        found.append(msgspec.structs.replace(cue, start=start, end=start + cue.end - cue.start))
    return found
