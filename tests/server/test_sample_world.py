"""The sample world: every kind of unit, years of visits, the same each time it is played."""

import json
from datetime import UTC, datetime

from django.conf import settings

from demo.history import every_visit
from havrin_core.machine.kind_files import kind_names
from havrin_server.units.models import Unit
from havrin_server.visits.models import Visit

NOW = datetime(2026, 11, 23, 9, 0, tzinfo=UTC)


def told():
    return json.loads((settings.ROOT / "demo" / "world.json").read_text(encoding="utf-8"))


def test_there_are_units_of_every_kind(world):
    units = list(Unit.objects.all())
    assert len(units) == 16
    assert {u.of_model().kind for u in units} == set(kind_names())
    assert all(u.described().circuit is not None for u in units)


def test_every_unit_has_been_visited_for_years(world):
    for unit in Unit.objects.all():
        days = list(
            Visit.objects.filter(unit=unit, closed_at__isnull=False).order_by("day").values_list("day", flat=True)
        )
        assert (days[-1] - days[0]).days > 330, unit.label
    assert Visit.objects.filter(closed_at__isnull=False).count() > 40


def test_the_past_holds_a_breached_exchanger_and_drift(world):
    tagged = Visit.objects.get(unit__label="RT-2", closed_level=4)
    assert tagged.entries.filter(kind="condition").exists()
    signals = Visit.objects.filter(unit__label="F-2", closed_at__isnull=False).order_by("day")
    values = [float(v.entries.filter(quantity="flame_current_a", stage="high").first().value_si) for v in signals]
    assert values == sorted(values, reverse=True)


def test_history_is_the_same_every_time():
    one, other = list(every_visit(told(), NOW)), list(every_visit(told(), NOW))
    assert one == other
    assert all(row["days_ago"] > 0 for row in one)
    assert not any("{" in line for row in one for line in row["lines"])
