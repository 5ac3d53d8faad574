"""The shop's circuits: looked at by all, kept by supervisors, checked before they are kept."""

import copy

import pytest

from havrin_core.machine.circuit.read import circuit_names
from havrin_server.shop.models import FirmCircuit

HEATER = "unit_heater_power_vent"


def document(client, key=HEATER):
    return client.get(f"shop/circuits/{key}").json()


def own(client, key="heater_own", name="Our heater"):
    return document(client) | {"key": key, "name": name}


def put(client, doc):
    return client.http.put("/api/shop/circuits", {"document": doc}, content_type="application/json")


def test_all_shipped_circuits_are_listed_with_the_forms_choices(tove):
    page = tove.get("shop/circuits").json()
    assert {c["key"] for c in page["circuits"] if c["shipped"]} == set(circuit_names())
    assert "switch" in page["choices"]["kinds"]
    assert "pressure_switch" in page["choices"]["families"]
    assert not page["writable"]


def test_a_supervisor_keeps_a_copy_and_finds_it_again(wenna, tove):
    page = put(wenna, own(wenna)).json()
    row = next(c for c in page["circuits"] if c["key"] == "heater_own")
    assert (row["name"], row["shipped"], row["changed_by"]) == ("Our heater", False, "Wenna Harrowick")
    assert document(tove, "heater_own")["name"] == "Our heater"
    put(wenna, own(wenna, name="Our heater, second form"))
    assert FirmCircuit.objects.get(key="heater_own").document["name"] == "Our heater, second form"


def test_a_technician_and_the_office_may_only_look(tove, odo):
    for person in (tove, odo):
        assert put(person, own(person)).status_code == 403
    assert not FirmCircuit.objects.exists()


def test_shipped_circuits_stay_as_they_are(wenna):
    answer = put(wenna, document(wenna))
    assert (answer.status_code, answer.json()["code"]) == (422, "shipped_circuit")


@pytest.mark.parametrize("key", ["Two Words", "1st", "x", ""])
def test_a_key_is_a_plain_word(wenna, key):
    answer = put(wenna, own(wenna, key=key))
    assert (answer.status_code, answer.json()["code"]) == (422, "circuit_key")


def test_a_wrong_circuit_is_answered_with_its_element_and_not_kept(wenna):
    doc = copy.deepcopy(own(wenna))
    next(p for p in doc["parts"] if p["key"] == "limit")["nodes"] = ["W", "W"]
    check = wenna.post("shop/circuits/check", document=doc).json()
    assert check["problem"]["element"] == "limit"
    assert check["rungs"] == []
    assert put(wenna, doc).status_code == 422
    assert not FirmCircuit.objects.exists()


@pytest.mark.parametrize("key", circuit_names())
def test_every_shipped_circuit_is_drawn_solved_and_called(tove, key):
    check = tove.post("shop/circuits/check", document=document(tove, key)).json()
    assert check["problem"] is None
    assert len(check["solved"]) == len(check["states"])
    assert check["call"].startswith("A sound unit runs through")


def test_a_control_that_cannot_fire_is_told(tove):
    doc = document(tove)
    next(p for p in doc["parts"] if p["key"] == "flame_rod")["volts"] = 0.01
    assert "gives up" in tove.post("shop/circuits/check", document=doc).json()["call"]


@pytest.mark.parametrize(
    "doc", [{}, {"format": "havrin-circuit", "version": 1}, {"format": "havrin-circuit", "version": 9}]
)
def test_what_is_no_circuit_is_said_so(tove, doc):
    problem = tove.post("shop/circuits/check", document=doc).json()["problem"]
    assert len(problem["text"]) > 15


def test_an_unknown_circuit_is_not_found(tove):
    assert tove.get("shop/circuits/nothing").status_code == 404
