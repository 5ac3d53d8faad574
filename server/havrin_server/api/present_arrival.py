"""The Arrival view: triage, walk, codes, and what the unit was like when it was healthy."""

from havrin_core.judgement import arrival
from havrin_server.api.present import earlier_out
from havrin_server.api.schemas_arrival import ArrivalOut, CodeOut, LookOut, StopOut, TriageOut, WalkOut
from havrin_server.journal.models import Visit
from havrin_server.journal.queries import earlier_visits, tape_of

_HEALTHY = 2  # left running


def arrival_page(visit: Visit, system: str) -> ArrivalOut:
    """Return the Arrival view of ``visit``."""
    unit, tape = visit.unit.described(), tape_of(visit)
    before = [earlier_out(row.pk, system) for row in earlier_visits(visit)]
    codes = arrival.codes_of(unit)
    return ArrivalOut(
        triage=[
            TriageOut(key=t.key, question=t.question, good=t.good, bad=t.bad, begin=t.begin, answered=t.answered)
            for t in arrival.triage(unit, tape)
        ],
        walks=[_walk(walk) for walk in arrival.walk(unit)],
        codes=[CodeOut(pattern=pattern, meaning=meaning) for pattern, meaning in codes.items()],
        code_style="flashes" if all(c.replace(" ", "").isdigit() and c[0] != "0" for c in codes if c != "normal") else "digits",
        code_note=arrival.code_before_reset(tape), gas_smell=list(arrival.GAS_SMELL),
        healthy=next((v for v in before if v.level <= _HEALTHY and v.readings), None),
        refused=[words for v in before for words in v.advice],
    )  # fmt: skip


def _walk(walk: arrival.Walk) -> WalkOut:
    return WalkOut(
        path=walk.path, name=walk.name,
        stops=[
            StopOut(station=stop.station, name=stop.name, looks=[LookOut(line=f"found {f.words[0]}", text=f.text, weight=f.level) for f in stop.findings])
            for stop in walk.stops
        ],
    )  # fmt: skip
