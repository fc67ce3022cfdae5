"""Why: for each movement of a draft what speaks for it, in a sentence; and what was turned down, and why."""

from collections.abc import Iterator, Mapping

from yewhour.core.draft.choices import DraftChoice
from yewhour.core.draft.draft import Draft
from yewhour.core.draft.draft_model import DraftModel
from yewhour.core.library.movement import Library
from yewhour.core.teaching_data import TeachingData

MOST_REASONS = 2
SAID = ("focus", "prop")  # reasons that answer with her own words
SHOWN = 6  # movements that were turned down, of each reason


def sentence(
    choice: DraftChoice,
    library: Library,
    areas: Mapping[str, str],
    model: DraftModel,
    said: Mapping[str, str] = {},
) -> str:
    """Why a movement is where it is. said: her own words for areas: `because you said "tight hips"`."""
    name = library[choice.movement].name if choice.movement in library else choice.movement
    name = name[:1].upper() + name[1:]
    told: dict[str, str] = {}  # code -> what is told; of one kind the first
    for code, word in choice.reasons:
        if code in model.why and not (code == "warms" and word in model.unsaid):
            words = model.why[code].format(word=areas.get(word, word))
            if code in SAID and word in said:
                words = f"{words}, because you said \u201c{said[word]}\u201d"
            told.setdefault("warm" if code == "warms" else code, words)
    parts = list(told.values())[:MOST_REASONS]
    return f"{name}: {', and '.join(parts) or model.why['else']}."


def turned_down(
    draft: Draft, teaching_data: TeachingData, model: DraftModel, said: Mapping[str, str] = {}
) -> Iterator[str]:
    """What was turned down, by its reason in her own words, the commonest first. What is of another style is
    not told."""
    library, groups = teaching_data.library, teaching_data.conditions.groups
    by: dict[str, list[str]] = {}
    for name, why in draft.turned_down.items():
        if why[0] in model.why_not and name in library:
            word = groups[why[1]].name if why[1] in groups else teaching_data.cautions.get(why[1], why[1])
            because = f", because you said \u201c{said[why[1]]}\u201d" if why[1] in said else ""
            reason = f"{model.why_not[why[0]].format(word=word)}{because}"
            by.setdefault(reason, []).append(library[name].name)
    for reason, names in sorted(by.items(), key=lambda row: (-len(row[1]), row[0])):
        more = f" and {len(names) - SHOWN} more" if len(names) > SHOWN else ""
        yield f"{reason}: {', '.join(names[:SHOWN])}{more}."


def reasons_told(
    draft: Draft, teaching_data: TeachingData, areas: Mapping[str, str], model: DraftModel
) -> Iterator[str]:
    """All of it, line by line."""
    said = draft.plan.brief.said
    for choice in draft.choices:
        yield sentence(choice, teaching_data.library, areas, model, said)
    yield from turned_down(draft, teaching_data, model, said)
