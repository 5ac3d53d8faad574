"""The drawing of a circuit: rungs that follow its wires."""

import pytest

from havrin_core.errors import UnknownName
from havrin_core.machine.circuit.codes import code_chart
from havrin_core.machine.circuit.drawing import rungs
from havrin_core.machine.circuit.read import circuit_names, shipped_circuit
from havrin_core.search.string_view import direct_only, meter_between, string_view
from tests.core.rows import tape

FURNACE = "furnace_80_hot_surface"


@pytest.mark.parametrize("name", circuit_names())
def test_every_rung_follows_its_wires(name):
    circuit = shipped_circuit(name)
    for rung in rungs(circuit):
        assert len(rung.nodes) == len(rung.parts) + 1
        for key, a, b in zip(rung.parts, rung.nodes, rung.nodes[1:], strict=False):
            assert {a, b} == set(circuit.part(key).nodes), key


@pytest.mark.parametrize("name", circuit_names())
def test_every_acting_load_has_its_rung_and_the_string_comes_first(name):
    circuit = shipped_circuit(name)
    drawn = rungs(circuit)
    assert {p.key for p in circuit.parts if p.kind == "load" and p.acts} <= {r.load for r in drawn}
    on_first = set(circuit.string) & set(drawn[0].parts)
    assert all(len(on_first) >= len(set(circuit.string) & set(r.parts)) for r in drawn)
    assert len(on_first) >= 3


@pytest.mark.parametrize("name", circuit_names())
def test_every_state_draws_volts_that_a_meter_would_show(name):
    circuit = shipped_circuit(name)
    for state in circuit.states:
        for rung in string_view(circuit, (), state.key).rungs:
            for part in rung.parts:
                shown = meter_between(circuit, state.key, *circuit.part(part.key).nodes[:2]).value
                assert part.expected_v == pytest.approx(abs(shown or 0.0), abs=1e-6)


def test_what_was_read_is_marked_where_it_is_odd():
    view = string_view(shipped_circuit(FURNACE), tape("v 1 2 26.0", "v 2 3 0.1", "left: v 3 4 26"), "steady")
    states = {part.key: part.state for part in view.rungs[0].parts}
    assert (states["limit"], states["rollout"], states["pressure_switch"]) == ("out", "in", "none")


def test_the_newest_reading_stands():
    view = string_view(shipped_circuit(FURNACE), tape("v 1 2 26.0", "v 1 2 0.0"), "steady")
    assert next(p for p in view.rungs[0].parts if p.key == "limit").state == "in"


def test_millivolts_are_direct():
    circuit = shipped_circuit("boiler_standing_pilot")
    assert direct_only(circuit)
    assert not direct_only(shipped_circuit(FURNACE))
    assert 0.2 < (meter_between(circuit, "calling", "4", "G").value or 0) < 0.6


def test_the_meter_names_what_is_not_there():
    with pytest.raises(UnknownName, match="no_called"):
        meter_between(shipped_circuit(FURNACE), "steady", "R", "Q")


@pytest.mark.parametrize("name", circuit_names())
def test_codes_mean_one_thing_each(name):
    circuit = shipped_circuit(name)
    chart = code_chart(circuit)
    assert len(chart) == len({s.code for s in circuit.control.states if s.code})
