"""The card of a movement: what there is to say of it, by what each line is for.

`place` is a sequence, all of it said, in order; every other list holds different thoughts, of which a class
says some. Lines carry side tokens; one that is only sometimes true carries its condition: `[head? Stay up;
else Curl up,] one knee in` says its first part where the head is up already, and its second where it is not.
"""

import re
from collections.abc import Iterator, Mapping
from typing import Any

import msgspec

Texts = tuple[str, ...]
CONDITION = re.compile(r"\[(\w+)\?\s*(.*?)\s*(?:else\s+(.*?)\s*)?\]")
LISTS = ("place", "choice", "aim", "check", "image", "deepen", "compare", "keep", "late")
SINGLE = ("first", "again", "leave", "leave_again")
# Other ways of a beat, which go when she writes it herself: hers is always the one that is said.
OTHER_WAYS = {"place": "placings", "leave": "leave_again"}
GENTLE = ("place", "aim", "check", "keep", "late", "first", "again", "leave", "leave_again")


class GentleForm(msgspec.Struct, frozen=True, forbid_unknown_fields=True, omit_defaults=True, gc=False):
    """A movement done in its gentler way by everybody: the fields of its card that are otherwise then.

    shape: what it is held in, in place of the movement's; None where that is the same.
    """

    place: Texts = ()
    aim: Texts = ()
    check: Texts = ()
    keep: Texts = ()
    late: Texts = ()
    first: str = ""
    again: str = ""
    leave: str = ""
    leave_again: str = ""
    shape: dict[str, str] | None = None


class Card(msgspec.Struct, frozen=True, forbid_unknown_fields=True, omit_defaults=True, gc=False):
    """A card of talk.

    way: base of the position it is come from -> what is said on that last step of the way, "" where `place`
    says it. place: how the shape is built; placings: the same told otherwise, of which a class has one
    throughout. protect: tag of a caution -> what those do, before the weight
    comes. choice: other ways, with their reason. aim: what it is for, or where it is felt. check: the usual
    mistake, how it is noticed, what mends it. image: a picture that does work. deepen: one step further.
    compare: of a second side. again: the placing of a second side or a return; returns: of further returns,
    in turn. first: the first repetition
    talked through. keep: while it goes. late: near the end of a set; {n} is what is left then. leave: undoes
    the shape where it is; leave_again: plainer, when it has been said. gentle: what is otherwise where
    everybody does it in its gentler way.
    """

    way: dict[str, str] = {}
    place: Texts = ()
    placings: tuple[Texts, ...] = ()
    protect: dict[str, str] = {}
    choice: Texts = ()
    aim: Texts = ()
    check: Texts = ()
    image: Texts = ()
    deepen: Texts = ()
    compare: Texts = ()
    again: str = ""
    returns: Texts = ()
    first: str = ""
    keep: Texts = ()
    late: Texts = ()
    leave: str = ""
    leave_again: str = ""
    gentle: GentleForm | None = None

    def lines(self) -> Iterator[tuple[str, str]]:
        """Every line with what it is for, in the order of the card, its gentle form left out."""
        yield from (("way", text) for text in self.way.values() if text)
        yield from (("place", text) for placing in (self.place, *self.placings) for text in placing)
        yield from (("protect", text) for text in self.protect.values())
        for beat in (*LISTS[1:], *SINGLE):
            texts, beat = getattr(self, beat), beat.removesuffix("_again")
            yield from ((beat, text) for text in ((texts,) if isinstance(texts, str) else texts) if text)
        yield from (("again", text) for text in self.returns)

    def without_talk(self) -> "Card":
        """The card with nothing to say but the ways to it and from it, and what is minded."""
        return Card(way=self.way, protect=self.protect, leave=self.leave, leave_again=self.leave_again)

    def in_gentle_form(self) -> "Card":
        """The card of its gentler way; itself where it has no words for that."""
        if self.gentle is None:
            return self
        told: dict[str, Any] = {name: value for name in GENTLE if (value := getattr(self.gentle, name))}
        if "place" in told:
            told["placings"] = ()
        if "leave" in told:
            told.setdefault("leave_again", "")
        return msgspec.structs.replace(self, **told, returns=(), choice=(), deepen=(), gentle=None)


def conditioned(text: str, shape: Mapping[str, str]) -> str:
    """A line with its conditions decided by the shape that the body is in when it is said."""
    if "[" not in text:
        return text
    said = CONDITION.sub(lambda found: (found[2] if found[1] in shape else found[3]) or "", text)
    said = re.sub(r"\s+([,.;])", r"\1", re.sub(r"\s{2,}", " ", said)).strip()
    return said[:1].upper() + said[1:]
