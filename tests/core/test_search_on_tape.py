"""What a tape tells the search, in the words that technicians write: actions, jumpers, moments, what was found and what had tripped."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.circuit.meant import called_parts, cure_chance, parts_meant
from havrin_core.machine.circuit.read import circuit_names, part_families, shipped_circuit
from havrin_core.search.model import CURED, PART, UNLISTED
from havrin_core.search.pictures import pictures_of, volts_of
from havrin_core.search.severities import has_range, mode_of, severities
from havrin_core.search.visit_search import history_of, outlook_of
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.documents import entry_from_dict, entry_to_dict
from havrin_core.vocabulary.catalogue import conditions, parts
from havrin_core.wording.entries import echo
from havrin_core.wording.phrases import words
from havrin_core.wording.steps import headline
from tests.core.rows import furnace, situation, tape

FURNACE = shipped_circuit("furnace_80_hot_surface")
FAULTS = [fault for name in circuit_names() for fault in shipped_circuit(name).faults]


def search(*lines):
    return outlook_of(furnace(), HouseRules(), tape(*lines))


def share(found, part):
    return sum(s.share for s in found.suspects if s.part == part)


@pytest.mark.parametrize(
    ("line", "state"),
    [
        ("v 3 4 in trial 26.2", "trial"),
        ("v 3 4 at lockout 0", "lockout"),
        ("v limit during pre-purge 26", "purge"),
        ("v 3 4 while running 0", "steady"),
        ("v 3 4 26.2", ""),
    ],
)
def test_a_reading_takes_its_state_along(line, state):
    (body,) = read_line(line, situation(furnace())).bodies
    assert body.state == state
    (entry,) = tape(line)
    assert entry_from_dict(entry_to_dict(entry), "entry").body.state == state
    found = search(line)
    assert [o.moment for o in found.observations] == [state]


def test_the_state_is_said_back():
    (entry,) = tape("v 3 4 in trial 26.2")
    assert "in trial" in echo(entry.body, furnace(), "us")


@pytest.mark.parametrize(
    ("line", "end", "value"),
    [
        ("v 3 4 max 26", "most", 26.0),
        ("v 4 c min 17", "least", 17.0),
        ("v 4 c 17 min", "least", 17.0),
        ("v limit peaked at 25", "most", 25.0),
        ("v r c max 28.4", "most", 28.4),
        ("across pressure switch dropped to 3", "least", 3.0),
    ],
)
def test_what_a_meter_held_keeps_its_leads_and_says_which_end_it_is(line, end, value):
    (entry,) = tape(line)
    assert (entry.body.state, entry.body.value, entry.body.quantity) == (end, value, "volts_across_v")
    assert entry.body.leads
    assert f", the {end}" in echo(entry.body, furnace(), "us")
    assert entry_from_dict(entry_to_dict(entry), "entry").body == entry.body
    assert [o.moment for o in search(line).observations] == [end]


def test_a_state_beside_what_was_held_stays_on_the_tape():
    (entry,) = tape("v 4 c in trial min 17")
    assert (entry.body.state, entry.body.place) == ("least", "trial")
    assert "trial" in echo(entry.body, furnace(), "us")


@pytest.mark.parametrize("line", ["least volts 17", "r to c dropped to 17", "v r c min 17"])
def test_the_least_control_voltage_speaks_of_hot_to_common(line):
    (seen,) = search(line).observations
    assert (seen.test, seen.outcome, seen.moment) == ("volts:R:C", 17.0, "least")


def test_a_contact_that_opened_is_named_by_what_the_meter_held():
    """In the string all is well before and after; the meter that held its ends saw one contact open."""
    came = ("stops flame", "v 4 c 26")
    sound = search(*came, "v 1 c min 25.6", "v 2 c min 25.6", "v 3 c min 25.5", "v 4 c min 25.5")
    opened = search(*came, "v 1 c min 25.6", "v 2 c min 25.6", "v 3 c min 25.5", "v 4 c min 0")
    assert share(opened, "pressure_switch") > 3 * share(sound, "pressure_switch")
    assert share(opened, "pressure_switch") > share(opened, "limit") + share(opened, "rollout")


@given(st.sampled_from([f for f in FURNACE.faults if f.is_electrical]), st.sampled_from(["least", "most"]), st.data())
@settings(max_examples=40, deadline=None)
def test_what_a_meter_could_hold_lies_between_all_that_it_saw(fault, end, data):
    pictures = pictures_of(FURNACE)
    picture = pictures.of((fault,))
    a, b = data.draw(st.lists(st.sampled_from(sorted(FURNACE.nodes)), min_size=2, max_size=2, unique=True))
    test = pictures.test(pictures.volts_key(a, b))
    seen = [volts_of(test, picture.unit.wiring, holds) for holds, _ in picture.unit.spent]
    seen.append(volts_of(test, picture.unit.wiring, frozenset(picture.unit.holds)))
    held = picture.volts_held(test, end)
    assert sum(chance for chance, _ in held) == pytest.approx(1)
    assert all(min(seen) <= volts <= max(seen) for _, volts in held)
    assert held[1][1] == (min(seen) if end == "least" else max(seen))


@pytest.mark.parametrize(
    ("lines", "said"),
    [
        (("bridged pressure switch",), 1),
        (("bridged pressure switch", "removed jumper pressure switch"), 0),
        (("bridged limit",), 0),  # a limit is closed at rest: the control begins with it
        ((), 0),
    ],
)
def test_a_jumper_that_a_control_does_not_begin_with_says_when_it_goes_on(lines, said):
    found = search("stops inducer", *lines)
    assert len(found.jumpers) == said
    assert all("Pressure switch" in words(line) for line in found.jumpers)


def test_what_was_changed_is_not_suspected_again_and_the_next_fault_is_found():
    first = ("code 3 4", "stops inducer", "ohms igniter open")
    assert share(search(*first), "igniter") > 0.9
    after = search(*first, "change igniter", "stops igniter", "code 3 4", "v 5 C 26", "look gas valve bad")
    assert share(after, "igniter") < 0.05
    assert after.first.part == "gas_valve"


def test_what_runs_after_its_cure_is_cured():
    found = search("code 3 4", "stops inducer", "ohms igniter open", "change igniter", "left: stops steady")
    assert found.first.kind == CURED
    assert headline(found).startswith("Cured")


def test_a_cure_that_did_not_help_leaves_the_cause_elsewhere():
    lines = ("code 2 3", "stops inducer", "change hose", "stops inducer")
    assert share(search(*lines), "hose") < 0.4 * share(search(*lines[:2]), "hose")


def test_a_board_is_its_relays_and_a_valve_all_its_coils():
    circuit = shipped_circuit("furnace_80_two_stage")
    assert {"board", "valve_relay", "inducer_relay", "igniter_relay"} <= parts_meant(circuit, "board")
    assert {"gas_valve", "gas_valve_high"} <= parts_meant(circuit, "gas_valve")
    assert parts_meant(circuit, "rollout") == {"rollout"}
    assert parts_meant(circuit, "pressure_switch_high") == {"pressure_high"}
    assert parts_meant(circuit, "pump") == frozenset()


def test_cleaning_cures_what_is_dirty_and_not_what_is_broken():
    fault = {f.key: f for f in FURNACE.faults}
    assert cure_chance(fault["flame_rod.dirty"], "clean") > 0.8
    assert cure_chance(fault["flame_rod.open"], "clean") < 0.1
    assert cure_chance(fault["igniter.open"], "change") > 0.9
    assert cure_chance(fault["igniter.open"], "no such verb") == 0


def test_a_look_and_what_was_found_in_other_words_are_evidence_alike():
    for line in ("look hose bad", "hose off", "found hose cracked"):
        assert share(search("code 2 3", "stops inducer", line), "hose") > 0.75, line


def test_a_device_that_had_tripped_asks_for_its_cause_and_is_not_blamed():
    found = search("stops nothing", "rollout tripped", "v 2 3 26.2")
    assert not found.clear
    assert share(found, "rollout") < 0.5
    cause = search("stops nothing", "rollout tripped", "v 2 3 26.2", "look exchanger bad")
    assert share(cause, "exchanger") > share(cause, "rollout")


def test_a_reset_cures_nothing():
    found = search("rollout tripped", "v 2 3 26.2", "reset rollout", "stops steady")
    assert not found.clear
    assert found.first.kind != CURED or found.first.share < 0.8


def test_a_part_that_no_circuit_lists_speaks_for_what_is_unlisted():
    before, after = search("stops nothing"), search("stops nothing", "fuse open")
    named = parts_meant(furnace().circuit, "fuse")
    assert (share(after, next(iter(named))) > 0.5) if named else after.unlisted > before.unlisted
    stranger = search("stops nothing", "interlock open")
    assert stranger.unlisted > before.unlisted


def test_a_heartbeat_acquits_nobody():
    quiet = next(s.code for s in FURNACE.control.states if s.key == "idle") or "normal"
    found = search("stops inducer", f"code {quiet}") if quiet[:1].isdigit() else search("stops inducer")
    assert share(found, "pressure_switch") > 0.03


def test_a_jumper_on_the_tape_is_pictured_as_one():
    lines = ("stops inducer", "jump pressure switch", "stops steady")
    found = search(*lines)
    assert [bool(o.bridged) for o in found.observations] == [False, True]
    blamed = sum(share(found, part) for part in ("pressure_switch", "hose", "port", "trap", "vent", "wheel"))
    assert blamed > 0.5


def test_the_history_tells_each_entry_and_which_did_not_count():
    entries = tape("room 0", "code 2 3", "stops inducer", "note owner was kind", "look hose bad")
    steps = history_of(furnace(), HouseRules(), entries)
    assert [step.counted for step in steps] == [False, True, True, False, True]
    assert steps[-1].share > steps[1].share
    assert [step.entry_id for step in steps] == [entry.id for entry in entries]


@pytest.mark.parametrize("name", circuit_names())
def test_every_part_that_can_fail_is_meant_by_a_word_of_the_trade(name):
    circuit = shipped_circuit(name)
    meant = {part for word in parts() for part in parts_meant(circuit, word)}
    unheard = {fault.part for fault in circuit.faults} - meant
    assert not unheard


def test_families_speak_the_vocabulary():
    for name, family in part_families().items():
        if name == "about":
            continue
        assert set(family.get("words", ())) <= set(parts()), name
        for row in family["faults"]:
            assert set(row["like"]) <= set(conditions()), (name, row["mode"])
    assert {word for words in called_parts().values() for word in words} <= set(parts())


@settings(max_examples=80)
@given(st.sampled_from(FAULTS))
def test_severities_are_a_distribution_about_the_mode(fault):
    points = severities(fault)
    assert sum(weight for _, weight in points) == pytest.approx(1)
    assert {mode_of(point) for point, _ in points} == {fault.key}
    assert fault in {point for point, _ in points}
    assert (len(points) > 1) == has_range(fault)
    for point, _ in points:
        for quantity, factor in fault.scale.items():  # milder or graver, never the other way round
            assert 0 <= point.scale[quantity] <= max(factor, 4)
            assert (point.scale[quantity] < 1) == (factor < 1)


def test_who_leads_is_a_part_or_says_what_else_it_is():
    for lines in ((), ("stops steady",), ("stops inducer", "code 2 3")):
        found = search(*lines)
        assert found.first.kind == PART or found.first.kind != UNLISTED or found.first.share >= 0.5
        assert headline(found)
