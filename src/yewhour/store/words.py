"""Everything a class is made with, loaded once."""

from pathlib import Path

from yewhour.core.problem import Problem
from yewhour.core.words import Words
from yewhour.store.blocks import load_blocks
from yewhour.store.library import load_library
from yewhour.store.paths import DATA, own_data
from yewhour.store.terms import load_positions, load_rules, load_schools, load_terms, load_voice, load_wording
from yewhour.voice.numbers import number_word
from yewhour.voice.speaking import Speaker


def load_words(own: Path | None = None) -> tuple[Words, list[Problem]]:
    """The data that ships and the teacher's own movements over it, and what was wrong with hers."""
    positions = load_positions()
    terms = load_terms(positions)
    library, problems = load_library([DATA / "movements", (own or own_data()) / "movements"], terms)
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
    )
    return words, problems + troubles
