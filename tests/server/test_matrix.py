"""Every call by everybody: who may, who may not, and what another firm sees. A call without a row here fails.

The calls are those of docs/openapi.json, each sent for real, with things that exist and a body that its schema takes. Who may
is written down here once more, by hand: it is not asked of the table that decides.
"""

import json
import re
import uuid

import pytest
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from django.test import Client
from django.utils.timezone import now

from havrin_server.cards.models import Merge
from havrin_server.people.members import invite
from havrin_server.people.models import Firm, Person
from havrin_server.visits.models import Visit
from tests.server.conftest import NOW, Caller
from tests.server.test_photos import picture

TECHNICIAN, SUPERVISOR, OFFICE, ADMINISTRATOR = "technician", "supervisor", "office", "administrator"
ANYBODY = frozenset({TECHNICIAN, SUPERVISOR, OFFICE, ADMINISTRATOR})
FIELD = frozenset({TECHNICIAN, SUPERVISOR, ADMINISTRATOR})
BOSS = frozenset({SUPERVISOR, ADMINISTRATOR})
KEEPERS = frozenset({SUPERVISOR, OFFICE, ADMINISTRATOR})
KEEPER = frozenset({ADMINISTRATOR})
OPEN, OWN = "open", "own"  # to strangers; to whoever is signed in, about nobody else

CALLS = {
    "GET /health": OPEN,
    "GET /health/ready": OPEN,
    "GET /metrics": "device",
    "POST /session": OPEN,
    "GET /session": OWN,
    "DELETE /session": OWN,
    "PATCH /session": OWN,
    "PUT /session/password": OWN,
    "GET /session/all": OWN,
    "DELETE /session/all": OWN,
    "DELETE /session/all/{session_id}": OWN,
    "POST /session/code": OWN,
    "PUT /session/code": OWN,
    "POST /session/code/remove": OWN,
    "PUT /firm/formats": BOSS,
    "PUT /firm/codes-required": KEEPER,
    "GET /people": BOSS,
    "POST /people/invitations": KEEPER,
    "DELETE /people/invitations/{invitation_id}": KEEPER,
    "POST /people/{person_id}/reset": KEEPER,
    "PATCH /people/{person_id}": KEEPER,
    "GET /invitations/{token}": OPEN,
    "POST /invitations/{token}": OPEN,
    "GET /audit": BOSS,
    "GET /round": ANYBODY,
    "GET /visits/{visit_id}": ANYBODY,
    "GET /visits/{visit_id}/arrival": ANYBODY,
    "GET /visits/{visit_id}/walks": ANYBODY,
    "GET /visits/{visit_id}/closing": ANYBODY,
    "GET /visits/{visit_id}/exchanger": ANYBODY,
    "GET /visits/{visit_id}/search-history": ANYBODY,
    "POST /visits/{visit_id}/circuit": FIELD,
    "POST /visits/{visit_id}/circuit/for-model": BOSS,
    "GET /visits/{visit_id}/string": ANYBODY,
    "GET /visits/{visit_id}/workings": ANYBODY,
    "GET /visits/{visit_id}/meter": ANYBODY,
    "GET /visits/{visit_id}/vocabulary": ANYBODY,
    "GET /visits/{visit_id}/version": ANYBODY,
    "POST /visits/{visit_id}/read-back": ANYBODY,
    "POST /visits/{visit_id}/lines": FIELD,
    "PUT /visits/{visit_id}/in-hand": FIELD,
    "POST /visits/{visit_id}/corrections": FIELD,
    "POST /visits/{visit_id}/close": FIELD,
    "POST /visits/{visit_id}/newest": FIELD,
    "POST /visits/{visit_id}/bundle": FIELD,
    "POST /visits/{visit_id}/amendments": FIELD,
    "POST /units/{unit_id}/visits": ANYBODY,
    "POST /capture/batches": "device",
    "POST /instruments/{instrument_id}/key": BOSS,
    "DELETE /instruments/{instrument_id}/key": BOSS,
    "GET /visits/{visit_id}/captures": ANYBODY,
    "POST /visits/{visit_id}/captures": FIELD,
    "POST /visits/{visit_id}/captures/csv": FIELD,
    "POST /captures/{capture_id}/end": FIELD,
    "GET /captures/{capture_id}/traces": ANYBODY,
    "GET /captures/{capture_id}/dips": ANYBODY,
    "POST /captures/{capture_id}/dips": FIELD,
    "GET /captures/{capture_id}/reading": ANYBODY,
    "POST /captures/{capture_id}/events": FIELD,
    "POST /captures/{capture_id}/step": FIELD,
    "POST /captures/{capture_id}/means": FIELD,
    "GET /logs/{log_id}": ANYBODY,
    "POST /logs/{log_id}/mapping": FIELD,
    "POST /logs/{log_id}/answers": FIELD,
    "POST /logs/{log_id}/window": ANYBODY,
    "POST /logs/{log_id}/means": FIELD,
    "GET /log-shares/{upload}": ANYBODY,
    "POST /visits/{visit_id}/logs": FIELD,
    "POST /visits/{visit_id}/photos": FIELD,
    "GET /photos/{photo_id}": ANYBODY,
    "PUT /photos/{photo_id}/marks": FIELD,
    "GET /shop/{sort}": ANYBODY,
    "PUT /shop/{sort}": BOSS,
    "POST /shop/circuit/check": ANYBODY,
    "POST /shop/kind/check": ANYBODY,
    "POST /shop/model/check": ANYBODY,
    "POST /shop/walk/check": ANYBODY,
    "GET /shop/model/{key}/form": ANYBODY,
    "PUT /shop/model/form": BOSS,
    "GET /shop/{sort}/{key}": ANYBODY,
    "GET /house-rules": ANYBODY,
    "PUT /house-rules": BOSS,
    "POST /house-rules/try": ANYBODY,
    "GET /sites/{site_id}": ANYBODY,
    "GET /units/{unit_id}": ANYBODY,
    "POST /units/{unit_id}/links": ANYBODY,
    "POST /links/{link_id}/revoke": ANYBODY,
    "GET /shared/{token}": OPEN,
    "GET /shared/{token}/{visit_id}.pdf": OPEN,
    "GET /visits/{visit_id}/report.pdf": ANYBODY,
    "GET /visits/{visit_id}/customer.pdf": ANYBODY,
    "GET /visits/{visit_id}/tag.pdf": ANYBODY,
    "GET /visits/{visit_id}/quote.pdf": ANYBODY,
    "GET /visits/{visit_id}/sheet.pdf": ANYBODY,
    "GET /visits/{visit_id}/preview/{kind}": ANYBODY,
    "GET /sites/{site_id}/sheet.pdf": ANYBODY,
    "GET /visits/{visit_id}/plan.ics": ANYBODY,
    "GET /visits/{visit_id}/bundle.json": ANYBODY,
    "GET /visits/{visit_id}/readings.csv": ANYBODY,
    "GET /amendments/{amendment_id}.pdf": ANYBODY,
    "GET /check/{head}": OPEN,
    "POST /check": ANYBODY,
    "GET /board": ANYBODY,
    "PUT /visits/{visit_id}/plan": ANYBODY,
    "POST /visits/{visit_id}/cancel": ANYBODY,
    "GET /search": ANYBODY,
    "GET /cards": ANYBODY,
    "GET /cards/{card_sort}": ANYBODY,
    "GET /cards/{card_sort}/form": ANYBODY,
    "GET /cards/{card_sort}/{card_id}": ANYBODY,
    "POST /cards/{card_sort}": ANYBODY,
    "PUT /cards/{card_sort}/{card_id}": ANYBODY,
    "POST /cards/{card_sort}/{card_id}/retire": KEEPERS,
    "POST /cards/{card_sort}/{card_id}/merge": KEEPERS,
    "POST /merges/{merge_id}/undo": KEEPERS,
    "GET /cards/{card_sort}/all.csv": KEEPERS,
    "GET /sites/{site_id}/door": ANYBODY,
    "POST /door/units": ANYBODY,
    "POST /units/{unit_id}/plate-photos": ANYBODY,
    "GET /plate-photos/{plate_photo_id}": ANYBODY,
    "POST /plates/read": ANYBODY,
    "GET /imports": KEEPERS,
    "POST /imports": KEEPERS,
    "GET /imports/{import_id}": KEEPERS,
    "POST /imports/{import_id}/look": KEEPERS,
    "PUT /imports/{import_id}/rows/{number}": KEEPERS,
    "GET /imports/{import_id}/rows": KEEPERS,
    "POST /imports/{import_id}/take": KEEPERS,
    "POST /imports/{import_id}/undo": KEEPERS,
    "GET /work/{work_id}": OWN,
    "POST /work/{work_id}/stop": OWN,
}
# not in the published document: a file of samples, and the stream (its own tests: test_open_pages.py)
UNPUBLISHED = {"GET /captures/{capture_id}/samples.csv": ANYBODY}

API = json.loads((settings.ROOT / "docs" / "openapi.json").read_text(encoding="utf-8"))
# The same word for a parameter means another thing there: sorts of cards and of the shop, pictures of plates and of visits.
OTHERWISE = {"/cards/{sort}": "/cards/{card_sort}", "/plate-photos/{photo_id}": "/plate-photos/{plate_photo_id}"}


def named(path):
    """Return a path whose parameters say what they are, here."""
    for said, meant in OTHERWISE.items():
        path = path.replace(said, meant)
    return path


PUBLISHED = {
    f"{method.upper()} {named(path.removeprefix('/api'))}": call
    for path, calls in API["paths"].items()
    for method, call in calls.items()
}
OWN_BY_ID = (
    "visit_id",
    "unit_id",
    "site_id",
    "instrument_id",
    "capture_id",
    "log_id",
    "photo_id",
    "link_id",
    "person_id",
    "invitation_id",
    "card_id",
    "merge_id",
    "import_id",
    "plate_photo_id",
)


def test_every_call_has_its_row():
    assert set(PUBLISHED) == set(CALLS)


def example(schema):
    """Return a value that a schema takes."""
    if "$ref" in schema:
        return example(API["components"]["schemas"][schema["$ref"].rpartition("/")[2]])
    if "anyOf" in schema or "oneOf" in schema:
        return example(schema.get("anyOf", schema.get("oneOf"))[0])
    if "const" in schema:
        return schema["const"]
    if "enum" in schema:
        return schema["enum"][0]
    if "const" in schema:
        return schema["const"]
    kind = schema.get("type")
    if kind == "object":
        required = schema.get("required", ())
        return {name: example(part) for name, part in schema.get("properties", {}).items() if name in required}
    formats = {"uuid": lambda: str(uuid.uuid4()), "date-time": lambda: NOW, "date": lambda: "2026-01-15"}
    if kind == "string":
        return formats.get(schema.get("format"), lambda: "x")()
    if kind == "array":
        return [example(schema["items"])] * schema.get("minItems", 0)
    return {"integer": 1, "number": 1.0, "boolean": False}.get(kind, "x")


def person(role, firm):
    made = Person.objects.create_user(f"{role}-{firm.pk if firm else 'none'}", password="valley-heat", firm=firm)
    made.role = role
    made.save()
    return Caller(made.username)


@pytest.fixture
def everybody(world):
    firm, other = Firm.objects.get(), Firm.objects.create(name="Another firm")
    own = {role: person(role, firm) for role in ANYBODY}
    return own, person(ADMINISTRATOR, other), person(TECHNICIAN, None)


@pytest.fixture
def things(wenna, visit):
    """Something of each sort, all of one firm."""
    there = Visit.objects.get(pk=visit)
    firm = there.unit.site.firm
    instruments = wenna.get(f"visits/{visit}").json()["instruments"]
    capture = wenna.post(f"visits/{visit}/captures", instruments=[instruments[0]["id"]], stage="").json()
    photo = wenna.photo(visit, SimpleUploadedFile("a.jpg", picture())).json()["photos"][0]
    link = wenna.post(f"units/{there.unit_id}/links", days=3).json()
    file = SimpleUploadedFile("log.csv", (settings.ROOT / "demo" / "logs" / "F-3-lp.csv").read_bytes())
    log = wenna.upload(f"visits/{visit}/logs", file).json()
    wenna_herself = Person.objects.get(username="wenna")
    table = SimpleUploadedFile("sites.csv", b"Name,Altitude\nA new place,5000\n")
    picture_of_plate = SimpleUploadedFile("plate.jpg", picture())
    plate = wenna.upload(f"units/{there.unit_id}/plate-photos", picture_of_plate, id=str(uuid.uuid4())).json()
    return {
        "visit_id": visit,
        "unit_id": there.unit_id,
        "site_id": there.unit.site_id,
        "instrument_id": instruments[0]["id"],
        "capture_id": capture["id"],
        "photo_id": photo["id"],
        "link_id": link["id"],
        "log_id": log["id"],
        "upload": uuid.uuid4(),
        "amendment_id": uuid.uuid4(),
        "work_id": uuid.uuid4(),
        "sort": "model",
        "key": there.unit.model.key,
        "kind": "customer",
        "token": "no-such-token",
        "session_id": uuid.uuid4(),
        "person_id": Person.objects.get(username="odo").pk,
        "invitation_id": invite(firm, username="new", first_name="N", last_name="", role=OFFICE, by=None, now=now())[
            0
        ].pk,
        "head": "0" * 64,
        "card_sort": "site",
        "card_id": there.unit.site_id,
        "merge_id": Merge.objects.create(
            firm=firm, sort="unit", gone=there.unit_id, kept=0, by=wenna_herself, at=now()
        ).pk,
        "import_id": wenna.upload("imports", table, sort="site").json()["id"],
        "number": 2,
        "plate_photo_id": plate["photos"][0],
    }


def sent(http, call, things):
    """Send a call; return its status. What it changed is undone."""
    method, path = call.split(" ")
    address = "/api" + re.sub(r"{(\w+)}", lambda found: str(things[found[1]]), path)
    described = PUBLISHED.get(call, {})
    needed = {p["name"]: example(p["schema"]) for p in described.get("parameters", ()) if p["in"] == "query"}
    content = described.get("requestBody", {}).get("content", {})
    with transaction.atomic():
        if "multipart/form-data" in content:
            fields = example(content["multipart/form-data"]["schema"])
            answer = http.post(address, {**fields, "file": SimpleUploadedFile("x.txt", b"nothing")})
        elif method == "GET":
            answer = http.get(address, {name: value for name, value in needed.items() if value is not None})
        else:
            body = example(content["application/json"]["schema"]) if content else {}
            answer = http.generic(method, address, json.dumps(body), content_type="application/json")
        if answer.streaming:
            b"".join(answer.streaming_content)  # to its end, so that the file is closed
        transaction.set_rollback(True)
    return answer.status_code


ALL = sorted(CALLS | UNPUBLISHED)
ROWS = 12  # of calls that share the things they are sent about: what each changes is undone


@pytest.mark.parametrize("first", range(ROWS))
def test_who_may(first, everybody, things):
    for call in ALL[first::ROWS]:
        check_who_may(call, everybody, things)


def check_who_may(call, everybody, things):
    own, elsewhere, nobody = everybody
    allowed = (CALLS | UNPUBLISHED)[call]
    stranger = sent(Client(), call, things)
    if allowed == OPEN:
        assert stranger not in (401, 500), call
        return
    assert stranger == 401, (call, "strangers")
    if allowed in (OWN, "device"):
        return
    for role, caller in own.items():
        status = sent(caller.http, call, things)
        assert status < 500, (call, role)
        assert (status not in (401, 403)) if role in allowed else (status == 403), (call, role, status)
    assert sent(nobody.http, call, things) in (403, 404), (call, "somebody of no firm")
    if any(f"{{{name}}}" in call for name in OWN_BY_ID):
        assert sent(elsewhere.http, call, things) == 404, (call, "another firm")
