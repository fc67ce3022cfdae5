"""Half a made-up year, Monday by Monday: the first line is true, whatever was done the week before."""

from random import Random

import pytest

from yewhour.content.demo_sheets import demo_sheets
from yewhour.core.shelf.records import Outing, ShelvedClass, TakeRecord
from yewhour.core.shelf.weekly_notes import record_by
from yewhour.state.logbook.logbook import Logbook
from yewhour.ui.shelf.shelf_session import ShelfSession

FIRST, WEEKS = 739_943, 26


@pytest.mark.parametrize("seed", [1, 2, 3])
def test_monday_by_monday_the_first_line_is_true(desk, tmp_path, seed):
    dice, now = Random(seed), [FIRST]
    shelving = ShelfSession(Logbook(tmp_path / "shelf", "here"), today=lambda: now[0])
    desk.window.pages.shelving.give(shelving)
    shelving.book.put(*(ShelvedClass(name, sheet, FIRST) for name, sheet in demo_sheets().items()))
    desk.press("to_shelf")
    page = desk.window.pages.shelf()
    for week in range(WEEKS):
        for number in range(dice.randrange(4)):
            day = now[0] + dice.randrange(14)
            name = dice.choice(list(shelving.shelf.classes))
            shelving.do("Plan", Outing(f"{week}-{number}", name, day, "18:30", by=day - dice.randrange(4)))
        for outing in list(shelving.shelf.outings.values()):
            if outing.day >= now[0] and dice.random() < 0.5:
                shelving.do("Take", TakeRecord(f"t{outing.id}", outing.of, now[0], "", 1200.0, 1190.0))
        if dice.random() < 0.3:
            shelving.undo()
        page.refresh()
        check(page, now[0])
        now[0] += 7
    page.refresh()
    shelving.close()
    again = Logbook(tmp_path / "shelf", "here")
    assert again.shelf.outings.keys() == shelving.shelf.outings.keys()


def check(page, today):
    """What is said first is the most pressing thing there is."""
    shelf, said = page.shelving.shelf, page.first.text()
    recorded = {taken.of for taken in shelf.takes.values()}
    last = today + 13
    open_ = [one for one in shelf.outings.values() if one.of not in recorded and today - 7 <= one.day <= last]
    missed = [one for one in open_ if one.day < today]
    late = [one for one in open_ if record_by(one) < today and one not in missed]
    to_record = [one for one in open_ if today <= one.day and one not in late]
    if late:
        assert any(shelf.classes[one.of].sheet.title in said for one in late)
        assert "not recorded" in said
    elif to_record:
        first = min(one.day for one in to_record)
        assert any(shelf.classes[one.of].sheet.title in said for one in to_record if one.day == first)
        assert "to be recorded by" in said
    elif any(today <= one.day <= last for one in shelf.outings.values()):
        assert "is recorded" in said
    elif missed:
        assert any(shelf.classes[one.of].sheet.title in said for one in missed)
        assert "was to go out" in said
    else:
        assert said.startswith("Nothing is to go out")
    reading_view = {spot.outing.id for spot in page.boards.shelves.spots if spot.outing is not None}
    assert reading_view == shelf.outings.keys()
