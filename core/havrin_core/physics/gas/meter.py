"""Input by clocking the meter."""

from dataclasses import dataclass

from havrin_core.errors import UnknownName
from havrin_core.phrases import phrase
from havrin_core.physics.constants import STANDARD_PRESSURE_PA
from havrin_core.physics.fuels import Fuel
from havrin_core.physics.states import METERING_K, require, volumetric_heating_values_j_m3
from havrin_core.quantities.units import CUBIC_FOOT_M3

DIAL_UNITS_M3 = {"ft3": CUBIC_FOOT_M3, "m3": 1.0, "l": 0.001}


@dataclass(frozen=True, slots=True)
class MeterFlow:
    """What went through the meter: SI; heating values at 15 degC, as the volume is."""

    flow_m3_s_actual: float
    correction: float  # to 15 degC, 101.325 kPa
    flow_m3_s_standard: float
    input_gross_w: float
    input_net_w: float


def dial_m3(volume: float, unit: str) -> float:
    """Return a dial's volume in m3; ``unit`` is ft3, m3 or l. Raises UnknownName, OutOfDomain."""
    if unit not in DIAL_UNITS_M3:
        raise UnknownName(
            "dial_unit", phrase("dial_has_not", dial_units_m3=", ".join(DIAL_UNITS_M3), unit=unit), value=unit
        )
    volume_m3 = volume * DIAL_UNITS_M3[unit]
    require("dial_volume", volume_m3, 1e-5, 100.0, phrase("dials_volume_m"))
    return volume_m3


def meter_flow(
    fuel: Fuel,
    dial_volume_m3: float,
    turns: float,
    seconds: float,
    meter_gauge_pa: float,
    meter_temp_k: float,
    baro_pa: float,
    gross_j_m3: float | None = None,
) -> MeterFlow:
    """Return what went through the meter while its dial made ``turns`` in ``seconds``.

    Args:
        dial_volume_m3: of one turn.
        turns: 0.1 to 1000.
        seconds: 1 to 36 000.
        meter_gauge_pa: 0 to 500 kPa.
        meter_temp_k: 230 to 340.
        baro_pa: 50 to 110 kPa.
        gross_j_m3: the line's own gross heating value at 15 degC, 101.325 kPa, where the supplier gives it.

    Raises OutOfDomain.
    """
    require("revolutions", turns, 0.1, 1000.0, phrase("number_turns_2"))
    require("time_s", seconds, 1.0, 36_000.0, phrase("time_s"))
    require("meter_gauge_pa", meter_gauge_pa, 0.0, 500_000.0, phrase("pressure_meter_pa"))
    require("meter_temp_k", meter_temp_k, 230.0, 340.0, phrase("gas_temperature_k"))
    require("baro_pa", baro_pa, 50_000.0, 110_000.0, phrase("barometric_pressure_pa"))
    gross, net = volumetric_heating_values_j_m3(fuel)
    line_gross = gross if gross_j_m3 is None else gross_j_m3
    actual = dial_volume_m3 * turns / seconds
    factor = (baro_pa + meter_gauge_pa) / STANDARD_PRESSURE_PA * METERING_K / meter_temp_k
    standard = actual * factor
    return MeterFlow(actual, factor, standard, standard * line_gross, standard * line_gross * net / gross)


def seconds_per_turn(
    fuel: Fuel, input_gross_w: float, dial_volume_m3: float, meter_gauge_pa: float, meter_temp_k: float, baro_pa: float
) -> float:
    """Return how long one turn of the dial takes at ``input_gross_w``: what the stopwatch should show."""
    one = meter_flow(fuel, dial_volume_m3, 1.0, 100.0, meter_gauge_pa, meter_temp_k, baro_pa)
    return 100.0 * one.input_gross_w / input_gross_w
