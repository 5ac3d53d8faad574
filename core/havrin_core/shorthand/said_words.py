"""A line as the words of which readings are made: marks apart from words, a name or a unit apart from its number."""

import re
from dataclasses import dataclass

MARK = ","
_SIGNS = str.maketrans({"−": "-", "–": "-", "₂": "2", "’": "'", "μ": "µ", "\u00a0": " ", "\u202f": " "})
# a slash parts two readings ("o2 6.4/co 46"), but not a unit ("kbtu/h") nor a fraction
_SLASH = re.compile(r"/(?=[a-z])(?!(?:h|hr|hour|min|m3|m³|kwh|ft3|ft³)\b)|(?<!\d)/", re.IGNORECASE)
_STOP = re.compile(r"[;,]+(?=\s|$)|[;\n]|\.(?=\s+[a-z])|\.$", re.IGNORECASE)
_EQUALS = re.compile(r"(?<=[a-z0-9²µ%])\s*[:=]\s*(?=[\w.\-<>])", re.IGNORECASE)
_HYPHEN = re.compile(r"(?<=[a-z])-(?=[a-z])", re.IGNORECASE)
_NAME_NUMBER = re.compile(r"^([a-zµ]+)([-<>]?(?:\d[\d.,]*|\.\d+))$")
_NUMBER_UNIT = re.compile(r"^([-+<>]?(?:\d[\d.,]*|\.\d+))-?([a-zµ°º%Ω\"][\w.%°\"/²³]*)$")
_EDGE = "()[]!“”‘"


@dataclass(frozen=True, slots=True)
class SaidWord:
    """One word: as typed, and in lower case without what is only spelling."""

    typed: str
    key: str


def said_words(text: str, names: frozenset[str], whole: frozenset[str] = frozenset()) -> tuple[SaidWord, ...]:
    """Return the words of ``text``; ``names`` are the words that a number may be glued to ("ua2.4").

    ``whole`` are words that stay as they are, though they end in a number ("in2", "w2").

    >>> [word.key for word in said_words("O2:6.4/CO=46, mp 3.5in", frozenset())]
    ['o2', '6.4', ',', 'co', '46', ',', 'mp', '3.5', 'in']
    """
    plain = _EQUALS.sub(" ", text.translate(_SIGNS))
    plain = _STOP.sub(f" {MARK} ", _SLASH.sub(f" {MARK} ", _HYPHEN.sub(" ", plain)))
    words: list[SaidWord] = []
    for typed in plain.split():
        bare = typed.strip(_EDGE)
        words += [SaidWord(piece, piece.lower()) for piece in _apart(bare, names, whole)]
    return tuple(words)


def _apart(word: str, names: frozenset[str], whole: frozenset[str]) -> list[str]:
    """Return a word with the name before its number, or the unit behind it, taken off."""
    if not word or word.lower() in names | whole:
        return [word] if word else []
    name = _NAME_NUMBER.match(word.lower())
    if name and name[1] in names:
        return [word[: len(name[1])], word[len(name[1]) :]]
    unit = _NUMBER_UNIT.match(word.lower())
    if unit:
        return [word[: unit.end(1)], word[unit.start(2) :]]
    return [word]
