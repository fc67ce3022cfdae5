"""The brief in an outline: `key: value` lines, read and written by one table."""

import re
from typing import Any

from yewhour.core.lengths import (
    finite,
    parse_length,
    show_length,
    shown_number,
)
from yewhour.core.library.names import plain_name
from yewhour.core.pace import read_pace, show_pace
from yewhour.core.plan.plan import Brief
from yewhour.core.plan.vocabulary import LEVEL_NAMES, Vocabulary, looked_up
from yewhour.core.problem import Problem

_LISTS = ("focus", "cautions", "without", "wanted", "props")
_TEXTS = {
    "title": "title", "style": "style", "level": "level", "time of day": "time_of_day", "begins": "begins",
    "for": "audience", "reason": "reason", "shape": "shape", "peak": "peak", "facing": "facing",
    "lineage": "lineage", "target counts": "target_counts",
}  # fmt: skip
_NUMBERS = {"voice rate": "voice_rate", "pace gives": "pace_gives", "tolerance": "tolerance_s"}


def read_brief_line(key: str, value: str, known: Vocabulary | None = None) -> dict[str, Any]:
    """The fields of a brief that one `key: value` line gives.

    Raises Problem for an unknown key, and, where it is told what is `known`, for what is not.
    """
    key = key.lower().strip()
    if key == "length":
        return {"target_s": _length(value)}
    if key == "level":
        return {"level": looked_up("level", value, LEVEL_NAMES)}
    if known is not None and key == "style":
        return {"style": looked_up("style", value, known.styles)}
    if known is not None and key in ("cautions", "props"):
        names = known.cautions if key == "cautions" else known.props
        return {key: tuple(names.get(plain_name(part), part) for part in _parts(value))}
    if key == "say names":
        return {"ways": {"say_names": value.lower()}}
    if key == "pace":
        try:
            return {"pace": read_pace(value)}
        except ValueError:
            raise Problem(f"The pace {value!r} can't be read.", do="Write it as 8 or 8/4:0:5:0.") from None
    if key in _LISTS:
        return {key: _parts(value)}
    if key == "telling":
        if not re.fullmatch(r"\d{1,9}", value.strip()):
            raise Problem(f"{value!r} is no telling.", do="Write telling: 2, for instance.")
        return {"telling": int(value)}
    if key == "theme":
        parts = [part.strip() for part in value.split("|")]
        while parts and not parts[-1]:
            parts.pop()
        return {key: tuple(parts)}
    if key in _NUMBERS:
        try:
            return {_NUMBERS[key]: finite(value)}
        except ValueError:
            raise Problem(f"{value!r} is not a number.", do=f"Write {key}: 1.1, for instance.") from None
    if key in _TEXTS:
        return {_TEXTS[key]: value}
    if key.startswith("said "):
        return {"said": {key[5:].strip(): value}}
    if key.startswith("own "):
        try:
            return {"own": {key[4:].strip(): finite(value)}}
        except ValueError:
            raise Problem(f"{value!r} is not a number.", do=f"Write {key}: 1.1, for instance.") from None
    if key.startswith("way "):
        return {"ways": {key[4:].strip().replace(" ", "_"): _way(value)}}
    raise Problem(
        f"There is no {key!r} in a brief.",
        do=f"There are: {', '.join([*_TEXTS, 'theme', 'telling', 'length', 'pace', *_LISTS])}.",
    )


def _length(value: str) -> float:
    """Seconds of a length; a bare number could be minutes or seconds, so it is asked about."""
    if found := re.fullmatch(r"(\d{1,3})\s*(?:m|min|mins|minutes)", value.strip(), re.IGNORECASE):
        return parse_length(f"{found[1]}:00")
    if found := re.fullmatch(r"(\d{1,5})\s*(?:s|sec|secs|seconds)", value.strip(), re.IGNORECASE):
        return parse_length(found[1])
    if re.fullmatch(r"\d+", value.strip()):
        number = int(value)
        do = f"Write {number}:00 for minutes, or {number}s for seconds."
        raise Problem(f"The length {value!r} could be minutes or seconds.", do=do)
    return parse_length(value)


def _parts(value: str) -> tuple[str, ...]:
    return tuple(part.strip() for part in value.split(",") if part.strip())


def _way(value: str) -> Any:
    if value.lower() in ("yes", "no"):
        return value.lower() == "yes"
    try:
        return finite(value)
    except ValueError:
        return value


def one_line(text: str) -> str:
    """A text as it stands in one line of an outline."""
    return " ".join(text.split())


def write_brief(brief: Brief) -> list[str]:
    """The brief's lines; what is as usual is left out, but for title, length and style."""
    usual = Brief()
    lines = [
        f"title: {one_line(brief.title)}",
        f"length: {show_length(brief.target_s)}",
        f"style: {brief.style}",
    ]
    for key, field in _TEXTS.items():
        said = one_line(getattr(brief, field))
        if key not in ("title", "style") and said and said != getattr(usual, field):
            lines.append(f"{key}: {said}")
    if brief.telling > 0:
        lines.append(f"telling: {min(brief.telling, 10**9 - 1)}")
    if any(told := [one_line(one).replace("|", "/") for one in brief.theme]):
        lines.append(f"theme: {' | '.join(told).rstrip(' |')}")
    for key in _LISTS:
        words = [said for one in getattr(brief, key) if (said := one_line(one))]
        if words:
            lines.append(f"{key}: {', '.join(words)}")
    if brief.pace is not None:
        lines.append(f"pace: {show_pace(brief.pace)}")
    for key, field in _NUMBERS.items():
        if getattr(brief, field) != getattr(usual, field):
            lines.append(f"{key}: {shown_number(getattr(brief, field))}")
    for name, value in brief.ways.items():
        shown = {True: "yes", False: "no"}.get(value, value) if isinstance(value, bool) else value
        shown = shown_number(shown) if isinstance(shown, float) else shown
        lines.append(f"way {name.replace('_', ' ')}: {shown}")
    lines += [f"said {name}: {one_line(value)}" for name, value in brief.said.items() if one_line(value)]
    lines += [f"own {name}: {shown_number(value)}" for name, value in brief.own.items()]
    return lines
