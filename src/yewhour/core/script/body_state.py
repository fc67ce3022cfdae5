"""The state of a body at the end of a segment: where it is, what of it is otherwise, what it faces and lies
on."""

from collections.abc import Mapping

import msgspec

from yewhour.core.library.facets import Facets
from yewhour.core.library.position import START, base_of, side_of
from yewhour.core.pace import Phase
from yewhour.core.props import stays
from yewhour.core.sides import Side, fill
from yewhour.core.timing.layout import Segment

SIDED: tuple[Side, ...] = ("right", "left")


class BodyState(msgspec.Struct, frozen=True):
    """A body as it is left. base, form: the position in two parts. facets: those that are otherwise than at
    ease, by facet. front: the foot in front. faces: the end of the mat. under: the props in use. breath: the
    phase that was last, None where none was led."""

    base: str
    form: str = ""
    facets: Mapping[str, str] = {}
    front: str = ""
    faces: str = "front"
    under: tuple[str, ...] = ()
    breath: Phase | None = None

    def values(self) -> dict[str, object]:
        """The state as files have it; what is at ease is ""."""
        rest = {name: self.facets.get(name, "") for name in ("trunk", "head", "arms", "legs", "eyes")}
        return {
            "base": self.base, "form": self.form, **rest, "front": self.front, "faces": self.faces,
            "under": list(self.under), "breath": self.breath or "",
        }  # fmt: skip

    def words(self, names: Mapping[str, str], facets: Facets) -> str:
        """What a listener would say: `on the back, legs in table top, head up`. names: of positions."""
        place = f"{self.base} {self.form}".strip()
        side: Side = next((one for one in SIDED if one in place), "both")
        known = (place, self.base) if side == "both" else (place.replace(side, "{side}"), self.base)
        where = fill(next((names[one] for one in known if one in names), self.base), side)
        return ", ".join((where, *facets.told(self.facets)))


def state_of(segment: Segment) -> BodyState:
    """The state that a segment leaves; a way leaves the state its movement begins in."""
    use = segment.use
    place = use.needed if use.setup_for else use.end
    base, _, form = ("", "", "") if place == START else place.partition(" ")
    spans = segment.spans
    last = spans[-1].phase if spans else None
    return BodyState(
        base,
        form,
        {} if use.setup_for or use.behaviour.framing else use.shape,
        side_of(place) if base_of(place) == "split" else "",
        use.mat or "front",
        () if use.behaviour.framing else tuple(prop for prop in use.movement.props if not stays(prop)),
        last if last in ("inhale", "exhale") else None,
    )
