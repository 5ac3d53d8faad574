"""The shop's circuits: looked at by all, kept by supervisors, checked before they are kept."""

import copy

import pytest

from havrin_core.machine.circuit.read import circuit_names
from havrin_core.tape.bundle import read_bundle
from havrin_server.shop.models import ShopDocument

HEATER = "unit_heater_power_vent"


def document(client, key=HEATER):
    return client.get(f"shop/circuit/{key}").json()


def own(client, key="heater_own", name="Our heater"):
    return document(client) | {"key": key, "name": name}


def put(client, doc):
    return client.http.put("/api/shop/circuit", {"document": doc}, content_type="application/json")


def test_all_shipped_circuits_are_listed_with_the_forms_choices(tove):
    page = tove.get("shop/circuit").json()
    assert {c["key"] for c in page["documents"] if c["shipped"]} == set(circuit_names())
    assert "switch" in page["choices"]["kinds"]
    assert "pressure_switch" in page["choices"]["families"]
    assert not page["writable"]


def test_a_supervisor_keeps_a_copy_and_finds_it_again(wenna, tove):
    page = put(wenna, own(wenna)).json()
    row = next(c for c in page["documents"] if c["key"] == "heater_own")
    assert (row["name"], row["shipped"], row["changed_by"]) == ("Our heater", False, "Wenna Harrowick")
    assert document(tove, "heater_own")["name"] == "Our heater"
    put(wenna, own(wenna, name="Our heater, second form"))
    assert ShopDocument.objects.get(sort="circuit", key="heater_own").document["name"] == "Our heater, second form"


def test_a_technician_and_the_office_may_only_look(tove, odo):
    for person in (tove, odo):
        assert put(person, own(person)).status_code == 403
    assert not ShopDocument.objects.filter(sort="circuit").exists()


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
    check = wenna.post("shop/circuit/check", document=doc).json()
    assert check["problem"]["element"] == "limit"
    assert check["rungs"] == []
    assert put(wenna, doc).status_code == 422
    assert not ShopDocument.objects.filter(sort="circuit").exists()


@pytest.mark.parametrize("key", circuit_names())
def test_every_shipped_circuit_is_drawn_solved_and_called(tove, key):
    check = tove.post("shop/circuit/check", document=document(tove, key)).json()
    assert check["problem"] is None
    assert len(check["solved"]) == len(check["states"])
    assert check["call"].startswith("A sound unit runs through")


def test_a_control_that_cannot_fire_is_told(tove):
    doc = document(tove)
    next(p for p in doc["parts"] if p["key"] == "flame_rod")["volts"] = 0.01
    assert "gives up" in tove.post("shop/circuit/check", document=doc).json()["call"]


@pytest.mark.parametrize(
    "doc", [{}, {"format": "havrin-circuit", "version": 1}, {"format": "havrin-circuit", "version": 9}]
)
def test_what_is_no_circuit_is_said_so(tove, doc):
    problem = tove.post("shop/circuit/check", document=doc).json()["problem"]
    assert len(problem["text"]) > 15


def test_an_unknown_circuit_is_not_found(tove):
    assert tove.get("shop/circuit/nothing").status_code == 404


def shipped_kind(client, **changes):
    return client.get("shop/kind/furnace_80").json() | {"key": "our_furnace", "name": "Our furnace"} | changes


def keep(client, sort, doc):
    return client.http.put(f"/api/shop/{sort}", {"document": doc}, content_type="application/json")


def test_a_kind_is_copied_changed_checked_and_kept(wenna, tove):
    doc = shipped_kind(wenna)
    check = tove.post("shop/kind/check", document=doc).json()
    assert check["problem"] is None
    assert [p["key"] for p in check["two_stages"]] == ["gas", "fire", "air", "string"]
    assert len(check["two_stages"][0]["stations"]) > len(check["one_stage"][0]["stations"])
    rows = keep(wenna, "kind", doc).json()["documents"]
    assert next(r for r in rows if r["key"] == "our_furnace")["changed_by"] == "Wenna Harrowick"
    assert keep(tove, "kind", doc).status_code == 403
    assert keep(wenna, "kind", tove.get("shop/kind/furnace_80").json()).json()["code"] == "shipped_kind"


def test_a_wrong_kind_names_its_element(wenna):
    problem = wenna.post("shop/kind/check", document=shipped_kind(wenna, ties=[["limit", "moon"]])).json()["problem"]
    assert (problem["element"], problem["code"]) == ("moon", "kind_form")
    doc = shipped_kind(wenna)
    doc["paths"][-1]["stations"][0]["between"]["only"] = ["W", "Q"]
    assert wenna.post("shop/kind/check", document=doc).json()["problem"]["code"] == "kind_node"


def test_a_unit_of_a_firms_own_kind_and_circuit(wenna, tove, visit):
    put(wenna, document(wenna, "furnace_80_hot_surface") | {"key": "our_wiring", "name": "Our wiring"})
    keep(wenna, "kind", shipped_kind(wenna, circuits={"only": "our_wiring"}))
    model = wenna.get("shop/model/norvane_hearth_70").json() | {"kind": "our_furnace"}
    assert keep(wenna, "model", model).status_code == 200
    page = tove.get(f"visits/{visit}").json()
    assert page["unit_line"].startswith("Our furnace")
    assert tove.get(f"visits/{visit}/string").json()["name"] == "Our wiring"
    bundle = tove.get(f"visits/{visit}/bundle.json").json()
    assert read_bundle(bundle).unit.circuit.key == "our_wiring"
    used = {r["key"]: r["used_by"] for r in wenna.get("shop/circuit").json()["documents"]}
    assert used["our_wiring"] == ["F-1"]


def form(client, key="norvane_hearth_70"):
    return client.get(f"shop/model/{key}/form").json()["fields"]


def field(fields, key, stage=""):
    return next(row for row in fields["plate"] if (row["key"], row["stage"]) == (key, stage))


def test_a_model_is_a_form_in_the_persons_units(wenna):
    fields = form(wenna)
    assert (field(fields, "manifold_pa", "only")["text"], field(fields, "manifold_pa", "only")["unit"]) == (
        "3.50",
        "inWC",
    )
    assert field(fields, "flame_min_a")["text"] == "0.80"
    assert fields["manual"][0]["page"] == "p. 22"


def test_a_model_is_changed_by_its_form(wenna, tove, visit):
    fields = form(wenna)
    field(fields, "rise_max_k")["text"] = "50"
    fields["codes"] = [{"pattern": "r3", "meaning": "Draft", "state": "no_draft"}]
    answer = wenna.http.put("/api/shop/model/form", {"fields": fields}, content_type="application/json")
    assert answer.status_code == 200, answer.content
    tove.line(visit, "rise 52")
    assert any(r["code"] == "temperature_rise_k_out" for r in tove.get(f"visits/{visit}").json()["standing"]["reasons"])
    assert [c["pattern"] for c in tove.get(f"visits/{visit}/arrival").json()["codes"]] == ["3 red"]


def test_a_number_that_is_none_is_answered_at_its_field(wenna):
    fields = form(wenna)
    field(fields, "rise_max_k")["text"] = "warm"
    fields["manual"][0]["high"] = "3 bananas"
    check = wenna.post("shop/model/check", fields=fields).json()
    assert field(check["fields"], "rise_max_k")["problem"]
    assert check["fields"]["manual"][0]["problem"]
    assert field(check["fields"], "rise_min_k")["problem"] == ""
    answer = wenna.http.put("/api/shop/model/form", {"fields": fields}, content_type="application/json")
    assert (answer.status_code, len(answer.json()["details"])) == (422, 2)


@pytest.mark.parametrize(
    ("changes", "code"),
    [
        ({"kind": "steam"}, "kind_unknown"),
        ({"name": ""}, "model_words"),
        ({"codes": [{"pattern": "9", "meaning": "?", "state": "moon"}]}, "code_state"),
    ],
)
def test_a_wrong_model_is_answered(wenna, changes, code):
    assert wenna.post("shop/model/check", fields=form(wenna) | changes).json()["problem"]["code"] == code


def test_every_model_of_the_sample_world_is_sound(tove):
    rows = tove.get("shop/model").json()["documents"]
    assert len(rows) == 14
    for row in rows:
        check = tove.get(f"shop/model/{row['key']}/form").json()
        assert check["problem"] is None, row
        again = tove.post("shop/model/check", fields=check["fields"]).json()
        assert again["problem"] is None
        assert again["fields"] == check["fields"]
        assert row["used_by"]
