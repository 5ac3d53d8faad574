"""Numbers that speak of a slip in the reading rather than of the unit: each is named, and a new reading lifts it."""

from collections.abc import Callable, Iterable
from datetime import datetime, timedelta
from itertools import pairwise
from math import ceil

from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.limits import band_for, input_at_altitude_w
from havrin_core.physics.fuels import shipped_fuel
from havrin_core.rules.model import NOT_YET, Reason
from havrin_core.rules.proofs import Case
from havrin_core.tape.entries import JumperIn, JumperOut

_TOGETHER = timedelta(minutes=6)
_COVERS = ("door", "cover", "panel")
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


def mistake_reasons(case: Case) -> list[Reason]:
    """Return the likely slips of the newest readings, each with what makes it likely and how to read it right."""
    return [reason for rule in _RULES for reason in rule(case)]


def _reason(code: str, text: str, lifts: str, station: str, fact: ReadingFact) -> Reason:
    return Reason(NOT_YET, f"mistake_{code}", text, lifts, station, "", "", "readings laid side by side", fact.entry_id)


def _newest(case: Case, quantity: str) -> Iterable[ReadingFact]:
    for stage in (None, *case.unit.stage_keys):
        fact = case.facts.newest(quantity, stage)
        if fact is not None:
            yield fact


def _cover_off(case: Case) -> Iterable[Reason]:
    spans = _covers_off(case)
    for fact in (fact for quantity in _MOVED_BY_A_COVER for fact in _newest(case, quantity)):
        if any(since <= fact.at <= until for since, until in spans):
            text = "Read with the door or cover off: draft, flue gas and rise are others with it on."
            yield _reason("cover_off", text, "Door on, wait two minutes, read it again.", "flue", fact)
            return


def _covers_off(case: Case) -> list[tuple[datetime, datetime]]:
    """Return when a door's or cover's switch was held; an open end reaches beyond the tape."""
    since: dict[str, datetime] = {}
    spans = []
    for entry in case.facts.entries:
        body = entry.body
        if isinstance(body, JumperIn) and any(word in body.device for word in _COVERS):
            since.setdefault(body.device, entry.at)
        elif isinstance(body, JumperOut) and body.device in since:
            spans.append((since.pop(body.device), entry.at))
    return [*spans, *((begun, case.facts.entries[-1].at) for begun in since.values())]


def _un_teed(case: Case) -> Iterable[Reason]:
    circuit = case.unit.circuit
    proving = (
        [p for p in circuit.parts if p.kind == "switch" and p.family.endswith("pressure_switch")] if circuit else []
    )
    across = [f for f in case.facts.readings if f.quantity == "volts_across_v" and f.leads is not None]
    for draft in _newest(case, "draft_pa"):
        makes = case.unit.stage(draft.stage).switch_makes_pa if draft.stage else None
        open_ = [
            f for f in across for part in proving
            if set(f.leads or ()) == set(part.nodes[:2]) and f.value > _SWITCH_OPEN_V and abs(f.at - draft.at) <= _TOGETHER
        ]  # fmt: skip
        if makes is not None and abs(draft.value) >= makes and open_:
            text = "The gauge proves draft, yet the switch is open: with the gauge in place of the hose, the switch feels nothing."
            yield _reason(
                "un_teed",
                text,
                "Tee the gauge in, read across the switch again: still open, it is the switch.",
                "draft",
                draft,
            )


def _reference_hose(case: Case) -> Iterable[Reason]:
    if not case.unit.kind.condensing:
        return
    for fact in _newest(case, "manifold_pa"):
        target = case.unit.stage(fact.stage).manifold_pa if fact.stage else None
        draft = case.facts.newest("draft_pa", fact.stage)
        if target is None or draft is None:
            continue
        short = target - fact.value
        if short > 0.05 * target and _REFERENCE_LEAST * abs(draft.value) <= short <= _REFERENCE_MOST * abs(draft.value):
            text = "The manifold is low by about the suction in the burner box: was its reference hose off, or the gauge not tied to the box?"
            yield _reason(
                "reference_hose",
                text,
                "Reference hose on, gauge between manifold and box; read it before any screw is turned.",
                "manifold",
                fact,
            )


def _still_closing(case: Case) -> Iterable[Reason]:
    rows = [f for f in case.facts.readings if f.quantity == "supply_standing_pa" and f.phase != "trial"]
    for before, after in list(pairwise(rows))[-1:]:
        worked = any(before.at <= entry.at <= after.at for entry, _ in case.facts.deeds())
        if not worked and after.at - before.at <= 2 * _TOGETHER and after.value > (1 + _RISING_SHARE) * before.value:
            text = "The standing pressure still rises: the regulator was still closing, or it creeps."
            yield _reason(
                "still_closing",
                text,
                "Wait until it stands still for a minute, then read it; if it never does, it creeps.",
                "supply_standing",
                after,
            )


def _burner_in_sight(case: Case) -> Iterable[Reason]:
    for fact in _newest(case, "temperature_rise_k"):
        most = case.unit.plate.rise_max_k
        if most is None or fact.value <= _SEES_THE_BURNER * most:
            continue
        metered = case.facts.newest("input_w", fact.stage)
        band = band_for(case.unit, case.rules, "input_w", fact.stage)
        static = next(iter(_newest(case, "external_static_pa")), None)
        easy = static is None or case.unit.plate.static_max_pa is None or static.value <= case.unit.plate.static_max_pa
        if metered is not None and band is not None and band.verdict(metered.value) == "in" and easy:
            text = "Rise far above the plate with input and static in order: does the supply probe see the exchanger?"
            yield _reason(
                "burner_in_sight",
                text,
                "Probe round a bend, out of the exchanger’s sight; read it again.",
                "rise",
                fact,
            )


def _wrong_range(case: Case) -> Iterable[Reason]:
    amps = next(iter(_newest(case, "blower_current_a")), None)
    for fact in _newest(case, "capacitor_f"):
        rated = dict(fact.computed_from).get("rated_f", 0.0)
        same = amps is not None and abs(1e6 * fact.value - amps.value) <= _SAME_NUMBER * amps.value
        if same and fact.value < _FAR_UNDER_RATING * rated:
            text = "The capacitor ‘reads’ the same number as the motor’s amps: was the meter still in its amps range?"
            yield _reason(
                "capacitor_amps",
                text,
                "Power off, capacitor discharged, one lead off, meter on µF; read it again.",
                "blower",
                fact,
            )
    for fact in _newest(case, "flame_current_a"):
        if fact.value > _MOST_OF_A_ROD_A:
            text = "No flame rod gives that much: was the meter in another range, or across instead of in series?"
            yield _reason(
                "flame_range", text, "Direct microamps, in series with the rod; read it again.", "burner", fact
            )


def _gross_or_net(case: Case) -> Iterable[Reason]:
    fuel = shipped_fuel(case.unit.plate.fuel)
    ratio = fuel.gross_j_mol / fuel.net_j_mol
    for fact in _newest(case, "input_w"):
        rated = input_at_altitude_w(case.unit, case.rules, fact.stage) if fact.stage else None
        manifold = case.facts.newest("manifold_pa", fact.stage)
        band = band_for(case.unit, case.rules, "manifold_pa", fact.stage)
        if rated is None or manifold is None or band is None or band.verdict(manifold.value) != "in":
            continue
        if any(abs(fact.value / rated - off) <= _RATIO_WIDTH * off for off in (ratio, 1 / ratio)):
            text = f"The input is off by just the ratio of gross to net heating value ({ratio:.3f}) while the manifold is right."
            yield _reason(
                "gross_net",
                text,
                "The plate counts gross: take the gross heating value, or clock the meter again.",
                "input",
                fact,
            )


def _air_in_the_sample(case: Case) -> Iterable[Reason]:
    for stage in case.unit.stage_keys:
        rows = [
            f for f in case.facts.readings if f.quantity == "o2_dry_pct" and f.stage == stage and f.phase != "trial"
        ]
        for before, after in list(pairwise(rows))[-1:]:
            temps = [case.facts.beside(fact, "flue_temp_k") for fact in (before, after)]
            worked = any(before.at <= entry.at <= after.at for entry, _ in case.facts.deeds())
            if worked or before.phase != after.phase or temps[0] is None or temps[1] is None:
                continue
            apart = after.value - before.value
            if abs(apart) > _OXYGEN_APART_PCT and abs(temps[1].value - temps[0].value) <= _SAME_STACK_K:
                text = "O₂ moved while the stack stayed as it was and nothing was done: air drawn in at the probe, or a cell that drifts."
                yield _reason(
                    "air_in_sample",
                    text,
                    "Probe and hose tight, water trap empty, zero in clean air; sample again.",
                    "flue",
                    after,
                )


def _too_short(case: Case) -> Iterable[Reason]:
    for fact in _newest(case, "gas_leak_m3_s"):
        parts = dict(fact.computed_from)
        if parts.get("time_s", 0.0) < parts.get("least_s", 0.0):
            text = "The closed line was watched for too short: a leak of the criterion’s size does not show on a gauge in that time."
            lifts = f"Watch it for at least {ceil(parts['least_s'] / 60)} min, or close a smaller volume; then write the whole test again."
            yield _reason("test_too_short", text, lifts, "supply_standing", fact)


_RULES: tuple[Callable[[Case], Iterable[Reason]], ...] = (
    _cover_off, _un_teed, _reference_hose, _still_closing, _burner_in_sight, _wrong_range, _gross_or_net, _air_in_the_sample, _too_short,
)  # fmt: skip
