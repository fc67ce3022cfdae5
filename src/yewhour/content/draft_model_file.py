"""The model that classes are drafted by."""

from functools import cache
from pathlib import Path

import msgspec

from yewhour.content.paths import DATA
from yewhour.core.draft.draft_model import DraftModel
from yewhour.core.problem import Problem
from yewhour.files.toml_files import read_toml


@cache
def load_model(data: Path = DATA) -> DraftModel:
    """The model. Raises Problem, with the place, where its file can't be read."""
    path = data / "draft.toml"
    try:
        return msgspec.convert(read_toml(path), DraftModel)
    except msgspec.ValidationError as error:
        raise Problem(f"The model can't be read: {error}.", str(path), "Mend it.") from error
