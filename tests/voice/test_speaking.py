import pytest

from yewhour.content.terms import load_voice
from yewhour.core.problem import Problem
from yewhour.core.wording.speech import read_rate
from yewhour.voice.line_timing import LineTimer, line_parts
from yewhour.voice.syllables import syllables


@pytest.mark.parametrize(
    ("word", "count"),
    [("breathe", 1), ("shoulder", 2), ("inhale", 2), ("Pilates", 3), ("zzyzxquatch", 2), ("it's", 1)],
)
def test_syllables(word, count):
    assert abs(syllables(word) - count) <= (1 if word == "zzyzxquatch" else 0)


def test_numbers_count_as_the_words_they_are_said_as():
    assert (
        line_parts("Hold for 45 seconds.").syllables == line_parts("Hold for forty-five seconds.").syllables
    )


def test_written_pauses_count_and_do_not_depend_on_the_rate():
    speaker = LineTimer(load_voice())
    plain = speaker("Breathe in.", "calm")
    assert speaker("Breathe in. [2s]", "calm") == pytest.approx(plain + 2)
    assert speaker("Breathe in. [2s]", "calm", 2.0) == pytest.approx(plain / 2 + 2)


def test_text_in_any_script_can_be_timed():
    speaker = LineTimer(load_voice())
    for line in ("", "   ", "ॐ शान्तिः", "呼吸", "<b>&amp;</b>", "🙏", "a" * 5000):
        assert speaker(line, "rest") >= 0


def test_a_paragraph_read_aloud_gives_the_teachers_rate():
    assert read_rate(20.0, 20.0) == 1.0
    assert read_rate(20.0, 16.0) == 1.25
    for took_s in (0.5, 90.0):
        with pytest.raises(Problem, match="can't be right"):
            read_rate(20.0, took_s)
