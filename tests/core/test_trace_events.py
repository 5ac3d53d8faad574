"""Events on a live trace: proposed where they happened, steps with the trend taken off, stillness per channel."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from havrin_core.machine.circuit.read import shipped_circuit
from havrin_core.machine.virtual.live_unit import LiveUnit
from havrin_core.traces.events import EVENTS, propose_events, steps_at
from havrin_core.traces.series import Series
from havrin_core.traces.steady import noise_of, still_stretch

SECONDS = np.arange(0.0, 120.0, 0.2)


def trace(**channels):
    return Series(SECONDS, {name: np.asarray(values, dtype=float) for name, values in channels.items()}, ())


def noisy(values, sigma, seed=1):
    return values + np.random.default_rng(seed).normal(0, sigma, len(SECONDS))


def test_light_off_stage_and_burner_off_are_proposed_where_they_happened():
    manifold = np.select([SECONDS < 10, SECONDS < 50, SECONDS < 90], [0.0, 370.0, 800.0], 0.0)
    found = propose_events(trace(manifold_pa=noisy(manifold, 2.0)))
    assert [event.kind for event in found] == ["light_off", "stage_change", "burner_off"]
    assert [event.at_s for event in found] == pytest.approx([10, 50, 90], abs=1.5)
    assert all(event.kind in EVENTS for event in found)


def test_a_flicker_is_no_event():
    manifold = np.where((SECONDS > 40) & (SECONDS < 41), 0.0, 800.0)
    assert propose_events(trace(manifold_pa=manifold)) == ()


@settings(max_examples=40)
@given(st.floats(-3, 3), st.floats(-0.02, 0.02))
def test_a_step_is_found_whatever_the_trend(step, slope):
    values = noisy(6.0 + slope * SECONDS + np.where(SECONDS >= 60, step, 0.0), 0.03)
    found = steps_at(trace(o2_dry_pct=values), 60.0)[0]
    assert found.step == pytest.approx(step, abs=0.3)
    if abs(step) > found.half_width:
        assert found.confidence > 0.9


def test_a_cell_that_still_settles_makes_no_step():
    settling = noisy(7.0 + 14.0 * np.exp(-(SECONDS - 15) / 7.0), 0.03)
    still = steps_at(trace(o2_dry_pct=settling), 60.0)[0]
    stepped = steps_at(trace(o2_dry_pct=settling + np.where(SECONDS >= 60, 1.0, 0.0)), 60.0)[0]
    assert abs(still.step) < 0.25
    assert stepped.step == pytest.approx(1.0, abs=0.25)


def test_no_step_without_samples_on_both_sides():
    assert steps_at(trace(o2_dry_pct=np.full(len(SECONDS), 6.0)), 118.0) == ()


def test_a_quiet_channel_has_a_step_near_nothing():
    found = steps_at(trace(o2_dry_pct=noisy(np.full(len(SECONDS), 6.0), 0.03)), 60.0)[0]
    assert abs(found.step) < 0.05
    assert found.half_width < 0.6  # a minute before it is too little to know the cell by


def test_still_alone_and_together():
    moving = trace(
        o2_dry_pct=noisy(np.where(SECONDS < 60, 20.9 - SECONDS / 6, 7.0), 0.03),
        manifold_pa=noisy(np.where(SECONDS < 95, 870.0, 400.0), 2.0),
    )
    oxygen, manifold = still_stretch(moving, ["o2_dry_pct"]), still_stretch(moving, ["manifold_pa"])
    both = still_stretch(moving, ["o2_dry_pct", "manifold_pa"])
    assert oxygen == pytest.approx((60, 119), abs=3)
    assert manifold == pytest.approx((0, 94), abs=3)
    assert both == pytest.approx((60, 94), abs=3)


def test_a_gap_is_not_still():
    values = np.where((SECONDS > 40) & (SECONDS < 80), np.nan, 870.0)
    assert still_stretch(trace(manifold_pa=values), ["manifold_pa"]) == pytest.approx((0, 40), abs=2.5)
    assert still_stretch(trace(manifold_pa=np.full(len(SECONDS), np.nan)), ["manifold_pa"]) is None
    assert still_stretch(trace(unheard_of=SECONDS), ["unheard_of"]) is None
    assert noise_of("volts_across_v@3-C") is not None


def test_the_events_of_a_virtual_unit_are_its_own():
    unit = LiveUnit(shipped_circuit("furnace_80_two_stage"))
    seconds = np.arange(30.0, 320.0, 0.2)
    moments = [unit.at(float(s)) for s in seconds]
    manifold = np.array([m.values["manifold_pa"] for m in moments])
    found = propose_events(Series(seconds, {"manifold_pa": manifold}, ()))
    lit = next(float(s) for s, m in zip(seconds, moments, strict=True) if m.lit_s >= 0)
    assert [event.kind for event in found] == ["light_off", "stage_change"]
    assert found[0].at_s == pytest.approx(lit, abs=3)


def wandering(rng, seconds, memory_s, sigma):
    """A channel that stands still behind a lagging cell: noise through a first-order lag, and a little white noise on it."""
    apart = seconds[1] - seconds[0]
    keep = np.exp(-apart / memory_s) if memory_s else 0.0
    kicks = rng.normal(0, sigma * np.sqrt(1 - keep**2), len(seconds))
    values = np.empty(len(seconds))
    values[0] = rng.normal(0, sigma)
    for index in range(1, len(seconds)):
        values[index] = keep * values[index - 1] + kicks[index]
    return values + rng.normal(0, 0.3 * sigma, len(seconds))


@pytest.mark.parametrize("memory_s", [0.0, 2.0, 6.0, 12.0])
@pytest.mark.parametrize("every_s", [0.5, 1.0])
@pytest.mark.parametrize("ahead_s", [40.0, 180.0])
def test_a_still_cell_is_called_stepped_in_about_one_of_twenty_at_most(memory_s, every_s, ahead_s):
    rng = np.random.default_rng(int(10 * memory_s + every_s * 3 + ahead_s))
    seconds = np.arange(0.0, ahead_s + 60.0, every_s)
    runs = 120
    sure = 0
    for _ in range(runs):
        values = np.round(6.5 + wandering(rng, seconds, memory_s, 0.15), 1)
        step = steps_at(Series(seconds, {"o2_dry_pct": values}, ()), ahead_s)[0]
        sure += step.confidence > 0.95
    assert sure / runs <= 0.11  # 5 %, and two and a half standard deviations of what so few runs leave open


def test_a_step_of_one_percent_is_seen_through_a_lagging_cell():
    rng = np.random.default_rng(9)
    seconds = np.arange(0.0, 240.0, 1.0)
    seen = 0
    for _ in range(60):
        values = (
            6.5 + wandering(rng, seconds, 4.0, 0.08) + np.where(seconds >= 185, 1 - np.exp(-(seconds - 185) / 5), 0.0)
        )
        step = steps_at(Series(seconds, {"o2_dry_pct": values}, ()), 180.0)[0]
        seen += step.confidence > 0.95
    assert seen > 40
