"""What can be done to a unit, and which proofs each deed makes necessary."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Deed:
    """One thing a technician does; ``demands`` are proofs (proofs.py) needed after it."""

    key: str
    text: str
    station: str
    words: tuple[str, ...]
    demands: tuple[str, ...] = ()
    leaves_off: str = ""  # what must be put back, shown at close-out


_JOINT = ("leak_check",)
_FIRE = ("flue_each_stage",)
DEEDS: tuple[Deed, ...] = (
    Deed("adjust_manifold", "Turned the manifold screw", "manifold",
         ("turn manifold", "adjust manifold", "manifold screw", "set manifold", "turned manifold"), ("manifold_each_stage", *_FIRE)),
    Deed("open_joint", "Opened a gas joint or tap", "supply_running", ("open joint", "open tap", "opened joint", "opened tap", "open union"), _JOINT, "Cap or plug back in"),
    Deed("change_valve", "Changed the gas valve", "manifold", ("change valve", "new valve", "change gas valve"), (*_JOINT, "manifold_each_stage", *_FIRE, "full_cycle")),
    Deed("change_regulator", "Changed the line's regulator", "supply_running", ("change regulator", "new regulator"), (*_JOINT, "supply_standing", "supply_running")),
    Deed("restore_gas", "Turned the gas on again after it was off", "supply_running", ("restore gas", "gas on again", "relight"), ("tightness", "full_cycle")),
    Deed("change_orifices", "Changed the orifices", "manifold", ("change orifices", "new orifices", "change orifice"), (*_JOINT, "manifold_each_stage", "input_each_stage", *_FIRE)),
    Deed("clean_flame_rod", "Cleaned the flame rod", "burner", ("clean rod", "clean flame rod", "cleaned rod", "clean sensor"), ("flame_each_stage",)),
    Deed("change_flame_rod", "Changed the flame rod", "burner", ("change rod", "new rod", "change flame rod"), ("flame_each_stage", "full_cycle")),
    Deed("change_igniter", "Changed the igniter", "burner", ("change igniter", "new igniter"), ("full_cycle",)),
    Deed("clean_burners", "Took out and cleaned the burners", "burner", ("clean burners", "pull burners", "cleaned burners"), (*_JOINT, *_FIRE, "flame_each_stage"), "Burner seals and bolts, crosswise"),
    Deed("change_inducer", "Changed the inducer", "draft", ("change inducer", "new inducer"), ("draft_each_stage", *_FIRE)),
    Deed("clear_port", "Cleared the pressure port or hose", "draft", ("clear port", "clear hose", "clean port", "cleared port"), ("draft_each_stage",), "Hose back on the switch"),
    Deed("change_pressure_switch", "Changed the pressure switch", "draft", ("change pressure switch", "new pressure switch", "change ps"), ("draft_each_stage", "full_cycle")),
    Deed("clear_vent", "Cleared the vent or terminal", "vent", ("clear vent", "clear terminal", "clear intake"), ("vent_seen", "draft_each_stage")),
    Deed("repair_vent", "Repaired the vent", "vent", ("repair vent", "fix vent", "reconnect vent"), ("vent_seen", "draft_each_stage", *_FIRE)),
    Deed("fill_trap", "Cleaned and filled the trap", "vent", ("fill trap", "clean trap", "cleaned trap"), ("trap_seen",)),
    Deed("change_filter", "Changed the filter", "return_air", ("change filter", "new filter", "changed filter"), ()),
    Deed("change_blower_speed", "Changed the blower speed", "blower", ("blower speed", "change speed", "change tap"), ("rise_each_stage",)),
    Deed("change_blower", "Changed the blower or its capacitor", "blower", ("change blower", "change capacitor", "new capacitor"), ("rise_each_stage",)),
    Deed("change_belt", "Changed the belt", "blower", ("change belt", "new belt"), ("rise_each_stage",), "Belt guard"),
    Deed("put_back_panel", "Put the panel back", "blower", ("put back panel", "panel on", "door on"), ()),
    Deed("change_board", "Changed the control board", "call", ("change board", "new board"), ("full_cycle", "flame_each_stage")),
    Deed("change_limit", "Changed a limit or rollout switch", "limit", ("change limit", "new limit", "change rollout"), ("full_cycle", "device_proved")),
    Deed("manual_reset", "Reset a manual-reset trip", "limit", ("reset limit", "reset rollout", "reset", "manual reset"), ("cause_named", "cycles_after_reset")),
    Deed("clean_exchanger", "Cleaned the exchanger", "exchanger", ("clean exchanger", "brush exchanger"), _FIRE, "Baffles and seals"),
    Deed("change_exchanger", "Changed the heat exchanger", "exchanger", ("change exchanger", "new exchanger", "replace exchanger"), (*_JOINT, "manifold_each_stage", *_FIRE, "rise_each_stage", "exchanger_seen", "full_cycle")),
    Deed("change_relief", "Changed the relief valve", "relief", ("change relief", "new relief"), ("relief_seen", "water_pressure")),
    Deed("restore_damper", "Damper restored by who is competent", "dampers", ("restore damper", "damper restored"), ("rise_each_stage",)),
    Deed("fill_water", "Filled the system", "water_pressure", ("fill water", "fill system"), ("water_pressure",)),
    Deed("change_pump", "Changed the pump", "pump", ("change pump", "new pump"), ("water_rise_each_stage",)),
    Deed("set_thermostat", "Set the thermostat", "call", ("set thermostat", "thermostat"), ()),
)  # fmt: skip

_BY_KEY = {deed.key: deed for deed in DEEDS}


def deed(key: str) -> Deed:
    """Return the deed called ``key``; KeyError for one that is not in the list."""
    return _BY_KEY[key]


def is_deed(key: str) -> bool:
    """Tell whether ``key`` is a known deed."""
    return key in _BY_KEY
