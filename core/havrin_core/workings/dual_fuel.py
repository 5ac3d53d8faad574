"""Two sources of heat on one axis of outdoor temperature: where one alone, both, or none can run."""

import itertools
from dataclasses import dataclass

from havrin_core.facts.facts import Facts
from havrin_core.machine.unit import Unit
from havrin_core.phrases import Saying, phrase
from havrin_core.tape.entries import Entry

GAS_LOCKOUT, PUMP_LOCKOUT = "gas_lockout_k", "heat_pump_lockout_k"
AXIS_K = (243.15, 293.15)  # -30 °C to 20 °C: where houses are heated
RUNS = {
    "gas": phrase("gas_alone"),
    "pump": phrase("heat_pump_alone"),
    "both": phrase("both_may_run"),
    "none": phrase("neither_may_run"),
}


@dataclass(frozen=True, slots=True)
class Span:
    """A stretch of outdoor temperature, K; ``runs`` is a key of RUNS."""

    from_k: float
    to_k: float
    runs: str


@dataclass(frozen=True, slots=True)
class Axis:
    """The lock-outs as last read (None: not read), the spans they make, and what that means."""

    gas_off_above_k: float | None
    pump_off_below_k: float | None
    outdoor_k: float | None
    spans: tuple[Span, ...]
    notes: tuple[Saying, ...]


def axis_of(unit: Unit, entries: tuple[Entry, ...]) -> Axis | None:
    """Return the axis of a unit that shares its house with a heat pump; None for any other."""
    if not unit.kind.second_source:
        return None
    facts = Facts(entries)
    read = [facts.newest(quantity, None) for quantity in (GAS_LOCKOUT, PUMP_LOCKOUT, "outdoor_temp_k")]
    gas, pump, outdoor = (fact.value if fact else None for fact in read)
    if gas is None or pump is None:
        return Axis(gas, pump, outdoor, (), (phrase("read_both_lock_outs_changeover"),))
    spans = spans_of(gas, pump)
    return Axis(gas, pump, outdoor, spans, tuple(_notes(spans, outdoor)))


def spans_of(gas_off_above_k: float, pump_off_below_k: float) -> tuple[Span, ...]:
    """Return the spans along the axis, coldest first, without gaps."""
    low, high = AXIS_K
    edges = sorted({low, high, *(min(max(k, low), high) for k in (gas_off_above_k, pump_off_below_k))})
    return tuple(
        Span(a, b, _runs(0.5 * (a + b), gas_off_above_k, pump_off_below_k)) for a, b in itertools.pairwise(edges)
    )


def _runs(at_k: float, gas_off_above_k: float, pump_off_below_k: float) -> str:
    gas, pump = at_k <= gas_off_above_k, at_k >= pump_off_below_k
    return "both" if gas and pump else "gas" if gas else "pump" if pump else "none"


def _notes(spans: tuple[Span, ...], outdoor_k: float | None) -> list[Saying]:
    notes: list[Saying] = []
    if any(span.runs == "none" for span in spans):
        notes.append(phrase("between_two_lock_outs_neither"))
    here = next((s for s in spans if outdoor_k is not None and s.from_k <= outdoor_k <= s.to_k), None)
    if here is not None:
        notes.append(phrase("outdoor_temperature_read", runs=RUNS[here.runs]))
    if any(span.runs in ("gas", "pump") for span in spans):
        notes.append(phrase("where_one_source_runs_alone"))
    return notes
