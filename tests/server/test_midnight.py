"""The sample world of the tests goes on past midnight: what was planned for today stays planned for today."""

from datetime import timedelta

import pytest
from django.db import connection

from havrin_server.instruments.models import InHand
from havrin_server.visits.models import Visit
from tests.sample import move_today, place_today

pytestmark = pytest.mark.django_db


def test_what_is_open_and_in_hand_goes_along_and_the_past_stays(world):
    today = place_today()
    planned = dict(Visit.objects.filter(closed_at=None).values_list("pk", "day"))
    past = set(Visit.objects.exclude(closed_at=None).values_list("pk", "day"))
    with connection.cursor() as cursor:
        move_today(cursor.execute, today, today + timedelta(days=1))
    assert today in planned.values()
    now = dict(Visit.objects.filter(closed_at=None).values_list("pk", "day"))
    assert now == {pk: day + timedelta(days=1) for pk, day in planned.items()}
    assert InHand.objects.filter(day=today + timedelta(days=1)).exists()
    assert set(Visit.objects.exclude(closed_at=None).values_list("pk", "day")) == past
