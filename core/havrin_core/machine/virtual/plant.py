"""The fire of a virtual unit by the core's own arithmetic: gas through its orifices, air, flue gas, heat carried away.

A unit is described by how a sound one burns (``Design``); everything else follows when gas, air or the flow that carries
the heat away change. CO over air supply and the exchanger's falling effectiveness are judgements of this model, for
simulation only; balance, orifice flow, losses and air or water temperatures are those of the core.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import exp, log

from havrin_core.errors import OutOfDomain
from havrin_core.machine.circuit.model import AIR, Design
from havrin_core.phrases import phrase
from havrin_core.physics.airflow import airflow, rise_k_for
from havrin_core.physics.combustion.balance import Balance, balance
from havrin_core.physics.combustion.carbon_monoxide import co_air_free_ppm
from havrin_core.physics.combustion.losses import Surroundings, losses
from havrin_core.physics.constants import AIR_O2, O2_AMBIENT_PCT, STANDARD_PRESSURE_PA
from havrin_core.physics.fuels import Fuel, shipped_fuel
from havrin_core.physics.gas.orifice import orifice_flow

ROOM_K, WATER_RETURN_K = 294.15, 323.15
_AROUND = Surroundings(ROOM_K, 40.0, STANDARD_PRESSURE_PA)
_DISCHARGE, _GAS_K, _BORE_M = 0.85, 288.15, 0.0022
_REGULATOR_LOSS_PA = 75.0  # what a valve needs above its outlet
_FLUE_J_MOL_K = 33.0  # moist flue gas around 1000 K, for the shape of the exchanger's curve only
_RICHEST = 0.86  # less air than this and no gas flame stands
_SOUND_CO, _CO_RISE, _CO_AT_NEED, _CO_MOST = 12.0, 0.035, 6000.0, 20_000.0
_QUENCHED = 60.0  # times as much CO per share of cold air blown into the flame
_SHARE_MOST = 4.0


@dataclass(frozen=True, slots=True)
class Fire:
    """What burns and what becomes of it; SI, the flue dry and as the probe sees it."""

    input_w: float
    o2_dry_pct: float
    co_ppm_dry: float
    co_air_free_ppm: float
    flue_temp_k: float
    efficiency_gross_pct: float
    output_w: float
    rise_k: float


NO_FIRE = Fire(0.0, O2_AMBIENT_PCT, 0.0, 0.0, ROOM_K, 0.0, 0.0, 0.0)


def regulated_share(supply_pa: float, set_pa: float) -> float:
    """Return the share of its set pressure that a regulator can hold with ``supply_pa`` before it, 0 to 1."""
    return min(max((supply_pa - _REGULATOR_LOSS_PA) / set_pa, 0.0), 1.0)


def gas_share(manifold_share: float) -> float:
    """Return the flow through unchanged orifices when the manifold is at ``manifold_share`` of its design pressure."""
    if manifold_share <= 0:
        return 0.0
    natural_gas = shipped_fuel("NG_H")  # the ratio is the same for any gas
    flows = [
        orifice_flow(natural_gas, _BORE_M, pascal, _DISCHARGE, STANDARD_PRESSURE_PA, _GAS_K).mass_flow_kg_s
        for pascal in (872.0 * min(manifold_share, 20.0), 872.0)
    ]
    return flows[0] / flows[1]


def fire(
    design: Design, rise_k: float, gas: float, air: float, flow: float, leak: float = 0.0, drawn_in: float = 0.0
) -> Fire:
    """Return the fire at shares of the design's ``gas``, combustion ``air`` and ``flow`` of air or water.

    ``rise_k`` is the sound unit's; ``leak`` is air that a breached exchanger lets into the flue, ``drawn_in`` air that
    enters at the probe, both as shares of the dry flue gas. Raises OutOfDomain: a share below 0 or above 4, a NaN.
    """
    for name, share in (("gas", gas), ("air", air), ("flow", flow), ("leak", leak), ("drawn_in", drawn_in)):
        if not 0 <= share <= _SHARE_MOST:
            message = phrase("virtual_unit_cannot_driven_there", name=name, share=share, share_most=_SHARE_MOST)
            raise OutOfDomain("plant_range", message, quantity=name, value=share)
    if gas == 0:
        return NO_FIRE
    return _fire(design, rise_k, *(round(share, 4) for share in (gas, air, max(flow, 0.05), leak, drawn_in)))


@lru_cache(maxsize=8192)
def _fire(design: Design, rise_k: float, gas: float, air: float, flow: float, leak: float, drawn_in: float) -> Fire:
    if not design.has_flue:
        output = design.input_w * gas
        return Fire(output, O2_AMBIENT_PCT, 0.0, 0.0, ROOM_K, 100.0, output, rise_k * gas / flow)
    fuel = shipped_fuel(design.fuel)
    sound = _sound(design, rise_k)
    burning = _burnt(fuel, sound.excess * air / gas, leak)
    stack = sound.stack_k(burning, gas, flow)
    share = losses(fuel, burning, stack, _AROUND).efficiency_gross_pct / 100
    output = design.input_w * gas * share
    o2, co = _diluted(burning, leak + drawn_in)
    return Fire(
        design.input_w * gas,
        o2,
        co,
        co_air_free_ppm(o2, co) if o2 < O2_AMBIENT_PCT else 0.0,
        stack,
        100 * share,
        output,
        sound.rise_k(output, flow),
    )


@dataclass(frozen=True, slots=True)
class _Sound:
    """The design point, from which everything is counted."""

    design: Design
    excess: float
    flue_mol: float
    transfer_units: float
    sink_k: float
    output_w: float
    rise: float

    def stack_k(self, burning: Balance, gas: float, flow: float) -> float:
        """Return the flue temperature: fewer transfer units for more flue gas, a warmer sink for less flow."""
        fuel = shipped_fuel(self.design.fuel)
        moles = burning.dry_flue + fuel.water
        units = self.transfer_units * (self.flue_mol / (gas * moles)) ** 0.4
        flame = _flame_k(fuel, min(burning.excess_air_ratio, 1.0), moles)
        sink = self.sink_k + 0.5 * self.rise * (min(gas / flow, 6.0) - 1)
        return min(sink + (flame - sink) * exp(-units), 950.0)

    def rise_k(self, output_w: float, flow: float) -> float:
        """Return how much warmer air or water leaves."""
        if self.design.heats == AIR:
            mass = airflow(self.output_w, ROOM_K, self.rise, STANDARD_PRESSURE_PA).mass_flow_kg_s
            return rise_k_for(output_w, mass * flow, ROOM_K)
        return self.rise * output_w / self.output_w / flow


@lru_cache(maxsize=128)
def _sound(design: Design, rise_k: float) -> _Sound:
    fuel = shipped_fuel(design.fuel)
    flue = balance(fuel, design.o2_pct, 0.0)
    moles = flue.dry_flue + fuel.water
    sink = (ROOM_K if design.heats == AIR else WATER_RETURN_K) + 0.5 * rise_k
    # A condensing flue leaves cooler than the mean of what cools it: counterflow, so it is laid against the cold end.
    sink = min(sink, design.stack_k - 4.0)
    units = log((_flame_k(fuel, 1.0, moles) - sink) / (design.stack_k - sink))
    share = losses(fuel, flue, design.stack_k, _AROUND).efficiency_gross_pct / 100
    return _Sound(design, flue.excess_air_ratio, moles, units, sink, design.input_w * share, rise_k)


def _flame_k(fuel: Fuel, burnt: float, moles: float) -> float:
    return ROOM_K + burnt * fuel.net_j_mol / (moles * _FLUE_J_MOL_K)


def _burnt(fuel: Fuel, excess: float, leak: float) -> Balance:
    """Return the flue gas before anything dilutes it, for an air supply of ``excess`` times the need."""
    if excess < 1.0:
        return _rich(fuel, max(excess, _RICHEST))
    surplus = (excess - 1) * fuel.stoich_air
    o2 = 100 * AIR_O2 * surplus / (fuel.stoich_dry_flue + surplus)
    air_free = min((_SOUND_CO + _CO_AT_NEED * exp((1 - excess) / _CO_RISE)) * (1 + _QUENCHED * leak), _CO_MOST)
    return balance(fuel, o2, air_free * (O2_AMBIENT_PCT - o2) / O2_AMBIENT_PCT)


def _rich(fuel: Fuel, excess: float) -> Balance:
    low, high = 0.0, 99_000.0
    for _ in range(40):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if balance(fuel, 0.0, middle).excess_air_ratio > excess else (low, middle)
    return balance(fuel, 0.0, low)


def _diluted(burning: Balance, added: float) -> tuple[float, float]:
    """Return dry O2 (%) and CO (ppm) with ``added`` mol of air per mol of dry flue gas."""
    o2 = (burning.o2 / burning.dry_flue + AIR_O2 * added) / (1 + added)
    co = burning.co / burning.dry_flue / (1 + added)
    return min(100 * o2, O2_AMBIENT_PCT), 1e6 * co
