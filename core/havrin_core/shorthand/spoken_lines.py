"""Whole lines in other words than the bar's: "three flashes", "owner must approve heat exchanger", "back on Monday".

Each is a row of data/spoken_lines.toml; the line of the bar that it stands for is read in its place.
"""

import re
import tomllib
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cache
from importlib import resources

from havrin_core.shorthand.numbers import number_at

_MOST_BEATS = 9
_BEGINS_WITH_POINT = re.compile(r"\.\d")
_BEATS = re.compile(r"\{(\w+)\*(\w)\}")


@dataclass(frozen=True, slots=True)
class _Row:
    say: tuple[str, ...]
    bar: str


def spoken_line(text: str) -> str | None:
    """Return the line of the bar that ``text`` is in other words; None where no row fits the whole of it.

    >>> spoken_line("three flashes"), spoken_line("1 long, 2 short"), spoken_line("codes 3, 5 stored")
    ('code 3', 'code L S S', 'code 3, 5')
    """
    words = [word for word in (_bare(w) for w in text.lower().split()) if word]
    for row in _rows():
        found = next(_fits(row.say, words, 0, 0, {}), None)
        if found is not None:
            return _filled(row.bar, found)
    return None


def _bare(word: str) -> str:
    """Return a word without the marks around it; the point of ".25" is no mark."""
    end = word.strip(",;:!()").rstrip(".")
    return end if _BEGINS_WITH_POINT.match(end) else end.lstrip(".")


@cache
def _rows() -> tuple[_Row, ...]:
    file = resources.files("havrin_core.shorthand") / "data" / "spoken_lines.toml"
    rows = tomllib.loads(file.read_text(encoding="utf-8"))["line"]
    return tuple(_Row(tuple(row["say"].split()), row["bar"]) for row in rows)


def _fits(
    say: Sequence[str], words: Sequence[str], at: int, step: int, found: dict[str, str]
) -> Iterator[dict[str, str]]:
    """Yield what the places of ``say`` from ``step`` on hold, where the words from ``at`` on are all used by them."""
    if step == len(say):
        if at == len(words):
            yield found
        return
    part = say[step]
    if part.startswith("*"):
        for stop in range(at + 1, len(words) + 1):
            yield from _fits(say, words, stop, step + 1, found | {part[1:]: " ".join(words[at:stop])})
    elif part.startswith("#"):
        number = number_at(words, at)
        if number is not None:
            yield from _fits(say, words, number.stop, step + 1, found | {part[1:]: number.text})
    elif part.startswith("["):
        if at < len(words) and words[at] in part.strip("[]").split("|"):
            yield from _fits(say, words, at + 1, step + 1, found)
        yield from _fits(say, words, at, step + 1, found)
    elif at < len(words) and words[at] in part.split("|"):
        chosen = found | {f"w{step}": words[at]} if "|" in part else found
        yield from _fits(say, words, at + 1, step + 1, chosen)


def _filled(bar: str, found: dict[str, str]) -> str | None:
    def beats(match: re.Match[str]) -> str:
        count = found[match[1]]
        return " ".join(match[2] * int(count)) if count.isdigit() and int(count) <= _MOST_BEATS else "?"

    line = _BEATS.sub(beats, bar).format_map(found)
    return None if "?" in line else line
