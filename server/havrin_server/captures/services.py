"""Use cases on logs: take a file in, map its columns, write its means on the tape."""

import io
import uuid
from collections.abc import Mapping
from datetime import datetime
from typing import Any, get_args

import numpy as np
from django.db import transaction
from ninja import UploadedFile

from havrin_core.batch.logs import chosen_from_dict
from havrin_core.errors import BadDocument, OutOfDomain
from havrin_core.logs.clocks import TimeKind
from havrin_core.logs.columns import dimension_of, is_channel
from havrin_core.logs.numbers import MARKS
from havrin_core.logs.reading import SIGNS, LogReading, Question, read_log
from havrin_core.logs.units import units_of
from havrin_core.physics.combustion.balance import check_sample
from havrin_core.physics.fuels import shipped_fuel
from havrin_core.traces.series import Series, over_range_s, series_of_log
from havrin_core.traces.steady import NOISE, window
from havrin_core.vocabulary.channels import channel_name
from havrin_core.wording.phrases import words
from havrin_server.captures.means import bodies_of_means
from havrin_server.captures.models import FlueLog
from havrin_server.captures.shares import told
from havrin_server.errors import FileRefused, NotFound, VisitClosed
from havrin_server.instruments.models import Instrument
from havrin_server.instruments.queries import by_kind, instruments_of
from havrin_server.people.models import Person
from havrin_server.people.permissions import require
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import find_visit
from havrin_server.visits.services import append

LARGEST_LOG = 200 * 1024 * 1024


def take_log(
    visit_id: int,
    file: UploadedFile,
    *,
    instrument_id: int | None,
    actor: Person,
    now: datetime,
    upload: uuid.UUID | None = None,
) -> tuple[FlueLog, bool]:
    """Keep a log file as it came and read it by the remembered or guessed columns; return it and whether it was remembered.

    While it is read, ``shares.share_of(upload)`` tells how far: so nothing is locked or half written meanwhile.

    Raises NotAllowed, NotFound, VisitClosed, FileRefused (too large), BadDocument (no table of numbers).
    """
    require(actor, "visit.write")
    _open(visit_id, actor)
    if file.size is None or file.size > LARGEST_LOG:
        raise FileRefused(f"The log is larger than {LARGEST_LOG // 2**20} MB.")
    instrument = instruments_of(actor).filter(pk=instrument_id or 0).first()
    file.seek(0)
    raw = file.read()
    with told(upload) as hear:
        found = read_log(raw, progress=hear)
        remembered = _remembered(instrument, found)
        if remembered is not None:
            found = read_log(raw, chosen_from_dict(remembered), hear)
    with transaction.atomic():
        log = _kept(_open(visit_id, actor), file, found, remembered or {}, instrument, actor, now)
    return log, remembered is not None


def _kept(
    visit: Visit,
    file: UploadedFile,
    found: LogReading,
    chosen: Mapping[str, Any],
    instrument: Instrument | None,
    actor: Person,
    now: datetime,
) -> FlueLog:
    log = FlueLog(
        id=uuid.uuid4(),
        visit=visit,
        instrument=instrument,
        uploaded_by=actor,
        uploaded_at=now,
        name=(file.name or "log")[-200:],
        layout=_layout(found),
    )
    file.seek(0)
    log.file.save(f"{log.id}.log", file, save=False)
    _keep(log, found, chosen)
    return log


@transaction.atomic
def answer(log: FlueLog, given: Mapping[str, Any], *, actor: Person) -> None:
    """Read the log anew with one more answer, or with the columns that a person chose; remember it for the instrument.

    ``given`` is laid over what was chosen before: columns by quantity, units and marks by column, the kind of time.
    Raises NotAllowed, FileRefused (a column or unit that there is not), BadDocument.
    """
    require(actor, "visit.write")
    chosen = _merged(dict(log.mapping.get("chosen") or {}), given)
    _check(log, chosen)
    with log.file.open("rb") as raw:
        found = read_log(raw.read(), chosen_from_dict(chosen))
    _keep(log, found, chosen)
    if log.instrument is not None:
        log.instrument.log_mapping = {**log.instrument.log_mapping, _fingerprint(found): chosen}
        log.instrument.save(update_fields=["log_mapping"])


def _merged(before: dict[str, Any], given: Mapping[str, Any]) -> dict[str, Any]:
    parts = {
        part: {**dict(before.get(part) or {}), **dict(given.get(part) or {})} for part in ("columns", "units", "marks")
    }
    return {**parts, **{one: given.get(one) or before.get(one) for one in ("time", "session", "fuel", "sign")}}


def _check(log: FlueLog, chosen: Mapping[str, Any]) -> None:
    width = len(log.layout["headers"])
    for quantity, column in chosen["columns"].items():
        if not is_channel(quantity) or (column is not None and not 0 <= int(column) < width):
            raise FileRefused(f"Column {column} for {quantity} is not in this log.")
        unit = chosen["units"].get(str(column))
        if unit is not None and unit not in units_of(dimension_of(quantity)):
            raise FileRefused(f"{channel_name(quantity)} has no unit “{unit}”.", code="unit_unknown")
    wrong = [mark for mark in chosen["marks"].values() if mark not in MARKS]
    wrong += [chosen["time"]] if chosen["time"] not in (None, *get_args(TimeKind)) else []
    wrong += [chosen["sign"]] if chosen["sign"] not in (None, *SIGNS) else []
    if wrong:
        raise FileRefused(f"“{wrong[0]}” is not one of the answers.")


def _keep(log: FlueLog, found: LogReading, chosen: Mapping[str, Any]) -> None:
    """Keep what the log says, what has to be asked, and by what was chosen it was read."""
    log.mapping = {
        "columns": {c.quantity: {"column": c.column, "unit": c.unit} for c in found.channels},
        "time": list(found.time_columns),
        "chosen": dict(chosen),
        "questions": [_question(question, found) for question in found.questions],
        "over": {c.quantity: list(over_range_s(found, c.quantity))[:_MOST_OVER] for c in found.channels if c.at_least},
    }
    try:
        series = series_of_log(found)
    except BadDocument as refusal:
        log.problems = [] if found.questions else [words(refusal.said)]
        log.series = None
    else:
        log.problems, log.series = [words(problem) for problem in series.problems], _packed(series)
    log.save()


def _question(question: Question, found: LogReading) -> dict[str, Any]:
    return {
        "about": question.about,
        "quantity": question.quantity,
        "column": question.column,
        "text": words(question.said),
        "choices": [{"key": key, "label": _choice(question.about, key, found)} for key in question.choices],
    }


def _choice(about: str, key: str, found: LogReading) -> str:
    if about == "fuel":
        return shipped_fuel(key).label
    if about == "column":
        return f"{int(key) + 1}: {found.table.headers[int(key)] or 'no name'}"
    return _CHOICES.get((about, key), key)


_CHOICES = {
    ("numbers", "point"): "decimal point",
    ("numbers", "comma"): "decimal comma",
    ("session", "all"): "all are one",
    ("sign", "suction"): "suction: the vent draws",
    ("sign", "pressure"): "pressure: the vent pushes back",
    ("time", "rows"): "a row a second",
    ("time", "h_min"): "hours and minutes",
    ("time", "min_s"): "minutes and seconds",
    ("time", "s"): "seconds",
    ("time", "min"): "minutes",
    ("time", "ms"): "milliseconds",
}
_MOST_OVER, _SHOWN_ROWS = 5000, 6


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
    if any(start_s <= second <= end_s for second in log.mapping.get("over", {}).get("co_ppm_dry", ())):
        raise FileRefused(
            "CO was over the analyzer's range in this window: it is at least that. Write it so: co >4000."
        )
    found = window(series, start_s, end_s)
    means = {name: mean for name, mean, _ in found.means}
    if means.keys() & NOISE.keys():
        _check_flue(means)
    rows = [(name, max(mean, 0.0) if name == "co_ppm_dry" else mean, scatter) for name, mean, scatter in found.means]
    if not rows:
        raise FileRefused("This window holds no values: choose another.")
    keys = visit.unit.described().stage_keys
    bodies = bodies_of_means(str(log.pk), stage if stage in keys else keys[-1], end_s - start_s, rows)
    append(
        visit,
        bodies,
        group=entry_id,
        phase=phase,
        at=at,
        actor=actor,
        now=now,
        in_hand=by_kind(filter(None, [log.instrument])),
    )


def _check_flue(means: Mapping[str, float]) -> None:
    """Raise FileRefused for a flue sample without oxygen, or that no flue gas has."""
    if "o2_dry_pct" not in means:
        raise FileRefused("This window holds no O₂: choose another, or map the O₂ column.")
    try:
        check_sample(means["o2_dry_pct"], max(means.get("co_ppm_dry", 0.0), 0.0))
    except OutOfDomain as refusal:
        raise FileRefused(words(refusal.said)) from refusal


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


def _remembered(instrument: Instrument | None, found: LogReading) -> dict[str, Any] | None:
    """Return what was chosen for this instrument and these headers and units; a choice of before that is asked anew."""
    stored = instrument.log_mapping.get(_fingerprint(found)) if instrument else None
    return stored if stored and "marks" in stored else None


def _packed(series: Series) -> bytes:
    target = io.BytesIO()
    arrays: dict[str, Any] = {name: values.astype(np.float32) for name, values in series.channels.items()}
    np.savez_compressed(target, seconds=series.seconds, **arrays)
    return target.getvalue()


def _fingerprint(found: LogReading) -> str:
    table = found.table
    return table.delimiter.join((*table.headers, *table.units))


def _layout(found: LogReading) -> dict[str, Any]:
    table = found.table
    return {
        "delimiter": table.delimiter,
        "headers": list(table.headers),
        "units": list(table.units),
        "header_line": table.header_line,
        "sample": [list(table.row(index)) for index in range(min(len(table.lines), _SHOWN_ROWS))],
        "encoding": found.encoding,
    }
