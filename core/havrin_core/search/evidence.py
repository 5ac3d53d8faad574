"""From a tape to what the search knows: which entries are tests of the circuit, what they showed, and when."""

from collections.abc import Iterable
from dataclasses import replace

from havrin_core.facts.facts import Facts, ReadingFact
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.computed import input_at_altitude_w
from havrin_core.machine.circuit.meant import parts_meant
from havrin_core.machine.circuit.model import LEAST
from havrin_core.machine.unit import Unit
from havrin_core.physics.combustion.carbon_monoxide import co_air_free_ppm
from havrin_core.search.epochs import Epochs, epochs_of, moment_key
from havrin_core.search.likelihood import spread
from havrin_core.search.model import Conflict, Observation, Outcome, Seen, Test
from havrin_core.search.pictures import BAD, DIFFERS, GOOD, SAME, STEADY, Pictures
from havrin_core.search.words import in_words
from havrin_core.tape.entries import Code, Condition, Entry, Proof

_SIGNED = ("o2_step_pct",)  # of a draft only the size counts, of a step also which way it goes
_SAME_SIGMAS = 6.0
_FRESH_O2_PCT = 19.0  # above this the probe is in air: nothing can be counted back
TRIPPED = "tripped"
_CONTROL_VOLTAGE = ("R", "C")


def seen_on(
    unit: Unit, rules: HouseRules, pictures: Pictures, entries: tuple[Entry, ...]
) -> tuple[Seen, list[Conflict]]:
    """Return all that the tape tells the search, and the entries that contradict each other within one epoch."""
    facts = Facts(entries)
    epochs = epochs_of(pictures.circuit, facts)
    found = (
        *_readings(unit, rules, pictures, facts),
        *_checks(pictures, facts),
        *_conditions(pictures, facts),
        *_lock_out(pictures, facts),
    )
    rows = [_placed(epochs, key, seen) for key, seen in sorted(found, key=lambda row: row[0])]
    kept, against = _newest(pictures, rows)
    return Seen(tuple(kept), epochs.actions), against


Row = tuple[str, Observation]  # a key to sort by: time, id


def _placed(epochs: Epochs, key: str, seen: Observation) -> Observation:
    return Observation(
        seen.test, seen.outcome, seen.entry_id, seen.spread, seen.moment, epochs.at(key), epochs.bridged_at(key)
    )


def _newest(pictures: Pictures, rows: Iterable[Observation]) -> tuple[list[Observation], list[Conflict]]:
    """Return the newest observation of each test in its epoch; of several watched calls, what they tell together."""
    kept: dict[tuple[object, ...], Observation] = {}
    calls: dict[int, list[Observation]] = {}
    against: list[Conflict] = []
    for seen in rows:
        place = (seen.test, seen.epoch, seen.bridged, seen.moment)
        before = kept.pop(place, None)
        test = pictures.test(seen.test)
        if test.kind == "stops" and not seen.bridged:
            calls.setdefault(seen.epoch, []).append(seen)
        elif before is not None and _differ(test, before.outcome, seen.outcome):
            earlier = in_words(test, before.outcome)
            shown = in_words(test, seen.outcome)
            against.append(Conflict(test.key, test.name, shown, f"{earlier}, read before", seen.entry_id))
        kept[place] = replace(seen, times=before.times + 1) if before else seen
    for epoch, watched in calls.items():
        if len(watched) > 1:
            for seen in _of_several_calls(watched):
                kept[seen.test, epoch, seen.bridged, seen.moment] = seen
    return list(kept.values()), against


def _of_several_calls(calls: list[Observation]) -> Iterable[Observation]:
    """What several watched calls tell: whether they went alike, and the newest one that did not run through."""
    alike = len({call.outcome for call in calls}) == 1
    last = calls[-1]
    yield Observation("again", SAME if alike else DIFFERS, last.entry_id, epoch=last.epoch)
    failed = [call for call in calls if call.outcome != STEADY]
    yield (failed or calls)[-1]


def _readings(unit: Unit, rules: HouseRules, pictures: Pictures, facts: Facts) -> Iterable[Row]:
    for fact in facts.readings:
        if fact.phase == "trial":
            continue
        for key, value in _tests_of_reading(unit, rules, pictures, fact, facts):
            moment = LEAST if fact.quantity == "control_least_v" else fact.state
            seen = Observation(key, value, fact.entry_id, fact.spread, moment)
            yield f"{fact.at.isoformat()} {fact.entry_id}", seen


def _tests_of_reading(
    unit: Unit, rules: HouseRules, pictures: Pictures, fact: ReadingFact, facts: Facts
) -> Iterable[tuple[str, float]]:
    if fact.quantity == "control_least_v" and set(_CONTROL_VOLTAGE) <= set(pictures.circuit.nodes):
        yield pictures.volts_key(*_CONTROL_VOLTAGE), fact.value
    if fact.quantity == "volts_across_v" and fact.leads is not None:
        if len(set(fact.leads)) == 2 and set(fact.leads) <= set(pictures.circuit.nodes):
            yield pictures.volts_key(*fact.leads), abs(fact.value)
        return
    if fact.quantity == "co_ppm_dry":
        yield from _carbon_monoxide(pictures, fact, facts)
    for test in _gauges(pictures, fact):
        factor = to_nominal(unit, rules, pictures, test, fact.stage)
        if factor is not None:
            yield test.key, (fact.value if test.quantity in _SIGNED else abs(fact.value)) * factor


def _carbon_monoxide(pictures: Pictures, fact: ReadingFact, facts: Facts) -> Iterable[tuple[str, float]]:
    oxygen = facts.beside(fact, "o2_dry_pct")
    key = "gauge:co_air_free_ppm"
    if key in pictures.tests and oxygen is not None and oxygen.value < _FRESH_O2_PCT:
        yield key, co_air_free_ppm(oxygen.value, fact.value)


def _gauges(pictures: Pictures, fact: ReadingFact) -> list[Test]:
    """Return the gauge tests that a reading answers: those of its very stage, where the circuit has such ones."""
    of_stage = _QUANTITY.get((fact.quantity, fact.stage), ())
    usual = _QUANTITY.get((fact.quantity, None), (fact.quantity,))
    own = [test for test in pictures.tests.values() if test.quantity in of_stage]
    return own or [test for test in pictures.tests.values() if test.quantity in usual]


_QUANTITY: dict[tuple[str, str | None], tuple[str, ...]] = {
    ("draft_pa", "high"): ("draft_at_high_switch_pa",),
    ("draft_pa", None): ("draft_at_switch_pa", "profile_low_pa"),
    ("manifold_pa", None): ("manifold_pa", "manifold_of_plate"),
    ("input_w", None): ("input_share",),
}


def to_nominal(unit: Unit, rules: HouseRules, pictures: Pictures, test: Test, stage: str | None) -> float | None:
    """Return the factor from this unit's own numbers to the circuit's: its plate and stamps against the nominal ones.

    None where the plate lacks what would be needed.
    """
    nominal = {q.name: q.value for q in pictures.circuit.quantities}.get(test.quantity, 0.0)
    plated = unit.stage(stage) if stage in unit.stage_keys else unit.plate.stages[-1]
    if test.quantity == "input_share":
        rated = input_at_altitude_w(unit, rules, plated.key)
        return 1.0 / rated if rated else None
    if test.quantity == "water_rise_k":
        low, high = unit.plate.water_rise_min_k, unit.plate.water_rise_max_k
        return test.nominal / (0.5 * (low + high)) if low and high else None
    if test.quantity.startswith("manifold") and plated.manifold_pa:
        return nominal / plated.manifold_pa
    if test.quantity == "supply_running_pa" and unit.plate.supply_min_pa and unit.plate.supply_max_pa:
        return nominal / (0.5 * (unit.plate.supply_min_pa + unit.plate.supply_max_pa))
    if test.quantity.startswith("draft") and plated.switch_makes_pa:
        return makes_at(pictures, test.quantity) / plated.switch_makes_pa
    return 1.0


def makes_at(pictures: Pictures, quantity: str) -> float:
    """Return the value at which the circuit's own switch on ``quantity`` makes, SI."""
    for condition in pictures.circuit.conditions:
        for term in condition.terms:
            name, sign, number = term.partition(">")
            if sign and name == quantity:
                return float(number)
    return 1.0


def _checks(pictures: Pictures, facts: Facts) -> Iterable[Row]:
    for line in facts.lines:
        body, outcome, key = line.body, "", ""
        if isinstance(body, Code):
            key, outcome = "code", body.pattern
        elif isinstance(body, Proof):
            key, outcome = ("stops" if body.what == "stops" else f"{body.what}:{body.device}"), body.outcome
        if key in pictures.tests and outcome:
            yield moment_key(line), Observation(key, outcome, line.entry.id)


def _conditions(pictures: Pictures, facts: Facts) -> Iterable[Row]:
    """What a part was found like, in the vocabulary's own words: as good evidence as a look that was offered."""
    for line, body in facts.conditions():
        for part in parts_meant(pictures.circuit, body.part) if body.condition == TRIPPED else ():
            yield moment_key(line), Observation(f"tripped:{part}", BAD if not body.absent else GOOD, line.entry.id)
        if body.condition != TRIPPED:
            yield moment_key(line), Observation(f"found:{body.part}", _found(body), line.entry.id)


def _found(body: Condition) -> str:
    return f"{'not ' if body.absent else ''}{body.condition}"


def _lock_out(pictures: Pictures, facts: Facts) -> Iterable[Row]:
    """The changeover control is looked at by its numbers: warmer outdoors than its gas lock-out, it passes no call on."""
    lock_out, outdoor = facts.newest("gas_lockout_k", None), facts.newest("outdoor_temp_k", None)
    if lock_out is not None and outdoor is not None and "look:changeover" in pictures.tests:
        last = max(lock_out, outdoor, key=lambda fact: fact.at)
        outcome = BAD if outdoor.value > lock_out.value else GOOD
        yield f"{last.at.isoformat()} {last.entry_id}", Observation("look:changeover", outcome, last.entry_id)


def _differ(test: Test, before: Outcome, now: Outcome) -> bool:
    if isinstance(before, float) and isinstance(now, float):
        return abs(now - before) > _SAME_SIGMAS * spread(test, before)
    return before != now
