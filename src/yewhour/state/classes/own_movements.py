"""The teacher's own movements: one file of hers, over the library that ships."""

import re
import unicodedata
import zlib
from functools import lru_cache
from pathlib import Path
from typing import TYPE_CHECKING, Any, NamedTuple

import msgspec

from yewhour.content.movement_files import movement_of
from yewhour.content.paths import DATA
from yewhour.content.terms import Terms
from yewhour.core.library.card import LISTS, OTHER_WAYS, SINGLE
from yewhour.core.library.movement import Library, Movement
from yewhour.core.plan.nodes import LineEdit
from yewhour.core.problem import Problem
from yewhour.core.purpose import LINE_PURPOSES
from yewhour.core.sides import fill
from yewhour.core.wording.directions import tokenised
from yewhour.files.atomic_files import make_folder, write_whole
from yewhour.files.late import late
from yewhour.files.toml_files import Table, read_toml
from yewhour.state.paths import own_data

if TYPE_CHECKING:
    import tomlkit
else:
    tomlkit = late("tomlkit")  # 10 ms; only a change of her own movements needs it

# What the tokens of a line stand for in a preview; in a class they are filled from it.
SAMPLE = {"breath": "inhale", "n": "three", "prop": "block", "title": "this class", "audience": "everyone"}


def own_file() -> Path:
    """The file her movements are written to."""
    return own_data() / "movements" / "mine.toml"


class OwnMovement(NamedTuple):
    """A movement as it stands in her file; table None: it doesn't."""

    name: str
    table: Table | None


def id_for(name: str) -> str:
    """The id of a movement with this name: small letters, digits and hyphens.

    A name in other letters than these has an id of its own by a number made from it.
    """
    plain = unicodedata.normalize("NFKD", name.casefold()).encode("ascii", "ignore").decode()
    return re.sub(r"[^a-z0-9]+", "-", plain).strip("-") or f"movement-{zlib.crc32(name.encode())}"


def table_of(movement: Movement) -> Table:
    """A movement's table as it is written in its file. Raises Problem when that can't be read."""
    path = Path(movement.source)
    table = read_toml(path, "Mend that file first; it is kept as it is.").get(movement.id)
    if not isinstance(table, dict):
        raise Problem(f"{movement.name} is not in its file any more.", str(path), "Start the program again.")
    if movement.card is not None and "talk" not in table:  # it ships in a file of its own
        table = {**table, "talk": msgspec.to_builtins(movement.card)}
    return table


def checked(name: str, table: Table, terms: Terms) -> Movement:
    """The movement a table describes. Raises Problem for what is wrong in it."""
    return movement_of(name, table, own_file(), terms)


def write_own(name: str, table: Table, terms: Terms) -> Movement:
    """Puts a movement into her file, in place of an earlier one with its id.

    Raises Problem, and writes nothing, when something in it is wrong or the file can't be written.
    """
    movement = checked(name, table, terms)
    _put(name, table)
    return movement


def kept_on_card(movement: Movement, edit: LineEdit, side: str, terms: Terms) -> Movement:
    """Her movement, with the words of an edit on its card in place of the line that they stood for.

    side: that they are said on, so that the card says them of either. Raises Problem, and writes nothing,
    for a movement without a card or a line that no card has.
    """
    table = table_of(movement)
    talk = dict(table.get("talk", {}))
    if not talk or edit.purpose not in (*LISTS, *SINGLE):
        raise Problem(
            f"{movement.name} has no place on its card for this line.",
            do="It is kept in this class as it is.",
        )
    sided = side in ("left", "right")
    text = tokenised(edit.text, side) if sided else edit.text
    ways = talk.pop(OTHER_WAYS.get(edit.purpose, ""), ())
    if edit.purpose in SINGLE:
        talk[edit.purpose] = text
    else:
        which: Any = side if sided else "both"
        texts, at = list(talk.get(edit.purpose, [])), None
        for way in (texts, *ways):
            same = (at for at, one in enumerate(way) if fill(one, which, name=movement.name) == edit.was)
            if (at := next(same, None)) is not None:
                texts = list(way)
                break
        talk[edit.purpose] = [text, *texts] if at is None else [*texts[:at], text, *texts[at + 1 :]]
    return write_own(movement.id, {**table, "talk": talk}, terms)


def own_movement(name: str) -> OwnMovement:
    """A movement as it stands in her file now. Raises Problem when that file can't be read."""
    path = own_file()
    there = read_toml(path, "Mend that file first; it is kept as it is.") if path.exists() else {}
    table = there.get(name)
    return OwnMovement(name, dict(table) if isinstance(table, dict) else None)


def put_back(was: OwnMovement) -> None:
    """Makes a movement stand in her file as it did. Raises Problem when the file can't be written."""
    if was.table is not None or own_file().exists():
        _put(was.name, was.table)


def forget_own(name: str) -> None:
    """Takes a movement out of her file; one that ships is then as it ships again."""
    if own_file().exists():
        _put(name, None)


def is_own(movement: Movement) -> bool:
    """Whether a movement is in her own file."""
    return Path(movement.source) == own_file()


@lru_cache(1)
def _shipped_names() -> frozenset[str]:
    files = (DATA / "movements").rglob("*.toml")
    return frozenset(name for path in files for name in read_toml(path))


def ships(name: str) -> bool:
    """Whether a movement of this id ships with the program, whatever she made of it."""
    return name in _shipped_names()


def _put(name: str, table: Table | None) -> None:
    """Changes one table of her file; her comments, and the other tables, stay as they are."""
    path = own_file()
    if path.exists():
        read_toml(path, "Mend that file first; it is kept as it is.")
    text = path.read_text(encoding="utf-8") if path.exists() else ""
    make_folder(path.parent)
    write_whole(path, with_table(text, name, table).encode())


def with_table(text: str, name: str, table: Table | None) -> str:
    """The text of a file with one table put in or replaced (None takes it out); comments and order stay."""
    document = tomlkit.parse(text)
    document.pop(name, None) if table is None else document.update({name: table})
    return tomlkit.dumps(document)


def lines_text(table: Table) -> str:
    """A table's lines as a teacher writes them: `call: full | short`, one a line."""
    result = []
    for purpose in LINE_PURPOSES:
        texts = table.get(purpose, [])
        result += [f"{purpose}: {text}" for text in ([texts] if isinstance(texts, str) else texts)]
    return "\n".join(result)


def read_lines(text: str) -> Table:
    """The other way round. Raises Problem for a line without a purpose that exists."""
    found: dict[str, list[str]] = {}
    for number, line in enumerate(text.splitlines(), 1):
        if not line.strip():
            continue
        purpose, colon, words = line.partition(":")
        if not colon or purpose.strip() not in LINE_PURPOSES:
            raise Problem(
                f"{line.strip()[:40]!r} does not say what it is for.",
                f"lines, line {number}",
                f"Begin it with one of: {', '.join(LINE_PURPOSES)}, and a colon.",
            )
        found.setdefault(purpose.strip(), []).append(words.strip())
    return found


def spoken_on(movement: Movement, side: str, library: Library) -> list[tuple[str, str]]:
    """(purpose, line) of everything a movement says, in its full wording, on one side."""
    which: Any = side
    gentler = [("option", movement.gentler.line[0])] if movement.gentler else []
    lines = [(purpose, line[0]) for purpose, found in movement.lines.items() for line in found]
    return [
        (purpose, fill(text, which, name=movement.name, **SAMPLE)) for purpose, text in [*lines, *gentler]
    ]
