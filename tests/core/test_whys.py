"""Every computed number opens its why, and the why says what the number is."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.limits import band_for
from havrin_core.limits.model import Beside
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.documents import body_from_dict, body_to_dict
from havrin_core.tape.entries import Reading
from havrin_core.workings.whys import why_of
from tests.core.rows import furnace, judge, situation

BANDS = [
    ("manifold_pa", "only"),
    ("supply_standing_pa", None),
    ("input_w", "only"),
    ("draft_pa", "only"),
    ("flame_current_a", None),
]


def rise(cold_k: float, hot_k: float) -> Reading:
    line = read_line("rise", situation(air_temps_k=lambda: (cold_k, hot_k)))
    body = line.bodies[0]
    assert isinstance(body, Reading)
    return body


@pytest.mark.parametrize(("quantity", "stage"), BANDS)
def test_a_computed_limit_says_from_what(quantity, stage):
    band = band_for(furnace(), HouseRules(), quantity, stage, Beside(running_pa=1750.0))
    assert band is not None
    assert band.why is not None
    assert band.why.formula
    assert band.why.inputs


@pytest.mark.parametrize(("quantity", "stage"), [("temperature_rise_k", "only"), ("external_static_pa", None)])
def test_a_stamped_limit_needs_no_why(quantity, stage):
    band = band_for(furnace(), HouseRules(), quantity, stage)
    assert band is not None
    assert band.why is None


@given(rule=st.sampled_from(["four_pct_per_1000_ft", "two_pct_per_1000_ft", "none"]))
def test_the_inputs_of_the_altitude_why_give_the_limit(rule):
    band = band_for(furnace(), HouseRules(altitude_derate=rule), "input_w", "only")
    assert band is not None
    assert band.why is not None
    assert band.low is not None
    plate, _, taken_off_pct = (i.value for i in band.why.inputs)
    assert band.low == pytest.approx(0.90 * plate * (1 - taken_off_pct / 100))


@given(cold=st.floats(280, 305), warmer=st.floats(1, 40))
def test_a_rise_computed_from_two_readings_keeps_both(cold, warmer):
    body = rise(cold, cold + warmer)
    parts = dict(body.computed_from)
    assert body.value == pytest.approx(parts["supply_air_temp_k"] - parts["return_air_temp_k"])
    assert body_from_dict("reading", body_to_dict(body), "entry 1", 2) == body


def test_a_rise_that_was_read_is_its_own_source():
    found = judge("rise 49")
    view = next(v for s in found.stations for v in s.readings if v.quantity == "temperature_rise_k")
    assert view.computed_from == ()
    assert why_of(view) is None
