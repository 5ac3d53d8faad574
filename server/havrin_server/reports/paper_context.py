"""What the papers of a visit show: plain language, readings against limits, parts, plan, tape."""

import base64
import io
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from itertools import groupby
from typing import Any

from PIL import Image

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.frost import frost_says, shutdown_plan_of
from havrin_core.follow_up.plan import DECLINED, follow_up_of
from havrin_core.house.house_rules import HouseRules, efficiencies_shown
from havrin_core.limits.computed import input_at_altitude_w
from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.quantities.display import sentence
from havrin_core.quantities.formats import clock_words, day_words, number
from havrin_core.rules.model import LEAVE, NOT_YET, SHUT_DOWN, ReadingView, Reason
from havrin_core.standing.model import Assessment, LedgerRow
from havrin_core.tape.corrections import effective, struck
from havrin_core.tape.entries import (
    MADE_SAFE,
    NOT_TOUCHED,
    RUNNING,
    Action,
    Condition,
    Entry,
    Note,
    Proof,
    Said,
    Trace,
)
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.closing import (
    change_words,
    customer_state,
    left_words,
    remark_words,
    scheme_words,
    standing_title,
    tag_state,
)
from havrin_core.wording.entries import describe, echo
from havrin_core.wording.ledger import ledger_text
from havrin_core.wording.missing import because_text, missing_text
from havrin_core.wording.names import quantity_name, source, title, visit_reason
from havrin_core.wording.phrases import words
from havrin_core.wording.reasons import limit_text, reason_words
from havrin_core.wording.stations import reading_shown
from havrin_server.captures.models import FlueLog, Photo
from havrin_server.captures.services import series_of
from havrin_server.instruments.models import Instrument
from havrin_server.people.models import Person
from havrin_server.reports.trace_drawing import trace_svg
from havrin_server.visits.amendments import entries_of, written_at
from havrin_server.visits.models import Amendment, Visit
from havrin_server.visits.queries import assess_visit, tape_of

_MOST_PHOTOS = 12
_PHASES = {"found": "as found", "left": "as left", "trial": "trial"}
_FLUE_QUANTITIES = ("o2_dry_pct", "co_ppm_dry", "co2_dry_pct", "flue_temp_k", "air_temp_k")  # in a table of their own
_VERDICTS = {"in": "within", "near": "near the limit", "out": "OUT", "": "no limit known"}
_CAUTIONS = (
    "If you smell gas: touch no switch and no phone, leave, and call from outside.",
    "If a CO alarm sounds or people feel ill: everybody out, and call from outside.",
)
_SAID = {
    "advise": "We advise",
    "refuse": "Advice refused",
    "cause": "Cause",
    "told": "Told",
    "leaves": "Left",
    "call": "By telephone",
}


@dataclass(frozen=True, slots=True)
class Row:
    """One reading in the record."""

    name: str
    found: str
    left: str
    limit: str
    source: str
    verdict: str


def paper_context(visit: Visit, person: Person) -> dict[str, Any]:
    """Return what the templates of a visit's papers show, in the person's units."""
    system, tape = person.unit_system, tape_of(visit)
    found = assess_visit(visit, tape)
    level = visit.closed_level or found.level
    facts = Facts(tape)
    follow = follow_up_of(facts, visit.rules(), visit.reason, visit.day)
    frost = shutdown_plan_of(facts)
    reasons = _reasons(found, system)
    return {
        "visit": visit,
        "unit": visit.unit,
        "site": visit.unit.site,
        "reason": visit_reason(visit.reason),
        "firm": visit.unit.site.firm.name,
        "level": level,
        "title": standing_title(found),
        "plain": customer_state(found, level),
        "tag": tag_state(found),
        "awaited": [line for line in follow.parts if line.state != DECLINED],
        "judged": found.leaving != NOT_TOUCHED or level >= NOT_YET,
        "off": found.leaving not in ("", None, RUNNING),
        "side_notes": _owner_notes(tape),
        "disabled": [ledger_text(row) for row in found.ledger if row.until is None],
        "missing": [(missing_text(item), because_text(item)) for item in found.missing],
        "changes": [change_words(change, system) for change in found.changes],
        "remarks": [remark_words(remark) for remark in found.remarks],
        "open": visit.closed_at is None,
        "cautions": _CAUTIONS,
        "done": _done(tape, system),
        "said": _said(tape),
        "rows": _rows(found, system),
        "flue": _flue_rows(found, visit.rules(), system),
        "plate": _plate(visit, system),
        "tape": _tape_blocks(tape, system),
        "traces": _traces(visit, tape, system),
        "photos": [_photo(p) for p in visit.photos.order_by("taken_at")[:_MOST_PHOTOS]],
        "urgent": level == SHUT_DOWN,
        "strokes": _strokes(visit.signature),
        "words": scheme_words(found, level, visit.rules()),
        "foot": f"{visit.unit.name} · {day_words(visit.day)}",
        "parts": [replace(line, approver=words(line.approver)) for line in follow.parts],
        "suggested": follow.suggested,
        "returns": [{"day": row.day, "why": words(row.why)} for row in follow.returns],
        "frost": words(frost_says(frost, system)) if frost.hours else "",
        "plan": [
            ("Cold would harm", frost.vulnerable),
            ("Heat for the time being", frost.temporary_heat),
            ("Drained", frost.drained),
            ("Refused, in your words", frost.refused),
            ("Told", frost.told),
        ],
        "reasons": reasons,
        "top": reasons[:3],
        "shut": next((b.text for _, b in facts.said("leaves") if b.state == MADE_SAFE), ""),
        "signed": visit.signed_by or visit.technician_name,
        "kind": visit.described().kind.name,
        "instruments": _instruments(visit),
        "looks": _looks(tape, system),
        "ledger": [_ledger(row) for row in found.ledger],
    }


def amendment_context(amendment: Amendment) -> dict[str, Any]:
    """Return what the paper of an amendment shows, in the units of who wrote it."""
    visit, system = amendment.visit, amendment.author.unit_system
    entries = entries_of(amendment)
    return {
        "visit": visit,
        "unit": visit.unit,
        "site": visit.unit.site,
        "firm": visit.unit.site.firm.name,
        "reason": visit_reason(visit.reason),
        "title": title(visit.closed_level or LEAVE),
        "why": amendment.why,
        "lines": [echo(entry.body, system) for entry in entries],
        "adds": bool(amendment.left_open["entries"]),
        "author": amendment.author.full_name,
        "at": written_at(amendment),
        "foot": f"{visit.unit.name} · amendment of {day_words(written_at(amendment))}",
    }


@dataclass(frozen=True, slots=True)
class PaperReason:
    """One reason as it stands on paper: what lifts it in plain words, and whose limit it is where it is a number."""

    level: int
    text: str
    lifts: str
    whose: str


def _ledger(row: LedgerRow) -> dict[str, Any]:
    return {"text": ledger_text(row), "since": row.since, "by": row.by, "until": row.until, "until_by": row.until_by}


def _reasons(found: Assessment, system: str) -> list[PaperReason]:
    """Return the reasons; that the unit was shut down comes last, for it is no cause."""
    ordered = sorted(found.reasons, key=lambda reason: reason.code == "shut_down")
    said = [(reason, reason_words(reason, system)) for reason in ordered]
    return [PaperReason(r.level, words.text, words.lifts, words.source if _has_number(r) else "") for r, words in said]


def _has_number(reason: Reason) -> bool:
    return "value" in reason.facts


def _done(tape: tuple[Entry, ...], system: str) -> list[str]:
    return [echo(line.body, system) for line in effective(tape) if isinstance(line.body, Action | Condition)]


def _said(tape: tuple[Entry, ...]) -> list[tuple[str, str]]:
    bodies = [line.body for line in effective(tape)]
    said = [b for b in bodies if isinstance(b, Said) and b.what in _SAID and b.state != RUNNING]
    return [(_SAID[b.what], left_words(b) if b.what == "leaves" else b.text) for b in said]


def _owner_notes(tape: tuple[Entry, ...]) -> list[str]:
    """Return what was written down for the owner: it goes into the report, never into the standing."""
    return [line.body.text for line in effective(tape) if isinstance(line.body, Note) and line.body.for_owner]


def _rows(found: Assessment, system: str) -> list[Row]:
    views = {(v.quantity, v.stage): v for v in found.readings if v.quantity not in _FLUE_QUANTITIES}
    return [_row(view, system) for view in views.values()]


def _row(view: ReadingView, system: str) -> Row:
    what = measurand(view.quantity)
    shown = reading_shown(view, system)
    value = f"{shown.text} {shown.unit}"
    earlier = sentence(view.found, what.dimension, system) if view.found is not None else ""
    found, left = (value, "") if view.phase == "found" and not earlier else (earlier, value)
    limited = view.band is not None and (view.band.low is not None or view.band.high is not None)
    limit = limit_text(view.quantity, view.band, view.value, system) if view.band and limited else ""
    whose = source(view.band.source) if view.band and limited else ""
    return Row(quantity_name(view.quantity, view.stage), found, left, limit, whose, _VERDICTS[view.verdict])


def _flue_rows(found: Assessment, rules: HouseRules, system: str) -> list[dict[str, str]]:
    rows = []
    for view in found.flue:
        if view.result is None:
            continue
        values, widths, sample = view.result.values, view.result.half_widths, view.result.sample
        rows.append(
            {
                "stage": f"{STAGE_LABELS[view.stage]} fire" if STAGE_LABELS[view.stage] else "Flue",
                "o2": f"{number(sample.o2_dry_pct, '.1f')} %",
                "co": f"{number(sample.co_ppm_dry, '.0f')} ppm",
                "t": sentence(sample.flue_temp_k, "temperature", system)
                if sample.flue_temp_k is not None
                else "not read",
                "air_free": f"{number(values['co_air_free_ppm'], '.0f')} ± {number(widths['co_air_free_ppm'], '.0f')} ppm",
                "excess": f"{number(values['excess_air_pct'], '.0f')} ± {number(widths['excess_air_pct'], '.0f')} %",
                "efficiency": _efficiency(values, widths, efficiencies_shown(rules, system)),
                "dew": sentence(values["dew_point_k"], "temperature", system) if "dew_point_k" in values else "",
            }
        )
    return rows


def _efficiency(values: Mapping[str, float], widths: Mapping[str, float], names: tuple[str, ...]) -> str:
    said = [
        f"{number(values[n], '.1f')} ± {number(widths[n], '.1f')} % {n.split('_')[1]}" for n in names if n in values
    ]
    return ", ".join(said) or "not computed"


def _photo(photo: Photo) -> dict[str, Any]:
    """Return a photo with its marks in a drawing 1000 wide."""
    caption = photo.caption or photo.station
    try:
        with photo.file.open("rb") as file:
            content = file.read()
    except OSError:
        return {"src": "", "caption": f"{caption}: the file of this photo is missing on the server."}
    with Image.open(io.BytesIO(content)) as image:
        height = round(1000 * image.height / image.width)
    marks = [
        {
            "x": 1000 * m["x"],
            "y": height * m["y"],
            "to_x": 1000 * m["to_x"],
            "to_y": height * m["to_y"],
            "text": m["text"],
        }
        for m in photo.marks
    ]
    return {"src": data_uri(content), "height": height, "marks": marks, "caption": caption}


def _instruments(visit: Visit) -> list[Instrument]:
    used = visit.entries.filter(instrument__isnull=False).values("instrument")
    return list(Instrument.objects.filter(pk__in=used).order_by("name"))


def _looks(tape: tuple[Entry, ...], system: str) -> list[str]:
    return [echo(line.body, system) for line in effective(tape) if isinstance(line.body, Condition | Proof)]


def _plate(visit: Visit, system: str) -> list[tuple[str, str]]:
    unit, rules = visit.described(), visit.rules()
    rows = [
        ("Kind", unit.kind.name),
        ("Fuel", unit.fuel.label),
        ("Altitude", sentence(unit.altitude_m, "length", system)),
    ]
    for stage in unit.plate.stages:
        label = f", {STAGE_LABELS[stage.key]} fire" if STAGE_LABELS[stage.key] else ""
        if stage.input_w:
            here = input_at_altitude_w(unit, rules, stage.key) or stage.input_w
            rows.append(
                (
                    f"Input{label}",
                    f"{sentence(stage.input_w, 'power', system)} at sea level, {sentence(here, 'power', system)} here",
                )
            )
        if stage.manifold_pa:
            rows.append((f"Manifold{label}", sentence(stage.manifold_pa, "pressure", system)))
    return rows


_LINES_A_BLOCK = 20


def _tape_blocks(tape: tuple[Entry, ...], system: str) -> list[dict[str, str]]:
    """Return the tape in blocks of lines that look alike: 500 rows of a table, each a box of its own, take seconds to set."""
    by_look = groupby(_tape_lines(tape, system), key=lambda row: row[0])
    runs = ((look, [text for _, text in rows]) for look, rows in by_look)
    return [
        {"look": look, "text": "\n".join(lines[start : start + _LINES_A_BLOCK])}
        for look, lines in runs
        for start in range(0, len(lines), _LINES_A_BLOCK)
    ]


def _received(entry: Entry) -> str:
    """Return when an entry came that was written down long before: by the clock of the place where it was written."""
    if not entry.late or entry.received_at is None:
        return ""
    at = entry.received_at.astimezone(entry.at.tzinfo)
    return f" · received {day_words(at)}, {clock_words(at)}"


def _tape_lines(tape: tuple[Entry, ...], system: str) -> Iterator[tuple[str, str]]:
    """Yield each entry's look and its line, with the author where it changes."""
    corrected, before = struck(tape), ""
    for entry in tape:
        said = describe(entry.body, system)
        by = f" · {entry.author}" if entry.author != before else ""
        value = f": {said.value}" if said.value else ""
        text = f"{clock_words(entry.at)}\u2002{said.text}{value}\u2002({_PHASES[entry.phase]}{by}{_received(entry)})"
        yield f"{said.tone} struck" if entry.id in corrected else said.tone, " ".join(text.split("\n"))
        before = entry.author


def _traces(visit: Visit, tape: tuple[Entry, ...], system: str) -> list[dict[str, str]]:
    used = [line.body.capture for line in effective(tape) if isinstance(line.body, Trace)]
    drawings = []
    for log in FlueLog.objects.filter(visit=visit, pk__in=used):
        series = series_of(log)
        if series is not None:
            drawings.append({"name": log.name, "svg": data_uri(trace_svg(series, system).encode(), "image/svg+xml")})
    return drawings


def _strokes(signature: list[list[list[float]]]) -> list[str]:
    return [" ".join(f"{x * 100:.1f},{y * 30:.1f}" for x, y in stroke) for stroke in signature]


def data_uri(content: bytes, kind: str = "image/jpeg") -> str:
    """Return ``content`` as an address that holds it."""
    return f"data:{kind};base64,{base64.b64encode(content).decode()}"
