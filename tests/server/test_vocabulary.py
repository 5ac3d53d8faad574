"""What the bar's lists offer can be written as it stands: every line, on every kind, through the real call."""

import pytest

from havrin_core.batch.read import unit_in
from havrin_core.shorthand.reader import read_line
from havrin_core.wording.choices import part_choices, things_elsewhere
from havrin_server.visits.models import Visit
from tests.core.rows import situation
from tests.core.test_documented_lines import LINES
from tests.core.trade import EVERY, unit_of
from tests.thinned import thinned

UNIT_OF_KIND = {
    "furnace_80": "F-1",
    "furnace_condensing": "F-2",
    "boiler_power_vent": "B-1",
    "boiler_atmospheric": "B-2",
    "boiler_condensing": "B-4",
    "make_up_air": "MA-1",
    "rooftop": "RT-3",
    "unit_heater": "UH-1",
    "furnace_dual_fuel": "F-4",
    "furnace_modulating": "F-5",
}


@pytest.mark.parametrize("kind", EVERY)
def test_every_line_that_is_offered_can_be_written(kind):
    unit = unit_in({"unit": {"name": "U", **unit_of(kind)}})
    there = situation(unit)
    rows = [c for row in part_choices(unit) for c in (*row.done, *row.found, *row.jumpers)] + things_elsewhere()
    assert len(rows) > 1000
    for row in rows:
        line = f"{row.line}hose at the box" if row.line.endswith(" ") else row.line
        read = read_line(line, there)
        assert read.writable, (line, read)
        assert not read.unread, (line, read.unread)


def fresh_visit(kind):
    before = Visit.objects.filter(unit__label=UNIT_OF_KIND[kind]).select_related("unit").first()
    assert before.unit.described().kind.key == kind
    return Visit.objects.create(
        unit=before.unit,
        reason="no_heat",
        day=before.day,
        technician=before.technician,
        house_rules=before.house_rules,
    )


@pytest.mark.parametrize("kind", EVERY)
def test_nothing_that_is_offered_or_documented_breaks_a_visit(tove, kind):
    visit = fresh_visit(kind)
    words = tove.get(f"visits/{visit.pk}/vocabulary").json()
    offered = [row["line"] for part in words["parts"] for row in (*part["done"], *part["found"])]
    for line in [*thinned(offered, 12), *thinned(LINES, 12)]:
        answer = tove.line(visit.pk, line)
        assert answer.status_code in (200, 403, 422), (line, answer.content)
        assert line in LINES or answer.status_code == 200, (line, answer.content)
    page = tove.get(f"visits/{visit.pk}").json()
    assert len(page["tape"]) >= 12
    assert page["standing"]["reasons"]
    views = ["arrival", "closing", "workings"]
    views += ["string"] * page["has_string"] + ["exchanger"] * page["has_exchanger"]
    for view in views:
        assert tove.get(f"visits/{visit.pk}/{view}").status_code == 200, view
