"""What a made class can be written as. `FORMATS` is the one list of them."""

from collections.abc import Callable

import msgspec

from yewhour.core.export.captions import srt, vtt
from yewhour.core.export.contract import script_json
from yewhour.core.export.reading import markdown, text
from yewhour.core.made import Made


class Format(msgspec.Struct, frozen=True):
    """One way to write a script: its file ending, what it is for, and the function that writes it."""

    suffix: str
    about: str
    write: Callable[[Made], bytes]


FORMATS: dict[str, Format] = {
    "text": Format(".txt", "plain text for the music stand", lambda made: text(made).encode()),
    "markdown": Format(
        ".md", "Markdown, with a heading for each section", lambda made: markdown(made).encode()
    ),
    "srt": Format(".srt", "SubRip captions", lambda made: srt(made).encode()),
    "vtt": Format(".vtt", "WebVTT captions", lambda made: vtt(made).encode()),
    "json": Format(".json", "everything, for other programs", script_json),
}
