"""The Arrival view: triage, walk, codes, and what the unit was like when it was healthy."""

from havrin_core.machine.circuit.codes import code_style
from havrin_core.quantities.display import sentence, show
from havrin_core.standing import arrival
from havrin_core.vocabulary.catalogue import BAD, DANGER, WORN, conditions, verdict_of
from havrin_core.wording.entries import echo
from havrin_core.wording.names import condition_name, part_name, part_words
from havrin_core.wording.phrases import words
from havrin_core.wording.steps import GAS_SMELL, code_note
from havrin_core.workings.dual_fuel import AXIS_K, RUNS, Axis, axis_of
from havrin_server.api.present import earlier_out
from havrin_server.api.schemas import Shown
from havrin_server.api.schemas_arrival import (
    ArrivalOut,
    AxisOut,
    CodeOut,
    LookOut,
    MarkOut,
    NeighbourOut,
    SpanOut,
    StopOut,
    TriageOut,
    WalkOut,
)
from havrin_server.journal.amendments import entries_of, written_at
from havrin_server.journal.models import Amendment, Visit
from havrin_server.journal.queries import earlier_visits, neighbours_supply, tape_of, unit_of

_HEALTHY = 2  # left running


def arrival_page(visit: Visit, system: str) -> ArrivalOut:
    """Return the Arrival view of ``visit``."""
    tape = tape_of(visit)
    unit = unit_of(visit, tape)
    before = [earlier_out(pk, system) for pk in earlier_visits(visit).values_list("pk", flat=True)]
    return ArrivalOut(
        triage=[
            TriageOut(key=t.key, question=words(t.question), good=t.good, bad=t.bad, begin=t.begin, answered=t.answered)
            for t in arrival.triage(unit, tape)
        ],
        walks=[_walk(walk) for walk in arrival.walk(unit)],
        codes=[CodeOut(pattern=pattern, meaning=meaning) for pattern, meaning in unit.codes.items()],
        code_style=code_style(unit.codes),
        code_note=code_note(arrival.code_before_reset(tape)),
        gas_smell=list(GAS_SMELL),
        healthy=next((v for v in before if v.level <= _HEALTHY and v.readings), None),
        refused=[line for v in before for line in v.advice] + _amended([v.id for v in before], system),
        axis=_axis(axis_of(unit, tape), system),
        gas_line=visit.unit.gas_line,
        neighbours=_neighbours(visit, system),
    )


def _amended(visits: list[int], system: str) -> list[str]:
    """Return what was said of the earlier visits after they were closed, newest first."""
    rows = Amendment.objects.filter(visit__in=visits).select_related("author").order_by("-at")
    return [
        f"Amended {written_at(row):%d %B %Y}, {row.author.full_name}: "
        + "; ".join(echo(entry.body, system) for entry in entries_of(row))
        for row in rows
    ]


def _axis(axis: Axis | None, system: str) -> AxisOut | None:
    if axis is None:
        return None
    low, high = AXIS_K
    at = lambda k: (k - low) / (high - low)  # noqa: E731 - a place on the drawing, 0 to 1
    return AxisOut(
        spans=[SpanOut(start=at(s.from_k), end=at(s.to_k), runs=s.runs, name=words(RUNS[s.runs])) for s in axis.spans],
        marks=[
            MarkOut(at=min(max(at(k), 0.0), 1.0), name=name, text=sentence(k, "temperature", system))
            for k, name in (
                (axis.gas_off_above_k, "gas off above"),
                (axis.pump_off_below_k, "heat pump off below"),
                (axis.outdoor_k, "outdoors now"),
            )
            if k is not None
        ],
        ends=[sentence(k, "temperature", system) for k in AXIS_K],
        notes=[words(note) for note in axis.notes],
    )


def _neighbours(visit: Visit, system: str) -> list[NeighbourOut]:
    """Return the units on the same branch of the gas line, with the supply as it was last read at each."""
    rows = []
    for unit, entry in neighbours_supply(visit):
        shown = show(entry.value_si, "pressure", system) if entry and entry.value_si is not None else None
        rows.append(
            NeighbourOut(
                unit=unit.name,
                supply=Shown(text=shown.text, unit=shown.unit) if shown else None,
                day=entry.at.astimezone(visit.unit.site.zoneinfo()).date() if entry else None,
            )
        )
    return rows


def _walk(walk: arrival.Walk) -> WalkOut:
    return WalkOut(
        path=walk.path,
        name=walk.name,
        stops=[
            StopOut(station=stop.station, name=stop.name, looks=[_look(part, like) for part, like in stop.findings])
            for stop in walk.stops
        ],
    )


_WEIGHTS = {WORN: 2, BAD: 3, DANGER: 4}


def _look(part: str, like: str) -> LookOut:
    line = f"found {part_words(part)} {conditions()[like].words[0]}"
    return LookOut(
        line=line, text=f"{part_name(part)}: {condition_name(like)}", weight=_WEIGHTS.get(verdict_of(part, like), 0)
    )
