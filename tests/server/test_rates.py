"""More calls at once than a page needs: whoever makes them waits, and nobody else."""

import pytest
from django.core.cache import cache


@pytest.fixture
def slow(settings):
    cache.clear()
    settings.CALL_RATE = "5/60s"
    yield
    cache.clear()


def test_whoever_asks_too_often_waits_and_nobody_else(tove, wenna, slow):
    said = [tove.get("session").status_code for _ in range(7)]
    assert said == [200] * 5 + [429] * 2
    assert wenna.get("session").status_code == 200


def test_it_says_so_in_the_form_of_every_refusal(tove, slow):
    for _ in range(5):
        tove.get("session")
    body = tove.get("session").json()
    assert (body["code"], body["status"]) == ("too_often", 429)


def test_a_forged_address_begins_no_new_count(tove, slow):
    asked = [tove.http.get("/api/health", HTTP_X_FORWARDED_FOR=f"10.0.0.{n}").status_code for n in range(7)]
    assert asked.count(429) == 2
