"""Everything that can be read on a unit, with the words that technicians type for it."""

from dataclasses import dataclass

from havrin_core.errors import UnknownName
from havrin_core.phrases import Saying, phrase


@dataclass(frozen=True, slots=True)
class Measurand:
    """One readable quantity.

    ``least``..``most`` (canonical unit) is what can be at all; a reading outside is refused
    with the reason. ``station`` is where it is shown; ``staged`` readings belong to a firing stage.
    """

    key: str
    name: str
    dimension: str
    station: str
    words: tuple[str, ...]
    least: float
    most: float
    staged: bool = False
    beyond: Saying = ""  # why a reading outside cannot be


_KPA = 1000.0
MEASURANDS: tuple[Measurand, ...] = (
    Measurand("room_co_ppm", "Room CO", "ppm", "room", ("room", "roomco", "room co"), 0, 5000),
    Measurand(
        "gas_lel_pct", "Gas in the air, of its lower explosive limit", "percent", "room", ("lel", "gas in air"), 0, 100
    ),
    Measurand("supply_air_co_ppm", "CO at a register", "ppm", "supply_air", ("register", "supply co", "sco"), 0, 5000),
    Measurand("outdoor_temp_k", "Outdoor temperature", "temperature", "room", ("outdoor", "oat", "outside"), 213, 333),
    Measurand("indoor_temp_k", "Indoor temperature", "temperature", "room", ("indoor", "room temp"), 233, 333),
    Measurand(
        "forecast_temp_k",
        "Coldest outdoors by forecast",
        "temperature",
        "room",
        ("forecast", "forecast low", "tonight", "overnight low"),
        213,
        333,
    ),
    Measurand(
        "floor_area_m2", "Heated floor", "floor", "room", ("floor", "floor area", "heated floor", "house of"), 5, 20_000
    ),
    Measurand(
        "gas_lockout_k", "Gas locked out above", "temperature", "call", ("gas lockout", "gas off above"), 213, 333
    ),
    Measurand(
        "heat_pump_lockout_k",
        "Heat pump locked out below",
        "temperature",
        "call",
        ("pump lockout", "pump off below"),
        213,
        333,
    ),
    Measurand(
        "supply_standing_pa",
        "Supply, no flow",
        "pressure",
        "supply_standing",
        ("lockup", "lock-up", "standing", "supply standing", "sps"),
        0,
        100 * _KPA,
    ),
    Measurand(
        "supply_running_pa",
        "Supply, all running",
        "pressure",
        "supply_running",
        ("supply", "sp", "inlet", "running", "supply running"),
        0,
        100 * _KPA,
    ),
    Measurand(
        "meter_gauge_pa",
        "Pressure at the meter",
        "pressure",
        "supply_standing",
        ("meter pressure", "pressure at meter", "pressure at the meter"),
        0,
        700 * _KPA,
    ),
    Measurand(
        "line_gross_j_m3",
        "Heating value of the line's gas",
        "heating_value",
        "supply_standing",
        ("heating value", "hv", "btu content"),
        5e6,
        150e6,
    ),
    Measurand("manifold_pa", "Manifold", "pressure", "manifold", ("mp", "manifold", "man"), -1 * _KPA, 20 * _KPA, True),
    Measurand("input_w", "Input by meter", "power", "input", ("input", "meter", "clocked"), 100, 2e6, True),
    Measurand(
        "draft_pa",
        "Draft at switch",
        "draft",
        "draft",
        ("draft", "dr", "switch"),
        -3 * _KPA,
        3 * _KPA,
        True,
        phrase("draft_gauge_furnace_ends_few"),
    ),
    Measurand(
        "draft_least_pa",
        "Least draft while it ran",
        "draft",
        "draft",
        ("least draft", "worst draft"),
        -3 * _KPA,
        3 * _KPA,
        True,
        phrase("draft_gauge_furnace_ends_few"),
    ),
    Measurand(
        "flame_least_a",
        "Least flame signal while it ran",
        "current_small",
        "burner",
        ("least ua", "least flame"),
        0,
        1e-4,
        True,
    ),
    Measurand("control_least_v", "Least control voltage while it ran", "voltage", "call", ("least volts",), 0, 300),
    Measurand(
        "flame_current_a", "Flame signal", "current_small", "burner", ("ua", "flame", "µa", "signal"), 0, 1e-4, True
    ),
    Measurand(
        "o2_dry_pct",
        "Flue O₂",
        "percent",
        "flue",
        ("o2", "o₂", "oxygen"),
        0,
        20.945,
        True,
        phrase("fresh_air_has_20_946"),
    ),
    Measurand(
        "o2_step_pct", "O₂ step at blower start", "percent", "exchanger", ("o2 step", "o₂ step", "blower test"), -10, 15
    ),
    Measurand("co_step_ppm", "CO step at blower start", "ppm", "exchanger", ("co step",), -5000, 20000),
    Measurand("co_ppm_dry", "Flue CO", "ppm", "flue", ("co",), 0, 100_000, True),
    Measurand(
        "co2_dry_pct",
        "Flue CO₂",
        "percent",
        "flue",
        ("co2", "co₂"),
        0,
        16,
        True,
        phrase("no_gas_fuel_gives_more"),
    ),
    Measurand(
        "flue_temp_k",
        "Flue temperature",
        "temperature",
        "flue",
        ("t", "stack", "flue", "ft", "temp"),
        233.15,
        1000,
        True,
        phrase("no_flue_gas_unit_cold"),
    ),
    Measurand("air_temp_k", "Combustion air", "temperature", "flue", ("air", "ta", "combustion air"), 223.15, 353.15),
    Measurand(
        "supply_air_temp_k",
        "Supply air",
        "temperature",
        "supply_air",
        ("sa", "supply air", "supply temp"),
        223,
        450,
        True,
    ),
    Measurand("return_air_temp_k", "Return air", "temperature", "return_air", ("ra", "return", "return air"), 223, 350),
    Measurand("temperature_rise_k", "Rise", "temperature_difference", "rise", ("rise", "dt", "delta t"), 0, 150, True),
    Measurand("external_static_pa", "External static", "pressure", "static", ("esp", "static", "tesp"), 0, 2 * _KPA),
    Measurand("blower_current_a", "Blower", "current", "blower", ("blower", "blower amps", "amps"), 0, 60),
    Measurand("inducer_current_a", "Inducer", "current", "draft", ("inducer amps", "draft motor amps"), 0, 30),
    Measurand(
        "water_pressure_pa",
        "Water pressure",
        "water_pressure",
        "water_pressure",
        ("wp", "water pressure"),
        0,
        1000 * _KPA,
    ),
    Measurand(
        "system_height_m",
        "Height of the system over the boiler",
        "length",
        "water_pressure",
        ("system height", "height of system", "highest radiator"),
        0.5,
        200,
    ),
    Measurand(
        "water_supply_temp_k", "Supply water", "temperature", "water_supply", ("ws", "supply water"), 273, 450, True
    ),
    Measurand("water_return_temp_k", "Return water", "temperature", "return_water", ("wr", "return water"), 273, 400),
    Measurand(
        "water_rise_k",
        "Water rise",
        "temperature_difference",
        "water_rise",
        ("wrise", "water rise", "wdt"),
        0,
        80,
        True,
    ),
    Measurand("intake_co_ppm", "CO at the intake", "ppm", "intake_co", ("ico", "intake co"), 0, 5000),
    Measurand("discharge_co_ppm", "CO in the discharge", "ppm", "discharge_co", ("dco", "discharge co"), 0, 5000, True),
    Measurand("gas_leak_m3_s", "Leak of the closed line", "leak", "supply_standing", ("gas leak",), -1e-4, 1e-2),
    Measurand("orifice_diameter_m", "Orifice", "bore", "manifold", ("bore",), 0.0002, 0.02, True),
    Measurand("vent_height_m", "Height of the vent", "length", "vent", ("height", "vent height"), 0.3, 120),
    Measurand("collar_static_pa", "Pressure at the collar", "draft", "vent", ("collar", "vent pressure"), -500, 500),
    Measurand("igniter_ohm", "Igniter, cold", "resistance", "burner", ("igniter", "hsi"), 0, 5000),
    Measurand(
        "vent_draft_pa",
        "Draft in the vent",
        "draft",
        "vent",
        ("vent draft", "breech draft", "breeching draft", "stack draft", "flue draft"),
        -500,
        500,
    ),
    Measurand(
        "overfire_draft_pa",
        "Draft over the fire",
        "draft",
        "vent",
        ("overfire", "overfire draft", "over fire", "over fire draft", "overfire pressure"),
        -500,
        500,
    ),
    Measurand("spillage_s", "Spillage stopped after", "time", "vent", ("spill", "spillage"), 0, 3600),
    Measurand(
        "line_voltage_off_pct", "Line voltage off its plate", "percent", "call", ("line voltage off",), -100, 100
    ),
    Measurand("coil_current_a", "Coil current", "current", "gas_valve", ("coil",), 0, 20),
    Measurand("capacitor_f", "Capacitor", "capacitance", "blower", ("capacitor",), 1e-7, 5e-4),
    Measurand("transformer_load_pct", "Transformer load", "percent", "blower", ("transformer load",), 0, 400),
    Measurand("belt_deflection_pct", "Belt deflection", "percent", "blower", ("belt deflection",), 0, 50),
    Measurand("vent_run_pct", "Vent run against its most", "percent", "vent", ("vent run",), 0, 500),
    Measurand("intake_no2_ppm", "NO₂ at the intake", "ppm_fine", "intake_co", ("ino2", "intake no2"), 0, 100),
    Measurand(
        "discharge_no2_ppm", "NO₂ in the discharge", "ppm_fine", "discharge_co", ("dno2", "discharge no2"), 0, 100, True
    ),
    Measurand("voltage_imbalance_pct", "Imbalance of voltages", "percent", "blower", ("volt imbalance",), 0, 100),
    Measurand("current_imbalance_pct", "Imbalance of currents", "percent", "blower", ("amp imbalance",), 0, 100),
    Measurand("event_s", "Seen after the call", "time", "call", ("seen",), 0, 3600),
    Measurand(
        "thermocouple_open_v", "Thermocouple, open", "millivolts", "burner", ("thermocouple open", "tc open"), 0, 0.1
    ),
    Measurand(
        "thermocouple_load_v",
        "Thermocouple, under load",
        "millivolts",
        "burner",
        ("thermocouple load", "thermocouple loaded", "tc load"),
        0,
        0.1,
    ),
    Measurand(
        "thermopile_open_v", "Thermopile, open", "millivolts", "burner", ("thermopile open", "generator open"), 0, 1.5
    ),
    Measurand(
        "thermopile_load_v",
        "Thermopile, under load",
        "millivolts",
        "burner",
        ("thermopile load", "thermopile loaded", "generator load"),
        0,
        1.5,
    ),
    Measurand("outdoor_co_ppm", "CO outdoors", "ppm", "room", ("outdoor co", "outside co", "co outdoors"), 0, 500),
    Measurand(
        "switch_make_pa",
        "Pressure switch makes at",
        "draft",
        "draft",
        ("switch makes", "switch makes at"),
        -3 * _KPA,
        3 * _KPA,
        True,
    ),
    Measurand(
        "switch_break_pa",
        "Pressure switch breaks at",
        "draft",
        "draft",
        ("switch breaks", "switch breaks at"),
        -3 * _KPA,
        3 * _KPA,
        True,
    ),
    Measurand("room_volume_m3", "Room of the appliances", "room", "room", ("room volume",), 1, 1e5),
    Measurand(
        "room_input_w", "All appliances in the room", "power", "room", ("room input", "appliances in room"), 100, 1e7
    ),
    Measurand(
        "opening_high_m2",
        "Upper opening for combustion air, free area",
        "opening",
        "room",
        ("upper opening", "opening upper"),
        0,
        10,
    ),
    Measurand(
        "opening_low_m2",
        "Lower opening for combustion air, free area",
        "opening",
        "room",
        ("lower opening", "opening lower"),
        0,
        10,
    ),
    Measurand(
        "opening_outdoor_m2",
        "Opening outdoors for combustion air, free area",
        "opening",
        "room",
        ("opening outdoors", "outdoor opening"),
        0,
        10,
    ),
    Measurand("blower_rpm", "Blower speed", "speed", "blower", ("blower rpm", "blower speed"), 50, 5000),
    Measurand(
        "motor_sheave_m", "Motor pulley, pitch diameter", "bore", "blower", ("motor pulley", "motor sheave"), 0.02, 1
    ),
    Measurand(
        "limit_point_k", "Limit opens at", "temperature", "supply_air", ("limit opens at", "limit stamped"), 300, 500
    ),
    Measurand("tank_volume_m3", "LP tank, water capacity", "content", "supply_standing", ("tank size",), 0.02, 200),
    Measurand("tank_fill_pct", "LP tank, fill", "percent", "supply_standing", ("tank fill",), 0, 95),
    Measurand(
        "relief_rated_w",
        "Relief valve's rated output",
        "power",
        "water_pressure",
        ("relief rated", "relief rating", "relief capacity"),
        1e3,
        1e8,
    ),
    Measurand("vessel_m3", "Expansion vessel, whole volume", "content", "water_pressure", ("vessel size",), 5e-4, 20),
    Measurand(
        "precharge_pa",
        "Pre-charge of the vessel",
        "water_pressure",
        "water_pressure",
        ("precharge", "pre-charge", "vessel precharge"),
        0,
        1000 * _KPA,
    ),
    Measurand(
        "system_volume_m3",
        "Water in the system",
        "content",
        "water_pressure",
        ("system volume", "water content"),
        0.001,
        100,
    ),
    Measurand("glycol_pct", "Glycol", "percent", "water_pressure", ("glycol share",), 0, 60),
    Measurand("season_cost", "Fuel's cost of a season", "count", "input", ("season cost", "fuel bill"), 1, 1e6),
    Measurand("screw_turns", "Screw turned", "count", "manifold", ("screw turns",), -10, 10, True),
    Measurand("line_loss_pa", "Lost in the gas line", "pressure", "supply_running", ("line loss",), 0, 100 * _KPA),
    Measurand("volts_across_v", "Volts across", "voltage", "", ("v", "volts", "volt"), 0, 300),
)

# What was read live -> the least of it while it ran, as it stands on the tape
LEAST_OF = {"draft_pa": "draft_least_pa", "flame_current_a": "flame_least_a", "volts_across_v": "control_least_v"}

_BY_KEY = {m.key: m for m in MEASURANDS}


def measurand(key: str) -> Measurand:
    """Return the measurand called ``key``. Raises UnknownName."""
    if key not in _BY_KEY:
        raise UnknownName("quantity_unknown", phrase("no_quantity_called", key_=key), value=key)
    return _BY_KEY[key]
