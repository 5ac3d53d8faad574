"""What the dips of a trace say of the contacts of a string: each dip by itself, then all of them together."""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence

from havrin_core.machine.circuit.model import Circuit
from havrin_core.search.opened_contact import OpenedContact, Timing, opened_contact
from havrin_core.traces.dips import Dip
from havrin_core.traces.movers import Moved, Seen, moved_at
from havrin_core.traces.series import Channels
from havrin_core.vocabulary.channels import leads_of

_MOST = 0.5  # the share of dips that have to name a contact before all of them do
_DROP_SIGMAS, _DROP_SHARE = (
    5.0,
    0.04,
)  # volts lost across a contact: more than noise, and than a twenty-fifth of the supply
_OPEN_V = 1.0


def movers_of(channels: Channels, dips: Sequence[Dip], clock_error_s: float = 0.0) -> tuple[Moved, ...]:
    """Return which channels moved at each dip."""
    return tuple(moved_at(channels, dip.start_s, dip.end_s - dip.start_s, clock_error_s) for dip in dips)


def contact_of(
    circuit: Circuit, moved: Moved, points: Mapping[str, float], clock_error_s: float = 0.0
) -> OpenedContact | None:
    """Return what one dip says; ``points`` are what each channel's switch opens under (a limit: over)."""
    others = {name: one for name, one in moved.seen.items() if leads_of(name) is None}
    nodes = dict(_nodes(circuit, moved))
    nodes |= {node: one for node, one in _across(circuit, moved) if node not in nodes}
    lost = set(_lost(circuit, nodes)) | {part[1] for part in _risen(circuit, moved)}
    gone = {name: one.at_s for name, one in others.items() if one.at_s is not None}
    gone |= {node: one.at_s for node, one in nodes.items() if node in lost and one.at_s is not None}
    seen = {**others, **nodes}
    timing = Timing(
        doubt_s={name: one.doubt_s for name, one in seen.items()},
        clock_error_s=clock_error_s,
        least={name: one.least for name, one in seen.items()},
        points=points,
        most={name: one.most for name, one in seen.items()},
        possible={name: one.least_possible for name, one in seen.items()},
        lasts_s=moved.lasts_s,
        came_back=[name for name, one in seen.items() if one.came_back],
    )
    return opened_contact(circuit, gone, seen.keys() - gone.keys(), timing)


def _nodes(circuit: Circuit, moved: Moved) -> Iterator[tuple[str, Seen]]:
    """Yield the nodes whose volts against common were recorded."""
    for name, one in moved.seen.items():
        leads = leads_of(name)
        if leads and circuit.common in leads:
            yield leads[0] if leads[1] == circuit.common else leads[1], one


def _across(circuit: Circuit, moved: Moved) -> Iterator[tuple[str, Seen]]:
    """Yield both nodes of a contact over which volts rose: before it they are there, after it they are gone."""
    for before, after in _risen(circuit, moved):
        one = next(one for name, one in moved.seen.items() if set(leads_of(name) or ()) == {before, after})
        yield before, one
        yield after, one


def _risen(circuit: Circuit, moved: Moved) -> Iterator[tuple[str, str]]:
    """Yield (before, after) of every contact of the string across which volts were recorded, and rose."""
    contacts = {frozenset(part.nodes): part for part in map(circuit.part, circuit.string) if part.kind == "switch"}
    for name, one in moved.seen.items():
        part = contacts.get(frozenset(leads_of(name) or ()))
        rises = one.most > abs(one.level) + max(_DROP_SIGMAS * one.scatter, _OPEN_V)
        if part is not None and one.at_s is not None and rises:
            yield part.nodes[0], part.nodes[1]


def _lost(circuit: Circuit, nodes: Mapping[str, Seen]) -> Iterator[str]:
    """Yield the nodes that lost their volts: a quarter of them, or more than the recorded node before them lost."""
    before: Seen | None = None
    for node in _in_order(circuit):
        one = nodes.get(node)
        if one is None:
            continue
        if one.fell or (before is not None and _drop(before, one)):
            yield node
        before = one


def _in_order(circuit: Circuit) -> list[str]:
    contacts = [part for part in map(circuit.part, circuit.string) if part.kind == "switch"]
    return [contacts[0].nodes[0], *(part.nodes[1] for part in contacts)] if contacts else []


def _drop(before: Seen, after: Seen) -> bool:
    """Tell whether volts were lost between two nodes that the quiet had none lost between."""
    apart = (abs(after.level) - after.least) - (abs(before.level) - before.least)
    noise = (before.scatter**2 + after.scatter**2) ** 0.5
    return bool(apart > max(_DROP_SIGMAS * noise, _DROP_SHARE * abs(before.level)))


def inducer_volts(circuit: Circuit | None) -> str:
    """Return the channel of the volts across the inducer; "" where the circuit has none."""
    motor = next((part for part in circuit.parts if part.acts == "inducer_runs"), None) if circuit else None
    return f"volts_across_v@{motor.nodes[0]}-{motor.nodes[1]}" if motor is not None else ""


def named(contacts: Sequence[OpenedContact | None]) -> str:
    """Return the contact that at least half of the dips name and none clears; "" where there is none."""
    counted = Counter(contact.part for contact in contacts if contact is not None and contact.part)
    part, count = counted.most_common(1)[0] if counted else ("", 0)
    cleared = any(part in contact.cleared for contact in contacts if contact is not None)
    return part if part and count >= _MOST * len(contacts) and not cleared else ""
