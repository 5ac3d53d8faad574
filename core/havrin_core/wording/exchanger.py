"""Words of the exchanger's signs and of the looks that would settle it."""

from collections.abc import Mapping

from havrin_core.exchanger.evidence import Evidence, NextLook
from havrin_core.exchanger.signs import Sign
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


def prior_words(evidence: Evidence) -> str:
    """Return what age alone says."""
    if evidence.age_years is None:
        return text("age not known: 1 in 50 of such exchangers")
    return text("{age} years old: about 1 in {odds}", age=evidence.age_years, odds=f"{1 / evidence.prior:.0f}")
