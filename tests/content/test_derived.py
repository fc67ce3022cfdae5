"""What docs/ derives from code and data is as the code and the data are."""

import importlib.util

import msgspec

from tests.conftest import ROOT, shipped
from yewhour.content.paths import DATA, demo_classes
from yewhour.state.classes.migrate import MIGRATIONS, VERSION
from yewhour.voice.line_timing import _WORD
from yewhour.voice.syllables import _look_up


def make_docs():
    spec = importlib.util.spec_from_file_location("make_docs", ROOT / "tools/make_docs.py")
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


def test_the_schema_is_that_of_the_code():
    assert (ROOT / "docs/class.schema.json").read_bytes() == make_docs().schema()


def test_the_keys_are_those_of_the_window():
    assert (ROOT / "docs/keys.md").read_text() == make_docs().keys()


def test_the_cautions_are_those_of_the_data():
    assert (ROOT / "docs/cautions.md").read_text() == make_docs().cautions()


def test_the_script_in_the_docs_is_as_it_is_spoken():
    assert (ROOT / "docs/a-script.md").read_text() == make_docs().one_script(), "run tools/make_docs.py"


def test_the_twigs_of_the_demo_classes_are_those_of_the_classes():
    assert (DATA / "sheets.json").read_bytes() == make_docs().sheets(), "run tools/make_docs.py"


def test_every_field_of_a_demo_is_in_the_schema():
    names = set()
    for part in msgspec.json.decode(make_docs().schema())["$defs"].values():
        names |= set(part.get("properties", {}))

    def fields(value):
        if isinstance(value, dict):
            for key, inner in value.items():
                if key not in ("blocks", "ways", "lines"):
                    assert key in names, key
                    fields(inner)
        elif isinstance(value, list):
            for inner in value:
                fields(inner)

    for path in demo_classes():
        fields(msgspec.json.decode(path.read_bytes()))


def test_there_is_a_migration_from_every_earlier_version():
    assert set(MIGRATIONS) == set(range(1, VERSION))


def test_every_school_and_caution_is_described():
    schools = (ROOT / "docs/schools.md").read_text()
    for school in shipped().schools:
        assert school in schools


def test_no_word_that_ships_needs_the_hyphen_dictionary_at_start():
    missing = {
        word
        for path in [*(DATA / "movements").glob("*.toml"), DATA / "wording.toml"]
        for word in _WORD.findall(path.read_text())
        for word in word.lower().split("-")
        if word.isascii() and not _look_up(word.encode())
    }
    assert missing == set(), "run tools/make_spoken.py"
