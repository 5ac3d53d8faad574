"""Which instrument reads a quantity."""

import pytest

from havrin_core.errors import UnknownName
from havrin_core.vocabulary.instruments import INSTRUMENT_KINDS, instrument_for, kinds_that_read
from havrin_core.vocabulary.measurands import MEASURANDS

# as a technician carries them: what is read with what
CARRIED = {
    "analyzer": {"o2_dry_pct", "co_ppm_dry", "co2_dry_pct", "flue_temp_k", "air_temp_k", "intake_co_ppm"},
    "manometer": {"manifold_pa", "supply_running_pa", "supply_standing_pa", "external_static_pa", "draft_pa"},
    "multimeter": {"flame_current_a", "volts_across_v", "blower_current_a", "igniter_ohm", "thermopile_load_v"},
    "thermometer": {"supply_air_temp_k", "return_air_temp_k", "water_supply_temp_k"},
    "monitor": {"room_co_ppm"},
    "gas_detector": {"gas_lel_pct"},
}


@pytest.mark.parametrize("kind", CARRIED)
def test_each_kind_reads_what_it_is_made_for(kind):
    for quantity in CARRIED[kind]:
        assert kinds_that_read(quantity)[0] == kind, quantity


def test_only_known_kinds_read():
    for each in MEASURANDS:
        assert set(kinds_that_read(each.key)) <= set(INSTRUMENT_KINDS), each.key


@pytest.mark.parametrize(
    "quantity", ["forecast_temp_k", "limit_point_k", "vent_height_m", "water_pressure_pa", "input_w"]
)
def test_what_no_instrument_of_the_technician_reads(quantity):
    assert kinds_that_read(quantity) == ()
    assert instrument_for(quantity, dict.fromkeys(INSTRUMENT_KINDS, "any")) is None


def test_the_next_kind_reads_where_the_first_is_not_in_hand():
    assert instrument_for("room_co_ppm", {"monitor": "M", "analyzer": "A"}) == "M"
    assert instrument_for("room_co_ppm", {"analyzer": "A"}) == "A"
    assert instrument_for("manifold_pa", {"analyzer": "A"}) is None


def test_an_unknown_quantity_is_refused():
    with pytest.raises(UnknownName):
        kinds_that_read("wind_speed")
