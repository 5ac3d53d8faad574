"""Readings as people say them: in other words than the bar's, dictated, several at once; and never with a word left over."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.shorthand.model import situation_of
from havrin_core.shorthand.numbers import number_at
from havrin_core.shorthand.other_words import spoken_line
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.bundle import unit_from_dict
from havrin_core.tape.entries import Code, Condition, Reading, Said
from tests.core.trade import unit_of

FURNACE = situation_of(unit_from_dict(unit_of("furnace_80")))
MODULATING = situation_of(unit_from_dict(unit_of("furnace_modulating")))
BOILER = situation_of(unit_from_dict(unit_of("boiler_atmospheric")))
MAKE_UP = situation_of(unit_from_dict(unit_of("make_up_air")))
_INWC = 249.08891


def readings(text, situation=FURNACE):
    line = read_line(text, situation)
    assert line.writable, (text, line.unread, line.problems, line.asks)
    return [(body.quantity, body.value) for body in line.bodies if isinstance(body, Reading)]


@pytest.mark.parametrize(
    ("text", "quantity", "value"),
    [
        ("manifold pressure was 3.4 inches of water", "manifold_pa", 3.4 * _INWC),
        ("got 3.4 in wc on the manifold", "manifold_pa", 3.4 * _INWC),
        ("oxygen is 7.5 percent", "o2_dry_pct", 7.5),
        ("o two seven point five", "o2_dry_pct", 7.5),
        ("ua 2 min", "flame_least_a", 2e-6),  # no flame signal is read in minutes
        ("spillage 2 min", "spillage_s", 120),
        ("carbon monoxide 38 parts per million", "co_ppm_dry", 38),
        ("stack temperature: three hundred forty two degrees f", "flue_temp_k", (342 + 459.67) / 1.8),
        ("standing pressure 7.9", "supply_standing_pa", 7.9 * _INWC),
        ("flame current = 2.8 microamps", "flame_current_a", 2.8e-6),
        ("vacuum at the pressure switch point nine", "draft_pa", 0.9 * _INWC),
        ("co in the room 4", "room_co_ppm", 4),
        ("3 ppm co in the room", "room_co_ppm", 3),
        ("return air temp 68", "return_air_temp_k", (68 + 459.67) / 1.8),
        ("inducer draws 1.6 amps", "inducer_current_a", 1.6),
        ("min ua 0.9", "flame_least_a", 0.9e-6),
    ],
)
def test_a_reading_is_read_in_the_words_of_the_trade(text, quantity, value):
    assert readings(text) == [(quantity, pytest.approx(value))]


def test_several_readings_with_all_kinds_of_marks_between_them():
    assert readings("O2: 6.4, CO: 46, stack temp 340") == [
        ("o2_dry_pct", 6.4),
        ("co_ppm_dry", 46),
        ("flue_temp_k", pytest.approx((340 + 459.67) / 1.8)),
    ]
    assert readings("o2=6.4/co=46") == [("o2_dry_pct", 6.4), ("co_ppm_dry", 46)]
    assert readings("46 ppm co 6.4 % o2") == [("co_ppm_dry", 46), ("o2_dry_pct", 6.4)]


def test_each_stage_has_the_readings_behind_it():
    line = read_line("low fire o2 8.8 co 15, high fire o2 6.0 co 30", MODULATING)
    assert [(body.quantity, body.stage, body.value) for body in line.bodies] == [
        ("o2_dry_pct", "low", 8.8),
        ("co_ppm_dry", "low", 15),
        ("o2_dry_pct", "high", 6.0),
        ("co_ppm_dry", "high", 30),
    ]
    assert read_line("first stage 1.6 manifold", MODULATING).bodies[0].stage == "low"


def test_supply_and_return_are_water_where_water_is_heated():
    assert readings("flow temp 160 return temp 140", BOILER)[0][0] == "water_supply_temp_k"
    assert readings("supply temp 135", FURNACE)[0][0] == "supply_air_temp_k"


def test_ppm_tells_the_intake_and_the_discharge_of_a_make_up_air_unit():
    assert readings("high fire intake 0 ppm discharge 3 ppm", MAKE_UP) == [
        ("intake_co_ppm", 0),
        ("discharge_co_ppm", 3),
    ]
    assert readings("discharge 82", MAKE_UP)[0][0] == "supply_air_temp_k"
    assert not read_line("intake 82", MAKE_UP).writable


def test_volts_across_a_contact_are_those_of_the_string():
    body = read_line("26 volts across the pressure switch", FURNACE).bodies[0]
    assert (body.quantity, body.value, body.station) == ("volts_across_v", 26, "pressure_switch")
    assert read_line("across limit 0.1 v", FURNACE).bodies[0].station == "limit"
    assert not read_line("26 volts across the moon", FURNACE).writable


WORDS = st.sampled_from(["purple", "maybe", "not", "almost", "minus-ish", "yesterday", "customer", "ladder"])


@given(WORDS, st.integers(0, 4))
def test_a_word_that_is_none_of_a_reading_is_never_dropped(word, at):
    words = ["manifold", "pressure", "was", "3.4", "inches"]
    words.insert(at, word)
    line = read_line(" ".join(words), FURNACE)
    assert not (line.writable and all(isinstance(body, Reading) for body in line.bodies))


@given(st.decimals(0, 9, places=1), st.sampled_from(["oxygen", "o two", "flue o2", "stack o2"]))
def test_digits_and_dictated_digits_are_the_same_reading(value, name):
    spelled = ["zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine"]
    whole, tenth = str(value).split(".")
    said = f"{name} {spelled[int(whole)]} point {spelled[int(tenth)]}"
    assert readings(said) == readings(f"{name} {value}") == [("o2_dry_pct", pytest.approx(float(value)))]


@pytest.mark.parametrize(
    ("said", "text"),
    [
        ("eighty five", "85"),
        ("three forty two", "342"),
        ("one hundred", "100"),
        ("negative point six six", "-0.66"),
        ("1 1/2", "1 1/2"),
        ("one point oh five", "1.05"),
        ("two and a half", "2.5"),
        ("twelve", "12"),
    ],
)
def test_numbers_are_read_as_they_are_dictated(said, text):
    words = said.split()
    found = number_at(words, 0)
    assert (found.text, found.stop) == (text, len(words))


@pytest.mark.parametrize("said", ["ladder", "point", "minus", ""])
def test_what_is_no_number_is_none(said):
    assert number_at(said.split(), 0) is None


@pytest.mark.parametrize(
    "text", ["recommend a new exchanger", "quoted new board 640", "suggested replacing the rod", "should clean burners"]
)
def test_what_was_only_advised_is_not_done(text):
    line = read_line(text, FURNACE)
    assert [(type(body), body.what) for body in line.bodies] == [(Said, "advise")]


def test_a_good_before_but_is_not_written_beside_the_worse():
    line = read_line("blower ok but dirty", FURNACE)
    assert [body.condition for body in line.bodies if isinstance(body, Condition)] == ["dirty"]
    assert line.doubts
    assert not read_line("igniter ok but something funny", FURNACE).writable


@pytest.mark.parametrize(
    ("text", "bar"),
    [
        ("three flashes", "code 3"),
        ("blinking 4 times", "code 4"),
        ("two long one short", "code L L S"),
        ("fault codes 13, 31 in memory", "code 13, 31"),
        ("ordered a new pressure switch", "part pressure switch"),
        ("the owner must approve new exchanger", "approve owner new exchanger"),
        ("will be back on friday", "again friday"),
        ("clocked 2 foot dial in 96 seconds", "clock 2 ft3 96 s"),
        ("10 uf capacitor measures 8.7", "cap 8.7 10"),
        ("ladder is in the truck", None),
        ("99 long 2 short", None),
        ("", None),
    ],
)
def test_whole_lines_stand_for_lines_of_the_bar(text, bar):
    assert spoken_line(text) == bar


@pytest.mark.parametrize("text", ["three flashes", "blinking 4 times", "codes 3, 5 stored"])
def test_what_the_board_flashes_is_a_code(text):
    assert {type(body) for body in read_line(text, FURNACE).bodies} == {Code}


def test_what_stood_still_while_it_was_tested_is_no_finding_of_its_own():
    line = read_line("limit does not act with blower off", FURNACE)
    assert [(body.part, body.place) for body in line.bodies] == [("limit", "with blower off")]


@pytest.mark.parametrize(
    "text", ["compressor contactor pitted", "solar inverter fan dirty", "outdoor fan 5 amps blower"]
)
def test_another_trades_system_is_a_note(text):
    line = read_line(text, FURNACE)
    assert not line.writable
    assert line.offers_note


def test_readings_stand_beside_findings_and_work():
    line = read_line("rod dirty, cleaned, 3.0 ua", FURNACE)
    assert line.writable
    assert [type(body).__name__ for body in line.bodies] == ["Condition", "Action", "Reading"]
