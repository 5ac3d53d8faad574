"""Which contact let go: a dip at one node of the string set against every other channel on the same clock."""

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass

from havrin_core.machine.circuit.model import Circuit, Part
from havrin_core.phrases import Saying, phrase

# what a switch answers to in the circuit -> the channel on which an instrument reads it
_CHANNELS = {
    "draft_at_switch_pa": "draft_pa",
    "draft_at_high_switch_pa": "draft_pa",
    "water_pressure_pa": "water_pressure_pa",
    "supply_running_pa": "supply_running_pa",
    "temperature_rise_k": "supply_air_temp_k",
    "water_temp_k": "water_supply_temp_k",
}
_SAID = {
    "draft_pa": "draft",
    "water_pressure_pa": phrase("water_pressure"),
    "supply_running_pa": phrase("gas_supply"),
    "supply_air_temp_k": phrase("supply_air"),
    "water_supply_temp_k": phrase("supply_water"),
}
_BEFORE_S = 0.05  # moved so much earlier than the volts, a quantity counts as first


@dataclass(frozen=True, slots=True)
class OpenedContact:
    """What one dip says. ``part`` is the contact that let go by itself, "" where none is named; ``cleared`` are those that did not."""

    says: Saying
    part: str = ""
    cleared: tuple[str, ...] = ()


def opened_contact(circuit: Circuit, moved: Mapping[str, float], still: Collection[str]) -> OpenedContact | None:
    """Return what a dip says of the contacts of the string; None where no node of it was recorded.

    ``moved`` holds the second at which each channel left its band, ``still`` those that did not: nodes of the circuit for
    volts against common, quantities for everything else.
    """
    contacts = [part for key in circuit.string if (part := circuit.part(key)).kind == "switch"]
    fallen = next((part for part in contacts if part.nodes[1] in moved), None)
    if fallen is None:
        return _held(contacts, moved, still)
    supply = _recorded_before(contacts, fallen, {*moved, *still})
    if supply is None:
        return OpenedContact(phrase("volts_after_fell_record_volts", fallen=_name(fallen)))
    if supply in moved:
        text = phrase("volts_before_fell_those_after", fallen=_name(fallen))
        return OpenedContact(text, cleared=tuple(part.key for part in contacts))
    between = _between(contacts, supply, fallen)
    if len(between) > 1:
        return OpenedContact(phrase("one_of_these_opened_record", name=", ".join(map(_name, between))))
    return _one(fallen, moved, still)


def _name(part: Part) -> str:
    return part.name[0].lower() + part.name[1:]


def _held(contacts: list[Part], moved: Mapping[str, float], still: Collection[str]) -> OpenedContact | None:
    held = tuple(part.key for part in contacts if part.nodes[1] in still)
    if not held:
        return None
    first = next(iter(sorted(moved, key=lambda name: moved[name])), "")
    return OpenedContact(
        phrase("every_contact_recorded_held", said=f" while the {_SAID[first]} dipped" if first in _SAID else ""),
        cleared=held,
    )


def _recorded_before(contacts: list[Part], fallen: Part, recorded: Collection[str]) -> str | None:
    """Return the nearest node before ``fallen`` whose volts were recorded."""
    nodes = [part.nodes[0] for part in contacts[: contacts.index(fallen) + 1]]
    return next((node for node in reversed(nodes) if node in recorded), None)


def _between(contacts: list[Part], supply: str, fallen: Part) -> list[Part]:
    nodes = [part.nodes[0] for part in contacts]
    return contacts[nodes.index(supply) : contacts.index(fallen) + 1]


def _one(part: Part, moved: Mapping[str, float], still: Iterable[str]) -> OpenedContact:
    channel = _CHANNELS.get(part.feels, "")
    steady = phrase("volts_steady_volts_out_gone", part=_name(part))
    if channel in moved and moved[channel] <= moved[part.nodes[1]] - _BEFORE_S:
        text = phrase("moved_first_then_opened_did", said=_SAID[channel], part=_name(part))
        return OpenedContact(text, cleared=(part.key,))
    if channel and channel not in still:
        return OpenedContact(phrase("record_beside_then_contact_what", steady=steady, said=_SAID[channel]))
    held = phrase("held", said=_SAID[channel]) if channel else ""
    return OpenedContact(phrase("its_contact_lets_go", steady=steady, held=held), part.key)
