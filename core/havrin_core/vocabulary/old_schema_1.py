"""The keys of tape schema 1 in today's vocabulary. Frozen: old tapes are read by it for ever."""

import re
from collections.abc import Mapping
from typing import Any

from havrin_core.vocabulary.catalogue import whole_phrases
from havrin_core.vocabulary.index import condition_index, part_index, phrase_index

# finding -> part, condition, said with a doubt
FINDINGS_1: Mapping[str, tuple[str, str, bool]] = {
    "exchanger_breach": ("exchanger", "cracked", False),
    "exchanger_doubtful": ("exchanger", "cracked", True),
    "exchanger_warped": ("exchanger", "warped", False),
    "scorch": ("exchanger", "scorched", False),
    "coil_fouled": ("secondary_coil", "dirty", False),
    "flame_disturbed": ("flame", "disturbed_by_blower", False),
    "exchanger_whole": ("exchanger", "ok", False),
    "gas_smell": ("gas_line", "smells_of_gas", False),
    "vent_disconnected": ("vent", "disconnected", False),
    "vent_blocked": ("vent", "blocked", False),
    "vent_whole": ("vent", "ok", False),
    "spillage": ("vent", "spilling", False),
    "rollout": ("flame", "rolled_out", False),
    "delayed_light_off": ("flame", "bang", False),
    "flame_steady": ("flame", "ok", False),
    "flame_lazy": ("flame", "lazy", False),
    "wrong_orifice": ("orifices", "wrong", False),
    "wrong_fuel": ("conversion", "wrong", False),
    "open_gas_end": ("gas_line", "open", False),
    "valve_lets_by": ("gas_valve", "lets_by", False),
    "dry_fired": ("boiler_section", "dry", False),
    "relief_failed": ("relief", "does_not_act", False),
    "symptoms": ("people", "symptoms", False),
    "soot": ("exchanger", "sooted", False),
    "rust_flakes": ("burner", "rusted", False),
    "filter_dirty": ("filter", "dirty", False),
    "filter_clean": ("filter", "clean", False),
    "igniter_white": ("igniter", "white", False),
    "trap_dry": ("trap", "dry", False),
    "trap_filled": ("trap", "full", False),
    "relief_sound": ("relief", "ok", False),
    "relief_weeps": ("relief", "dripping", False),
    "relief_plugged": ("relief", "plugged", False),
    "fire_damper_shut": ("fire_damper", "dropped", False),
    "dampers_open": ("fire_damper", "ok", False),
    "belt_worn": ("belt", "worn", False),
    "panel_missing": ("panel", "missing", False),
    "rod_white": ("flame_rod", "coated", False),
}
# action -> verb, part
ACTIONS_1: Mapping[str, tuple[str, str]] = {
    "adjust_manifold": ("adjust", "gas_valve"),
    "open_joint": ("open", "gas_joint"),
    "change_valve": ("change", "gas_valve"),
    "change_regulator": ("change", "regulator"),
    "restore_gas": ("restore", "gas_supply"),
    "change_orifices": ("change", "orifices"),
    "clean_flame_rod": ("clean", "flame_rod"),
    "change_flame_rod": ("change", "flame_rod"),
    "change_igniter": ("change", "igniter"),
    "clean_burners": ("clean", "burner"),
    "change_inducer": ("change", "inducer"),
    "clear_port": ("clear", "port"),
    "change_pressure_switch": ("change", "pressure_switch"),
    "clear_vent": ("clear", "vent"),
    "repair_vent": ("repair", "vent"),
    "fill_trap": ("fill", "trap"),
    "change_filter": ("change", "filter"),
    "change_blower_speed": ("adjust", "blower"),
    "change_blower": ("change", "blower"),
    "change_belt": ("change", "belt"),
    "put_back_panel": ("refit", "panel"),
    "change_board": ("change", "board"),
    "change_limit": ("change", "limit"),
    "manual_reset": ("reset", ""),
    "clean_exchanger": ("clean", "exchanger"),
    "change_exchanger": ("change", "exchanger"),
    "change_relief": ("change", "relief"),
    "restore_damper": ("restore", "fire_damper"),
    "fill_water": ("fill", "water"),
    "change_pump": ("change", "pump"),
    "set_thermostat": ("set", "thermostat"),
}
HOWS_1: Mapping[str, str] = {
    "jumper": "bridged",
    "held": "held",
    "lead": "lifted",
    "tee": "tee",
    "tap": "tap",
    "part": "removed",
    "setting": "setting",
}
DEVICES_1: Mapping[str, str] = {
    "spill": "spill_switch",
    "gas_pressure": "gas_pressure_switch_low",
    "flame_sensor": "flame_rod",
    "airflow_low": "airflow_switch_low",
    "airflow_high": "airflow_switch_high",
}
# decision -> what was said, its state
DECISIONS_1: Mapping[str, tuple[str, str]] = {
    "refused": ("refuse", ""),
    "cannot_put_right": ("cannot", ""),
    "shut_down": ("leaves", "made_safe"),
    "in_service": ("untag", ""),
    "part": ("order", ""),
}
_COVERAGE = re.compile(r"(\d+)\s*(?:/|of)\s*(\d+)\s*")
_NO_CAUSE = ("not found", "not known", "unknown", "none found")


def coverage_of_1(place: str) -> tuple[str, int | None, int | None]:
    """Return (the rest of the place, parts seen, parts in all) of a place like "4/5 by the door"."""
    match = _COVERAGE.search(place)
    if match is None:
        return place, None, None
    return _COVERAGE.sub("", place, count=1).strip(), int(match[1]), int(match[2])


def cause_of_1(text: str) -> dict[str, Any]:
    """Return state, part and condition of a cause that schema 1 kept as words alone."""
    tokens = text.lower().replace(",", " ").split()
    if text.lower().startswith(_NO_CAUSE):
        return {"state": "not_found"}
    whole = phrase_index().every(tokens)
    if whole:
        part, condition, _ = whole_phrases()[whole[0].key]
        return {"state": "found", "part": part, "condition": condition}
    parts, likes = part_index().every(tokens), condition_index().every(tokens)
    return {"state": "found", "part": parts[0].key if parts else "", "condition": likes[0].key if likes else ""}
