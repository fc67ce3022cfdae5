"""Renders the main views from the demo data into docs/screenshots/, at 1280x800."""

import os
import sys
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from yewhour.store.paths import DEMO
from yewhour.ui.app import application, first_window, open_first

TARGET = Path(__file__).resolve().parent.parent / "docs/screenshots"


def main(folder: Path = TARGET) -> None:
    """Makes every picture."""
    qt = application()
    folder.mkdir(parents=True, exist_ok=True)

    def picture(
        name: str, class_name: str, dark: bool, selected: str = "", length_s: float | None = None
    ) -> None:
        window = first_window(dark)
        open_first(window, DEMO / f"{class_name}.yewhour")
        window.resize(1280, 800)
        window.show()
        if length_s:
            window.session.set_length(length_s)
        if selected and window.session.made:
            chosen = [
                s.id
                for s in window.session.made.segments
                if s.turn.movement.id == selected and s.kind != "setup"
            ]
            window.session.select(chosen[0])
        window.show_offer()
        qt.processEvents()
        window.grab().save(str(folder / f"{name}.png"))
        window.close()
        print(f"{name}.png")

    picture("class-light", "bell-ringers", False, "low-lunge")
    picture("flow", "sunrise-on-the-quay", False, "warrior-two")
    picture("breathing", "tide-tables", True, "climb-breath")
    picture("chain", "round-the-compass", False, "goddess")
    picture("class-dark", "bell-ringers", True, "eagle-arms", 21 * 60.0)


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else TARGET)
