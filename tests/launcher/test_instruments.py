"""The stand-ins: devices with lag, noise, warm-up and zero of their own, held on the unit that is recorded."""

import json
import random

import pytest

from havrin_core.machine.circuit.read import circuit_names, shipped_circuit
from havrin_core.machine.virtual.live_unit import LiveUnit
from instruments.devices import DEVICES, Analyzer, ClampMeter, Manometer, RoomMonitor
from instruments.send import Sender
from instruments.world import UnitsByLabel
from launcher.ground import ROOT

FURNACE = shipped_circuit("furnace_80_hot_surface")
UNIT = LiveUnit(FURNACE)
BREACHED = LiveUnit(FURNACE, [FURNACE.fault("exchanger.breach")])


def shown(device, unit, seconds):
    """Hold a device on a unit second after second; return what it showed last."""
    channels = {}
    for second in seconds:
        channels = device.measure(unit, float(second))
    return channels


def made(kind, woke=0.0, seed=1):
    return kind(random.Random(seed), woke)


def test_an_analyzer_warms_up_first_and_lags():
    device = made(Analyzer)
    assert shown(device, UNIT, range(25)) == {}
    lit = 500 - UNIT.at(500.0).lit_s
    soon = shown(device, UNIT, range(25, int(lit) + 4))["o2_dry_pct"]
    late = shown(device, UNIT, range(int(lit) + 4, 400))["o2_dry_pct"]
    assert soon > 13
    assert late == pytest.approx(7.0, abs=0.2)


def test_an_analyzer_zeroed_in_the_flue_reads_wrong_ever_after():
    right, wrong = made(Analyzer), made(Analyzer, woke=400.0)
    true = shown(right, UNIT, range(500))["o2_dry_pct"]
    assert shown(wrong, UNIT, range(400, 500))["o2_dry_pct"] > true + 5


def test_high_carbon_monoxide_is_diluted_into_coarse_steps():
    rich = LiveUnit(FURNACE, [FURNACE.fault("orifices.wrong_part")])
    ppm = shown(made(Analyzer), rich, range(500))["co_ppm_dry"]
    assert ppm > 2000
    assert ppm % 20 == pytest.approx(0, abs=1e-6)


def test_a_manometer_has_noise_of_its_own_and_no_pressure_at_rest():
    readings = [made(Manometer, seed=n).measure(UNIT, 500.0)["manifold_pa"] for n in range(50)]
    assert sum(readings) / 50 == pytest.approx(872, abs=2)
    assert 0.5 < max(readings) - min(readings) < 20
    assert made(Manometer).measure(UNIT, 5.0)["manifold_pa"] < 10


def test_a_clamp_meter_sees_flame_amps_and_at_rest_the_capacitor():
    device = made(ClampMeter)
    running, rest = device.measure(UNIT, 500.0), device.measure(UNIT, 5.0)
    assert running["flame_current_a"] == pytest.approx(2.94e-6, abs=3e-7)
    assert running["blower_current_a"] > 3
    assert "capacitor_f" not in running
    assert rest["capacitor_f"] == pytest.approx(7.4e-6, rel=0.05)


def test_a_breach_reaches_the_room_monitor_and_the_analyzer():
    assert shown(made(RoomMonitor), BREACHED, range(0, 400, 2))["room_co_ppm"] > 9
    assert shown(made(RoomMonitor), UNIT, range(0, 400, 2))["room_co_ppm"] < 4
    assert shown(made(Analyzer), BREACHED, range(400))["o2_dry_pct"] == pytest.approx(8.0, abs=0.2)


@pytest.mark.parametrize("kind", DEVICES)
@pytest.mark.parametrize("name", circuit_names())
def test_every_device_gives_numbers_on_every_unit(kind, name):
    device, unit = made(DEVICES[kind]), LiveUnit(shipped_circuit(name))
    for second in (5.0, 45.0, 100.0, 500.0):
        assert all(value >= -5 for value in device.measure(unit, second).values())
    assert device.hertz > 0


def test_what_stands_behind_a_label():
    units = UnitsByLabel(ROOT / "demo" / "live_units.json")
    assert units.unit("F-2").circuit.key == "furnace_condensing_two_stage"
    assert units.unit("F-2") is units.unit("F-2")
    assert units.unit("nobody knows it") is units.unit("another")


def test_every_sample_unit_has_one():
    world = json.loads((ROOT / "demo" / "world.json").read_text(encoding="utf-8"))
    rows = json.loads((ROOT / "demo" / "live_units.json").read_text(encoding="utf-8"))
    assert {unit["label"] for site in world["sites"] for unit in site["units"]} == set(rows) - {"*"}


class Line(Sender):
    """A line whose server can be away."""

    def __init__(self):
        super().__init__("http://nowhere", "key")
        self.away, self.got = False, []

    def _post(self, batch):
        if self.away:
            return None
        self.got.append(batch["sequence"])
        return {"recording": True, "unit": "F-2"}


def test_what_was_not_acknowledged_is_sent_again_in_order():
    line = Line()
    line.offer({})
    line.away = True
    assert [line.offer({}) for _ in range(3)] == [True] * 3
    line.away = False
    line.offer({})
    assert line.got == [0, 1, 2, 3, 4]
    assert not line.waiting
    assert line.unit == "F-2"
