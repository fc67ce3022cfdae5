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


def test_a_line_gets_smaller_then_loses_its_last_sentences_before_it_is_cut(qtbot):
    line = OneLine()
    qtbot.addWidget(line)
    line.setText("For the ringers. Exactly as promised. It can be longer.")
    whole = line.fontMetrics().horizontalAdvance(line.text())
    for share in (1.0, 0.9, 0.75):
        line.resize(round(whole * share) + 2, 20)
        line.grab()
        assert line.toolTip() == ""
    line.resize(round(whole * 0.5), 20)
    line.grab()
    assert line.toolTip().endswith("It can be longer.</qt>") or line.toolTip() == line.text()
