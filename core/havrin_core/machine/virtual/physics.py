"""Conditions and quantities of a unit at one moment, from its data and its faults."""

from collections.abc import Mapping, Sequence
from functools import cache
from math import sqrt

from havrin_core.machine.circuit.model import WATER, Circuit, Condition, FaultMode, Measured
from havrin_core.machine.virtual.plant import NO_FIRE, Fire, fire, gas_share, regulated_share

HEATED = ("temperature_rise_k", "water_temp_k")
_SUCTION = "draft_pa"
_PAST_THE_LIMIT = 1.15  # how far a temperature runs past the point at which its device opens
_BOILS_K = 389.0  # of water at 0.8 bar over the air's: no boiler's relief lets it be hotter
_CELL_MOST = 4000.0  # where a handheld's CO cell ends
FLUE = ("input_share", "o2_dry_pct", "co_air_free_ppm", "flue_temp_k", "o2_step_pct", "water_rise_k")


class Physics:
    """The unit's physical state: which conditions hold, what each quantity reads. Lags are the run's business."""

    def __init__(self, circuit: Circuit, faults: Sequence[FaultMode]) -> None:
        self.conditions = (*circuit.conditions, *(fault.opened_contact for fault in faults if fault.opens_when))
        self.quantities = circuit.quantities
        self._scale: dict[str, float] = {}
        self.forced: dict[str, bool] = {}
        self.plant = circuit.plant
        self.burning = circuit.burning
        self._rise_k = next((q.value - q.rest for q in circuit.quantities if q.name in HEATED), 30.0)
        self._leak = sum(fault.leak for fault in faults)
        self._drawn_in = sum(fault.drawn_in for fault in faults)
        self._shifts: dict[str, float] = {}  # condition -> factor on its set points
        for fault in faults:
            self.forced.update(fault.force)
            if fault.shifts != 1.0:
                moved_by = circuit.part(fault.part).closed_when
                self._shifts.update(dict.fromkeys((term.removeprefix("!") for term in moved_by), fault.shifts))
            for name, factor in fault.scale.items():
                self._scale[name] = self._scale.get(name, 1.0) * factor

    def aim(self, what: Measured, holds: set[str], values: Mapping[str, float]) -> float:
        """Return where a quantity goes while ``holds`` are true, SI."""
        if not all(_holds(term, holds, values) for term in what.drivers):
            return what.rest
        if self.plant is not None and what.name in HEATED:
            return min(what.rest + self.burns(holds, values).rise_k, self._hottest(what.name))
        share = self._scale.get(what.name, 1.0)
        for name in what.times:
            share *= self._passed_on(what.name, name, values)
        for name in what.per:
            share /= max(values.get(name, 0.0) / self._full(name), 0.05)
        return what.rest + (what.value - what.rest) * share

    def _hottest(self, name: str) -> float:
        """Return where a temperature stops: a little past the point at which the last device on it opens; water boils."""
        points = [
            _parsed(self._shifted(term, condition.name))[2]
            for condition in self.conditions
            for term in condition.terms
            if _parsed(term)[:2] == (name, ">")
        ]
        rest = next(q.rest for q in self.quantities if q.name == name)
        past = rest + (max(points) - rest) * _PAST_THE_LIMIT if points else float("inf")
        return min(past, _BOILS_K) if name == "water_temp_k" else past

    def _passed_on(self, what: str, name: str, values: Mapping[str, float]) -> float:
        """Return what ``name`` does to ``what``, as a share: a regulator holds, an orifice goes with the root."""
        value, full = values.get(name, 0.0), self._full(name)
        if what.startswith("manifold") and name == "supply_running_pa":
            return regulated_share(value, self._full("manifold_pa"))
        if what == "burner_gas" and name.startswith("manifold"):
            return gas_share(value / full)
        return value / full

    def burns(
        self, holds: set[str] | frozenset[str], values: Mapping[str, float], *, blown: bool | None = None
    ) -> Fire:
        """Return the fire of this moment; ``blown`` overrides whether the blower runs. NO_FIRE without a plant."""
        if self.plant is None:
            return NO_FIRE
        air = values.get(self.plant.draft, 0.0) / self._full(self.plant.draft) if self.plant.draft else 1.0
        if self.plant.draft == _SUCTION:
            air = sqrt(max(air, 0.0))  # flow through vent and exchanger goes with the root of what draws it
        blows = "blower_runs" in holds if blown is None else blown
        return fire(
            self.plant,
            self._rise_k,
            min(values.get("burner_gas", 0.0), 4.0),
            min(max(air, 0.05), 4.0),
            min(values.get("airflow", values.get("water_flow", 1.0)), 4.0),
            leak=self._leak if blows else 0.0,
            drawn_in=self._drawn_in,
        )

    def flue(self, holds: set[str] | frozenset[str], values: Mapping[str, float]) -> Mapping[str, float]:
        """Return what is read of the fire (FLUE): share of the plate's input, O2, CO, temperature, step at blower start."""
        still, blown = self.burns(holds, values, blown=False), self.burns(holds, values, blown=True)
        now = blown if "blower_runs" in holds else still
        assert self.plant is not None
        return {
            "input_share": now.input_w / self.plant.input_w,
            "o2_dry_pct": now.o2_dry_pct,
            "co_air_free_ppm": min(now.co_air_free_ppm, _CELL_MOST),
            "flue_temp_k": now.flue_temp_k,
            "o2_step_pct": blown.o2_dry_pct - still.o2_dry_pct,
            "water_rise_k": now.rise_k if self.plant.heats == WATER else 0.0,
        }

    def wanted(self, condition: Condition, holds: set[str], values: Mapping[str, float]) -> bool:
        """Tell whether a condition's terms hold now; a fault may hold it either way."""
        if condition.name in self.forced:
            return self.forced[condition.name]
        if condition.keeps and condition.name in holds:
            return all(_holds(term, holds, values) for term in condition.keeps)
        return all(_holds(self._shifted(term, condition.name), holds, values) for term in condition.terms)

    def _shifted(self, term: str, condition: str) -> str:
        """Return the term with its set point moved, from the quantity's rest on, where a wrong part moves it."""
        name, sign, number = _parsed(term)
        if condition not in self._shifts or sign not in ("<", ">"):
            return term
        rest = next(q.rest for q in self.quantities if q.name == name)
        return f"{name}{sign}{rest + (number - rest) * self._shifts[condition]}"

    def _full(self, name: str) -> float:
        return next(q.value for q in self.quantities if q.name == name)


@cache
def _parsed(term: str) -> tuple[str, str, float]:
    for sign in ("<", ">"):
        if sign in term:
            name, number = term.split(sign)
            return name, sign, float(number)
    return (term[1:], "!", 0.0) if term.startswith("!") else (term, "", 0.0)


def _holds(term: str, holds: set[str], values: Mapping[str, float]) -> bool:
    name, sign, number = _parsed(term)
    if sign == ">":
        return values.get(name, 0.0) > number
    if sign == "<":
        return values.get(name, 0.0) < number
    return (name in holds) != (sign == "!")
