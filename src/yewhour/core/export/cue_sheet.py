"""The cue sheet as CSV, for a spreadsheet."""

import csv
import io

from yewhour.core.lengths import seconds, show_length
from yewhour.core.timed_class import TimedClass

COLUMNS = ("start", "start_s", "end_s", "side", "section", "movement", "purpose", "line", "seconds")
_FORMULA = tuple("=+-@\t\r＝＋－＠")
_UNSEEN = " \u00a0\ufeff\u200b\u200c\u200d\u2060\u3000"  # a spreadsheet may look behind these


def cue_sheet(timed: TimedClass) -> str:
    """A row a cue. A cell that a spreadsheet would take for a formula starts with an apostrophe."""
    by_id = {segment.id: segment for segment in timed.segments}
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for cue in timed.cues:
        segment = by_id[cue.segment]
        start, end, name = seconds(cue.start), seconds(cue.end), segment.use.name
        writer.writerow(
            harmless(cell)
            for cell in (
                show_length(start), f"{start:.1f}", f"{end:.1f}", cue.side, segment.section, name,
                cue.purpose, cue.text, f"{end - start:.1f}",
            )
        )  # fmt: skip
    return out.getvalue()


def harmless(cell: str) -> str:
    """A cell that no spreadsheet takes for a formula."""
    return f"'{cell}" if cell.lstrip(_UNSEEN).startswith(_FORMULA) else cell
