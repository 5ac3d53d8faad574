"""Suspects: the right part is named, the next test is allowed and worth it, what does not fit is said."""

from dataclasses import replace

import pytest

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.circuit.read import circuit_names, shipped_circuit
from havrin_core.machine.kind_files import build_unit, kind_names
from havrin_core.machine.unit import Plate, Stage
from havrin_core.search.alike import groups_alike, splitting_tests
from havrin_core.search.evidence import seen_on
from havrin_core.search.inference import shares
from havrin_core.search.model import CURED, PART, Observation, Seen
from havrin_core.search.next_test import allowed, line_of, offers
from havrin_core.search.outlook import outlook
from havrin_core.search.pictures import Pictures, pictures_of
from havrin_core.search.severities import mode_of
from havrin_core.search.visit_search import is_searching, outlook_of
from havrin_core.search.words import in_words
from havrin_core.shorthand.reader import read_line
from havrin_core.standing.next_step import next_step_of
from havrin_core.tape.entries import Proof
from havrin_core.wording.phrases import words as say
from havrin_core.wording.steps import step_words
from tests.core.rows import SOUND, furnace, judge, situation, tape

FURNACE = "furnace_80_hot_surface"


@pytest.fixture(scope="module")
def pictures() -> Pictures:
    return pictures_of(shipped_circuit(FURNACE))


def seen(*rows):
    return Seen(tuple(Observation(test, outcome) for test, outcome in rows))


def test_shares_sum_to_one_and_follow_the_evidence(pictures):
    before = shares(pictures, Seen())
    assert sum(h.share for h in before) == pytest.approx(1)
    after = shares(pictures, seen(("stops", "inducer"), ("code", "2 3"), ("gauge:draft_at_switch_pa", 224.0)))
    assert sum(h.share for h in after) == pytest.approx(1)
    assert after[0].faults[0].part == "pressure_switch"


def test_the_order_of_the_evidence_does_not_matter(pictures):
    rows = seen(("stops", "valve"), ("code", "3 4"), ("gauge:supply_running_pa", 0.0))
    one, other = shares(pictures, rows), shares(pictures, Seen(rows.observations[::-1]))
    ways = [{(h.kind, h.faults, h.had, h.tripped): h.share for h in found} for found in (one, other)]
    assert ways[0] == pytest.approx(ways[1])


def test_history_raises_a_suspect(pictures):
    rows = seen(("stops", "inducer"), ("code", "2 3"))
    plain, told = shares(pictures, rows), shares(pictures, rows, {"port.plugged": 30.0})
    assert _share(told, "port.plugged") > _share(plain, "port.plugged")


def _share(found, key):
    return sum(h.share for h in found if h.kind == PART and [mode_of(fault) for fault in h.faults] == [key])


def test_readings_that_fit_nobody_are_named(pictures):
    rows = seen(("stops", "steady"), ("code", "3 4"), ("volts:R:C", 2.0))
    found = outlook(pictures, rows, HouseRules())
    assert found.conflicts
    assert not found.clear


def test_when_it_is_clear_the_proof_follows(pictures):
    rows = seen(("stops", "inducer"), ("code", "3 4"), ("ohms:igniter", "open"))
    found = outlook(pictures, rows, HouseRules())
    assert found.clear
    assert found.suspects[0].part == "igniter"
    assert any("as left" in say(line) for line in found.proof)
    assert found.next_test is None


def test_an_offer_says_what_each_outcome_would_mean(pictures):
    found = outlook(pictures, seen(("stops", "inducer"), ("code", "2 3")), HouseRules())
    assert found.next_test is not None
    meanings = found.next_test.meanings
    assert len(meanings) >= 2
    assert sum(m.share for m in meanings) == pytest.approx(1, abs=0.05)


@pytest.mark.parametrize("name", circuit_names())
def test_no_test_bridges_flame_sensing_or_a_safety(name):
    for test in pictures_of(shipped_circuit(name)).tests.values():
        assert test.kind != "jump" or test.part.startswith("thermostat")
        assert test.minutes > 0
        if test.line_voltage:
            assert "LINE" in say(test.caution)
        if test.part and pictures_part(name, test.part).latches and test.kind in ("ohms", "look"):
            assert "cause" in say(test.caution)


def pictures_part(name, part):
    return pictures_of(shipped_circuit(name)).circuit.part(part)


def test_house_rules_decide_what_is_offered(pictures):
    strict = HouseRules(jumpers="none", live_work="low_voltage_only")
    refused = [t.kind for t in pictures.tests.values() if not allowed(t, strict)]
    assert {"jump", "volts"} == set(refused)
    assert all(allowed(t, HouseRules()) for t in pictures.tests.values())


def test_a_tape_becomes_evidence():
    lines = ("code 2 3", "stops inducer", "v 3 4 26.2", "draft .88")
    found = outlook_of(furnace(), HouseRules(), tape(*lines))
    assert found is not None
    assert {o.test for o in found.observations} == {"code", "stops", "volts:3:4", "gauge:draft_at_switch_pa"}
    assert found.suspects[0].part == "pressure_switch"
    assert 0.7 < found.suspects[0].share < 0.9  # it was not looked at itself yet
    assert found.next_test.test.key == "swap:pressure_switch"
    assert not found.clear


def test_what_is_read_as_left_comes_after_something_even_where_nobody_wrote_what():
    found = outlook_of(furnace(), HouseRules(), tape("code 2 3", "stops inducer", "left: stops steady"))
    assert found is not None
    assert [(o.test, o.epoch) for o in found.observations] == [("code", 0), ("stops", 0), ("stops", 1)]
    assert found.first.kind == CURED


def test_readings_that_contradict_each_other_are_shown():
    found = outlook_of(furnace(), HouseRules(), tape("v 1 2 0.0", "v 1 2 26.0"))
    assert found is not None
    assert found.conflicts[0].expected.endswith("read before")


def test_the_next_step_is_the_next_test_while_a_cause_is_sought():
    lines = ("room 0", "code 2 3", "stops inducer")
    step = next_step_of(judge(*lines, reason="no_heat"), outlook_of(furnace(), HouseRules(), tape(*lines)))
    assert step is not None
    assert ": probably the " in step_words(step, furnace(), "us").why
    assert is_searching("no_heat", tape(*lines), well=False)
    assert not is_searching("no_heat", tape(*lines, "cause hose off"), well=False)
    assert not is_searching("maintenance", tape(*lines), well=False)
    assert not is_searching("return_parts", tape(*lines), well=False)
    assert is_searching("recheck", tape(*lines), well=False)
    assert not is_searching("recheck", tape(*SOUND), well=True)


def test_room_co_comes_before_any_search():
    step = next_step_of(judge("code 2 3", reason="no_heat"), outlook_of(furnace(), HouseRules(), tape("code 2 3")))
    assert step is not None
    assert step_words(step, furnace(), "us").starter == "room "


def test_an_unknown_circuit_has_no_outlook():
    assert outlook_of(replace(furnace(), circuit=None), HouseRules(), ()) is None


def test_outcomes_read_as_people_say_them(pictures):
    tests = pictures.tests
    assert say(in_words(tests["volts:R:C"], 26.31)) == "26.3 V"
    assert say(in_words(tests["flame_current"], 2.94e-6)) == "2.9 µA"
    assert say(in_words(tests["gauge:draft_at_switch_pa"], 112.0)) == "50 % of a sound unit’s"
    assert say(in_words(tests["ohms:igniter"], "open")) == "open"
    assert say(in_words(tests["look:hose"], "bad")) == "not in order"


def test_faults_that_look_alike_are_known_and_mostly_split_by_the_part_itself(pictures):
    groups = groups_alike(pictures)
    keys = [{fault.key for fault in group} for group in groups]
    assert any({"flame_rod.open", "burner_ground.poor"} & group for group in keys)
    for group in groups:
        parts = {fault.part for fault in group}
        if len(parts) > 1:
            assert splitting_tests(pictures, group), group


KINDS = [
    (kind, stages)
    for kind in kind_names()
    for stages in (
        (Stage("only", input_w=23_400.0),),
        (Stage("low", input_w=16_000.0), Stage("high", input_w=23_400.0)),
    )
    if build_unit("U", kind, Plate("NG_H", stages), 1500).circuit is not None
]


@pytest.mark.parametrize(("kind", "stages"), KINDS)
def test_every_gauge_that_is_offered_can_be_answered(kind, stages):
    unit = build_unit("U", kind, Plate("NG_H", stages, water_rise_min_k=8.0, water_rise_max_k=22.0), 1500)
    pictures = pictures_of(unit.circuit)
    for test in pictures.tests.values():
        if test.kind == "gauge":
            found, _ = seen_on(
                unit, HouseRules(), pictures, tape(f"{test.starter}{NUMBERS.get(test.quantity, '1')}", unit=unit)
            )
            assert test.key in {o.test for o in found.observations}, (test.starter, test.quantity)


NUMBERS = {
    "igniter_current_a": "2",
    "temperature_rise_k": "40",
    "input_share": "2 ft3 1 60",
    "o2_dry_pct": "6.4",
    "co_air_free_ppm": "6.4 co 30",
    "flue_temp_k": "350 F",
    "o2_step_pct": "0.2",
    "water_rise_k": "15 K",
}


def test_an_input_without_a_plate_accuses_nobody():
    unit = build_unit("U", "furnace_80", Plate("NG_H", (Stage("only"),)), 1500)
    found, _ = seen_on(unit, HouseRules(), pictures_of(unit.circuit), tape("clock 2 ft3 1 60", unit=unit))
    assert found.observations == ()


def test_two_calls_that_go_different_ways_speak_for_what_comes_and_goes(pictures):
    once = tape("stops blower", "code 2 4", "rise 50 F")
    twice = tape("stops blower", "code 2 4", "rise 50 F", "stops steady")
    before, after = (outlook_of(furnace(), HouseRules(), entries) for entries in (once, twice))
    assert before is not None
    assert after is not None
    assert {o.test: o.outcome for o in after.observations}["again"] == "differs"
    assert {o.test: o.outcome for o in after.observations}["stops"] == "blower"
    assert not [c for c in after.conflicts if c.test == "stops"]
    assert _intermittent(after) > 1.5 * _intermittent(before)


def _intermittent(found):
    return sum(share for s in found.suspects for mode, _, share in s.faults if mode == "intermittent")


def test_a_second_call_after_a_cure_is_no_second_look_at_the_fault():
    found = outlook_of(furnace(), HouseRules(), tape("stops inducer", "did clear port", "stops igniter"))
    assert found is not None
    assert "again" not in {o.test for o in found.observations}


def test_a_second_call_is_offered_only_after_a_first(pictures):
    nothing = offers(pictures, shares(pictures, Seen()), Seen(), HouseRules(), most=99)
    assert "again" not in {offer.test.key for offer in nothing}
    rows = seen(("stops", "blower"), ("code", "2 4"))
    assert "again" in {
        offer.test.key for offer in offers(pictures, shares(pictures, rows), rows, HouseRules(), most=99)
    }


def test_a_contact_that_opens_is_caught_while_recorded_and_reads_sound_on_the_bench(pictures):
    picture = pictures.of((pictures.circuit.fault("limit.intermittent"),))
    assert (picture["ohms:limit"], picture["watch:limit"], picture["again"]) == ("ok", "bad", "differs")
    found = outlook_of(furnace(), HouseRules(), tape("stops blower", "code 2 4", "ohms limit ok", "watch limit bad"))
    assert found is not None
    assert found.suspects[0].part == "limit"


def test_reversed_polarity_shows_between_hot_and_ground(pictures):
    picture = pictures.of((pictures.circuit.fault("line.reversed"),))
    assert picture["volts:L1:N"] == pytest.approx(pictures.sound["volts:L1:N"], rel=0.01)
    assert pictures.sound["volts:L1:G"] > 110
    assert picture["volts:L1:G"] < 3


def test_a_pump_that_stands_still_shows_in_the_rise_of_the_water():
    pictures = pictures_of(shipped_circuit("boiler_power_vent_pilot"))
    sound, stopped = pictures.sound, pictures.of((pictures.circuit.fault("pump.stopped"),))
    assert stopped["gauge:water_rise_k"] > 3 * sound["gauge:water_rise_k"]


def test_carbon_monoxide_is_counted_with_the_oxygen_of_its_own_sample():
    lines = ("o2 7.0 co 100 t 350", "left: o2 14.0 co 10 t 350")
    found = outlook_of(furnace(), HouseRules(), tape(*lines))
    assert found is not None
    seen = [o.outcome for o in found.observations if o.test == "gauge:co_air_free_ppm"]
    assert seen == pytest.approx([100 * 20.946 / 13.946, 10 * 20.946 / 6.946], rel=1e-3)


def test_the_input_is_laid_against_the_plate_by_the_house_s_own_rule():
    unit = furnace()
    shares = []
    for rule in ("four_pct_per_1000_ft", "none"):
        found = outlook_of(unit, HouseRules(altitude_derate=rule), tape("input 60", unit=unit))
        assert found is not None
        shares += [o.outcome for o in found.observations if o.test == "gauge:input_share"]
    assert shares[0] == pytest.approx(shares[1] / (1 - 0.04 * 5.052), rel=1e-3)


@pytest.mark.parametrize(
    "key", ["furnace_80_hot_surface", "rooftop_spark_module", "boiler_standing_pilot", "make_up_air_direct_fired"]
)
def test_every_outcome_that_can_be_touched_is_a_line_that_says_it(key):
    circuit = shipped_circuit(key)
    pictures = pictures_of(circuit)
    here = replace(situation(furnace()), circuit=circuit)
    faults = (*((fault,) for fault in circuit.faults[:12]), ())
    seen = {(name, outcome) for one in faults for name, outcome in pictures.of(one).items()}
    lines = {(line_of(pictures.tests[name], outcome), outcome) for name, outcome in seen}
    told = [(line, outcome) for line, outcome in lines if line and not line.startswith("code")]
    assert told
    for line, outcome in told:
        (proof,) = (body for body in read_line(line, here).bodies if isinstance(body, Proof))
        assert proof.outcome == outcome, line
