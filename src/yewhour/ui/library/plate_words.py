"""What stands on a movement's plate, in words: kinds, sides, positions, doses, and what a line is for."""

from typing import Any

from yewhour.content.terms import Terms, load_terms_file
from yewhour.core.lengths import show_length
from yewhour.core.library.card import OTHER_WAYS
from yewhour.core.library.kinds import BEHAVIOURS
from yewhour.core.library.movement import Movement
from yewhour.core.library.names import listed
from yewhour.ui.kit.controls.sentence import SentencePart

KIND_WORDS = {
    "hold": ("hold", "Held for so many breaths."),
    "clock": ("hold by the clock", "Held for so many seconds."),
    "phase": ("movement of one breath", "One phase of the breath, as in a flow."),
    "reps": ("set of repetitions", "Counted, each with its own rhythm."),
    "pulses": ("set of pulses", "Small, quick and counted."),
    "cycles": ("breathing practice", "Cycles of breath with a rhythm of their own."),
    "rapid": ("quick breathing practice", "Strokes of breath for so many seconds."),
    "counted": ("hold that is counted", "Held for so many counts."),
    "talk": ("piece of talk", "Words alone."),
    "setup": ("set-up", "Getting ready, with props."),
    "stillness": ("rest", "Stillness for so long."),
}
SIDE_WORDS = {
    "one": ("one side, then the other", "It has to be done on both."),
    "alternating": ("the sides in turn", "Each repetition on the other side."),
    "both": ("both sides at once", ""),
    "none": ("without sides", ""),
}
EFFORT_WORDS = ("none", "very light", "light", "middling", "strong", "very strong")
LINE_WORDS = {
    "call": "Called", "flow": "In a flow", "setup": "Getting there", "align": "The body",
    "stay": "Company", "on_inhale": "Breathing in", "on_full": "Full", "on_exhale": "Breathing out",
    "on_empty": "Empty", "on_effort": "The effort", "on_ease": "The way back", "on_part": "Each part",
    "remind": "Before the count", "half": "Halfway", "caution": "A caution", "prop": "The prop",
    "exit": "Leaving", "rest": "In the rest", "say": "Said",
}  # fmt: skip
# The beats of a card, in the order in which they are said; and the lines that a movement has beside its card.
CARD_WORDS = {
    "place": "How it is built", "placings": "Or built so", "protect": "Who is minded",
    "choice": "Another way", "first": "The first one", "aim": "What it is for", "check": "To look at",
    "keep": "While it goes", "image": "A picture", "deepen": "A step further", "late": "Near the end",
    "again": "Told again", "compare": "The other side", "leave": "Coming out",
    "leave_again": "And the next time",
}  # fmt: skip
BESIDE_CARD = (
    "flow",
    "on_inhale",
    "on_full",
    "on_exhale",
    "on_empty",
    "on_effort",
    "on_ease",
    "on_part",
    "half",
    "prop",
)
ALL_WORDS = {**CARD_WORDS, **LINE_WORDS}
ONE_ONLY = ("first", "again", "leave", "leave_again")
THEN = " // "  # between the lines of one way to build a shape
SIDES_SAID = {"{side}": "this", "{other}": "the other", "right": "the right", "left": "the left"}
RHYTHMIC = tuple(one.name for one in BEHAVIOURS.values() if one.rhythmic)
USUAL_RHYTHM = "exhale 4 inhale 4"

SENTENCE: tuple[str | SentencePart, ...] = (
    "A", ("kind", "Kind", ","), ("sides", "Sides", ","), "from", ("start", "Starts in", ""), "to",
    ("end", "Ends in", ":"), ("dose", "How much", ","), ("effort", "Effort", "."), "It matters for",
    ("cautions", "Matters for", "."), "At hand:", ("props", "Props", "."),
)  # fmt: skip


def position_words(position: str, usual: str) -> str:
    """A position as a reader says it; `usual` for none. What has no words is said as it is written."""
    return " or ".join(_place_words(one) for one in position.split(" or ")) if position else usual


def _place_words(place: str) -> str:
    side = next((word for word in SIDES_SAID if word in place), "")
    words = load_terms_file().positions.get(place.replace(side, "{side}") if side else place, place)
    return words.replace("{side}", SIDES_SAID.get(side, ""))


def dose_words(kind: str, dose: tuple[int, int, int]) -> str:
    """Least, preferred and most, as `3 to 8 breaths, 5 by itself`."""
    unit = next((one.unit for one in BEHAVIOURS.values() if one.name == kind), "")
    if not unit:
        return "once"
    least, best, most = dose
    if unit == "seconds":
        if least == most:
            return show_length(best)
        return f"{show_length(least)} to {show_length(most)}, {show_length(best)} by itself"
    noun = {"reps": "repetitions"}.get(unit, unit)
    if least == most:
        return f"{best} {noun if best != 1 else noun.removesuffix('s')}"
    return f"{least} to {most} {noun}, {best} by itself"


def plate_words(movement: Movement, terms: Terms) -> dict[str, str]:
    """The words of the sentence, by the key of what they change."""
    whom = [terms.cautions[one].whom if one in terms.cautions else one for one in movement.cautions]
    props = [terms.props.get(one, one) for one in movement.props]
    return {
        "kind": KIND_WORDS[movement.kind][0],
        "sides": SIDE_WORDS[movement.sides][0],
        "start": position_words(movement.start, "anywhere"),
        "end": position_words(movement.end, "where it began"),
        "dose": dose_words(movement.kind, movement.dose),
        "effort": f"effort {EFFORT_WORDS[movement.effort]}",
        "cautions": listed(whom) or "nobody in particular",
        "props": listed(props) or "nothing",
    }


def positions_for(terms: Terms, sides: str, now: str) -> list[str]:
    """The positions a movement may name: of its side where it has sides, and the one it has now."""
    if sides == "one":
        said = (
            (place, word)
            for place in terms.positions
            for word in ("{side}", "{other}")
            if "left" not in place
        )
        found = list(dict.fromkeys(place.replace("right", word) for place, word in said))
    else:
        found = list(terms.positions)
    return found if now in found or not now else [now, *found]


def wordings_of(value: Any) -> list[str]:
    """A table's lines for one purpose, each as it is written there."""
    return [value] if isinstance(value, str) else list(value or ())


def lines_shown(table: dict[str, Any]) -> dict[str, list[str]]:
    """All that a movement says, by what it is for: its card and what stands beside it, or its lines alone."""
    talk = table.get("talk")
    if not talk:
        return {purpose: wordings_of(table.get(purpose)) for purpose in LINE_WORDS if table.get(purpose)}
    found: dict[str, list[str]] = {}
    for beat in CARD_WORDS:
        value = talk.get(beat, ())
        found[beat] = [f"{tag}: {text}" for tag, text in value.items()] if beat == "protect" and value else []
        found[beat] = found[beat] or [
            one if isinstance(one, str) else THEN.join(one) for one in wordings_of(value)
        ]
    beside = {purpose: wordings_of(table.get(purpose)) for purpose in BESIDE_CARD}
    return {purpose: texts for purpose, texts in (found | beside).items() if texts}


def talk_with(talk: dict[str, Any], beat: str, texts: list[str]) -> dict[str, Any]:
    """A card with other lines for one of its beats; the minded are written `knees: what they do`."""
    rest = {key: value for key, value in talk.items() if key not in (beat, OTHER_WAYS.get(beat))}
    if not texts:
        return rest
    if beat == "protect":
        pairs = (text.partition(":") for text in texts)
        return {**rest, beat: {tag.strip(): said.strip() for tag, _, said in pairs}}
    if beat == "placings":
        return {**rest, beat: [[one.strip() for one in text.split(THEN.strip())] for text in texts]}
    return {**rest, beat: texts[0] if beat in ONE_ONLY else texts}
