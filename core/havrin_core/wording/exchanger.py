"""Words of the exchanger's signs and of the looks that would settle it."""

from collections.abc import Mapping

from havrin_core.exchanger.coverage import Coverage
from havrin_core.exchanger.evidence import Evidence, NextLook
from havrin_core.exchanger.signs import Sign
from havrin_core.quantities.formats import number
from havrin_core.wording.language import text
from havrin_core.wording.names import condition_name, part_name

_SIGNS: Mapping[str, str] = {
    "breach": "A breach was seen: it decides",
    "doubtful": "A line that may be a crack",
    "o2_step": "O₂ step of {value:.1f} % at blower start",
    "co_step": "CO step of {value:.0f} ppm at blower start",
    "register_co": "CO at a register {value:.0f} ppm above the room",
    "resets": "A safety trip was reset on this visit",
    "corrosive": "Corrosive surroundings",
}
_LOOKS: Mapping[str, str] = {
    "borescope": "See every part with a borescope, burner side and blower side",
    "pressure": "Put it under pressure or a tracer, as its manual says",
    "o2_step": "Watch O₂ through the blower start, panels on and filter out",
    "register": "Read CO at a register, with the analyzer",
}


def sign_words(sign: Sign) -> str:
    """Return what a sign says."""
    if sign.key == "seen":
        row = sign.facts["coverage"]
        return text(
            "No breach seen: {seen} of {of} parts by {method}", seen=row.seen, of=row.of, method=text(row.method)
        )
    if sign.key == "look":
        look = sign.facts["look"]
        sure = f", {text(look.sure)}" if look.sure else ""
        return f"{part_name(look.part)}: {condition_name(look.condition)}{sure}"
    return (
        text(_SIGNS[sign.key], **sign.facts)
        if sign.key in ("o2_step", "co_step", "register_co")
        else text(_SIGNS[sign.key])
    )


def look_words(look: NextLook) -> str:
    """Return what a further look is."""
    return text(_LOOKS[look.key])


WEIGHTS_ARE = "Weights are Havrin's judgement, for guidance. No crack seen is no proof; a seen one needs no odds."


def odds_words(probability: float) -> str:
    """Return a probability as people say odds."""
    if probability >= 0.995:
        return text("practically certain")
    if probability >= 0.5:
        return f"{number(100 * probability, '.0f')} %"
    return text("1 in {odds}", odds=number(1 / probability, ".0f")) if probability > 0 else text("none")


def evidence_words(found: Evidence) -> str:
    """Return what all signs together say."""
    if found.breached:
        return text("A breach was seen: it does not run again.")
    return text("Odds of a breach: {odds}", odds=odds_words(found.probability))


def weight_words(sign: Sign) -> str:
    """Return how much a sign weighs, like "× 8" for a breach or "÷ 4" against one."""
    if sign.ratio == float("inf"):
        return text("decides")
    return f"× {number(sign.ratio, '.3g')}" if sign.ratio >= 1 else f"÷ {number(1 / sign.ratio, '.3g')}"


def coverage_words(row: Coverage) -> str:
    """Return how much of the exchanger was seen, and how."""
    return text("{seen} of {of} parts seen by {method}", seen=row.seen, of=row.of, method=text(row.method))


def prior_words(evidence: Evidence) -> str:
    """Return what age alone says."""
    if evidence.age_years is None:
        return text("age not known: 1 in 50 of such exchangers")
    return text("{age} years old: about 1 in {odds}", age=evidence.age_years, odds=number(1 / evidence.prior, ".0f"))
