"""The estimate of speech time against a real synthesiser, on lines that were not used to fit it."""

import hashlib
import importlib.util

import numpy as np

from tests.conftest import ROOT
from yewhour.content.terms import load_voice
from yewhour.core.wording.speech import line_seconds
from yewhour.voice.line_timing import line_parts


def test_lines_are_timed_within_eight_percent_and_a_class_within_two():
    spec = importlib.util.spec_from_file_location("calibrate_voice", ROOT / "tools/calibrate_voice.py")
    tool = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(tool)
    synthesiser, voice = tool.Synthesiser(), load_voice()
    kept = [text for text in tool.lines() if not hashlib.sha256(text.encode()).digest()[0] % 2]
    real = np.array([synthesiser.seconds(text) for text in kept])
    guessed = np.array([line_seconds(line_parts(text), voice) for text in kept])
    assert len(kept) > 500
    assert np.mean(np.abs(guessed / real - 1)) <= 0.08
    assert abs(guessed.sum() / real.sum() - 1) <= 0.02
