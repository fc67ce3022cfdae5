"""Left and right as directions in written words: "right foot", but not "right away" or "all right"."""

import re

# What makes "right" no direction, before or after it.
_BEFORE = r"(?<!all )(?<!just )(?<!that's )(?<!is )(?<!feels )(?<!exactly )"
_AFTER = r"(?! (?:away|now|here|angles?|through|up to|down to|into|at|before|after|for you|in the middle))"
_RIGHT = re.compile(rf"{_BEFORE}\bright\b{_AFTER}", re.IGNORECASE)
_LEFT = re.compile(
    r"(?<!is )(?<!are )(?<!what's )(?<!breaths )(?<!seconds )(?<!have )(?<!has )(?<!it's )(?<!that's )"
    r"(?<!nothing )(?<!nowhere )(?<!somebody )\bleft\b"
    r"(?! over| of| alone| open| behind| to (?!the\b|your\b|right\b))",
    re.IGNORECASE,
)

_PATTERNS = {"right": _RIGHT, "left": _LEFT}


def directions(text: str) -> set[str]:
    """The sides a line names: a subset of {"right", "left"}. "upright" and "right angle" are none."""
    small = text.lower()  # most lines have neither word, and a search is slow to say so
    return {side for side, pattern in _PATTERNS.items() if side in small and pattern.search(text)}


def tokenised(text: str, side: str) -> str:
    """A line written for one side, with its directions as tokens, so that it can be said for the other."""
    other = "left" if side == "right" else "right"

    marked = _PATTERNS[side].sub(lambda match: _token("side", match), text)
    return _PATTERNS[other].sub(lambda match: _token("other", match), marked)


def _token(name: str, match: re.Match[str]) -> str:
    return f"{{{name.capitalize() if match.group()[0].isupper() else name}}}"
