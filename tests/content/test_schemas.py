"""The schemas of data files: as the types are, and every file that ships is in order by them."""

import jsonschema
import msgspec
import pytest
import rtoml

from tests.conftest import ROOT
from tools.schemas import schemas
from yewhour.content.paths import DATA
from yewhour.content.terms import load_terms_file
from yewhour.core.props import PROPS

KINDS = schemas()


def files_of(kind):
    if kind in ("movements", "cards", "told_to"):
        return sorted((DATA / kind).rglob("*.toml"))
    return [DATA / "voice/voice.toml" if kind == "voice" else DATA / f"{kind}.toml"]


@pytest.mark.parametrize("kind", KINDS)
def test_what_ships_is_in_order(kind):
    assert (ROOT / f"docs/schemas/{kind}.schema.json").read_bytes() == KINDS[kind]
    checked = jsonschema.Draft202012Validator(msgspec.json.decode(KINDS[kind]))
    for path in files_of(kind):
        assert [f"{path.name}: {error.message[:99]}" for error in checked.iter_errors(rtoml.load(path))] == []


def test_every_kind_of_data_file_has_one():
    kinds = {path.stem for path in DATA.glob("*.toml")} | {"movements", "cards", "told_to", "voice"}
    assert kinds == set(KINDS)


def test_a_file_of_movements_names_its_family():
    for path in files_of("movements"):
        assert rtoml.load(path)["family"] in load_terms_file().families


def test_every_prop_has_its_row_and_its_name():
    assert set(PROPS) == set(load_terms_file().props)
