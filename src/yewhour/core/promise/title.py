"""The title of a class that was given none: what it is about, or of what kind it is, for whom, and when."""

import re
from collections.abc import Container, Mapping, Sequence

from yewhour.core.plan.plan import Brief
from yewhour.core.promise.grammar import ARTICLES, COMPANIES
from yewhour.core.teaching_data import TeachingData

_MANY = {
    "foot": "feet", "calf": "calves", "it band": "outer hips", "eye strain": "eyes",
    "eye strain from screens": "eyes",
}  # fmt: skip
TITLED = 44  # letters of a title that those who may be there have at most


def title_of(
    brief: Brief,
    areas: Mapping[str, str],
    teaching_data: TeachingData,
    called: str = "",
    known: Container[str] = (),
) -> str:
    """A title for a class that was given none: what it is about, or what kind of class it is, for whom, and
    when. An area that is only thought of for who comes is not what it is about.

    areas: what each area is called. called: the kind, where it has a name of its own. known: other words for
    areas: where she said one of them, it stands in the title.
    """
    schools, groups = teaching_data.schools, teaching_data.conditions.groups
    when = {"morning": "in the morning", "midday": "at midday", "evening": "in the evening",
            "night": "before sleep"}.get(brief.time_of_day, "")  # fmt: skip
    kind = called or (schools[brief.style].noun if brief.style in schools else "class")
    peak = teaching_data.library.get(brief.peak)
    there = brief.peak and not (peak and teaching_data.room(brief).left_out(peak))
    article = "an" if kind[0] in "aeiou" else "a"
    goal = f"{article} {kind}"
    goal += f" towards {_inside(brief.said.get(brief.peak, brief.peak))}" if there else ""
    wanted = [(brief.said.get(one, one), groups[one]) for one in brief.wanted if one in groups]
    if asked := [_inside(said) if said.lower() in group.words else group.name for said, group in wanted]:
        goal += f" with {_and(asked)}"
    minded = {*brief.cautions, brief.audience}
    named = [one for one in brief.focus if not {one, brief.said.get(one)} & minded]
    hers = {one: said for one in named if (said := brief.said.get(one, "").lower()) in known}
    # "glute class" is about glutes
    hers = {one: _several(said, known, one) for one, said in hers.items()}
    about = _and(list(dict.fromkeys(hers.get(one, areas.get(one, one)) for one in named))) or goal
    whoms = () if named else teaching_data.room(brief).whoms
    named_for = re.sub(r"['\u2019]s$", "s", brief.audience)  # "runner's cool down"
    if named_for.islower() and named_for.split()[-1] in COMPANIES and named_for.split()[0] not in ARTICLES:
        named_for = f"the {named_for}"
    whom = named_for or (whoms[0] if len(_and(whoms)) > TITLED else _and(whoms))
    told = f"for {whom}" if whom else ""
    ends = (told, when) if named_for else (when, told)  # nobody has "a hernia in the morning"
    return " ".join(part for part in (f"{about[:1].upper()}{about[1:]}", *ends) if part)


def _inside(said: str) -> str:
    """Her words inside a sentence, where they began one: "Backbends", but not "Warrior III"."""
    said = said.removesuffix(" prep")
    return said.lower() if said[:1] + said[1:].lower() == said else said


def _several(said: str, known: Container[str], area: str) -> str:
    """An area as it stands in a title, where one of two was said."""
    more = _MANY.get(said, f"{said}s")
    return more if more in known or more == area else said


def _and(names: Sequence[str]) -> str:
    return ", ".join(names[:-1]) + (" and " if len(names) > 1 else "") + names[-1] if names else ""
