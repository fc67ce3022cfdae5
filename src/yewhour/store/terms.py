"""The words tags may use, and the data around the library: positions, cautions, schools, wording."""

from pathlib import Path

import msgspec

from yewhour.core.checks.every import verified
from yewhour.core.finding import Rules
from yewhour.core.plan.movement import parse_wordings
from yewhour.core.plan.position import Positions, position_graph
from yewhour.core.plan.school import School, Schools
from yewhour.core.problem import Problem
from yewhour.core.script.speech import Voice
from yewhour.core.script.wording import Wording
from yewhour.store.paths import DATA
from yewhour.store.toml import read_toml


class Caution(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Somebody who may be in the room: what it is called, how a line speaks to them, what to keep in mind."""

    name: str
    whom: str
    about: str
    watch: str = ""


class Terms(msgspec.Struct, frozen=True):
    """Every tag a movement may carry."""

    areas: dict[str, str]
    loads: dict[str, str]
    marks: dict[str, str]
    props: dict[str, str]
    cautions: dict[str, Caution]
    positions: tuple[str, ...]


def load_terms(positions: Positions, data: Path = DATA) -> Terms:
    """The tags, from data/terms.toml and data/cautions.toml."""
    tables = read_toml(data / "terms.toml")
    cautions = msgspec.convert(read_toml(data / "cautions.toml"), dict[str, Caution])
    return Terms(
        areas=tables["areas"], loads=tables["loads"], marks=tables["marks"], props=tables["props"],
        cautions=cautions, positions=positions.names,
    )  # fmt: skip


def load_positions(data: Path = DATA) -> Positions:
    """The position graph, from data/positions.toml."""
    tables = read_toml(data / "positions.toml")
    edges = {}
    for line, moving_s in tables["changes"].items():
        start, _, end = line.partition(" - ")
        edges[start, end] = float(moving_s)
    return position_graph(edges, frozenset(tables["floor"]), frozenset(tables["facing_down"]))


def load_schools(data: Path = DATA) -> Schools:
    """The style presets, from data/schools.toml."""
    tables = read_toml(data / "schools.toml")
    return {name: msgspec.convert({"id": name, **table}, School) for name, table in tables.items()}


def load_wording(data: Path = DATA) -> Wording:
    """The lines about sides, counts and time, from data/wording.toml."""
    tables = read_toml(data / "wording.toml")
    parted = {name: tuple(parse_wordings(text) for text in texts) for name, texts in tables.items()}
    return msgspec.convert(parted, Wording)


def load_voice(data: Path = DATA) -> Voice:
    """The voice that lines are timed with, from data/voice/voice.toml."""
    return msgspec.convert(read_toml(data / "voice" / "voice.toml"), Voice)


def load_rules(data: Path = DATA) -> Rules:
    """What the checks say, from data/checks.toml; raises Problem for a rule that has no check."""
    try:
        rules = msgspec.convert(read_toml(data / "checks.toml"), Rules)
    except msgspec.ValidationError as error:
        raise Problem(f"A rule can't be read: {error}.", str(data / "checks.toml"), "Mend it.") from error
    return verified(rules)
