"""The user's page of the bar, docs/shorthand.md: its short lines, and the whole vocabulary as it is read."""

import tomllib
from collections.abc import Iterable, Iterator
from importlib import resources

from havrin_core.quantities.units import shown_unit
from havrin_core.shorthand.other_words import rules
from havrin_core.vocabulary.abnormal import WAYS
from havrin_core.vocabulary.catalogue import DANGER, conditions, parts, verbs, verdict_of, whole_phrases
from havrin_core.vocabulary.measurands import MEASURANDS

_MOST_WORDS = 4
_NOTE = "<!-- Written by `./havrin schema` from the vocabulary; do not edit. -->"


def manual_text() -> str:
    """Return the page as Markdown."""
    return "\n".join((_NOTE, "", _data("manual_head.md"), *_lines(), "", _data("manual_tail.md"), *_vocabulary()))


def _data(name: str) -> str:
    return (resources.files("havrin_core.shorthand") / "data" / name).read_text(encoding="utf-8")


def _lines() -> Iterator[str]:
    yield "| line | means |"
    yield "|---|---|"
    for row in tomllib.loads(_data("lines.toml"))["line"]:
        yield f"| {row['typed']} | {row['means']} |"


def _vocabulary() -> Iterator[str]:
    yield from _section("Readings", (_reading(what.key) for what in MEASURANDS if what.words))
    yield from _section("Parts", (_part(key) for key in parts()))
    yield from _section("What a part can be like", (_named(row.name, row.words) for row in conditions().values()))
    yield from _section("What is done to it", (_named(row.name, row.words) for row in verbs().values()))
    yield from _section("Left abnormal, and made good", (f"`{w.verb_in} …`, `{w.verb_out} …`" for w in WAYS))
    yield from _section("Sentences of their own", _sentences())
    yield from _section("In other words", _other_words())


def _other_words() -> Iterator[str]:
    for rule in rules():
        for said, bar in rule.examples.items():
            yield f"`{said}` is `{bar}`"


def _section(title: str, rows: Iterable[str]) -> Iterator[str]:
    yield f"\n## {title}\n"
    yield from (f"- {row}" for row in rows)


def _reading(key: str) -> str:
    what = next(row for row in MEASURANDS if row.key == key)
    units = dict.fromkeys(shown_unit(what.dimension, system).symbol for system in ("us", "metric"))
    stage = ", at each stage" if what.staged else ""
    return f"{_named(what.name, what.words)} ({' or '.join(unit for unit in units if unit) or 'a count'}{stage})"


def _part(key: str) -> str:
    part = parts()[key]
    dangers = [row.name.lower() for row in conditions().values() if verdict_of(key, row.key) == DANGER]
    said = f"; a danger when {', '.join(dangers)}" if dangers else ""
    return f"{_named(part.name, part.words)}{', a safety device' if part.safety else ''}{said}"


def _named(name: str, words: tuple[str, ...]) -> str:
    said = ", ".join(f"`{word}`" for word in words[:_MOST_WORDS])
    return f"**{name}**{f': {said}' if said else ''}"


def _sentences() -> Iterator[str]:
    by_meaning: dict[tuple[str, str], list[str]] = {}
    for said, (part, like, _) in whole_phrases().items():
        by_meaning.setdefault((part, like), []).append(said)
    for (part, like), every in by_meaning.items():
        shown = ", ".join(f"`{one}`" for one in every[:_MOST_WORDS])
        yield f"{shown}: {parts()[part].name}, {conditions()[like].name.lower()}"
