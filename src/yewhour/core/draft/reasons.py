"""Why: for each movement of a draft what speaks for it, in a sentence; and what was turned down, and why."""

from collections.abc import Iterator, Mapping

from yewhour.core.draft.choices import DraftChoice
from yewhour.core.draft.draft import Draft
from yewhour.core.draft.draft_model import DraftModel
from yewhour.core.library.movement import Library

MOST_REASONS = 2
SHOWN = 6  # movements that were turned down, of each reason


def sentence(choice: DraftChoice, library: Library, areas: Mapping[str, str], model: DraftModel) -> str:
    """Why a movement is where it is."""
    name = library[choice.movement].name if choice.movement in library else choice.movement
    name = name[:1].upper() + name[1:]
    said: dict[str, str] = {}  # code -> what is said; of one kind the first
    for code, word in choice.reasons:
        if code in model.why and not (code == "warms" and word in model.unsaid):
            words = model.why[code].format(word=areas.get(word, word))
            said.setdefault("warm" if code == "warms" else code, words)
    parts = list(said.values())[:MOST_REASONS]
    return f"{name}: {', and '.join(parts) or model.why['else']}."


def turned_down(draft: Draft, library: Library, model: DraftModel) -> Iterator[str]:
    """What was turned down, by its reason, the commonest first; what is of another style is not told."""
    by: dict[str, list[str]] = {}
    for name, why in draft.turned_down.items():
        if why[0] in model.why_not and name in library:
            said = model.why_not[why[0]].format(word=why[1])
            by.setdefault(said, []).append(library[name].name)
    for said, names in sorted(by.items(), key=lambda row: (-len(row[1]), row[0])):
        more = f" and {len(names) - SHOWN} more" if len(names) > SHOWN else ""
        yield f"{said}: {', '.join(names[:SHOWN])}{more}."


def reasons_told(
    draft: Draft, library: Library, areas: Mapping[str, str], model: DraftModel
) -> Iterator[str]:
    """All of it, line by line."""
    for choice in draft.choices:
        yield sentence(choice, library, areas, model)
    yield from turned_down(draft, library, model)
