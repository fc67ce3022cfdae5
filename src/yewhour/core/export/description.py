"""The description text: what the class is, who it suits, what it needs, and its chapters."""

from yewhour.core.export.chapters import description_chapters
from yewhour.core.lengths import show_length
from yewhour.core.timed_class import TimedClass

CAUTION = (
    "Work without pain, and stop if anything hurts or you feel dizzy. If you are unsure whether this is for "
    "you, ask a doctor or a qualified teacher first."
)


def description(timed: TimedClass) -> str:
    """Plain text to go under a recording."""
    brief = timed.plan.brief
    parts = [f"{brief.title} ({show_length(timed.length_s)})"]
    if brief.audience:
        parts.append(f"For {brief.audience}.")
    if brief.reason:
        parts.append(brief.reason)
    parts.append(f"You need: {', '.join(timed.props) if timed.props else 'nothing but a mat'}.")
    if brief.focus:
        parts.append(f"Focus: {', '.join(brief.focus)}.")
    if brief.cautions:
        parts.append(f"Gentler ways are offered for: {', '.join(brief.cautions)}.")
    parts += [CAUTION, description_chapters(timed).rstrip()]
    return "\n\n".join(parts) + "\n"
