"""A page of its own for a class: one HTML file with the film, what is on now and next, chapters, the practice
sheet and the words. It works from a folder with no network; everything but the film is in it."""

from __future__ import annotations

import base64
from collections.abc import Iterator
from html import escape
from string import Template
from typing import Any
from urllib.parse import quote

import msgspec

from yewhour.content.figure_files import portrait
from yewhour.content.paths import DATA, FONTS
from yewhour.core.export.captions import captions
from yewhour.core.export.cards import Card, cards, in_parts
from yewhour.core.export.chapters import chapters
from yewhour.core.export.description import CAUTION
from yewhour.core.figure.drawing import drawing_of, placed
from yewhour.core.lengths import seconds, show_length
from yewhour.core.library.movement import Movement
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment

BOX = (0.0, 0.0, 160.0, 112.0)  # of a figure: left, top, wide and high
# The inks of its parts; those of a side are the page's.
INKS = {
    "middle": "#7a5c43", "far": "#bdae9f", "other": "#a08a74", "prop": "#d2c6b3", "mat": "#e6dfcf",
    "line": "#a86200", "edge": "var(--ground)", "face": "#bdae9f", "still": "#8f745e", "ghost": "#e0d8cc",
    "arrow": "#a86200",
}  # fmt: skip
SIDES = ("left", "right")


def film_page(timed: TimedClass, film: str, poster: str = "") -> bytes:
    """The page of a class as it is in a film. film, poster: names of files that lie beside the page."""
    figures = _Figures()
    brief = timed.plan.brief
    needed = f"You need {', '.join(timed.props)}." if timed.props else "You need nothing but a mat."
    about = [show_length(timed.length_s), f"for {brief.audience}" if brief.audience else ""]
    moments = list(_moments(timed, figures))
    sheet = "\n".join(_parts(timed, figures))
    facts = {
        "moments": moments,
        "captions": [[one.start_ms / 1000, one.end_ms / 1000, one.text] for one in captions(timed)],
    }
    page = Template((DATA / "film_page.html").read_text(encoding="utf-8")).substitute(
        title=_text(brief.title or "A class"),
        about=_text(f"{', '.join(one for one in about if one)}. {needed}"),
        film=quote(film),
        poster=f' poster="{quote(poster)}"' if poster else "",
        figures="".join(figures.drawn.values()),
        chapters="".join(
            f"<li>{_to(one.start, f'{show_length(seconds(one.start))}  {one.title}')}</li>"
            for one in chapters(timed)
        ),
        sheet=sheet,
        words="".join(
            f"<dt>{_to(one.start, show_length(seconds(one.start)))}</dt><dd>{_text(one.text)}</dd>"
            for one in timed.cues
        ),
        caution=_text(CAUTION),
        facts=_script(facts),
        font_text=_font("AtkinsonHyperlegibleNext_400Regular.ttf"),
        font_bold=_font("AtkinsonHyperlegibleNext_600SemiBold.ttf"),
    )
    return page.encode()


class _Figures:
    """The figures of a page, each drawn once."""

    def __init__(self) -> None:
        self.drawn: dict[tuple[str, str, str], str] = {}

    def named(self, movement: Movement, side: str, position: str) -> str:
        """The name by which a figure can be used; "" where there is none."""
        figure = portrait(movement, side, position)
        if figure is None:
            return ""
        key = (movement.id, side, position)
        name = f"f{list(self.drawn).index(key) if key in self.drawn else len(self.drawn)}"
        if key not in self.drawn:
            near = f"var(--{side if side in SIDES else 'both'})"
            inks = {**INKS, "near": near}
            if side not in SIDES:
                inks["other"] = inks["still"] = near
            shapes = "".join(
                f'<polygon fill="{inks[shape.what]}" points="{_corners(shape.corners)}"/>'
                for shape in placed(drawing_of(figure), BOX)
            )
            self.drawn[key] = f'<symbol id="{name}" viewBox="0 0 {BOX[2]:g} {BOX[3]:g}">{shapes}</symbol>'
        return name


def _corners(corners: tuple[tuple[float, float], ...]) -> str:
    return " ".join(f"{x:.1f},{y:.1f}" for x, y in corners)


def _moments(timed: TimedClass, figures: _Figures) -> Iterator[dict[str, Any]]:
    """What is on from when: each movement from where one goes into it."""
    begun: Segment | None = None
    for segment in timed.segments:
        begun = begun or segment
        if segment.use.setup_for:
            continue
        side = segment.side if segment.side in SIDES else ""
        figure = "" if segment.behaviour.is_talk else figures.named(
            segment.use.movement, side or "both", segment.use.start
        )  # fmt: skip
        yield {"at": seconds(begun.start), "name": segment.use.name, "side": side, "figure": figure}
        begun = None


def _parts(timed: TimedClass, figures: _Figures) -> Iterator[str]:
    for title, own in in_parts(cards(timed)):
        items = "".join(_card(card, figures) for card in own)
        yield f'<h3>{_text(title)}</h3><ul class="cards">{items}</ul>'


def _card(card: Card, figures: _Figures) -> str:
    side = card.sides[0] if card.sides else "both"
    name = figures.named(card.movement, side, card.position)
    alt = f"{card.name}, drawn"
    box = f"0 0 {BOX[2]:g} {BOX[3]:g}"
    drawn = (
        f'<svg viewBox="{box}" role="img" aria-label="{_text(alt)}"><use href="#{name}"/></svg>'
        if name
        else ""
    )
    sides = card.sides or ("",) * len(card.times)
    times = "".join(
        _to_clock(time, f"{time} {one}".strip()) for time, one in zip(card.times, sides, strict=False)
    )
    dose = f'<span class="dose">{_text(card.dose)}</span>'
    return f'<li>{drawn}<b>{_text(card.name)}</b>{dose}<div class="times">{times}</div></li>'


def _to(tick: int, words: str) -> str:
    """A button to a moment."""
    return f'<button type="button" data-at="{seconds(tick):g}">{_text(words)}</button>'


def _to_clock(time: str, words: str) -> str:
    parts = [float(one) for one in time.split(":")]
    at_s = sum(one * 60**power for power, one in enumerate(reversed(parts)))
    return f'<button type="button" data-at="{at_s:g}">{_text(words)}</button>'


def _text(words: str) -> str:
    return escape(" ".join(words.split()), quote=True)


def _script(facts: dict[str, Any]) -> str:
    """Facts as they may stand in a script: nothing in them ends it."""
    written = msgspec.json.encode(facts).decode()
    for sign in "<>&\u2028\u2029":
        written = written.replace(sign, f"\\u{ord(sign):04x}")
    return written


def _font(name: str) -> str:
    return base64.b64encode((FONTS / name).read_bytes()).decode()
