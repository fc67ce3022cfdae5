"""What goes with a film: a page that works by itself, a still, a text; nothing is written over unasked."""

import json
import re
import shutil
import subprocess
from html.parser import HTMLParser

import pytest
from PySide6.QtGui import QImage

from tests import films
from tests.conftest import demo_maker
from tools import camera
from yewhour.core.export.chapters import chapters
from yewhour.core.problem import Problem
from yewhour.render.film_page import film_page
from yewhour.ui.kit.film.beside import BESIDE, Seen, nothing_there, still, text, write_beside

HOSTILE = "</script><b>\"Ebb\" & 'flow'\u2028 $title"


class Read(HTMLParser):
    """What a page is made of, each tag with its own words."""

    def __init__(self, page: bytes) -> None:
        super().__init__()
        self.tags: list[tuple[str, dict[str, str | None]]] = []
        self.words: list[str] = []
        self.feed(page.decode())

    def handle_starttag(self, tag, attrs):
        self.tags.append((tag, dict(attrs)))

    def handle_data(self, data):
        self.words.append(data.strip())

    def all(self, tag):
        return [attributes for name, attributes in self.tags if name == tag]


def facts_of(page: bytes):
    return json.loads(re.search(rb"const facts = (.*);\n", page)[1])


@pytest.fixture(scope="module")
def lunges():
    return films.lunges(HOSTILE, "<rowers>")


def test_a_page_has_the_film_chapters_cards_words_and_what_is_on(lunges):
    page = film_page(lunges, "ebb & flow.mp4", "still.png")
    read = Read(page)
    (video,) = read.all("video")
    assert (video["src"], video["poster"]) == ("ebb%20%26%20flow.mp4", "still.png")
    for outside in ("http://", "https://", "<link", "<img"):
        assert outside.encode() not in page.replace(b"http://www.w3.org", b"")
    facts = facts_of(page)
    names = [(one["name"], one["side"]) for one in facts["moments"]]
    assert ("Low lunge", "right") in names
    assert ("Low lunge", "left") in names
    drawn = {attributes["id"] for attributes in read.all("symbol")}
    assert {one["figure"] for one in facts["moments"] if one["figure"]} <= drawn
    times = [one["at"] for one in facts["moments"]]
    assert times == sorted(times)
    assert times[0] == 0.0
    buttons = [one for one in read.all("button") if "data-at" in one]
    assert len(buttons) >= len(chapters(lunges)) + len(lunges.cues)
    said = " ".join(read.words)
    assert all(cue.text.split()[0] in said for cue in lunges.cues)
    assert "ask a doctor" in said


def test_nothing_in_a_title_becomes_part_of_the_page(lunges):
    page = film_page(lunges, "x.mp4")
    assert len(Read(page).all("script")) == 1
    assert Read(page).all("b") == Read(film_page(films.lunges(), "x.mp4")).all("b")
    assert "&lt;rowers&gt;" in page.decode()


def test_every_control_has_a_name_and_the_language_is_told(lunges):
    read = Read(film_page(lunges, "x.mp4"))
    assert read.all("html")[0]["lang"] == "en"
    assert all(one.get("type") == "button" for one in read.all("button"))
    assert all(one.get("aria-label") is not None for one in read.all("svg") if one.get("role") == "img")
    assert any(one.get("aria-live") == "polite" for one in read.all("div"))


@pytest.mark.skipif(not shutil.which("chromium"), reason="Chromium is no part of what ./yew test installs")
def test_in_a_browser_the_page_tells_what_is_on(tmp_path):
    timed = demo_maker("four-at-the-slip").make(240.0)
    (tmp_path / "slip.html").write_bytes(film_page(timed, "slip.mp4"))
    done = subprocess.run(
        ["chromium", "--headless", "--no-sandbox", "--disable-gpu", f"--user-data-dir={tmp_path / 'own'}",
         "--virtual-time-budget=3000", "--dump-dom", (tmp_path / "slip.html").as_uri()],
        capture_output=True, text=True, timeout=120,
    )  # fmt: skip
    assert '<p class="name" id="name">Pelvic tilt</p>' in done.stdout
    assert "then Single leg stretch" in done.stdout
    assert done.stdout.count('aria-current="true"') == 1


def test_a_still_shows_title_and_figures_and_is_told_in_words(qtbot, lunges):
    image = QImage.fromData(still(lunges))
    assert (image.width(), image.height()) == (1280, 720)
    inked = [
        image.pixelColor(x, y).lightness() < 150 for x in range(80, 1200, 8) for y in (330, 450, 560, 620)
    ]
    assert sum(inked) > 20  # somebody is drawn there
    told = text(lunges).decode()
    assert "figures of Child's pose and Low lunge" in told
    assert "ask a doctor" in told


def test_a_frame_is_her_in_the_middle_of_the_strongest_thing_with_nothing_over_it(qtbot, lunges, tmp_path):
    camera.film(tmp_path / "camera.mp4", lunges.length_s + 5, fps=2, sound=False)
    film = tmp_path / "ebb.mp4"
    seen = Seen(tmp_path / "camera.mp4", lambda film_s: film_s + 5)
    names = [path.name for path in write_beside(lunges, film, ["frame", "page"], seen)]
    assert names == ["ebb.frame.png", "ebb.html"]
    assert b'poster="ebb.frame.png"' in (tmp_path / "ebb.html").read_bytes()
    image = QImage(str(tmp_path / "ebb.frame.png")).convertToFormat(QImage.Format.Format_Grayscale8)
    assert (image.width(), image.height()) == (camera.WIDE, camera.HIGH)
    bars = [image.pixelColor(bit * 12 + 6, 54).lightness() > 128 for bit in range(camera.BITS)]
    number = sum(1 << bit for bit, light in enumerate(bars) if light)
    right = next(one for one in lunges.segments if one.side == "right" and not one.use.setup_for)
    assert number == pytest.approx(2 * ((right.start + right.end) / 20 + 5), abs=1.1)


def test_it_is_written_beside_the_film_and_over_nothing(qtbot, lunges, tmp_path):
    film = tmp_path / "ebb.mp4"
    names = [path.name for path in write_beside(lunges, film, [one for one in BESIDE if one != "frame"])]
    assert names == ["ebb.vtt", "ebb.png", "ebb.html", "ebb.description.txt"]
    assert b'poster="ebb.png"' in (tmp_path / "ebb.html").read_bytes()
    with pytest.raises(Problem, match="already where captions would lie"):
        nothing_there(film, ["captions"])
    nothing_there(tmp_path / "flow.mp4", BESIDE)
