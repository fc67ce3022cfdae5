"""The script for the music stand as PDF: large type, the side in the margin, pages turned in silences."""

from __future__ import annotations

import unicodedata
from collections.abc import Sequence

from yewhour.content.figure_files import portrait
from yewhour.core.export.reading import blocks
from yewhour.core.lengths import seconds, show_length
from yewhour.core.script.cue import Cue
from yewhour.core.timed_class import TimedClass
from yewhour.core.timing.layout import Segment
from yewhour.render.pdf_page import (
    INK,
    SIDE_INK,
    SIZE,
    Pdf,
    new_pdf,
    print_figure,
    printable,
)

LEADING = 8.6  # millimetres from line to line
HEAD = 1.6  # lines that a heading takes, with the space above it
TOP, BOTTOM, LEFT, WIDTH = 18.0, 279.0, 40.0, 134.0  # millimetres on A4
FIGURE = (177.0, 27.0, 18.5)  # its left edge, how wide and how high: the margin column at the right
TITLE_SIZE, MOST_TITLE = 24, 4  # points; lines
QUIET_S = 3.0  # a page may be turned in a silence this long
SEARCHED = (0.35, 0.75)  # of a page is given up to turn it in a silence: rather less, and else more
PART = 2.0  # lines that the title of a part takes
PLAIN, MOST_NAMED = 0x17F, 4  # up to here every sign is there; so many that are not are named


class ScriptRow:
    """A line of the script as it stands on a page."""

    def __init__(
        self, segment: Segment, cue: Cue, heading: str, quiet_s: float, lines: list[str], part: str = ""
    ) -> None:
        self.segment = segment
        self.cue = cue
        self.heading = heading
        self.quiet_s = quiet_s
        self.lines = lines
        self.part = part
        self.height = LEADING * (len(lines) + (HEAD if heading else 0) + (PART if part else 0))


def script_pdf(timed: TimedClass) -> bytes:
    """The PDF, A4."""
    pdf, measure = new_pdf(), new_pdf()
    measure.add_page()  # lines can only be measured on a page
    pdf.set_title(timed.plan.brief.title)
    pdf.set_creator("Yew Hour")
    rows = _rows(timed, measure)
    measure.set_font("Title", "", TITLE_SIZE)
    title = _lines(measure, f"{timed.plan.brief.title}, {show_length(timed.length_s)}")[:MOST_TITLE]
    made_up = pages(rows, LEADING * (1 + 1.2 * len(title)))
    for number, page in enumerate(made_up, 1):
        pdf.add_page()
        _page(pdf, title, page, number, number == len(made_up))
    return bytes(pdf.output())


def unprintable_signs(timed: TimedClass) -> list[str]:
    """The names of the signs in a class that the PDF's type does not have, each once."""
    texts = [timed.plan.brief.title, *(section.title for section in timed.plan.sections)]
    texts += [segment.name for segment in timed.segments] + [cue.text for cue in timed.cues]
    signs = {sign for sign in set("".join(texts)) if ord(sign) > PLAIN and not sign.isspace()}
    if not signs:
        return []
    known = new_pdf().current_font.cmap

    def there(sign: str) -> bool:
        plain = unicodedata.normalize("NFKD", sign)
        return all(ord(one) in known or unicodedata.combining(one) for one in plain)

    missing = [sign for sign in signs if ord(sign) not in known and not there(sign)]
    return sorted(unicodedata.name(sign, f"sign {ord(sign):X}").lower() for sign in missing)


def unprintable_message(timed: TimedClass) -> str:
    """What to say of them; "" when there are none."""
    names = unprintable_signs(timed)
    more = f" and {len(names) - MOST_NAMED} more" if len(names) > MOST_NAMED else ""
    return f"The PDF has no sign for: {', '.join(names[:MOST_NAMED])}{more}." if names else ""


def _lines(pdf: Pdf, text: str) -> list[str]:
    """A text in lines of the page's width."""
    whole = printable(pdf, text)
    found = pdf.multi_cell(WIDTH, LEADING, whole, dry_run=True, output="LINES")
    return found if isinstance(found, list) else [whole]


def _cut(pdf: Pdf, text: str) -> str:
    """A heading, cut where it would leave the page; it is set at 0.72 of the size of lines."""
    if pdf.get_string_width(text) * 0.72 <= WIDTH:
        return text
    while text and pdf.get_string_width(f"{text}…") * 0.72 > WIDTH:
        text = text[:-1]
    return f"{text}…"


def _rows(timed: TimedClass, pdf: Pdf) -> list[ScriptRow]:
    rows: list[ScriptRow] = []
    shown = part = ""
    starts = [cue.start for cue in timed.cues] + [timed.length]
    after = {cue.start: following for cue, following in zip(timed.cues, starts[1:], strict=True)}
    for segment, cues in blocks(timed):
        key = segment.use.flow or segment.id
        for cue in cues:
            dose = (
                f"{segment.use.rounds} round{'' if segment.use.rounds == 1 else 's'}"
                if segment.use.flow
                else segment.dose
            )
            heading = _cut(pdf, printable(pdf, f"{segment.name}, {dose}")) if key != shown else ""
            shown = key
            lines = _lines(pdf, cue.text)
            title = _cut(pdf, printable(pdf, segment.section)) if segment.section != part else ""
            part = segment.section
            rows.append(ScriptRow(segment, cue, heading, seconds(after[cue.start] - cue.end), lines, title))
    return rows


def pages(rows: Sequence[ScriptRow], head: float = LEADING * 2.2) -> list[list[ScriptRow]]:
    """The rows in pages, `head` millimetres of the first for the title.

    A page is turned in a silence near its end, or else in one further up; where there is none, in the
    longest there is.
    """
    found: list[list[ScriptRow]] = []
    start = 0
    while start < len(rows):
        height, end = 0.0, start
        room = BOTTOM - TOP - (head if not found else 0)
        while end < len(rows) and height + rows[end].height <= room:
            height += rows[end].height
            end += 1
        end = max(end, start + 1)
        if end < len(rows):
            full = end
            for share in SEARCHED:
                least = start + max(1, round((full - start) * (1 - share)))
                end = max(range(least, full + 1), key=lambda n: (rows[n - 1].quiet_s >= QUIET_S) * n)
                if rows[end - 1].quiet_s >= QUIET_S:
                    break
            else:
                end = max(range(least, full + 1), key=lambda n: rows[n - 1].quiet_s)
        found.append(list(rows[start:end]))
        start = end
    return found


def _figure(pdf: Pdf, segment: Segment, y: float) -> None:
    """The figure of a movement in the margin: beside its heading, or in a flow beside its line."""
    left, wide, high = FIGURE
    use = segment.use
    if segment.behaviour.is_talk:
        return
    one = portrait(use.movement, segment.side, use.end if use.flow else use.start)
    top = y - LEADING * 0.3
    if use.flow:
        top, high = y - LEADING * 0.78, LEADING * 0.96
    if one is not None:
        print_figure(pdf, one, (left, top, wide, high), segment.side)


def _page(pdf: Pdf, title: Sequence[str], rows: Sequence[ScriptRow], number: int, last: bool) -> None:
    y, shown = TOP, ""
    if number == 1:
        pdf.set_font("Title", "", TITLE_SIZE)
        pdf.set_text_color(*INK)
        for line in title:
            pdf.text(LEFT, y + 2, line)
            y += LEADING * 1.2
        y += LEADING
    for row in rows:
        colour = SIDE_INK.get(row.segment.side, INK)
        if row.part:
            pdf.set_font("Title", "", SIZE)
            pdf.set_text_color(*INK)
            pdf.text(LEFT, y + LEADING * 0.8, row.part)
            y += LEADING * PART
        if row.heading:
            pdf.set_font("Body", "B", SIZE * 0.72)
            pdf.set_text_color(*colour)
            pdf.text(LEFT, y + LEADING * 0.6, row.heading)
            if not row.segment.use.flow:
                _figure(pdf, row.segment, y)
            y += LEADING * HEAD
        pdf.set_font("Body", "", SIZE * 0.72)
        pdf.set_text_color(*INK)
        pdf.text(10, y, show_length(seconds(row.cue.start)))
        if row.cue.side in SIDE_INK:
            pdf.set_font("Body", "B", SIZE * 1.2)
            pdf.set_text_color(*SIDE_INK[row.cue.side])
            pdf.text(29, y, row.cue.side[0].upper())
        if row.segment.use.flow and row.segment.id != shown:
            _figure(pdf, row.segment, y)
        shown = row.segment.id
        pdf.set_font("Body", "", SIZE)
        pdf.set_text_color(*INK)
        for line in row.lines:
            pdf.text(LEFT, y, line)
            y += LEADING
    pdf.set_font("Body", "", 10)
    if not last:
        pdf.text(LEFT, 290, f"turn here: {rows[-1].quiet_s:.0f} s of quiet")
    pdf.text(190, 290, str(number))
