"""Which contact let go: a dip at one node of the string set against every other channel on the same clock."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field

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
_DOUBT_S = 0.05  # how far a channel's second may be late, where nobody says
_NEAR_POINT = 0.08  # so near its own point a switch may have opened by what it feels, or by itself
_NEAR_LIMIT_K = 20.0  # a limit beside the exchanger feels more than the air or water that a probe reads
_DISC_RESETS_S = 5.0  # a disc that opened by heat has to cool before it closes: a shorter loss is its contact
_BY_HEAT = ("supply_air_temp_k", "water_supply_temp_k")
_FLAME = "flame_outside"


@dataclass(frozen=True, slots=True)
class Timing:
    """How well the seconds are known, and what each switch's own point is.

    ``doubt_s``: a channel shows what happens at most so much too late. ``clock_error_s``: how far clocks may lie apart.
    ``least`` and ``most``: the lowest and highest of a channel around the dip; ``possible``: how low it may have been
    behind its lag. ``points``: under what a channel's switch opens (a limit: over what), same units. ``lasts_s``: how long
    the contact was open. ``came_back``: the channels that soon had again what they had before.
    """

    doubt_s: Mapping[str, float] = field(default_factory=dict)
    clock_error_s: float = 0.0
    least: Mapping[str, float] = field(default_factory=dict)
    points: Mapping[str, float] = field(default_factory=dict)
    most: Mapping[str, float] = field(default_factory=dict)
    possible: Mapping[str, float] = field(default_factory=dict)
    lasts_s: float = 0.0
    came_back: Collection[str] = ()

    def surely_first(self, one: str, one_s: float, other: str, other_s: float) -> bool:
        """Tell whether ``one`` moved before ``other``, whatever lag, period and clocks do."""
        return one_s < other_s - self.doubt_s.get(other, _DOUBT_S) - self.clock_error_s

    def stayed_over(self, channel: str) -> bool:
        """Tell whether a channel surely stayed over its switch's point, however much of a dip its lag may hide."""
        point = self.points.get(channel)
        low = self.possible.get(channel, self.least.get(channel))
        return point is not None and low is not None and low > (1 + _NEAR_POINT) * point

    def fell_under(self, channel: str) -> bool:
        """Tell whether a channel surely fell under its switch's point; where no point is known, that it moved has to do."""
        point, least = self.points.get(channel), self.least.get(channel)
        return point is None or least is None or least < (1 - _NEAR_POINT) * point


NOTHING_TIMED = Timing()


@dataclass(frozen=True, slots=True)
class OpenedContact:
    """What one dip says. ``part`` is the contact that let go by itself, "" where none is named; ``cleared`` are those that did not."""

    says: Saying
    part: str = ""
    cleared: tuple[str, ...] = ()


def opened_contact(
    circuit: Circuit, moved: Mapping[str, float], still: Collection[str], timing: Timing = NOTHING_TIMED
) -> OpenedContact | None:
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
        behind = contacts[contacts.index(fallen) + 1 :]
        text = phrase("volts_after_fell_record_volts", fallen=_name(fallen))
        return OpenedContact(text, cleared=tuple(p.key for p in behind if p.nodes[0] in moved and p.nodes[1] in moved))
    if supply in moved:
        text = phrase("volts_before_fell_those_after", fallen=_name(fallen))
        return OpenedContact(text, cleared=tuple(part.key for part in contacts))
    between = _between(contacts, supply, fallen)
    if len(between) > 1:
        return OpenedContact(phrase("one_of_these_opened_record", name=", ".join(map(_name, between))))
    return _one(fallen, moved, still, timing)


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


def _one(part: Part, moved: Mapping[str, float], still: Collection[str], timing: Timing) -> OpenedContact:
    """Return what is to be said of the one contact between two nodes: named, cleared, or not to be told."""
    channel, volts = _CHANNELS.get(part.feels, ""), part.nodes[1]
    steady = phrase("volts_steady_volts_out_gone", part=_name(part))
    if channel in _BY_HEAT or part.feels == _FLAME:
        return _of_heat(part, channel, steady, timing)
    if not channel:
        return OpenedContact(phrase("its_contact_opens", steady=steady, held=""), part.key)
    said = _SAID[channel]
    if channel not in moved and channel not in still:
        return OpenedContact(phrase("record_beside_then_contact_what", steady=steady, said=said))
    if timing.stayed_over(channel) or (channel in still and channel not in timing.points):
        return OpenedContact(phrase("its_contact_opens", steady=steady, held=phrase("held", said=said)), part.key)
    if not timing.fell_under(channel) or channel in still:
        return OpenedContact(phrase("so_near_its_point", steady=steady, said=said))
    if timing.surely_first(channel, moved[channel], volts, moved[volts]):
        return OpenedContact(phrase("moved_first_then_opened_did", said=said, part=_name(part)), cleared=(part.key,))
    if timing.surely_first(volts, moved[volts], channel, moved[channel]):
        return OpenedContact(phrase("its_contact_opened_first", steady=steady, said=said), part.key)
    if channel in timing.points and channel in timing.came_back:
        # an inducer that was switched off by this contact would take longer to come back
        return OpenedContact(phrase("fell_under_and_came_back", said=said, part=_name(part)), cleared=(part.key,))
    return OpenedContact(phrase("order_not_to_be_told", steady=steady, said=said))


def _of_heat(part: Part, channel: str, steady: Saying, timing: Timing) -> OpenedContact:
    """Return what is to be said of a disc: opened for a moment it is the contact, for longer it may have felt heat."""
    if timing.lasts_s < _DISC_RESETS_S:
        return OpenedContact(phrase("its_contact_opens", steady=steady, held=""), part.key)
    if not channel:
        return OpenedContact(phrase("opened_for_long_by_flame", steady=steady, seconds=timing.lasts_s))
    point, most = timing.points.get(channel), timing.most.get(channel)
    if point is not None and most is not None and most < point - _NEAR_LIMIT_K:
        held = phrase("held_far_under_point", said=_SAID[channel])
        return OpenedContact(phrase("its_contact_opens", steady=steady, held=held), part.key)
    return OpenedContact(phrase("opened_for_long_by_heat", steady=steady, said=_SAID[channel], seconds=timing.lasts_s))
