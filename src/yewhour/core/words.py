"""All that a class is made with besides its plan, as values: loaded by `store`, timed by `voice`."""

from collections.abc import Callable, Mapping

import msgspec

from yewhour.core.finding import Rules
from yewhour.core.plan.hearing import Ear
from yewhour.core.plan.known import Known, spelt
from yewhour.core.plan.movement import Library
from yewhour.core.plan.names import plain
from yewhour.core.plan.nodes import Blocks
from yewhour.core.plan.position import Positions
from yewhour.core.plan.school import Schools
from yewhour.core.script.speech import Seconds
from yewhour.core.script.wording import Wording


class Words(msgspec.Struct, frozen=True):
    """The library and all data around it. cautions: tag -> how a line speaks to those it is for."""

    library: Library
    schools: Schools
    positions: Positions
    wording: Wording
    blocks: Blocks
    rules: Rules
    cautions: dict[str, str]
    seconds: Seconds
    number_word: Callable[[int], str]
    ear: Ear
    props: frozenset[str] = frozenset()
    watch: Mapping[str, str] = {}  # tag -> what to keep in mind, where a movement has no line of its own

    @property
    def known(self) -> Known:
        """The words a brief may use."""
        styles = {plain(school.name): name for name, school in self.schools.items()}
        return Known(
            styles=styles | spelt(*self.schools),
            cautions=spelt(*self.cautions),
            props=spelt(*sorted(self.props)),
            blocks=spelt(*self.blocks),
        )
