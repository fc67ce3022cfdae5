"""Where there is not enough for the length promised a shorter class is made, and that is told."""

from tests.conftest import shipped
from yewhour.content.draft_model_file import load_model
from yewhour.content.promise_file import promise_reader
from yewhour.core.draft.draft import draft_class
from yewhour.core.draft.draft_model import DraftRequest
from yewhour.core.promise.outcome import outcome_of

WORDS = shipped()


def test_a_shorter_class_is_made_and_its_length_is_told_as_not_kept():
    read = promise_reader(WORDS).read("55 minute standing only, osteoporosis")
    draft = draft_class(DraftRequest(read.brief), WORDS, load_model())
    comes_s = draft.plan.brief.target_s
    assert 0.6 * 3300 <= comes_s < 3300
    assert comes_s % 60 == 0
    assert abs(draft.timed.length_s - comes_s) < 0.1
    length = next(one for one in outcome_of(read.wishes, draft, WORDS, {}) if one.kind == "length")
    assert length.state == "unmet"
    assert "twice" in length.reason


def test_a_length_that_is_kept_stays_kept():
    read = promise_reader(WORDS).read("20 minute hatha")
    draft = draft_class(DraftRequest(read.brief), WORDS, load_model())
    length = next(one for one in outcome_of(read.wishes, draft, WORDS, {}) if one.kind == "length")
    assert length.state == "kept"
