"""A figure as a short line of text, beside its movement: joint angles, and what rests on what.

    hip 90/0, knee 90/0, arm 180, on farfoot
    front, arm 90, elbow 90
    as supine bent, trunk 150, hip 10, on feet shoulders
    seat@chair is what rests on a prop; touch, strap, band, block, cushion, wall name points
    circle ankle, turn neck are arrows about a point; works leg says which limb wears the colour of the side
    best is the one of a movement's figures that shows it alone, where that is not the second
    free takes those of the position off
    whole, side, ... goes on from nothing: all of it stands in the line

Two numbers with a stroke are near and far, which in a movement of one side is that side and the other. What
is not said is as in the position that the line goes on from: its movement's own, or the one after `as`. Where
a line moves an arm, the hands are off what they touch there.
"""

import msgspec

from yewhour.core.figure.body import Figure, Support, Touch
from yewhour.core.figure.joints import (
    BOTH,
    LIMBS,
    LINES,
    MIDDLE,
    MIDDLE_RESTS,
    POINTS,
    RESTS,
    RESTS_HIGH,
    ROUND,
    SEEN,
    VIEWS,
    WORKS,
    limits_of,
)
from yewhour.core.problem import Problem

WHOLE = "whole"
ARM = ("arm", "elbow", "upper", "fore")
DO = "Write it as `hip 90/0, knee 90, on feet`; docs/formats.md says all of it."


def read_figure(text: str, base: Figure | None = None, where: str = "") -> Figure:
    """The figure of a line. base: what it goes on from. where: file and line, for a message.

    Raises Problem for a word that is none of ours, or an angle that no joint has.
    """
    figure = base if base is not None else Figure()
    if text.split(",")[0].strip() == WHOLE:
        figure, text = Figure(), text.partition(",")[2]
    angles, rests, held = dict(figure.angles), figure.rests, figure.held
    view, works, best = figure.view, figure.works, figure.best
    if any(part.split()[:1] and part.split()[0].removeprefix("far") in ARM for part in text.split(",")):
        held = tuple(one for one in held if not (one.by == "" and _by_hand(one)))  # they are elsewhere now
    for part in text.split(","):
        words = part.split()
        if not words:
            continue
        name, given = words[0], words[1:]
        if name in VIEWS and not given:
            if name != view:
                angles = {one: value for one, value in angles.items() if one in MIDDLE[:1]}
            view = name
        elif name == "on":
            rests = tuple(rest for word in given for rest in _rests(word, where))
        elif name == "works" and set(given) <= set(WORKS):
            works = tuple(given)
        elif name == "touch" or name in (*LINES, *ROUND):
            held = (*held, Touch("" if name == "touch" else name, _points(given, where)))
        elif name == "best" and not given:
            best = True
        elif name == "free" and not given:
            held = ()
        elif name.removeprefix("far") in (*MIDDLE, *LIMBS, *SEEN) and len(given) == 1:
            _bend(angles, name, given[0], view, where)
        else:
            raise Problem(f"A figure has no {part.strip()!r}.", where, DO)
    return msgspec.structs.replace(
        figure, view=view, angles=angles, rests=rests, held=held, works=works, best=best
    )


def _by_hand(touch: Touch) -> bool:
    return any(point.removeprefix("far") in ("hand", "wrist", "elbow") for point in touch.points)


def base_named(text: str) -> tuple[str, str]:
    """The position a line says it goes on from, "" for none, and the rest of the line."""
    first, _, rest = text.partition(",")
    word, _, name = first.strip().partition(" ")
    return (name.strip(), rest.strip()) if word == "as" else ("", text)


def write_figure(figure: Figure) -> str:
    """The whole of a figure as a line that reads as it; angles to a degree."""
    parts: list[str] = [WHOLE, figure.view]
    for name in MIDDLE:
        parts.append(f"{name} {round(figure.angle(name))}")
    for name in LIMBS:
        near, far = round(figure.angle(name)), round(figure.angle(f"far{name}"))
        parts.append(f"{name} {near}" if near == far else f"{name} {near}/{far}")
    for name in SEEN:
        near, far = round(100 * figure.seen(name)), round(100 * figure.seen(f"far{name}"))
        if (near, far) != (100, 100):
            parts.append(f"{name} {near}" if near == far else f"{name} {near}/{far}")
    if figure.rests:
        parts.append(
            "on " + " ".join(rest.part + (f"@{rest.on}" if rest.on else "") for rest in figure.rests)
        )
    if figure.best:
        parts.append("best")
    if figure.works:
        parts.append(f"works {' '.join(figure.works)}")
    parts += [f"{one.by or 'touch'} {' '.join(one.points)}" for one in figure.held]
    return ", ".join(parts)


def _bend(angles: dict[str, float], name: str, text: str, view: str, where: str) -> None:
    values = text.split("/")
    names = (name, f"far{name}")
    if len(values) > 2 or (len(values) == 2 and (name in MIDDLE or name.startswith("far"))):
        raise Problem(f"A figure's {name} has one angle, or two with a stroke between.", where, DO)
    if len(values) == 1:
        angles.pop(f"far{name}", None)
    for one, value in zip(names, values, strict=False):
        try:
            degrees = float(value)
        except ValueError:
            raise Problem(f"{value!r} is no angle in degrees.", where, DO) from None
        least, most = limits_of(one, view)  # type: ignore[arg-type]
        if not least <= degrees <= most:
            raise Problem(
                f"No {one.removeprefix('far')} bends to {value} degrees; it is {least} to {most}.", where, DO
            )
        angles[one] = degrees


def _rests(word: str, where: str) -> tuple[Support, ...]:
    part, _, on = word.partition("@")
    parts = (BOTH[part], f"far{BOTH[part]}") if part in BOTH else (part,)
    known = part in MIDDLE_RESTS or parts[0].removeprefix("far") in RESTS
    if not known or (on and on not in RESTS_HIGH):
        raise Problem(f"A figure rests on no {word!r}.", where, DO)
    return tuple(Support(one, on) for one in parts)


def _points(words: list[str], where: str) -> tuple[str, ...]:
    for word in words:
        if word not in POINTS:
            raise Problem(f"A figure has no point {word!r}.", where, DO)
    return tuple(words)
