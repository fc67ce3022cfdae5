"""Everything a class is made with, loaded once."""

from pathlib import Path

from yewhour.core.plan.hearing import ear_of
from yewhour.core.plan.movement import Library
from yewhour.core.problem import Problem
from yewhour.core.words import Words
from yewhour.store.blocks import load_blocks
from yewhour.store.library import load_library
from yewhour.store.paths import DATA, own_data
from yewhour.store.ready import make_ready, ready_library
from yewhour.store.terms import (
    Terms,
    load_positions,
    load_rules,
    load_schools,
    load_terms,
    load_voice,
    load_wording,
)
from yewhour.store.toml import read_toml
from yewhour.voice.numbers import number_word
from yewhour.voice.speaking import Speaker


def _shipped(terms: Terms) -> tuple[Library, list[Problem]]:
    """The library that ships, and what is wrong with it, which is nothing when it is as it shipped."""
    library = ready_library()
    if library is not None:
        return library, []
    library, problems = load_library([DATA / "movements"], terms)
    if not problems:
        make_ready(library)
    return library, problems


def load_words(own: Path | None = None) -> tuple[Words, list[Problem]]:
    """The data that ships and the teacher's own movements over it, and what was wrong with hers."""
    positions, unclear = load_positions(own or own_data())
    terms = load_terms(positions)
    shipped, problems = _shipped(terms)
    library, hers = load_library([(own or own_data()) / "movements"], terms, shipped)
    problems += hers
    whom = {name: caution.whom for name, caution in terms.cautions.items()}
    folders = [DATA / "blocks", (own or own_data()) / "blocks"]
    blocks, troubles = load_blocks(folders, library)
    words = Words(
        library,
        load_schools(),
        positions,
        load_wording(),
        blocks,
        load_rules(),
        whom,
        Speaker(load_voice()),
        number_word,
        ear_of(read_toml(DATA / "ear.toml")),
        frozenset(terms.props),
    )
    return words, unclear + problems + troubles
