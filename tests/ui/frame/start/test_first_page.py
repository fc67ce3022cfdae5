"""The first page: each class shows its own sprig, and an outline can be pasted."""

from PySide6.QtCore import QEvent
from PySide6.QtGui import QGuiApplication
from PySide6.QtWidgets import QApplication, QLabel, QPushButton

from tests.conftest import shipped
from yewhour.content.paths import demo_classes
from yewhour.core.outline.reader import read_outline
from yewhour.state.classes.unsaved_work import WorkKeeper, unsaved_work
from yewhour.state.paths import kept_classes
from yewhour.ui.frame.start.class_card import ClassCard


def cards(desk):
    return [card for card in desk.window.pages.start().findChildren(ClassCard) if card.isVisible()]


def test_every_demo_class_has_a_card_with_its_own_sprig(bare_desk):
    found = cards(bare_desk)
    assert len(found) == len(demo_classes())
    bare = [card.twig.title for card in found if not card.twig.strokes]
    assert bare == ["The way back"]  # rest and talk alone
    assert len({card.twig.strokes for card in found}) == len(found)
    ropes = next(card for card in found if card.twig.title == "Ropes and shoulders")
    assert ropes.accessibleName() == "Ropes and shoulders, 24:00, flow, for the bell-ringers of Saltmarsh Row"
    bare_desk.click(ropes)
    assert bare_desk.timed.length_s == 1440


def test_an_outline_is_pasted_and_what_is_none_is_told(bare_desk):
    lines = "title: Pasted\nlength: 10 min\n# One\nlow lunge 5b pair\n"
    QGuiApplication.clipboard().setText(
        "title: Pasted\nlength: 10 min\n# One\nlow lunge 5b pair\nno such thing"
    )
    bare_desk.window.pages.start().paste()
    bare_desk.settle()
    assert "no such thing" in bare_desk.window.foot.message.text()
    QGuiApplication.clipboard().setText(lines)
    bare_desk.window.pages.start().paste()
    bare_desk.settle()
    assert bare_desk.session.plan.brief.title == "Pasted"
    assert {s.side for s in bare_desk.timed.segments} >= {"right", "left"}


def test_two_lost_works_say_which_is_which(bare_desk):
    for kept in unsaved_work():
        kept.forget()
    for length, lines in (("10 min", "low lunge 5b pair"), ("12 min", "low lunge 5b pair\nchild 5b")):
        plan = read_outline(
            f"title: Twice\nlength: {length}\n# One\n{lines}", shipped().library, "here", shipped().known
        )
        keeper = WorkKeeper()
        keeper.keep(plan, None)
        keeper.close()
    file = kept_classes() / "0123456789ab.yewhour"
    file.write_bytes(b"{")
    page = bare_desk.window.pages.start()
    page.refresh()
    more = [one for one in page.findChildren(QPushButton) if one.text() == "And 2 more"]
    more[-1].click()  # they are one pile, until it is asked for
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    bare_desk.settle()
    said = [one.text() for one in bare_desk.window.pages.start().findChildren(QLabel) if one.isVisible()]
    message = [one for one in said if "It has no file yet" in one]
    assert len(set(message)) == 3
    assert any("10:00, 1 movement." in one for one in message)
    assert any("12:00, 2 movements." in one for one in message)
    assert any("it is damaged" in one for one in message)
