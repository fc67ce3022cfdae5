"""Renders the main views from the demo data into docs/screenshots/, at 1280x800."""

import contextlib
import os
import sys
import tempfile
import time
from datetime import datetime
from pathlib import Path
from random import Random

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
sys.path.insert(0, str(Path(__file__).resolve().parent.parent))  # for `tools`
os.environ["XDG_DATA_HOME"] = tempfile.mkdtemp(prefix="yewhour-shots-")

from PySide6.QtCore import QPoint
from PySide6.QtGui import QColor, QPainter
from PySide6.QtTest import QTest

from tools.posed import posed
from tools.teachers import captions, taught
from yewhour.content.paths import DEMO
from yewhour.core.edits.arrange import removed
from yewhour.core.review.actual_class import actual_class
from yewhour.state.classes.unsaved_work import unsaved_work
from yewhour.state.takes.camera_film import CameraFilm, CameraSource
from yewhour.ui.frame.app import application, first_window, open_first
from yewhour.ui.kit import theme as look
from yewhour.ui.shelf.shelf_session import ShelfSession
from yewhour.voice.film.film_file import StoredSound

PROMISED = "25-minute gentle hatha for golfers, evening, sore knees, no twists, with a ring"
A_MONDAY = datetime(2026, 11, 23).toordinal()
DRAWN = 30
TARGET = Path(__file__).resolve().parent.parent / "docs/screenshots"


class Done(Exception):
    """Every picture that was named is made."""


class Photographer:
    """A window, and what is done to it before a picture."""

    def __init__(self, folder, names=()):
        self.folder, self.wanted = folder, set(names)  # none named: all
        self.qt = application()
        self.window = None

    def open(self, name, dark=False, scale=1.0):
        """A new window on a demo class, or on the first page."""
        if self.window is not None:
            self.window.close()
        for kept in unsaved_work():
            kept.forget()  # one picture leaves nothing to the next
        look.set_scale(scale)
        self.window = first_window(dark)
        self.window.resize(1280, 800)
        self.window.show()
        open_first(self.window, DEMO / f"{name}.yewhour" if name else None)
        self.settle()

    def settle(self):
        self.qt.processEvents()
        while self.window.session.busy:
            self.qt.processEvents()
            time.sleep(0.005)
        for _ in range(DRAWN):  # figures come into lists as there is time
            self.qt.processEvents()
            time.sleep(0.01)

    def segment(self, movement):
        timed = self.window.session.timed
        return next(s for s in timed.segments if s.use.movement.id == movement and not s.use.setup_for)

    def choose(self, movement):
        self.window.session.select(self.segment(movement).id)
        self.settle()

    def point_at(self, movement):
        """Puts the pointer on a movement's needle."""
        segment, sprig = self.segment(movement), self.window.sprig
        y = sprig.scene.y_at((segment.start + segment.end) / 20)
        QTest.mouseMove(sprig, QPoint(round(sprig.scene.stem_x + 30), round(y)))
        self.settle()

    def take(self, name):
        """The picture; a dialog that is open is shown over the window."""
        self.settle()
        picture = self.window.grab()
        for dialog in self.window._dialogs:
            if dialog.isVisible():
                painter = QPainter(picture)
                painter.fillRect(picture.rect(), QColor(0, 0, 0, 90))
                over = dialog.grab()
                at = QPoint((picture.width() - over.width()) // 2, (picture.height() - over.height()) // 2)
                painter.drawPixmap(at, over)
                painter.end()
                dialog.close()
        if self.wanted and name not in self.wanted:
            return
        picture.save(str(self.folder / f"{name}.png"))
        print(f"{name}.png")
        if self.wanted:
            self.wanted.discard(name)
            if not self.wanted:
                raise Done


def drafted(at: Photographer) -> None:
    """Waits until a draft is there."""
    while at.window.pages.drafting().busy:
        at.settle()
    at.settle()
    at.settle()


def looking_back(at: Photographer) -> None:
    """A recording of the class that is open, in which one side was held longer and a line or two left out."""
    timed, page = at.window.session.timed, at.window.pages.review()
    holds = [one.id for one in timed.segments if one.kind == "hold" and one.side == "right"]
    said = taught(timed, Random(4), {holds[0]: 13.0, holds[1]: 19.0}, skipped=0.05, remarks=0.05)
    with tempfile.TemporaryDirectory() as room:
        path = Path(room) / "recording.vtt"
        path.write_bytes(captions(said))
        at.window.go_to("to_back")
        page.look_at_file(path)
        while page.reader.busy:
            at.settle()
    at.settle()
    page.rows.choose(1)


def filming(at: Photographer, room: Path) -> None:
    """The film of the recording that was looked back at; a figure was in front of the camera."""
    page = at.window.pages.review()
    back, camera = page.looked.back, room / "tuesday.mp4"
    with tempfile.TemporaryFile() as nothing:
        posed(camera, actual_class(back, True), StoredSound([], nothing))
    looks = []
    page.camera_wanted.disconnect()
    page.camera_wanted.connect(looks.append)
    page.make_film()
    window = at.window._dialogs[-1]
    window.show_film(
        CameraFilm(CameraSource(camera, camera), back.length_s, back.timed, back, page.looked.hearing)
    )
    while window.work.jobs.busy():
        at.settle()
    window.point(page.looked.back.segments[30].start_s + 9)
    while window.work.jobs.busy():
        at.settle()
    at.settle()


def on_stage(at, movement):
    """A take, some seconds into a movement that is held one breath longer."""
    now = [100.0]
    at.window.go_to("to_take")
    page = at.window.pages.take()
    page.runner.clock = lambda: now[0]
    page.do("stand")
    start_s = at.segment(movement).start / 10
    for second in range(round(start_s) + 12):
        now[0] = 101.0 + second
        page.frame()
        if second == round(start_s) + 9:
            page.do("again")
    at.settle()
    while page.runner.take.unsaid is not None:
        at.settle()
    page.frame()


def main(folder: Path = TARGET, *names: str) -> None:
    """Makes every picture, or those named."""
    folder.mkdir(parents=True, exist_ok=True)
    at = Photographer(folder, names)
    with contextlib.suppress(Done):
        every(at)
    at.window.close()


def every(at: Photographer) -> None:
    """Goes through the program and stops where a picture is wanted."""

    at.open("")
    page = at.window.pages.start()
    page.promise.field.setText(PROMISED)
    page.promise._read()
    at.settle()
    at.take("first-page")
    page.promise.field.clear()
    at.window.pages.start().promise.field.returnPressed.emit()
    drafted(at)
    at.take("draft")
    at.choose(next(one.movement for one in at.window.pages.drafting().last.choices if one.part == "Settle"))
    at.window.pages.drafting().draft_else()
    drafted(at)
    at.take("instead")

    at.open("bell-ringers")
    at.choose("low-lunge")
    at.point_at("low-lunge")
    at.take("sprig")
    at.window.go_to("to_promise")
    at.window.pages.promise().editor.open("cautions")
    at.take("promise")
    at.window.go_to("to_words")
    at.take("words")
    at.window.file_commands.export_script()
    exporting = at.window._dialogs[-1]
    exporting.list.setCurrentRow(list(exporting.formats).index("cards"))
    exporting.folder.setText("~/recordings")
    while exporting.preview.currentWidget() is not exporting.preview.area:
        at.settle()
    at.take("export")
    at.window.view.show_library()
    at.window._dialogs[-1].choose("low-lunge")
    at.take("library")
    at.window.view.show_stand()
    at.window.view.reading_view.resize(1280, 800)
    at.settle()
    at.window.view.reading_view.text.verticalScrollBar().setValue(7600)
    at.window.view.reading_view.grab().save(str(at.folder / "stand.png"))
    at.window.view.reading_view.close()
    at.window.go_to("to_sprig")
    at.choose("low-lunge")
    at.window.sprig_actions.dose.differ(2, "the left is tighter")
    at.settle()
    at.choose("low-lunge")
    for _ in range(7):
        at.window.view.closer()
    at.take("near")

    at.open("four-at-the-slip")
    session = at.window.session
    session.do("Without its warm-up", removed(session.plan, [at.segment("pelvic-tilt").use.step.id]))
    at.settle()
    at.window.foot.mend_button.setFocus()
    at.take("mended")
    at.open("bell-ringers", dark=True)
    at.window.session.set_length(15 * 60.0)
    at.settle()
    at.take("refused-dark")
    at.open("bell-ringers")
    looking_back(at)
    at.take("back")
    with tempfile.TemporaryDirectory() as room:
        filming(at, Path(room))
        at.take("film")
    at.open("bell-ringers")
    at.window.pages.shelving.give(ShelfSession(made_up=True, today=lambda: A_MONDAY))
    at.window.go_to("to_shelf")
    at.take("shelf")
    for number, name in enumerate(("season", "series"), 1):
        at.window.pages.shelf().show_view(number)
        at.take(name)
    at.open("bell-ringers")
    on_stage(at, "low-lunge")
    at.take("take")
    at.open("bell-ringers", scale=2.0)
    at.choose("low-lunge")
    at.take("twice")


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else TARGET, *sys.argv[2:])
