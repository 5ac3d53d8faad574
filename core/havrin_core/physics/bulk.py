"""Many rows at once: a CSV file in, the same rows with their results out."""

import csv
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import TextIO

from havrin_core.errors import CoreError, OutOfDomain
from havrin_core.phrases import phrase

Values = Mapping[str, float]


@dataclass(frozen=True, slots=True)
class Calculation:
    """One kind of calculation: its columns, and what makes results of a row's words and numbers.

    ``usual`` numbers may be missing as a column; their value is then taken.
    """

    name: str
    words: tuple[str, ...]
    numbers: tuple[str, ...]
    results: tuple[str, ...]
    compute: Callable[[Mapping[str, str], Values], Values]
    usual: Mapping[str, float]

    @property
    def needed(self) -> tuple[str, ...]:
        """The columns that a file must have."""
        return (*self.words, *(name for name in self.numbers if name not in self.usual))


def compute_file(
    what: Calculation, source: TextIO, target: TextIO, say: Callable[[CoreError], str] = str
) -> tuple[int, int]:
    """Read rows from ``source``, write them with their results to ``target``; return (rows, bad rows).

    A bad row keeps its inputs and gets its reason, as ``say`` words it, in the column ``error``. Columns that are not
    needed are left out. Raises OutOfDomain when a needed column is missing altogether.
    """
    reader = csv.DictReader(source)
    names = [name.strip().lstrip("\ufeff") for name in reader.fieldnames or ()]
    reader.fieldnames = names
    missing = [name for name in ("row_id", *what.needed) if name not in names]
    if missing:
        raise OutOfDomain("columns_missing", phrase("file_lacks_columns", missing=", ".join(missing)), value=missing)
    columns = ["row_id", *what.words, *(name for name in what.numbers if name in names)]
    writer = csv.writer(target, lineterminator="\n")
    writer.writerow([*columns, *what.results, "error"])
    return _copy(what, columns, reader, writer.writerow, say)


def _copy(
    what: Calculation,
    columns: list[str],
    reader: Iterable[Mapping[str, str]],
    write: Callable[[list[str]], object],
    say: Callable[[CoreError], str],
) -> tuple[int, int]:
    rows = bad = 0
    for row in reader:
        rows += 1
        inputs = [row[name] for name in columns]
        try:
            write([*inputs, *_results(what, row), ""])
        except CoreError as refusal:
            bad += 1
            write([*inputs, *[""] * len(what.results), say(refusal)])
    return rows, bad


def _results(what: Calculation, row: Mapping[str, str]) -> list[str]:
    words = {name: (row[name] or "").strip() for name in what.words}
    found = what.compute(words, {name: _number(what, row, name) for name in what.numbers})
    return [f"{found[name]:.8g}" for name in what.results]


def _number(what: Calculation, row: Mapping[str, str], name: str) -> float:
    if name not in row:
        return what.usual[name]
    text = row[name]
    try:
        return float(text)
    except (TypeError, ValueError):
        shown = "empty" if not text else f"“{text}”"
        message = phrase("number_needed", name=name, shown=shown)
        raise OutOfDomain("not_a_number", message, quantity=name, value=text) from None
