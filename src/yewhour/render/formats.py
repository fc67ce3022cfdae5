"""Everything a made class can be written as: `FORMATS` is the one list of them."""

from collections.abc import Callable
from typing import TYPE_CHECKING

import msgspec

from yewhour.core.timed_class import TimedClass
from yewhour.files.late import late

if TYPE_CHECKING:
    from yewhour.core.export import captions, chapters, contract, cue_sheet, description, reading, timeline
    from yewhour.render import cards_pdf, script_pdf
else:  # of fifteen, a command writes one; all together they are a tenth of its memory
    captions = late("yewhour.core.export.captions")
    chapters = late("yewhour.core.export.chapters")
    contract = late("yewhour.core.export.contract")
    cue_sheet = late("yewhour.core.export.cue_sheet")
    description = late("yewhour.core.export.description")
    reading = late("yewhour.core.export.reading")
    timeline = late("yewhour.core.export.timeline")
    cards_pdf = late("yewhour.render.cards_pdf")
    script_pdf = late("yewhour.render.script_pdf")


class Format(msgspec.Struct, frozen=True):
    """One way to write a class: its file ending, what it is for, and the function that writes it."""

    suffix: str
    about: str
    write: Callable[[TimedClass], bytes]


FORMATS: dict[str, Format] = {
    "text": Format(".txt", "plain text for the music stand", lambda timed: reading.text(timed).encode()),
    "pdf": Format(
        ".pdf", "PDF for the music stand, in large type", lambda timed: script_pdf.script_pdf(timed)
    ),
    "cards": Format(
        ".cards.pdf",
        "cards with figures, as a PDF to lay beside the mat",
        lambda timed: cards_pdf.cards_pdf(timed),
    ),
    "cards-picture": Format(
        ".cards.png", "cards with figures, as a picture", lambda timed: cards_pdf.cards_picture(timed)
    ),
    "markdown": Format(
        ".md", "Markdown, with a heading for each section", lambda timed: reading.markdown(timed).encode()
    ),
    "csv": Format(".csv", "cue sheet for a spreadsheet", lambda timed: cue_sheet.cue_sheet(timed).encode()),
    "srt": Format(".srt", "SubRip captions", lambda timed: captions.srt(timed).encode()),
    "vtt": Format(".vtt", "WebVTT captions", lambda timed: captions.vtt(timed).encode()),
    "chapters": Format(
        ".chapters.txt",
        "chapters for a video's description",
        lambda timed: chapters.description_chapters(timed).encode(),
    ),
    "ffmetadata": Format(".ffmeta", "chapters for FFmpeg", lambda timed: chapters.ffmetadata(timed).encode()),
    "podcast": Format(
        ".chapters.json", "JSON chapters for podcasts", lambda timed: chapters.podcast_chapters(timed)
    ),
    "labels": Format(
        ".labels.txt", "label track for a sound editor", lambda timed: chapters.labels(timed).encode()
    ),
    "description": Format(
        ".description.txt",
        "text to go under the recording",
        lambda timed: description.description(timed).encode(),
    ),
    "otio": Format(
        ".otio", "OpenTimelineIO, with a marker for each movement", lambda timed: timeline.timeline(timed)
    ),
    "json": Format(".json", "everything, for other programs", lambda timed: contract.script_json(timed)),
}
