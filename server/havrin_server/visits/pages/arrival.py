"""The Arrival view: triage, codes, and what the unit was like when it was healthy."""

from havrin_core.machine.circuit.codes import code_style
from havrin_core.quantities.display import sentence
from havrin_core.quantities.formats import day_words
from havrin_core.rules.model import TELL
from havrin_core.standing import arrival
from havrin_core.wording.entries import echo
from havrin_core.wording.steps import GAS_SMELL, code_note
from havrin_core.workings.dual_fuel import AXIS_K, RUNS, Axis, axis_of
from havrin_server.figures.explained import shown_if
from havrin_server.visits.amendments import entries_of, written_at
from havrin_server.visits.models import Amendment, TapeEntry, Visit
from havrin_server.visits.pages.earlier import earlier_out
from havrin_server.visits.queries import earlier_visits, neighbours_supply, tape_of, unit_of
from havrin_server.visits.schemas.arrival import (
    ArrivalOut,
    AxisOut,
    CodeOut,
    MarkOut,
    NeighbourOut,
    SpanOut,
    TriageOut,
)


def arrival_page(visit: Visit, system: str) -> ArrivalOut:
    """Return the Arrival view of ``visit``."""
    tape = tape_of(visit)
    unit = unit_of(visit, tape)
    before = [earlier_out(pk, system) for pk in earlier_visits(visit).values_list("pk", flat=True)]
    return ArrivalOut(
        triage=[TriageOut.of(question) for question in arrival.triage(unit, tape)],
        codes=[CodeOut(pattern=pattern, meaning=meaning) for pattern, meaning in unit.codes.items()],
        code_style=code_style(unit.codes),
        code_note=code_note(arrival.code_before_reset(tape)),
        gas_smell=list(GAS_SMELL),
        healthy=next((v for v in before if v.level <= TELL and v.readings), None),
        code_first=visit.reason == "no_heat",
        refused=[line for v in before for line in v.advice] + _amended([v.id for v in before], system),
        axis=_axis(axis_of(unit, tape), system),
        gas_line=visit.unit.gas_line,
        neighbours=[_neighbour(name, entry, visit, system) for name, entry in _supplies(visit)],
    )


def _amended(visits: list[int], system: str) -> list[str]:
    """Return what was said of the earlier visits after they were closed, newest first."""
    rows = Amendment.objects.filter(visit__in=visits).select_related("author").order_by("-at")
    return [
        f"Amended {day_words(written_at(row))}, {row.author.full_name}: "
        + "; ".join(echo(entry.body, system) for entry in entries_of(row))
        for row in rows
    ]


def _axis(axis: Axis | None, system: str) -> AxisOut | None:
    if axis is None:
        return None
    marks = (
        (axis.gas_off_above_k, "gas off above"),
        (axis.pump_off_below_k, "heat pump off below"),
        (axis.outdoor_k, "outdoors now"),
    )
    return AxisOut.of(
        axis,
        spans=[SpanOut.of(s, start=_along(s.from_k), end=_along(s.to_k), name=RUNS[s.runs]) for s in axis.spans],
        marks=[_mark(at_k, name, system) for at_k, name in marks if at_k is not None],
        ends=[sentence(end_k, "temperature", system) for end_k in AXIS_K],
    )


def _along(at_k: float) -> float:
    """Return where a temperature lies on the axis, 0 to 1."""
    low, high = AXIS_K
    return (at_k - low) / (high - low)


def _mark(at_k: float, name: str, system: str) -> MarkOut:
    at = min(max(_along(at_k), 0.0), 1.0)
    return MarkOut(at=at, name=name, text=sentence(at_k, "temperature", system))


def _supplies(visit: Visit) -> list[tuple[str, TapeEntry | None]]:
    return [(unit.name, entry) for unit, entry in neighbours_supply(visit)]


def _neighbour(name: str, entry: TapeEntry | None, visit: Visit, system: str) -> NeighbourOut:
    """Return a unit on the same branch of the gas line, with the supply as it was last read there."""
    return NeighbourOut(
        unit=name,
        supply=shown_if(entry.value_si, "pressure", system) if entry else None,
        day=entry.at.astimezone(visit.unit.site.zoneinfo()).date() if entry else None,
    )
