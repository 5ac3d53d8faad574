"""The closed line's leak: with its ±, and what it would be at working pressure with the fuel in it."""

from collections.abc import Iterator

from havrin_core.errors import OutOfDomain
from havrin_core.limits.limits import band_for
from havrin_core.phrases import phrase
from havrin_core.physics.gas.tightness import leak_elsewhere
from havrin_core.physics.gas.viscosity import AIR, fuel_medium
from havrin_core.quantities.display import sentence
from havrin_core.quantities.units import INWC_PA
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.workings.model import Working
from havrin_core.workings.whys import computed_why

_USUAL_PA = 7 * INWC_PA


def leak_workings(context: Context, system: str) -> Iterator[Working]:
    """Yield the newest leak of the closed line; nothing where no line was tested."""
    fact = context.facts.newest("gas_leak_m3_s", None)
    parts = dict(fact.computed_from) if fact else {}
    if fact is None or "half_width_m3_s" not in parts:
        return
    band = band_for(context.unit, context.rules, "gas_leak_m3_s", None)
    why = computed_why("gas_leak_m3_s", fact.computed_from)
    state = band.verdict(fact.value) if band else ""
    width = parts["half_width_m3_s"]
    yield Working("gas_leak_m3_s", phrase("leak_closed_line"), fact.value, "leak", why, width, None, state)
    if fact.value > 0:
        yield from _at_work(context, fact.value, width, parts, system)


def _at_work(context: Context, leak: float, width: float, parts: dict[str, float], system: str) -> Iterator[Working]:
    running = context.facts.newest("supply_running_pa", None)
    working_pa = running.value if running else _USUAL_PA
    tested_pa = 0.5 * (parts["start_gauge_pa"] + parts["end_gauge_pa"])
    fuel = fuel_medium(context.unit.fuel)
    try:
        low, high = leak_elsewhere(leak, tested_pa, AIR if "with_air" in parts else fuel, working_pa, fuel)
    except OutOfDomain:
        return
    inputs = (
        Input(phrase("leak_closed_line"), leak, "leak"),
        Input(phrase("test_pressure"), tested_pa, "pressure"),
        Input(phrase("working_pressure"), working_pa, "pressure"),
    )
    why = Why(phrase("leak_by_pore_or_hole"), inputs, phrase("docs_formulas_md_section_7"))
    said = phrase("leak_between", low=sentence(low, "leak", system), high=sentence(high, "leak", system))
    middle, share = 0.5 * (low + high), width / leak
    half_width = ((0.5 * (high - low)) ** 2 + (share * middle) ** 2) ** 0.5
    yield Working(
        "leak_at_work_m3_s", phrase("leak_at_working_pressure"), middle, "leak", why, half_width, None, "", said
    )
