"""Series: what each class repeats and prepares, the next class of one, and how one speaks of another."""

import math
from collections.abc import Mapping, Sequence
from itertools import count

import msgspec

from yewhour.core.conditions.room import Room
from yewhour.core.library.movement import Library, Movement
from yewhour.core.plan.nodes import (
    Block,
    Blocks,
    Node,
    Step,
)
from yewhour.core.plan.places import Body, BodyKey, rebuilt
from yewhour.core.plan.plan import Plan, Section, with_ids
from yewhour.core.shelf.class_sheet import ClassSheet
from yewhour.core.shelf.records import Series, ShelvedClass

CLOSING = ("rest", "close")
OPENING = ("arrive", "warm")
AGAIN = 0.4  # of what a class built, the share at its end that the next one does again
NEW = Section(title="New this time", role="peak")
FAREWELL = "farewell-short"
MORE = "If you have "


class SeriesPlace(msgspec.Struct, frozen=True):
    """One place in a series: its week and its number in it, both from 1, and its class, if there is one.

    repeats: movements that came earlier in the series. new: those that did not. prepares: movements of
    later classes that one of this class prepares.
    """

    week: int
    number: int
    shelved: ShelvedClass | None
    repeats: tuple[str, ...] = ()
    new: tuple[str, ...] = ()
    prepares: tuple[str, ...] = ()


def places_of(series: Series, classes: Mapping[str, ShelvedClass], library: Library) -> list[SeriesPlace]:
    """Every place of a series in its order, what is still to be made as well."""
    ids = [*series.classes, *[""] * (series.weeks * series.each - len(series.classes))]
    there = [classes.get(one) for one in ids]
    sheets = [one.sheet if one is not None else None for one in there]
    found, before = [], set[str]()
    for at, shelved in enumerate(there):
        week, number = at // max(1, series.each) + 1, at % max(1, series.each) + 1
        sheet = sheets[at]
        names = list(sheet.movements) if sheet is not None else []
        found.append(
            SeriesPlace(
                week,
                number,
                shelved,
                tuple(name for name in names if name in before and _asks(name, library)),
                tuple(name for name in names if name not in before and _asks(name, library)),
                _prepares(names, sheets[at + 1 :], library),
            )
        )
        before.update(names)
    return found


def _asks(name: str, library: Library) -> bool:
    """Whether a movement is work that is learnt, and not a rest or a way of sitting."""
    return name in library and library[name].effort >= 2


def _prepares(names: Sequence[str], later: Sequence[ClassSheet | None], library: Library) -> tuple[str, ...]:
    ahead = dict.fromkeys(name for sheet in later if sheet is not None for name in sheet.movements)
    mine = set(names)
    return tuple(
        name
        for name in ahead
        if name not in mine and name in library and mine.intersection(_leads_to(library[name]))
    )


def _leads_to(movement: Movement) -> tuple[str, ...]:
    """What leads to a movement: what prepares it, and its gentler way."""
    gentler = movement.gentler.movement if movement.gentler is not None else ""
    return (*movement.prepared_by, gentler)


def next_of(last: Plan, title: str, room: Room) -> Plan:
    """The next class of a series: it opens, warms, rests and closes as the last one did.

    The last of what that one built and came to is its warming work now; after it there is room for what is
    new, as long as what was taken out.

    room: of the last class; what is left out there is not put into another by itself.
    """

    def met(key: BodyKey, body: Body) -> Body:
        return tuple(node for node in body if not (isinstance(node, Step) and _left_out(node, room)))

    last = rebuilt(last, met)
    built = [node.id for one in last.sections if one.role not in (*OPENING, *CLOSING) for node in one.body]
    gone = set(built[: len(built) - math.ceil(AGAIN * len(built))])
    sections: list[Section] = []
    roomed = False
    for section in last.sections:
        if section.role in CLOSING and not roomed:
            sections.append(NEW)
            roomed = True
        body = tuple(node for node in section.body if node.id not in gone)
        if section.role in (*OPENING, *CLOSING):
            sections.append(section)
        elif body:
            sections.append(msgspec.structs.replace(section, role="build", body=body))
    if not roomed:
        sections.append(NEW)
    brief = msgspec.structs.replace(last.brief, title=title)
    return with_ids(msgspec.structs.replace(last, brief=brief, sections=tuple(sections)), prefix="s")


def _left_out(step: Step, room: Room) -> bool:
    movement = room.library.get(step.movement)
    return movement is not None and room.left_out(movement) is not None


def next_title(title: str, taken: Sequence[str]) -> str:
    """The title of one more class: the same with the next number that is free."""
    words = title.split()
    bare = " ".join(words[:-1]) if len(words) > 1 and words[-1].isdigit() else title
    first = int(words[-1]) + 1 if len(words) > 1 and words[-1].isdigit() else 2
    return next(timed for number in count(first) if (timed := f"{bare} {number}") not in taken)


def if_more(this: ClassSheet, other: ClassSheet, minutes_word: str) -> str:
    """How a class speaks of a longer one, or of one to go on with.

    minutes_word: the minutes of the other, or those it has more, as they are spoken.
    """
    if other.length_s > this.length_s + 60 and other.title == this.title:
        return f"{MORE}{minutes_word} minutes more another time, there is a longer {this.title}."
    return f"{MORE}{minutes_word} minutes more, go on with {other.title}."


def minutes_of(this: ClassSheet, other: ClassSheet) -> int:
    """The minutes that are spoken of: those that a longer form has more, or all of another class."""
    if other.length_s > this.length_s + 60 and other.title == this.title:
        return round((other.length_s - this.length_s) / 60)
    return round(other.length_s / 60)


def spoken_of(plan: Plan, line: str, library: Library, blocks: Blocks) -> Plan:
    """A plan that says the line in its farewell, before its last words; one without a farewell gets one.

    A farewell that stands in a block of the library is taken into the class with its block.
    """
    own = {**blocks, **plan.blocks}
    named = {node.name for section in plan.sections for node in section.body if isinstance(node, Block)}
    bodies = {name: own[name] for name in named if name in own}

    def worded(body: tuple[Node, ...]) -> tuple[Node, ...]:
        return tuple(_with_line(node, line, library) for node in body)

    changed = {name: anew for name, body in bodies.items() if (anew := worded(body)) != body}
    sections = tuple(msgspec.structs.replace(one, body=worded(one.body)) for one in plan.sections)
    if not changed and sections == plan.sections:
        there = sections or (Section(title="Close", role="close"),)
        last = msgspec.structs.replace(
            there[-1], body=(*there[-1].body, Step(movement=FAREWELL, lines={"say": [line]}))
        )
        sections = (*there[:-1], last)
    after = msgspec.structs.replace(plan, sections=sections, blocks={**plan.blocks, **changed})
    return with_ids(after)


def _with_line(node: Node, line: str, library: Library) -> Node:
    known = library.get(node.movement) if isinstance(node, Step) else None
    if not isinstance(node, Step) or known is None or "farewell" not in known.marks:
        return node
    said = node.lines.get("say") or [wordings[0] for wordings in known.said("say")]
    said = [one for one in said if not one.startswith(MORE)]
    return msgspec.structs.replace(node, lines={**node.lines, "say": [*said[:-1], line, *said[-1:]]})
