"""Captions: long enough to be read, never one over another."""

import re

import pytest

from tests.conftest import demo_maker
from yewhour.content.paths import demo_classes
from yewhour.core.export.captions import srt

TIMES = re.compile(r"(\d+):(\d+):(\d+),(\d+) --> (\d+):(\d+):(\d+),(\d+)\n(.*?)\n\n", re.DOTALL)


def captions(timed):
    """(start ms, end ms, text) of each."""
    for found in TIMES.finditer(srt(timed) + "\n\n"):
        hours, minutes, secs, ms, *end, text = found.groups()
        start = ((int(hours) * 60 + int(minutes)) * 60 + int(secs)) * 1000 + int(ms)
        yield start, ((int(end[0]) * 60 + int(end[1])) * 60 + int(end[2])) * 1000 + int(end[3]), text


@pytest.mark.parametrize("name", [path.stem for path in demo_classes()])
def test_a_caption_is_on_screen_long_enough_to_be_read(name):
    last = 0
    for start, end, text in captions(demo_maker(name).make()):
        assert start >= last
        assert end - start >= 790, text
        assert len(text) * 1000 / (end - start) <= 20.5, text
        last = end
