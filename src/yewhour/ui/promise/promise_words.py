"""The words of the promise's sentence: what stands in it, and how a brief is read in it."""

from collections.abc import Mapping

from yewhour.content.terms import Terms
from yewhour.core.lengths import show_length
from yewhour.core.library.names import listed
from yewhour.core.pace import Pace
from yewhour.core.plan.own_shares import own_share
from yewhour.core.plan.plan import Brief
from yewhour.core.plan.school import School
from yewhour.ui.kit.controls.sentence import SentencePart

_TIMES = {"": "at any time", "morning": "in the morning", "midday": "at midday", "evening": "in the evening",
          "night": "at night"}  # fmt: skip
BEGINS = {"standing": "on the feet", "sitting": "sitting", "kneeling": "on the knees", "lying": "lying down",
          "floor": "on the floor"}  # fmt: skip
_LEVELS = {"mixed": "at mixed level", "beginners": "for beginners", "gentle": "gentle",
           "experienced": "for the experienced"}  # fmt: skip
# Words to change: their key, what they are for a reader, what stands behind them.
SENTENCE: tuple[str | SentencePart, ...] = (
    ("title", "Title", ":"), "a", ("length", "Length", ""), ("style", "Style", ""), "for",
    ("audience", "For whom", ","), ("time", "Time of day", ","), ("level", "Level", "."), "It is about",
    ("focus", "About", "."), "Mind", ("cautions", "Who may be there", "."), "At hand:",
    ("props", "Props", "."), "The breath goes", ("pace", "The breath", ","), "my voice",
    ("voice", "The voice", ";"), "I face", ("camera", "The camera", "."), "Why I give it:",
    ("reason", "Why", "."), "Its thread:", ("theme", "The thread", "."),
)  # fmt: skip
SHORT = 36  # letters of what she wrote that stand in the sentence


def _begun(text: str) -> str:
    """What she wrote, as far as it stands in the sentence."""
    return text if len(text) <= SHORT else f"{text[: SHORT - 1].rstrip()}…"


def _paced(pace: Pace | None, own: float) -> str:
    """The breath as it is promised, and as she really breathes, where a recording showed that."""
    if pace is None:
        return "as the style has it"
    hers = f", {pace.breaths_per_min / own:.1f} as you breathe" if own != 1 else ""
    return f"{pace.breaths_per_min:g} a minute{hers}"


def said(
    brief: Brief, school: School | None, pace: Pace | None, terms: Terms, names: Mapping[str, str]
) -> dict[str, str]:
    """The words of the sentence, by the key of what they change. names: of movements and of groups, by id."""
    whole = brief.target_s % 60 == 0
    length = f"{round(brief.target_s / 60)}-minute" if whole else show_length(brief.target_s)
    whom = [terms.cautions[one].whom if one in terms.cautions else one for one in brief.cautions]
    towards = f", towards {names.get(brief.peak, brief.peak)}" if brief.peak else ""
    left = listed([names.get(one, one) for one in brief.without])
    without = f", and leave out {left}" if left else ""
    return {
        "title": brief.title,
        "length": length,
        "style": school.noun if school else "class",
        "audience": brief.audience or "anyone",
        "time": _TIMES.get(brief.time_of_day, brief.time_of_day)
        + (f", beginning {BEGINS.get(brief.begins, brief.begins)}" if brief.begins else ""),
        "level": _LEVELS.get(brief.level, brief.level),
        "focus": (listed([terms.areas.get(one, one) for one in brief.focus]) or "the whole body") + towards,
        "cautions": (listed(whom) or "nobody in particular") + without,
        "props": listed([terms.props.get(one, one) for one in brief.props]) or "nothing",
        "pace": _paced(pace, own_share(brief.own, "breath")),
        "voice": "as usual" if brief.voice_rate == 1 else f"{brief.voice_rate:g} times as quick as usual",
        "camera": f"the {brief.facing}" if brief.facing else "the front",
        "reason": f"“{_begun(brief.reason)}”" if brief.reason else "not said",
        "theme": f"“{_begun(brief.theme[0])}”" if brief.theme else "none",
    }
