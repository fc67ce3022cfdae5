"""The words tags may use, and the data around the library: positions, cautions, schools, wording."""

from functools import cache
from pathlib import Path
from typing import Any

import msgspec

from yewhour.content.paths import DATA
from yewhour.core.checks.all_checks import verified_rules
from yewhour.core.conditions.condition import Condition, Conditions
from yewhour.core.conditions.groups import MovementGroup
from yewhour.core.finding import CheckRules
from yewhour.core.library.facets import Facets, FacetValue
from yewhour.core.library.movement import parse_wordings
from yewhour.core.library.position import (
    PositionChange,
    PositionGraph,
    changes_of,
    needs_of,
    places_of,
)
from yewhour.core.plan.school import School, Schools
from yewhour.core.problem import Problem
from yewhour.core.wording.lines import StandingLines
from yewhour.core.wording.speech import SpeechRates
from yewhour.files.toml_files import read_toml


class Terms(msgspec.Struct, frozen=True):
    """Every tag a movement may carry."""

    areas: dict[str, str]
    loads: dict[str, str]
    marks: dict[str, str]
    props: dict[str, str]
    cautions: dict[str, Condition]
    positions: tuple[str, ...]
    facets: Facets


def load_facets(data: Path = DATA) -> Facets:
    """What of a body may be otherwise than its position says, from data/body.toml."""
    path = data / "body.toml"
    try:
        return Facets(msgspec.convert(read_toml(path), dict[str, dict[str, FacetValue]]))
    except msgspec.ValidationError as error:
        raise Problem(f"The facets of the body can't be read: {error}.", str(path), "Mend it.") from error


def load_terms(positions: PositionGraph, data: Path = DATA) -> Terms:
    """The tags, from data/terms.toml and data/cautions.toml."""
    file = load_terms_file(data)
    cautions = msgspec.convert(read_toml(data / "cautions.toml"), dict[str, Condition])
    return Terms(
        areas=file.areas, loads=file.loads, marks=file.marks, props=file.props,
        cautions=cautions, positions=needs_of(positions.places), facets=load_facets(data),
    )  # fmt: skip


def load_conditions(terms: Terms, data: Path = DATA) -> Conditions:
    """The conditions with the groups they leave out, from data/cautions.toml and data/groups.toml."""
    path = data / "groups.toml"
    try:
        groups = msgspec.convert(read_toml(path), dict[str, MovementGroup])
    except msgspec.ValidationError as error:
        raise Problem(f"The groups can't be read: {error}.", str(path), "Mend it.") from error
    return Conditions(terms.cautions, groups)


class TermsFile(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """data/terms.toml: tags and what each means to a reader, what positions and families are called.

    positions: by base or position, `{side}` for right and left. position_groups: bases that are one to the
    eye, from the feet to the floor.
    """

    areas: dict[str, str]
    loads: dict[str, str]
    marks: dict[str, str]
    props: dict[str, str]
    positions: dict[str, str]
    position_groups: dict[str, tuple[str, ...]]
    families: dict[str, str]


@cache
def load_terms_file(data: Path = DATA) -> TermsFile:
    """The file, checked. Raises Problem where it can't be read."""
    path = data / "terms.toml"
    try:
        return msgspec.convert(read_toml(path), TermsFile)
    except msgspec.ValidationError as error:
        raise Problem(f"The terms can't be read: {error}.", str(path), "Mend it.") from error


class _Way(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A way as a file has it: [usual, least] seconds, its words, and other words for the same."""

    seconds: tuple[float, float]
    say: str
    breath: bool = False
    otherwise: tuple[str, ...] = ()


class PositionsFile(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A positions.toml: bases with their forms, tags of bases and positions, and ways."""

    bases: dict[str, list[str]] = {}
    tags: dict[str, list[str]] = {}
    ways: dict[str, Any] = {}


def load_positions(own: Path | None = None, data: Path = DATA) -> tuple[PositionGraph, list[Problem]]:
    """The positions and the ways between them, from data/positions.toml and the teacher's own such file.

    Her ways come on top of ours. What is wrong with one is told, with its file, and the rest still loads.
    """
    paths = [data / "positions.toml"] + ([own / "positions.toml"] if own else [])
    bases: dict[str, list[str]] = {}
    ways: dict[str, tuple[Path, object]] = {}
    tags: dict[str, list[str]] = {}
    problems: list[Problem] = []
    for path in paths:
        if not path.is_file():
            continue
        try:
            tables = read_toml(path, "Mend that line; the positions that ship are there.")
        except Problem as problem:
            problems.append(problem)
            continue
        try:
            file = msgspec.convert(tables, PositionsFile)
        except msgspec.ValidationError as error:
            do = "See data/positions.toml for how it is written; the positions that ship are there."
            problems.append(Problem(f"This can't be read: {error}.", str(path), do))
            continue
        for base, forms in file.bases.items():  # hers come on top: no form that ships is taken away
            bases[base] = list(dict.fromkeys([*bases.get(base, []), *forms]))
        for tag, places in file.tags.items():
            tags[tag] = [*tags.get(tag, []), *places]
        ways |= {line: (path, way) for line, way in file.ways.items()}
    known = places_of(bases)
    changes: list[PositionChange] = []
    for line, (path, way) in ways.items():
        try:
            changes += _changes(line, way, known, tags.get("apart", []))
        except (Problem, msgspec.ValidationError) as error:
            what = error.what if isinstance(error, Problem) else str(error)
            do = 'Write it as "seated long -> supine long" = { seconds = [13, 6], say = "..." }.'
            problems.append(Problem(f"The way {line!r}: {what}", _line_of(path, line), do))
    floor, down = frozenset(tags.get("floor", ())), frozenset(tags.get("facing_down", ()))
    positions = PositionGraph(known, changes, floor, down)
    if own and (own / "positions.toml").is_file():  # ours are known to hang together: a test holds them to it
        problems += unreachable(positions, own / "positions.toml")
    return positions, problems


def _line_of(path: Path, written: str) -> str:
    lines = path.read_text(encoding="utf-8").splitlines()
    number = next((n for n, text in enumerate(lines, 1) if written in text), 0)
    return f"{path}, line {number}" if number else str(path)


def _changes(line: str, table: object, places: tuple[str, ...], apart: list[str]) -> list[PositionChange]:
    start, arrow, end = (part.strip() for part in line.partition("->"))
    if not arrow:
        raise Problem("it has no arrow.")
    way = msgspec.convert(table, _Way)
    if not 0 < way.seconds[1] <= way.seconds[0] <= 600:
        raise Problem("its seconds are not in order: [usual, least], over 0.")
    say = parse_wordings(way.say)
    if not say:
        raise Problem("it says nothing.")
    otherwise = tuple(map(parse_wordings, way.otherwise))
    return list(changes_of(start, end, way.seconds, say, way.breath, places, apart, otherwise))


def unreachable(positions: PositionGraph, path: Path) -> list[Problem]:
    """What is wrong with positions that can't be reached from standing, or not be left for it."""
    first, *others = positions.places
    ways = [way for place in others for way in ((first, place), (place, first))]
    return [
        Problem(f"There is no way from {start} to {end}.", str(path), "Add a way between them.")
        for start, end in ways
        if not positions.reaches(start, end)
    ]


def load_schools(data: Path = DATA) -> Schools:
    """The style presets, from data/schools.toml."""
    tables = read_toml(data / "schools.toml")
    return {name: msgspec.convert({"id": name, **table}, School) for name, table in tables.items()}


def load_wording(data: Path = DATA) -> StandingLines:
    """The lines about sides, counts and time, from data/wording.toml."""
    tables = dict(read_toml(data / "wording.toml"))
    voices = {name: _parted(lines) for name, lines in tables.pop("voices").items()}
    tables["on_phase"] = _parted(tables["on_phase"])
    parted = {"imperatives": tables.pop("imperatives"), "voices": voices, **_parted(tables)}
    return msgspec.convert(parted, StandingLines)


def _parted(lines: dict[str, Any]) -> dict[str, Any]:
    """Each line of a table parted into its wordings."""
    return {
        name: texts if isinstance(texts, dict) else tuple(parse_wordings(text) for text in texts)
        for name, texts in lines.items()
    }


def load_voice(data: Path = DATA) -> SpeechRates:
    """The voice that lines are timed with, from data/voice/voice.toml."""
    return msgspec.convert(read_toml(data / "voice" / "voice.toml"), SpeechRates)


def load_rules(data: Path = DATA) -> CheckRules:
    """What the checks say, from data/checks.toml; raises Problem for a rule that has no check."""
    try:
        rules = msgspec.convert(read_toml(data / "checks.toml"), CheckRules)
    except msgspec.ValidationError as error:
        raise Problem(f"A rule can't be read: {error}.", str(data / "checks.toml"), "Mend it.") from error
    return verified_rules(rules)
