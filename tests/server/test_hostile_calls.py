"""Captures, photos, marks, signatures, plans, rules and shop documents, bent at any place: refused clearly, or harmless."""

import json
import os
import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from havrin_server.captures.live import make_key
from havrin_server.instruments.models import Instrument
from havrin_server.visits.models import Visit
from tests.server.conftest import NOW
from tests.server.test_hostile import ODD, bent, places, raw, still_open
from tests.server.test_photos import picture

pytestmark = pytest.mark.django_db
CLEAR = frozenset({200, 400, 403, 404, 409, 413, 422, 429})
# More of them with ./havrin test --all.
MANY = 400 if os.environ.get("HAVRIN_EVERY_CASE") else 25
ON_ONE_WORLD = settings(max_examples=MANY, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])


def bent_somewhere(data, document):
    """Return a document with one odd value somewhere in it, or with a field too many or too few."""
    paths = sorted(places(document), key=str)
    path = data.draw(st.sampled_from(paths))
    if data.draw(st.integers(0, 9)) == 0:
        return {**document, "no_such_field": data.draw(ODD)}
    return bent(document, path, data.draw(ODD))


@pytest.fixture
def recording(tove, visit):
    """An instrument's key, and the capture that it records on."""
    instrument = Instrument.objects.filter(kind="manometer").first() or Instrument.objects.first()
    capture = tove.post(f"visits/{visit}/captures", instruments=[instrument.pk], stage="only").json()
    return make_key(instrument, timezone.now()), capture["id"]


def batch(number):
    return {
        "device_time_s": 100.0 + number,
        "sequence": number,
        "channels": {"draft_pa": {"t": [100.0 + number, 100.1 + number], "v": [-20.0, -21.0]}},
    }


@ON_ONE_WORLD
@given(data=st.data())
def test_a_batch_that_is_bent_is_taken_or_refused(tove, visit, recording, data):
    key, capture = recording
    device = Client(headers={"Authorization": f"Bearer {key}"})
    body = bent_somewhere(data, batch(data.draw(st.integers(0, 50))))
    answer = device.post("/api/capture/batches", json.dumps(body), content_type="application/json")
    assert answer.status_code in CLEAR, body
    assert tove.get(f"captures/{capture}/traces").status_code == 200
    assert tove.get(f"captures/{capture}/reading").status_code == 200


@pytest.mark.parametrize("value", ["NaN", "-1e400", "1e400", '"x"', "null", "[]"])
def test_a_sample_that_is_no_number_is_refused(tove, visit, recording, value):
    key, _ = recording
    text = json.dumps(batch(1)).replace("-20.0", value)
    device = Client(headers={"Authorization": f"Bearer {key}"})
    assert device.post("/api/capture/batches", text, content_type="application/json").status_code in (400, 422)
    still_open(tove, visit)


@ON_ONE_WORLD
@given(data=st.data())
def test_what_is_written_of_a_trace_is_taken_or_refused(tove, visit, recording, data):
    key, capture = recording
    device = Client(headers={"Authorization": f"Bearer {key}"})
    device.post("/api/capture/batches", json.dumps(batch(0)), content_type="application/json")
    stamp = {"id": str(uuid.uuid4()), "at": NOW, "phase": "found"}
    bodies = {
        "means": {**stamp, "start_s": 0, "end_s": 10, "stage": "only"},
        "dips": {**stamp, "quantity": "draft_pa"},
        "step": {**stamp, "at_s": 1.0, "stage": "only"},
        "events": {"id": str(uuid.uuid4()), "kind": "cover_off", "at_s": 1.0},
    }
    call = data.draw(st.sampled_from(sorted(bodies)))
    answer = tove.post(f"captures/{capture}/{call}", **bent_somewhere(data, bodies[call]))
    assert answer.status_code in CLEAR
    assert tove.get(f"visits/{visit}").status_code == 200


def test_the_worst_of_what_never_ran_is_refused(tove, visit, recording):
    key, capture = recording
    device = Client(headers={"Authorization": f"Bearer {key}"})
    rest = {"t": [100.0, 160.0], "v": [0.0, 0.0]}
    device.post("/api/capture/batches", json.dumps({**batch(0), "channels": {"draft_pa": rest}}), "application/json")
    answer = tove.post(f"captures/{capture}/dips", id=str(uuid.uuid4()), at=NOW, phase="found", quantity="draft_pa")
    assert (answer.status_code, answer.json()["code"]) == (422, "dips_never_ran")


@ON_ONE_WORLD
@given(data=st.data())
def test_marks_on_a_photo_are_taken_or_refused(tove, visit, data):
    page = tove.get(f"visits/{visit}").json()
    if not page["photos"]:
        page = tove.photo(visit, SimpleUploadedFile("a.jpg", picture())).json()
    mark = {"x": 0.1, "y": 0.2, "to_x": 0.5, "to_y": 0.6, "text": "here"}
    body = bent_somewhere(data, {"marks": [mark, dict(mark)]})
    assert tove.put(f"photos/{page['photos'][0]['id']}/marks", **body).status_code in CLEAR
    assert tove.get(f"visits/{visit}").status_code == 200


@ON_ONE_WORLD
@given(content=st.binary(max_size=400) | st.integers(0, 600).map(lambda cut: picture()[:cut]))
def test_any_bytes_as_a_photo_are_taken_or_refused(tove, visit, content):
    answer = tove.photo(visit, SimpleUploadedFile("a.jpg", content))
    assert answer.status_code in CLEAR
    assert tove.get(f"visits/{visit}").status_code == 200


@ON_ONE_WORLD
@given(data=st.data())
def test_a_close_that_is_bent_closes_or_is_refused_and_the_papers_come(tove, visit, data):
    version = tove.get(f"visits/{visit}").json()["version"]
    body = {
        "seen_version": version,
        "customer_words": "In order.",
        "signed_by": "T.",
        "signature": [[[0.1, 0.2], [0.3, 0.4]], [[0.5, 0.5]]],
        "left": "running",
    }
    assert tove.post(f"visits/{visit}/close", **bent_somewhere(data, body)).status_code in CLEAR
    assert tove.get(f"visits/{visit}").status_code == 200


@ON_ONE_WORLD
@given(data=st.data())
def test_a_plan_an_amendment_and_a_link_are_made_or_refused(wenna, visit, data):
    closed = Visit.objects.filter(closed_at__isnull=False).first()
    bodies = {
        f"units/{closed.unit_id}/visits": {"day": "2026-01-20", "reason": "recheck", "complaint": "cold"},
        f"visits/{closed.pk}/amendments": {
            "id": str(uuid.uuid4()),
            "lines": [{"text": "note forgotten", "as_note": False}],
            "why": "forgotten",
            "at": NOW,
        },
        f"units/{closed.unit_id}/links": {"days": 3},
        f"visits/{visit}/read-back": {"text": "mp 3.5", "stage": "only", "phase": "found"},
    }
    path = data.draw(st.sampled_from(sorted(bodies)))
    assert wenna.post(path, **bent_somewhere(data, bodies[path])).status_code in CLEAR
    for shown in ("round", f"units/{closed.unit_id}", f"visits/{closed.pk}", "board", f"sites/{closed.unit.site_id}"):
        assert wenna.get(shown).status_code == 200, shown


@pytest.fixture
def own_documents(wenna, visit):
    """What the visit's unit is built of, as documents of the shop."""
    model = Visit.objects.get(pk=visit).unit.of_model()
    key = Visit.objects.select_related("unit__model").get(pk=visit).unit.model.key
    document = wenna.get(f"shop/model/{key}").json()
    kind = wenna.get(f"shop/kind/{model.kind}").json()
    circuit = wenna.get("shop/circuit").json()["documents"][0]["key"]
    walk = next(row for row in wenna.get("shop/walk").json()["documents"])
    return {
        "model": document,
        "kind": {**kind, "key": "own_kind"},
        "walk": wenna.get(f"shop/walk/{walk['key']}").json(),
        "circuit": {**wenna.get(f"shop/circuit/{circuit}").json(), "key": "own_circuit"},
    }


@ON_ONE_WORLD
@given(data=st.data())
def test_a_shop_document_that_is_bent_is_kept_or_refused_and_ends_nothing(wenna, tove, visit, own_documents, data):
    sort = data.draw(st.sampled_from(sorted(own_documents)))
    odd = bent_somewhere(data, own_documents[sort])
    answer = wenna.put(f"shop/{sort}", document=odd, reason="fuzzed")
    assert answer.status_code in CLEAR, (sort, answer.content)
    unit = Visit.objects.get(pk=visit).unit_id
    for path in (f"visits/{visit}", f"units/{unit}", "round", f"shop/{sort}", "house-rules"):
        assert tove.get(path).status_code == 200, (path, sort, odd)


@ON_ONE_WORLD
@given(data=st.data())
def test_house_rules_that_are_bent_are_kept_or_refused_and_end_nothing(wenna, visit, data):
    kept = wenna.get("house-rules").json()
    rules = {row["key"]: row["chosen"] for row in kept.get("questions", [])} or {"jumpers": "logged"}
    odd = bent_somewhere(data, rules)
    assert wenna.put("house-rules", rules=odd, reason="fuzzed").status_code in CLEAR
    for path in (f"visits/{visit}", "round", "house-rules", f"visits/{visit}/closing"):
        assert wenna.get(path).status_code == 200, (path, odd)


@pytest.mark.parametrize("text", ["[" * 5000, '{"document": ' + "[" * 60 + "]" * 60 + "}", '{"document": {"a": NaN}}'])
def test_a_document_nested_too_deep_or_with_no_number_is_refused(wenna, text):
    answer = wenna.http.put("/api/shop/model", text, content_type="application/json")
    assert answer.status_code in (400, 422)
    assert raw(wenna, "shop/kind/check", text).status_code in (400, 422)
