"""Who leads a take: the clock, she herself, or her voice where it is heard."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from yewhour.core.take.line_following import act_heard, line_heard, moved_on, words_of
from yewhour.core.take.take import Take

Leads = Literal["clock", "me", "voice"]
FOLLOWED_S = 25.0  # after a line was heard, so long it is known that she is heard
LISTENED_S = 7.0  # the words that are taken together
MOST_MORE = 2  # given to what is on while her voice is waited for


class Leading:
    """Decides when a take waits for her, and when she has moved on. Seconds are of the marks."""

    def __init__(self) -> None:
        self.leads: Leads = "clock"
        # Heard lately: the stretch of speech, the word, and its seconds of the take.
        self._words: list[tuple[int, str, float, float]] = []
        self._heard_until = -1.0  # what was heard before that has been followed
        self._followed = -1.0e9  # the second a line was heard at last
        self._acted_until = -1.0  # what was asked for before that was done
        self._given = ("", 0)  # a segment, and how many more of it were given while she was waited for

    def forget(self) -> None:
        """Another take: nothing was heard of it yet."""
        self._words, self._heard_until, self._followed, self._given = [], -1.0, -1.0e9, ("", 0)
        self._acted_until = -1.0

    def waited_for(self, take: Take, before_s: float, now_s: float) -> float | None:
        """The second at which one more is given of what was on before: its end, where it has come and she has
        not moved on; None where nothing is waited for. A flow goes by the breath."""
        if self.leads == "clock" or (self.leads == "voice" and now_s - self._followed >= FOLLOWED_S):
            return None
        index = take.index_at(before_s * 10 - take.out)
        segment = take.segments[index] if index is not None else None
        if segment is None or segment.use.setup_for or not segment.amount:
            return None
        end_s = (segment.end - 1 + take.out) / 10
        by_itself = segment.behaviour.is_phase or segment.behaviour.is_rest
        if now_s < end_s or by_itself or segment.end - 1 < take.now:
            return None
        name, given = self._given
        given = given + 1 if name == segment.id else 1
        self._given = (segment.id, given)
        return end_s if self.leads == "me" or given <= MOST_MORE else None

    def asked_for(self, words: Sequence[tuple[str, float, float]], call: str) -> str:
        """The act that was asked for by name in a stretch of speech, once; "" for none."""
        found = act_heard(words, call)
        if found is None or found[1] <= self._acted_until:
            return ""
        self._acted_until = found[2]
        return found[0]

    def hear(
        self, take: Take, now_s: float, number: int, words: Sequence[tuple[str, float, float]]
    ) -> float | None:
        """The second at which she went on to what comes next, where that was heard surely.

        number: of the stretch of speech, which is told again as it grows. words: with seconds of the take.
        """
        lately = now_s - LISTENED_S
        known = [one for one in self._words if one[0] != number] + [(number, *word) for word in words]
        self._words = [one for one in known if one[3] > max(lately, self._heard_until)]
        line = line_heard(take, [word for _, word, _, _ in self._words], now_s * 10 - take.out)
        if line is None:
            return None
        self._followed = now_s
        if not moved_on(take, line, now_s * 10 - take.out):
            return None
        said = set(words_of(line.text))
        begun_s = next((start for _, word, start, _ in self._words if word in said), now_s)
        self._heard_until = now_s
        here = take.index_at(now_s * 10 - take.out)
        if here is None:
            return None
        return max(begun_s, (take.segments[here].start + 1 + take.out) / 10)
