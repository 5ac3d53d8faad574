"""Electrical parts by their own stamps: a capacitor out of its tolerance."""

from collections.abc import Iterator

from havrin_core.limits.model import DEFAULT, PLATE
from havrin_core.physics.electrical import CAPACITOR_TOLERANCE
from havrin_core.rules.context import Context
from havrin_core.rules.model import NOT_YET, TELL, Lift, Reason, Sample


def electrical_reasons(context: Context) -> Iterator[Reason]:
    """Yield the reason of a run capacitor that is out of its tolerance: worn while the motor still starts."""
    fact = context.facts.newest("capacitor_f", None)
    parts = dict(fact.computed_from) if fact else {}
    if fact is None or not parts.get("rated_f"):
        return
    share = fact.value / parts["rated_f"] - 1
    tolerance = parts.get("tolerance_share", CAPACITOR_TOLERANCE)
    if abs(share) <= tolerance:
        return
    level = NOT_YET if context.rules.worn_part == "replace" else TELL
    facts = {"value": fact.value, "rated": parts["rated_f"], "share": share, "tolerance": tolerance}
    source = PLATE if "tolerance_share" in parts else DEFAULT
    station = context.station_for("blower")
    lifts = (Lift("reading", part="capacitor_f"),)
    yield Reason(level, "capacitor_out", station, facts, lifts, source, (fact.entry_id,), "capacitor")


SAMPLES = (
    Sample(
        "capacitor_out",
        opens=("cap 37 of 40", "cap 38 of 40 3%", "cap 44 of 40"),
        not_opens=("cap 38 of 40", "cap 37 of 40 10%"),
        lifted=("cap 37 of 40 | did change capacitor | cap 40.2 of 40",),
        not_lifted=("cap 37 of 40 | did change capacitor",),
        needs=("air",),
    ),
)
