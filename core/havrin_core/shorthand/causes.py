"""What a cause names, how sure it is, and what it explains: ``cause cracked vent``, ``cause worn igniter of the call``."""

from havrin_core.phrases import phrase
from havrin_core.rules.causes import CALL, EVERY, can_bring_about
from havrin_core.rules.families import CLUSTERS, must_be_named
from havrin_core.shorthand.model import Ask, Situation
from havrin_core.shorthand.tokens import Token, tokens_of
from havrin_core.tape.entries import FOUND, NOT_FOUND, PRESUMED, Said
from havrin_core.vocabulary.catalogue import whole_phrases
from havrin_core.vocabulary.index import Found, condition_index, part_index, phrase_index

_NO_CAUSE = (
    "not found",
    "not known",
    "unknown",
    "none found",
    "unclear",
    "no idea",
    "?",
    "nothing found",
    "not clear",
    "don't know",
    "do not know",
    "could not find",
    "couldn't find",
    "no cause found",
    "none",
    "not sure",
    "tbd",
    "to be found",
)
_PRESUMED = frozenset(
    ("probably", "maybe", "perhaps", "presumably", "presumed", "likely", "suspect", "suspected", "possibly", "think")
)
_MAY = ("could be", "might be", "may be")
_OF_CALL = ("of the call", "of call", "for the call", "of the no heat")


def read_cause(text: str, situation: Situation) -> tuple[Said, tuple[Ask, ...]]:
    """Return the cause that ``text`` names, with a question where it cannot explain what is open, or may explain several."""
    explains, words = _explains(text, situation)
    tokens = tokens_of(words)
    keys = [token.key for token in tokens]
    if not keys or _says_none(words):
        return Said("cause", text, state=NOT_FOUND, explains=explains), ()
    part, like = _names(keys)
    unsure = _PRESUMED & set(keys) or "?" in keys or any(said in " ".join(keys) for said in _MAY)
    state = PRESUMED if unsure else FOUND
    said = Said("cause", text, state=state, part=part, condition=like, explains=explains)
    return _asked_back(said, situation, tokens)


def _says_none(words: str) -> bool:
    plain = words.strip(" .").lower()
    return any(
        plain == none or plain.startswith(f"{none} ") or plain.startswith((f"{none},", f"{none}:"))
        for none in _NO_CAUSE
    )


def _explains(text: str, situation: Situation) -> tuple[str, str]:
    """Return what the words say that the cause explains, and the rest: "of CODE: …", "of all: …", "… of the call"."""
    head, colon, rest = text.partition(":")
    named = head.removeprefix("of ").strip()
    if colon and head.startswith("of "):
        if named in ("all", EVERY):
            return EVERY, rest.strip()
        if named == "the call" or named in {code for code, _ in situation.open()} or "." in named:
            return (CALL if named == "the call" else named), rest.strip()
    low = text.lower()
    for said in _OF_CALL:
        if said in low:
            return CALL, text[: low.index(said)].strip()
    return "", text


def _names(keys: list[str]) -> tuple[str, str]:
    phrases = [f for f in phrase_index().every(keys) if f.stop - f.start > 1]
    if phrases:
        part, like, _ = whole_phrases()[phrases[0].key]
        return part, like
    parts, likes = part_index().every(keys), condition_index().every(keys)
    apart = [c for c in likes if not any(p.start <= c.start < p.stop for p in parts)]
    single = list(phrase_index().every(keys)) if not parts else []
    if single:
        part, like, _ = whole_phrases()[single[0].key]
        return part, like
    like = apart[0].key if apart else ""
    return (_head(parts, keys) if parts else "", like)


def _head(parts: list[Found], keys: list[str]) -> str:
    head = parts[0]
    for nearest in parts[1:]:
        if nearest.start != head.stop:
            break
        head = nearest
    return str(head.key)


def _asked_back(said: Said, situation: Situation, tokens: list[Token]) -> tuple[Said, tuple[Ask, ...]]:
    """A cause that cannot bring about what is open, or names no part, stands as presumed and is asked back."""
    if said.state != FOUND or said.explains:
        return said, ()
    still_open = situation.open()
    if not still_open:
        return said, ()
    possible = [code for code, family in still_open if can_bring_about(said.part, family)]
    words = " ".join(token.typed for token in tokens)
    if not possible:
        if all(code == CALL for code, _ in still_open):
            return said, ()
        question = phrase("how_can_bring_about_danger", words=words)
        return said if _of_call(situation, said) else _presumed(said), (
            Ask(question, ("cause not found",), holds=False),
        )
    dangers = [code for code, family in still_open if code in possible and family in CLUSTERS]
    if must_be_named(still_open, dangers):
        choices = (*(f"cause of {code}: {words}" for code in dangers), f"cause of all: {words}")
        return said, (Ask(phrase("cause_which", words=words), choices),)
    return said, ()


def _of_call(situation: Situation, said: Said) -> bool:
    """On a visit that was called for, a named part explains the call though it cannot explain the danger."""
    return bool(said.part) and any(code == CALL for code, _ in situation.open())


def _presumed(said: Said) -> Said:
    return Said("cause", said.text, state=PRESUMED, part=said.part, condition=said.condition, explains=said.explains)
