"""Units beside each other: what several share is said once, and what one has alone is not."""

from havrin_core.standing.side_by_side import Beside, rows_of, shared_of, side_of
from havrin_core.wording.phrases import words as say
from tests.core.rows import SOUND, judge


def beside(name, *lines, gas_line="hall branch"):
    readings = tuple(view for station in judge(*lines).stations for view in station.readings)
    return Beside(name, gas_line, readings)


SOUND_UNIT = beside("F-1", *SOUND)


def test_rows_lay_the_same_reading_beside_each_other():
    rows = {row.quantity: row for row in rows_of([SOUND_UNIT, beside("F-2", "mp 3.4", "room 0")])}
    assert [cell is not None for cell in rows["manifold_pa"].cells] == [True, True]
    assert "o2_dry_pct" not in rows  # one unit alone stands beside nobody


def test_a_low_supply_on_several_points_to_the_line():
    found = shared_of([beside(name, "supply 3.9") for name in ("B-2", "B-3")] + [SOUND_UNIT])
    assert [shared.units for shared in found] == [("B-2", "B-3")]
    assert "on hall branch" in say(found[0].text)
    assert "regulator" in say(found[0].text)


def test_different_branches_are_not_named_as_one():
    units = [beside("B-2", "supply 3.9"), beside("B-3", "supply 3.9", gas_line="")]
    assert "on hall branch" not in say(shared_of(units)[0].text)


def test_one_alone_or_opposite_sides_share_nothing():
    assert shared_of([beside("B-2", "supply 3.9"), SOUND_UNIT]) == ()
    assert shared_of([beside("B-2", "supply 3.9"), beside("B-3", "supply 14.8")]) == ()


def test_two_of_many_are_not_most():
    assert shared_of([beside("B-2", "supply 3.9"), beside("B-3", "supply 3.9"), *[SOUND_UNIT] * 4]) == ()


def test_the_side_of_a_reading():
    (view,) = [v for v in beside("F-1", "supply 3.9").readings if v.quantity == "supply_running_pa"]
    assert (view.verdict, side_of(view)) == ("out", "low")
    assert side_of(next(v for v in SOUND_UNIT.readings if v.quantity == "manifold_pa")) == ""
    (weak,) = [v for v in beside("F-1", "draft .41").readings if v.quantity == "draft_pa"]
    assert side_of(weak) == "low"


def test_a_branch_that_starves_is_named_before_any_limit_is_broken():
    starved = [beside(name, "supply 5.4", gas_line="house branch") for name in ("B-2", "B-3")]
    others = [beside(name, "supply 6.8", gas_line="") for name in ("B-1", "UH-1")]
    (found,) = shared_of([*starved, *others])
    assert found.units == ("B-2", "B-3")
    assert "house branch" in say(found.text)
    assert shared_of([*starved, beside("B-1", "supply 5.9", gas_line="")]) == ()
