"""Captions as people and machines write them: what is said once is heard once, and bad ones are told."""

from random import Random

import pytest

from tests.conftest import demo_maker
from tools.teachers import captions, taught
from yewhour.core.problem import Problem
from yewhour.core.transcript.captions import read_captions
from yewhour.core.transcript.transcript import plain_words

SRT = """1
00:00:01,000 --> 00:00:03,000
Step your <i>right</i> foot forward.

2
00:00:04,500 --> 00:00:06,000
Five breaths here. [Music]
"""


def texts(content):
    return [word.text for word in read_captions(content.encode()).words]


def test_subrip_is_read_with_its_times():
    hearing = read_captions(SRT.encode())
    assert [talk.text for talk in hearing.talks] == ["Step your right foot forward.", "Five breaths here."]
    assert [talk.start_s for talk in hearing.talks] == [1.0, 4.5]
    assert hearing.words[0].start_s == 1.0
    assert hearing.words[4].end_s == pytest.approx(3.0)
    assert hearing.length_s == 6.0


@pytest.mark.parametrize("kind", ["vtt", "srt", "brackets", "rolling", "bare"])
def test_every_kind_gives_the_same_words(kind):
    said = taught(demo_maker("four-at-the-slip").make(), Random(1), remarks=0.1)
    wanted = [word for one in said.said for word in plain_words(one.text)]
    hearing = read_captions(captions(said, kind))
    assert [word.text for word in hearing.words] == wanted


def test_what_is_said_twice_is_heard_twice():
    rows = [f"00:00:{at:02}.000 --> 00:00:{at + 2:02}.000\n{text}\n" for at, text in
            ((1, "Exhale."), (4, "Exhale."), (7, "Inhale, arms up."), (10, "Hold."))]  # fmt: skip
    assert texts("WEBVTT\n\n" + "\n".join(rows)) == ["exhale", "exhale", "inhale", "arms", "up", "hold"]


def test_rows_that_grow_are_heard_once():
    rows = [f"00:00:{at:02}.000 --> 00:00:{at + 1:02}.000\n{text}\n" for at, text in
            ((1, "step the"), (2, "step the right"), (3, "step the right foot forward"))]  # fmt: skip
    assert texts("WEBVTT\n\n" + "\n".join(rows)) == ["step", "the", "right", "foot", "forward"]


def test_times_within_a_caption_are_those_of_its_words():
    cue = "00:00:10.000 --> 00:00:14.000\nstep<00:00:11.000><c> the</c><00:00:13.000><c> foot</c>\n"
    hearing = read_captions(f"WEBVTT\n\n{cue}".encode())
    assert [round(word.start_s) for word in hearing.words] == [10, 11, 13]


def test_square_brackets_may_hold_a_stretch_and_pauses_are_no_times():
    hearing = read_captions(b"[0:05 - 0:09] Breathe in. [0:12] And out, for [4s] four.")
    assert (hearing.talks[0].start_s, hearing.talks[0].end_s) == (5.0, 9.0)
    assert [word.text for word in hearing.words] == ["breathe", "in", "and", "out", "for", "four"]


def test_numbers_are_words_and_hours_count():
    hearing = read_captions(b"[1:02:03] 5 more, then 21.")
    assert [word.text for word in hearing.words] == ["five", "more", "then", "twenty", "one"]
    assert hearing.words[0].start_s == 3723


def test_times_that_run_backwards_are_put_in_order_and_told():
    hearing = read_captions(b"[0:30] Second. [0:10] First.", "talk.txt")
    assert [talk.text for talk in hearing.talks] == ["First.", "Second."]
    assert "talk.txt: their times run backwards" in hearing.messages[0]


@pytest.mark.parametrize(
    ("content", "message"),
    [
        (b"", "no time"),
        (b"Only words.", "no time"),
        (b"WEBVTT\n\n00:00:01.000 --> 00:00:02.000\n[Music]\n", "Nothing is said"),
        (b"\0\0\0\x18ftypmp42", "no captions"),
    ],
)
def test_what_are_no_captions_is_told_with_its_file(content, message):
    with pytest.raises(Problem, match=message) as messages:
        read_captions(content, "talk.vtt")
    assert messages.value.where == "talk.vtt"
    assert messages.value.do


SPOKEN_ONLY = """Good morning, lie on your backs with your knees bent. Breathe out and curl the tail up.
Now a bit more.
Peel the spine up, and roll it down again. Hands behind the head, and curl the head up. And lower.
Legs up now, and pump the arms, in for five and out for five. Hug the knees in, and rest there for a while."""


@pytest.mark.parametrize("lasts_s", [0.0, 300.0])
def test_text_without_times_is_spread_by_its_words(lasts_s):
    heard = read_captions(SPOKEN_ONLY.encode(), "said.txt", lasts_s)
    count = len(heard.words)
    assert heard.length_s == pytest.approx(lasts_s or count / 2, abs=0.5)
    assert [one.start_s for one in heard.words] == sorted(one.start_s for one in heard.words)
    middle = next(talk for talk in heard.talks if talk.text.startswith("Hands behind"))
    before = sum(len(plain_words(talk.text)) for talk in heard.talks if talk.start_s < middle.start_s)
    assert middle.start_s == pytest.approx(heard.length_s * before / count, abs=0.1)
    assert "spread over" in heard.messages[0]


def test_a_file_of_another_kind_is_no_speech():
    for content in (b'{"is": "step"}\n' * 40, b"1;2;3;4;5;6;7;8\n" * 40):
        with pytest.raises(Problem, match="no time"):
            read_captions(content)
