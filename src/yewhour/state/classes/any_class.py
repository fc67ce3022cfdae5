"""A class from any file it may be in: a class file, or an outline as plain text."""

from pathlib import Path

from yewhour.core.outline.reader import read_outline
from yewhour.core.plan.plan import Plan
from yewhour.core.problem import Problem
from yewhour.core.teaching_data import TeachingData
from yewhour.files.atomic_files import read_all
from yewhour.state.classes.class_file import parse_plan

OUTLINES = (".txt", ".outline", ".md")


def read_class(path: Path, teaching_data: TeachingData) -> Plan:
    """The plan in a class file, or in an outline (.txt, .outline, .md). Raises Problem with the place."""
    content = read_all(path)
    if path.suffix.lower() not in OUTLINES:
        return parse_plan(content, str(path))
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise Problem("This is not plain text.", str(path), "Save the outline as UTF-8 text.") from error
    return read_outline(text, teaching_data.library, str(path), teaching_data.known)
