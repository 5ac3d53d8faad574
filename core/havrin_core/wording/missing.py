"""What is still to show, in words: what, how, and the line that shows it."""

from collections.abc import Mapping

from havrin_core.machine.unit import STAGE_LABELS, Unit
from havrin_core.rules.model import Missing
from havrin_core.vocabulary.abnormal import WAYS
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.language import lower_first, text
from havrin_core.wording.ledger import made_good
from havrin_core.wording.names import part_inside, part_words, quantity_name, verb_name

# proof -> what is lacking, how it is shown, the line that shows it
_PROOFS: Mapping[str, tuple[str, str, str]] = {
    "room_co": ("room CO", "Room CO at the unit: “room 1”.", "room …"),
    "vent_seen": ("vent and terminal", "Look at the vent end to end: “vent ok”, or what you found.", "vent ok"),
    "spillage_tested": (
        "spillage test",
        "Five minutes of main burner, doors and fans as at their worst: “spill 45”, the seconds until it stopped.",
        "spill …",
    ),
    "trap_seen": ("condensate trap", "Look at the condensate trap: “trap ok”.", "trap ok"),
    "exchanger_seen": (
        "heat exchanger",
        "See every part of the exchanger by mirror or borescope: “exchanger ok 5/5”, or what you found.",
        "exchanger ok {of}/{of}",
    ),
    "supply_running": ("supply, all running", "Supply with everything on the line burning: “supply 6.6”.", "supply …"),
    "supply_standing": ("supply, no flow", "Supply with nothing burning: “lockup 7.4”.", "lockup …"),
    "manifold_each_stage": ("manifold", "Manifold pressure, cover on, settled: “mp 3.5”.", "{stage}mp …"),
    "input_each_stage": ("input by meter", "Clock the meter: “input 64”.", "{stage}input …"),
    "draft_each_stage": ("draft at the switch", "Tee into the switch hose: “draft .92”.", "{stage}draft …"),
    "flame_each_stage": ("flame signal", "µA in series, steady: “ua 2.4”.", "{stage}ua …"),
    "rise_each_stage": ("temperature rise", "Return and supply out of the burner's sight: “rise 55”.", "{stage}rise …"),
    "flue_each_stage": ("flue", "Steady flue sample: “o2 6.4 co 46 t 118”.", "{stage}o2 … co … t …"),
    "water_pressure": ("water pressure", "Water pressure, cold and hot: “wp 16”.", "wp …"),
    "water_rise_each_stage": ("water rise", "Supply and return water, settled: “wrise 20”.", "{stage}wrise …"),
    "relief_seen": ("relief valve", "Look at the relief valve and its pipe: “relief ok”.", "relief ok"),
    "low_water_proved": (
        "that the low-water cut-off acts",
        "Open the low-water cut-off by its own test, see the burner drop out: “proved low water”.",
        "proved low water",
    ),
    "discharge_co_each_stage": (
        "CO in the discharge",
        "CO at the intake and in the discharge: “ico 1 dco 3”.",
        "{stage}dco …",
    ),
    "tightness": (
        "that the line is tight",
        "Line closed, pressure watched: “tight 12 l 20 mbar 19.8 mbar 5 min”. Then purge and relight every appliance.",
        "tight … l … mbar … mbar … min",
    ),
    "leak_check": (
        "leak check of every joint that was opened",
        "Soap or detector at every joint opened: “leak ok”.",
        "leak ok",
    ),
    "cause_named": ("the cause of the call", "Write the cause: “cause …”.", "cause …"),
    "full_cycle": ("a full cycle from its own thermostat", "Watch a full cycle, doors on: “cycles 1”.", "cycles 1"),
    "cycles_after_reset": ("{still} of {of} cycles", "Cycle it from its own thermostat: “cycles 5”.", "cycles {still}"),
    "device_proved": (
        "that the {device} acts",
        "See the device open and the burner drop out: “proved {line}”.",
        "proved {line}",
    ),
    "plate_value": (
        "the plate's value for {quantity}",
        "Read it off the data plate: “{plate}…”. The unit keeps it.",
        "{plate}…",
    ),
}


def missing_text(item: Missing) -> str:
    """Return what is lacking."""
    if item.quantity == "intake_co_ppm":
        return text("CO at the intake")
    if item.proof == "exchanger_seen" and item.still:
        return text("heat exchanger: {still} of {of} not seen", still=item.still, of=item.of)
    said = text(_PROOFS[item.proof][0], **_parts(item))
    label = STAGE_LABELS[item.stage] if item.stage else ""
    return text("{what}, {stage} fire", what=said, stage=text(label)) if label else said


def proof_name(proof: str, which: str = "") -> str:
    """Return what a proof shows; ``which`` is its stage or device where there are several."""
    item = Missing(proof, "", 0, stage=which) if which in STAGE_LABELS else Missing(proof, "", 0, device=which)
    return missing_text(item)


def missing_how(item: Missing) -> str:
    """Return how it is shown."""
    return text(_PROOFS[item.proof][1], **_parts(item))


def missing_line(item: Missing, unit: Unit) -> str:
    """Return the line that shows it, "…" where its value belongs."""
    if item.quantity == "intake_co_ppm":
        return "ico …"
    parts = _parts(item) | {"of": unit.plate.exchanger_cells}
    return _PROOFS[item.proof][2].format(**parts)


def missing_starter(item: Missing, unit: Unit) -> str:
    """Return the words that begin that line, up to its first value."""
    return missing_line(item, unit).partition("…")[0]


def because_text(item: Missing) -> str:
    """Return the work that made it necessary; "" where the visit's reason asks for it."""
    if item.because is None:
        return ""
    what, part = item.because
    if what in {way.key for way in WAYS}:
        return f"{made_good(what)}: {part_inside(part)}"
    return f"{verb_name(what)}: {part_inside(part)}"


def _parts(item: Missing) -> dict[str, object]:
    stage = f"{item.stage} " if item.stage in ("low", "high") else ""
    quantity = lower_first(quantity_name(item.quantity)) if item.quantity else ""
    plate = f"plate {stage}{measurand(item.quantity).words[0]} " if item.proof == "plate_value" else ""
    return {
        "stage": stage,
        "still": item.still,
        "of": item.of,
        "device": part_inside(item.device) if item.device else "",
        "line": part_words(item.device),
        "quantity": quantity,
        "plate": plate,
    }
