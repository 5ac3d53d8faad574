"""Each rule's own samples, on every kind that they concern: what opens it, what does not, what lifts it, what does not."""

import pytest

from havrin_core.batch.read import unit_in
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.traits import parts_of, traits_of
from havrin_core.rules.every import SAMPLES
from havrin_core.shorthand.reader import read_line
from havrin_core.standing.assess import assess
from havrin_core.tape.visit import VisitTape
from tests.core.rows import situation, tape
from tests.core.trade import EVERY, unit_of

UNITS = {kind: unit_in({"unit": {"name": "U", **unit_of(kind)}}) for kind in EVERY}


def concerned(sample):
    return [unit for unit in UNITS.values() if set(sample.needs) <= parts_of(unit) | traits_of(unit)]


def is_open(code, lines, unit):
    entries = tape(*lines.split(" | "), unit=unit)
    found = assess(unit, HouseRules(), VisitTape("maintenance", entries))
    return any(r.code == code or r.code.startswith(f"{code}.") for r in found.reasons)


@pytest.mark.parametrize("sample", SAMPLES, ids=lambda s: s.code)
def test_a_rule_does_what_its_samples_say(sample):
    units = concerned(sample)
    assert units, sample.needs
    for unit in units:
        said = {True: (*sample.opens, *sample.not_lifted), False: (*sample.not_opens, *sample.lifted)}
        for is_so, rows in said.items():
            for lines in rows:
                if all(read_line(line, situation(unit)).writable for line in lines.split(" | ")):
                    assert is_open(sample.code, lines, unit) == is_so, (unit.kind.key, lines)


@pytest.mark.parametrize("sample", SAMPLES, ids=lambda s: s.code)
def test_a_sample_can_be_typed_somewhere(sample):
    for lines in (*sample.opens, *sample.not_opens, *sample.lifted, *sample.not_lifted):
        assert any(
            all(read_line(line, situation(unit)).writable for line in lines.split(" | ")) for unit in concerned(sample)
        ), lines
