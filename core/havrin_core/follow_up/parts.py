"""Parts that can be ordered, each with its kit: what is fitted, sealed or proved along with it."""

import re
from collections.abc import Mapping
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class OrderPart:
    """One part. ``kit`` goes with it; ``cures`` are findings (part, condition) that ask for it; ``switch`` falls under the house's rule."""

    key: str
    name: str
    words: tuple[str, ...]
    kit: tuple[str, ...] = ()
    cures: tuple[tuple[str, str], ...] = ()
    switch: bool = False
    two_sided: bool = False


PARTS: tuple[OrderPart, ...] = (
    OrderPart(
        "igniter",
        "Igniter",
        ("igniter",),
        ("bracket screws", "gasket of its plate"),
        (
            ("igniter", "white"),
            ("igniter", "cracked"),
            ("igniter", "dead"),
        ),
    ),
    OrderPart(
        "flame_rod",
        "Flame rod",
        ("flame rod", "rod", "sensor"),
        ("its lead", "screw"),
        (
            ("flame_rod", "coated"),
            ("flame_rod", "cracked"),
        ),
    ),
    OrderPart("inducer", "Inducer", ("inducer",), ("gasket to the collector", "vent connector clamp", "drain hose")),
    OrderPart("pressure_switch", "Pressure switch", ("pressure switch",), ("hose", "barb"), switch=True),
    OrderPart(
        "differential_switch",
        "Differential or multi-stage pressure switch",
        ("differential switch", "two-sided switch"),
        ("both hoses",),
        switch=True,
        two_sided=True,
    ),
    OrderPart("limit", "Limit", ("limit",), ("gasket of its plate",), switch=True),
    OrderPart("rollout", "Rollout switch", ("rollout", "rollout switch"), (), switch=True),
    OrderPart(
        "gas_valve",
        "Gas valve",
        ("gas valve", "valve"),
        ("flange seals", "thread sealant for gas", "orifice of its pilot, where it has one"),
    ),
    OrderPart(
        "orifices",
        "Set of orifices",
        ("orifices", "orifice"),
        ("conversion label", "regulator spring, where the gas changes", "low-pressure switch, where LP asks for it"),
        (
            ("orifices", "wrong"),
            ("conversion", "wrong"),
        ),
    ),
    OrderPart(
        "burner_set", "Set of burners", ("burners", "burner set"), ("burner seals", "bolts", "carry-over strips")
    ),
    OrderPart("board", "Control board", ("board", "control board", "control"), ("its plug for the model", "fuse")),
    OrderPart("transformer", "Transformer", ("transformer",), ("fuse, 3 or 5 A", "wire connectors")),
    OrderPart(
        "blower_motor",
        "Blower motor",
        ("blower motor", "blower", "motor"),
        ("capacitor of its rating", "mounts", "belly band"),
    ),
    OrderPart("capacitor", "Capacitor", ("capacitor",), ("strap", "boot")),
    OrderPart(
        "belt",
        "Belt",
        ("belt",),
        (),
        (
            ("belt", "worn"),
            ("belt", "cracked"),
        ),
    ),
    OrderPart("filter", "Filter", ("filter",), (), (("filter", "dirty"),)),
    OrderPart("trap", "Condensate trap", ("trap", "condensate trap"), ("hoses", "clamps"), (("trap", "cracked"),)),
    OrderPart(
        "vent_pipe",
        "Vent pipe and fittings",
        ("vent pipe", "vent parts"),
        ("cement and primer or sealant of its listing", "hangers", "terminal"),
    ),
    OrderPart(
        "exchanger",
        "Heat exchanger",
        ("exchanger", "heat exchanger"),
        ("gaskets", "burner seals", "collector gasket", "inducer gasket", "limit and rollout gaskets", "flue collar"),
        (
            ("exchanger", "cracked"),
            ("exchanger", "holed"),
            ("exchanger", "rusted_through"),
        ),
    ),
    OrderPart(
        "secondary_coil", "Secondary coil", ("secondary coil", "coil"), ("gaskets", "drain hoses", "header seal")
    ),
    OrderPart("thermocouple", "Thermocouple", ("thermocouple",), ("pilot orifice",)),
    OrderPart("pilot", "Pilot assembly", ("pilot", "pilot assembly"), ("tube and fittings", "spark lead")),
    OrderPart("pump", "Pump", ("pump", "circulator"), ("flange gaskets", "isolating valves where there are none")),
    OrderPart(
        "relief_valve",
        "Relief valve",
        ("relief valve", "relief"),
        ("pipe down to the floor",),
        (
            ("relief", "dripping"),
            ("relief", "plugged"),
            ("relief", "does_not_act"),
        ),
    ),
    OrderPart("expansion_vessel", "Expansion vessel", ("expansion vessel", "expansion tank"), ("service valve",)),
    OrderPart("low_water_cutoff", "Low-water cut-off", ("low water cutoff", "lwco"), ("probe gasket",)),
    OrderPart(
        "regulator",
        "Line regulator",
        ("regulator", "line regulator"),
        ("vent screen", "leak fluid", "thread sealant for gas"),
    ),
    OrderPart("hose", "Pressure hose", ("hose", "pressure hose"), ()),
    OrderPart("thermostat", "Thermostat", ("thermostat",), ()),
)
_TOGETHER: Mapping[str, tuple[str, ...]] = {"inducer": ("pressure switch",)}
_BY_KEY = {part.key: part for part in PARTS}
_PIECES = re.compile(r",| and ", re.IGNORECASE)
PART_WORDS = {word: part.key for part in PARTS for word in (*part.words, part.key.replace("_", " "))}


def named_parts(text: str) -> tuple[str, ...]:
    """Return the parts that ``text`` names, comma by comma: keys of known ones, the words themselves of others."""
    found: list[str] = []
    for piece in _PIECES.split(text):
        found += known_parts(piece) or ([piece.strip()] if piece.strip() else [])
    return tuple(dict.fromkeys(found))


def known_parts(text: str) -> tuple[str, ...]:
    """Return the keys of the known parts in ``text``; the longest of two words that overlap."""
    spaced = f" {text.lower().replace(',', ' ')} "
    words = [word for word in PART_WORDS if f" {word} " in spaced]
    longest = [word for word in words if not any(word != other and word in other for other in words)]
    return tuple(dict.fromkeys(PART_WORDS[word] for word in longest))


def order_part(key: str) -> OrderPart | None:
    """Return the part called ``key``; None for one that is written in own words."""
    return _BY_KEY.get(key)


def kit_of(part: OrderPart, inducer_switch: str) -> tuple[str, ...]:
    """Return what goes with ``part`` under the house's rule for the switch of an inducer."""
    return (*part.kit, *(_TOGETHER.get(part.key, ()) if inducer_switch == "always_together" else ()))


def part_rule(part: OrderPart, replacement_switch: str) -> str:
    """Return what the house says of the part's make; "" where it says nothing."""
    if not part.switch:
        return ""
    if part.two_sided or replacement_switch == "original_only":
        return "the maker’s own part only"
    return "universal only if single-sided, with set point, differential, port sense and contact rating matched"
