"""What a class's file is called."""

import re

MOST_STEM = 120  # bytes


def stem_for(title: str) -> str:
    """A file's name for a class with this title, in the title's own letters, short enough for any disk."""
    stem = re.sub(r"[^\w]+", "-", title.lower()).strip("-")
    while len(stem.encode()) > MOST_STEM:
        stem = stem[:-1]
    return stem or "class"
