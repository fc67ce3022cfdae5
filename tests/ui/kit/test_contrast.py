"""Contrast: text at least 4.5 to 1, outlines and marks at least 3 to 1, in both palettes."""

import pytest
from PySide6.QtGui import QColor

from yewhour.ui.kit.theme import DARK, LIGHT

GROUNDS = ("paper", "ground")


def luminance(colour):
    """Relative luminance, as the web content guidelines have it."""
    parts = [QColor(colour).redF(), QColor(colour).greenF(), QColor(colour).blueF()]
    linear = [part / 12.92 if part <= 0.04045 else ((part + 0.055) / 1.055) ** 2.4 for part in parts]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(one, other):
    light, dark = sorted((luminance(one), luminance(other)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=["light", "dark"])
@pytest.mark.parametrize("ground", GROUNDS)
@pytest.mark.parametrize("text", ["ink", "soft", "trouble", "accent", "right", "left"])
def test_text_is_read_on_every_ground(theme, ground, text):
    assert contrast(getattr(theme, text), getattr(theme, ground)) >= 4.5


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=["light", "dark"])
@pytest.mark.parametrize("ground", GROUNDS)
@pytest.mark.parametrize("mark", ["edge", "both", "bark", "aril", "accent", "focus"])
def test_outlines_and_marks_are_seen_on_every_ground(theme, ground, mark):
    assert contrast(getattr(theme, mark), getattr(theme, ground)) >= 3.0


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=["light", "dark"])
def test_what_is_chosen_or_pressed_is_read(theme):
    assert contrast(theme.ink, theme.chosen) >= 4.5
    assert contrast(theme.on_accent, theme.accent) >= 4.5
    assert contrast(theme.paper, theme.ink) >= 4.5  # tool tips
