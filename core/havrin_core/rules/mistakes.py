"""Numbers that speak of a slip in the reading rather than of the unit: each is named, and a new reading lifts it."""

from collections.abc import Callable, Iterable
from datetime import datetime, timedelta
from itertools import pairwise

from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.computed import input_at_altitude_w
from havrin_core.limits.limits import band_for
from havrin_core.physics.fuels import shipped_fuel
from havrin_core.rules.context import Context
from havrin_core.rules.demands import is_too_short, least_test_s
from havrin_core.rules.model import NOT_YET, Lift, Reason
from havrin_core.tape.entries import Abnormal

_TOGETHER = timedelta(minutes=6)
_COVERS = ("door_switch", "panel", "burner_box", "cabinet")
_MOVED_BY_A_COVER = (
    "o2_dry_pct",
    "co_ppm_dry",
    "draft_pa",
    "temperature_rise_k",
    "external_static_pa",
    "supply_air_temp_k",
)
_REFERENCE_LEAST, _REFERENCE_MOST = 0.3, 1.15  # of the suction in the burner box
_RISING_SHARE = 0.02
_SEES_THE_BURNER = 1.25  # times the most rise on the plate
_SAME_NUMBER, _FAR_UNDER_RATING = 0.03, 0.5
_MOST_OF_A_ROD_A = 25e-6
_RATIO_WIDTH = 0.015
_SAME_STACK_K, _OXYGEN_APART_PCT = 3.0, 0.8
_SWITCH_OPEN_V = 15.0


def mistake_reasons(context: Context) -> list[Reason]:
    """Return the likely slips of the newest readings, each with what makes it likely and how to read it right."""
    return [reason for rule in _RULES for reason in rule(context)]


def _slip(code: str, station: str, fact: ReadingFact, **facts: float) -> Reason:
    parts = {"quantity": fact.quantity, "value": fact.value, **facts}
    lift = Lift("reading", part=fact.quantity, stage=fact.stage)
    return Reason(NOT_YET, f"mistake_{code}", station, parts, (lift,), "readings", (fact.entry_id,), f"mistake_{code}")


def _newest(context: Context, quantity: str) -> Iterable[ReadingFact]:
    for stage in (None, *context.unit.stage_keys):
        fact = context.facts.newest(quantity, stage)
        if fact is not None:
            yield fact


def _cover_off(context: Context) -> Iterable[Reason]:
    spans = _covers_off(context)
    for fact in (fact for quantity in _MOVED_BY_A_COVER for fact in _newest(context, quantity)):
        if any(since <= fact.at <= until for since, until in spans):
            yield _slip("cover_off", "flue", fact)
            return


def _covers_off(context: Context) -> list[tuple[datetime, datetime]]:
    """Return when a door's or cover's switch was held; an open end reaches beyond the tape."""
    since: dict[str, datetime] = {}
    spans = []
    for line, body in context.facts.of(Abnormal):
        if body.is_in and body.device in _COVERS:
            since.setdefault(body.device, line.moment.at)
        elif not body.is_in and body.device in since:
            spans.append((since.pop(body.device), line.moment.at))
    return [*spans, *((begun, context.facts.lines[-1].moment.at) for begun in since.values())]


def _un_teed(context: Context) -> Iterable[Reason]:
    circuit = context.unit.circuit
    proving = (
        [p for p in circuit.parts if p.kind == "switch" and p.family.endswith("pressure_switch")] if circuit else []
    )
    across = [f for f in context.facts.readings if f.quantity == "volts_across_v" and f.leads is not None]
    for draft in _newest(context, "draft_pa"):
        makes = context.unit.stage(draft.stage).switch_makes_pa if draft.stage else None
        open_ = [
            f
            for f in across
            for part in proving
            if set(f.leads or ()) == set(part.nodes[:2])
            and f.value > _SWITCH_OPEN_V
            and abs(f.at - draft.at) <= _TOGETHER
            and context.facts.same_epoch(f.at, draft.at)
        ]
        if makes is not None and abs(draft.value) >= makes and open_:
            yield _slip("un_teed", "draft", draft)


def _reference_hose(context: Context) -> Iterable[Reason]:
    if not context.unit.kind.condensing:
        return
    for fact in _newest(context, "manifold_pa"):
        target = context.unit.stage(fact.stage).manifold_pa if fact.stage else None
        draft = context.facts.newest("draft_pa", fact.stage)
        if target is None or draft is None or not context.facts.same_epoch(fact.at, draft.at):
            continue
        short = target - fact.value
        if short > 0.05 * target and _REFERENCE_LEAST * abs(draft.value) <= short <= _REFERENCE_MOST * abs(draft.value):
            yield _slip("reference_hose", "manifold", fact)


def _still_closing(context: Context) -> Iterable[Reason]:
    rows = [f for f in context.facts.readings if f.quantity == "supply_standing_pa" and f.phase != "trial"]
    for before, after in list(pairwise(rows))[-1:]:
        worked = not context.facts.same_epoch(before.at, after.at)
        if not worked and after.at - before.at <= 2 * _TOGETHER and after.value > (1 + _RISING_SHARE) * before.value:
            yield _slip("still_closing", "supply_standing", after)


def _burner_in_sight(context: Context) -> Iterable[Reason]:
    for fact in _newest(context, "temperature_rise_k"):
        most = context.unit.plate.rise_max_k
        if most is None or fact.value <= _SEES_THE_BURNER * most:
            continue
        metered = context.facts.newest("input_w", fact.stage)
        band = band_for(context.unit, context.rules, "input_w", fact.stage)
        static = next(iter(_newest(context, "external_static_pa")), None)
        easy = (
            static is None
            or context.unit.plate.static_max_pa is None
            or static.value <= context.unit.plate.static_max_pa
        )
        if metered is not None and band is not None and band.verdict(metered.value) == "in" and easy:
            yield _slip("burner_in_sight", "rise", fact)


def _wrong_range(context: Context) -> Iterable[Reason]:
    amps = next(iter(_newest(context, "blower_current_a")), None)
    for fact in _newest(context, "capacitor_f"):
        rated = dict(fact.computed_from).get("rated_f", 0.0)
        same = amps is not None and abs(1e6 * fact.value - amps.value) <= _SAME_NUMBER * amps.value
        if same and fact.value < _FAR_UNDER_RATING * rated:
            yield _slip("capacitor_amps", "blower", fact)
    for fact in _newest(context, "flame_current_a"):
        if fact.value > _MOST_OF_A_ROD_A:
            yield _slip("flame_range", "burner", fact)


def _gross_or_net(context: Context) -> Iterable[Reason]:
    fuel = shipped_fuel(context.unit.plate.fuel)
    ratio = fuel.gross_j_mol / fuel.net_j_mol
    for fact in _newest(context, "input_w"):
        rated = input_at_altitude_w(context.unit, context.rules, fact.stage) if fact.stage else None
        manifold = context.facts.newest("manifold_pa", fact.stage)
        band = band_for(context.unit, context.rules, "manifold_pa", fact.stage)
        if rated is None or manifold is None or band is None or band.verdict(manifold.value) != "in":
            continue
        if any(abs(fact.value / rated - off) <= _RATIO_WIDTH * off for off in (ratio, 1 / ratio)):
            yield _slip("gross_net", "input", fact)


def _air_in_the_sample(context: Context) -> Iterable[Reason]:
    for stage in context.unit.stage_keys:
        rows = [
            f for f in context.facts.readings if f.quantity == "o2_dry_pct" and f.stage == stage and f.phase != "trial"
        ]
        for before, after in list(pairwise(rows))[-1:]:
            temps = [context.facts.beside(fact, "flue_temp_k") for fact in (before, after)]
            worked = not context.facts.same_epoch(before.at, after.at)
            if worked or before.phase != after.phase or temps[0] is None or temps[1] is None:
                continue
            apart = after.value - before.value
            if abs(apart) > _OXYGEN_APART_PCT and abs(temps[1].value - temps[0].value) <= _SAME_STACK_K:
                yield _slip("air_in_sample", "flue", after)


def _too_short(context: Context) -> Iterable[Reason]:
    for fact in _newest(context, "gas_leak_m3_s"):
        if is_too_short(fact, context.rules):
            yield _slip("test_too_short", "supply_standing", fact, least_s=least_test_s(fact, context.rules))


_RULES: tuple[Callable[[Context], Iterable[Reason]], ...] = (
    _cover_off,
    _un_teed,
    _reference_hose,
    _still_closing,
    _burner_in_sight,
    _wrong_range,
    _gross_or_net,
    _air_in_the_sample,
    _too_short,
)
