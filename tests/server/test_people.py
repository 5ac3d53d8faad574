"""Who belongs to the firm: invited, changed, let in again, gone; codes, sessions, and the audit log of all that."""

import json
from datetime import timedelta
from urllib.parse import urlsplit

import pyotp
import pytest
from django.conf import settings
from django.db import DatabaseError, connection, transaction
from django.test import Client
from django.utils import timezone

from havrin_server.people.models import AuditRecord, Firm, Invitation, OpenSession, Person
from havrin_server.people.session_store import BEGAN, SessionStore
from havrin_server.visits.models import Visit
from tests.server.conftest import Caller

pytestmark = pytest.mark.django_db
GOOD = "seven-lamps-of-brass"


def invite(runa, username="piran", role="technician"):
    return runa.post("people/invitations", username=username, first_name="Piran", last_name="Oakmoor", role=role)


def token_of(answer):
    return urlsplit(answer.json()["link"]).path.rpartition("/")[2]


def choose(token, password=GOOD):
    return Client().post(f"/api/invitations/{token}", json.dumps({"password": password}), "application/json")


def sign_in(username, password, code=""):
    client = Client()
    body = {"username": username, "password": password, "code": code}
    return client, client.post("/api/session", json.dumps(body), "application/json")


def actions(name):
    return list(AuditRecord.objects.filter(name=name).order_by("pk").values_list("action", flat=True))


def test_somebody_is_invited_chooses_a_password_and_works(runa, visit):
    token = token_of(invite(runa))
    opened = Client().get(f"/api/invitations/{token}").json()
    assert opened == {"firm": "Tarnhollow Heating", "username": "piran", "first_name": "Piran", "again": False}
    answer = choose(token)
    assert (answer.status_code, answer.json()["role"]) == (200, "technician")
    client, signed = sign_in("piran", GOOD)
    assert signed.status_code == 200
    assert client.get(f"/api/visits/{visit}").status_code == 200
    assert actions("piran") == ["invitation_used", "sign_in", "sign_in"]


def test_an_invitation_opens_once_and_not_for_ever(runa):
    token = token_of(invite(runa))
    assert choose(token).status_code == 200
    assert choose(token).status_code == 404
    late = token_of(invite(runa, "orrin"))
    Invitation.objects.filter(username="orrin").update(expires_at=timezone.now() - timedelta(seconds=1))
    assert choose(late).status_code == 404
    taken_back = invite(runa, "sela")
    runa.delete(f"people/invitations/{taken_back.json()['invitation']['id']}")
    assert choose(token_of(taken_back)).status_code == 404
    assert not Person.objects.filter(username__in=("orrin", "sela")).exists()


@pytest.mark.parametrize("password", ["short", "1234567890123", "password123", "piran-oakmoor", ""])
def test_a_password_that_is_easy_to_guess_is_refused_with_the_reason(runa, password):
    token = token_of(invite(runa))
    answer = choose(token, password)
    assert (answer.status_code, answer.json()["code"]) == (422, "password_easy")
    assert "password" in answer.json()["title"]
    assert choose(token).status_code == 200


@pytest.mark.parametrize(("username", "code"), [("tove", "name_taken"), ("Tove", "name_taken"), ("p n", "name_form")])
def test_a_name_that_is_taken_or_none_is_refused(runa, username, code):
    assert invite(runa, username).json()["code"] == code


def test_the_list_is_the_administrators_to_change_and_the_supervisors_to_read(runa, wenna, tove):
    assert [row["username"] for row in wenna.get("people").json()["people"]] == ["odo", "runa", "tove", "wenna"]
    assert wenna.get("people").json()["may_write"] is False
    assert runa.get("people").json()["may_write"] is True
    assert tove.get("people").status_code == 403
    assert "refused" in actions("tove")


def test_who_leaves_is_out_at_once_with_links_and_keys(runa, wenna, visit):
    page = wenna.get(f"visits/{visit}").json()
    link = wenna.post(f"units/{Visit.objects.get(pk=visit).unit_id}/links", days=30).json()
    token = link["path"].rpartition("/")[2]
    instrument = page["instruments"][0]["id"]
    key = wenna.post(f"instruments/{instrument}/key").json()["key"]
    device = Client(headers={"Authorization": f"Bearer {key}"})
    batch = json.dumps({"device_time_s": 1.0, "sequence": 1, "channels": {}})
    assert Client().get(f"/api/shared/{token}").status_code == 200
    assert device.post("/api/capture/batches", batch, "application/json").status_code == 200
    person = Person.objects.get(username="wenna")
    assert runa.patch(f"people/{person.pk}", active=False).status_code == 200
    assert wenna.get("session").status_code == 401
    assert sign_in("wenna", "valley-heat")[1].status_code == 403
    assert Client().get(f"/api/shared/{token}").status_code == 404
    assert device.post("/api/capture/batches", batch, "application/json").status_code == 401
    assert runa.patch(f"people/{person.pk}", active=True).status_code == 200
    assert sign_in("wenna", "valley-heat")[1].status_code == 200


def test_the_last_administrator_stays(runa):
    own = Person.objects.get(username="runa")
    assert runa.patch(f"people/{own.pk}", role="office").json()["code"] == "last_administrator"
    assert runa.patch(f"people/{own.pk}", active=False).json()["code"] == "last_administrator"
    other = Person.objects.get(username="wenna")
    assert runa.patch(f"people/{other.pk}", role="administrator").status_code == 200
    assert runa.patch(f"people/{own.pk}", role="office").status_code == 200
    assert runa.patch(f"people/{other.pk}", role="office").status_code == 403


def test_a_reset_ends_the_old_password_the_sessions_and_the_code(runa, tove):
    person = Person.objects.get(username="tove")
    Person.objects.filter(pk=person.pk).update(code_secret=pyotp.random_base32())
    first = token_of(runa.post(f"people/{person.pk}/reset"))
    second = token_of(runa.post(f"people/{person.pk}/reset"))
    assert choose(first).status_code == 404
    assert choose(second).status_code == 200
    assert tove.get("session").status_code == 401
    assert sign_in("tove", "valley-heat")[1].status_code == 403
    assert sign_in("tove", GOOD)[1].status_code == 200


def test_another_password_ends_the_other_sessions(tove):
    other = Caller("tove")
    assert tove.put("session/password", old="wrong", new=GOOD).status_code == 403
    assert tove.put("session/password", old="valley-heat", new="tove").json()["code"] == "password_easy"
    assert tove.put("session/password", old="valley-heat", new=GOOD).status_code == 200
    assert (tove.get("session").status_code, other.get("session").status_code) == (200, 401)
    assert sign_in("tove", GOOD)[1].status_code == 200


def set_up(caller):
    begun = caller.post("session/code").json()
    code = pyotp.TOTP(begun["secret"]).now()
    return begun, caller.put("session/code", code=code, password="valley-heat")


def test_a_code_is_asked_once_it_is_set_up_and_opens_once(wenna):
    begun, answer = set_up(wenna)
    assert begun["picture"].startswith("data:image/svg+xml")
    assert answer.json()["has_code"] is True
    assert sign_in("wenna", "valley-heat")[1].json()["code"] == "code_needed"
    assert sign_in("wenna", "valley-heat", "000000")[1].json()["code"] == "wrong_code"
    used = pyotp.TOTP(begun["secret"]).now()
    assert sign_in("wenna", "valley-heat", used)[1].json()["code"] == "wrong_code"  # the one that set it up
    Person.objects.filter(username="wenna").update(code_step=0)
    assert sign_in("wenna", "valley-heat", f"{used[:3]} {used[3:]}")[1].status_code == 200
    assert sign_in("wenna", "valley-heat", used)[1].json()["code"] == "wrong_code"


def test_codes_cannot_be_guessed_through(wenna):
    set_up(wenna)
    answers = [sign_in("wenna", "valley-heat", f"{number:06}")[1].status_code for number in range(6)]
    assert answers[-1] == 429


def test_a_wrong_code_or_password_sets_none_up(wenna):
    secret = wenna.post("session/code").json()["secret"]
    code = pyotp.TOTP(secret).now()
    assert wenna.put("session/code", code="12", password="valley-heat").json()["code"] == "wrong_code"
    assert wenna.put("session/code", code=code, password="no").json()["code"] == "wrong_password"
    assert wenna.get("session").json()["has_code"] is False


def test_a_firm_that_asks_for_codes_lets_who_has_none_do_nothing_else(runa, wenna, tove, visit):
    set_up(runa)
    assert runa.put("firm/codes-required", required=True).status_code == 200
    assert wenna.get("session").json()["must_set_code"] is True
    assert wenna.get(f"visits/{visit}").json()["code"] == "code_required"
    assert tove.get(f"visits/{visit}").status_code == 200
    set_up(wenna)
    assert wenna.get(f"visits/{visit}").status_code == 200
    assert wenna.post("session/code/remove", password="valley-heat").json()["must_set_code"] is True


def test_sessions_are_listed_and_ended_one_by_one_or_all(tove):
    others = [Caller("tove") for _ in range(3)]
    listed = tove.get("session/all").json()
    assert (len(listed), sum(row["here"] for row in listed)) == (4, 1)
    keys = set(OpenSession.objects.values_list("session_key", flat=True))
    assert not keys & {row["id"] for row in listed}
    elsewhere = next(row for row in listed if not row["here"])
    assert len(tove.delete(f"session/all/{elsewhere['id']}").json()) == 3
    here = next(row for row in listed if row["here"])
    assert tove.delete(f"session/all/{here['id']}").status_code == 404
    assert len(tove.delete("session/all").json()) == 1
    assert {caller.get("session").status_code for caller in others} == {401}
    assert tove.get("session").status_code == 200


def test_a_session_ends_at_its_longest_and_when_it_is_not_used(tove):
    key = tove.http.cookies["sessionid"].value
    store = SessionStore(key)
    store[BEGAN] -= settings.SESSION_LONGEST_S - 60
    store.save()
    assert tove.get("session").status_code == 200
    store[BEGAN] -= 120
    store.save()
    assert tove.get("session").status_code == 401
    again = Caller("tove")
    OpenSession.objects.filter(pk=again.http.cookies["sessionid"].value).update(expire_date=timezone.now())
    assert again.get("session").status_code == 401


def test_the_audit_log_is_read_in_pages_and_by_what_was_done(runa):
    for number in range(103):
        invite(runa, f"new{number}")
    first = runa.get("audit?action=invited").json()
    assert (len(first["rows"]), first["more"]) == (100, True)
    assert first["rows"][0] | {"id": 0, "at": ""} == {
        "id": 0,
        "at": "",
        "action": "invited",
        "who": "Runa Selbeck",
        "about": "new102, technician",
        "address": "127.0.0.1",
    }
    rest = runa.get(f"audit?action=invited&before={first['rows'][-1]['id']}").json()
    assert (len(rest["rows"]), rest["more"]) == (3, False)


def test_what_leaves_the_house_and_what_was_refused_is_noted(wenna, tove, visit):
    wenna.get(f"visits/{visit}/bundle.json")
    tove.put("house-rules", rules={})
    assert actions("wenna")[-2:] == ["sign_in", "exported"]
    assert sign_in("tove", "no")[1].status_code == 403
    assert sign_in("my-own-password", "no")[1].status_code == 403
    assert "sign_in_refused" in actions("tove")
    assert not AuditRecord.objects.filter(name__contains="own-password").exists()


def test_another_firms_log_is_its_own(runa):
    other = Firm.objects.create(name="Another firm")
    Person.objects.create_user("brea", password="valley-heat", firm=other, role="administrator")
    invite(runa)
    rows = Caller("brea").get("audit").json()["rows"]
    assert [row["action"] for row in rows] == ["sign_in"]


@pytest.mark.parametrize("change", ["UPDATE people_auditrecord SET about = ''", "DELETE FROM people_auditrecord"])
def test_the_log_is_not_changed(runa, change):
    invite(runa)
    with pytest.raises(DatabaseError), transaction.atomic(), connection.cursor() as cursor:
        cursor.execute(change)
