"""Whole lines that say by their first words what they are: advice, a complaint, a cause; and lines of another system."""

import re
import tomllib
from collections.abc import Mapping, Sequence
from functools import cache
from importlib import resources

from havrin_core.shorthand.tokens import clauses_of

# A dryer that ran beside a test of the draft: the line speaks of the vent, and of no other trade.
_DRAWS_AIR = re.compile(r" with (?:the |a )?(?:clothes )?dryer(?= )")


@cache
def _data() -> Mapping[str, Mapping[str, Sequence[str]]]:
    file = resources.files("havrin_core.shorthand") / "data" / "first_words.toml"
    found: Mapping[str, Mapping[str, Sequence[str]]] = tomllib.loads(file.read_text(encoding="utf-8"))
    return found


def spoken_verb(text: str) -> tuple[str, str] | None:
    """Return (verb of the bar, what was said) where a line begins with words that mean no finding and no work done.

    >>> spoken_verb("quoted new board 640"), spoken_verb("found the cause: loose ground")
    (('advise', 'quoted new board 640'), ('cause', 'loose ground'))
    """
    plain = " ".join(text.split())
    low = plain.lower()
    rows = _by_first_word().get(low.split(" ", 1)[0].rstrip(",:"), ()) if low else ()
    for table, verb, words in rows:
        if low != words and not low.startswith((f"{words} ", f"{words},", f"{words}:")):
            continue
        if table == "verbs" or (table == "verbs_of_a_clause" and len(clauses_of(plain)) == 1):
            return verb, plain
        if table == "verbs_before" and low.startswith(f"{words} "):
            return verb, plain[len(words) :].strip()
    return None


_TABLES = ("verbs", "verbs_of_a_clause", "verbs_before")


@cache
def _by_first_word() -> Mapping[str, tuple[tuple[str, str, str], ...]]:
    """Return (table, verb, words) by the first of the words, the longest first."""
    found: dict[str, list[tuple[str, str, str]]] = {}
    for table in _TABLES:
        for verb, phrases in _data()[table].items():
            for words in phrases:
                found.setdefault(words.split()[0].rstrip(",:"), []).append((table, verb, words))
    return {first: tuple(sorted(rows, key=lambda row: -len(row[2]))) for first, rows in found.items()}


@cache
def _elsewhere() -> tuple[str, ...]:
    return tuple(_data()["elsewhere"]["words"])


def of_another_system(text: str) -> str:
    """Return the word by which a line speaks of another system; "" where it has none."""
    low = f" {' '.join(re.sub(r'[,;:.!()]', ' ', text.lower()).split())} "
    low = _DRAWS_AIR.sub(" ", low)
    return next((word for word in _elsewhere() if f" {word} " in low), "")
