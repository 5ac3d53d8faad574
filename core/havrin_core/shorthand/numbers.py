"""Numbers as they are typed and as they are dictated: "3.5", "-.66", "1 1/2", "six point four", "three hundred forty"."""

import re
from collections.abc import Sequence
from dataclasses import dataclass

_TYPED = re.compile(r"[<>]?[-+]?(?:\d+(?:[.,]\d+)*|[.,]\d+|\d+/\d+)")
_FRACTION = re.compile(r"\d+/\d+")
_DIGITS = {
    word: digit
    for digit, words in enumerate(
        (
            ("zero", "oh", "nothing"),
            ("one",),
            ("two",),
            ("three",),
            ("four",),
            ("five",),
            ("six",),
            ("seven",),
            ("eight",),
            ("nine",),
        )
    )
    for word in words
}
_TEENS = {
    word: 10 + step
    for step, word in enumerate(
        ("ten", "eleven", "twelve", "thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen")
    )
}
_TENS = {
    word: 10 * tens
    for tens, word in enumerate(("twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"), 2)
}
_MINUS = ("minus", "negative")
_PLUS = ("plus", "positive")
_POINT = ("point", "dot")


_SPOKEN = frozenset((*_DIGITS, *_TEENS, *_TENS))


def may_hold_a_number(text: str) -> bool:
    """Tell whether ``text`` has a digit or a word of a dictated number in it."""
    return any(c.isdigit() for c in text) or not _SPOKEN.isdisjoint(text.lower().replace("-", " ").split())


@dataclass(frozen=True, slots=True)
class NumberAt:
    """A number in digits, and the index of the word behind it."""

    text: str
    stop: int


def number_at(words: Sequence[str], at: int) -> NumberAt | None:
    """Return the number that begins at ``words[at]``, typed or dictated; None where none does.

    >>> number_at("six point four".split(), 0), number_at("minus .66 in".split(), 0)
    (NumberAt(text='6.4', stop=3), NumberAt(text='-.66', stop=2))
    >>> number_at("three hundred and forty two".split(), 0), number_at("one and a half".split(), 0)
    (NumberAt(text='342', stop=5), NumberAt(text='1.5', stop=4))
    """
    if at < len(words) and words[at] in _MINUS:
        found = number_at(words, at + 1)
        return NumberAt(f"-{found.text}", found.stop) if found and not found.text.startswith("-") else None
    if at < len(words) and words[at] in _PLUS:
        found = number_at(words, at + 1)
        return found if found and not found.text.startswith("-") else None
    if at < len(words) and _TYPED.fullmatch(words[at]):
        if at + 1 < len(words) and words[at].isdigit() and _FRACTION.fullmatch(words[at + 1]):
            return NumberAt(f"{words[at]} {words[at + 1]}", at + 2)
        return NumberAt(words[at], at + 1)
    return _dictated(words, at)


def _dictated(words: Sequence[str], at: int) -> NumberAt | None:
    whole, stop = _whole(words, at)
    if tuple(words[stop : stop + 3]) == ("and", "a", "half") and whole is not None:
        return NumberAt(f"{whole}.5", stop + 3)
    if stop < len(words) and words[stop] in _POINT:
        behind, end = _run_of_digits(words, stop + 1)
        if behind:
            return NumberAt(f"{whole or 0}.{behind}", end)
    return None if whole is None else NumberAt(str(whole), stop)


def _whole(words: Sequence[str], at: int) -> tuple[int | None, int]:
    """Return a whole number in words, and where it ends: "three hundred forty two", "three forty two", "eighty five"."""
    small, stop = _below_hundred(words, at)
    if small is None:
        return None, at
    if stop < len(words) and words[stop] == "hundred":
        more, end = _below_hundred(words, stop + 2 if stop + 1 < len(words) and words[stop + 1] == "and" else stop + 1)
        return (100 * small, stop + 1) if more is None else (100 * small + more, end)
    if small < 10:
        more, end = _below_hundred(words, stop)
        if more is not None and more >= 10:
            return 100 * small + more, end
    return small, stop


def _below_hundred(words: Sequence[str], at: int) -> tuple[int | None, int]:
    word = words[at] if at < len(words) else ""
    if word in _TENS:
        following = words[at + 1] if at + 1 < len(words) else ""
        more = _DIGITS.get(following, 0)
        return _TENS[word] + more, at + (2 if more else 1)
    if word in _TEENS:
        return _TEENS[word], at + 1
    return (_DIGITS[word], at + 1) if word in _DIGITS else (None, at)


def _run_of_digits(words: Sequence[str], at: int) -> tuple[str, int]:
    said = ""
    while at < len(words):
        if words[at] in _DIGITS or words[at] == "o":
            said += str(_DIGITS.get(words[at], 0))
        elif words[at].isdigit():
            said += words[at]
        elif words[at] in _TENS or words[at] in _TEENS:
            number, at = _below_hundred(words, at)
            said += str(number)
            break
        else:
            break
        at += 1
    return said, at
