"""The shop's documents for the page: the lists, and what the checks of a document found."""

from collections.abc import Mapping

from django.db.models import QuerySet

from havrin_core.errors import CoreError
from havrin_core.machine.circuit.meter import Wiring
from havrin_core.machine.circuit.model import ELECTRICAL, Circuit
from havrin_core.machine.circuit.read import circuit_from_dict, circuit_names, part_families, shipped_circuit
from havrin_core.machine.kind_files import kind_document, kind_names
from havrin_core.machine.unit import Unit as CoreUnit
from havrin_core.machine.virtual.run import Run, VirtualUnit
from havrin_core.physics.fuels import FUEL_NAMES, shipped_fuel
from havrin_core.rules.proofs import PROOFS
from havrin_core.search.string_view import direct_only, string_view
from havrin_core.vocabulary.measurands import MEASURANDS
from havrin_core.wording.names import VISIT_REASONS
from havrin_core.wording.phrases import words
from havrin_server.people.models import Person
from havrin_server.people.permissions import allows
from havrin_server.shop import services
from havrin_server.shop.circuit_schemas import Named
from havrin_server.shop.library import whole_library
from havrin_server.shop.models import ShopDocument, Sort
from havrin_server.shop.pages.circuit import event_out, rung_out, volts_out
from havrin_server.shop.schemas import (
    Choices,
    CircuitCheck,
    CircuitIn,
    DocumentIn,
    DocumentRow,
    KindCheck,
    PathRow,
    ProblemOut,
    ShopList,
    SolvedState,
    SortName,
)


def shop_list(sort: SortName, person: Person) -> ShopList:
    """Return the shipped documents of a sort and the firm's own."""
    used = _used_by(person)
    rows = [
        DocumentRow(
            key=key,
            name=services.document_of(sort, key, person)["name"],
            shipped=True,
            used_by=used[sort].get(key, []),
            changed_at=None,
            changed_by="",
        )
        for key in services.shipped_keys(sort)
    ]
    for own in _own(sort, person):
        maker = f"{own.document['maker']} " if sort == "model" else ""
        rows.append(
            DocumentRow(
                key=own.key,
                name=maker + own.document["name"],
                shipped=False,
                used_by=used[sort].get(own.key, []),
                changed_at=own.changed_at,
                changed_by=own.changed_by.full_name if own.changed_by else "",
            )
        )
    return ShopList(sort=sort, documents=rows, choices=_choices(person), writable=allows(person, "shop.write"))


def _own(sort: str, person: Person) -> QuerySet[ShopDocument]:
    rows = ShopDocument.objects.filter(firm_id=person.own_firm_id, sort=sort)
    return rows.select_related("changed_by").order_by("key")


def _used_by(person: Person) -> dict[str, dict[str, list[str]]]:
    """Return, by sort and key, the labels of the firm's units that hang on a document."""
    used: dict[str, dict[str, list[str]]] = {sort: {} for sort in Sort.values}
    models = ShopDocument.objects.filter(firm_id=person.own_firm_id, sort=Sort.MODEL)
    units = sorted(
        (unit for model in models.prefetch_related("unit_set__site") for unit in model.unit_set.all()),
        key=lambda unit: unit.label,
    )
    for unit in units:
        described = unit.described()
        keys = {"model": unit.model.key, "kind": described.kind.key}
        if described.circuit is not None:
            keys["circuit"] = described.circuit.key
        for sort, key in keys.items():
            used[sort].setdefault(key, []).append(unit.label)
    return used


def _choices(person: Person) -> Choices:
    library = whole_library(person.own_firm_id)
    kinds = {key: kind_document(key)["name"] for key in kind_names()}
    kinds |= {key: row["name"] for key, row in library.kinds.items()}
    circuits = {key: shipped_circuit(key).name for key in circuit_names()}
    circuits |= {key: circuit.name for key, circuit in library.circuits.items()}
    return Choices(
        kinds=[*ELECTRICAL, "thing"],
        families=sorted(name for name in part_families() if name != "about"),
        quantities=_named({m.key: m.name for m in MEASURANDS}),
        proofs=_named({p.key: p.key.replace("_", " ") for p in PROOFS.values()}),
        reasons=_named({"every": "Every visit", **VISIT_REASONS}),
        fuels=_named({key: shipped_fuel(key).label for key in FUEL_NAMES}),
        unit_kinds=_named(kinds),
        circuits=_named(circuits),
    )


def _named(rows: Mapping[str, str]) -> list[Named]:
    return [Named(key=key, name=name) for key, name in rows.items()]


def kind_check(given: DocumentIn, person: Person) -> KindCheck:
    """Return the drawings of a kind; a document that is not valid is answered, not refused."""
    try:
        with services.bad_document("kind"):
            one, two = services.kind_units(given.document, whole_library(person.own_firm_id))
    except CoreError as refusal:
        return KindCheck(problem=_problem(refusal), one_stage=[], two_stages=[])
    return KindCheck(problem=None, one_stage=_path_rows(one), two_stages=_path_rows(two))


def _path_rows(unit: CoreUnit) -> list[PathRow]:
    return [
        PathRow(key=p.key, name=p.name, direction=p.direction, stations=[s.name for s in p.stations])
        for p in unit.paths
    ]


def _problem(refusal: CoreError) -> ProblemOut:
    return ProblemOut.of(refusal, text=words(refusal.said), element=str(refusal.value or ""))


def circuit_check(given: CircuitIn) -> CircuitCheck:
    """Return what the checks found; a document that is no circuit is answered, not refused."""
    try:
        with services.bad_document("circuit"):
            circuit = circuit_from_dict(given.document)
        unit = VirtualUnit(circuit, jitter=0.0)
        run = unit.call()
    except CoreError as refusal:
        return CircuitCheck(
            problem=_problem(refusal), state="", states=[], rungs=[], solved=[], events=[], call="", faults=0
        )
    view = string_view(circuit, (), given.state) if circuit.states else None
    return CircuitCheck(
        problem=None,
        state=view.state if view else "",
        states=[Named.of(s) for s in circuit.states],
        rungs=[rung_out(rung, direct_only(circuit)) for rung in view.rungs] if view else [],
        solved=_solved(circuit),
        events=[event_out(event) for event in view.events] if view else [],
        call=_call(circuit, run),
        faults=len(circuit.faults),
    )


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
