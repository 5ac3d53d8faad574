"""Lines that say several things at once: two values of one reading, two statements, a number and whose it is."""

import pytest

from havrin_core.shorthand.reader import read_line
from havrin_core.tape.bundle import unit_from_dict
from havrin_core.tape.entries import Action, Condition, Proof, Reading, Said
from tests.core.rows import furnace, situation
from tests.core.trade import unit_of

THERE = situation(furnace())
BOILER = situation(unit_from_dict(unit_of("boiler_atmospheric")))


def said(text, there=THERE):
    """Return (what, number as typed or the verb, phase) of every entry that a line makes."""
    line = read_line(text, there)
    assert line.writable, (text, line.problems, line.asks, line.unread)
    return [_brief(body, phase) for body, phase in zip(line.bodies, line.phase_of_each, strict=True)]


def _brief(body, phase):
    match body:
        case Reading():
            return body.quantity, body.typed, phase
        case Action():
            return body.part, body.verb, phase
        case Condition():
            return body.part, body.condition, phase
        case Said():
            return body.what, body.state, phase
    raise AssertionError(body)


@pytest.mark.parametrize(
    "text",
    [
        "inlet 7.2 standing 6.4 running",
        "inlet standing 7.2 running 6.4",
        "inlet running 6.4 standing 7.2",
        "gas pressure at inlet 7.2 static, 6.4 with everything running",
        "7.2 static 6.4 under load",
        "gas in 7.2 dead head, 6.4 under load",
        "supply 7.2 lockup, 6.4 with all on",
        "sp 6.4 with everything on, sps 7.2",
    ],
)
def test_standing_and_running_pressure_are_never_exchanged(text):
    told = {quantity: number for quantity, number, _ in said(text)}
    assert told == {"supply_standing_pa": 7.2, "supply_running_pa": 6.4}


def test_a_circumstance_belongs_to_the_number_that_it_was_said_of():
    places = [body.place for body in read_line("sp 6.4 with everything on, sps 7.2", THERE).bodies]
    assert places == ["with everything on", ""]
    for text in ("draft -.03 door closed, -.05 door open", "door closed -.03 draft, door open -.05 draft"):
        assert [body.place for body in read_line(text, THERE).bodies] == ["door closed", "door open"]


@pytest.mark.parametrize(
    ("text", "verb"),
    [
        ("set manifold to 3.5 from 4.2", "set"),
        ("manifold was 4.2, set it to 3.5", "set"),
        ("gas pressure set to 3.5 was 4.2", "set"),
        ("lowered gas pressure from 4.2 in to 3.5 in", "adjust"),
        ("dropped the manifold from 4.2 to 3.5", "adjust"),
        ("adjusted gas 4.2 -> 3.5", "adjust"),
    ],
)
def test_a_gas_pressure_that_was_set_is_both_readings_and_the_work_between_them(text, verb):
    assert said(text) == [
        ("manifold_pa", 4.2, "found"),
        ("gas_valve", verb, "found"),
        ("manifold_pa", 3.5, "left"),
    ]


@pytest.mark.parametrize(
    ("text", "quantity", "was", "now"),
    [
        ("mp 4.2→3.5", "manifold_pa", 4.2, 3.5),
        ("o2 4.2 % => 7.1 %", "o2_dry_pct", 4.2, 7.1),
        ("co down from 310 to 45", "co_ppm_dry", 310, 45),
        ("raised the o2 from 4.2 to 7.1", "o2_dry_pct", 4.2, 7.1),
        ("0.9 to 4.1 ua after cleaning", "flame_current_a", 0.9, 4.1),
    ],
)
def test_from_one_value_to_another_is_before_and_after(text, quantity, was, now):
    assert said(text) == [(quantity, was, "found"), (quantity, now, "left")]


def test_an_arrow_from_a_name_to_its_number_is_no_change():
    line = read_line("o2 6.4 co => 400", THERE)
    assert not any(
        isinstance(body, Reading) and body.quantity == "o2_dry_pct" and body.typed == 400 for body in line.bodies
    )
    assert "left" not in line.phase_of_each


def test_a_signal_that_rose_by_cleaning_keeps_the_cleaning():
    assert said("flame sensor cleaned, went from 0.8 to 3.4 microamps") == [
        ("flame_rod", "clean", "found"),
        ("flame_current_a", 0.8, "found"),
        ("flame_current_a", 3.4, "left"),
    ]


def test_what_climbs_while_it_runs_is_not_taken_for_before_and_after():
    assert not read_line("co climbed from 25 to 180 after ten minutes", THERE).writable


@pytest.mark.parametrize(
    ("text", "quantity"),
    [
        ("inducer bearings screaming, amp draw 2.1", "inducer_current_a"),
        ("inducer noisy, 2.1 amps", "inducer_current_a"),
        ("blower noisy, amp draw 2.1", "blower_current_a"),
        ("gas valve stuck closed, draws 2.1 amps", "coil_current_a"),
    ],
)
def test_a_current_is_that_of_the_part_spoken_of(text, quantity):
    assert said(text)[1][:2] == (quantity, 2.1)


def test_a_current_of_what_has_none_to_read_is_no_current_of_the_blower():
    assert not read_line("igniter cracked, amp draw 3.9", THERE).writable
    assert read_line("igniter cracked", THERE).writable


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("red tagged and shut gas off", [("leaves", "made_safe"), ("gas_supply", "close")]),
        ("shut off gas and red tagged", [("gas_supply", "close"), ("leaves", "made_safe")]),
        (
            "hx cracked on cell 2, red tagged and gas off at the valve",
            [("exchanger", "cracked"), ("leaves", "made_safe"), ("gas_supply", "off")],
        ),
    ],
)
def test_no_statement_is_taken_for_the_place_of_another(text, told):
    assert [row[:2] for row in said(text)] == told


def test_what_two_parts_share_stays_one_finding():
    assert [row[:2] for row in said("soot on burners and in the flue collar")] == [("burner", "sooted")]


def test_set_points_of_a_switch_are_no_finding():
    assert not read_line("pressure switch -.85 closes -.62 opens", THERE).writable
    assert [row[:2] for row in said("pressure switch stuck open .85")] == [("pressure_switch", "stuck_open")]


def test_line_volts_at_the_controls_are_asked_about():
    line = read_line("120v at board", THERE)
    assert not line.writable
    assert line.asks[0].choices == ("v L1 N 120", "v R C 120")
    for choice in line.asks[0].choices:
        assert read_line(choice, THERE).writable
    assert read_line("24.8v at board", THERE).writable


@pytest.mark.parametrize(
    ("text", "quantity"),
    [
        ("thermocouple 12 mv open", "thermocouple_open_v"),
        ("tc reads 12 millivolts loaded", "thermocouple_load_v"),
        ("generator 12 mv open", "thermopile_open_v"),
    ],
)
def test_millivolts_with_the_circuit_open_are_no_open_thermocouple(text, quantity):
    assert [row[:2] for row in said(text, BOILER)] == [(quantity, 12)]
    assert said("thermocouple open", BOILER)[0][:2] == ("thermocouple", "open")


def test_volts_are_no_place():
    assert not read_line("24v to gas valve no gas", THERE).writable
    assert [row[:2] for row in said("gas valve not opening with 24v")] == [("gas_valve", "stuck_closed")]


def test_what_a_device_is_set_to_is_no_reading():
    assert not read_line("aquastat set 180", BOILER).writable
    assert said("aquastat reads 176", BOILER)[0][:2] == ("water_supply_temp_k", 176)


def test_where_a_limit_opened_in_a_test_is_its_point():
    assert said("limit ok, opened at 168")[1][:2] == ("limit_point_k", 168)


def test_a_switch_that_nobody_named_is_not_the_part_spoken_of():
    line = read_line("pulled hose, switch opened", THERE)
    assert line.unread == ("switch", "opened")
    assert said("rod dirty, badly cracked")[1][:2] == ("flame_rod", "cracked")


@pytest.mark.parametrize("text", ["no spillage after 5 min", "no spillage after 5 min with doors closed"])
def test_no_spillage_is_said_of_the_vent_whatever_stands_open(text):
    (body,) = read_line(text, THERE).bodies
    assert (body.part, body.condition, body.absent) == ("vent", "spilling", True)
    assert body.place.startswith("after 5 min")


def test_a_dryer_that_ran_in_a_test_is_no_other_trade():
    assert said("vent spilling with dryer running")[0][:2] == ("vent", "spilling")
    assert not read_line("dryer vent dirty", THERE).writable


@pytest.mark.parametrize(
    ("text", "units"),
    [
        ("inlet 22 mbar running 25 standing", ["mbar", "mbar"]),
        ("inlet 22 mbar manifold 9.8", ["mbar", "mbar"]),
        ("supply 52 c return 20", ["°C", "°C"]),
        ("stack 185 c air 20", ["°C", "°C"]),
        ("inlet 2 psi manifold 3.5", ["psi", "inWC"]),
        ("co 46 ppm o2 6.4", ["ppm", "%"]),
    ],
)
def test_a_bare_number_takes_the_unit_of_its_like_beside_it(text, units):
    line = read_line(text, THERE)
    assert [body.unit for body in line.bodies] == units
    assert bool(line.doubts) == (len(set(units)) == 1)


@pytest.mark.parametrize(
    "text",
    ["exchanger cracked co 12 in supply air", "took o2 at low fire 9.1", "spilling with co 45", "flame lazy o2 4.1"],
)
def test_a_reading_is_never_lost_in_the_place_of_a_finding(text):
    assert not read_line(text, THERE).writable


def test_a_stage_that_a_reading_does_not_have_is_kept_beside_it():
    two = situation(unit_from_dict(unit_of("furnace_modulating")))
    bodies = read_line("blower 4.2 a low 6.8 a high", two).bodies
    assert [(body.typed, body.place, body.stage) for body in bodies] == [(4.2, "low", None), (6.8, "high", None)]


def test_a_leak_test_is_no_leak():
    for text in ("leak tested gas train, tight", "leak tested, tight", "checked gas line for leaks, none found"):
        (body,) = read_line(text, THERE).bodies
        assert (type(body), body.what, body.passed) == (Proof, "leak", True)
    assert not read_line("gas leak tested at union, bubbles", THERE).writable


def test_a_piece_of_a_part_is_kept_with_what_was_done_to_it():
    (body,) = read_line("replaced inducer gasket", THERE).bodies
    assert (body.part, body.detail) == ("inducer", "gasket")
    assert said("tightened flare nut")[0][:2] == ("gas_joint", "tighten")
