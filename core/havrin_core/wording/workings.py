"""The rungs of the pressure ladder in words."""

from collections.abc import Mapping

from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.phrases import Phrase, phrase
from havrin_core.quantities.display import show
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.language import text
from havrin_core.wording.names import source
from havrin_core.wording.phrases import words
from havrin_core.workings.ladder import Rung

_NAMES: Mapping[str, str] = {
    "supply_standing_pa": "No flow",
    "supply_running_pa": "All running",
    "manifold_pa": "Manifold {stage}",
}
_MIND: Mapping[str, Phrase] = {
    "gas": phrase("mind_gas"),
    "draft": phrase("mind_draft"),
    "air": phrase("mind_air"),
    "water": phrase("mind_water"),
}


def rung_name(rung: Rung) -> str:
    """Return what a rung is called, with its stage where the unit has more than one."""
    return text(_NAMES[rung.quantity], stage=STAGE_LABELS[rung.stage or "only"]).strip()


def rung_limit(rung: Rung, system: str) -> str:
    """Return the limit of a rung and whose it is; "" where none is known."""
    if rung.band is None:
        return ""
    low, high = (show(b, "pressure", system).text if b is not None else "" for b in (rung.band.low, rung.band.high))
    whose = source(rung.band.source)
    if low and high:
        return text("{low} to {high}, {whose}", low=low, high=high, whose=whose)
    if low:
        return text("at least {low}, {whose}", low=low, whose=whose)
    return text("at most {high}, {whose}", high=high, whose=whose) if high else ""


def rung_starter(rung: Rung) -> str:
    """Return the words that begin the line of a rung's reading."""
    word = measurand(rung.quantity).words[0]
    return f"{rung.stage} {word} " if rung.stage in ("low", "high") else f"{word} "


def what_to_mind() -> dict[str, str]:
    """Return what to mind while reading, by view: gas, draft, air, water."""
    return {view: words(said) for view, said in _MIND.items()}
