"""Events on a trace: proposed where they happened, none where nothing did; stillness per channel."""

import numpy as np
import pytest

from havrin_core.machine.circuit.read import shipped_circuit
from havrin_core.machine.virtual.live_unit import LiveUnit
from havrin_core.traces.events import EVENTS, propose_events
from havrin_core.traces.series import Series
from havrin_core.traces.steady import noise_of, still_stretch

SECONDS = np.arange(0.0, 120.0, 0.2)


def trace(**channels):
    return Series(SECONDS, {name: np.asarray(values, dtype=float) for name, values in channels.items()}, ())


def noisy(values, sigma, seed=1):
    return values + np.random.default_rng(seed).normal(0, sigma, len(SECONDS))


def kinds(**channels):
    return [event.kind for event in propose_events({name: (SECONDS, values) for name, values in channels.items()})]


def test_light_off_stage_and_burner_off_are_proposed_where_they_happened():
    manifold = np.select([SECONDS < 10, SECONDS < 50, SECONDS < 90], [0.0, 370.0, 800.0], 0.0)
    found = propose_events({"manifold_pa": (SECONDS, noisy(manifold, 2.0))})
    assert [event.kind for event in found] == ["light_off", "stage_change", "burner_off"]
    assert [event.at_s for event in found] == pytest.approx([10, 50, 90], abs=1.5)
    assert all(event.kind in EVENTS for event in found)


@pytest.mark.parametrize("lasts_s", [0.3, 1.0, 4.0, 15.0])
@pytest.mark.parametrize("up", [True, False])
def test_a_stage_change_is_seen_however_long_it_takes(lasts_s, up):
    share = np.clip((SECONDS - 60) / lasts_s, 0, 1)
    manifold = 370 + 480 * (share if up else 1 - share)
    found = propose_events({"manifold_pa": (SECONDS, noisy(manifold, 2.0))})
    assert [event.kind for event in found] == ["stage_change"]
    assert found[0].at_s == pytest.approx(60 + lasts_s / 2, abs=max(0.5, lasts_s / 2))


def test_a_flicker_is_no_event():
    assert kinds(manifold_pa=np.where((SECONDS > 40) & (SECONDS < 41), 0.0, 800.0)) == []


def test_a_light_off_that_failed_is_told_from_the_real_one():
    tried = (SECONDS > 20) & (SECONDS < 27)
    lit = SECONDS > 70
    manifold = np.where(tried | lit, 800.0, 0.0)
    flame = np.where(SECONDS > 72, 3e-6, 0.0)
    assert kinds(manifold_pa=noisy(manifold, 2.0), flame_current_a=flame) == ["failed_light_off", "light_off"]
    assert kinds(manifold_pa=noisy(manifold, 2.0)) == ["failed_light_off", "light_off"]


def test_a_flame_that_shows_for_a_moment_and_is_lost_did_not_light():
    manifold = np.where((SECONDS > 20) & (SECONDS < 27), 800.0, 0.0)
    flame = np.where((SECONDS > 21) & (SECONDS < 23), 2e-6, 0.0)
    assert kinds(manifold_pa=manifold, flame_current_a=flame) == ["failed_light_off"]


def test_a_blower_that_only_twitches_has_not_started():
    assert kinds(blower_current_a=np.where((SECONDS > 20) & (SECONDS < 21), 4.0, 0.0)) == []
    assert kinds(blower_current_a=np.where(SECONDS > 20, 4.0, 0.0)) == ["blower_on"]


def test_a_gap_is_neither_a_light_off_nor_an_end():
    there = (SECONDS < 40) | (SECONDS > 80)
    assert propose_events({"manifold_pa": (SECONDS[there], np.full(there.sum(), 800.0))}) == ()


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


def test_a_slow_climb_is_not_still():
    climbs = 6.0 + SECONDS / 100  # 0.2 % in each 20 s, and 1.2 % in all
    found = still_stretch(trace(o2_dry_pct=noisy(climbs, 0.01)), ["o2_dry_pct"])
    assert found is None or found[1] - found[0] < 60


def test_the_events_of_a_virtual_unit_are_its_own():
    unit = LiveUnit(shipped_circuit("furnace_80_two_stage"))
    seconds = np.arange(30.0, 320.0, 0.2)
    moments = [unit.at(float(s)) for s in seconds]
    manifold = np.array([m.values["manifold_pa"] for m in moments])
    found = propose_events({"manifold_pa": (seconds, manifold)})
    lit = next(float(s) for s, m in zip(seconds, moments, strict=True) if m.lit_s >= 0)
    assert [event.kind for event in found] == ["light_off", "stage_change"]
    assert found[0].at_s == pytest.approx(lit, abs=3)
