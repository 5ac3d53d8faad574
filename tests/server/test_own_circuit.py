"""The circuit of one very unit over the interface: put right on the spot, kept for the unit, offered for its model."""

import pytest
from django.utils import timezone

from havrin_server.shop.models import ShopDocument, Sort
from havrin_server.units.models import Unit
from havrin_server.visits.causes import count_causes, what_was_learned
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import tape_of


@pytest.fixture
def visit(db):
    return Visit.objects.filter(unit__label="F-1", closed_at=None).order_by("pk").first()


def change(client, visit, **what):
    return client.post(f"visits/{visit.pk}/circuit", change=what)


FUSE = {"what": "insert", "at": "limit", "family": "fuse", "name": "Inline fuse"}


def test_a_device_that_was_found_is_a_suspect_from_here_on(wenna, visit):
    answer = change(wenna, visit, **FUSE)
    assert answer.status_code == 200, answer.json()
    page = answer.json()
    assert page["own"]
    assert "Inline fuse" in [part["name"] for part in page["parts"]]
    fuse = next(part["key"] for part in page["parts"] if part["name"] == "Inline fuse")
    node = next(node["key"] for node in page["nodes"] if "between" in node["name"])
    assert wenna.line(visit.pk, f"ohms {fuse.replace('_', ' ')} open").status_code == 200
    suspects = wenna.get(f"visits/{visit.pk}/string").json()["suspects"]
    assert suspects["suspects"][0]["part"] == fuse
    assert node in {n["key"] for n in page["nodes"]}


def test_the_tape_says_what_was_changed_and_a_visit_that_has_begun_goes_by_it(wenna, visit):
    assert wenna.line(visit.pk, "room 0").status_code == 200
    assert change(wenna, visit, **FUSE).status_code == 200
    page = wenna.get(f"visits/{visit.pk}").json()
    assert any("Inline fuse found before the limit" in entry["text"] for entry in page["tape"])
    visit.refresh_from_db()
    assert visit.described().circuit.key == f"unit_{visit.unit_id}"
    assert (
        wenna.get(f"visits/{visit.pk}/bundle.json").json()["unit"]["circuit_document"]["key"] == f"unit_{visit.unit_id}"
    )


def test_other_units_of_the_model_keep_theirs_until_a_supervisor_keeps_it_for_all(tove, wenna, visit):
    others = Unit.objects.filter(model=visit.unit.model).exclude(pk=visit.unit_id)
    assert change(wenna, visit, **FUSE).status_code == 200
    before = {unit.pk: unit.described().circuit.key for unit in others}
    assert f"unit_{visit.unit_id}" not in before.values()
    assert tove.post(f"visits/{visit.pk}/circuit/for-model").status_code == 403
    assert wenna.post(f"visits/{visit.pk}/circuit/for-model").status_code == 200
    kept = ShopDocument.objects.get(firm_id=visit.unit.site.firm_id, sort=Sort.CIRCUIT, key__startswith="of_")
    assert {unit.described().circuit.key for unit in Unit.objects.filter(pk__in=before)} <= {kept.key}


def test_nothing_is_kept_for_the_model_where_nothing_was_changed(wenna, visit):
    answer = wenna.post(f"visits/{visit.pk}/circuit/for-model")
    assert (answer.status_code, answer.json()["code"]) == (422, "circuit_not_own")


def test_what_was_changed_is_taken_back_as_one(wenna, visit):
    model = visit.unit.described().circuit.key
    assert change(wenna, visit, **FUSE).status_code == 200
    assert change(wenna, visit, what="name", node="3", name="yellow, pin 4").status_code == 200
    page = change(wenna, visit, what="as_model").json()
    assert not page["own"]
    assert Unit.objects.get(pk=visit.unit_id).described().circuit.key == model


@pytest.mark.parametrize(
    ("what", "code"),
    [
        ({**FUSE, "at": "nowhere"}, "part_unknown"),
        ({**FUSE, "family": "capacitor"}, "family_unknown"),
        ({"what": "move", "part": "limit", "end": 0, "node": "2"}, "part_nodes"),
        ({"what": "name", "node": "99", "name": "blue"}, "node_unknown"),
    ],
)
def test_what_would_leave_no_circuit_is_refused_and_changes_nothing(wenna, visit, what, code):
    answer = change(wenna, visit, **what)
    assert answer.status_code in (404, 409, 422), answer.json()
    assert answer.json()["code"] == code
    assert Unit.objects.get(pk=visit.unit_id).circuit is None


def test_a_string_begun_blank_is_walked_together(wenna, visit):
    before = wenna.get(f"visits/{visit.pk}/string").json()
    blank = change(wenna, visit, what="blank").json()
    assert len(blank["parts"]) < len(before["parts"])
    again = change(wenna, visit, what="insert", at="gas_valve", family="limit", name="Limit on the shelf").json()
    assert "Limit on the shelf" in [part["name"] for part in again["parts"]]


def test_the_causes_that_a_firm_closed_move_its_odds(wenna, visit):
    before = dict(what_was_learned(visit)[0])
    assert wenna.line(visit.pk, "cause hose off").status_code == 200
    count_causes(visit, tape_of(visit))
    count_causes(visit, tape_of(visit))
    assert dict(what_was_learned(visit)[0]) == before | {"hose": before.get("hose", 0) + 2}
    said = wenna.get(f"visits/{visit.pk}/string").json()["suspects"]["beforehand"]
    assert any("hose 2" in line.lower() for line in said)


def test_what_a_firm_renewed_in_vain_is_counted_and_said(wenna, visit):
    for line in ("did change igniter", "cause hose off"):
        assert wenna.line(visit.pk, line).status_code == 200
    count_causes(visit, tape_of(visit))
    causes, in_vain = what_was_learned(visit)
    assert ("igniter", 1, 0) in in_vain
    assert "igniter" not in dict(causes)
    said = wenna.get(f"visits/{visit.pk}/string").json()["suspects"]["beforehand"]
    assert any("not the cause" in line and "igniter 1" in line.lower() for line in said)


def test_a_call_that_nobody_explained_counts_as_unsolved(wenna, visit):
    for line in ("did change igniter", "cause not found"):
        assert wenna.line(visit.pk, line).status_code == 200
    count_causes(visit, tape_of(visit))
    assert ("igniter", 1, 1) in what_was_learned(visit)[1]


def test_another_circuit_is_chosen_for_one_unit_and_for_one_that_had_none(tove, visit):
    answer = change(tove, visit, what="choose", key="furnace_speed_proved")
    assert answer.status_code == 200, answer.json()
    assert "proved by" in answer.json()["name"] or "speed" in answer.json()["name"]
    assert answer.json()["own"]
    kind = {**visit.unit.model.document, "key": "no_circuit", "kind": "boiler_condensing", "circuit": ""}
    bare = ShopDocument.objects.create(
        firm_id=visit.unit.site.firm_id, sort=Sort.MODEL, key="no_circuit", document=kind, changed_at=timezone.now()
    )
    Unit.objects.filter(pk=visit.unit_id).update(model=bare, circuit=None)
    visit = Visit.objects.create(
        unit_id=visit.unit_id,
        reason="no_heat",
        day=visit.day,
        technician=visit.technician,
        house_rules=visit.house_rules,
    )
    page = tove.get(f"visits/{visit.pk}/string").json()
    assert (page["known"], "boiler_power_vent_pilot" in [row["key"] for row in page["circuits"]]) == (False, True)
    assert change(tove, visit, what="choose", key="boiler_power_vent_pilot").json()["known"]
    assert change(tove, visit, what="choose", key="nowhere").status_code == 422
