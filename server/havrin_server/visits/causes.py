"""Which causes the firm's closed visits found: what its odds learn from. Nothing leaves the firm."""

from django.db.models import F

from havrin_core.search.odds import causes_of
from havrin_core.tape.entries import Entry
from havrin_server.visits.models import ClosedCause, Visit


def count_causes(visit: Visit, tape: tuple[Entry, ...]) -> None:
    """Count the causes that a visit closes with, once each."""
    circuit = visit.described().circuit
    for part in causes_of(tape) if circuit is not None else ():
        assert circuit is not None
        row, _ = ClosedCause.objects.get_or_create(firm_id=visit.unit.site.firm_id, circuit=circuit.key, part=part)
        ClosedCause.objects.filter(pk=row.pk).update(count=F("count") + 1)


def closed_causes(visit: Visit) -> tuple[tuple[str, int], ...]:
    """Return the parts that were the cause on circuits like that of the visit's unit, with how often."""
    circuit = visit.described().circuit
    if circuit is None:
        return ()
    rows = ClosedCause.objects.filter(firm_id=visit.unit.site.firm_id, circuit=circuit.key).order_by("part")
    return tuple(rows.values_list("part", "count"))
