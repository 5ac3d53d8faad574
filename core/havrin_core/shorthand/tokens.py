"""A line as tokens: words without punctuation, clauses, and the small words that carry no meaning of their own."""

import re
from dataclasses import dataclass

_CLAUSES = re.compile(r"(?:,\s+|;\s*|\s+but\s+|\s+then\s+|\.\s+)", re.IGNORECASE)
_HYPHEN = re.compile(r"(?<=[A-Za-z])[-–](?=[A-Za-z])")
_EDGE = '"“”‘’`.,;:!()[]<>'

FILLERS = frozenset(
    [
        "a",
        "an",
        "the",
        "is",
        "are",
        "was",
        "were",
        "be",
        "been",
        "being",
        "it",
        "its",
        "it's",
        "this",
        "that",
        "there",
        "has",
        "have",
        "had",
        "and",
        "also",
        "very",
        "some",
        "still",
        "now",
        "here",
        "found",
        "saw",
        "seen",
        "looked",
        "looks",
        "heard",
        "i",
        "we",
        "he",
        "she",
        "they",
        "i've",
        "we've",
        "did",
        "do",
        "just",
        "both",
        "all",
        "of",
        "them",
    ]
)
NEGATIONS = frozenset(
    [
        "not",
        "no",
        "never",
        "isn't",
        "wasn't",
        "aren't",
        "weren't",
        "didn't",
        "doesn't",
        "don't",
        "hasn't",
        "haven't",
        "nobody",
        "none",
        "without",
        "neither",
        "nor",
        "cannot",
        "can't",
        "couldn't",
        "isnt",
        "wasnt",
        "arent",
        "didnt",
        "doesnt",
        "dont",
        "cant",
        "couldnt",
        "won't",
        "wont",
        "unable",
    ]
)
PREPOSITIONS = frozenset(
    [
        "in",
        "at",
        "on",
        "near",
        "behind",
        "under",
        "above",
        "by",
        "from",
        "to",
        "of",
        "outside",
        "inside",
        "around",
        "between",
        "with",
        "beside",
        "against",
        "through",
        "over",
        "below",
        "along",
        "into",
        "after",
        "before",
        "during",
        "across",
        "next",
        "when",
        "while",
        "where",
        "toward",
        "towards",
    ]
)
# Words that say where on a part; they may follow a good finding without making it doubtful.
PLACES = frozenset(
    [
        "cell",
        "cells",
        "tube",
        "tubes",
        "section",
        "sections",
        "side",
        "left",
        "right",
        "top",
        "bottom",
        "front",
        "rear",
        "back",
        "upper",
        "lower",
        "middle",
        "end",
        "burner",
        "blower",
        "seam",
        "corner",
        "roof",
        "attic",
        "cellar",
        "basement",
        "garage",
        "closet",
        "outdoors",
        "indoors",
        "outside",
        "inside",
        "upstairs",
        "downstairs",
        "first",
        "second",
        "third",
        "fourth",
        "fifth",
        "both",
        "only",
        "low",
        "high",
        "fire",
        "north",
        "south",
        "east",
        "west",
        "number",
        "no.",
        "whole",
        "run",
        "cold",
        "hot",
        "warm",
    ]
)
UNSURE = {
    "maybe": "unsure",
    "might": "unsure",
    "possibly": "unsure",
    "perhaps": "unsure",
    "unsure": "unsure",
    "suspect": "unsure",
    "suspected": "unsure",
    "could": "unsure",
    "?": "unsure",
    "guess": "unsure",
    "likely": "likely",
    "probably": "likely",
    "sure": "sure",
    "definitely": "sure",
    "certain": "sure",
}


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
    spread = _HYPHEN.sub(" ", text.replace("’", "'")).replace("?", " ? ")
    tokens = []
    for word in spread.split():
        bare = word.strip(_EDGE)
        if bare[:1].isdigit() and f".{bare}" in word:
            bare = f".{bare}"  # ".40" is a number, its point no mark
        if bare or word == "?":
            tokens.append(Token(bare or word, bare.lower() or word))
    return tokens
