"""The first page: each class shows its own sprig, and an outline can be pasted."""

from PySide6.QtGui import QGuiApplication

from yewhour.store.paths import demo_classes
from yewhour.ui.frame.twig_card import TwigCard


def cards(desk):
    return [card for card in desk.window.start.findChildren(TwigCard) if card.isVisible()]


def test_every_demo_class_has_a_card_with_its_own_sprig(bare_desk):
    found = cards(bare_desk)
    assert len(found) == len(demo_classes())
    bare = [card.twig.title for card in found if not card.twig.strokes]
    assert bare == ["The way back"]  # rest and talk alone
    assert len({card.twig.strokes for card in found}) == len(found)
    ropes = next(card for card in found if card.twig.title == "Ropes and shoulders")
    assert ropes.accessibleName() == "Ropes and shoulders, 24:00, flow, for the bell-ringers of Saltmarsh Row"
    bare_desk.click(ropes)
    assert bare_desk.made.length_s == 1440


def test_an_outline_is_pasted_and_what_is_none_is_told(bare_desk):
    lines = "title: Pasted\nlength: 10 min\n# One\nlow lunge 5b pair\n"
    QGuiApplication.clipboard().setText(
        "title: Pasted\nlength: 10 min\n# One\nlow lunge 5b pair\nno such thing"
    )
    bare_desk.window.start.paste()
    bare_desk.settle()
    assert "no such thing" in bare_desk.window.foot.message.text()
    QGuiApplication.clipboard().setText(lines)
    bare_desk.window.start.paste()
    bare_desk.settle()
    assert bare_desk.session.plan.brief.title == "Pasted"
    assert {s.side for s in bare_desk.made.segments} >= {"right", "left"}
