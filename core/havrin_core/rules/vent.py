"""Venting: spillage by the clock, stack temperature, the vent's category and the sign of its pressure."""

from collections.abc import Iterator

from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.limits import band_for
from havrin_core.limits.model import DEFAULT, PLATE
from havrin_core.limits.table import bound, most
from havrin_core.physics.venting import CONDENSES_BELOW_K, vent_category
from havrin_core.rules.beside import beside_of
from havrin_core.rules.context import Context
from havrin_core.rules.demands import CAUSE, SPILL, Opened, open_demands
from havrin_core.rules.model import NOT_YET, SHUT_DOWN, TELL, FlueView, Lift, Reason, Sample
from havrin_core.rules.occurrences import beyond, ids_of, last_known

_SUCTION, _DRY = ("I", "II"), ("I", "III")
_COLLAR = ("collar_static_pa", "vent_draft_pa")


def vent_reasons(context: Context, views: list[FlueView]) -> Iterator[Reason]:
    """Yield the reasons of a vent that spills, is under pressure, too cold or too hot."""
    yield from _spillage(context)
    for quantity in _COLLAR:
        yield from _pressure(context, quantity)
    yield from _weak_draft(context)
    for view in views:
        yield from _stack(context, view)


def category_of(context: Context) -> str | None:
    """Return the vent's category: the plate's, else what the kind is made for; None where neither tells."""
    category = context.unit.plate.vent_category
    return category or ("I" if context.unit.kind.draft_hood else None)


def category_as_read(context: Context, view: FlueView) -> str | None:
    """Return the category that the collar's pressure and this flue make; None where either was not read."""
    collar = context.facts.newest("collar_static_pa", None)
    losses = view.result.losses if view.result else None
    temp = view.result.sample.flue_temp_k if view.result else None
    if collar is None or losses is None or temp is None:
        return None
    return vent_category(collar.value, temp, losses.dew_point_k)


def _spillage(context: Context) -> Iterator[Reason]:
    """Flue gas that spills for longer than the vent needs to warm up is a danger; shorter is told."""
    limit = most("spillage.most")
    long = beyond(context, "spillage_s", lambda value: value > limit)
    if long:
        since = last_known(context, long, lambda value: value > limit)
        lifts = open_demands(context, Opened("spillage_time", "spill", since), (CAUSE, SPILL))
        if lifts:
            yield _spilt(SHUT_DOWN, "spillage_time", long[-1], lifts, ids_of(long))
            return
    rows = [fact for fact in context.facts.readings if fact.quantity == "spillage_s"]
    if rows and bound("spillage.most").verdict(rows[-1].value) == "near":
        yield _spilt(TELL, "spillage_time.near", rows[-1], (Lift("spill"),), (rows[-1].entry_id,))


def _spilt(level: int, code: str, fact: ReadingFact, lifts: tuple[Lift, ...], ids: tuple[str, ...]) -> Reason:
    facts = {"value": fact.value, "limit": most("spillage.most"), "warm": bound("spillage.most").near_high}
    return Reason(level, code, "vent", facts, lifts, DEFAULT, ids, "spillage")


def _pressure(context: Context, quantity: str) -> Iterator[Reason]:
    """A vent made for suction that stands under pressure leaks at every joint."""
    if category_of(context) not in _SUCTION:
        return
    high = beyond(context, quantity, lambda value: value > 0)
    good = [f for f in context.facts.ever(quantity) if f.phase != "trial" and f.value <= 0]
    standing = [fact for fact in high if not any(later.moment.surely_after(fact.moment) for later in good)]
    if not standing:
        return
    worst = max(standing, key=lambda fact: fact.value)
    facts = {"quantity": quantity, "value": worst.value, "category": category_of(context)}
    source = PLATE if context.unit.plate.vent_category else DEFAULT
    lifts = (Lift("reading", part=quantity),)
    yield Reason(NOT_YET, "vent_pressure", "vent", facts, lifts, source, ids_of(standing), "vent_pressure")


def _weak_draft(context: Context) -> Iterator[Reason]:
    """A vent that draws less than the weather asks of it spills with the next wind or fan; one under pressure has its own."""
    fact = context.facts.newest("vent_draft_pa", None)
    band = band_for(context.unit, context.rules, "vent_draft_pa", None, beside_of(context.facts))
    if fact is None or fact.value > 0 or band is None or not band.acquits:
        return
    verdict = band.verdict(fact.value)
    if verdict == "in":
        return
    level, code = (NOT_YET, "vent_draft_weak") if verdict == "out" else (TELL, "vent_draft_weak.near")
    limit = band.high if verdict == "out" else band.near_high
    facts = {"quantity": "vent_draft_pa", "value": fact.value, "limit": limit}
    lifts = (Lift("reading", part="vent_draft_pa"),)
    yield Reason(level, code, "vent", facts, lifts, band.source, (fact.entry_id,), "vent_draft_weak")


def _stack(context: Context, view: FlueView) -> Iterator[Reason]:
    losses = view.result.losses if view.result else None
    temp = view.result.sample.flue_temp_k if view.result else None
    if losses is None or temp is None or view.result is None or not _made_dry(context):
        return
    if context.unit.manual_limit("flue_temp_k", view.stage) is not None:
        return  # the manual's own band judges the reading itself
    over_air = view.result.values["net_stack_k"]
    facts = {"stage": view.stage, "value": temp, "dew_point": losses.dew_point_k, "over_air": over_air}
    lifts, ids = (Lift("flue", stage=view.stage),), (view.entry_id,)
    verdict = bound("net_stack.most").verdict(over_air)
    if temp < losses.dew_point_k + CONDENSES_BELOW_K:
        yield Reason(
            TELL, "stack_cold", "flue", {**facts, "limit": CONDENSES_BELOW_K}, lifts, DEFAULT, ids, "stack_cold"
        )
    elif verdict != "in":
        level = NOT_YET if verdict == "out" else TELL
        limit = most("net_stack.most") if verdict == "out" else bound("net_stack.most").near_high
        yield Reason(level, "stack_hot", "flue", {**facts, "limit": limit}, lifts, DEFAULT, ids, "stack_hot")


def _made_dry(context: Context) -> bool:
    category = context.unit.plate.vent_category
    return not context.unit.kind.condensing if category is None else category in _DRY


SAMPLES = (
    Sample(
        "spillage_time",
        opens=("spill 400",),
        not_opens=("spill 45", "spill 0"),
        lifted=("spill 400 | cause blocked vent | did clear vent | spill 40",),
        not_lifted=(
            "spill 400 | spill 40",
            "spill 400 | cause blocked vent | did clear vent",
            "spill 400 | cause ? | spill 40",
            "cause blocked vent | did clear vent | spill 40 | spill 400",
        ),
        needs=("draft_hood",),
    ),
    Sample(
        "vent_pressure",
        opens=("collar .05", "vent draft .02"),
        not_opens=("collar -.05", "vent draft -.02"),
        lifted=("collar .05 | did clear vent | collar -.03",),
        not_lifted=("collar -.03 | collar .05", "collar .05 | did clear vent"),
        needs=("draft_hood",),
    ),
    Sample(
        "vent_draft_weak",
        opens=("outdoor 40f | vent draft -.002",),
        not_opens=("vent draft -.002", "outdoor 40f | vent draft -.03", "outdoor 40f | overfire -.002"),
        lifted=("outdoor 40f | vent draft -.002 | did clear vent | vent draft -.03",),
        not_lifted=("outdoor 40f | vent draft -.002 | did clear vent",),
        needs=("draft_hood",),
    ),
)
