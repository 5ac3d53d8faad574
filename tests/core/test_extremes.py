"""Readings that no unit may show are out whatever the plate says, however much of it is missing, in every phase."""

from dataclasses import fields

import pytest

from havrin_core.batch.read import unit_in
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Plate
from havrin_core.standing.assess import assess
from havrin_core.tape.visit import VisitTape
from tests.core.rows import situation, tape
from tests.core.trade import AIR, BOILERS, EVERY, FLUED, INDUCED, unit_of

# reading, the kinds that have it: what a practitioner would not leave, whatever the plate says
EXTREMES = (
    ("room 40", EVERY),
    ("room 90", EVERY),
    ("supply .5", EVERY),
    ("supply 40", EVERY),
    ("co 900", FLUED),
    ("o2 6 co 900 t 340", FLUED),
    ("o2 .5 co 20 t 340", FLUED),
    ("rise 160 F", AIR),
    ("sa 260 F", AIR),
    ("draft 0", INDUCED),
    ("wp 60", BOILERS),
    ("ws 290 F", BOILERS),
    ("dco 60", ("make_up_air",)),
    ("ua 0", tuple(kind for kind in EVERY if kind != "boiler_atmospheric")),
    ("mains 80 of 120", EVERY),
)
OPTIONAL = [field.name for field in fields(Plate) if field.name not in ("fuel", "stages", "exchanger_cells")]


def level(unit, line, phase):
    entries = tape(f"{phase}: {line}", unit=unit)
    reasons = assess(unit, HouseRules(), VisitTape("maintenance", entries)).reasons
    return max((reason.level for reason in reasons), default=0)


def units_without(kind):
    """Yield the unit whole, without each of its plate's fields, and without all of them."""
    document = unit_of(kind)
    yield "", unit_in({"unit": {"name": "U", **document}})
    for name in OPTIONAL:
        yield name, unit_in({"unit": {"name": "U", **unit_of(kind, **{name: None})}})
    stages = [{"key": row["key"]} for row in document["plate"]["stages"]]
    bare = {"kind": kind, "altitude_m": 200, "plate": {"fuel": "NG_H", "stages": stages}}
    yield "all", unit_in({"unit": {"name": "U", **bare}})


@pytest.mark.many_cases
@pytest.mark.parametrize("kind", EVERY)
def test_an_extreme_is_out_with_any_field_of_the_plate_missing(kind):
    for missing, unit in units_without(kind):
        for line, kinds in EXTREMES:
            if kind in kinds:
                for phase in ("found", "left", "trial"):
                    assert level(unit, line, phase) >= 3, (missing, line, phase)


@pytest.mark.parametrize("kind", EVERY)
def test_without_a_plate_a_usual_reading_shows_nothing(kind):
    """Unknown is not good: it neither alarms nor counts as shown."""
    *_, (_, bare) = units_without(kind)
    for line in ("mp 3.5", "draft .88", "ua 2.9"):
        if situation(bare).stages and kind in INDUCED:
            entries = tape(line, unit=bare)
            found = assess(bare, HouseRules(), VisitTape("maintenance", entries))
            assert not [r for r in found.reasons if r.level >= 3], line
            assert found.level == 3
