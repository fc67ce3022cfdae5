import pytest
from PySide6.QtGui import QColor

from yewhour.ui.kit.theme import DARK, LIGHT


def luminance(name):
    def linear(part):
        return part / 12.92 if part <= 0.03928 else ((part + 0.055) / 1.055) ** 2.4

    colour = QColor(name)
    return 0.2126 * linear(colour.redF()) + 0.7152 * linear(colour.greenF()) + 0.0722 * linear(colour.blueF())


def contrast(one, other):
    light, dark = sorted((luminance(one), luminance(other)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=["light", "dark"])
@pytest.mark.parametrize("text", ["ink", "soft", "right", "left", "both", "trouble"])
@pytest.mark.parametrize("behind", ["paper", "ground", "chosen"])
def test_text_stands_out(theme, text, behind):
    assert contrast(getattr(theme, text), getattr(theme, behind)) >= 4.5


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=["light", "dark"])
def test_the_accent_carries_its_text(theme):
    assert contrast(theme.on_accent, theme.accent) >= 4.5


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=["light", "dark"])
@pytest.mark.parametrize(
    ("text", "behind"),
    [("ground", "right"), ("ground", "left"), ("ground", "both"), ("paper", "ink"), ("bark", "paper")],
)
def test_what_stands_on_a_needle_a_tip_or_a_page_stands_out(theme, text, behind):
    assert contrast(getattr(theme, text), getattr(theme, behind)) >= 4.5
