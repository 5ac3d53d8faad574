"""The stand-ins: one bench, seen by every instrument at the same moment."""

import random

import pytest

from instruments.bench import CYCLE_S, VirtualBench
from instruments.devices import DEVICES, analyzer, clamp_meter, manometer
from instruments.send import Sender

BENCH = VirtualBench("furnace_condensing_two_stage", gusts=True)


def test_the_bench_calls_burns_and_rests():
    assert BENCH.quantity("draft_at_switch_pa", 5) == 0
    assert BENCH.quantity("draft_at_switch_pa", 200) > 150
    assert BENCH.burns(5) < 0 < BENCH.burns(300)
    assert BENCH.quantity("manifold_pa", CYCLE_S - 5) == 0
    assert BENCH.at(300) == BENCH.at(300 + CYCLE_S)


def test_what_one_sees_fits_what_the_others_see():
    chance = random.Random(1)
    calm, gust = 48 * 4 + 10.0, 47 * 5 + 0.35
    for second, dips in ((calm, False), (gust, True)):
        suction = manometer(BENCH, second, 900, chance)["draft_pa"]
        volts = clamp_meter(BENCH, second, 900, chance)
        assert (suction < 150) == dips
        assert (volts["volts_across_v@4-C"] < 18) == dips
        assert volts["volts_across_v@3-C"] > 18


def test_a_fault_shows_in_every_instrument():
    sick = VirtualBench("furnace_condensing_two_stage", ["flame_rod.dirty"])
    chance = random.Random(1)
    assert sick.burns(400) < 0
    assert manometer(sick, 400, 900, chance)["manifold_pa"] < 50
    assert analyzer(sick, 400, 900, chance)["o2_dry_pct"] > 20


def test_an_analyzer_warms_up_first():
    assert analyzer(BENCH, 300, 3, random.Random(1)) == {}
    assert analyzer(BENCH, 300, 60, random.Random(1))["o2_dry_pct"] == pytest.approx(6.6, abs=0.5)


@pytest.mark.parametrize("kind", DEVICES)
def test_every_device_gives_numbers(kind):
    measure, hertz = DEVICES[kind]
    assert hertz > 0
    assert all(value >= -5 for value in measure(BENCH, 300, 600, random.Random(2)).values())


class Line(Sender):
    """A line whose server can be away."""

    def __init__(self):
        super().__init__("http://nowhere", "key")
        self.away, self.got = False, []

    def _post(self, batch):
        if self.away:
            return None
        self.got.append(batch["sequence"])
        return {"recording": True}


def test_what_was_not_acknowledged_is_sent_again_in_order():
    line = Line()
    line.offer({})
    line.away = True
    assert [line.offer({}) for _ in range(3)] == [True] * 3
    line.away = False
    line.offer({})
    assert line.got == [0, 1, 2, 3, 4]
    assert not line.waiting
