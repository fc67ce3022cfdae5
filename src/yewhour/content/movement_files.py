"""The movement library: readable TOML files, validated as they are loaded.

A file holds any number of movements, one table each, named by its id. What is wrong with one is
reported with file and line, and the rest still loads. The teacher's own files win over ours by id.
"""

import re
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import Any

import msgspec

from yewhour.content.card_files import faults
from yewhour.content.terms import Terms
from yewhour.core.lengths import LONGEST_S
from yewhour.core.library.kinds import BEHAVIOURS, Kind
from yewhour.core.library.movement import Library, Movement, Wordings, parse_wordings
from yewhour.core.library.names import shared_names
from yewhour.core.pace import Rhythm, parse_rhythm
from yewhour.core.problem import Problem
from yewhour.core.purpose import LINE_PURPOSES
from yewhour.core.sides import SIDE_TOKENS, tokens
from yewhour.files.toml_files import Table, read_toml

COUNTED: frozenset[Kind] = frozenset(kind for kind, behaviour in BEHAVIOURS.items() if behaviour.unit)
LINE_TOKENS = SIDE_TOKENS | {
    "name",
    "Name",
    "breath",
    "Breath",
    "n",
    "N",
    "prop",
    "title",
    "Title",
    "audience",
    "quiet",
}
ONCE = {"squat-low": "squat", "wall lying": "wall-lying"}  # what positions were once called
LONGEST_LINE = 22  # words
BOUNDS: dict[str, tuple[float, float]] = {
    "by": (1, 3600), "weight": (0.001, 1000), "count_s": (0, 60), "moving_s": (0, 600), "teach": (0, 600),
    "effort": (0, 5),
}  # fmt: skip
Wrong = Callable[[str, str, str], Problem]  # (field, what, what to do)


# What a table may hold besides the lines; an option is its line, and in another field the movement it is.
_OURS = {"id", "source", "lines", "card"}
FIELDS = frozenset(Movement.__struct_fields__) - _OURS | {"gentler_is", "stronger_is", "talk"}


def load_library(
    folders: Iterable[Path], terms: Terms, before: Library | None = None
) -> tuple[Library, list[Problem]]:
    """Every movement of the folders' .toml files, and what was wrong. Later folders win by id.

    before: a library that the folders come on top of. Within one folder, a second movement with the same id
    is reported and the first is kept.
    """
    folders = [folder for folder in folders if folder.is_dir()]
    if before is not None and not any(True for folder in folders for _ in folder.rglob("*.toml")):
        return before, []  # found sound already, and as it was
    library: dict[str, Movement] = dict(before or {})
    problems: list[Problem] = []
    for folder in folders:
        here: dict[str, Path] = {}
        for path in sorted(folder.rglob("*.toml"), key=lambda path: path.name):
            for movement in _read_file(path, terms, problems):
                if movement.id in here:
                    problems.append(
                        Problem(
                            f"The id {movement.id!r} is already used in {here[movement.id].name}.",
                            _line(path, movement.id),
                            "Give one of them another id; the first is used until then.",
                        )
                    )
                    continue
                here[movement.id] = path
                library[movement.id] = movement
    _check_references(library, problems)
    _check_names(library, problems)
    return library, problems


def _read_file(path: Path, terms: Terms, problems: list[Problem]) -> list[Movement]:
    try:
        tables = read_toml(path, "Mend that line; the other files are loaded.")
    except Problem as problem:
        problems.append(problem)
        return []
    family = tables.get("family", path.stem)
    if not isinstance(family, str):
        where = f"{path}"
        problems.append(
            Problem("The family of a file is a name in quotes.", where, 'Write family = "standing".')
        )
        family = path.stem
    movements = []
    for name, table in tables.items():
        if name == "family":
            continue
        try:
            movement = movement_of(name, table, path, terms, family)
            if movement.figure and (fault := _figure_fault(movement)) is not None:
                problems.append(fault)
                movement = msgspec.structs.replace(movement, figure=())
            movements.append(movement)
        except Problem as problem:
            problems.append(problem)
    return movements


def _figure_fault(movement: Movement) -> Problem | None:
    """What is wrong with the figure of a movement: it is then drawn as its position is."""
    # 0.2 s with NumPy; a movement that ships has no figure in its own file.
    from yewhour.content.figure_files import own_figures

    try:
        own_figures(movement)
    except Problem as problem:
        where = _line(Path(movement.source), movement.id, "figure")
        return Problem(f"{movement.id}: {problem.what}", where, problem.do)
    return None


def movement_of(name: str, table: Any, path: Path, terms: Terms, family: str = "") -> Movement:
    """One movement of a file. family: that of the file, where it names none itself.

    Raises Problem, with file and line, for what is wrong in it.
    """
    if not isinstance(table, dict):
        raise Problem(f"{name!r} stands outside a movement.", f"{path}", "Put it under a [movement-id] line.")

    def wrong(key: str, what: str, do: str) -> Problem:
        return Problem(f"{name}: {what}", _line(path, name, key), do)

    lines = {key: value for key, value in table.items() if key in LINE_PURPOSES}
    rest = {key: value for key, value in table.items() if key not in LINE_PURPOSES}
    for key in rest:
        if key not in FIELDS:
            raise wrong(key, f"there is no field {key!r}.", "Check its spelling in docs/movements.md.")
    try:
        entry = msgspec.convert(_as_movement(name, path, rest, lines, wrong, family or path.stem), Movement)
    except msgspec.ValidationError as error:
        found = re.search(r"`\$\.(\w+)|field `(\w+)`", str(error))
        key = next((group for group in found.groups() if group), "") if found else ""
        raise wrong(
            key, f"{str(error).rstrip('.')}.", "Mend it; docs/movements.md says what it may be."
        ) from error
    if not re.fullmatch(r"[a-z0-9]+(-[a-z0-9]+)*", name):
        raise wrong("", "an id has small letters, digits and hyphens only.", "Rename it.")
    if entry.kind in COUNTED and "dose" not in rest:
        raise wrong("", "it has no dose.", "Add dose = [least, preferred, most].")
    if not 0 < entry.dose[0] <= entry.dose[1] <= entry.dose[2] <= LONGEST_S:
        raise wrong("dose", "its dose is not in order.", "Write it as [least, preferred, most], from 1.")
    for key, (low, high) in BOUNDS.items():
        number = getattr(entry, key)
        if not low <= number <= high:  # not a number is in no bounds
            raise wrong(key, f"{number:g} can't be a {key}.", f"Use a number from {low:g} to {high:g}.")
    if any(not 0 < counts <= 1000 for rhythm in (entry.rhythm, *entry.stages) for _, counts in rhythm):
        raise wrong("rhythm", "a phase lasts nothing, or over 1000 counts.", "Write it as exhale 4 inhale 4.")
    if entry.kind in ("reps", "cycles") and not entry.rhythm and not entry.stages:
        raise wrong("", "it has no rhythm.", 'Add, for instance, rhythm = "exhale 4 inhale 4".')
    needed = "say" if entry.kind == "talk" else "call"
    if needed not in lines:
        raise wrong("", f"it has no {needed!r} line.", f'Add {needed} = "...".')
    for key, known in (
        ("works", terms.areas), ("opens", terms.areas), ("loads", terms.loads), ("marks", terms.marks),
        ("props", terms.props), ("cautions", terms.cautions),
    ):  # fmt: skip
        for tag in getattr(entry, key):
            if tag not in known:
                raise wrong(
                    key, f"{tag!r} is not a tag of {key}.", f"Use one of: {', '.join(sorted(known))}."
                )
    for key in ("start", "end"):
        place = getattr(entry, key).replace("{side}", "right").replace("{other}", "left")
        for one in place.split(" or ") if place else ():
            if one in terms.positions:
                continue
            raise wrong(key, f"{one!r} is not a position.", f"Use one of: {', '.join(terms.positions)}.")
    if entry.card is not None:
        for fault in faults(entry.card, frozenset(terms.facets.names)):
            raise wrong("talk", fault, "Mend that line.")
    if fault := terms.facets.fault(entry.shape):
        raise wrong("shape", fault, "docs/movements.md says what a shape is.")
    for base in entry.flow_from:
        if base not in terms.positions:
            raise wrong("flow_from", f"{base!r} is not a base.", "Use the first word of a position.")
    for key, texts in entry.lines.items():
        for line in texts:
            _check_line(line, key, entry, wrong)
    for line in (line for way in entry.otherwise for line in way):
        _check_line(line, "say", entry, wrong)
    for words in entry.flow_from.values():
        if words not in (("flow",), ("way",)):
            _check_line(words, "flow_from", entry, wrong)
    for key, option in (("gentler", entry.gentler), ("stronger", entry.stronger)):
        if option is not None:
            _check_line(option.line, key, entry, wrong)
    return entry


def _as_movement(name: str, path: Path, table: Table, lines: Table, wrong: Wrong, family: str) -> Table:
    """A table with its short forms (`full | short | bare`, rhythms, options) as a movement has them."""

    def parted(key: str, text: object) -> Wordings:
        if not isinstance(text, str):
            raise wrong(key, "a line is text in quotes.", f'Write it as {key} = "...".')
        if not (wordings := parse_wordings(text)):
            raise wrong(key, "a line says nothing.", "Write it, or take it out.")
        return wordings

    fields = {key: value for key, value in table.items() if not key.endswith("_is")}
    for key in ("gentler", "stronger"):
        if key in table:
            fields[key] = {"line": parted(key, table[key]), "movement": table.get(f"{key}_is", "")}
    if isinstance(table.get("flow_from"), dict):
        fields["flow_from"] = {base: parted("flow_from", text) for base, text in table["flow_from"].items()}
    for key in ("start", "end"):
        fields |= {key: ONCE.get(table[key], table[key])} if isinstance(table.get(key), str) else {}
    if "talk" in fields:
        fields["card"] = fields.pop("talk")
    if isinstance(table.get("otherwise"), list):
        ways = [_several(way) for way in table["otherwise"]]
        if any(len(way) != len(_several(lines.get("say"))) for way in ways):
            raise wrong("otherwise", "one way to tell it has more lines than another.", "Give each as many.")
        fields["otherwise"] = [[parted("otherwise", text) for text in way] for way in ways]
    if "figure" in table:
        fields["figure"] = _several(table["figure"])
    for key in ("rhythm", "stages"):
        if key in table:
            found = [_rhythm(text, key, wrong) for text in _several(table[key])]
            if not found:
                raise wrong(key, f"its {key} are none.", "Write it, or take the field out.")
            fields[key] = found[0] if key == "rhythm" else found
    parted_lines = {key: [parted(key, text) for text in _several(value)] for key, value in lines.items()}
    return {"family": family, **fields, "id": name, "source": str(path), "lines": parted_lines}


def _several(value: object) -> list[object]:
    return value if isinstance(value, list) else [value]


def _check_line(line: Wordings, key: str, entry: Movement, wrong: Wrong) -> None:
    text = " | ".join(line)
    for token in tokens(text):
        if token not in LINE_TOKENS:
            raise wrong(key, f"{{{token}}} in {text!r} can't be filled.", "Use {side}, {other} or {name}.")
        if token in SIDE_TOKENS and entry.sides != "one":
            raise wrong(
                key, f"{text!r} names a side, but the movement has none.", 'Reword it, or set sides = "one".'
            )
    for wording in line:
        if len(wording.split()) > LONGEST_LINE:
            raise wrong(
                key, f"{wording[:40]!r}... has more than {LONGEST_LINE} words.", "Make two lines of it."
            )


def _rhythm(text: object, key: str, wrong: Wrong) -> Rhythm:
    if not isinstance(text, str):
        raise wrong(key, "a rhythm is text in quotes.", 'Write it as "exhale 4 inhale 4".')
    try:
        return parse_rhythm(text)
    except Problem as problem:
        raise wrong(key, problem.what, problem.do) from problem


def _check_references(library: dict[str, Movement], problems: list[Problem]) -> None:
    """Reports every movement named by another that isn't there; the reference is left out."""
    for movement in list(library.values()):
        for key in ("prepared_by", "neutralised_by", "follows"):
            missing = [name for name in getattr(movement, key) if name not in library]
            if missing:
                problems.append(_missing(movement, key, missing[0]))
                kept = tuple(name for name in getattr(movement, key) if name in library)
                library[movement.id] = movement = msgspec.structs.replace(movement, **{key: kept})
        for key in ("gentler", "stronger"):
            option = getattr(movement, key)
            if option is not None and option.movement and option.movement not in library:
                problems.append(_missing(movement, f"{key}_is", option.movement))
                alone = msgspec.structs.replace(option, movement="")
                library[movement.id] = movement = msgspec.structs.replace(movement, **{key: alone})


def _check_names(library: Library, problems: list[Problem]) -> None:
    """Reports every name that two movements go by; the first keeps it."""
    for movement, name, owner in shared_names(library):
        problems.append(
            Problem(
                f"{movement.id}: {name!r} is already a name of {owner.id}.",
                _line(Path(movement.source), movement.id, "name" if name == movement.name else "aliases"),
                "Give one of them another; until then it means the first.",
            )
        )


def _missing(movement: Movement, key: str, name: str) -> Problem:
    return Problem(
        f"{movement.id}: {key} names {name!r}, which is not in the library.",
        _line(Path(movement.source), movement.id, key),
        "Correct the id or take it out; the movement is loaded without it.",
    )


def _line(path: Path, name: str, key: str = "") -> str:
    """`file, line n` of a movement's table, or of a field in it; read again only when something is wrong."""
    try:
        text = path.read_text(encoding="utf-8").splitlines()
    except OSError:
        return str(path)
    inside = 0
    for number, line in enumerate(text, 1):
        if re.match(rf"\[\s*[\"']?{re.escape(name)}[\"']?\s*\]", line):
            inside = number
        elif line.startswith("[") and inside:
            break
        elif inside and key and re.match(rf"\s*{re.escape(key)}\s*=", line):
            return f"{path}, line {number}"
    return f"{path}, line {inside or 1}"
