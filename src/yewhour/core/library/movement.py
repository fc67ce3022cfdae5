"""A movement: an entry of the library.

Values that come by the thousand are made with `gc=False`: frozen, they can't be in a circle, and Python need
not look for one.
"""

from collections.abc import Mapping
from typing import Literal

import msgspec

from yewhour.core.library.card import Card
from yewhour.core.library.kinds import BEHAVIOURS, Kind, StepKind
from yewhour.core.pace import Phase, Rhythm

Sidedness = Literal["none", "one", "both", "alternating"]


Wordings = tuple[str, ...]  # one line, from its full wording to its bare one
Lines = dict[str, tuple[Wordings, ...]]  # purpose -> lines


def parse_wordings(text: str) -> Wordings:
    """`full | short | bare` as its wordings; none for a text that says nothing."""
    return tuple(part.strip() for part in text.split("|") if part.strip())


class Option(msgspec.Struct, frozen=True, gc=False):
    """A gentler or stronger way: the line that offers it, and the movement it is, if it has an entry."""

    line: Wordings
    movement: str = ""


class Movement(msgspec.Struct, frozen=True, omit_defaults=True, gc=False):
    """A posture, an exercise, a breathing practice, a rest, or a piece of talk.

    dose: least, preferred and most, in the unit of the kind (see `kinds`). by: the step between two
    doses. weight: how unwilling the dose is to change (1 is ordinary). enter: the phase it is entered
    on. rhythm: phases and counts of one repetition or cycle. stages: rhythms a practice climbs
    through, each for the whole dose. count_s: seconds of one count, 0 for the school's. effort 0-5.

    start: the position it needs, as far as it matters; end: the one it leaves, "" for the one it began in.
    shape: what of the body is otherwise than its position says while it is done, and stays so (see `facets`).
    moving_s: the least seconds of building it, with props. teach: seconds it is taught in the first time, 0
    for what its kind usually takes. follows: movements it is entered from without coming out of them.
    figure: how it looks where it is the teacher's own, a line from where to where (see core.figure.line).
    otherwise: other ways to tell a talk, each as many lines as its `say`.
    flow_from: base -> its line in a flow when it is entered from there; "way": what that way says.
    """

    id: str
    name: str
    kind: Kind
    family: str = ""
    traditional: str = ""
    aliases: tuple[str, ...] = ()
    sides: Sidedness = "both"
    side_by: str = ""
    start: str = ""
    end: str = ""
    shape: dict[str, str] = {}
    dose: tuple[int, int, int] = (1, 1, 1)
    by: int = 1
    weight: float = 1.0
    enter: Phase | None = None
    rhythm: Rhythm = ()
    stages: tuple[Rhythm, ...] = ()
    count_s: float = 0.0
    moving_s: float = 0.0
    teach: int = 0
    follows: tuple[str, ...] = ()
    flow_from: dict[str, Wordings] = {}
    effort: int = 0
    works: tuple[str, ...] = ()
    opens: tuple[str, ...] = ()
    loads: tuple[str, ...] = ()
    marks: tuple[str, ...] = ()
    hands_free: bool = False
    speaks: bool = True
    facing: str = ""
    props: tuple[str, ...] = ()
    figure: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    prepared_by: tuple[str, ...] = ()
    neutralised_by: tuple[str, ...] = ()
    gentler: Option | None = None
    stronger: Option | None = None
    lines: Lines = {}
    otherwise: tuple[tuple[Wordings, ...], ...] = ()
    card: Card | None = None
    source: str = ""

    @property
    def behaviour(self) -> StepKind:
        """How its kind behaves."""
        return BEHAVIOURS[self.kind]

    def said(self, purpose: str) -> tuple[Wordings, ...]:
        """The lines for a purpose, none when there are none."""
        return self.lines.get(purpose, ())


Library = Mapping[str, Movement]
