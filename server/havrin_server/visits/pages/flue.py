"""The flue's figures with their whys, and what they say."""

from havrin_core.house.house_rules import HouseRules, efficiencies_shown
from havrin_core.machine.unit import STAGE_LABELS, Unit
from havrin_core.physics.combustion.sample import FlueResult
from havrin_core.physics.combustion.why import why
from havrin_core.quantities.formats import number
from havrin_core.quantities.units import shown_unit
from havrin_core.rules.marks import flue_mark
from havrin_core.rules.model import FlueView
from havrin_core.standing.model import Assessment
from havrin_core.wording.flue import flue_aside, flue_cannot_say, flue_says
from havrin_server.figures.explained import explained, shown_as
from havrin_server.figures.schemas import Explained, Shown
from havrin_server.visits.schemas.flue import FlueOut

_FIGURES: tuple[tuple[str, str, str], ...] = (
    ("co_air_free_ppm", "CO air-free", "ppm"),
    ("excess_air_pct", "Excess air", "percent"),
    ("co2_from_o2_pct", "CO₂ from O₂", "percent"),
    ("dew_point_k", "Dew point", "temperature"),
    ("efficiency_gross_pct", "Efficiency, gross", "percent"),
    ("efficiency_net_pct", "Efficiency, net", "percent"),
    ("net_stack_k", "Flue over combustion air", "temperature_difference"),
    ("co_at_3pct_o2_ppm", "CO at 3 % O₂", "ppm"),
    ("co_co2_ratio", "CO/CO₂", "ratio"),
    ("co_pct", "CO as a share", "fine_percent"),
    ("co_mg_m3_3pct", "CO per m³ at 3 % O₂", "mass_per_volume"),
    ("co_mg_kwh_net", "CO per kWh, net", "mass_per_heat"),
)
_WHOLE = ("excess_air_pct",)  # tenths of a percent of excess air mean nothing
_O2_WIDTH, _CO2_WIDTH, _CO2_LEAST_WIDTH = 0.3, 0.3, 0.1  # percentage points, where the instrument states none


def flue_out(unit: Unit, rules: HouseRules, view: FlueView, found: Assessment, system: str) -> FlueOut:
    """Return one stage's flue for the page."""
    result = view.result
    widths = result.half_widths if result else {}
    return FlueOut.of(
        view,
        label=STAGE_LABELS[view.stage],
        o2_dry_pct=result.sample.o2_dry_pct if result else None,
        co2_dry_pct=_co2(result) if result else None,
        o2_half_width=_O2_WIDTH,
        co2_half_width=max(widths.get("co2_from_o2_pct", _CO2_WIDTH), _CO2_LEAST_WIDTH),
        figures=_figures(result, rules, found, system) if result else [],
        says=flue_says(unit, view, system),
        cannot_say=flue_cannot_say(found),
    )


def _figures(result: FlueResult, rules: HouseRules, found: Assessment, system: str) -> list[Explained]:
    hidden = {key for key, _, _ in _FIGURES if key.startswith("efficiency_")} - set(efficiencies_shown(rules, system))
    return [
        _figure(result, key, name, dimension, found, system)
        for key, name, dimension in _FIGURES
        if key in result.values and key not in hidden
    ]


def _co2(result: FlueResult) -> float:
    return result.sample.co2_dry_pct if result.sample.co2_dry_pct is not None else result.flue.co2_dry_pct


def _figure(result: FlueResult, key: str, name: str, dimension: str, found: Assessment, system: str) -> Explained:
    value, width = result.values[key], result.half_widths.get(key, 0.0)
    whole = Shown(text=number(value, ".0f"), unit="%") if key in _WHOLE else None
    return explained(
        why(result, key),
        whole or shown_as(value, dimension, system),
        key=key,
        name=name,
        system=system,
        state=flue_mark(key, found.reasons),
        aside=flue_aside(result, key, system),
        half_width=number(width, ".0f") if whole else _width(width, dimension, system),
    )


def _width(width: float, dimension: str, system: str) -> str:
    if dimension == "ratio":
        return number(width, ".5f")
    unit = shown_unit("temperature_difference" if dimension == "temperature" else dimension, system)
    shown = unit.from_si(width)
    return number(shown, ".0f") if shown >= 2 or unit.decimals == 0 else number(shown, ".1f")
