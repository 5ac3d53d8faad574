"""The shop's circuits for the page: the list, and what the checks of a document found."""

from havrin_core.errors import CoreError
from havrin_core.judgement.suspects.string_view import direct_only, string_view
from havrin_core.machine.circuit.meter import Wiring
from havrin_core.machine.circuit.model import ELECTRICAL, Circuit
from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names, part_families, shipped_circuit
from havrin_core.machine.virtual.run import Run, VirtualUnit
from havrin_server.api.present_string import event_out, rung_out, volts_out
from havrin_server.api.schemas_shop import (
    Choices,
    CircuitCheck,
    CircuitIn,
    CircuitList,
    CircuitRow,
    ProblemOut,
    SolvedState,
)
from havrin_server.api.schemas_string import Named
from havrin_server.people.models import Person
from havrin_server.people.permissions import allows
from havrin_server.shop.models import FirmCircuit


def circuit_list(person: Person) -> CircuitList:
    """Return the shipped circuits and the firm's own."""
    rows = [
        CircuitRow(key=name, name=shipped_circuit(name).name, shipped=True, changed_at=None, changed_by="")
        for name in circuit_names()
    ]
    for own in FirmCircuit.objects.filter(firm_id=person.firm_id).select_related("changed_by").order_by("key"):
        rows.append(
            CircuitRow(
                key=own.key,
                name=own.document["name"],
                shipped=False,
                changed_at=own.changed_at,
                changed_by=own.changed_by.full_name,
            )
        )
    families = sorted(name for name in part_families() if name != "about")
    choices = Choices(kinds=[*ELECTRICAL, "thing"], families=families)
    return CircuitList(circuits=rows, choices=choices, writable=allows(person, "shop.write"))


def circuit_check(given: CircuitIn) -> CircuitCheck:
    """Return what the checks found; a document that is no circuit is answered, not refused."""
    try:
        circuit = circuit_from_dict(given.document)
        unit = VirtualUnit(circuit, jitter=0.0)
        run = unit.call()
    except CoreError as refusal:
        problem = ProblemOut(code=refusal.code, text=refusal.message, element=str(refusal.value or ""))
        return CircuitCheck(problem=problem, state="", states=[], rungs=[], solved=[], events=[], call="", faults=0)
    view = string_view(circuit, (), given.state) if circuit.states else None
    return CircuitCheck(
        problem=None, state=view.state if view else "", states=[Named(key=s.key, name=s.name) for s in circuit.states],
        rungs=[rung_out(rung, direct_only(circuit)) for rung in view.rungs] if view else [], solved=_solved(circuit),
        events=[event_out(event) for event in view.events] if view else [], call=_call(circuit, run), faults=len(circuit.faults),
    )  # fmt: skip


def _solved(circuit: Circuit) -> list[SolvedState]:
    wiring, direct = Wiring(circuit), direct_only(circuit)
    rows = []
    for state in circuit.states:
        solution = wiring.solve(state.conditions, direct=direct)
        shown = {n: volts_out(abs(solution.between(n, circuit.common)), direct) for n in circuit.nodes}
        rows.append(
            SolvedState(key=state.key, name=state.name, volts={n: f"{v.text} {v.unit}" for n, v in shown.items()})
        )
    return rows


def _call(circuit: Circuit, run: Run) -> str:
    names = {m.key: m.name for m in circuit.control.milestones}
    last = names.get(run.reached, "nothing")
    if run.failures:
        return f"A sound unit gives up after “{last}”, with code {run.code or 'none'}: the circuit or its control is not right yet."
    return f"A sound unit runs through to “{last}”."
