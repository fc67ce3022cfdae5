"""Everything a made class can be written as: `FORMATS` is the one list of them."""

from collections.abc import Callable

import msgspec

from yewhour.core.export import (
    captions,
    chapters,
    contract,
    cue_sheet,
    description,
    reading,
    timeline,
)
from yewhour.core.timed_class import TimedClass
from yewhour.render.cards_pdf import cards_pdf, cards_picture
from yewhour.render.script_pdf import script_pdf


class Format(msgspec.Struct, frozen=True):
    """One way to write a class: its file ending, what it is for, and the function that writes it."""

    suffix: str
    about: str
    write: Callable[[TimedClass], bytes]


def _text(write: Callable[[TimedClass], str]) -> Callable[[TimedClass], bytes]:
    return lambda timed: write(timed).encode()


FORMATS: dict[str, Format] = {
    "text": Format(".txt", "plain text for the music stand", _text(reading.text)),
    "pdf": Format(".pdf", "PDF for the music stand, in large type", script_pdf),
    "cards": Format(".cards.pdf", "cards with figures, as a PDF to lay beside the mat", cards_pdf),
    "cards-picture": Format(".cards.png", "cards with figures, as a picture", cards_picture),
    "markdown": Format(".md", "Markdown, with a heading for each section", _text(reading.markdown)),
    "csv": Format(".csv", "cue sheet for a spreadsheet", _text(cue_sheet.cue_sheet)),
    "srt": Format(".srt", "SubRip captions", _text(captions.srt)),
    "vtt": Format(".vtt", "WebVTT captions", _text(captions.vtt)),
    "chapters": Format(
        ".chapters.txt", "chapters for a video's description", _text(chapters.description_chapters)
    ),
    "ffmetadata": Format(".ffmeta", "chapters for FFmpeg", _text(chapters.ffmetadata)),
    "podcast": Format(".chapters.json", "JSON chapters for podcasts", chapters.podcast_chapters),
    "labels": Format(".labels.txt", "label track for a sound editor", _text(chapters.labels)),
    "description": Format(
        ".description.txt", "text to go under the recording", _text(description.description)
    ),
    "otio": Format(".otio", "OpenTimelineIO, with a marker for each movement", timeline.timeline),
    "json": Format(".json", "everything, for other programs", contract.script_json),
}
