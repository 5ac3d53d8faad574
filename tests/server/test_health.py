"""Alive and ready are two questions; what is not there says so, and a path that no call has is no page."""

import shutil
from collections import namedtuple

import pytest
from django.db import OperationalError, connection
from django.test import Client

from havrin_server.operations import views
from havrin_server.visits.views import visit as visit_calls
from havrin_server.work.queue import queue_lives

Usage = namedtuple("Usage", "total used free")


def test_alive_says_nothing_of_what_is_behind(monkeypatch):
    monkeypatch.setattr(views, "connection", None)
    assert Client().get("/api/health").json()["status"] == "ok"


def test_ready_with_everything_there(world):
    answer = Client().get("/api/health/ready")
    assert answer.status_code == 200
    assert answer.json() == {"ready": True, "database": True, "migrations": True, "disk": True, "queue": False}


def test_the_queue_lives_while_its_process_gives_signs_of_life(world):
    with connection.cursor() as cursor:
        cursor.execute("INSERT INTO procrastinate_workers (last_heartbeat) VALUES (now() - interval '1 hour')")
        assert not queue_lives()
        cursor.execute("UPDATE procrastinate_workers SET last_heartbeat = now()")
    assert Client().get("/api/health/ready").json()["queue"]


def test_not_ready_with_a_full_disk(world, monkeypatch):
    monkeypatch.setattr(shutil, "disk_usage", lambda place: Usage(100, 100, 1024))
    answer = Client().get("/api/health/ready")
    assert answer.status_code == 503
    assert answer.json() == {"ready": False, "database": True, "migrations": True, "disk": False, "queue": False}


def test_not_ready_with_a_step_of_the_database_missing(world):
    with connection.cursor() as cursor:
        newest = "SELECT max(name) FROM django_migrations WHERE app = 'visits'"
        cursor.execute(f"DELETE FROM django_migrations WHERE app = 'visits' AND name = ({newest})")
    answer = Client().get("/api/health/ready")
    assert answer.status_code == 503
    assert answer.json()["migrations"] is False


class Away:
    """A database that does not answer."""

    def cursor(self):
        raise OperationalError("gone")


def test_not_ready_without_a_database(monkeypatch):
    monkeypatch.setattr(views, "connection", Away())
    monkeypatch.setattr(views, "MigrationExecutor", lambda asked: asked.cursor())
    answer = Client().get("/api/health/ready")
    assert answer.status_code == 503
    assert answer.json() == {"ready": False, "database": False, "migrations": False, "disk": True, "queue": False}


def test_a_call_without_a_database_says_that_it_will_pass(tove, visit, monkeypatch):
    def away(*args):
        raise OperationalError("the connection is closed")

    monkeypatch.setattr(visit_calls, "find_visit", away)
    answer = tove.get(f"visits/{visit}")
    assert answer.status_code == 503
    assert answer["Content-Type"] == "application/problem+json"
    assert answer.json()["code"] == "database_away"


@pytest.mark.parametrize("path", ["/api", "/api/", "/api/nothing", "/api/visits", "/api/visits/x", "/api/../api/no"])
def test_a_path_that_no_call_has_is_no_page(world, path):
    answer = Client().get(path)
    assert answer.status_code == 404
    assert answer.json()["code"] == "no_such_call"


def test_a_path_of_the_page_is_the_page(world):
    answer = Client().get("/visits/1/unit")
    assert answer["Content-Type"].startswith("text/html")
    answer.close()


@pytest.mark.parametrize("body", ["{", "[1,", '{"a": NaN}', "[" * 60 + "]" * 60])
def test_json_that_cannot_be_read_is_answered_as_every_refusal_is(tove, visit, body):
    answer = tove.http.post(f"/api/visits/{visit}/lines", body, content_type="application/json")
    assert answer.status_code == 400
    assert answer["Content-Type"] == "application/problem+json"
    assert answer.json()["code"] == "invalid_request"
