"""One hides a fault in a virtual unit; the other finds it with nothing but the page and what a meter shows there."""

import random

import pytest

from bench.truth.cases import Case
from bench.truth.hunting import WAYS, hunted
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.virtual.run import VirtualUnit
from havrin_core.search.evidence import to_nominal
from havrin_core.search.pictures import SAME, outcome_of, pictures_of
from havrin_core.wording.phrases import words
from havrin_server.visits.models import Visit

MOST_TESTS = 25
O2 = 7.0
FT3_W_S = 1.055e6  # one cubic foot of natural gas


class Hidden:
    """The unit with its fault: answers a test as a line that a technician would type."""

    def __init__(self, unit, fault, seed):
        self.unit, self.pictures = unit, pictures_of(unit.circuit)
        self.faults = (fault,)
        self.virtual = VirtualUnit(unit.circuit, self.faults, seed=seed)
        self.run = self.virtual.call()
        self.noise = random.Random(seed)
        self.minutes = 0.0
        self.asked = []

    def answer(self, title):
        test = next(t for t in self.pictures.tests.values() if words(t.name) == title)
        self.minutes += test.minutes
        self.asked.append((test.kind, test.part))
        shown = outcome_of(test, self.run, self.virtual, self.faults)
        if test.kind in ("volts", "gauge"):
            read = abs(shown + self.noise.gauss(0, test.sigma))
            return f"{test.starter}{self._typed(test, read)}"
        if test.kind == "again":
            first = self.pictures.of(self.faults)["stops"]
            return f"stops {first if shown == SAME else 'steady'}"
        return f"{test.starter.split()[0]} {shown}" if test.kind in ("stops", "code") else f"{test.starter}{shown}"

    def _typed(self, test, value):
        if test.kind == "volts":
            return f"{value:.2f}"
        if test.quantity == "flame_current_a":
            return f"{1e6 * value:.2f} uA"
        if test.quantity in ("o2_dry_pct", "o2_step_pct"):
            return f"{value:.2f}"
        if test.quantity == "co_air_free_ppm":
            return f"{O2} co {value * (20.946 - O2) / 20.946:.0f}"
        here = value / to_nominal(self.unit, HouseRules(), self.pictures, test, self.unit.stage_keys[-1])
        if test.quantity == "input_share":  # one turn of a 2 ft³ dial, by the heating value the program counts with
            return f"2 ft3 1 {2 * FT3_W_S / here:.1f}"
        unit = {"temperature_rise_k": "K", "igniter_current_a": "A", "flue_temp_k": "K"}.get(test.quantity, "Pa")
        return f"{here:.3g} {unit}"


def found_by_the_page(client, visit, hidden):
    for _ in range(MOST_TESTS):
        suspects = client.get(f"visits/{visit}/string").json()["suspects"]
        if suspects["clear"] or suspects["next"] is None:
            return suspects["suspects"][0]["part"]
        line = hidden.answer(suspects["next"]["title"])
        answer = client.line(visit, line)
        assert answer.status_code == 200, (line, answer.json())
    return suspects["suspects"][0]["part"]


@pytest.mark.parametrize(
    ("label", "fault"),
    [
        ("F-1", "hose.off"),
        ("F-1", "gas_valve.coil_open"),
        ("F-1", "flame_rod.dirty"),
        ("B-1", "low_water.stuck_open"),
        ("F-1", "exchanger.breach"),
        ("F-2", "orifices.wrong_part"),
        ("F-1", "limit.intermittent"),
        ("F-1", "valve_wire.to_ground"),
        ("F-2", "line.reversed"),
        ("F-2", "pressure_low.miswired"),
        ("F-2", "pressure_high.stuck_open"),
        ("F-2", "igniter.weak"),
        ("MA-1", "belt.off"),
    ],
)
def test_a_hidden_fault_is_found_faster_than_by_walking(wenna, label, fault):
    hidden = drilled(wenna, label, fault)
    case = Case(hidden.unit.circuit, hidden.unit.circuit, "one", list(hidden.faults), random.Random(7))
    assert hidden.minutes < hunted(case, WAYS["in order"]).minutes


def test_a_device_that_protects_is_blamed_only_after_its_causes_were_looked_for(wenna):
    """It costs more than to walk up to it and to change it, which is what must not be done."""
    hidden = drilled(wenna, "RT-2", "aux_limit.stuck_open")
    assert {"look", "gauge", "swap"} & {kind for kind, part in hidden.asked if part != "aux_limit"}


def drilled(wenna, label, fault):
    visit = Visit.objects.filter(unit__label=label, closed_at=None).order_by("pk").first()
    unit = visit.unit.described()
    fault = unit.circuit.fault(fault)
    fresh = Visit.objects.create(
        unit=visit.unit, reason="no_heat", day=visit.day, technician=visit.technician, house_rules=visit.house_rules
    )
    hidden = Hidden(unit, fault, seed=7)
    assert found_by_the_page(wenna, fresh.pk, hidden) == fault.part
    return hidden
