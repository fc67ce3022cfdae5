"""All that a class is made with besides its plan, as values: loaded by `store`, timed by `voice`."""

from collections.abc import Callable, Mapping

import msgspec

from yewhour.core.conditions.condition import Conditions
from yewhour.core.conditions.room import Room, room_of
from yewhour.core.finding import CheckRules
from yewhour.core.library.cue_interpreter import CueInterpreter
from yewhour.core.library.facets import Facets
from yewhour.core.library.movement import Library
from yewhour.core.library.names import plain_name
from yewhour.core.library.position import PositionGraph
from yewhour.core.library.telling import Tellings, TellingsOf, none_told
from yewhour.core.plan.nodes import Blocks
from yewhour.core.plan.plan import Brief
from yewhour.core.plan.school import Schools
from yewhour.core.plan.vocabulary import Vocabulary, plain_spellings
from yewhour.core.wording.lines import StandingLines
from yewhour.core.wording.speech import LineSeconds


class TeachingData(msgspec.Struct, frozen=True):
    """The library and all data around it. cautions: tag -> how a line speaks to those it is for."""

    library: Library
    schools: Schools
    positions: PositionGraph
    wording: StandingLines
    blocks: Blocks
    rules: CheckRules
    cautions: dict[str, str]
    seconds: LineSeconds
    number_word: Callable[[int], str]
    ear: CueInterpreter
    facets: Facets
    props: frozenset[str] = frozenset()
    watch: Mapping[str, str] = {}  # tag -> what to keep in mind, where a movement has no line of its own
    conditions: Conditions = Conditions()
    tellings: TellingsOf = none_told

    def room(self, brief: Brief) -> Room:
        """Who may be in the room of a promise, and what it does without."""
        return room_of(brief, self.conditions, self.library)

    def told_to(self, room: Room) -> Tellings | None:
        """How a class is told to those who may be in a room, where that is another way than everybody's."""
        return next((told for tag in room.cautions if (told := self.tellings(tag)) is not None), None)

    def telling(self, told: Tellings) -> "TeachingData":
        """The same data, told so."""
        wording = {field: tuple((line,) for line in lines) for field, lines in told.wording.items()}
        return msgspec.structs.replace(
            self,
            library=told.of(self.library),
            wording=msgspec.structs.replace(self.wording, **wording),
        )

    @property
    def known(self) -> Vocabulary:
        """The words a brief may use."""
        styles = {plain_name(school.name): name for name, school in self.schools.items()}
        return Vocabulary(
            styles=styles | plain_spellings(*self.schools),
            cautions=plain_spellings(*self.cautions),
            props=plain_spellings(*sorted(self.props)),
            blocks=plain_spellings(*self.blocks),
        )
