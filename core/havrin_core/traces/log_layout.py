"""Find out how an analyzer's log is laid out: delimiter, decimal mark, header, units, columns."""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from havrin_core.errors import BadDocument
from havrin_core.phrases import phrase
from havrin_core.quantities.units import find_unit

HEAD_BYTES = 64 * 1024
_DELIMITERS = (";", "\t", "|", ",")
_NUMBER = re.compile(r"[+\-−]?\d*[.,]?\d+(?:[eE][+\-]?\d+)?")
_CLOCK = re.compile(r"(?:\S+[ T])?\d{1,2}:\d{2}(?::\d{2}(?:[.,]\d+)?)?(?:\s*[AaPp]\.?[Mm]\.?)?(?:Z|[+\-]\d{2}:?\d{2})?")
_NOTHING = re.compile(r"\s*|[-–—]+|n/?a|nan|null|\.+", re.IGNORECASE)
_UNIT_IN_HEADER = re.compile(
    r"[\[(]\s*([^\])]*?)\s*[\])]|(?<=[\s_])(%|ppm|°C|°F|degC|degF|K|mbar|Pa|inWC|s|sec|min)$", re.IGNORECASE
)

# Words in headers, in the languages' common abbreviations; the first that fits wins.
_COLUMN_WORDS: tuple[tuple[str, re.Pattern[str]], ...] = (
    ("co2_dry_pct", re.compile(r"\bco[_\s]?(2|₂)\b|carbon.?dioxide", re.IGNORECASE)),
    (
        "co_ppm_dry",
        re.compile(r"\bco\b(?!.*(air.?free|af\b|undil|ref|@|3\s*%|max|ratio))|carbon.?monoxide", re.IGNORECASE),
    ),
    ("o2_dry_pct", re.compile(r"\bo[_\s]?(2|₂)\b(?!.*ref)|oxygen", re.IGNORECASE)),
    ("air_temp_k", re.compile(r"\b(t[_\s]?(air|amb|a)|ta|amb\w*|room|intake|comb\w*.?air)\b", re.IGNORECASE)),
    (
        "flue_temp_k",
        re.compile(r"\b(t[_\s]?(flue|gas|stack|fg|f|s)|tf|ts|flue|stack|exhaust|fumes?|temp\w*)\b", re.IGNORECASE),
    ),
    ("time", re.compile(r"\b(time|clock|elapsed|sec\w*|zeit|hh|date.?time|timestamp|s|t)\b", re.IGNORECASE)),
)
UNITS = {
    "o2_dry_pct": ("percent", "%"),
    "co_ppm_dry": ("ppm", "ppm"),
    "co2_dry_pct": ("percent", "%"),
    "flue_temp_k": ("temperature", "°C"),
    "air_temp_k": ("temperature", "°C"),
}


@dataclass(frozen=True, slots=True)
class Layout:
    """How a log is written. ``header_row`` counts from 0 among its lines; ``units_row`` follows it or is absent."""

    encoding: str
    delimiter: str
    decimal_comma: bool
    header_row: int
    headers: tuple[str, ...]
    units: tuple[str, ...]
    first_data_row: int
    sample: tuple[tuple[str, ...], ...]


def find_layout(head: bytes) -> Layout:
    """Return the layout of the log that begins with ``head`` (up to HEAD_BYTES).

    Raises BadDocument: empty, not text, or no table of numbers in it.
    """
    text, encoding = _decode(head)
    lines = text.splitlines()
    if len(head) >= HEAD_BYTES:
        lines = lines[:-1]  # the last one is cut
    if not any(line.strip() for line in lines):
        raise BadDocument("log_empty", phrase("file_empty"), value="file")
    found = max((_with_delimiter(lines, mark, encoding) for mark in _DELIMITERS), key=lambda pair: pair[0])
    if found[1] is None:
        message = phrase("text_but_no_table_numbers")
        raise BadDocument("log_no_table", message, value="file")
    return found[1]


def guess_columns(layout: Layout) -> dict[str, int]:
    """Return the column of each quantity (and of ``time``) as far as the headers tell."""
    guessed: dict[str, int] = {}
    for quantity, pattern in _COLUMN_WORDS:
        for column, header in enumerate(layout.headers):
            plain = _UNIT_IN_HEADER.sub(" ", header).replace("_", " ").strip()
            if column not in guessed.values() and quantity not in guessed and pattern.search(plain):
                guessed[quantity] = column
    if "time" not in guessed:
        clocks = [c for c in range(len(layout.headers)) if c not in guessed.values() and _all_clock(layout, c)]
        guessed |= {"time": clocks[0]} if clocks else {}
    return guessed


def column_unit(layout: Layout, column: int, quantity: str) -> str:
    """Return the unit of ``column`` as header or units row say it, else the usual one for ``quantity``."""
    dimension, usual = UNITS[quantity]
    for said in (layout.units[column] if column < len(layout.units) else "", _said(layout.headers[column])):
        unit = find_unit(said, dimension) if said else None
        if unit:
            return unit.symbol
    return usual


def unit_is_said(layout: Layout, column: int, quantity: str) -> bool:
    """Tell whether header or units row name the unit of ``column``; where not, the usual one is only a guess."""
    dimension, _ = UNITS[quantity]
    said = (layout.units[column] if column < len(layout.units) else "", _said(layout.headers[column]))
    return any(find_unit(word, dimension) for word in said if word)


def split_row(line: str, delimiter: str) -> list[str]:
    """Return the cells of ``line``, trimmed and without quotes."""
    return [cell.strip().strip('"').strip() for cell in line.split(delimiter)]


def is_nothing(cell: str) -> bool:
    """Tell whether ``cell`` stands for no value: empty, dashes, n/a."""
    return _NOTHING.fullmatch(cell) is not None


def is_clock(cell: str) -> bool:
    """Tell whether ``cell`` is a time of day, with or without a date."""
    return _CLOCK.fullmatch(cell) is not None


def _decode(head: bytes) -> tuple[str, str]:
    for mark, encoding in ((b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16"), (b"\xef\xbb\xbf", "utf-8-sig")):
        if head.startswith(mark):
            return head[: len(head) // 2 * 2].decode(encoding, errors="replace"), encoding
    if b"\0" in head:
        raise BadDocument("log_not_text", phrase("no_text_file_log_csv"), value="file")
    try:
        return head.decode("utf-8"), "utf-8"
    except UnicodeDecodeError as error:
        if error.start > len(head) - 4:  # a character cut at the end of the head
            return head[: error.start].decode("utf-8"), "utf-8"
        return head.decode("cp1252", errors="replace"), "cp1252"


def _with_delimiter(lines: Sequence[str], mark: str, encoding: str) -> tuple[int, Layout | None]:
    rows = [split_row(line, mark) for line in lines]
    first = next((i for i in range(len(rows)) if _is_data(rows, i)), None)
    if first is None:
        return 0, None
    width = len(rows[first])
    data = [row for row in rows[first:] if len(row) == width]
    header = first - 1
    units: tuple[str, ...] = ()
    if header > 0 and _is_units(rows[header]) and len(rows[header - 1]) == width:
        units = tuple(rows[header])
        header -= 1
    if header < 0 or len(rows[header]) != width:
        return 0, None
    comma = mark != "," and any("," in cell and _NUMBER.fullmatch(cell) for row in data[:50] for cell in row)
    layout = Layout(encoding, mark, comma, header, tuple(rows[header]), units, first, tuple(map(tuple, data[:6])))
    return width * len(data), layout


def _is_data(rows: list[list[str]], at: int) -> bool:
    """A row of data: two cells or more, two of them numbers or clocks, nothing that is words, and alike below."""
    for row in rows[at : at + 2]:
        filled = [cell for cell in row if not is_nothing(cell)]
        if len(row) < 2 or len(row) != len(rows[at]) or len(filled) < 1:
            return False
        if not all(_NUMBER.fullmatch(cell) or is_clock(cell) for cell in filled):
            return False
    return len([c for c in rows[at] if not is_nothing(c)]) >= 2


def _is_units(row: list[str]) -> bool:
    dimensions = ("percent", "ppm", "temperature", "pressure", "time")
    bare = [cell.strip("[]() ") for cell in row if not is_nothing(cell)]
    known = [
        cell
        for cell in bare
        if any(find_unit(cell, d) for d in dimensions) or cell.lower() in ("hh:mm:ss", "h:m:s", "")
    ]
    return bool(bare) and len(known) >= max(1, len(bare) - 1)


def _said(header: str) -> str:
    match = _UNIT_IN_HEADER.search(header)
    return (match.group(1) or match.group(2) or "").strip() if match else ""


def _all_clock(layout: Layout, column: int) -> bool:
    return bool(layout.sample) and all(is_clock(row[column]) for row in layout.sample)
