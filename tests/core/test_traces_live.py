"""Live traces: packing, dips, first movers, quiet runs."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.errors import CoreError
from havrin_core.traces.dips import Dip, bursts, find_dips, quiet_run_s
from havrin_core.traces.movers import moved_at
from havrin_core.traces.samples import checked, joined, pack, unpack
from havrin_core.vocabulary.channels import channel_name, leads_of

STEPS = st.lists(st.tuples(st.integers(0, 5000), st.floats(-1e4, 1e4, width=32)), min_size=1, max_size=200)


@given(st.integers(0, 10**12), STEPS)
def test_packed_samples_come_back(start, rows):
    times = list(np.cumsum([step for step, _ in rows]) + start)
    values = [value for _, value in rows]
    back, read = unpack(pack(times, values))
    assert list(back) == times
    assert list(read) == values


def test_blocks_are_joined_in_time():
    seconds, values = joined([pack([2000, 3000], [3, 4]), pack([0, 1000], [1, 2])])
    assert list(seconds) == [0, 1, 2, 3]
    assert list(values) == [1, 2, 3, 4]
    assert len(joined([])[0]) == 0


@given(st.lists(st.tuples(st.booleans(), st.integers(1, 8)), min_size=1, max_size=20))
def test_every_stretch_under_the_point_is_one_dip(rows):
    values = np.concatenate([np.full(n, 50.0 if low else 150.0) for low, n in rows])
    seconds = np.arange(len(values)) / 10
    runs = sum(1 for i, (low, _) in enumerate(rows) if low and (i == 0 or not rows[i - 1][0]))
    dips = find_dips(seconds, values, 100.0)
    assert len(dips) == runs
    assert all(dip.depth == pytest.approx(50) for dip in dips)


def test_a_gap_in_the_trace_is_no_dip():
    assert find_dips(np.arange(4.0), np.array([150, np.nan, np.nan, 150]), 100.0) == ()


def test_who_moved_first_and_who_did_not():
    seconds = np.arange(0, 10, 0.1)
    noise = np.random.default_rng(3).normal(0, 0.2, (3, len(seconds)))
    draft = 220 + noise[0] - 120 * (seconds >= 5.0)
    volts = 26 + 0.1 * noise[1] - 26 * (seconds >= 5.3)
    supply = 26 + 0.1 * noise[2]
    moved = moved_at({"volts": (seconds, volts), "draft": (seconds, draft), "supply": (seconds, supply)}, 5.0)
    assert [name for name, _ in moved.order] == ["draft", "volts"]
    assert moved.order[1][1] - moved.order[0][1] == pytest.approx(0.3, abs=0.06)
    assert moved.still == ("supply",)
    assert {name for name, one in moved.seen.items() if one.fell} == {"volts", "draft"}


def test_a_supply_that_sags_has_moved_and_not_fallen():
    seconds = np.arange(0, 10, 0.1)
    noise = 0.02 * np.random.default_rng(3).normal(0, 1, len(seconds))
    sagging, lost = 26.3 + noise - 0.8 * (seconds >= 5), 26.3 + noise - 26 * (seconds >= 5)
    moved = moved_at({"sagging": (seconds, sagging), "lost": (seconds, lost)}, 5.0)
    assert {name for name, _ in moved.order} == {"sagging", "lost"}
    assert [name for name, one in moved.seen.items() if one.fell] == ["lost"]


def test_a_channel_without_quiet_before_says_nothing():
    assert moved_at({"x": (np.arange(0, 2, 0.1), np.zeros(20))}, 0.2).seen == {}


def test_how_long_it_must_run_quiet():
    assert quiet_run_s(3, 600) == pytest.approx(600 * (20 ** (1 / 3) - 1))
    assert quiet_run_s(1, 600) == pytest.approx(19 * 600)
    assert quiet_run_s(0, 600) is None
    assert bursts([Dip(0, 1, 0, 1), Dip(5, 6, 0, 1), Dip(60, 61, 0, 1)]) == 2


@pytest.mark.parametrize("count", [1, 3, 8])
def test_a_fault_that_is_still_there_stays_quiet_so_long_in_one_of_twenty(count):
    """Truth drawn by chance: rates of every size, kept where just so many dips came while it was watched."""
    rng = np.random.default_rng(count)
    rates = np.exp(rng.uniform(np.log(1e-6), np.log(1.0), 4_000_000))
    kept = rates[rng.poisson(rates * 100.0) == count]
    quiet = rng.exponential(1 / kept) > quiet_run_s(count, 100.0)
    assert quiet.mean() == pytest.approx(0.05, abs=0.008)


def test_channels_have_names():
    assert channel_name("volts_across_v@3-C") == "Volts 3–C"
    assert channel_name("draft_pa") == "Draft at switch"
    assert (leads_of("volts_across_v@3-C"), leads_of("draft_pa")) == (("3", "C"), None)
    with pytest.raises(CoreError):
        channel_name("mood@1-2")
    with pytest.raises(CoreError):
        checked([1], [float("nan")], "draft")
