"""Sixty promises from as many lives: read as a careful colleague would, and drafted as that says."""

import pytest

from tests.conftest import shipped
from tests.core.promise.promises import LIVES
from yewhour.content.draft_model_file import load_model
from yewhour.content.promise_file import promise_reader
from yewhour.core.draft.draft import draft_class
from yewhour.core.draft.draft_model import DraftRequest
from yewhour.core.promise.outcome import outcome_of


@pytest.fixture(scope="module")
def reader():
    return promise_reader(shipped())


def test_there_are_sixty():
    assert len(LIVES) >= 60
    assert len({life.words for life in LIVES}) == len(LIVES)


@pytest.mark.parametrize("life", LIVES, ids=lambda life: life.words)
def test_a_promise_is_read_and_the_class_has_what_it_must(life, reader):
    read = reader.read(life.words)
    if life.asks:
        assert read.question is not None
        assert f"\u201c{life.asks}\u201d" in read.question.what
        assert read.question.do
        return
    assert read.question is None
    for field, wanted in life.read.items():
        got = getattr(read.brief, field)
        if isinstance(wanted, tuple) and wanted:
            assert {*wanted} <= {*got}, field
        else:
            assert got == wanted, field
    draft = draft_class(DraftRequest(read.brief, life.seed), shipped(), load_model())
    timed = draft.timed
    assert abs(timed.length_s - read.brief.target_s) < 0.1
    movements = {one.use.movement.id: one.use.movement for one in timed.segments}
    groups = {
        group: name
        for name, one in movements.items()
        for group in shipped().conditions.groups_of(one)
        if one.start
    }
    for name in life.has:
        assert name in movements, name
    for name in life.never:
        assert name not in movements
        assert name[1:] not in groups if name[0] == ":" else True, (name, groups.get(name[1:]))
    wishes = outcome_of(read.wishes, draft, shipped(), {})
    assert all(one.state in ("kept", "guessed", "unmet", "unknown") for one in wishes)
    if life.unmet:
        unmet = next(one for one in wishes if life.unmet in one.text)
        assert unmet.state == "unmet"
        assert unmet.reason


PEOPLE = (
    ("for pregnant women", "for golfers"),
    ("for runners", "for desk workers"),
    ("osteoporosis", "for climbers"),
    ("bad knees", "sore wrists"),
    ("herniated disc", "for dancers"),
    ("for seniors", "for footballers"),
    ("after a C-section", "for swimmers"),
    ("glaucoma", "for cyclists"),
    ("kids", "for nurses"),
    ("period pain", "for rowers"),
)


@pytest.mark.parametrize("pair", PEOPLE, ids=lambda pair: " and ".join(pair))
def test_people_who_differ_get_classes_that_differ_where_they_do(pair, reader):
    found = []
    for words in pair:
        read = reader.read(f"25-minute hatha, mixed level, {words}")
        draft = draft_class(DraftRequest(read.brief, 1), shipped(), load_model())
        work = {one.use.movement.id for one in draft.timed.segments if not one.behaviour.bare}
        room = shipped().room(read.brief)
        found.append((work, room, {*read.brief.focus}))
    (one, here, about), (other, there, elsewhere) = found
    assert len(one & other) <= 0.75 * min(len(one), len(other))
    library = shipped().library
    kept_from = [name for name in other if here.left_out(library[name])]
    kept_from += [name for name in one if there.left_out(library[name])]
    areas = [{*library[name].works, *library[name].opens} for name in one ^ other]
    assert kept_from or any(about & those or elsewhere & those for those in areas)
