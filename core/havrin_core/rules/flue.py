"""The flue: the sample of each stage, CO by the house's criterion, oxygen, what cannot be computed."""

from collections.abc import Iterator, Mapping

from havrin_core.errors import OutOfDomain
from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.model import DEFAULT, HOUSE
from havrin_core.limits.table import bound, most
from havrin_core.phrases import Saying, phrase
from havrin_core.physics.combustion.carbon_monoxide import co_air_free_ppm
from havrin_core.physics.combustion.doubts import doubts
from havrin_core.physics.combustion.losses import Surroundings
from havrin_core.physics.combustion.sample import ASSUMED_AIR_RH_PCT, DEFAULT_ACCURACY, FlueSample, analyse
from havrin_core.rules.context import Context
from havrin_core.rules.model import NOT_YET, TELL, FlueView, Lift, Reason, Sample

_ASSUMED_AIR_K = 293.15
NO_CARBON = phrase("co_not_read_with_o2")


def flue_views(context: Context) -> list[FlueView]:
    """Return the current flue sample of each stage that has an O2 reading."""
    views = []
    for stage in context.unit.stage_keys:
        oxygen = context.facts.newest("o2_dry_pct", stage)
        if oxygen is not None:
            views.append(_view(context, stage, oxygen))
    return views


def _view(context: Context, stage: str, oxygen: ReadingFact) -> FlueView:
    carbon = context.facts.beside(oxygen, "co_ppm_dry")
    if carbon is None:
        return FlueView(stage, oxygen.phase, None, (NO_CARBON,), oxygen.entry_id)
    accuracy = {**DEFAULT_ACCURACY, **context.accuracies.get(oxygen.instrument, {})}
    try:
        result = analyse(context.unit.fuel, _sample(context, oxygen, carbon.value), accuracy)
    except OutOfDomain as refusal:
        return FlueView(stage, oxygen.phase, None, (refusal.said,), oxygen.entry_id)
    notes = tuple(doubt.text for doubt in doubts(result, accuracy))
    return FlueView(stage, oxygen.phase, result, notes, oxygen.entry_id)


def _sample(context: Context, oxygen: ReadingFact, co_ppm: float) -> FlueSample:
    facts = context.facts
    temp = facts.beside(oxygen, "flue_temp_k")
    co2 = facts.beside(oxygen, "co2_dry_pct")
    air = facts.beside(oxygen, "air_temp_k", staged=False) or facts.newest("air_temp_k", None)
    around = Surroundings(air.value if air else _ASSUMED_AIR_K, ASSUMED_AIR_RH_PCT, context.unit.baro_pa)
    return FlueSample(oxygen.value, co_ppm, temp.value if temp else None, co2.value if co2 else None, around)


def flue_reasons(context: Context, views: list[FlueView]) -> Iterator[Reason]:
    """Yield the reasons that the flue of each stage gives."""
    for stage in context.unit.stage_keys:
        yield from _carbon_monoxide(context, stage)
        yield from _too_little_air(context, stage)
    for view in views:
        yield from (_doubt(view, text) for text in view.doubts)
        yield from _oxygen(context, view)


def _doubt(view: FlueView, text: Saying) -> Reason:
    facts = {"stage": view.stage, "text": text}
    code = "flue_no_carbon" if text == NO_CARBON else "flue_doubtful"
    return Reason(NOT_YET, code, "flue", facts, (Lift("flue", stage=view.stage),), DEFAULT, (view.entry_id,))


def _carbon_monoxide(context: Context, stage: str) -> Iterator[Reason]:
    """Every CO that was read counts until a later sample of the stage, no trial, is within: alone it is judged as measured."""
    rows = [fact for fact in context.facts.ever("co_ppm_dry") if fact.stage in (stage, None)]
    judged = [(fact, _judge(context, fact)) for fact in rows]
    sound = [fact for fact, found in judged if found is None and fact.phase != "trial" and _has_oxygen(context, fact)]
    standing = [
        (fact, found)
        for fact, found in judged
        if found is not None and not any(good.moment.surely_after(fact.moment) for good in sound)
    ]
    # asking why is for the newest sample alone; what must be acted on stays until a sound one follows
    standing = [row for row in standing if row[1].level > TELL or row[0] is rows[-1]]
    if standing:
        _, found = max(standing, key=lambda row: (row[1].level, row[0].value))
        yield Reason(
            found.level,
            found.code,
            "flue",
            {**found.facts, "stage": stage},
            (Lift("flue", stage=stage),),
            found.source,
            tuple(f.entry_id for f, _ in standing),
            "flue_co",
        )


def _has_oxygen(context: Context, fact: ReadingFact) -> bool:
    return context.facts.beside(fact, "o2_dry_pct") is not None


def _judge(context: Context, fact: ReadingFact) -> Reason | None:
    """Return what one CO reading says by the house's criterion; air-free over the action limit holds in every school."""
    rules = context.rules
    air_free = _air_free(context, fact)
    facts = {"value": fact.value, "air_free": air_free, "at_least": fact.at_least}
    worst = air_free if air_free is not None else fact.value
    if fact.at_least or worst > rules.co_air_free_action_ppm:
        code = "co_action" if air_free is not None and not fact.at_least else "co_alone"
        return Reason(NOT_YET, code, facts={**facts, "limit": rules.co_air_free_action_ppm}, source=HOUSE)
    if rules.co_criterion == "as_measured" and fact.value > rules.co_as_measured_ppm:
        return Reason(NOT_YET, "co_as_measured", facts={**facts, "limit": rules.co_as_measured_ppm}, source=HOUSE)
    if rules.co_criterion == "ratio":
        return _ratio(context, fact, facts)
    if worst > rules.co_air_free_ask_ppm and rules.co_criterion == "air_free":
        return Reason(TELL, "co_ask", facts={**facts, "limit": rules.co_air_free_ask_ppm}, source=HOUSE)
    return None


def _air_free(context: Context, fact: ReadingFact) -> float | None:
    oxygen = context.facts.beside(fact, "o2_dry_pct")
    if oxygen is None:
        return None
    try:
        return co_air_free_ppm(oxygen.value, fact.value)
    except OutOfDomain:
        return None


def _ratio(context: Context, fact: ReadingFact, facts: Mapping[str, object]) -> Reason | None:
    oxygen = context.facts.beside(fact, "o2_dry_pct")
    if oxygen is None:
        return None
    try:
        result = analyse(context.unit.fuel, _sample(context, oxygen, fact.value), DEFAULT_ACCURACY)
    except OutOfDomain:
        return None
    ratio, limit = (
        result.values["co_co2_ratio"],
        most("co_co2.condensing" if context.unit.kind.condensing else "co_co2.other"),
    )
    if ratio <= limit:
        return None
    return Reason(NOT_YET, "co_ratio", facts={**facts, "ratio": ratio, "limit": limit}, source=DEFAULT)


def _too_little_air(context: Context, stage: str) -> Iterator[Reason]:
    """Hardly any oxygen was left, in whatever phase and with or without CO beside it: until a later sample, no trial, has more."""
    band = bound("o2.least")
    rows = [fact for fact in context.facts.ever("o2_dry_pct") if fact.stage in (stage, None)]
    sound = [fact for fact in rows if fact.phase != "trial" and band.verdict(fact.value) != "out"]
    bad = [fact for fact in rows if band.verdict(fact.value) == "out"]
    open_ = [fact for fact in bad if not any(good.moment.surely_after(fact.moment) for good in sound)]
    if open_:
        facts = {"stage": stage, "value": open_[-1].value, "limit": band.low}
        ids = tuple(fact.entry_id for fact in open_)
        yield Reason(NOT_YET, "o2_least", "flue", facts, (Lift("flue", stage=stage),), DEFAULT, ids, "o2")


def _oxygen(context: Context, view: FlueView) -> Iterator[Reason]:
    if view.result is None:
        return
    oxygen = view.result.sample.o2_dry_pct
    facts = {"stage": view.stage, "value": oxygen}
    lifts = (Lift("flue", stage=view.stage),)
    if bound("o2.least").verdict(oxygen) == "out":
        return  # told by _too_little_air
    if context.unit.manual_limit("o2_dry_pct", view.stage) is not None:
        return  # the manual's own band judges the reading itself
    low, high = context.unit.kind.o2_doubt_pct
    if not low <= oxygen <= high:
        yield Reason(
            TELL, "o2_band", "flue", {**facts, "low": low, "high": high}, lifts, DEFAULT, (view.entry_id,), "o2"
        )


SAMPLES = (
    Sample(
        "co_action",
        opens=("o2 7.4 co 300 t 342", "o2 18.5 co 60 t 200", "o2 7 co .4 % t 342"),
        not_opens=("o2 7.4 co 22 t 342",),
        lifted=("o2 7.4 co 300 t 342 | did clean burner | o2 7.4 co 22 t 342",),
        not_lifted=("o2 7.4 co 22 t 342 | o2 7.4 co 300 t 342", "o2 7.4 co 300 t 342 | did clean burner"),
        needs=("flue",),
    ),
    Sample(
        "o2_least",
        opens=("o2 .5 co 20 t 340", "o2 1.2"),
        not_opens=("o2 7.4 co 22 t 342", "o2 2.5 co 20 t 340"),
        lifted=("o2 .5 co 20 t 340 | o2 7.4 co 22 t 342",),
        not_lifted=("o2 7.4 co 22 t 342 | o2 .5 co 20 t 340",),
        needs=("flue",),
    ),
    Sample(
        "co_alone",
        opens=("co 600",),
        not_opens=("co 30",),
        lifted=("co 600 | o2 7.4 co 22 t 342",),
        not_lifted=("co 600 | co 20",),
        needs=("flue",),
    ),
)
