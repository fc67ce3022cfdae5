"""What became of each wish: held against the class that was drafted, with the reason."""

from collections.abc import Callable, Mapping, Sequence, Set

import msgspec

from yewhour.core.draft.draft import Draft
from yewhour.core.draft.route_beginning import begins_so, place_after
from yewhour.core.lengths import seconds, show_length
from yewhour.core.library.movement import Movement
from yewhour.core.library.names import listed
from yewhour.core.plan.nodes import Block
from yewhour.core.promise.wishes import State, Wish
from yewhour.core.teaching_data import TeachingData
from yewhour.core.timing.layout import Segment

FOCUSED, TOLD, NAMED = 0.4, 0.005, 4
NEARLY_S = 15.0  # what a rest may be longer or shorter than was asked for


def outcome_of(
    wishes: Sequence[Wish], draft: Draft, teaching_data: TeachingData, areas: Mapping[str, str]
) -> tuple[Wish, ...]:
    """Each wish with its state in a class that was drafted."""
    looked = _Outcome(draft, teaching_data, areas)
    return tuple(looked.of(wish) if wish.state in ("kept", "guessed") else wish for wish in wishes)


class _Outcome:
    def __init__(self, draft: Draft, teaching_data: TeachingData, areas: Mapping[str, str]) -> None:
        self.draft, self.teaching_data, self.areas = draft, teaching_data, areas
        self.work = [one for one in draft.timed.segments if not one.behaviour.bare]
        self.worked = max(1, sum(one.length for one in self.work))

    def of(self, wish: Wish) -> Wish:
        """A wish with what became of it."""
        looks: dict[str, Callable[[Wish], tuple[State, str]]] = {
            "area": self._area, "prop": self._prop, "movement": self._there, "peak": self._there,
            "group": self._group, "length": self._length, "style": self._style, "condition": self._condition,
            "everyday": self._everyday, "rest": self._rest, "begins": self._begins,
        }  # fmt: skip
        look = looks.get(wish.kind)
        if look is None or wish.key.startswith("-"):
            return wish
        state, reason = look(wish)
        if state == "kept" and wish.state == "guessed":
            state = "guessed"
        return msgspec.structs.replace(
            wish, state=state, reason="; ".join(filter(None, (wish.reason, reason)))
        )

    def _length(self, wish: Wish) -> tuple[State, str]:
        comes_s = self.draft.plan.brief.target_s
        if comes_s >= float(wish.key) - 1:
            return wish.state, ""
        return "unmet", f"without doing anything twice it comes to {show_length(comes_s)}"

    def _begins(self, wish: Wish) -> tuple[State, str]:
        first = self.draft.plan.sections[0].body[0]
        nodes = self.teaching_data.blocks.get(first.name, ()) if isinstance(first, Block) else (first,)
        place = place_after(nodes, self.teaching_data)
        if place == "start":  # a short class is welcomed wherever it begins
            place = next((one.use.movement.start for one in self.work if one.use.movement.start), place)
        if begins_so(place, wish.key):
            return "kept", ""
        return "unmet", "no way of this style, or for those who may be there, begins so"

    def _rest(self, wish: Wish) -> tuple[State, str]:
        rests = (one for one in self.draft.timed.segments if one.behaviour.is_rest and not one.use.setup_for)
        rest_s = max((seconds(one.length) for one in rests), default=0.0)
        if not rest_s:
            return "unmet", "a class of this kind ends without lying still"
        if abs(rest_s - float(wish.key)) <= NEARLY_S:
            return "kept", ""
        return "guessed", f"it lasts {show_length(rest_s)}: a rest takes what the other parts leave"

    def _area(self, wish: Wish) -> tuple[State, str]:
        if wish.key == "whole body":
            return "kept", ""
        share = self._about({wish.key})
        conditions, minded = self.teaching_data.conditions.conditions, self.draft.plan.brief.cautions
        if share < FOCUSED and any(
            wish.key in (one, *conditions[one].parts) for one in minded if one in conditions
        ):
            return "guessed", "they are minded, and worked as little as that asks"
        if share < TOLD:
            about_it = [
                one.id for one in self.teaching_data.library.values() if wish.key in (*one.works, *one.opens)
            ]
            return "unmet", self._none(about_it)
        if share < FOCUSED and len(self.draft.plan.brief.focus) == 1:
            return "guessed", self._share(wish.key)
        return "kept", self._share(wish.key)

    def _about(self, areas: Set[str]) -> float:
        """The share of the work that is about any of some areas, from 0 to 1."""
        about = (
            one.length for one in self.work if areas & {*one.use.movement.works, *one.use.movement.opens}
        )
        return sum(about) / self.worked

    def _share(self, area: str) -> str:
        """How much is about an area, and where that is little how much is about what goes with it."""
        share, name = self._about({area}), self.areas.get(area, area)
        if share >= FOCUSED or len(self.draft.plan.brief.focus) > 1:
            return f"{share:.0%} of the work"
        beside = sorted(self.draft.next_to)
        if not beside:
            return f"{share:.0%} of the work is about {name}; more would leave the style, or what all can do"
        both = self._about({area, *beside})
        names = listed([self.areas.get(one, one) for one in beside])
        return f"{share:.0%} of the work is about {name}, {both:.0%} with what goes with it: {names}"

    def _prop(self, wish: Wish) -> tuple[State, str]:
        uses = [one for one in self.draft.timed.segments if wish.key in _props_of(one)]
        if uses:
            return "kept", f"from {show_length(seconds(uses[0].start))}"
        if wish.key in ("wall", "chair", "cushion", "blanket", "towel"):
            return "guessed", "in reach: to hold on to, or for the comfort of who wants it"
        return "unmet", "nothing in this style that all can do uses it; have it by you all the same"

    def _there(self, wish: Wish) -> tuple[State, str]:
        name = wish.key
        at = next((one for one in self.draft.timed.segments if one.use.step.movement == name), None)
        if at is not None:
            when = f"at {show_length(seconds(at.start))}"
            return (
                ("kept", when)
                if at.use.step.take != "gentler"
                else ("guessed", f"{when}, in its gentler way")
            )
        movement = self.teaching_data.library.get(name)
        if movement is not None and movement.behaviour.is_rest:  # another rest does for it
            rests = [one for one in self.draft.timed.segments if one.behaviour.is_rest]
            if rests:
                return "guessed", f"{rests[-1].use.movement.name}, at {show_length(seconds(rests[-1].start))}"
        return "unmet", self._why(name, movement) if movement else "it is not in the library"

    def _why(self, name: str, movement: Movement) -> str:
        left = self.teaching_data.room(self.draft.plan.brief).left_out(movement)
        if left is not None and left.why == "caution":
            return f"left out for {self.teaching_data.cautions.get(left.tag, left.tag)}"
        if left is not None:
            group = self.teaching_data.conditions.groups.get(left.tag)
            return f"left out: without {group.name if group else left.tag}"
        code, word = self.draft.turned_down.get(name, ("", ""))
        return {"prop": f"no {word} at hand", "level": "not at this level"}.get(
            code, "no place for it in this length and style"
        )

    def _everyday(self, wish: Wish) -> tuple[State, str]:
        """What a word asks for by movements: "at the wall". Kept where one of them came."""
        brief = self.draft.plan.brief
        asked = {one for one in brief.wanted if brief.said.get(one) == wish.text}
        if asked and not asked & {one.use.step.movement for one in self.work}:
            return "unmet", self._none([*asked])
        about = [area for area in brief.focus if brief.said.get(area) == wish.text]
        if len(about) == len(brief.focus) == 1:
            return wish.state, self._share(about[0])
        return wish.state, ""

    def _group(self, wish: Wish) -> tuple[State, str]:
        there = [
            one.use.movement.name
            for one in self.work
            if wish.key in self.teaching_data.conditions.groups_of(one.use.movement)
        ]
        names = list(dict.fromkeys(there))
        if not names:
            return "unmet", self._none(
                [name for name, one in self.teaching_data.library.items()
                 if wish.key in self.teaching_data.conditions.groups_of(one)])  # fmt: skip
        return "kept", f"{listed(names[:NAMED])}{' and more' if len(names) > NAMED else ''}"

    def _none(self, names: Sequence[str]) -> str:
        """Why none of these came."""
        if not self.draft.pool & {*names}:
            return "there is none in this style that all can do"
        return "this draft had no room for it; another may"

    def _style(self, wish: Wish) -> tuple[State, str]:
        other = self.draft.plan.brief.style
        if wish.key in self.teaching_data.schools and other != wish.key and not self.draft.elsewhere:
            noun = self.teaching_data.schools[other].noun
            return "guessed", f"too little of it is left for who may be there: {noun} instead"
        if self.draft.elsewhere:
            return (
                "guessed",
                "too little of it is left for who may be there and where they may be: it goes another way",
            )
        return "kept", ""

    def _condition(self, wish: Wish) -> tuple[State, str]:
        library, hers = self.teaching_data.library, {*self.draft.plan.brief.props}
        left = [
            library[name]
            for name, (code, word) in self.draft.turned_down.items()
            if code == "caution" and word == wish.key and name in library
        ]
        if not left:
            return "kept", ""
        out = [
            one.name for one in sorted(left, key=lambda one: not hers.issuperset(one.props))
        ]  # what she has
        more = f" and {len(out) - NAMED} more" if len(out) > NAMED else ""
        return "kept", f"left out: {', '.join(out[:NAMED])}{more}"


def _props_of(segment: Segment) -> tuple[str, ...]:
    props = segment.use.movement.props
    return (
        (*props, "block") if "two blocks" in props else (*props, "two blocks") if "block" in props else props
    )
