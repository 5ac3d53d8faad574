"""What is known before the first reading moves the odds, and readings outweigh it."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.circuit.read import circuit_names, part_families, shipped_circuit
from havrin_core.search.odds import WEIGH_AS, causes_of, in_vain_of, past_of, prior_of, surroundings_known
from havrin_core.search.visit_search import outlook_of
from havrin_core.tape.background import NOTHING_KNOWN, Background, Past
from tests.core.rows import furnace, tape

FURNACE = shipped_circuit("furnace_condensing_one_stage")


def odds(background, fault):
    return prior_of(FURNACE, background).odds[fault] / FURNACE.fault(fault).odds


def test_nothing_known_moves_nothing():
    prior = prior_of(FURNACE, NOTHING_KNOWN)
    assert prior.odds == {fault.key: fault.odds for fault in FURNACE.faults}
    assert prior.reasons == ()


@pytest.mark.parametrize(
    ("background", "fault", "factor"),
    [
        (Background(month=1), "trap.blocked", 2.0),
        (Background(month=7), "trap.blocked", 1.0),
        (Background(month=10), "flame_rod.dirty", 1.5),
        (Background(age_years=12), "inducer.open", 1.4),
        (Background(age_years=20), "inducer.open", 1.4 * 1.3),
        (Background(age_years=3), "inducer.open", 1.0),
        (Background(surroundings=("dust",)), "filter.blocked", 2.5),
        (Background(surroundings=("mars",)), "filter.blocked", 1.0),
        (Background(past=(Past(40, action="change igniter"),)), "igniter.open", 0.4),
        (Background(past=(Past(900, action="change igniter"),)), "igniter.open", 1.0),
        (Background(past=(Past(300, action="clear port"),)), "port.plugged", 2.5),
        (Background(past=(Past(200, part="hose"),)), "hose.off", 2.5),
        (Background(past=(Past(40, action="change inducer"),)), "blower.open", 1.0),
    ],
)
def test_season_age_place_and_history(background, fault, factor):
    assert odds(background, fault) == pytest.approx(factor)


def test_the_same_past_counts_once():
    twice = Background(past=(Past(30, part="hose"), Past(400, part="hose")))
    assert odds(twice, "hose.off") == pytest.approx(2.5)


def test_every_influence_is_said():
    known = Background(1, 12, ("roof",), (Past(100, part="hose"),))
    reasons = prior_of(FURNACE, known).reasons
    assert [r.split(":")[0] for r in reasons] == [
        "Frost",
        "Over 10 years old",
        "On a roof",
        "Was at fault here before (100 days)",
    ]


def test_the_past_is_read_from_tapes_with_their_corrections():
    entries = tape("did change igniter", "look hose bad", "look vent ok", "ohms limit open", "note nothing")
    assert [(p.action, p.part) for p in past_of(entries, 10)] == [("change igniter", ""), ("", "hose"), ("", "limit")]


def test_readings_outweigh_the_past():
    unit = furnace()
    lines = tape("stops inducer", "code 2 3", "draft .9", "v 3 4 26", unit=unit)
    misled = Background(past=(Past(30, action="change pressure_switch"), Past(50, part="hose")))
    found = outlook_of(unit, HouseRules(), lines, misled)
    assert found.suspects[0].part == "pressure_switch"
    assert found.beforehand


def test_the_table_names_known_families():
    from havrin_core.search import odds as module

    table = module._table()
    known = set(part_families()) | {p.key for name in circuit_names() for p in shipped_circuit(name).parts}
    rows = [*table["seasons"], *table["ages"], *table["surroundings"].values()]
    named = {family for row in rows for family in row["families"]} | {
        n for names, _ in table["actions"].values() for n in names
    }
    assert named <= known
    assert set(surroundings_known()) == set(table["surroundings"])


def test_fresh_hands_make_wrong_parts_and_wiring_likelier():
    fresh = Background(past=(Past(20, action="change pressure_switch"),))
    part = next(p.key for p in FURNACE.parts if p.family == "pressure_switch")
    assert odds(fresh, f"{part}.wrong_part") == pytest.approx(4.0 * 0.4)
    assert odds(fresh, f"{part}.stuck_open") == pytest.approx(0.4)
    assert odds(fresh, "limit.wrong_part") == pytest.approx(1.0)
    assert odds(Background(past=(Past(90, action="change pressure_switch"),)), f"{part}.wrong_part") == pytest.approx(
        0.4
    )
    assert odds(Background(age_years=0.5), "line.reversed") == pytest.approx(4.0)


def shares_of(circuit, odds):
    parts = {}
    for fault in circuit.faults:
        parts[fault.part] = parts.get(fault.part, 0.0) + odds[fault.key]
    whole = sum(parts.values())
    return {part: value / whole for part, value in parts.items()}


@given(st.dictionaries(st.sampled_from(["igniter", "flame_rod", "hose", "filter", "board"]), st.integers(0, 60)))
def test_a_firms_own_causes_move_the_odds_as_a_dirichlet_does(causes):
    circuit = shipped_circuit("furnace_80_hot_surface")
    shipped = shares_of(circuit, prior_of(circuit, Background()).odds)
    learned = shares_of(circuit, prior_of(circuit, Background(causes=tuple(causes.items()))).odds)
    assert sum(learned.values()) == pytest.approx(1)
    calls = sum(causes.values())
    for part in ("igniter", "flame_rod", "hose", "filter"):  # the mean of a Dirichlet: (prior weight + count) / all
        expected = (WEIGH_AS * shipped[part] + causes.get(part, 0)) / (WEIGH_AS + calls)
        assert learned[part] == pytest.approx(expected), part


def test_what_was_learned_is_shown_with_its_counts():
    circuit = shipped_circuit("furnace_80_hot_surface")
    reasons = prior_of(circuit, Background(causes=(("hose", 3), ("igniter", 7)))).reasons
    (told,) = (reason for reason in reasons if "closed" in reason)
    assert "(10)" in told
    assert told.index("igniter 7") < told.index("hose 3")
    assert not any("closed" in reason for reason in prior_of(circuit, Background()).reasons)


def test_only_a_cause_that_was_found_for_the_call_is_learned_from():
    assert causes_of(tape("cause hose off")) == ("hose",)
    assert causes_of(tape("cause probably igniter")) == ()
    assert causes_of(tape("cause not found")) == ()
    assert causes_of(tape("hose off")) == ()


@given(st.sampled_from(["igniter", "flame_rod", "hose", "filter"]), st.integers(1, 40), st.integers(0, 30))
def test_calls_that_a_new_part_did_not_cure_are_shared_out_among_all_others(part, unsolved, solved):
    circuit = shipped_circuit("furnace_80_hot_surface")
    shipped = shares_of(circuit, prior_of(circuit, Background()).odds)
    known = Background(in_vain=((part, unsolved + solved, unsolved),))
    learned = shares_of(circuit, prior_of(circuit, known).odds)
    assert sum(learned.values()) == pytest.approx(1)
    assert learned[part] == pytest.approx(WEIGH_AS * shipped[part] / (WEIGH_AS + unsolved))
    others = [other for other in shipped if other != part]
    for one, other in pairwise(others):  # they keep what they are to each other
        assert learned[one] * shipped[other] == pytest.approx(learned[other] * shipped[one])


def test_what_was_renewed_in_vain_while_the_cause_is_known_moves_nothing_and_is_said():
    circuit = shipped_circuit("furnace_80_hot_surface")
    prior = prior_of(circuit, Background(in_vain=(("igniter", 4, 0), ("pump", 9, 0))))
    assert prior.odds == prior_of(circuit, Background()).odds
    (told,) = prior.reasons
    assert "igniter 4" in told
    assert "pump" not in told  # this circuit has none


@pytest.mark.parametrize(
    ("lines", "in_vain"),
    [
        (("did change igniter", "cause hose off"), (("igniter", False),)),
        (("did change igniter", "did change hose", "cause hose off"), (("igniter", False),)),
        (("did change igniter", "cause not found"), (("igniter", True),)),
        (("did change igniter",), ()),  # it may have been it
        (("did change igniter", "cause probably hose"), ()),
        (("did clean igniter", "cause hose off"), ()),  # cleaned is not renewed
        (("did change igniter", "did change igniter", "cause not found"), (("igniter", True),)),
    ],
)
def test_what_was_renewed_and_was_not_the_cause_is_read_from_the_tape(lines, in_vain):
    assert in_vain_of(tape(*lines)) == in_vain


def test_a_bundle_carries_what_was_renewed_in_vain():
    from havrin_core.tape.bundle import _background

    assert _background({"in_vain": [["igniter", 3, 1]]}, 9).in_vain == (("igniter", 3, 1),)
