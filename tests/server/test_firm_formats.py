"""How the firm writes days, clock and numbers: chosen by a supervisor, met on pages, papers and a customer's link."""

import json
import subprocess

import pytest

from havrin_server.people.models import Firm
from havrin_server.visits.models import Visit
from tests.server.conftest import Caller

AMERICAN = {"days": "month_day", "clock": "12", "decimal": "point"}
CONTINENTAL = {"days": "day_month", "clock": "24", "decimal": "comma"}


def choose(caller: Caller, formats: dict[str, str]):
    return caller.http.put("/api/firm/formats", json.dumps(formats), content_type="application/json")


def paper_text(caller: Caller, visit: int, folder) -> str:
    file = folder / "paper.pdf"
    file.write_bytes(caller.get(f"visits/{visit}/customer.pdf").content)
    return subprocess.run(["pdftotext", "-layout", str(file), "-"], capture_output=True, text=True, check=True).stdout


@pytest.mark.parametrize("username", ["tove", "odo"])
def test_only_a_supervisor_chooses(world, username):
    assert choose(Caller(username), AMERICAN).status_code == 403
    assert Firm.objects.get().day_format == "day_month"


def test_choice_is_told_to_everybody_in_the_firm(tove, wenna):
    assert choose(wenna, AMERICAN).json()["formats"] == AMERICAN
    assert tove.get("session").json()["formats"] == AMERICAN
    assert (wenna.get("session").json()["writes_formats"], tove.get("session").json()["writes_formats"]) == (
        True,
        False,
    )


def test_unknown_format_is_refused_at_its_field(wenna):
    answer = choose(wenna, {**AMERICAN, "clock": "13"})
    assert answer.status_code == 422
    assert "clock" in answer.json()["details"][0]


def test_readings_are_shown_with_the_firms_decimal_mark(tove, wenna, visit):
    choose(wenna, CONTINENTAL)
    page = tove.line(visit, "mp 3,5").json()
    shown = {
        r["quantity"]: r["shown"]["text"] for path in page["paths"] for s in path["stations"] for r in s["readings"]
    }
    assert shown["manifold_pa"] == "3,50"
    assert page["tape"][0]["value"] == "3,5 inWC"


def test_a_line_typed_again_still_says_the_same(tove, wenna, visit):
    choose(wenna, CONTINENTAL)
    entry = tove.line(visit, "mp 3.25").json()["tape"][0]
    echo = tove.post(f"visits/{visit}/read-back", text=entry["typed"], phase="found", stage=None).json()
    assert echo["echo"] == ["Manifold 3,25 inWC"]


def test_paper_of_an_open_visit_in_the_firms_format(tove, wenna, visit, tmp_path):
    day = Visit.objects.get(pk=visit).day
    assert f"{day.day} {day:%B %Y}" in paper_text(tove, visit, tmp_path)
    choose(wenna, AMERICAN)
    assert f"{day:%B} {day.day}, {day.year}" in paper_text(tove, visit, tmp_path)


def test_customers_link_is_in_the_firms_format_for_nobody_signed_in(wenna, world):
    unit = Visit.objects.filter(closed_at__isnull=False).first().unit_id
    link = wenna.post(f"units/{unit}/links", days=30).json()
    choose(wenna, AMERICAN)
    wenna.http.logout()
    assert wenna.get(f"shared/{link['path'].rsplit('/', 1)[-1]}").json()["formats"] == AMERICAN
