"""Where a complaint ends: of a part of the body, or of something that is done."""

from collections.abc import Container

from yewhour.core.promise.grammar import (
    BETWEEN,
    BEYOND,
    CANNOT,
    HURTING,
    LEADING,
    LOCAL,
    MADE,
    MAKES,
    NOT_DONE,
    NOT_FINE,
    OF_WHOM,
    OUT_OF_BOUNDS,
    RADIATING,
    SIDES,
    SOMEBODY,
    WELL,
    WORSENED,
)
from yewhour.core.promise.vocabulary import LONGEST, Lexicon, Token


def complaint_to(lexicon: Lexicon, tokens: list[Token], end: int) -> int:
    """Where the complaint of a part of the body ends: `knee pain`, `knees are sore`; `end`, its own end,
    where it has none."""
    if hurts := _hurts(lexicon, tokens, end):
        return hurts
    behind = _behind(tokens, end)
    if behind == len(tokens):
        return end
    if tokens[behind].plain in NOT_FINE and (behind > end or tokens[behind].plain.endswith("nt")):
        if behind + 1 == len(tokens):
            return behind + 1  # "my wrists are fine but my knees are not"
        if unwell := _not_done(tokens, behind):
            return unwell
    sore = lexicon.contexts.get((tokens[behind].plain,)) == "mind"
    if behind == end:  # "left knee bad", but not "wrists, bad back" without its comma
        return end + 1 if sore and end + 1 == len(tokens) else end
    return behind + 1 if sore else _hurts(lexicon, tokens, behind) or end


def _hurts(lexicon: Lexicon, tokens: list[Token], at: int) -> int:
    """Where a word of hurting ends, or two that are one: `aches`, `playing up`; 0 where there is none."""
    for many in (2, 1):
        said = " ".join(token.plain for token in tokens[at : at + many])
        if at + many <= len(tokens) and said in lexicon.hurts:
            return at + many
    return 0


def seat_of(lexicon: Lexicon, tokens: list[Token], end: int) -> tuple[int, str]:
    """Where the part of the body ends that a complaint which ends here sits in, and who is minded for it, ""
    where no rule is for that part: `arthritis left knee`, `tendonitis right elbow`. `end`, its own end, where
    it is not told: what a class is about stands behind a side only where that is the complaint's."""
    at = end
    while at < len(tokens) and tokens[at].plain in OF_WHOM | LEADING:
        at += 1
    sided = any(one.plain in SIDES | RADIATING for one in tokens[end:at])
    if not (sided or tokens[end - 1].plain.endswith(LOCAL)):
        return end, ""
    for length in range(min(LONGEST, len(tokens) - at), 0, -1):
        meant = lexicon.phrases.get(tuple(token.plain for token in tokens[at : at + length]), {})
        if meant.keys() & {"part", "area"}:
            return at + length, meant.get("part", "")
    return (at, "") if sided else (end, "")


def is_of_body(lexicon: Lexicon, tokens: list[Token]) -> bool:
    """Whether what a reason begins with is a part of the body: `(because) of my wrist`."""
    at = 0
    while at < len(tokens) and tokens[at].plain in OF_WHOM | {"of"}:
        at += 1
    phrases = (tuple(one.plain for one in tokens[at:to]) for to in range(at + 1, at + LONGEST))
    return any("part" in lexicon.phrases.get(phrase, {}) for phrase in phrases)


def hurting_to(tokens: list[Token], end: int) -> int:
    """Where it ends that something hurts, or can't be: `kneeling hurts`, `twists are hard`, `standing makes
    (her dizzy)`."""
    at = _behind(tokens, end)
    if at == len(tokens):
        return end
    plain, after = tokens[at].plain, [token.plain for token in tokens[at + 1 :]]
    if plain in NOT_FINE and not after:
        return at + 1  # "kneeling is ok, lying on the belly isn't"
    if plain in NOT_FINE | CANNOT and (until := _not_done(tokens, at)):
        return until
    beyond = plain in BEYOND and (at > end or (plain in OUT_OF_BOUNDS and not after))
    makes = plain in MAKES and bool(MADE & set(after))
    if makes and WORSENED in after and SOMEBODY.issuperset(after[: after.index(WORSENED)]):
        return at + 2 + after.index(WORSENED)  # "heat makes me worse": nothing else is told
    return at + 1 if plain in HURTING or beyond or makes else end


def _not_done(tokens: list[Token], at: int) -> int:
    """Where it ends that something is not well, or not to be done, behind a `not` at a place: `not an
    option`, `don't feel good`; 0 where it says something else."""
    at += 1
    while at < len(tokens) and (tokens[at].plain in BETWEEN or tokens[at].plain == "an"):
        at += 1
    return at + 1 if at < len(tokens) and tokens[at].plain in NOT_DONE else 0


def fine_to(tokens: list[Token], end: int, words: Container[str], alone: bool) -> int:
    """Where it ends that a part of the body, or what is done, is said to be well, `wrists are fine`; `end`
    where not.

    words: what it may be said to be. alone: it may be said in two words: `no planks, wrists ok`.
    """
    behind = _behind(tokens, end)
    said = end < behind or (alone and end + 1 == len(tokens) and tokens[end].plain in WELL)
    return behind + 1 if said and behind < len(tokens) and tokens[behind].plain in words else end


def _behind(tokens: list[Token], end: int) -> int:
    """Behind the words that may stand before what is said of something: `are really`."""
    while end < len(tokens) and tokens[end].plain in BETWEEN:
        end += 1
    return end
