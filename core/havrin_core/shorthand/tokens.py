"""A line as tokens: words without punctuation, and clauses."""

import re
from dataclasses import dataclass

_CLAUSES = re.compile(r"(?:,\s+|;\s*|\s+but\s+|\s+then\s+|\.\s+)", re.IGNORECASE)
_HYPHEN = re.compile(r"(?<=[A-Za-z])[-–](?=[A-Za-z])")
_INCHES = re.compile(r"(?<![\"“])\b(\d[\d/.]*)[\"”](?=[\s,.;)]|$)")  # 1/2" is a size, no word in quotation marks
_EDGE = '"“”‘’`.,;:!()[]<>'


@dataclass(frozen=True, slots=True)
class Token:
    """One word: as typed, and as it is looked up."""

    typed: str
    key: str


def clauses_of(text: str) -> list[str]:
    """Return the clauses of a line; a comma inside a number parts nothing."""
    return [piece.strip() for piece in _CLAUSES.split(text) if piece.strip()]


def tokens_of(text: str) -> list[Token]:
    """Return the words of ``text``; hyphens between letters part them, a question mark stands alone."""
    spread = _HYPHEN.sub(" ", _INCHES.sub(r"\1 in", text).replace("’", "'")).replace("?", " ? ")
    tokens = []
    for word in spread.split():
        bare = word.strip(_EDGE)
        if bare[:1].isdigit() and f".{bare}" in word:
            bare = f".{bare}"  # ".40" is a number, its point no mark
        if bare or word == "?":
            tokens.append(Token(bare or word, bare.lower() or word))
    return tokens
