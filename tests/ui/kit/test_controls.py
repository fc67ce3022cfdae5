"""Words are shown as they are, whatever signs are in them."""

from yewhour.ui.kit.controls.controls import OneLine, button, plain_tip


def test_no_title_is_taken_for_rich_text(qtbot):
    timed = button("Salt & <b>sea</b>", lambda: None, "<b>Low</b> & high")
    qtbot.addWidget(timed)
    assert timed.text() == "Salt && <b>sea</b>"  # no letter of it is a shortcut
    assert timed.toolTip() == "<qt>&lt;b&gt;Low&lt;/b&gt; &amp; high</qt>"
    assert plain_tip("Low & high") == "Low & high"
    line = OneLine()
    qtbot.addWidget(line)
    line.setText("<b>Ebb</b> " * 40)
    line.resize(100, 20)
    line.grab()
    assert "<b>" not in line.toolTip()
