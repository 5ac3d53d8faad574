"""Conditions and quantities of a unit at one moment, from its data and its faults."""

from collections.abc import Mapping, Sequence
from functools import cache

from havrin_core.machine.circuit.model import Circuit, Condition, FaultMode, Measured


class Physics:
    """The unit's physical state: which conditions hold, what each quantity reads. Lags are the run's business."""

    def __init__(self, circuit: Circuit, faults: Sequence[FaultMode]) -> None:
        self.conditions = (*circuit.conditions, *(fault.lets_go for fault in faults if fault.lets_go_when))
        self.quantities = circuit.quantities
        self._scale: dict[str, float] = {}
        self.forced: dict[str, bool] = {}
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
        share = self._scale.get(what.name, 1.0)
        for name in what.times:
            share *= values.get(name, 0.0) / self._full(name)
        for name in what.per:
            share /= max(values.get(name, 0.0) / self._full(name), 0.05)
        return what.rest + (what.value - what.rest) * share

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
