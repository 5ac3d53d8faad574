"""Hunts on units that the search does not draw itself: other severities, histories, moments, unlisted parts, two at once."""

from collections import Counter
from functools import cache

import pytest

from bench.truth.cases import SORTS, drawn
from bench.truth.hunting import WAYS, hunted
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.circuit.read import circuit_names, shipped_circuit
from havrin_core.search.model import NOTHING_WRONG, UNLISTED, ActionTaken, Observation, Seen
from havrin_core.search.outlook import outlook
from havrin_core.search.pictures import pictures_of
from tests.thinned import thinned

pytestmark = pytest.mark.many_cases

NAMES = circuit_names()
NAMES_BY_KEY = {name: shipped_circuit(name) for name in NAMES}
RULES = HouseRules()
SEEDS = thinned(range(9000, 9300), 18)


@cache
def hunts():
    return [hunted(drawn(NAMES[seed % len(NAMES)], seed), WAYS["what is offered"]) for seed in SEEDS]


def test_the_right_part_comes_before_any_wrong_one_and_nothing_sound_is_fitted_often():
    all_of_them = hunts()
    assert sum(h.right_first for h in all_of_them) / len(all_of_them) >= 0.88
    assert sum(h.wrong_fitted > 0 for h in all_of_them) / len(all_of_them) <= 0.1
    assert sum(h.clear_and_wrong > 0 for h in all_of_them) <= 0.08 * len(all_of_them)


def test_what_is_said_with_nine_tenths_is_right_nine_times_of_ten():
    sure = [right for hunt in hunts() for right in hunt.sure]
    assert len(sure) > 12
    assert sum(sure) / len(sure) >= 0.9


def test_it_is_quicker_than_a_good_habit_and_fits_fewer_wrong_parts():
    by_habit = [hunted(drawn(NAMES[seed % len(NAMES)], seed), WAYS["a good habit"]) for seed in SEEDS[::2]]
    same = hunts()[::2]
    assert sum(h.minutes for h in same) < sum(h.minutes for h in by_habit)
    assert sum(h.wrong_fitted for h in same) <= sum(h.wrong_fitted for h in by_habit)


def test_every_sort_of_truth_is_drawn_and_stays_what_it_was_for_its_seed():
    sorts = Counter(drawn(NAMES[seed % len(NAMES)], seed).sort for seed in range(9000, 9030))
    assert len(sorts) >= len(SORTS) - 1
    one, other = drawn(NAMES[3], 9003), drawn(NAMES[3], 9003)
    assert (one.sort, [f.key for f in one.faults], one.tripped) == (
        other.sort,
        [f.key for f in other.faults],
        other.tripped,
    )


def of(name, *rows, actions=()):
    """Ask the search of a circuit: rows of test and outcome, or of test, outcome and epoch."""
    seen = tuple(Observation(row[0], row[1], epoch=row[2] if len(row) > 2 else 0) for row in rows)
    return outlook(pictures_of(NAMES_BY_KEY[name]), Seen(seen, tuple(actions)), RULES)


@pytest.mark.parametrize("name", NAMES)
def test_a_sound_unit_that_runs_is_said_to_be_sound_before_any_part_is(name):
    pictures = pictures_of(NAMES_BY_KEY[name])
    rows = [(key, pictures.sound[key]) for key in pictures.tests if key in ("stops", "again", "code")]
    found = of(name, *rows)
    assert not found.clear
    assert found.nothing_wrong > max(s.share for s in found.suspects if s.kind != NOTHING_WRONG)


@pytest.mark.parametrize("name", NAMES)
def test_when_the_very_part_is_sound_what_looks_like_it_is_unlisted(name):
    """Every switch of the string reads sound by itself, although it stands open in the circuit: nothing listed is left."""
    pictures = pictures_of(NAMES_BY_KEY[name])
    string = pictures.circuit.string
    open_ = [f for f in pictures.circuit.faults if f.stuck == "open" and f.part in string]
    fault = next(f for f in open_ if pictures.of((f,))["stops"] != "steady")
    own = [key for key in pictures.tests if key.endswith(f":{fault.part}")]
    rows = [("stops", pictures.of((fault,))["stops"])]
    rows += [(key, pictures.of((fault,))[key]) for key in pictures.tests if key.startswith("volts")]
    before = of(name, *rows)
    after = of(name, *rows, *((key, "ok") for key in own))
    assert after.unlisted > before.unlisted
    assert not after.clear or after.first.part != fault.part
    blamed = [s.share for s in after.suspects if s.part == fault.part]
    assert not blamed or blamed[0] < 0.5


def test_a_part_that_was_changed_does_not_lead_again_when_another_fault_shows():
    first = [("stops", "inducer"), ("code", "3 4"), ("ohms:igniter", "open")]
    cured = ActionTaken("change", frozenset({"igniter"}))
    again = of("furnace_80_hot_surface", *first, ("stops", "igniter", 1), ("code", "3 4", 1), actions=(cured,))
    assert again.first.part != "igniter"
    assert sum(s.share for s in again.suspects if s.part == "igniter") < 0.1
    assert again.next_test is not None


def test_what_runs_after_its_cure_is_cured_and_asks_for_the_same_reading_again():
    rows = [("stops", "inducer"), ("code", "3 4"), ("ohms:igniter", "open"), ("stops", "steady", 1)]
    found = of("furnace_80_hot_surface", *rows, actions=(ActionTaken("change", frozenset({"igniter"})),))
    assert found.cured > 0.9
    assert found.proof


def test_a_jumper_that_lets_it_run_accuses_what_it_bridges_and_what_moves_that():
    name = "furnace_80_hot_surface"
    across = frozenset({"pressure_switch"})
    rows = (
        Observation("stops", "inducer"),
        Observation("stops", "steady", bridged=across),
    )
    found = outlook(pictures_of(NAMES_BY_KEY[name]), Seen(rows), RULES)
    moved_by = {"pressure_switch", "hose", "port", "trap", "vent", "wheel"}
    blamed = {s.part: s.share for s in found.suspects}
    assert sum(share for part, share in blamed.items() if part in moved_by) > 0.6
    assert "igniter" not in blamed or blamed["igniter"] < 0.05


def test_volts_that_were_read_too_late_condemn_nobody():
    """The board's output is dead once it gave up: 0 V at the valve then says nothing against the board."""
    name = "furnace_80_hot_surface"
    rows = [("stops", "igniter"), ("code", "3 4"), ("volts:5:C", 0.0)]
    found = of(name, *rows)
    board = sum(s.share for s in found.suspects if s.part in ("valve_relay", "board"))
    assert board < 0.9
    assert not found.clear


def test_a_moment_that_was_said_counts_for_that_moment():
    name = "furnace_80_hot_surface"
    pictures = pictures_of(NAMES_BY_KEY[name])
    idle = next(s.key for s in pictures.circuit.states if "call" not in s.conditions)
    unsaid = outlook(pictures, Seen((Observation("volts:3:4", 0.0),)), RULES)
    said = outlook(pictures, Seen((Observation("volts:3:4", 26.0, moment=idle),)), RULES)
    sticks = [s.share for s in said.suspects if s.part == "pressure_switch"]
    assert sticks  # open at rest is as it should be: it is not accused for that
    assert said.unlisted < 0.5
    assert unsaid.first.kind != UNLISTED


def test_nothing_is_lost_of_volts_between_any_two_nodes():
    found = of("furnace_80_hot_surface", ("stops", "inducer"), ("volts:4:C", 0.1), ("volts:3:C", 26.0))
    names = [s.part for s in found.suspects[:4]]
    assert "pressure_switch" in names
