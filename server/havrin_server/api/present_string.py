"""The String view: the core's drawing, sequence and suspects in words."""

from havrin_core.search.model import Offer, Outlook
from havrin_core.search.string_view import EventView, RungView, direct_only, meter_between, string_view
from havrin_core.wording.phrases import words
from havrin_server.api.schemas import Shown
from havrin_server.api.schemas_string import (
    ConflictOut,
    EventOut,
    MeaningOut,
    MeterOut,
    Named,
    NodeOut,
    OfferOut,
    PartOut,
    RungOut,
    StringOut,
    SuspectOut,
    SuspectsOut,
)
from havrin_server.journal.models import Visit
from havrin_server.journal.queries import suspects_of, tape_of, unit_of

_TAIL_S = 1.12  # the time axis ends a little after the last window


def string_page(visit: Visit, state: str) -> StringOut:
    """Return the String view of ``visit`` with the circuit in ``state``, the last one when it has no such state."""
    tape = tape_of(visit)
    unit = unit_of(visit, tape)
    circuit = unit.circuit
    if circuit is None:
        return StringOut(known=False, name="", state="", states=[], rungs=[], events=[], longest_s=0, suspects=None)
    view = string_view(circuit, tape, state)
    millivolts = direct_only(circuit)
    return StringOut(
        known=True,
        name=circuit.name,
        state=view.state,
        states=[Named(key=s.key, name=s.name) for s in circuit.states],
        rungs=[rung_out(rung, millivolts) for rung in view.rungs],
        events=[event_out(event) for event in view.events],
        longest_s=_TAIL_S * max(max(e.latest_s, e.seen_s or 0) for e in view.events),
        suspects=suspects_out(suspects_of(visit, unit, tape)),
    )


def meter_out(visit: Visit, state: str, a: str, b: str) -> MeterOut | None:
    """Return what a voltmeter shows on the sound circuit; None where the unit's circuit is not known."""
    circuit = visit.described().circuit
    if circuit is None:
        return None
    reading = meter_between(circuit, state, a, b)
    return MeterOut(shown=volts_out(abs(reading.value or 0.0), direct_only(circuit)), note=words(reading.note))


def suspects_out(found: Outlook | None) -> SuspectsOut | None:
    """Return the suspects for the page."""
    if found is None:
        return None
    return SuspectsOut(
        given=len(found.observations),
        suspects=[
            SuspectOut(
                part=s.part,
                name=s.name,
                share=s.share,
                faults=[name.removeprefix(f"{s.name}: ") for name, _ in s.faults],
            )
            for s in found.suspects
        ],
        next=_offer(found.next_test) if found.next_test else None,
        others=[_offer(o) for o in found.other_tests],
        conflicts=[
            ConflictOut(name=words(c.name), shown=words(c.shown), expected=words(c.expected), entry_id=c.entry_id)
            for c in found.conflicts
        ],
        clear=found.clear,
        proof=[words(step) for step in found.proof],
        beforehand=list(found.beforehand),
    )


def _offer(offer: Offer) -> OfferOut:
    why = f"{offer.bits:.1f} bit for about {offer.test.minutes:g} min: more per minute than any other test."
    return OfferOut(
        title=words(offer.test.name),
        minutes=offer.test.minutes,
        why=why,
        caution=words(offer.test.caution),
        starter=offer.test.starter,
        meanings=[
            MeaningOut(outcome=words(m.outcome), share=m.share, first=m.first, first_share=m.first_share)
            for m in offer.meanings
        ],
    )


def volts_out(volts: float, millivolts: bool) -> Shown:
    """Return a voltage as it is shown."""
    return Shown(text=f"{1000 * volts:.0f}", unit="mV") if millivolts else Shown(text=f"{volts:.1f}", unit="V")


def _maybe(volts: float | None, millivolts: bool) -> Shown | None:
    return None if volts is None else volts_out(volts, millivolts)


def rung_out(rung: RungView, mv: bool) -> RungOut:
    """Return a rung for the page, in millivolts or volts."""
    return RungOut(
        load=rung.load,
        name=rung.name,
        parts=[
            PartOut(
                key=p.key,
                name=p.name,
                kind=p.kind,
                closed=p.closed,
                expected=volts_out(p.expected_v, mv),
                read=_maybe(p.read_v, mv),
                state=p.state,
            )
            for p in rung.parts
        ],
        nodes=[
            NodeOut(key=n.key, name=n.name, expected=volts_out(n.expected_v, mv), read=_maybe(n.read_v, mv), odd=n.odd)
            for n in rung.nodes
        ],
    )


def event_out(event: EventView) -> EventOut:
    """Return a moment of the sequence for the page."""
    return EventOut(
        key=event.key,
        name=event.name,
        earliest_s=event.earliest_s,
        latest_s=event.latest_s,
        seen_s=event.seen_s,
        state=event.state,
        by_eye=event.by_eye,
    )
