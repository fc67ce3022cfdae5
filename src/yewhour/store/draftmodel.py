"""The model that classes are drafted by."""

from functools import cache
from pathlib import Path

import msgspec

from yewhour.core.draft.model import Model
from yewhour.core.problem import Problem
from yewhour.store.paths import DATA
from yewhour.store.toml import read_toml


@cache
def load_model(data: Path = DATA) -> Model:
    """The model. Raises Problem, with the place, where its file can't be read."""
    path = data / "draft.toml"
    try:
        return msgspec.convert(read_toml(path), Model)
    except msgspec.ValidationError as error:
        raise Problem(f"The model can't be read: {error}.", str(path), "Mend it.") from error
