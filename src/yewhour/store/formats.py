"""Everything a made class can be written as: `FORMATS` is the one list of them."""

from collections.abc import Callable

import msgspec

from yewhour.core.export import about, captions, chapters, contract, reading, table, timeline
from yewhour.core.made import Made
from yewhour.store.cards import cards_pdf, cards_picture
from yewhour.store.stand import stand_pdf


class Format(msgspec.Struct, frozen=True):
    """One way to write a class: its file ending, what it is for, and the function that writes it."""

    suffix: str
    about: str
    write: Callable[[Made], bytes]


def _text(write: Callable[[Made], str]) -> Callable[[Made], bytes]:
    return lambda made: write(made).encode()


FORMATS: dict[str, Format] = {
    "text": Format(".txt", "plain text for the music stand", _text(reading.text)),
    "pdf": Format(".pdf", "PDF for the music stand, in large type", stand_pdf),
    "cards": Format(".cards.pdf", "cards with figures, as a PDF to lay beside the mat", cards_pdf),
    "cards-picture": Format(".cards.png", "cards with figures, as a picture", cards_picture),
    "markdown": Format(".md", "Markdown, with a heading for each section", _text(reading.markdown)),
    "csv": Format(".csv", "cue sheet for a spreadsheet", _text(table.cue_sheet)),
    "srt": Format(".srt", "SubRip captions", _text(captions.srt)),
    "vtt": Format(".vtt", "WebVTT captions", _text(captions.vtt)),
    "chapters": Format(
        ".chapters.txt", "chapters for a video's description", _text(chapters.description_chapters)
    ),
    "ffmetadata": Format(".ffmeta", "chapters for FFmpeg", _text(chapters.ffmetadata)),
    "podcast": Format(".chapters.json", "JSON chapters for podcasts", chapters.podcast_chapters),
    "labels": Format(".labels.txt", "label track for a sound editor", _text(chapters.labels)),
    "description": Format(".description.txt", "text to go under the recording", _text(about.description)),
    "otio": Format(".otio", "OpenTimelineIO, with a marker for each movement", timeline.timeline),
    "json": Format(".json", "everything, for other programs", contract.script_json),
}
