"""Which causes the firm's closed visits found, and what did not cure it: what its odds learn from. Nothing leaves the firm."""

from django.db.models import F

from havrin_core.search.odds import causes_of, in_vain_of
from havrin_core.tape.entries import Entry
from havrin_server.visits.models import ClosedCause, Visit

Causes = tuple[tuple[str, int], ...]
InVain = tuple[tuple[str, int, int], ...]


def count_causes(visit: Visit, tape: tuple[Entry, ...]) -> None:
    """Count the causes that a visit closes with, and what it renewed in vain, once each."""
    circuit = visit.described().circuit
    if circuit is None:
        return
    for part in causes_of(tape):
        _count(visit, circuit.key, part, "count")
    for part, unsolved in in_vain_of(tape):
        _count(visit, circuit.key, part, "in_vain", *(["unsolved"] if unsolved else []))


def _count(visit: Visit, circuit: str, part: str, *columns: str) -> None:
    row, _ = ClosedCause.objects.get_or_create(firm_id=visit.unit.site.firm_id, circuit=circuit, part=part)
    ClosedCause.objects.filter(pk=row.pk).update(**{column: F(column) + 1 for column in columns})


def what_was_learned(visit: Visit) -> tuple[Causes, InVain]:
    """Return what the firm closed on circuits like that of the visit's unit: the causes, and what was renewed in vain."""
    circuit = visit.described().circuit
    if circuit is None:
        return (), ()
    rows = list(ClosedCause.objects.filter(firm_id=visit.unit.site.firm_id, circuit=circuit.key).order_by("part"))
    causes = tuple((row.part, row.count) for row in rows if row.count)
    return causes, tuple((row.part, row.in_vain, row.unsolved) for row in rows if row.in_vain)
