"""A brief from wishes: what she said wins, everyday words fill what nothing else says."""

import re
from collections import Counter
from collections.abc import Mapping, Sequence
from typing import Any

import msgspec

from yewhour.core.draft.draft_model import BREATHS, MORE_THAN_LEAST
from yewhour.core.lengths import show_length
from yewhour.core.library.movement import Movement
from yewhour.core.library.names import listed
from yewhour.core.plan.plan import Brief
from yewhour.core.promise.grammar import ARTICLES
from yewhour.core.promise.title import title_of
from yewhour.core.promise.vocabulary import PromiseVocabulary
from yewhour.core.promise.wishes import ReadPromise, Wish
from yewhour.core.teaching_data import TeachingData

_QUIET_TALK, _WEAK_STYLE, _SEATED = 0.35, "hatha", "chair-balance"
_BREATHING = "breathing"
_BREATH_PRACTICES = "breath practices"
_ROUNDS, _ROUNDED = "sun-salutation", ("hatha", "flow")
_ADJECTIVES = ("yoga", "slow")  # a style, unless another is named
_WAYS: dict[str, dict[str, Any]] = {
    "counting": {"counting": "silent"}, "talk": {"talk": _QUIET_TALK}, "names": {"names": "english"},
}  # fmt: skip
_SCAN = "anything but lying still"
_LYING = frozenset(("anything but lying", _SCAN, "anything not done in bed"))
_PLACED = ("anything but", "anything off", "anything not")
# Whom a class can be for: several of a trade, or a word for a company. "A run" and "feet" are no people.
_COMPANY = {"people", "men", "women", "staff", "crew", "folk", "police", "choir", "team", "couple", "army"}
_THINGS = {
    "boxes", "commutes", "drives", "journeys", "trips", "flights", "holidays", "meetings", "calls", "days",
    "hours", "feet", "runs", "rides", "lessons", "shifts", "months",
}  # fmt: skip
_WHERE = re.compile(r"\s(?:who|at|on|in|with|from|for|over|under|past)\b.*")
LEVEL_STYLES = ("chair-balance", "restorative", "breathing", "slow")  # that grow towards nothing
LAIN_ON = ("bolster", "blanket", "cushion")  # what a restorative class has, where no prop is named
_PILED = ("pillows", "cushions", "sofa cushions")  # of which a bolster is made at home
MOST_REST = 0.5  # of a class, that is rest at its end, however much is asked for
LED_UP_TO = 4  # effort from which a movement that is asked for is what the class grows towards
# Who has a chair in reach, unless there is a wall, and where nobody goes to the floor.
CHAIRED = ("chair-only", "older", "balance", "stroke", "floor")


def brief_of(
    wishes: Sequence[Wish],
    brief: Brief | None,
    words: PromiseVocabulary,
    teaching_data: TeachingData,
    areas: Mapping[str, str],
) -> ReadPromise:
    """The brief that wishes make, over one that has the rest, and the wishes as they can stand together."""
    fields: dict[str, Any] = {}
    lists: dict[str, list[str]] = {name: [] for name in ("focus", "cautions", "without", "wanted", "props")}
    said: dict[str, str] = {}
    ways: dict[str, Any] = {}
    told: list[Wish] = []
    if any(one.kind == "style" and one.key != _SEATED and not _is_weak(one) for one in wishes):
        wishes = [_at_hand(one) for one in wishes]
    if any(one.kind == "style" and one.key in _ROUNDED and not _is_weak(one) for one in wishes):
        wishes = [_in_rounds(one) for one in wishes]
    if _breathes(wishes, words, teaching_data):
        fields["style"] = _BREATHING
        wishes = [_sat_on(one) for one in wishes]
    else:
        wishes = _breathing_beside(wishes, words, teaching_data)
    on_it = next((one for one in wishes if _is_a_seat(one, words)), None)
    if fields.get("style") == _BREATHING:
        on_it = None
    for wish in wishes:
        seated = wish if on_it is None else _on_the_chair(wish, on_it, teaching_data)
        told.append(_put(seated, fields, lists, said, ways, words, teaching_data))
    told = [_unhurried(one, fields) for one in told]
    told.sort(key=lambda one: one.kind == "everyday" and words.everyday[one.key].gives_way)
    told = [
        _fill(one, fields, lists, said, words) if one.kind == "everyday" and one.state != "unmet" else one
        for one in told
    ]
    if any(one.kind == "everyday" and words.everyday[one.key].bare for one in told):
        fields["props"] = ()
    fields.pop("weak", None)
    if lists["cautions"] and not any(one.kind == "level" for one in told):
        told = [_no_harder(one, fields, words) for one in told]
    for tag in (*lists["cautions"], *(one for one in lists["without"] if one == "floor")):
        if tag in CHAIRED and not {"chair", "wall"} & {*lists["props"]} and "props" not in fields:
            lists["props"].append("chair")
            made = "the class is made with it"
            told.append(Wish(said.get(tag, tag), "a chair in reach", "guessed", made, "prop", "chair"))
    rules = teaching_data.conditions.conditions
    propped = any("back" in rules[one].out or rules[one].shapes for one in lists["cautions"] if one in rules)
    if propped and _SCAN in lists["without"]:  # nobody lies flat for half an hour who shouldn't
        lists["without"].remove(_SCAN)
        said.pop(_SCAN, None)
        told = [_beside_it(one, words) for one in told]
    if "older" in lists["cautions"] and "balance" in lists["focus"]:
        fields.setdefault("style", _SEATED)  # where balance is practised with a chair in reach
    usual = {words.style_for.get(one, "") for one in lists["focus"]}
    placed = any(one.startswith(_PLACED) for one in lists["without"])
    if len(usual) == 1 and (where := usual.pop()) and not placed and not lists["wanted"]:
        fields.setdefault("style", where)
    if any(
        teaching_data.library[one].start == "chair" for one in lists["wanted"] if one in teaching_data.library
    ):
        fields.setdefault("style", _SEATED)  # "sit to stand": there is a chair, and it is what one sits on
    if tradition := _tradition(lists, fields, words, teaching_data):
        fields.setdefault("style", tradition)
    style = fields.get("style", "")
    if style == _SEATED and "chair" not in lists["props"]:
        lists["props"].append("chair")
    pillows = next((one.text for one in told if one.text.lower() in _PILED), "")
    if style == "restorative" and pillows and "bolster" not in lists["props"]:
        lists["props"].append("bolster")
        said["bolster"] = pillows
        made = "two firm ones, one on the other, are the bolster it speaks of"
        told.append(Wish(pillows, "a bolster", "guessed", made, "prop", "bolster"))
    still = _SCAN in lists["without"]
    if style == "restorative" and not still and not lists["props"] and "props" not in fields:
        lists["props"] += LAIN_ON
        reason = "restorative shapes lie on something"
        meaning = f"{listed(LAIN_ON)} at hand"
        told.append(Wish("restorative", meaning, "guessed", reason, "prop", LAIN_ON[0]))
    named = [teaching_data.library.get(one) for one in (*lists["wanted"], fields.get("peak", ""))]
    needed = [prop for one in named if one is not None for prop in one.props]
    for prop in dict.fromkeys(needed):
        if prop not in lists["props"] and "props" not in fields:
            lists["props"].append(prop)
            meaning = f"{prop} at hand" if prop.startswith("two ") else f"a {prop} at hand"
            told.append(Wish(prop, meaning, "guessed", "what was named needs it", "prop", prop))
    threads = [
        words.everyday[one.key].thread for one in told if one.kind == "everyday" and one.state != "unmet"
    ]
    grown_up = "children" not in lists["cautions"]
    thread = next(filter(None, threads), "")
    before = brief or Brief()
    if grown_up and thread and (not any(before.theme) or before.theme in words.threads_shipped):
        ways_to_say = words.threads[thread]
        fields["theme"] = ways_to_say[sum(len(one.text) for one in wishes) % len(ways_to_say)]
    if grown_up and (not before.reason or before.reason in words.reasons_shipped):
        fields["reason"] = _reason(told, fields, lists, before, words, bare=not thread)
    resting = [words.everyday[one.key].rests for one in told if one.kind == "everyday"]
    if any(resting):
        ways.setdefault("least_rest", max(resting))
    told = [_rested(one, fields, ways, brief or Brief(), teaching_data) for one in told]
    without = {*lists["without"]}
    lists["focus"] = [one for one in lists["focus"] if one not in without]
    fields |= {name: tuple(dict.fromkeys(values)) for name, values in lists.items() if values}
    if ways:
        fields["ways"] = {**(brief.ways if brief else {}), **ways}
    if said:
        fields["said"] = said
    read = _with_peak(msgspec.structs.replace(brief or Brief(), **fields), told, teaching_data)
    if "title" not in fields and (brief is None or brief.title in ("", Brief().title)):
        everyday = [words.everyday[one.key] for one in told if one.kind == "everyday"]
        called, titled = next((one for one in everyday if one.called), None), read
        if called and read.focus == called.focus and not any(one.kind == "area" for one in told):
            others = tuple(one for one in read.cautions if one not in called.cautions)
            titled = msgspec.structs.replace(read, focus=(), cautions=others)  # its name says it
        kind = called.called if called else ""
        read = msgspec.structs.replace(read, title=title_of(titled, areas, teaching_data, kind, words.areas))
    return ReadPromise(read, tuple(told))


def _unhurried(wish: Wish, fields: dict[str, Any]) -> Wish:
    """`slow` beside another style, "slow pilates": that style, and gently."""
    if wish.kind != "style" or wish.text.lower() != "slow" or fields.get("style") == wish.key:
        return wish
    fields.setdefault("level", "gentle")
    return msgspec.structs.replace(wish, kind="level", key="gentle", meaning="unhurried", state="guessed")


def _no_harder(wish: Wish, fields: dict[str, Any], words: PromiseVocabulary) -> Wish:
    """`strength` where somebody is minded: it is worked for, and not harder than all can do."""
    asks = wish.kind == "everyday" and words.everyday[wish.key].level == "experienced"
    if not asks or fields.get("level") != "experienced":
        return wish
    fields["level"] = "mixed"
    return msgspec.structs.replace(wish, reason="no harder than those who are minded can work")


def _with_peak(brief: Brief, told: Sequence[Wish], teaching_data: TeachingData) -> Brief:
    """A brief whose class grows towards the hardest movement that is asked for: nobody does it unprepared."""
    library, room = teaching_data.library, teaching_data.room(brief)
    asked = [one.key for one in told if one.kind == "movement" and one.key in brief.wanted]
    hard = [one for one in asked if _is_led_up_to(library[one]) and not room.left_out(library[one])]
    if brief.peak or brief.style in LEVEL_STYLES:
        return brief
    if hard:
        peak = max(hard, key=lambda name: library[name].effort)
    else:  # "arm balances": the first of them that all can do
        groups = (
            teaching_data.conditions.groups[one.key]
            for one in told
            if one.kind == "group" and one.key in brief.wanted
        )
        peak = next(
            (name for group in groups if all(library[one].effort >= LED_UP_TO for one in group.movements)
             for name in group.movements if not room.left_out(library[name])), "",
        )  # fmt: skip
        if not peak:
            return brief
    wanted = tuple(one for one in brief.wanted if one != peak)
    return msgspec.structs.replace(brief, peak=peak, wanted=wanted)


def _is_led_up_to(movement: Movement) -> bool:
    return movement.effort >= LED_UP_TO or "inversion" in movement.marks


def _is_weak(wish: Wish) -> bool:
    return wish.text.lower() in _ADJECTIVES


def _at_hand(wish: Wish) -> Wish:
    """`chair` beside a style is a thing at hand: "bolster, chair, restorative"."""
    if (wish.kind, wish.key, wish.text.lower()) != ("style", _SEATED, "chair"):
        return wish
    return msgspec.structs.replace(wish, kind="prop", key="chair", meaning="chair at hand")


def _beside_it(wish: Wish, words: PromiseVocabulary) -> Wish:
    """A body scan, for who is not to lie on the back: the nearest is rest in shapes that are built."""
    if wish.kind != "everyday" or _SCAN not in words.everyday[wish.key].without:
        return wish
    reason = "who may be there is not to lie flat for so long"
    return msgspec.structs.replace(wish, meaning="rest in propped shapes", reason=reason)


def _in_rounds(wish: Wish) -> Wish:
    """`sun salutations` beside a class that can have them, and isn't only that: "hatha, sun salutations"."""
    if (wish.kind, wish.key) != ("style", _ROUNDS):
        return wish
    return msgspec.structs.replace(wish, kind="group", key="salutations", meaning="with sun salutations")


def _rested(
    wish: Wish, fields: Mapping[str, Any], ways: dict[str, Any], brief: Brief, teaching_data: TeachingData
) -> Wish:
    """A wish for a rest that is so long, as far as a class of its style rests at all."""
    if wish.kind != "rest":
        return wish
    school = teaching_data.schools.get(fields.get("style", brief.style))
    if school is not None and not school.least_rest:
        return msgspec.structs.replace(wish, state="unmet", reason="a class of this kind ends without a rest")
    share = float(wish.key) / float(fields.get("target_s", brief.target_s))
    ways["least_rest"] = min(MOST_REST, round(share / MORE_THAN_LEAST, 4))
    return wish


def _breathes(wishes: Sequence[Wish], words: PromiseVocabulary, teaching_data: TeachingData) -> bool:
    """Whether breath practices are asked for and nothing else: by their names, or as the kind of class."""
    named = [
        teaching_data.library[one.key] for one in wishes if one.kind == "movement" and one.key[:1] != "-"
    ]
    others = {one.key for one in wishes if one.kind == "style" and not _is_weak(one) and not _is_a_place(one)}
    others -= {_BREATHING}
    as_kind = any(one.kind == "style" and one.key == _BREATHING for one in wishes)
    by_name = bool(named) and all(one.family in BREATHS for one in named)
    about = any(one.kind == "area" and one.key in words.style_for for one in wishes)
    return not others and (by_name or (as_kind and not named and not about))


def _breathing_beside(
    wishes: Sequence[Wish], words: PromiseVocabulary, teaching_data: TeachingData
) -> list[Wish]:
    """The wishes, where breathing stands beside movements, or an area that has a style of its own, as one
    more thing to be done: `breathing, heel slides, clam`."""
    named = {one.key for one in wishes if one.kind == "movement"} & {*teaching_data.library}
    about = {one.key for one in wishes if one.kind == "area"} & {*words.style_for}
    if not any(teaching_data.library[one].family not in BREATHS for one in named) and not about:
        return [*wishes]
    meaning = f"with {teaching_data.conditions.groups[_BREATH_PRACTICES].name}"
    return [
        Wish(one.text, meaning, one.state, "", "group", _BREATH_PRACTICES)
        if one.kind == "style" and one.key == _BREATHING else one
        for one in wishes
    ]  # fmt: skip


def _is_a_place(wish: Wish) -> bool:
    """Whether a wish for the chair says where, `on a chair`, and not what: `chair yoga`."""
    return wish.key == _SEATED and wish.text.lower().startswith(("on ", "in ", "from ", "sitting "))


def _sat_on(wish: Wish) -> Wish:
    """`on a chair`, of a class of breathing: it is done there, and it is no chair class."""
    if wish.kind != "style" or wish.key not in (_SEATED, _WEAK_STYLE):
        return wish
    if wish.key == _WEAK_STYLE:  # "yoga breathing"
        return msgspec.structs.replace(wish, key=_BREATHING, meaning="breathing practice")
    return Wish(
        wish.text, "on a chair, from the beginning to the end", "guessed", kind="everyday", key="in-a-seat"
    )


def _is_a_seat(wish: Wish, words: PromiseVocabulary) -> bool:
    """Whether a wish seats the class on chairs, and doesn't only want one at hand."""
    if wish.kind == "everyday":
        word = words.everyday[wish.key]
        return word.style == _SEATED and not word.gives_way
    return wish.kind == "style" and wish.key == _SEATED and wish.text.lower() != "chair"


def _on_the_chair(wish: Wish, on_it: Wish, teaching_data: TeachingData) -> Wish:
    """A wish in a class on the chair: nobody is sent to the floor for another style; a movement of the mat is
    the one of that name there, if any."""
    if wish.kind == "style" and wish.key != _SEATED:
        seat, noun = teaching_data.schools[_SEATED].noun, teaching_data.schools[wish.key].noun
        reason = f"\u201c{on_it.text}\u201d seats it, and a {noun} leaves the chair"
        return Wish(wish.text, f"a {seat}", "guessed", reason, "style", _SEATED)
    if wish.kind not in ("movement", "everyday") or wish.key.startswith(("-", "chair-")):
        return wish
    known = (name for name in teaching_data.library if name.startswith("chair-"))
    name = next((one for one in known if f"-{wish.key}-" in f"{one}-"), "")
    if not name:
        return wish
    meaning = f"with {teaching_data.library[name].name}"
    return msgspec.structs.replace(wish, kind="movement", key=name, meaning=meaning)


def _put(
    wish: Wish,
    fields: dict[str, Any],
    lists: dict[str, list[str]],
    said: dict[str, str],
    ways: dict[str, Any],
    words: PromiseVocabulary,
    teaching_data: TeachingData,
) -> Wish:
    """Takes one wish into the brief; gives it back as it stands beside those before it."""
    key, less = wish.key.lstrip("-"), wish.key.startswith("-")
    match wish.kind:
        case "condition":
            lists["cautions"].append(key)
            said.setdefault(key, wish.text)
        case "prop" | "group" | "movement" if less:
            if wish.kind == "prop":
                lists["without"] += [one.id for one in teaching_data.library.values() if key in one.props]
            else:
                lists["without"].append(key)
            said.setdefault(key, wish.text)
        case "prop":
            lists["props"].append(key)
        case "area":
            lists["focus"].append(key)
            said.setdefault(key, wish.text)
        case "movement":
            lists["wanted"].append(key)
            said.setdefault(key, wish.text)
        case "group":
            lists["wanted"].append(key)
            said.setdefault(key, wish.text)
        case "ways" if key in ("counting", "talk", "names"):
            ways |= _WAYS[key]
        case "style" | "level" | "time" | "length" | "peak" | "title" | "audience" | "begins":
            return _single(wish, fields, lists, said, teaching_data)
        case _:
            pass
    return wish


_FIELDS = {"style": "style", "level": "level", "time": "time_of_day", "length": "target_s", "peak": "peak",
           "title": "title", "audience": "audience", "begins": "begins"}  # fmt: skip


def _single(
    wish: Wish,
    fields: dict[str, Any],
    lists: dict[str, list[str]],
    said: dict[str, str],
    teaching_data: TeachingData,
) -> Wish:
    """A wish of which a class has one; a second one that is another can't be kept beside it."""
    field = _FIELDS[wish.kind]
    value: Any = float(wish.key) if wish.kind == "length" else wish.key
    if field not in fields or fields[field] == value:
        weak = wish.kind == "style" and _is_weak(wish)
        fields[field] = value
        if weak:
            fields["weak"] = True
        if wish.kind == "peak":
            said.setdefault(wish.key, wish.text)
        return wish
    if wish.kind == "style":
        weak = fields.pop("weak", False)
        if wish.key == _WEAK_STYLE and wish.text.lower() == "yoga":
            return wish
        if wish.text.lower() == "slow":
            return wish  # told as unhurried, see _unhurried
        if weak:
            fields["style"] = wish.key
            return wish
        other = teaching_data.schools[fields["style"]].noun
        return msgspec.structs.replace(
            wish, state="unmet", reason=f"one class, one tradition: it is a {other}"
        )
    if wish.kind == "length" and fields["target_s"] in (600.0, 900.0) and wish.reason == "":
        fields["target_s"] = value  # a number says more than "short" did
        return wish
    if wish.kind == "length" and wish.reason:  # "quick ... 6 minutes": as quick as she says herself
        meaning = f"{show_length(fields['target_s'])} long"
        return msgspec.structs.replace(
            wish, meaning=meaning, state="kept", reason="", key=str(fields["target_s"])
        )
    if wish.kind == "audience":
        fields["audience"] = f"{fields['audience']}, {wish.key}"
        return wish
    if wish.kind == "level":
        order = ("gentle", "beginners", "mixed", "experienced")
        fields["level"] = min(fields["level"], wish.key, key=order.index)
        return wish
    return msgspec.structs.replace(wish, state="unmet", reason="another was said before it")


def _fill(
    wish: Wish,
    fields: dict[str, Any],
    lists: dict[str, list[str]],
    said: dict[str, str],
    words: PromiseVocabulary,
) -> Wish:
    """What an everyday word changes, where nothing that was said does; gives it back as it stands then."""
    word = words.everyday[wish.key]
    if set(words.nothing_for.get(word.style, ())) & {*lists["focus"]}:
        word = msgspec.structs.replace(word, style="")  # there is nothing in it for what the class is about
    level = "" if lists["focus"] and {*lists["focus"]} <= {*word.milder} else word.level
    for field, value in (("style", word.style), ("level", level), ("time_of_day", word.time)):
        if value:
            fields.setdefault(field, value)
    if word.minutes:
        fields.setdefault("target_s", word.minutes * 60.0)
    if word.whom and (people := _people_in(wish.text)):
        fields.setdefault("audience", people)
    if not lists["focus"]:
        lists["focus"] += word.focus
        said |= {one: wish.text for one in word.focus if one not in said}
    lists["cautions"] += word.cautions
    if word.style == _SEATED and fields["style"] == _BREATHING:
        lists["without"].append("anything off the chair")
    places = [one for one in word.without if one.startswith(_PLACED)]
    placed = word.gives_way and any(one.startswith(_PLACED) for one in lists["without"])
    lists["without"] += [one for one in word.without if not (placed and one in places)]
    lists["wanted"] += word.wanted
    lists["props"] += [one for one in word.props if one not in lists["props"]]
    for tag in (*word.cautions, *word.without, *word.wanted):
        said.setdefault(tag, wish.text)
    if placed:
        return msgspec.structs.replace(wish, meaning="where it was said already")
    elsewhere = word.beside and word.style and fields["style"] != word.style
    return msgspec.structs.replace(wish, meaning=word.beside) if elsewhere else wish


def _reason(
    told: Sequence[Wish],
    fields: Mapping[str, Any],
    lists: Mapping[str, Sequence[str]],
    brief: Brief,
    words: PromiseVocabulary,
    bare: bool,
) -> str:
    """Why this class, for these people: of what was asked for the first thing that has a reason, "" for none.
    bare: there is no thread, so that the hour or the kind of class may be the reason."""
    everyday = [one.key for one in told if one.kind == "everyday" and one.state != "unmet"]
    about = [*everyday, *lists["focus"], *lists["cautions"]]
    if bare:
        about += [fields.get(name, getattr(brief, name)) for name in ("level", "time_of_day", "style")]
    if _LYING & {*lists["without"]}:  # nobody is told to sit who lies
        about = [other for key in about for other in (f"{key}, lying", key)]
    found = next((words.reasons[key] for key in about if key in words.reasons), ("",))
    return found[sum(len(one.text) for one in told) % len(found)]


def _people_in(text: str) -> str:
    """The people that an everyday word names; "" for what they do, or come from."""
    text = text.lower().removeprefix("for ")
    words = _WHERE.sub("", text).split()
    one = words[0] in ARTICLES and words[-1].endswith(("er", "or", "ist", "ian"))
    several = words[-1].endswith("s") and not words[-1].endswith("ss") and words[-1] not in _THINGS
    doing = words[0].endswith("ing")
    return text if words[-1] in _COMPANY or one or (several and not doing) else ""


def _tradition(
    lists: Mapping[str, Sequence[str]],
    fields: Mapping[str, Any],
    words: PromiseVocabulary,
    teaching_data: TeachingData,
) -> str:
    """The style that all movements asked for are of, by their families, or most of them, where what it is
    about is of it too: `hundred, roll up`; "" for none."""
    named = [teaching_data.library.get(one) for one in (*lists["wanted"], fields.get("peak", ""))]
    styles = Counter(words.style_of_family.get(one.family, "") for one in named if one is not None)
    style, many = styles.most_common(1)[0] if styles else ("", 0)
    about = style in {words.style_for.get(one, "") for one in lists["focus"]}
    return style if many == styles.total() or (about and 2 * many > styles.total()) else ""
