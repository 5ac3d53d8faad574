"""The tape as a chain: each entry's link holds all of it and of every entry before it, so that a change anywhere shows.

A record is what is stored of an entry, as JSON. Its link is the SHA-256 of the link before it and of the record in its
canonical form: names sorted, no spaces, every number as a float writes itself, UTF-8. The first one follows ``BEGIN``.
"""

import hashlib
import json
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

BEGIN = "0" * 64

Record = Mapping[str, Any]


def canonical(record: Record) -> bytes:
    """Return the one form of a record that is hashed, whoever wrote the JSON and however a database keeps its numbers."""
    return json.dumps(_plain(record), sort_keys=True, separators=(",", ":"), ensure_ascii=False).encode()


def _plain(value: Any) -> Any:
    if value is None or isinstance(value, str | bool):  # most of what there is
        return value
    if isinstance(value, int | float):
        return float(value)  # a database gives 5.0 back as 5, and 1e22 as a whole number
    if isinstance(value, list | tuple):
        return [_plain(inner) for inner in value]
    if isinstance(value, Mapping):
        return {str(name): _plain(inner) for name, inner in value.items()}
    return value


def link(before: str, record: Record) -> str:
    """Return the link of ``record`` behind the link ``before``, 64 hexadecimal digits."""
    return hashlib.sha256(before.encode() + b"\n" + canonical(record)).hexdigest()


def links(records: Iterable[Record], before: str = BEGIN) -> Iterator[str]:
    """Yield the link of each record, in their order."""
    for record in records:
        before = link(before, record)
        yield before


@dataclass(frozen=True, slots=True)
class Break:
    """Where a chain does not hold: the place of the entry, counted from 1, and its id."""

    number: int
    entry: str


def first_break(records: Sequence[Record], stated: Sequence[str]) -> Break | None:
    """Return where the stated links stop following from the records; None where all do.

    A record too many or too few breaks the chain behind the last one that both have.
    """
    for number, (record, found) in enumerate(zip(records, links(records), strict=True), 1):
        if number > len(stated) or stated[number - 1] != found:
            return Break(number, str(record.get("id", "")))
    if len(stated) > len(records):
        return Break(len(records) + 1, "")
    return None
