"""Numbers that do not fit together, each with the likely reason. Nothing is silently accepted."""

from collections.abc import Mapping
from dataclasses import dataclass

from havrin_core.phrases import Phrase, Saying, phrase
from havrin_core.physics.combustion.balance import balance
from havrin_core.physics.combustion.sample import DEFAULT_ACCURACY, FlueResult
from havrin_core.physics.fuels import Fuel, shipped_fuel
from havrin_core.quantities.formats import number
from havrin_core.quantities.uncertainty import Accuracy


@dataclass(frozen=True, slots=True)
class Doubt:
    """A reason not to trust a number yet."""

    code: str
    text: Saying
    quantity: str


def doubts(result: FlueResult, accuracy: Mapping[str, Accuracy] = DEFAULT_ACCURACY) -> tuple[Doubt, ...]:
    """Return what is doubtful in ``result``, most telling first; empty when the numbers agree."""
    found = [_carbon_dioxide(result, accuracy), _lean(result), _cold_stack(result), _fuel_rich(result)]
    return tuple(doubt for doubt in found if doubt is not None)


def _carbon_dioxide(result: FlueResult, accuracy: Mapping[str, Accuracy]) -> Doubt | None:
    measured = result.sample.co2_dry_pct
    if measured is None:
        return None
    if measured > result.fuel.co2_max_dry_pct:
        most = number(result.fuel.co2_max_dry_pct, ".1f")
        text = phrase("co_above_can_give_wrong", measured=measured, most=most, fuel=result.fuel.label)
        return Doubt("co2_above_ultimate", text, "co2_dry_pct")
    expected = result.values["co2_from_o2_pct"]
    allowed = accuracy["co2_dry_pct"].at(measured) + result.half_widths.get("co2_from_o2_pct", 0.0)
    gap = measured - expected
    if abs(gap) <= allowed:
        return None
    cause = _likely_cause(result, measured, allowed)
    text = phrase("o_co_disagree_measured_from", measured=measured, expected=expected, allowed=allowed, cause=cause)
    return Doubt("o2_co2_disagree", text, "co2_dry_pct")


def _likely_cause(result: FlueResult, measured: float, allowed: float) -> Phrase:
    for name in ("C3H8", "NG_H"):
        other: Fuel = shipped_fuel(name)
        if abs(other.co2_max_dry_pct - result.fuel.co2_max_dry_pct) < 1:
            continue
        if abs(balance(other, result.sample.o2_dry_pct, result.sample.co_ppm_dry).co2_dry_pct - measured) <= allowed:
            return phrase("pair_fits_what_burns_here", other=other.label)
    return phrase("likely_cell_not_zeroed_air")


def _lean(result: FlueResult) -> Doubt | None:
    if result.sample.o2_dry_pct <= 16:
        return None
    text = phrase("o_mostly_air_probe_not", o2_dry_pct=result.sample.o2_dry_pct)
    return Doubt("sample_mostly_air", text, "o2_dry_pct")


def _cold_stack(result: FlueResult) -> Doubt | None:
    temp = result.sample.flue_temp_k
    if temp is None or temp >= result.sample.around.air_temp_k:
        return None
    return Doubt(
        "stack_colder_than_air",
        phrase("stack_reads_colder_than_combustion"),
        "flue_temp_k",
    )


def _fuel_rich(result: FlueResult) -> Doubt | None:
    if result.flue.excess_air_ratio >= 1:
        return None
    text = phrase("excess_air_comes_out_flame", excess_air_pct=result.flue.excess_air_pct)
    return Doubt("excess_air_negative", text, "o2_dry_pct")
