"""From a tape to observations: which entries are tests of the circuit, and what they showed."""

from collections.abc import Iterable

from havrin_core.facts.facts import Facts, ReadingFact
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.computed import input_at_altitude_w
from havrin_core.machine.unit import Unit
from havrin_core.physics.combustion.carbon_monoxide import co_air_free_ppm
from havrin_core.search.inference import spread
from havrin_core.search.model import Conflict, Observation, Outcome, Test
from havrin_core.search.pictures import BAD, DIFFERS, GOOD, SAME, STEADY, Pictures
from havrin_core.search.words import in_words
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import Action, Code, Entry, Proof

_SIGNED = ("o2_step_pct",)  # of a draft only the size counts, of a step also which way it goes
_SAME_SIGMAS = 6.0
_FRESH_O2_PCT = 19.0  # above this the probe is in air: nothing can be counted back


def observations(
    unit: Unit, rules: HouseRules, pictures: Pictures, entries: tuple[Entry, ...]
) -> tuple[list[Observation], list[Conflict]]:
    """Return the newest observation of each test, and the entries that contradict each other.

    Only what was read before the cure counts: as-left entries prove, they do not accuse.
    """
    facts = Facts(entries)
    found = (*_readings(unit, rules, pictures, facts), *_checks(pictures, facts), *_lock_out(pictures, facts))
    rows = sorted(found, key=lambda row: row[0])
    newest: dict[str, Observation] = {}
    worked = max((_key(line) for line, _ in facts.of(Action)), default="")
    calls = [seen for when, seen in rows if seen.test == "stops" and when > worked]
    against: list[Conflict] = []
    for _, seen in rows:
        test = pictures.tests[seen.test]
        before = newest.get(seen.test)
        if before is not None and seen.test != "stops" and _differ(test, before.outcome, seen.outcome):
            shown, earlier = in_words(test, seen.outcome), in_words(test, before.outcome)
            against.append(Conflict(test.key, test.name, shown, f"{earlier}, read before", seen.entry_id))
        newest[seen.test] = seen
    if len(calls) > 1:
        newest |= {seen.test: seen for seen in _of_several_calls(calls)}
    return list(newest.values()), against


Row = tuple[str, Observation]  # a key to sort by: time, id


def _key(line: Line) -> str:
    return f"{line.moment.at.isoformat()} {line.entry.id}"


def _readings(unit: Unit, rules: HouseRules, pictures: Pictures, facts: Facts) -> Iterable[Row]:
    for fact in facts.readings:
        if fact.phase == "left":
            continue
        for test, value in _tests_of_reading(unit, rules, pictures, fact, facts):
            yield f"{fact.at.isoformat()} {fact.entry_id}", Observation(test.key, value, fact.entry_id, fact.spread)


def _tests_of_reading(
    unit: Unit, rules: HouseRules, pictures: Pictures, fact: ReadingFact, facts: Facts
) -> Iterable[tuple[Test, float]]:
    if fact.quantity == "volts_across_v" and fact.leads is not None:
        for test in pictures.tests.values():
            if test.leads is not None and set(test.leads) == set(fact.leads):
                yield test, abs(fact.value)
        return
    if fact.quantity == "co_ppm_dry":
        yield from _carbon_monoxide(pictures, fact, facts)
    for test in _gauges(pictures, fact):
        factor = to_nominal(unit, rules, pictures, test, fact.stage)
        if factor is not None:
            yield test, (fact.value if test.quantity in _SIGNED else abs(fact.value)) * factor


def _carbon_monoxide(pictures: Pictures, fact: ReadingFact, facts: Facts) -> Iterable[tuple[Test, float]]:
    oxygen = facts.beside(fact, "o2_dry_pct")
    test = pictures.tests.get("gauge:co_air_free_ppm")
    if test is not None and oxygen is not None and oxygen.value < _FRESH_O2_PCT:
        yield test, co_air_free_ppm(oxygen.value, fact.value)


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
        if line.phase == "left":
            continue
        if isinstance(body, Code):
            key, outcome = "code", body.pattern
        elif isinstance(body, Proof):
            key, outcome = ("stops" if body.what == "stops" else f"{body.what}:{body.device}"), body.outcome
        if key in pictures.tests and outcome:
            yield _key(line), Observation(key, outcome, line.entry.id)


def _of_several_calls(calls: list[Observation]) -> Iterable[Observation]:
    """What several watched calls tell: whether they went alike, and the newest one that did not run through."""
    alike = len({call.outcome for call in calls}) == 1
    yield Observation("again", SAME if alike else DIFFERS, calls[-1].entry_id)
    failed = [call for call in calls if call.outcome != STEADY]
    yield (failed or calls)[-1]


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
