"""Cards: every movement of a class with its times, its sides and how much; as a PDF and a picture."""

import io
from itertools import pairwise

import pypdfium2
import pytest
from PIL import Image

from tests.conftest import shipped
from yewhour.content.paths import DEMO
from yewhour.core.export.cards import cards, in_parts
from yewhour.core.lengths import show_length
from yewhour.core.pipeline import solve
from yewhour.render.cards_pdf import cards_pdf, cards_picture, layout
from yewhour.state.classes.any_class import read_class


def demo(name="bell-ringers"):
    words = shipped()
    return solve(read_class(DEMO / f"{name}.yewhour", words), words).make()


def test_every_movement_is_there_in_its_order_and_on_its_sides():
    timed = demo()
    found = cards(timed)
    starts = [segment for segment in timed.segments if not segment.use.setup_for and segment.kind != "talk"]
    assert {card.movement.id for card in found} <= {one.use.movement.id for one in starts}
    for one in starts:
        if not one.use.flow:
            assert any(
                show_length(one.start / 10) in card.times and card.movement.id == one.use.movement.id
                for card in found
            ), one.name
    stretch = next(card for card in found if card.movement.id == "wrist-stretch")
    assert stretch.sides == ("right", "left")
    assert len(stretch.times) == 2


def test_a_chain_is_side_after_side_and_a_flow_is_its_first_round():
    found = cards(demo())
    lunge = [card for card in found if card.movement.id == "low-lunge"]
    assert [card.sides for card in lunge] == [("right",), ("left",)]
    begins = next(n for n, card in enumerate(found) if card.movement.id == "arms-up")
    assert found[begins].dose == "3 rounds"
    assert found[begins].times
    rest = [card.movement.id for card in found[begins + 1 : begins + 4]]
    assert rest == ["fold", "half-lift", "plank"] or all(not c.times for c in found[begins + 1 : begins + 4])
    assert [card.movement.id for card in found].count("arms-up") <= 2  # up at its beginning and its end


def test_each_part_has_its_title_over_its_first_card():
    timed = demo()
    cells = layout(timed)
    assert [cell.card for cell in cells] == cards(timed)
    parts = [title for title, _ in in_parts(cards(timed))]
    assert parts == [s.title for s in timed.plan.sections if s.title in parts]
    assert [cell.part for cell in cells if cell.part] == parts
    assert all(cell.part == cell.card.section for cell in cells if cell.part)


@pytest.mark.parametrize("name", ["four-at-the-slip", "first-splices", "bell-ringers", "round-the-compass"])
def test_a_class_up_to_half_an_hour_is_on_one_page_and_nothing_lies_over_another(name):
    cells = layout(demo(name))
    assert {cell.page for cell in cells} == {0}
    for one, other in pairwise(cells):
        assert other.y >= one.y + one.high - 1e-9 or other.x >= one.x + one.wide - 1e-9
    assert all(cell.x + cell.wide <= 210 - 10 and cell.y + cell.high <= 290 for cell in cells)


def test_a_longer_class_has_pages_with_as_many_cards_each():
    cells = layout(demo("every-morning-at-the-mill"))
    counts = [sum(cell.page == page for cell in cells) for page in range(max(c.page for c in cells) + 1)]
    assert len(counts) > 1
    assert max(counts) <= 24
    assert counts[-1] > len(counts)  # the last page has not one figure alone


def test_names_are_large_and_whole():
    pdf = cards_pdf(demo("every-morning-at-the-mill"))
    document = pypdfium2.PdfDocument(pdf)
    said = " ".join(" ".join(page.get_textpage().get_text_range() for page in document).split())
    for card in cards(demo("every-morning-at-the-mill")):
        assert card.name.replace("- ", "-") in said.replace("- ", "-"), card.name


def test_the_pdf_and_the_picture_are_drawn():
    timed = demo()
    document = pypdfium2.PdfDocument(cards_pdf(timed))
    text = "".join(document[n].get_textpage().get_text_range() for n in range(len(document)))
    assert "Wrist stretch" in " ".join(text.split())
    start = next(
        s.start for s in timed.segments if s.use.movement.id == "wrist-stretch" and not s.use.setup_for
    )
    assert f"R {show_length(start / 10)}" in " ".join(text.split())
    picture = Image.open(io.BytesIO(cards_picture(timed)))
    assert picture.width == 840
    dark = sum(count for count, colour in picture.getcolors(1 << 24) if sum(colour) < 200)
    assert dark > 20_000  # figures, not only words
