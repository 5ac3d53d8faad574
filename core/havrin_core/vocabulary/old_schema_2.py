"""What tape schema 2 said in words alone, in the fields of today. Frozen: tapes of that schema are read by it for ever."""

import re
from collections.abc import Mapping
from typing import Any

PARTS_2: Mapping[str, str] = {
    "igniter": "igniter",
    "flame rod": "flame_rod",
    "rod": "flame_rod",
    "sensor": "flame_rod",
    "inducer": "inducer",
    "pressure switch": "pressure_switch",
    "differential switch": "differential_switch",
    "two-sided switch": "differential_switch",
    "limit": "limit",
    "rollout": "rollout",
    "rollout switch": "rollout",
    "gas valve": "gas_valve",
    "valve": "gas_valve",
    "orifices": "orifices",
    "orifice": "orifices",
    "burners": "burner_set",
    "burner set": "burner_set",
    "board": "board",
    "control board": "board",
    "control": "board",
    "transformer": "transformer",
    "blower motor": "blower_motor",
    "blower": "blower_motor",
    "motor": "blower_motor",
    "capacitor": "capacitor",
    "belt": "belt",
    "filter": "filter",
    "trap": "trap",
    "condensate trap": "trap",
    "vent pipe": "vent_pipe",
    "vent parts": "vent_pipe",
    "exchanger": "exchanger",
    "heat exchanger": "exchanger",
    "secondary coil": "secondary_coil",
    "coil": "secondary_coil",
    "thermocouple": "thermocouple",
    "pilot": "pilot",
    "pilot assembly": "pilot",
    "pump": "pump",
    "circulator": "pump",
    "relief valve": "relief_valve",
    "relief": "relief_valve",
    "expansion vessel": "expansion_vessel",
    "expansion tank": "expansion_vessel",
    "low water cutoff": "low_water_cutoff",
    "lwco": "low_water_cutoff",
    "regulator": "regulator",
    "line regulator": "regulator",
    "hose": "hose",
    "pressure hose": "hose",
    "thermostat": "thermostat",
}
WHO_2 = ("owner", "tenant", "manager")
BUILDINGS_2 = ("light", "medium", "heavy")


def said_of_2(data: Mapping[str, Any]) -> dict[str, Any]:
    """Return what a "said" of schema 2 adds as fields: parts to order, who answers, how long a building keeps its heat."""
    what, text = data.get("what", ""), str(data.get("text", ""))
    if what == "order":
        return {"parts": list(parts_of_2(text))}
    if what in ("approve", "approved", "declined"):
        who, _, rest = text.partition(" ")
        return {"who": who if who in WHO_2 else "", "parts": list(parts_of_2(rest))}
    if what == "arrives":
        known = [PARTS_2[word] for word in _words_in(text)]
        return {"parts": list(dict.fromkeys(known))}
    if what == "building":
        kind = text.partition(" ")[0]
        return {"state": kind if kind in BUILDINGS_2 else ""}
    return {}


def parts_of_2(text: str) -> tuple[str, ...]:
    """Return the parts that ``text`` names: keys of known ones, the words themselves of others."""
    found: list[str] = []
    for piece in re.split(r",| and ", text.lower()):
        known = [PARTS_2[word] for word in _words_in(piece)]
        found += known or ([piece.strip()] if piece.strip() else [])
    return tuple(dict.fromkeys(found))


def _words_in(text: str) -> list[str]:
    spaced = f" {text.lower().replace(',', ' ')} "
    words = [word for word in PARTS_2 if f" {word} " in spaced]
    return [word for word in words if not any(word != other and word in other for other in words)]
