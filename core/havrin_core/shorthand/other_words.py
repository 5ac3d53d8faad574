"""Lines in other words than the bar's: "three flashes", "owner must approve heat exchanger", "back on Monday".

Each is a named rule of data/rules.toml; the line of the bar that it stands for is read in its place.
"""

import re
import tomllib
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cache
from importlib import resources

from havrin_core.follow_up.plan import APPROVERS
from havrin_core.quantities.dates import date_in
from havrin_core.shorthand.numbers import number_at

_MOST_BEATS = 9
_MOST_OF_A_PERSON = 2
_BEATS = re.compile(r"\{(\w+)\*(\w)\}")
_BEGINS_WITH_POINT = re.compile(r"\.\d")
_PARTS = ",;"
_PERSONS = {
    "customer": "owner",
    "homeowner": "owner",
    "landlord": "owner",
    "she": "owner",
    "he": "owner",
    "they": "owner",
}


@dataclass(frozen=True, slots=True)
class Rule:
    """One rule: the patterns it fits, the line of the bar it makes, and examples of both."""

    name: str
    say: tuple[tuple[str, ...], ...]
    bar: str
    examples: Mapping[str, str]


@cache
def rules() -> tuple[Rule, ...]:
    """Return every rule in the order in which they are tried."""
    file = resources.files("havrin_core.shorthand") / "data" / "rules.toml"
    rows = tomllib.loads(file.read_text(encoding="utf-8"))
    return tuple(
        Rule(name, tuple(tuple(say.split()) for say in row["say"]), row["bar"], row["examples"])
        for name, row in rows.items()
    )


@dataclass(frozen=True, slots=True)
class _Words:
    """The words of a line without their marks, and behind which of them a clause ends: free words never reach over it."""

    keys: tuple[str, ...]
    ends: frozenset[int]


def spoken_line(text: str) -> str | None:
    """Return the line of the bar that ``text`` is in other words; None where no rule fits the whole of it.

    >>> spoken_line("three flashes"), spoken_line("1 long, 2 short"), spoken_line("codes 3, 5 stored")
    ('code 3', 'code L S S', 'code 3, 5')
    """
    typed = [word for word in text.lower().split() if _bare(word)]
    words = _Words(tuple(_bare(word) for word in typed), frozenset(i for i, w in enumerate(typed) if w[-1] in _PARTS))
    if not typed:
        return None
    for rule, say in _candidates(frozenset(words.keys)):
        found = next(_fits(say, words, 0, 0, {}), None)
        line = _filled(rule.bar, found) if found is not None else None
        if line is not None:
            return line
    return None


def _candidates(words: frozenset[str]) -> Iterator[tuple[Rule, tuple[str, ...]]]:
    """Yield the patterns of which every word that must be there is there, in the order of the rules."""
    by_word = _by_word()
    near = {number for word in (*words, "") for number in by_word.get(word, ())}
    for number in sorted(near):
        rule, say, needed = _needs()[number]
        if all(not words.isdisjoint(either) for either in needed):
            yield rule, say


@cache
def _by_word() -> Mapping[str, tuple[int, ...]]:
    """Return the numbers of the patterns by the words of which one must be there; "" for those that need none."""
    found: dict[str, list[int]] = {}
    for number, (_, _, needed) in enumerate(_needs()):
        rarest = min(needed, key=len, default=frozenset(("",)))
        for word in rarest:
            found.setdefault(word, []).append(number)
    return {word: tuple(numbers) for word, numbers in found.items()}


@cache
def _needs() -> tuple[tuple[Rule, tuple[str, ...], tuple[frozenset[str], ...]], ...]:
    def needed(say: Sequence[str]) -> tuple[frozenset[str], ...]:
        return tuple(frozenset(part.partition(":")[0].split("|")) for part in say if part[0] not in "[*#@")

    return tuple((rule, say, needed(say)) for rule in rules() for say in rule.say)


def _bare(word: str) -> str:
    """Return a word without the marks around it; the point of ".25" is no mark."""
    end = word.strip(",;:!()").rstrip(".")
    return end if _BEGINS_WITH_POINT.match(end) else end.lstrip(".")


def _fits(say: Sequence[str], line: _Words, at: int, step: int, found: dict[str, str]) -> Iterator[dict[str, str]]:
    """Yield what the places of ``say`` from ``step`` on hold, where the words from ``at`` on are all used by them."""
    words = line.keys
    if step == len(say):
        if at == len(words):
            yield found
        return
    part = say[step]
    if part.startswith("*"):
        most = next((end + 1 for end in sorted(line.ends) if end >= at), len(words))
        for stop in range(at + 1, most + 1):
            yield from _fits(say, line, stop, step + 1, found | {part[1:]: " ".join(words[at:stop])})
    elif part.startswith("#"):
        number = number_at(words, at)
        if number is not None:
            yield from _fits(say, line, number.stop, step + 1, found | {part[1:]: number.text})
    elif part.startswith("@"):
        yield from _fits_sort(say, line, at, step, found)
    elif part.startswith("["):
        if at < len(words) and words[at] in part.strip("[]").split("|"):
            yield from _fits(say, line, at + 1, step + 1, found)
        yield from _fits(say, line, at, step + 1, found)
    else:
        either, _, name = part.partition(":")
        if at < len(words) and words[at] in either.split("|"):
            yield from _fits(say, line, at + 1, step + 1, found | ({name: words[at]} if name else {}))


def _fits_sort(say: Sequence[str], line: _Words, at: int, step: int, found: dict[str, str]) -> Iterator[dict[str, str]]:
    words = line.keys
    sort, _, name = say[step][1:].partition(":")
    if sort == "person":
        for count in range(1, _MOST_OF_A_PERSON + 1):
            who = " ".join(words[at : at + count])
            if who in APPROVERS or who in _PERSONS:
                yield from _fits(say, line, at + count, step + 1, found | {name: _PERSONS.get(who, who)})
    elif sort == "day" and at < len(words) and date_in(" ".join(words[at:]), date.min.replace(year=2000)) is not None:
        yield from _fits(say, line, len(words), step + 1, found | {name: " ".join(words[at:])})


def _filled(bar: str, found: dict[str, str]) -> str | None:
    def beats(match: re.Match[str]) -> str:
        count = found[match[1]]
        return " ".join(match[2] * int(count)) if count.isdigit() and int(count) <= _MOST_BEATS else "?"

    line = _BEATS.sub(beats, bar).format_map(found)
    return None if "?" in line else line
