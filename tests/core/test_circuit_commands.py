"""``solve``, ``circuits`` and ``next`` from the command line, as their users call them."""

import json
import subprocess
import sys

import pytest

from havrin_core.tape.bundle import FORMAT, VERSION
from havrin_core.tape.documents import entry_to_dict
from launcher.ground import ROOT
from tests.core.rows import tape


def havrin(*words, status=0):
    done = subprocess.run([sys.executable, str(ROOT / "havrin"), *words], capture_output=True, text=True, check=False)
    assert done.returncode == status, done.stderr
    return json.loads(done.stdout) if done.stdout else done.stderr


def test_circuits_list_states_nodes_parts_and_faults():
    listed = havrin("circuits")
    assert len(listed) == 18
    furnace = next(c for c in listed if c["key"] == "furnace_80_hot_surface")
    assert "limit.stuck_open" in furnace["faults"]
    assert "trial" in furnace["states"]
    assert {"R", "C"} <= set(furnace["nodes"])


def test_a_printed_circuit_can_be_solved_from_its_file(tmp_path):
    file = tmp_path / "c.json"
    file.write_text(json.dumps(havrin("circuits", "boiler_power_vent_pilot")))
    words = ("solve", str(file), "--state", "draft", "--leads", "3,4", "--mode", "V")
    assert havrin(*words, "--fault", "vent_switch.stuck_open")["value"] == pytest.approx(26.3, abs=0.6)
    assert havrin(*words)["value"] < 0.1 or havrin(*words)["unit"] == "V"


@pytest.mark.parametrize(
    ("words", "says"),
    [
        (("--state", "mars", "--leads", "R,C"), "No state is called 'mars'"),
        (("--state", "run", "--leads", "R"), "No node is called"),
        (("--state", "run", "--leads", "R,C", "--fault", "x"), "No fault is called 'x'"),
        (("--state", "run", "--leads", "R,C", "--mode", "bar"), "no mode 'bar'"),
    ],
)
def test_a_wrong_question_is_one_clear_line(words, says):
    answer = havrin("solve", "furnace_80_hot_surface", *words, status=2)
    assert says in answer
    assert answer.count("\n") == 1


def bundle(tmp_path, *, kind="furnace_80", lines=()):
    plate = {
        "fuel": "NG_H",
        "stages": [{"key": "only", "input_w": 20515, "manifold_pa": 871.8, "switch_makes_pa": 149.5}],
    }
    document = {
        "format": FORMAT,
        "version": VERSION,
        "unit_system": "us",
        "unit": {"name": "F-9", "kind": kind, "altitude_m": 1540, "plate": plate},
        "visit": {"reason": "no_heat", "entries": [entry_to_dict(e) for e in tape(*lines)]},
    }
    file = tmp_path / "visit.json"
    file.write_text(json.dumps(document))
    return str(file)


def test_next_names_suspects_and_a_test(tmp_path):
    answer = havrin("next", bundle(tmp_path, lines=("code 2 3", "stops inducer")))
    assert 0.6 < sum(s["share"] for s in answer["suspects"]) <= 1 + 1e-9  # the first six of many
    assert answer["next"]["test"]["minutes"] > 0
    assert answer["next"]["meanings"]
    assert answer["circuit"] == "furnace_80_hot_surface"


def test_next_refuses_what_is_no_bundle(tmp_path):
    file = tmp_path / "x.json"
    file.write_text("{}")
    assert "not a visit bundle" in havrin("next", str(file), status=2)


def test_a_call_shows_what_a_hidden_fault_does():
    answer = havrin("call", "furnace_80_hot_surface", "--fault", "igniter.open", "--seed", "4")
    assert answer["code"] == "3 4"
    assert "flame" not in answer["events_s"]
    assert answer["stands_still"]["volts_to_common"]["R"] == pytest.approx(25.9, abs=0.5)
    assert "No fault is called" in havrin("call", "furnace_80_hot_surface", "--fault", "x", status=2)
