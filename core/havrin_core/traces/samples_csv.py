"""Samples of a capture as CSV, out and in again: ``quantity,seconds,value``, canonical units, one sample a row."""

import csv
from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import TextIO

from havrin_core.errors import BadDocument, CoreError
from havrin_core.phrases import phrase
from havrin_core.vocabulary.channels import channel_name

HEADER = ("quantity", "seconds", "value")
MOST_ROWS = 2_000_000
_LONGEST_S = 7 * 86_400.0

Channels = dict[str, tuple[list[float], list[float]]]


def write_samples(file: TextIO, channels: Mapping[str, tuple[Iterable[float], Iterable[float]]]) -> None:
    """Write every sample of ``channels`` (seconds, values) to ``file``."""
    writer = csv.writer(file, lineterminator="\n")
    writer.writerow(HEADER)
    for quantity, (times, values) in channels.items():
        writer.writerows((quantity, f"{t:.3f}", f"{v:.7g}") for t, v in zip(times, values, strict=True))


def read_samples(lines: Iterable[str]) -> Channels:
    """Return the channels of a file as ``write_samples`` writes it, each in time order.

    Raises BadDocument naming the line: another header, an unknown channel, no number, a time more than a week off, more
    than two million rows, no row at all. Times before 0 are samples that were taken before the capture began.
    """
    rows = csv.reader(lines)
    header = tuple(cell.strip().lstrip("\ufeff").lower() for cell in next(rows, []))
    if header != HEADER:
        raise BadDocument(
            "samples_header",
            phrase("line_1_should", header=",".join(HEADER), header_2=",".join(header)[:80]),
            value="1",
        )
    found: Channels = {}
    for number, row in enumerate(rows, 2):
        if number > MOST_ROWS:
            raise BadDocument("samples_rows", phrase("more_than_rows_cut_file", most_rows=MOST_ROWS), value=str(number))
        if row:
            quantity, second, value = _row(number, row, found)
            times, values = found.setdefault(quantity, ([], []))
            times.append(second)
            values.append(value)
    if not found:
        raise BadDocument("samples_none", phrase("file_holds_no_sample"), value="2")
    return {quantity: _in_order(*channel) for quantity, channel in found.items()}


def _row(number: int, row: Sequence[str], known: Mapping[str, object]) -> tuple[str, float, float]:
    if len(row) != len(HEADER):
        raise BadDocument(
            "samples_row",
            phrase("line_cells_instead", number=number, row=len(row), header=len(HEADER)),
            value=str(number),
        )
    quantity = row[0].strip()
    if quantity not in known:
        try:
            channel_name(quantity)
        except CoreError as unknown:
            raise BadDocument(
                "samples_channel",
                phrase("line_no_channel_called", number=number, quantity=quantity[:40]),
                value=str(number),
            ) from unknown
    try:
        second, value = float(row[1]), float(row[2])
    except ValueError as wrong:
        raise BadDocument(
            "samples_number",
            phrase("line_are_no_numbers", number=number, row=row[1][:20], row_2=row[2][:20]),
            value=str(number),
        ) from wrong
    if not abs(second) <= _LONGEST_S or not abs(value) <= 1e12:
        raise BadDocument(
            "samples_range", phrase("line_s_cannot", number=number, second=second, value=value), value=str(number)
        )
    return quantity, second, value


def _in_order(times: list[float], values: list[float]) -> tuple[list[float], list[float]]:
    order = sorted(range(len(times)), key=times.__getitem__)
    return [times[i] for i in order], [values[i] for i in order]


def chunks(times: Sequence[float], values: Sequence[float], most: int) -> Iterator[tuple[list[int], list[float]]]:
    """Yield (milliseconds, values) of at most ``most`` samples at a time."""
    for start in range(0, len(times), most):
        yield [round(1000 * t) for t in times[start : start + most]], list(values[start : start + most])
