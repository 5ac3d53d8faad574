"""The String view: the core's drawing, sequence and suspects in words."""

from havrin_core.machine.circuit.edit import device_names
from havrin_core.search.model import Offer, Outlook, Suspect
from havrin_core.search.string_view import direct_only, meter_between, string_view
from havrin_core.wording.phrases import words
from havrin_core.wording.steps import headline, offer_why, offer_words
from havrin_server.shop.circuit_schemas import Named
from havrin_server.shop.library import circuit_titles
from havrin_server.shop.pages.circuit import event_out, rung_out, volts_out
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import search_of, suspects_of, tape_of, unit_of
from havrin_server.visits.schemas.string import MeterOut, OfferOut, SearchStepOut, StringOut, SuspectOut, SuspectsOut

_TAIL_S = 1.12  # the time axis ends a little after the last window


def string_page(visit: Visit, state: str) -> StringOut:
    """Return the String view of ``visit`` with the circuit in ``state``, the last one when it has no such state."""
    tape = tape_of(visit)
    unit = unit_of(visit, tape)
    circuit = unit.circuit
    if circuit is None:
        circuits = _circuits(visit)
        return StringOut(
            known=False,
            name="",
            state="",
            states=[],
            rungs=[],
            events=[],
            longest_s=0,
            suspects=None,
            circuits=circuits,
        )
    view = string_view(circuit, tape, state)
    millivolts = direct_only(circuit)
    return StringOut(
        known=True,
        name=circuit.name,
        state=view.state,
        states=[Named.of(s) for s in circuit.states],
        rungs=[rung_out(rung, millivolts) for rung in view.rungs],
        events=[event_out(event) for event in view.events],
        longest_s=_TAIL_S * max(max(e.latest_s, e.seen_s or 0) for e in view.events),
        own=visit.unit.circuit is not None,
        parts=[Named.of(part) for part in circuit.parts if part.nodes],
        nodes=[Named(key=key, name=name) for key, name in circuit.nodes.items()],
        devices=[Named(key=key, name=name) for key, name in device_names().items()],
        circuits=_circuits(visit),
        suspects=suspects_out(suspects_of(visit, unit, tape)),
    )


def _circuits(visit: Visit) -> list[Named]:
    return [Named(key=key, name=name) for key, name in circuit_titles(visit.unit.site.firm_id)]


def meter_out(visit: Visit, state: str, a: str, b: str) -> MeterOut | None:
    """Return what a voltmeter shows on the sound circuit; None where the unit's circuit is not known."""
    circuit = visit.described().circuit
    if circuit is None:
        return None
    reading = meter_between(circuit, state, a, b)
    return MeterOut.of(reading, shown=volts_out(abs(reading.value or 0.0), direct_only(circuit)))


def suspects_out(found: Outlook | None) -> SuspectsOut | None:
    """Return the suspects for the page."""
    if found is None:
        return None
    return SuspectsOut.of(
        found,
        headline=headline(found),
        given=len(found.observations),
        suspects=[_suspect(row) for row in found.suspects],
        next=_offer(found.next_test, found.again) if found.next_test else None,
        others=[_offer(offer) for offer in found.other_tests],
    )


def _suspect(row: Suspect) -> SuspectOut:
    return SuspectOut.of(row, faults=[words(name).removeprefix(f"{words(row.name)}: ") for _, name, _ in row.faults])


def _offer(offer: Offer, again: str = "") -> OfferOut:
    said = offer_words(offer, again)
    return OfferOut.of(
        offer.test,
        title=offer.test.name,
        why=offer_why(offer),
        meanings=offer.meanings,
        answers=said.answers,
        passes=said.passes,
    )


def search_page(visit: Visit) -> list[SearchStepOut]:
    """Return how the search went, an entry a step."""
    return [SearchStepOut.of(step) for step in search_of(visit)]
