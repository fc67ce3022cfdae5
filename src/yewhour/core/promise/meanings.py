"""What a phrase of a promise is: the wish it makes in its context, and the question where it is not
understood."""

from collections.abc import Mapping

from yewhour.core.library.names import listed
from yewhour.core.promise.grammar import Context
from yewhour.core.promise.vocabulary import Kind, Lexicon, Phrase, tokens_of
from yewhour.core.promise.wishes import State, Wish
from yewhour.core.teaching_data import TeachingData

_LEAVES = ("group", "movement", "prop", "area", "style", "level", "everyday", "unmet", "ways")
_WHEN = {
    "morning": "for the morning",
    "midday": "for midday",
    "evening": "for the evening",
    "night": "for the night",
}
_BEGINS = {
    "standing": "on the feet", "sitting": "sitting", "kneeling": "on the knees", "lying": "lying down",
    "floor": "on the floor",
}  # fmt: skip
_LEVELS = {
    "beginners": "for beginners", "gentle": "gentle", "mixed": "mixed level",
    "experienced": "for the experienced",
}  # fmt: skip
_QUIETER = {"counting": "counting is silent", "talk": "few words", "names": "names in English"}
_HEALTH = "It is a word of health that no rule here is for: what should the class leave out?"
_ASKED = {
    "mind": ("It is to be minded", ("mind knees", "mind low back")),
    "without": ("It is to be left out", ("no kneeling", "no twists")),
    "after": ("It came before the class", ("mind low back",)),
    "": ("It sounds like a word of health", ("mind knees", "mind low back")),
}


class Meanings:
    """Makes wishes of phrases."""

    def __init__(self, lexicon: Lexicon, teaching_data: TeachingData, areas: Mapping[str, str]) -> None:
        self.lexicon, self.teaching_data, self.areas = lexicon, teaching_data, areas

    def condition(self, text: str, tag: str, state: State = "kept", reason: str = "") -> Wish:
        """Somebody who may be in the room."""
        whom = self.teaching_data.conditions.conditions[tag].whom
        return Wish(text, f"minded: {whom}", state, reason, "condition", tag)

    def of(self, said: str, kind: Kind, key: str, context: Context, typed_as: Phrase | None) -> Wish:
        """What was said, as what it was read as. typed_as: the phrase it is like, where it was mistyped."""
        state: State = "guessed" if typed_as else "kept"
        reason = f"read as \u201c{' '.join(typed_as)}\u201d" if typed_as else ""
        if kind == "health":
            return self._of_health(said, key)
        if kind in ("condition", "part"):
            return self.condition(said, key, state, reason)
        if kind == "prop" and key == "block" and said.lower().endswith("s"):
            key = "two blocks"
        if context == "without" and kind in _LEAVES:
            return self._without(said, kind, key, state, reason)
        if kind == "movement":
            name = self.teaching_data.library[key].name
            if context == "towards":
                return Wish(said, f"its peak: {name}", state, reason, "peak", key)
            return Wish(said, f"with {name}", state, reason, kind, key)
        return self._plain(said, kind, key, state, reason)

    def _plain(self, said: str, kind: Kind, key: str, state: State, reason: str) -> Wish:
        words = self.lexicon.words
        match kind:
            case "everyday":
                return Wish(said, words.everyday[key].meaning, "guessed", reason, kind, key)
            case "length":
                return Wish(
                    said, f"{key} minutes", "guessed", "no number was said", kind, str(int(key) * 60.0)
                )
            case "unmet":
                return Wish(said, "", "unmet", words.unmet[key], kind, key)
            case "group":
                meaning = f"with {self.teaching_data.conditions.groups[key].name}"
            case "prop":
                meaning = f"{key} at hand"
            case "area":
                meaning = f"about {self.areas.get(key, key)}"
            case "style":
                meaning = self.teaching_data.schools[key].noun
            case "time":
                meaning = _WHEN[key]
            case "level":
                meaning = _LEVELS[key]
            case "begins":
                meaning = f"beginning {_BEGINS[key]}"
            case _:
                meaning = said
        return Wish(said, meaning, state, reason, kind, key)

    def _of_health(self, said: str, key: str) -> Wish:
        known = self.teaching_data.conditions.conditions
        near = [(*known[one].parts, *known[one].words)[0] for one in self.lexicon.words.health[key]]
        could = tuple(f"mind {one}" for one in near)
        return Wish(said, "", "unknown", _HEALTH, "health", key, True, could)

    def _without(self, text: str, kind: Kind, key: str, state: State, reason: str) -> Wish:
        """What is not wanted. A part of the body that is not to be worked is one to be minded."""
        conditions, library = self.teaching_data.conditions, self.teaching_data.library
        said = f"no {text}"
        if kind == "level":
            level = "gentle" if key == "experienced" else "mixed"
            return Wish(said, _LEVELS[level], "guessed", reason, "level", level)
        if kind == "area":
            tags = (tag for tag, one in conditions.conditions.items() if key in (*one.parts, tag))
            if tag := next(tags, ""):
                return self.condition(said, tag)
        if kind == "everyday" and self.lexicon.words.everyday[key].without:
            could = ("no standing", "no kneeling", "no floor")
            return Wish(text, "", "unknown", "It says where the body is not to be.", asks=True, could=could)
        if kind not in ("group", "movement", "prop", "ways"):
            return Wish(said, f"not {text}", "unmet", "nothing here changes by that", "ways", "")
        name = {"group": lambda: conditions.groups[key].name, "movement": lambda: library[key].name}.get(kind)
        meaning = _QUIETER.get(key) or f"without {name() if name else key}"
        return Wish(said, meaning, state, reason, kind, f"-{key}")

    def nowhere(self, said: str) -> Wish:
        """A complaint of nothing that was named: `injured`. It asks."""
        what, could = _ASKED["mind"]
        return Wish(said, "", "unknown", f"{what}, and nothing says what, or where.", asks=True, could=could)

    def unknown(self, said: str, context: Context, health: bool) -> Wish:
        """A word that is not understood: it asks where it is of health, of a body or a prohibition."""
        if context in ("mind", "without", "after") or health:
            what, could = _ASKED[context if context in _ASKED else ""]
            why = f"{what}, and nobody here knows the word."
            return Wish(said, "", "unknown", why, asks=True, could=self._near(said) or could)
        if context == "with":
            return Wish(said, "", "unmet", "there is nothing of that name here; the class is made without it")
        if context == "towards":
            near = self._movements_like(said)
            hint = f"; near: {listed(near)}" if near else ""
            return Wish(said, "", "unmet", f"there is no movement of that name here{hint}")
        return Wish(said, "", "unknown", "the class is made without it")

    def _near(self, said: str) -> tuple[str, ...]:
        """What may be minded where a part of the body is named that no rule is for: `hamstring tear`."""
        words = [token.plain for token in tokens_of(said)]
        phrases = (tuple(words[at : at + many]) for many in (2, 1) for at in range(len(words)))
        areas = (self.lexicon.phrases.get(phrase, {}).get("area", "") for phrase in phrases)
        named = next((near for one in areas if (near := self.lexicon.words.nearest.get(one))), ())
        return tuple(f"mind {one}" for one in named)

    def _movements_like(self, said: str) -> list[str]:
        # 20 ms; only a name that is not known asks.
        from rapidfuzz import fuzz, process

        names = [" ".join(phrase) for phrase, meant in self.lexicon.phrases.items() if "movement" in meant]
        found = process.extract(said.lower(), names, scorer=fuzz.ratio, limit=2, score_cutoff=60)
        return [name for name, _, _ in found]
