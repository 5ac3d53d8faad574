"""What a stage's flue says and what it cannot say."""

from havrin_core.machine.unit import Unit
from havrin_core.physics.combustion.sample import FlueResult
from havrin_core.quantities.display import sentence
from havrin_core.quantities.formats import number
from havrin_core.rules.model import FlueView
from havrin_core.standing.model import Assessment
from havrin_core.wording.language import text
from havrin_core.wording.missing import missing_text


def flue_says(unit: Unit, view: FlueView, system: str) -> list[str]:
    """Return what the computed flue of a stage says, in sentences; nothing where it could not be computed."""
    result = view.result
    if result is None:
        return []
    co, excess = number(result.values["co_air_free_ppm"], ".0f"), number(result.values["excess_air_pct"], ".0f")
    lines = [text("{co} ppm CO air-free with {excess} % excess air.", co=co, excess=excess)]
    if result.sample.co2_dry_pct is not None and not view.doubts:
        lines.append(text("O₂ and CO₂ agree for {fuel}: no air drawn in between the cells.", fuel=unit.fuel.label))
    if result.losses is not None:
        lines.append(_condensing(unit, result, system))
    return lines


def _condensing(unit: Unit, result: FlueResult, system: str) -> str:
    assert result.losses is not None
    dew = sentence(result.losses.dew_point_k, "temperature", system)
    if result.losses.condensing:
        share = number(100 * result.losses.condensed_fraction_of_combustion_water, ".0f")
        source = "The flue is below its dew point of {dew}: about {share} % of the water condenses."
        return text(source, dew=dew, share=share)
    if unit.kind.condensing:
        source = "The flue leaves above its dew point of {dew}: it does not condense here. Warm return air, or a fouled coil?"
        return text(source, dew=dew)
    return text("The flue leaves above its dew point of {dew}.", dew=dew)


def flue_aside(result: FlueResult, key: str, system: str) -> str:
    """Return what stands beside a figure of the flue: the CO2 that was measured, the flue against its dew point."""
    sample = result.sample
    if key == "co2_from_o2_pct" and sample.co2_dry_pct is not None:
        return text("measured {co2} %", co2=number(sample.co2_dry_pct, ".1f"))
    if key == "dew_point_k" and sample.flue_temp_k is not None:
        condenses = result.losses is not None and result.losses.condensing
        source = "flue {temperature}: condensing" if condenses else "flue {temperature}: not condensing"
        return text(source, temperature=sentence(sample.flue_temp_k, "temperature", system))
    return ""


def flue_cannot_say(found: Assessment) -> list[str]:
    """Return what no flue reading can say, and which stages were not read yet."""
    lines = [text("A good flue is no proof of a whole heat exchanger.")]
    others = [missing_text(item) for item in found.missing if item.proof == "flue_each_stage"]
    return [*lines, text("Nothing is known yet of: {what}.", what=", ".join(others))] if others else lines
