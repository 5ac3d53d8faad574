"""The tape as if every corrected entry had been written right."""

from collections.abc import Iterable
from typing import NamedTuple

from havrin_core.tape.clock import Moment, moments
from havrin_core.tape.entries import Correction, Entry, Plain


class Line(NamedTuple):
    """One entry as it counts. ``was`` is what stood there before a correction, ``known`` when it was known.

    ``moment`` is when the entry was written: what was seen or done was so then. ``known`` is later where a correction
    brought it: a danger that nobody knew of was not answered by what came before.
    """

    entry: Entry
    body: Plain
    phase: str
    moment: Moment
    known: Moment
    was: Plain | None = None


def in_order(entries: Iterable[Entry]) -> list[Entry]:
    """Return ``entries`` by time, clocks put right, each id once: appending twice is harmless."""
    once = {entry.id: entry for entry in entries}
    return sorted(once.values(), key=lambda entry: (entry.true_at, entry.at, entry.id))


def standing_corrections(ordered: list[Entry]) -> dict[str, Entry]:
    """Return the correction that holds for each corrected entry: the newest; one that was itself corrected counts no more."""
    undone: set[str] = set()
    latest: dict[str, Entry] = {}
    for entry in reversed([e for e in ordered if isinstance(e.body, Correction)]):
        body = entry.body
        assert isinstance(body, Correction)
        if entry.id in undone:
            continue
        undone.add(body.corrects)
        latest.setdefault(body.corrects, entry)
    return latest


def effective(entries: Iterable[Entry]) -> list[Line]:
    """Return the tape as it counts, oldest first."""
    given = list(entries)
    at = moments(given)
    ordered = in_order(given)
    latest = standing_corrections(ordered)
    lines: list[Line] = []
    for entry in ordered:
        if isinstance(entry.body, Correction):
            continue
        correction = latest.get(entry.id)
        if correction is None:
            lines.append(Line(entry, entry.body, entry.phase, at[entry.id], at[entry.id]))
            continue
        body = correction.body
        assert isinstance(body, Correction)
        if body.replacement is not None:
            phase = body.phase or entry.phase
            lines.append(Line(entry, body.replacement, phase, at[entry.id], at[correction.id], entry.body))
    return lines


def struck(entries: Iterable[Entry]) -> dict[str, str]:
    """Return, for each entry that a standing correction touches, the id of that correction."""
    return {touched: correction.id for touched, correction in standing_corrections(in_order(entries)).items()}
