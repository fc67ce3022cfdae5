"""The sheet of a class: what the shelf knows of it without making it again."""

import msgspec
import pytest

from tests.conftest import demo_maker
from yewhour.core.shelf.class_sheet import ClassSheet, sheet_of


@pytest.mark.parametrize("name", ["bell-ringers", "sail-loft-mat", "lamps-out"])
def test_a_sheet_adds_up_to_what_is_done(name):
    timed = demo_maker(name).make()
    sheet = sheet_of(timed)
    done_s = sum(one.length for one in timed.segments if one.kind not in ("talk", "setup", "stillness")) / 10
    assert sum(sheet.movements.values()) == pytest.approx(done_s, abs=0.5)
    assert sum(sheet.effort) == pytest.approx(done_s, abs=0.5)
    assert sum(sheet.bases.values()) == pytest.approx(done_s, abs=0.5)
    assert sheet.length_s == timed.length_s
    assert all(0 < each_s <= done_s for each_s in (*sheet.works.values(), *sheet.opens.values()))
    assert 0 < sheet.strong < 5


def test_a_class_about_something_shows_it():
    sheet = sheet_of(demo_maker("hips-after-the-helm").make())
    ranked = sorted(sheet.opens, key=lambda area: -sheet.opens[area])
    assert "hips" in ranked[:2]


def test_it_is_kept_as_json_and_comes_back():
    sheet = sheet_of(demo_maker("bell-ringers").make())
    assert msgspec.json.decode(msgspec.json.encode(sheet), type=ClassSheet) == sheet


def test_nothing_done_is_no_effort():
    assert ClassSheet(title="Empty").strong == 0
