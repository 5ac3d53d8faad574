"""Report, bundle, CSV; the interface's schema as published."""

import copy
import csv
import io
import json
import subprocess

import pytest
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from jsonschema import Draft202012Validator

from havrin_core.tape.bundle import read_bundle
from havrin_server.operations.management.commands.write_schemas import alike_text, openapi_text
from havrin_server.visits.models import Visit


@pytest.fixture
def closed(world):
    return Visit.objects.filter(unit__label="F-2", closed_at__isnull=False, customer_words__startswith="Both").get().pk


@pytest.mark.filterwarnings("ignore::DeprecationWarning")
def test_the_report_says_standing_readings_and_cautions(tove, closed, tmp_path):
    answer = tove.get(f"visits/{closed}/report.pdf")
    assert answer["Content-Type"] == "application/pdf"
    file = tmp_path / "report.pdf"
    file.write_bytes(answer.content)
    text = subprocess.run(["pdftotext", "-layout", str(file), "-"], capture_output=True, text=True, check=True).stdout
    for words in (
        "Leave running",
        "Both stages burn clean",
        "If you smell gas",
        "Manifold, high fire",
        "3.20 inWC",
        "data plate",
        "Tove Lindgarth",
        "licensed person",
    ):
        assert words in text
    fonts = subprocess.run(["pdffonts", str(file)], capture_output=True, text=True, check=True).stdout
    assert "Barlow" in fonts


def test_the_bundle_goes_out_and_comes_in(tove, closed, visit):
    bundle = json.loads(tove.get(f"visits/{closed}/bundle.json").content)
    schema = json.loads((settings.ROOT / "docs" / "visit-bundle.schema.json").read_text())
    Draft202012Validator(schema).validate(bundle)
    assert len(read_bundle(bundle).visit.entries) > 15
    other = tove.upload(f"visits/{visit}/bundle", SimpleUploadedFile("b.json", json.dumps(bundle).encode()))
    assert "another" in other.json()["title"] or "nothing was taken in" in other.json()["title"]


def test_an_offline_bundle_merges_once(tove, visit):
    tove.line(visit, "room 1")
    bundle = json.loads(tove.get(f"visits/{visit}/bundle.json").content)
    extra = copy.deepcopy(bundle["visit"]["entries"][0])
    extra |= {
        "id": "7b6ac2f1-0f5e-4a55-9b4f-6a0a4b6f9a11",
        "at": "2026-01-14T09:59:00+00:00",
        "kind": "condition",
        "data": {"part": "vent", "condition": "ok"},
    }
    bundle["visit"]["entries"].append(extra)
    for _ in range(2):
        page = tove.upload(f"visits/{visit}/bundle", SimpleUploadedFile("b.json", json.dumps(bundle).encode())).json()
        assert len(page["tape"]) == 2


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"version": 9}, "bundle_newer"),
        (
            {
                "visit": {
                    "reason": "recheck",
                    "entries": [{"id": "x", "at": "2026-01-14T09:59:00Z", "kind": "spell", "data": {}}],
                }
            },
            "entry_kind_unknown",
        ),
    ],
)
def test_a_bundle_that_cannot_be_read_is_answered(tove, visit, change, code):
    bundle = json.loads(tove.get(f"visits/{visit}/bundle.json").content) | change
    answer = tove.upload(f"visits/{visit}/bundle", SimpleUploadedFile("b.json", json.dumps(bundle).encode()))
    assert (answer.status_code, answer.json()["code"]) == (422, code)
    assert tove.upload(f"visits/{visit}/bundle", SimpleUploadedFile("b.json", b"{")).json()["code"] == "bundle_not_json"


def test_readings_as_csv(tove, closed):
    rows = list(csv.DictReader(io.StringIO(tove.get(f"visits/{closed}/readings.csv").content.decode())))
    manifold = [row for row in rows if row["quantity"] == "manifold_pa"]
    assert [(row["stage"], row["typed"], row["typed_unit"]) for row in manifold] == [
        ("low", "1.5", "inWC"),
        ("high", "3.2", "inWC"),
    ]


def test_the_published_schema_is_the_interface():
    published = settings.ROOT / "docs" / "openapi.json"
    assert published.read_text(encoding="utf-8") == openapi_text(), "run ./havrin schema"


def test_no_lock_file_names_a_host():
    for name in (
        "requirements/serve.lock",
        "requirements/check.lock",
        "requirements/installer.lock",
        "web/package-lock.json",
    ):
        text = (settings.ROOT / name).read_text()
        assert "index-url" not in text
        assert '"resolved"' not in text


def test_the_page_is_served_with_a_strict_policy(client, db):
    answer = client.get("/visits/1/unit")
    assert answer.status_code == 200
    assert "script-src 'self'" in answer["Content-Security-Policy"]
    assert b'<div id="app">' in b"".join(answer.streaming_content)


def test_the_table_of_faults_that_look_alike_is_up_to_date():
    assert (settings.ROOT / "docs" / "faults-alike.md").read_text(encoding="utf-8") == alike_text()
