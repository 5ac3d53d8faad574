"""Dips over heat cycles: none lost, none made up; contacts named, cleared or left open, against drawn truth."""

from collections import Counter
from itertools import pairwise

import numpy as np
import pytest

from havrin_core.machine.circuit.read import shipped_circuit
from havrin_core.search.contacts_of_dips import contact_of, inducer_volts, movers_of, named
from havrin_core.search.opened_contact import OpenedContact
from havrin_core.traces.dips import bursts, cycles_for, quiet_run_s, read_dips
from havrin_core.traces.movers import Moved, Seen
from tests.core.trace_sims import contact_opens, heat_cycles
from tests.thinned import EVERY_CASE

FURNACE = shipped_circuit("furnace_80_hot_surface")


def read(made, **more):
    return read_dips(made.channels, "draft_pa", made.set_point, **more)


def lost_and_made_up(made):
    found = read(made).dips
    lost = [t for t in made.dips if not any(d.start_s - 0.3 <= t[1] and d.end_s + 0.3 >= t[0] for d in found)]
    made_up = [d for d in found if not any(d.start_s - 0.5 <= b and d.end_s + 0.5 >= a for a, b in made.dips)]
    return len(lost), len(made_up)


@pytest.mark.parametrize("told_by", ["inducer", "manifold", "flame", "nothing"])
def test_no_dip_is_lost_and_none_made_up(told_by):
    count = 200 if EVERY_CASE else 12
    counted = [lost_and_made_up(heat_cycles(np.random.default_rng(seed), told_by=told_by)) for seed in range(count)]
    lost, made_up = (sum(column) for column in zip(*counted, strict=True))
    assert lost == 0
    assert made_up <= count // 100


def test_three_ordinary_cycles_hold_no_dip_and_their_least_draft_is_that_of_running():
    made = heat_cycles(np.random.default_rng(11), dips=0, told_by="manifold", cycles=3, sigma=1.0)
    found = read(made)
    assert (found.dips, found.runs, found.basis) == ((), 3, "burner")
    assert found.least is not None
    assert found.least > 0.8 * made.running


def test_a_dip_of_fifty_milliseconds_is_found_at_twenty_hertz():
    made = heat_cycles(np.random.default_rng(2), dips=0, told_by="manifold", hertz=20.0, cycles=1, sigma=1.0)
    seconds, values = made.channels["draft_pa"]
    gas = made.channels["manifold_pa"]
    at = float(gas[0][gas[1] > 60][200])
    values[np.argmin(np.abs(seconds - at))] *= 0.2
    found = read(made)
    assert len(found.dips) == 1
    assert found.dips[0].start_s == pytest.approx(at, abs=0.05)
    assert found.dips[0].half_width_s == pytest.approx(0.05, abs=0.001)


def test_a_draft_that_turns_round_is_said():
    made = heat_cycles(np.random.default_rng(2), dips=0, told_by="manifold", cycles=1, sigma=1.0)
    seconds, values = made.channels["draft_pa"]
    gas = made.channels["manifold_pa"]
    at = float(np.median(gas[0][gas[1] > 60]))
    here = (seconds > at) & (seconds < at + 1)
    values[here] *= -0.4
    assert [dip.reversed for dip in read(made).dips] == [True]
    least = read(made).least
    assert least is not None
    assert least < 0


def test_a_trace_that_never_ran_has_no_least():
    seconds = np.arange(0, 60, 0.5)
    found = read_dips({"draft_pa": (seconds, np.zeros_like(seconds))}, "draft_pa", 150.0)
    assert (found.least, found.dips, found.watched_s) == (None, (), 0.0)


def test_marks_tell_when_it_ran_where_nothing_else_does():
    made = heat_cycles(np.random.default_rng(4), dips=1, told_by="nothing", cycles=2)
    told = heat_cycles(np.random.default_rng(4), dips=1, told_by="nothing", cycles=2)
    seconds, values = told.channels["draft_pa"]
    on = np.abs(values) > 0.5 * made.running
    edges = np.flatnonzero(np.diff(on.astype(int)))
    runs = [(seconds[a], seconds[b]) for a, b in pairwise(edges) if seconds[b] - seconds[a] > 30]
    marks = [
        mark for a, b in runs if on[np.searchsorted(seconds, a) + 5] for mark in (("inducer_on", a), ("inducer_off", b))
    ]
    found = read(made, marks=marks)
    assert found.basis == "marks"
    assert len(found.dips) == len(made.dips)


def test_volts_across_the_inducer_tell_when_it_ran():
    made = heat_cycles(np.random.default_rng(6), dips=0, told_by="inducer")
    amps = made.channels.pop("inducer_current_a")
    channel = inducer_volts(FURNACE)
    made.channels[channel] = (amps[0], np.where(amps[1] > 0.4, 118.0, 0.0))
    found = read(made, inducer=channel)
    assert (found.basis, found.dips) == ("inducer", ())


def test_a_run_that_never_reached_the_point_is_one_dip():
    made = heat_cycles(np.random.default_rng(7), dips=0, told_by="inducer", cycles=2, sigma=0.5)
    found = read_dips(made.channels, "draft_pa", 1.5 * made.running)
    assert len(found.dips) == 2
    assert not any(dip.reversed for dip in found.dips)


def test_dips_close_together_are_one_coming_and_cycles_are_counted():
    made = heat_cycles(np.random.default_rng(8), dips=3, told_by="manifold", cycles=3)
    found = read(made)
    assert bursts(found.dips) <= len(found.dips)
    quiet = quiet_run_s(bursts(found.dips), found.watched_s)
    assert cycles_for(quiet, found) >= 1
    assert cycles_for(0.1, found) == 1


def told(made):
    """Return what the dips of the volts behind the switch say: named, cleared or neither, each with its count."""
    found = read_dips(made.channels, "volts_across_v@4-C", 18.0)
    said = Counter()
    for moved in movers_of(made.channels, found.dips, made.clock_error_s):
        one = contact_of(FURNACE, moved, {"draft_pa": made.point}, made.clock_error_s)
        said["named" if one.part else "cleared" if "pressure_switch" in one.cleared else "open"] += 1
    return said


@pytest.mark.parametrize(("truth", "wrong"), [("by_itself", "cleared"), ("by_draft", "named"), ("supply", "named")])
def test_contacts_are_named_and_cleared_rightly(truth, wrong):
    said = Counter()
    for seed in range(400 if EVERY_CASE else 30):
        said += told(contact_opens(np.random.default_rng(seed), truth))
    right = {"by_itself": "named", "by_draft": "cleared", "supply": "cleared"}[truth]
    assert said[wrong] <= 0.05 * said.total()
    assert said[right] >= 0.6 * said.total()


def test_a_chattering_contact_is_not_acquitted_by_its_own_dips():
    made = contact_opens(np.random.default_rng(1), "by_itself", chatters=True, resistive=False)
    said = told(made)
    assert said["cleared"] == 0
    assert said["named"] >= 1


def across(level, most, at_s):
    return Seen(at_s, 0.1, level, 0.02, level, most, level, True)


def test_volts_that_rise_over_a_contact_name_it():
    draft = Seen(None, 0.4, 220.0, 1.0, 217.0, 223.0, 210.0, True)
    moved = Moved({"volts_across_v@3-4": across(0.05, 25.8, 5.0), "draft_pa": draft}, 0.3)
    assert contact_of(FURNACE, moved, {"draft_pa": 150.0}).part == "pressure_switch"
    quiet = Moved({"volts_across_v@3-4": across(0.05, 0.1, None), "draft_pa": draft}, 0.3)
    assert contact_of(FURNACE, quiet, {"draft_pa": 150.0}) is None


def test_a_short_dip_of_the_draft_may_hide_behind_the_gauge():
    shallow = Seen(4.9, 0.4, 220.0, 1.0, 185.0, 222.0, 90.0, True)
    volts = {"volts_across_v@3-C": Seen(None, 0.1, 26.0, 0.02, 25.9, 26.1, 25.9, True)}
    volts["volts_across_v@4-C"] = Seen(5.0, 0.1, 26.0, 0.02, 0.2, 26.0, 0.0, True)
    one = contact_of(FURNACE, Moved({**volts, "draft_pa": shallow}, 0.1), {"draft_pa": 150.0})
    assert (one.part, one.cleared) == ("", ())


def test_what_half_of_the_dips_name_is_named_unless_one_clears_it():
    names, clears = OpenedContact("it", "pressure_switch"), OpenedContact("not it", cleared=("pressure_switch",))
    assert named([names, None]) == "pressure_switch"
    assert named([names, None, None]) == ""
    assert named([names, names, clears]) == ""
    assert named([]) == ""
