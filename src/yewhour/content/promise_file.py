"""The words of a promise, and the reader made with them."""

from functools import cache
from pathlib import Path

import msgspec

from yewhour.content.paths import DATA
from yewhour.content.terms import load_terms
from yewhour.core.problem import Problem
from yewhour.core.promise.reader import PromiseReader
from yewhour.core.promise.vocabulary import Lexicon, PromiseVocabulary
from yewhour.core.teaching_data import TeachingData
from yewhour.files.toml_files import read_toml


@cache
def load_vocabulary(data: Path = DATA) -> PromiseVocabulary:
    """The vocabulary. Raises Problem, with the place, where its file can't be read."""
    path = data / "promise.toml"
    try:
        return msgspec.convert(read_toml(path), PromiseVocabulary)
    except msgspec.ValidationError as error:
        raise Problem(f"The words of a promise can't be read: {error}.", str(path), "Mend it.") from error


@cache
def common_words(data: Path = DATA) -> frozenset[str]:
    """The English words of every day, of five letters and more, without a plural's s (SCOWL, size 35)."""
    return frozenset((data / "words.txt").read_text(encoding="ascii").split())


def promise_reader(teaching_data: TeachingData) -> PromiseReader:
    """A reader of promises by the vocabulary that ships and by a library."""
    areas = load_terms(teaching_data.positions).areas
    lexicon = Lexicon(load_vocabulary(), teaching_data, areas, common_words)
    return PromiseReader(lexicon, teaching_data, areas)
