"""Boilers, make-up air, rooftop dampers: what their standing asks for and what it will not pass."""

import pytest

from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.limits import band_for
from havrin_core.machine.kind_files import build_unit
from havrin_core.machine.unit import Plate, Stage, Unit
from havrin_core.wording.missing import missing_text
from tests.core.rows import codes, judge

SOUND = (
    "room 0",
    "supply 6.8",
    "mp 3.5",
    "draft .58",
    "ua 3.1",
    "o2 7.9 co 28 t 352 air 64",
    "wp 16",
    "wrise 22",
    "relief ok",
    "vent ok",
    "exchanger ok 5/5",
    "proved low water",
    "cycles 1",
)


def boiler() -> Unit:
    plate = Plate(
        "NG_H",
        (Stage("only", 43960, 871.8, 105),),
        1245.4,
        2615.4,
        flame_min_a=8e-7,
        exchanger_cells=5,
        water_relief_pa=206_843,
        water_max_k=363.15,
        water_rise_min_k=8.3,
        water_rise_max_k=22.2,
    )
    return build_unit("B-9 · Test bench", "boiler_power_vent", plate, 1532)


def make_up_air() -> Unit:
    stages = (Stage("low", 11723, 24.9, 110), Stage("high", 117230, 1245.4, 110))
    plate = Plate("NG_H", stages, 1743.6, 3487.2, flame_min_a=8e-7, supply_air_max_k=333.15)
    return build_unit("MA-9 · Test bench", "make_up_air", plate, 1548)


def without(start):
    return tuple(line for line in SOUND if not line.startswith(start))


def test_a_sound_boiler_may_be_left_running():
    found = judge(*without("wrise"), "wrise 21", unit=boiler())
    assert (found.level, found.missing) == (1, ())


@pytest.mark.parametrize(
    ("line", "named"),
    [
        ("wp", "water pressure"),
        ("wrise", "water rise"),
        ("relief", "relief valve"),
        ("proved", "low-water"),
        ("draft", "draft"),
    ],
)
def test_what_a_boiler_must_show(line, named):
    found = judge(*without(line), unit=boiler())
    assert found.level == 3
    assert any(named in missing_text(m) for m in found.missing)


@pytest.mark.parametrize(
    ("line", "level", "code"),
    [
        ("wp 28", 3, "water_pressure_pa_out"),  # at the relief valve's door
        ("wp 4", 3, "water_pressure_pa_out"),
        ("wp 25", 2, "water_pressure_pa_near"),
        ("ws 205", 3, "water_supply_temp_k_out"),
        ("wrise 60", 3, "water_rise_k_out"),
        ("relief weeps", 3, "relief.dripping"),
        ("relief plugged", 4, "relief.plugged"),
    ],
)
def test_what_holds_a_boiler_back(line, level, code):
    found = judge(*SOUND, line, unit=boiler())
    assert found.level == level
    assert code in codes(found)


def test_a_plugged_relief_valve_needs_a_new_one_and_a_look():
    lines = (*without("wrise"), "wrise 21", "relief plugged")
    assert judge(*lines, "relief ok", unit=boiler()).level == 4
    assert judge(*lines, "did change relief", "relief ok", "wp 16", unit=boiler()).level == 1


def test_water_pressure_needs_no_plate_to_be_too_low():
    bare = build_unit("B", "boiler_atmospheric", Plate("NG_H", (Stage("only"),)), 0)
    band = band_for(bare, HouseRules(), "water_pressure_pa", None)
    assert band is not None
    assert (band.source, band.high) == ("default", 206843.0)
    assert band.verdict(30_000) == "out"


MAKE_UP = (
    "room 1",
    "supply 9.9",
    "mp 0.1 lo",
    "mp 5.0 hi",
    "draft .66 lo",
    "draft .68 hi",
    "ua 3.3 lo",
    "ua 3.8 hi",
    "cycles 1",
)


def test_a_make_up_air_unit_is_judged_by_what_it_adds():
    good = judge(*MAKE_UP, "ico 1", "dco 3 lo", "dco 4 hi", unit=make_up_air())
    assert good.level == 1
    bad = judge(*MAKE_UP, "ico 1", "dco 3 lo", "dco 9 hi", unit=make_up_air())
    assert bad.level == 4
    assert "discharge_co" in codes(bad)


@pytest.mark.parametrize("lines", [("dco 3 lo", "dco 4 hi"), ("ico 1", "dco 4 hi"), ("ico 1",)])
def test_intake_and_discharge_are_both_wanted(lines):
    found = judge(*MAKE_UP, *lines, unit=make_up_air())
    assert found.level == 3
    assert any(m.proof == "discharge_co_each_stage" for m in found.missing)


def test_a_dropped_fire_damper_is_told_to_the_owner():
    stages = (Stage("only", 26376, 871.8, 149.5),)
    plate = Plate("NG_H", stages, 1245.4, 2615.4, 19.44, 36.11, 347.0, flame_min_a=8e-7, exchanger_cells=4)
    unit = build_unit("RT-9", "rooftop", plate, 1525)
    found = judge("damper dropped", unit=unit, reason="recheck")
    assert "fire_damper.dropped" in codes(found)
    assert next(r.lifts for r in found.reasons if r.code == "fire_damper.dropped")


CONDENSING = build_unit(
    "B-8 · Test bench",
    "boiler_condensing",
    Plate("NG_H", (Stage("low", 11723), Stage("high", 58615)), flame_min_a=8e-7),
    1548,
)


@pytest.mark.parametrize(
    ("unit", "back", "code"),
    [
        (CONDENSING, "wr 150", "cannot_condense"),
        (CONDENSING, "wr 105", None),
        (boiler(), "wr 100", "condenses"),
        (boiler(), "wr 150", None),
    ],
)
def test_a_return_on_the_wrong_side_of_the_dew_point_is_told(unit, back, code):
    stage = "hi " if unit is CONDENSING else ""
    found = codes(judge(f"{stage}o2 4.9 co 48 t 150 air 70", back, unit=unit))
    assert found & {"cannot_condense", "condenses"} == ({code} if code else set())
