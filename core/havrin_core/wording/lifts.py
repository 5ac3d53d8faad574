"""What meets a demand: in words, and as whole lines for the bar."""

from collections.abc import Callable, Mapping, Sequence

from havrin_core.limits.table import most
from havrin_core.machine.unit import Unit
from havrin_core.quantities.formats import number
from havrin_core.rules.model import Lift
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.language import lower_first, text
from havrin_core.wording.ledger import make_good, put_back_line
from havrin_core.wording.names import part_inside, part_words, quantity_name

# verb -> how it is asked for
_ASKED: Mapping[str, str] = {
    "clean": "Clean the {part}",
    "clear": "Clear the {part}",
    "change": "Change the {part}",
    "repair": "Repair the {part}",
    "adjust": "Adjust the {part}",
    "set": "Set the {part}",
    "tighten": "Tighten the {part}",
    "align": "Align the {part}",
    "grease": "Grease the {part}",
    "open": "Open the {part}",
    "close": "Close the {part}",
    "remove": "Take away the {part}",
    "refit": "Put the {part} back",
    "fill": "Fill the {part}",
    "drain": "Drain the {part}",
    "thaw": "Thaw the {part}, without a flame",
    "convert": "Convert the unit as its manual says",
    "restore": "Have the {part} restored by a qualified person",
    "reset": "Reset the {part}",
    "relight": "Relight the {part}",
    "insulate": "Insulate the {part}",
}


def lift_words(lift: Lift) -> str:
    """Return what meets a demand, in words that begin a sentence."""
    if lift.either:
        first, *rest = (lift_words(one) for one in lift.either)
        return text(" or ").join([first, *(lower_first(one) for one in rest)])
    return _WORDS[lift.key](lift)


def lifts_words(lifts: Sequence[Lift]) -> str:
    """Return all demands in one sentence, in the order in which hands meet them."""
    if not lifts:
        return ""
    first, *rest = (lift_words(lift) for lift in lifts)
    return "; ".join([first, *(lower_first(one) for one in rest)]) + "."


def _cure(lift: Lift) -> str:
    return text(_ASKED.get(lift.device, "Put the {part} right"), part=part_inside(lift.part))


_WORDS: Mapping[str, Callable[[Lift], str]] = {
    "cure": _cure,
    "good": lambda lift: text("Look at the {part} again and find it in order", part=part_inside(lift.part)),
    "cause": lambda lift: text("Name its cause: the part, and what was wrong with it"),
    "whole": lambda lift: text("See every part of the exchanger"),
    "close_look": lambda lift: text("See every part of the exchanger with a borescope, or put it under pressure"),
    "leak": lambda lift: text("Find and cure the leak, then pass a leak check"),
    "tight": lambda lift: text("Cure it, then pass a tightness test of the right length"),
    "lel": lambda lift: text("Air the place until a detector reads none"),
    "cycles": lambda lift: text(
        "Watch {count} full cycles from its own thermostat", count=number(lift.number or 1, "g")
    ),
    "proved": lambda lift: text(
        "Show that the {part} acts: by its own means, or a lead lifted and the burner seen to drop out",
        part=part_inside(lift.device),
    ),
    "room": lambda lift: text(
        "Run the burner, then read room CO again at or under {limit} ppm", limit=number(most("room_co.source"), "g")
    ),
    "intake_co": lambda lift: text(
        "Run the burner, then read CO at the intake again at or under {limit} ppm",
        limit=number(most("room_co.source"), "g"),
    ),
    "register": lambda lift: text(
        "Read the register again, within {limit} ppm of the room", limit=number(most("register_co.least"), "g")
    ),
    "spill": lambda lift: text("Repeat the spillage test, doors and fans as at their worst"),
    "pressure": lambda lift: text("Read the water pressure"),
    "flue": lambda lift: text("Sample the flue again: O₂, CO and temperature, steady"),
    "reading": lambda lift: text(
        "Put it right, then read it again: {name}", name=lower_first(quantity_name(lift.part, lift.stage))
    ),
    "plate": lambda lift: text("Read the data plate once more and type its value again"),
    "out": lambda lift: make_good(lift.part),
    "untag": lambda lift: text("Cure and show what was wrong, then take the tag off"),
    "lasting": lambda lift: text("Make it lasting"),
}


def lift_lines(lift: Lift, unit: Unit, *, several_causes: bool = False) -> list[str]:
    """Return the lines that meet a demand; "…" stands for a value. Of several ways the plainest."""
    if lift.either:
        ways = [lift_lines(one, unit, several_causes=several_causes) for one in lift.either]
        return min(ways, key=lambda lines: any("…" in line for line in lines))
    return [line for line in _lines(lift, unit, several_causes) if line]


def _lines(lift: Lift, unit: Unit, several_causes: bool) -> list[str]:
    cells = unit.plate.exchanger_cells
    match lift.key:
        case "cure":
            return [f"did {lift.device} {part_words(lift.part)}"]
        case "good":
            return [f"exchanger ok {cells}/{cells}" if lift.part == "exchanger" else f"{part_words(lift.part)} ok"]
        case "cause":
            return [f"cause of {lift.explains}: …" if several_causes else "cause …"]
        case "whole" | "close_look":
            return [f"exchanger ok {cells}/{cells} by borescope"]
        case "cycles":
            return [f"cycles {lift.number:g}"]
        case "proved":
            return [f"proved {part_words(lift.device)}"]
        case "room":
            return ["cycles 1", "room …"]
        case "intake_co":
            return ["cycles 1", "ico …"]
        case "flue":
            return [f"{_stage(lift.stage)}o2 … co … t …"]
        case "reading":
            return [reading_line(lift.part, lift.stage)]
        case "plate":
            return [f"plate {_stage(lift.stage)}{measurand(lift.part).words[0]} …"]
        case "out":
            return [put_back_line(lift.part, lift.device)]
    return [_PLAIN_LINES[lift.key]]


_PLAIN_LINES: Mapping[str, str] = {
    "leak": "leak ok",
    "tight": "tight … l … mbar … mbar … min",
    "lel": "lel 0",
    "register": "register …",
    "spill": "spill …",
    "pressure": "wp …",
    "untag": "untag …",
    "lasting": "lasting …",
}


def _stage(stage: str | None) -> str:
    return f"{stage} " if stage in ("low", "high") else ""


def reading_line(quantity: str, stage: str | None) -> str:
    """Return the line that reads ``quantity``, its value left open; what is computed from counted things says which."""
    if quantity in _COUNTED:
        return f"{_COUNTED[quantity]}"
    return f"{_stage(stage)}{measurand(quantity).words[0]} …"


_COUNTED: Mapping[str, str] = {
    "gas_leak_m3_s": "tight … l … mbar … mbar … min",
    "transformer_load_pct": "va … … of …",
    "line_voltage_off_pct": "mains … of …",
    "belt_deflection_pct": "belt … mm … mm",
    "vent_run_pct": "ventrun … ft …x90 of … ft",
    "voltage_imbalance_pct": "phases … … …",
    "current_imbalance_pct": "phases … … …",
    "capacitor_f": "cap … of …",
}
