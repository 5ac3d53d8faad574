"""Whole lines that say by their first words what they are: advice, a complaint, a cause; and lines of another system."""

import re
import tomllib
from collections.abc import Mapping, Sequence
from functools import cache
from importlib import resources


@cache
def _data() -> Mapping[str, Mapping[str, Sequence[str]]]:
    file = resources.files("havrin_core.shorthand") / "data" / "spoken.toml"
    found: Mapping[str, Mapping[str, Sequence[str]]] = tomllib.loads(file.read_text(encoding="utf-8"))
    return found


def spoken_verb(text: str) -> tuple[str, str] | None:
    """Return (verb of the bar, what was said) where a line begins with words that mean no finding and no work done.

    >>> spoken_verb("quoted new board 640"), spoken_verb("found the cause: loose ground")
    (('advise', 'quoted new board 640'), ('cause', 'loose ground'))
    """
    plain = " ".join(text.split())
    low = plain.lower()
    for verb, words in _data()["verbs"].items():
        if any(low.startswith(f"{word} ") for word in words):
            return verb, plain
    for verb, words in _data()["verbs_before"].items():
        for word in sorted(words, key=len, reverse=True):
            if low.startswith(f"{word} "):
                return verb, plain[len(word) :].strip()
    return None


def of_another_system(text: str) -> str:
    """Return the word by which a line speaks of another system; "" where it has none."""
    low = f" {' '.join(re.sub(r'[,;:.!()]', ' ', text.lower()).split())} "
    return next((word for word in _data()["elsewhere"]["words"] if f" {word} " in low), "")
