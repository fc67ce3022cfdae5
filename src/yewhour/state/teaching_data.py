"""Everything a class is made with, loaded once."""

from pathlib import Path

from msgspec import structs

from yewhour.content.block_files import load_blocks
from yewhour.content.card_files import with_cards
from yewhour.content.content_cache import (
    CachedContent,
    content_stamps,
    read_content_cache,
    write_content_cache,
)
from yewhour.content.movement_files import load_library
from yewhour.content.paths import DATA
from yewhour.content.telling_files import tellings_but
from yewhour.content.terms import (
    Terms,
    load_conditions,
    load_positions,
    load_rules,
    load_schools,
    load_terms,
    load_voice,
    load_wording,
)
from yewhour.core.library.cue_interpreter import cue_interpreter_from
from yewhour.core.library.movement import Library
from yewhour.core.plan.nodes import Blocks
from yewhour.core.problem import Problem
from yewhour.core.teaching_data import TeachingData
from yewhour.files.toml_files import give_tables, read_toml
from yewhour.state.paths import own_data
from yewhour.voice.line_timing import LineTimer
from yewhour.voice.numbers import number_word

TABLES = (
    "positions.toml", "terms.toml", "cautions.toml", "groups.toml", "schools.toml", "wording.toml",
    "checks.toml", "ear.toml", "body.toml", "voice/voice.toml",
)  # fmt: skip


def _shipped(ready: CachedContent | None, terms: Terms) -> tuple[Library, Blocks, list[Problem]]:
    """The library and blocks that ship, and what is wrong with them, which is nothing as they shipped."""
    if ready is not None:
        return ready.library, ready.blocks, []
    bare, problems = load_library([DATA / "movements"], terms)
    library = with_cards(bare, DATA / "cards", terms.facets.names, problems)
    blocks, troubles = load_blocks([DATA / "blocks"], library)
    return library, blocks, problems + troubles


def _with_shipped_cards(library: Library, shipped: Library) -> Library:
    """Her movements with the cards of those they stand for, where she has changed none of their lines."""
    if library is shipped:  # nothing is hers, and none need be read for it
        return library
    cards = {
        name: structs.replace(one, card=card)
        for name, one in library.items()
        if one.card is None and name in shipped and one.lines == shipped[name].lines
        and (card := shipped[name].card) is not None
    }  # fmt: skip
    return {**library, **cards} if cards else library


def _changed(library: Library, shipped: Library) -> frozenset[str]:
    return frozenset(name for name, one in library.items() if shipped.get(name) is not one)


def load_teaching_data(own: Path | None = None) -> tuple[TeachingData, list[Problem]]:
    """The data that ships and the teacher's own movements over it, and what was wrong with hers."""
    stamps = content_stamps()
    ready = read_content_cache(stamps)
    give_tables(ready.tables if ready is not None else {})
    positions, unclear = load_positions(own or own_data())
    terms = load_terms(positions)
    shipped, ready_blocks, problems = _shipped(ready, terms)
    if ready is None and not unclear + problems:
        tables = {str(DATA / name): read_toml(DATA / name) for name in TABLES}
        write_content_cache(shipped, ready_blocks, tables, stamps)
    library, hers = load_library([(own or own_data()) / "movements"], terms, shipped)
    library = _with_shipped_cards(library, shipped)
    problems += hers
    whom = {name: caution.whom for name, caution in terms.cautions.items()}
    blocks, troubles = load_blocks([(own or own_data()) / "blocks"], library, ready_blocks)
    changed = frozenset() if library is shipped else _changed(library, shipped)
    words = TeachingData(
        library,
        load_schools(),
        positions,
        load_wording(),
        blocks,
        load_rules(),
        whom,
        LineTimer(load_voice()),
        number_word,
        cue_interpreter_from(read_toml(DATA / "ear.toml")),
        terms.facets,
        frozenset(terms.props),
        {name: caution.watch for name, caution in terms.cautions.items() if caution.watch},
        load_conditions(terms),
        tellings_but(changed),
    )
    return words, unclear + problems + troubles
