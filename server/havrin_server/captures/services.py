"""Use cases on logs: take a file in, map its columns, write its means on the tape."""

import io
import uuid
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Any

import numpy as np
from django.db import transaction
from ninja import UploadedFile

from havrin_core.errors import BadDocument, OutOfDomain
from havrin_core.physics.combustion.balance import check_sample
from havrin_core.tape.entries import Trace
from havrin_core.traces.log_layout import (
    HEAD_BYTES,
    UNITS,
    Layout,
    column_unit,
    find_layout,
    guess_columns,
    unit_is_said,
)
from havrin_core.traces.log_reader import ColumnChoice, Series, read_series
from havrin_core.traces.steady import window
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.phrases import words
from havrin_server.captures.models import FlueLog
from havrin_server.errors import FileRefused, NotFound, VisitClosed
from havrin_server.instruments.models import Instrument
from havrin_server.instruments.queries import instruments_of
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import find_visit
from havrin_server.visits.services import append

LARGEST_LOG = 200 * 1024 * 1024


@dataclass(frozen=True, slots=True, kw_only=True)
class Mapping:
    """Which column holds what."""

    columns: dict[str, ColumnChoice]
    time_column: int | None


@transaction.atomic
def take_log(
    visit_id: int, file: UploadedFile, *, instrument_id: int | None, actor: Person, now: datetime
) -> tuple[FlueLog, bool]:
    """Keep a log file as it came and read it by the remembered or guessed columns; return it and whether it was remembered.

    Raises NotAllowed, NotFound, VisitClosed, FileRefused (too large), BadDocument (no table of numbers).
    """
    require(actor, "visit.write")
    visit = _open(visit_id, actor)
    if file.size is None or file.size > LARGEST_LOG:
        raise FileRefused(f"The log is larger than {LARGEST_LOG // 2**20} MB.")
    file.seek(0)
    layout = find_layout(file.read(HEAD_BYTES))
    file.seek(0)
    instrument = instruments_of(actor).filter(pk=instrument_id or 0).first()
    log = FlueLog(
        id=uuid.uuid4(),
        visit=visit,
        instrument=instrument,
        uploaded_by=actor,
        uploaded_at=now,
        name=(file.name or "log")[-200:],
        layout=_to_json(layout),
    )
    log.file.save(f"{log.id}.log", file, save=False)
    mapping = remembered_mapping(instrument, layout)
    log.save()
    _read(log, layout, mapping or guessed_mapping(layout))
    if mapping is None:
        log.problems = [*_unsaid_units(log, layout), *log.problems]
        log.save(update_fields=["problems"])
    return log, mapping is not None


@transaction.atomic
def map_columns(log: FlueLog, mapping: Mapping, *, actor: Person) -> None:
    """Read the log by the columns that a person chose, and remember them for the instrument. Raises as ``take_log``."""
    require(actor, "visit.write")
    layout = layout_of(log)
    for name, choice in mapping.columns.items():
        if name not in UNITS or not 0 <= choice.column < len(layout.headers):
            raise FileRefused(f"Column {choice.column + 1} for {name} is not in this log.")
    if mapping.time_column is not None and not 0 <= mapping.time_column < len(layout.headers):
        raise FileRefused("The time column is not in this log.")
    _read(log, layout, mapping)
    if log.instrument is not None:
        log.instrument.log_mapping = {**log.instrument.log_mapping, _fingerprint(layout): log.mapping}
        log.instrument.save(update_fields=["log_mapping"])


@transaction.atomic
def write_means(
    log: FlueLog,
    entry_id: uuid.UUID,
    start_s: float,
    end_s: float,
    *,
    stage: str | None,
    phase: str,
    at: datetime,
    actor: Person,
    now: datetime,
) -> None:
    """Append the means over a window to the tape, with their scatter. Sent twice, written once.

    Raises NotAllowed, VisitClosed, FileRefused (no O2 or no values there), OutOfDomain (means that no flue gas has).
    """
    require(actor, "visit.write")
    visit = Visit.objects.select_for_update(of=("self",)).select_related("unit__site").get(pk=log.visit_id)
    if visit.entries.filter(group=entry_id).exists():
        return
    if visit.closed_at is not None:
        raise VisitClosed("This visit is closed; its tape takes no more entries.")
    series = series_of(log)
    if series is None:
        raise FileRefused("The log's columns are not mapped yet.")
    found = window(series, start_s, end_s)
    means = {name: mean for name, mean, _ in found.means}
    if "o2_dry_pct" not in means:
        raise FileRefused("This window holds no O₂: choose another, or map the O₂ column.")
    try:
        check_sample(means["o2_dry_pct"], max(means.get("co_ppm_dry", 0.0), 0.0))
    except OutOfDomain as refusal:
        raise FileRefused(words(refusal.said)) from refusal
    rows = tuple(
        (name, max(mean, 0.0) if name == "co_ppm_dry" else mean, scatter) for name, mean, scatter in found.means
    )
    keys = visit.unit.described().stage_keys
    body = Trace(str(log.pk), stage if stage in keys else keys[-1], end_s - start_s, rows)
    append(visit, [body], group=entry_id, phase=phase, at=at, actor=actor, now=now, instrument=log.instrument)


def guessed_mapping(layout: Layout) -> Mapping:
    """Return the mapping that the headers suggest."""
    columns = guess_columns(layout)
    time_column = columns.pop("time", None)
    return Mapping(
        columns={q: ColumnChoice(columns[q], column_unit(layout, columns[q], q)) for q in UNITS if q in columns},
        time_column=time_column,
    )


def remembered_mapping(instrument: Instrument | None, layout: Layout) -> Mapping | None:
    """Return the mapping that was confirmed for this instrument and these headers, if one was."""
    stored = instrument.log_mapping.get(_fingerprint(layout)) if instrument else None
    return mapping_from_json(stored) if stored else None


def mapping_from_json(stored: dict[str, Any]) -> Mapping:
    """Return a stored mapping."""
    columns = {q: ColumnChoice(**c) for q, c in stored["columns"].items()}
    return Mapping(columns=columns, time_column=stored["time_column"])


def layout_of(log: FlueLog) -> Layout:
    """Return the log's layout as the core takes it."""
    data = dict(log.layout)
    for name in ("headers", "units"):
        data[name] = tuple(data[name])
    data["sample"] = tuple(tuple(row) for row in data["sample"])
    return Layout(**data)


def series_of(log: FlueLog) -> Series | None:
    """Return the numbers read from the log, or None when nothing could be read by its mapping."""
    if log.series is None:
        return None
    with np.load(io.BytesIO(bytes(log.series))) as archive:
        channels = {name: archive[name].astype(float) for name in archive.files if name != "seconds"}
        return Series(archive["seconds"], channels, tuple(log.problems))


def find_log(log_id: uuid.UUID, actor: Person) -> FlueLog:
    """Return a log of the person's firm. Raises NotFound."""
    log = (
        FlueLog.objects.select_related("visit__unit__site", "instrument")
        .filter(pk=log_id, visit__unit__site__firm_id=actor.own_firm_id)
        .first()
    )
    if log is None:
        raise NotFound("There is no such log in your firm.")
    return log


def _open(visit_id: int, actor: Person) -> Visit:
    visit = find_visit(visit_id, actor)
    if visit.closed_at is not None:
        raise VisitClosed("This visit is closed; it takes no more files.")
    return visit


def _read(log: FlueLog, layout: Layout, mapping: Mapping) -> None:
    log.mapping = {
        "columns": {q: {"column": c.column, "unit": c.unit} for q, c in mapping.columns.items()},
        "time_column": mapping.time_column,
    }
    try:
        series = read_series(_lines(log, layout), layout, mapping.columns, mapping.time_column)
    except BadDocument as refusal:
        log.problems, log.series = [words(refusal.said)], None
    else:
        log.problems, log.series = [words(problem) for problem in series.problems], _packed(series)
    log.save(update_fields=["mapping", "problems", "series"])


def _unsaid_units(log: FlueLog, layout: Layout) -> list[str]:
    temperatures = [(q, c) for q, c in log.mapping["columns"].items() if UNITS[q][0] == "temperature"]
    unsaid = [(q, c["unit"]) for q, c in temperatures if not unit_is_said(layout, c["column"], q)]
    return [f"{measurand(q).name}: the log names no unit, taken as {unit}. Look under Columns." for q, unit in unsaid]


def _lines(log: FlueLog, layout: Layout) -> Iterator[str]:
    with log.file.open("rb") as raw:
        yield from io.TextIOWrapper(raw, encoding=layout.encoding, errors="replace")


def _packed(series: Series) -> bytes:
    target = io.BytesIO()
    arrays: dict[str, Any] = {name: values.astype(np.float32) for name, values in series.channels.items()}
    np.savez_compressed(target, seconds=series.seconds, **arrays)
    return target.getvalue()


def _fingerprint(layout: Layout) -> str:
    return layout.delimiter.join(layout.headers)


def _to_json(layout: Layout) -> dict[str, object]:
    return {name: getattr(layout, name) for name in Layout.__slots__}
