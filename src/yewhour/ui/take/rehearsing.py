"""What a teacher chooses for a rehearsal: where it begins, what of the class, how fast."""

from yewhour.core.lengths import seconds, show_length
from yewhour.core.take.rehearsal import (
    ONLY,
    Stretch,
    beginnings,
    stretches,
)
from yewhour.core.take.take import Take
from yewhour.core.timing.layout import Segment
from yewhour.state.takes.stumbles import stumbled_in

SPEEDS = {1.0: "", 0.5: ", at half speed", 2.0: ", at double speed"}


class Rehearsal:
    """The choices. which: of ONLY. first: counts the movements it can begin with."""

    def __init__(self) -> None:
        self.first = 0
        self.which = "all"
        self.speed = 1.0

    def begins(self, take: Take) -> Segment:
        """The segment it begins with."""
        found = beginnings(take)
        self.first = min(max(0, self.first), len(found) - 1)
        return found[self.first]

    def next_speed(self) -> None:
        """Half, double, and as it is."""
        order = list(SPEEDS)
        self.speed = order[(order.index(self.speed) + 1) % len(order)]

    def next_which(self, take: Take) -> None:
        """The next of what there is to rehearse in a class."""
        there = [one for one in ONLY if one == "all" or stretches(take, one, _stumbled(take))]
        at = there.index(self.which) if self.which in there else 0
        self.which = there[(at + 1) % len(there)]

    def stretches(self, take: Take) -> list[Stretch]:
        """What it goes through."""
        if self.which == "all":
            return [(self.begins(take).start, take.end)]
        return stretches(take, self.which, _stumbled(take))

    def said(self, take: Take) -> str:
        """It in words."""
        start = show_length(seconds(self.begins(take).start))
        whole = f"from {start} on" if self.which == "all" else ONLY[self.which]
        return f"A rehearsal, {whole}{SPEEDS[self.speed]}. It is not kept. Space counts you in."


def _stumbled(take: Take) -> list[str]:
    return list(stumbled_in(take.solved.plan.brief.title))
