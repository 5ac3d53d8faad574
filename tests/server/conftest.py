"""The sample world in a real database, and people signed in to it."""

import json
import uuid
from pathlib import Path

import pytest
from django.conf import settings
from django.db import connection
from django.test import Client, override_settings

from havrin_server.people.models import Person
from havrin_server.visits.models import Visit
from tests.sample import clone, move_today, place_today

NOW = "2026-01-14T10:00:00+01:00"


QUICK_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]  # quick to make, for tests alone


@pytest.fixture(scope="session")
def django_db_setup(django_db_blocker):
    """Work on a copy of the sample world; every test's own writes are rolled back."""
    with clone("server") as cloned, django_db_blocker.unblock():
        connection.settings_dict["NAME"] = cloned["HAVRIN_DB_NAME"]
        settings.STATE = Path(cloned["HAVRIN_STATE"])  # where the world's own keys are
        with override_settings(PASSWORD_HASHERS=QUICK_HASHERS):
            for person in Person.objects.all():
                person.set_password("valley-heat")
                person.save(update_fields=["password"])
        yield
        connection.close()
        connection.close_pool()


@pytest.fixture(scope="session")
def played_on(django_db_setup):
    """The day that the sample world takes for today."""
    return place_today()


@pytest.fixture
def world(db, settings, tmp_path, played_on):
    settings.MEDIA_ROOT = tmp_path
    settings.PASSWORD_HASHERS = QUICK_HASHERS
    settings.CALL_RATE = None  # a test asks as fast as it can
    with connection.cursor() as cursor:
        move_today(cursor.execute, played_on, place_today())


class Caller:
    """A signed-in person's calls."""

    def __init__(self, username):
        self.http = Client(enforce_csrf_checks=False)
        answer = self.post("session", username=username, password="valley-heat")
        assert answer.status_code == 200, answer.content

    def get(self, path):
        return self.http.get(f"/api/{path}")

    def post(self, path, **body):
        return self.http.post(f"/api/{path}", json.dumps(body), content_type="application/json")

    def put(self, path, **body):
        return self.http.put(f"/api/{path}", json.dumps(body), content_type="application/json")

    def patch(self, path, **body):
        return self.http.patch(f"/api/{path}", json.dumps(body), content_type="application/json")

    def delete(self, path):
        return self.http.delete(f"/api/{path}")

    def upload(self, path, file, **fields):
        return self.http.post(f"/api/{path}", {"file": file, **fields})

    def photo(self, visit, file, **fields):
        """Send a photo, under an id of its own unless one is given."""
        return self.upload(f"visits/{visit}/photos", file, **{"id": str(uuid.uuid4()), "at": NOW, **fields})

    def line(self, visit, text, *, phase="found", line_id=None, at=NOW, stage=None):
        return self.post(
            f"visits/{visit}/lines", id=str(line_id or uuid.uuid4()), text=text, phase=phase, at=at, stage=stage
        )


@pytest.fixture
def tove(world):
    return Caller("tove")


@pytest.fixture
def wenna(world):
    return Caller("wenna")


@pytest.fixture
def odo(world):
    return Caller("odo")


@pytest.fixture
def runa(world):
    return Caller("runa")


@pytest.fixture
def visit(world):
    """Today's maintenance of F-1, not begun."""
    return Visit.objects.get(unit__label="F-1", closed_at=None).pk
