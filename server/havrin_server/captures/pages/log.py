"""A log as the page draws it."""

import math
from collections.abc import Mapping
from typing import Any

from havrin_core.logs.columns import DIMENSIONS, dimension_of
from havrin_core.logs.units import units_of
from havrin_core.quantities.display import show
from havrin_core.quantities.units import shown_unit
from havrin_core.traces.series import Series
from havrin_core.traces.steady import Steady, find_light_off, find_steady, reduce_for_drawing, window
from havrin_core.vocabulary.channels import channel_name, quantity_of
from havrin_core.vocabulary.measurands import measurand
from havrin_server.captures.models import FlueLog
from havrin_server.captures.schemas.logs import ColumnOut, LogPage, LogQuestion, MeanOut, TraceOut
from havrin_server.captures.services import series_of
from havrin_server.figures.schemas import RangeOut, Shown

_DELIMITER_NAMES = {";": "semicolon", "\t": "tab", "|": "bar", ",": "comma", ":": "colon", "blanks": "blanks"}


def log_page(log: FlueLog, system: str, *, remembered: bool = False) -> LogPage:
    """Return the log with what is asked about it and, where its time is sure, its trace and steady means."""
    layout, series = log.layout, series_of(log)
    steady = find_steady(series) if series else None
    line = layout.get("header_line") or layout.get("header_row", 0) + 1
    return LogPage(
        id=log.pk,
        name=log.name,
        size_bytes=log.file.size,
        instrument=log.instrument_id,
        headers=list(layout["headers"]),
        sample=[list(row) for row in layout["sample"]],
        described=f"{_DELIMITER_NAMES.get(layout['delimiter'], 'no mark')} between columns, names in line {line}",
        columns=[_column(q, log.mapping["columns"]) for q in (*DIMENSIONS, *_volts(log))],
        time_columns=log.mapping.get("time", []),
        questions=[LogQuestion.model_validate(row) for row in log.mapping.get("questions", ())],
        remembered=remembered,
        problems=list(log.problems),
        trace=_trace(series, steady, system) if series else None,
        means=means_out(steady, system) if steady else [],
    )


def window_means(log: FlueLog, start_s: float, end_s: float, system: str) -> list[MeanOut]:
    """Return the means over a window that the person chose."""
    series = series_of(log)
    return means_out(window(series, start_s, end_s), system) if series else []


def means_out(found: Steady, system: str) -> list[MeanOut]:
    """Return means with their scatter, in the person's units."""
    rows = []
    order = list(DIMENSIONS)
    for name, mean, scatter in sorted(
        found.means, key=lambda row: order.index(row[0]) if row[0] in order else len(order)
    ):
        what = measurand(quantity_of(name))
        shown, unit = show(mean, what.dimension, system), shown_unit(what.dimension, system)
        rows.append(
            MeanOut(
                quantity=name,
                name=channel_name(name),
                mean=Shown.of(shown),
                scatter=f"±{scatter / unit.scale:.{unit.decimals + 1}f}",
            )
        )
    return rows


def _volts(log: FlueLog) -> list[str]:
    return [quantity for quantity in log.mapping["columns"] if quantity not in DIMENSIONS]


def _column(quantity: str, columns: Mapping[str, Mapping[str, Any]]) -> ColumnOut:
    units, choice = units_of(dimension_of(quantity)), columns.get(quantity)
    return ColumnOut(
        quantity=quantity,
        name=channel_name(quantity),
        column=choice["column"] if choice else None,
        unit=choice["unit"] if choice else units[0],
        units=list(units),
    )


def _trace(series: Series, steady: Steady | None, system: str) -> TraceOut:
    seconds, channels = reduce_for_drawing(series)
    units = {name: shown_unit(measurand(quantity_of(name)).dimension, system) for name in channels}
    return TraceOut(
        seconds=[round(float(s), 2) for s in seconds],
        channels={
            name: [None if math.isnan(v) else round(units[name].from_si(float(v)), 3) for v in values]
            for name, values in channels.items()
        },
        units={name: unit.symbol for name, unit in units.items()},
        light_off_s=find_light_off(series),
        steady=RangeOut(low=steady.start_s, high=steady.end_s) if steady else None,
        duration_s=float(series.seconds[-1]),
    )
