"""Writes what docs/ derives from the code and the data: the schema of class files, the keys, the cautions."""

import argparse
from pathlib import Path

import msgspec

from tools.package import third_party
from tools.schemas import schemas
from yewhour import __version__
from yewhour.content.paths import DATA, FIRST_DEMO, demo_classes
from yewhour.content.terms import load_conditions, load_positions, load_terms
from yewhour.core.export.reading import markdown
from yewhour.core.pipeline import solve
from yewhour.core.plan.plan import Plan
from yewhour.core.shelf.class_sheet import sheet_of
from yewhour.state.classes.class_file import read_plan
from yewhour.state.classes.migrate import VERSION
from yewhour.state.teaching_data import load_teaching_data

DOCS = Path(__file__).resolve().parent.parent / "docs"


def schema() -> bytes:
    """The JSON Schema of a class file."""
    timed = msgspec.json.schema(Plan)
    plan = timed["$defs"]["Plan"]
    plan["properties"] = {
        "yewhour": {"type": "integer", "minimum": 1, "maximum": VERSION},
        **plan["properties"],
    }
    plan["required"] = ["yewhour"]
    for part in timed["$defs"].values():  # `extra` is how the program holds fields it does not know
        part.get("properties", {}).pop("extra", None)
    head = {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "A class of Yew Hour"}
    return msgspec.json.format(msgspec.json.encode({**head, **timed}), indent=1) + b"\n"


def keys() -> str:
    """docs/keys.md."""
    from yewhour.ui.kit.commands import COMMANDS
    from yewhour.ui.take.take_keys import COMMANDS as TAKE

    lines = [
        "# Everything you can do, and its keys",
        "",
        "Made from `ui/kit/commands.py` by tools/make_docs.py. F1 shows the same list; type part of a line",
        "there and press Enter, and it is done. Single letters work on the sprig, or in the script, while it",
        "has the focus.",
        "",
        "On the sprig, up and down choose (with Shift, more than one), left goes out to the pair, rounds or",
        "part that something stands in, right goes in; Home and End go to the ends, and the page keys move",
        "along.",
    ]
    menu = ""
    for command in COMMANDS:
        if command.menu != menu:
            menu = command.menu
            lines += ["", f"## {menu}", "", "| what | keys | |", "|---|---|---|"]
        where = {"sprig": "on the sprig: ", "script": "in the script: "}.get(command.at, "")
        shown = ", ".join(f"`{key}`" for key in command.keys)
        lines.append(f"| {command.title.rstrip('…')} | {where if shown else ''}{shown} | {command.about} |")
    lines += ["", "## In a take", ""]
    lines += [
        "A press of the pointer goes on, the other button gives one more. A key that does nothing yet is"
    ]
    lines += ["taught by pressing it and then the key whose deed it should do; K teaches one that does.", ""]
    lines += ["| what | keys |", "|---|---|"]
    lines += [
        f"| {one.title[0].upper()}{one.title[1:]} | {', '.join(f'`{key}`' for key in one.keys)} |"
        for one in TAKE
    ]
    return "\n".join(lines) + "\n"


def man_page() -> str:
    """The man page, from the commands as the program has them."""
    from yewhour.cli.main import command_line

    told = command_line()
    commands = next(one for one in told._actions if isinstance(one, argparse._SubParsersAction))
    about = {one.dest: one.help or "" for one in commands._choices_actions}
    rows = [
        f'.TH YEWHOUR 1 "" "Yew Hour {__version__}" "User commands"',
        ".SH NAME", "yewhour \\- times and words guided yoga and Pilates classes",
        ".SH SYNOPSIS", ".B yewhour", ".I COMMAND", "[...]",
        ".SH DESCRIPTION", _roff(told.description or ""),
        "It times and words a class; it does not clear anyone to take it: work without pain, and ask "
        "a doctor or a qualified teacher if unsure.",
        ".SH COMMANDS",
    ]  # fmt: skip
    for name, one in commands.choices.items():
        rows += [".TP", f".B {_roff(name)}", _roff(about.get(name, "")) + "."]
        for option in one._actions:
            if option.option_strings and option.help and "show this help" not in option.help:
                shown = " ".join([option.option_strings[-1], option.metavar or ""]).strip()
                rows += [".br", f"\\fB{_roff(shown)}\\fR: {_roff(option.help)}"]
    rows += [
        ".SH EXIT STATUS", "0 done; 1 the class can't be what was asked; 2 bad usage, or a file that "
        "can't be read or written; 130 stopped.",
        ".SH FILES", ".I ~/.local/share/yewhour", "kept classes, takes, your own movements", ".br",
        ".I ~/.local/state/yewhour/yewhour.log", "what happened lately",
    ]  # fmt: skip
    return "\n".join(rows) + "\n"


def _roff(words: str) -> str:
    return words.replace("\\", "\\\\").replace("-", "\\-").replace("%%", "%")


def cautions() -> str:
    """docs/cautions.md."""
    lines = [
        "# Cautions",
        "",
        "Yew Hour times and words a class; it does not clear anyone to take it. The brief lists who may",
        "be in the room. Movements carry the tags they matter for (`cautions = [...]` in data/movements).",
        "Where the two meet, the movement's caution line is said on the way into it, before the movement,",
        "and the gentler way is the one offered. Nobody is ranked and nothing is diagnosed. Health",
        "questions belong to a doctor or a qualified teacher, and the welcome says so.",
        "",
        "A movement that has no caution line of its own says its gentler way in that place.",
        "",
        "A condition is a rule as well: what it leaves out is in no draft, in nothing that mends, in no",
        "choice that is spoken. A class made by hand keeps what its teacher put there; those it may not",
        "be for are spoken to first, and a finding stays. Where schools differ, the stricter way stands.",
        "",
        "Made from data/cautions.toml and data/groups.toml by tools/make_docs.py.",
        "",
        "| tag | who | what is kept in mind | what usually helps |",
        "|---|---|---|---|",
    ]
    terms = load_terms(load_positions()[0])
    groups = load_conditions(terms).groups
    for tag, caution in terms.cautions.items():
        lines.append(f"| `{tag}` | {caution.name} | {caution.about} | {caution.watch} |")
    lines += ["", "## What is left out", "", "| tag | left out | said once | source |", "|---|---|---|---|"]
    for tag, caution in terms.cautions.items():
        also = [f"all of `{one}`" for one in caution.also]
        out = [groups[one].name if one in groups else one.replace("-", " ") for one in caution.out]
        lines.append(f"| `{tag}` | {'; '.join((*also, *out))} | {caution.said} | {caution.source} |")
    lines += [
        "",
        "## What a class can do without",
        "",
        "| group | as a promise says it | movements |",
        "|---|---|---|",
    ]
    library = load_teaching_data(Path("/nonexistent"))[0].library
    for group in groups.values():
        if group.words:
            number = sum(group.has(one) for one in library.values())
            lines.append(f"| {group.name} | {', '.join(group.words[:4])} | {number} |")
    return "\n".join(lines) + "\n"


def sheets() -> bytes:
    """data/sheets.json: the demo classes as the first page and the shelf show them."""
    words, _ = load_teaching_data(Path("/nonexistent"))
    found = {}
    for path in demo_classes():
        found[path.stem] = sheet_of(solve(read_plan(path), words).make())
    return msgspec.json.encode(found) + b"\n"


def one_script() -> str:
    """docs/a-script.md: the first demo class as it is spoken."""
    words, _ = load_teaching_data(Path("/nonexistent"))
    return markdown(solve(read_plan(FIRST_DEMO), words).make())


if __name__ == "__main__":
    (DOCS / "a-script.md").write_text(one_script(), encoding="utf-8")
    (DATA / "sheets.json").write_bytes(sheets())
    (DOCS / "class.schema.json").write_bytes(schema())
    (DOCS / "schemas").mkdir(exist_ok=True)
    for name, content in schemas().items():
        (DOCS / "schemas" / f"{name}.schema.json").write_bytes(content)
    (DOCS / "keys.md").write_text(keys(), encoding="utf-8")
    (DOCS / "cautions.md").write_text(cautions(), encoding="utf-8")
    (DATA / "desktop" / "yewhour.1").write_text(man_page(), encoding="utf-8")
    third_party.main()
