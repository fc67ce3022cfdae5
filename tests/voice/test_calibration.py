"""The estimate of speech time against a real synthesiser, on lines that were not used to fit it."""

import hashlib
import importlib.util

import numpy as np
import pytest

from tests.conftest import ROOT
from yewhour.content.terms import load_voice
from yewhour.core.wording.speech import line_seconds
from yewhour.voice.line_timing import line_parts


@pytest.mark.parametrize(("one_in", "whole"), [(24, 0.04), pytest.param(2, 0.02, marks=pytest.mark.long)])
def test_lines_are_timed_within_eight_percent_and_all_together_nearer(one_in, whole):
    spec = importlib.util.spec_from_file_location("calibrate_voice", ROOT / "tools/calibrate_voice.py")
    tool = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(tool)
    synthesiser, voice = tool.Synthesiser(), load_voice()
    kept = [text for text in tool.lines() if not hashlib.sha256(text.encode()).digest()[0] % one_in]
    real = np.array([synthesiser.seconds(text) for text in kept])
    guessed = np.array([line_seconds(line_parts(text), voice) for text in kept])
    assert len(kept) > 1000 / one_in
    assert np.mean(np.abs(guessed / real - 1)) <= 0.08
    assert abs(guessed.sum() / real.sum() - 1) <= whole
