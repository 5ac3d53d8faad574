"""A log as data: its channels, units, doubts, questions and what was left out."""

from collections.abc import Mapping, Sequence
from math import isnan
from typing import Any

from havrin_core.logs.columns import is_channel
from havrin_core.logs.reading import SIGNS, Channel, Chosen, LogReading, Question
from havrin_core.wording.phrases import words


def chosen_from_dict(data: Mapping[str, Any]) -> Chosen:
    """Return what a person chose: ``{"columns": {quantity: index}, "units": {index: unit}, "marks": {index: mark}, "time": kind, "fuel": name, "sign": "suction" or "pressure", "session": number or "all"}``."""
    columns = {
        str(q): None if c is None else int(c) for q, c in dict(data.get("columns") or {}).items() if is_channel(q)
    }
    units = {int(c): str(unit) for c, unit in dict(data.get("units") or {}).items()}
    marks = {int(c): mark for c, mark in dict(data.get("marks") or {}).items() if mark in ("point", "comma")}
    session = data.get("session")
    sign = data.get("sign") if data.get("sign") in SIGNS else None
    return Chosen(
        columns, units, marks, data.get("time"), data.get("fuel"), sign, None if session is None else str(session)
    )


def log_to_dict(found: LogReading) -> dict[str, Any]:
    """Return everything that the reader makes of a log; values are canonical, rows without one are null."""
    table = found.table
    return {
        "encoding": found.encoding,
        "delimiter": table.delimiter,
        "header_line": table.header_line,
        "headers": list(table.headers),
        "units_row": list(table.units),
        "rows": len(table.lines),
        "transposed": table.transposed,
        "channels": [_channel(channel, table.lines) for channel in found.channels],
        "time": {"kind": found.time.kind, "columns": list(found.time_columns)} if found.time else None,
        "seconds": [None if isnan(second) else round(second, 6) for second in found.seconds],
        "questions": [_question(question) for question in found.questions],
        "doubts": [words(doubt) for doubt in found.doubts],
        "dropped": [
            {"why": words(row.why), "count": row.count, "lines": [{"line": n, "text": text} for n, text in row.lines]}
            for row in found.dropped
        ],
    }


def _channel(channel: Channel, lines: Sequence[int]) -> dict[str, Any]:
    return {
        "quantity": channel.quantity,
        "column": channel.column,
        "header": channel.header,
        "unit": channel.unit,
        "decimal": channel.mark,
        "values": [None if isnan(value) else value for value in channel.values],
        "at_least": [lines[row] for row in channel.at_least],
        "at_most": [lines[row] for row in channel.at_most],
        "without_value": channel.without,
        "not_read": {"count": channel.odd_count, "cells": [{"line": n, "text": text} for n, text in channel.odd]},
    }


def _question(question: Question) -> dict[str, Any]:
    return {
        "about": question.about,
        "quantity": question.quantity,
        "column": question.column,
        "text": words(question.said),
        "choices": list(question.choices),
    }
