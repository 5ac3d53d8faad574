"""A site's units side by side, from what was last written on each; one's own firm's only."""

import pytest

from havrin_server.units.models import Site
from havrin_server.visits.models import Visit


@pytest.fixture
def bank(world):
    """The site with two boilers on one branch."""
    return Site.objects.filter(unit__gas_line__startswith="Propagation").distinct().get()


def test_all_units_stand_beside_each_other_with_their_newest_readings(tove, bank):
    said = tove.get(f"sites/{bank.pk}").json()
    labels = [unit["label"] for unit in said["units"]]
    assert labels == sorted(bank.unit_set.values_list("label", flat=True))
    assert all(len(row["cells"]) == len(labels) for row in said["rows"])
    supply = next(row for row in said["rows"] if row["name"] == "Supply, all running")
    assert sum(cell is not None for cell in supply["cells"]) >= 2
    b2 = said["units"][labels.index("B-2")]
    assert b2["visit"] is not None
    assert b2["title"]


def test_a_newer_reading_wins_over_an_older_one(wenna, bank):
    unit = bank.unit_set.get(label="B-2")
    old = Visit.objects.filter(unit=unit).order_by("-day").first()
    fresh = Visit.objects.create(
        unit=unit, reason="maintenance", day=old.day, technician=old.technician, house_rules=old.house_rules
    )
    wenna.line(fresh.pk, "supply 4.1")
    said = wenna.get(f"sites/{bank.pk}").json()
    column = [unit["label"] for unit in said["units"]].index("B-2")
    supply = next(row for row in said["rows"] if row["name"] == "Supply, all running")
    assert (supply["cells"][column]["text"], supply["cells"][column]["state"]) == ("4.10", "out")


def test_a_site_of_nobody_is_not_found(tove):
    assert tove.get("sites/999999").status_code == 404
