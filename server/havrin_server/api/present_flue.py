"""The flue's figures with their whys, and what they say."""

from havrin_core.house.house_rules import HouseRules, efficiencies_shown
from havrin_core.machine.unit import STAGE_LABELS, Unit
from havrin_core.physics.combustion.sample import FlueResult
from havrin_core.physics.combustion.why import why
from havrin_core.quantities.display import sentence
from havrin_core.quantities.units import shown_unit
from havrin_core.rules.model import FlueView
from havrin_core.standing.model import Assessment
from havrin_core.wording.missing import missing_text
from havrin_core.wording.phrases import words
from havrin_server.api.present_why import explained, shown_as
from havrin_server.api.schemas import Explained, FlueOut

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
)

_WHOLE = ("excess_air_pct",)  # tenths of a percent of excess air mean nothing


def flue_out(unit: Unit, rules: HouseRules, view: FlueView, found: Assessment, system: str) -> FlueOut:
    """Return one stage's flue for the page."""
    result = view.result
    widths = result.half_widths if result else {}
    return FlueOut(
        stage=view.stage,
        label=STAGE_LABELS[view.stage],
        phase=view.phase,
        o2_dry_pct=result.sample.o2_dry_pct if result else None,
        co2_dry_pct=_co2(result) if result else None,
        o2_half_width=0.3,
        co2_half_width=max(widths.get("co2_from_o2_pct", 0.3), 0.1),
        figures=[
            _figure(result, key, name, dim, found, system)
            for key, name, dim in _FIGURES
            if key in result.values and _is_shown(key, rules, system)
        ]
        if result
        else [],
        says=_says(unit, view, found, system),
        cannot_say=_cannot_say(found),
        doubts=[words(doubt) for doubt in view.doubts],
    )


def _is_shown(key: str, rules: HouseRules, system: str) -> bool:
    return not key.startswith("efficiency_") or key in efficiencies_shown(rules, system)


def _co2(result: FlueResult) -> float:
    return result.sample.co2_dry_pct if result.sample.co2_dry_pct is not None else result.flue.co2_dry_pct


def _figure(result: FlueResult, key: str, name: str, dimension: str, found: Assessment, system: str) -> Explained:
    explanation = why(result, key)
    value, width = result.values[key], result.half_widths.get(key, 0.0)
    shown = shown_as(value, dimension, system)
    if key in _WHOLE:
        shown.text = f"{value:.0f}"
    return explained(
        explanation,
        shown,
        key=key,
        name=name,
        system=system,
        state=_state(key, found),
        aside=_aside(result, key, system),
        half_width=f"{width:.0f}" if key in _WHOLE else _width(width, dimension, system),
    )


def _width(width: float, dimension: str, system: str) -> str:
    if dimension == "ratio":
        return f"{width:.5f}"
    unit = shown_unit("temperature_difference" if dimension == "temperature" else dimension, system)
    shown = unit.from_si(width)
    return f"{shown:.0f}" if shown >= 2 or unit.decimals == 0 else f"{shown:.1f}"


def _state(key: str, found: Assessment) -> str:
    codes = {reason.code: reason.level for reason in found.reasons}
    watched = {
        "co_air_free_ppm": ("co_action", "co_ask"),
        "co_co2_ratio": ("co_ratio",),
        "excess_air_pct": ("o2_band",),
    }
    for code in watched.get(key, ()):
        if code in codes:
            return "out" if codes[code] >= 3 else "near"
    return "in" if key in watched else ""


def _aside(result: FlueResult, key: str, system: str) -> str:
    if key == "co2_from_o2_pct" and result.sample.co2_dry_pct is not None:
        return f"measured {result.sample.co2_dry_pct:.1f} %"
    if key == "dew_point_k" and result.sample.flue_temp_k is not None:
        flue = sentence(result.sample.flue_temp_k, "temperature", system)
        return f"flue {flue}: {'condensing' if result.losses and result.losses.condensing else 'not condensing'}"
    return ""


def _says(unit: Unit, view: FlueView, found: Assessment, system: str) -> list[str]:
    if view.result is None:
        return []
    values = view.result.values
    lines = [f"{values['co_air_free_ppm']:.0f} ppm CO air-free with {values['excess_air_pct']:.0f} % excess air."]
    measured = view.result.sample.co2_dry_pct
    if measured is not None and not view.doubts:
        lines.append(f"O₂ and CO₂ agree for {unit.fuel.label}: no air drawn in between the cells.")
    if view.result.losses is not None:
        lines.append(_condensing_words(unit, view.result, system))
    return lines


def _condensing_words(unit: Unit, result: FlueResult, system: str) -> str:
    assert result.losses is not None
    dew = sentence(result.losses.dew_point_k, "temperature", system)
    if result.losses.condensing:
        share = 100 * result.losses.condensed_fraction_of_combustion_water
        return f"The flue is below its dew point of {dew}: about {share:.0f} % of the water condenses."
    if unit.kind.condensing:
        return f"The flue leaves above its dew point of {dew}: it does not condense here. Warm return air, or a fouled coil?"
    return f"The flue leaves above its dew point of {dew}."


def _cannot_say(found: Assessment) -> list[str]:
    lines = ["A good flue is no proof of a whole heat exchanger."]
    others = [missing_text(item) for item in found.missing if item.proof == "flue_each_stage"]
    return [*lines, f"Nothing is known yet of: {', '.join(others)}."] if others else lines
