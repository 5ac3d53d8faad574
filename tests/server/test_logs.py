"""Logs on the server: taken, mapped, remembered, written; and what is refused."""

import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from demo.make_logs import FOLDER
from havrin_server.captures.models import FlueLog
from havrin_server.instruments.models import Instrument

WHEN = "2026-01-14T10:40:00+01:00"


def log_file(name="F-2-high-fire.csv"):
    return SimpleUploadedFile(name, (FOLDER / name).read_bytes(), "text/csv")


def test_a_log_is_read_and_its_means_written(tove, visit):
    log = tove.upload(f"visits/{visit}/logs", log_file()).json()
    assert log["problems"] == []
    assert log["trace"]["steady"] is not None
    assert {m["quantity"]: m["mean"]["text"] for m in log["means"]}["o2_dry_pct"] == "6.5"
    steady = log["trace"]["steady"]
    body = {
        "id": str(uuid.uuid4()),
        "start_s": steady["low"],
        "end_s": steady["high"],
        "stage": None,
        "phase": "left",
        "at": WHEN,
    }
    page = tove.post(f"logs/{log['id']}/means", **body).json()
    assert page["tape"][0]["kind"] == "trace"
    assert page["flue"][0]["figures"][0]["shown"]["text"] == "67"
    again = tove.post(f"logs/{log['id']}/means", **body).json()
    assert len(again["tape"]) == len(page["tape"]) == 1


def test_the_file_is_kept_as_it_came(tove, visit):
    log = tove.upload(f"visits/{visit}/logs", log_file()).json()
    with FlueLog.objects.get(pk=log["id"]).file.open("rb") as kept:
        assert kept.read() == (FOLDER / "F-2-high-fire.csv").read_bytes()


def test_a_mapping_is_remembered_for_the_instrument(tove, visit):
    instrument = Instrument.objects.get(name="Analyzer 2").pk
    text = b"Zeit;a;b\n10:00:00;6,4;40\n10:00:01;6,4;41\n10:00:02;6,5;40\n"
    first = tove.upload(f"visits/{visit}/logs", SimpleUploadedFile("x.csv", text), instrument=instrument).json()
    assert not first["remembered"]
    assert first["columns"][0]["column"] is None
    chosen = {
        "columns": {"o2_dry_pct": {"column": 1, "unit": "%"}, "co_ppm_dry": {"column": 2, "unit": "ppm"}},
    }
    mapped = tove.post(f"logs/{first['id']}/mapping", **chosen).json()
    assert mapped["trace"]["channels"]["o2_dry_pct"] == [6.4, 6.4, 6.5]
    second = tove.upload(f"visits/{visit}/logs", SimpleUploadedFile("y.csv", text), instrument=instrument).json()
    assert second["remembered"]
    assert second["columns"][0]["column"] == 1


def test_what_is_asked_counts_only_when_it_was_answered(tove, visit):
    text = b"Time [s];O2 [%];CO [ppm]\n0;6,4;1,234\n1;6,4;1,250\n2;6,5;1,240\n"
    log = tove.upload(f"visits/{visit}/logs", SimpleUploadedFile("x.csv", text)).json()
    asked = [(q["about"], q["quantity"], q["column"]) for q in log["questions"]]
    assert asked == [("numbers", "co_ppm_dry", 2)]
    assert "co_ppm_dry" not in log["trace"]["channels"]
    assert [c["label"] for c in log["questions"][0]["choices"]] == ["decimal point", "decimal comma"]
    told = tove.post(f"logs/{log['id']}/answers", about="numbers", column=2, choice="point").json()
    assert told["questions"] == []
    assert told["trace"]["channels"]["co_ppm_dry"] == [1234, 1250, 1240]


def test_a_log_of_draft_and_volts_goes_on_the_tape_each_by_itself(tove, visit):
    rows = "".join(f"10:00:{second:02d},-55.0,26.1\n" for second in range(40))
    text = ("Time,Draft [Pa],Volts 3-C [V]\n" + rows).encode()
    log = tove.upload(f"visits/{visit}/logs", SimpleUploadedFile("x.csv", text)).json()
    assert [question["about"] for question in log["questions"]] == ["sign"]
    wrong = {"about": "sign", "quantity": "draft_pa", "column": 1, "choice": "sideways"}
    assert tove.post(f"logs/{log['id']}/answers", **wrong).status_code == 422
    log = tove.post(f"logs/{log['id']}/answers", **{**wrong, "choice": "suction"}).json()
    assert log["questions"] == []
    assert max(log["trace"]["channels"]["draft_pa"]) == pytest.approx(0.221, abs=0.001)
    assert "Volts 3–C" in [column["name"] for column in log["columns"]]
    body = {"id": str(uuid.uuid4()), "start_s": 0, "end_s": 39, "stage": None, "phase": "found", "at": WHEN}
    page = tove.post(f"logs/{log['id']}/means", **body)
    assert page.status_code == 200, page.content
    texts = [entry["text"] for entry in page.json()["tape"]]
    assert len(texts) == 2, texts
    assert any(text.startswith("Draft at switch") for text in texts)
    assert any(text.startswith("Volts 3–C") for text in texts), texts


def test_no_mean_is_made_where_carbon_monoxide_was_over_range(tove, visit):
    rows = b"".join(b"%d;6.4;%s\n" % (i, b"OVR" if i == 3 else b"40") for i in range(6))
    log = tove.upload(f"visits/{visit}/logs", SimpleUploadedFile("x.csv", b"Time [s];O2 [%];CO [ppm]\n" + rows)).json()
    assert any("rows over range" in problem for problem in log["problems"])
    body = {"stage": None, "phase": "found", "at": WHEN, "start_s": 0}
    over = tove.post(f"logs/{log['id']}/means", id=str(uuid.uuid4()), end_s=5, **body)
    assert (over.status_code, over.json()["code"]) == (422, "file_refused")
    assert "co >4000" in over.json()["title"]
    assert tove.post(f"logs/{log['id']}/means", id=str(uuid.uuid4()), end_s=2, **body).status_code == 200


def test_an_answer_that_is_none_is_refused(tove, visit):
    log = tove.upload(f"visits/{visit}/logs", log_file()).json()
    for given in ({"about": "numbers", "column": 1, "choice": "both"}, {"about": "time", "choice": "fortnights"}):
        assert tove.post(f"logs/{log['id']}/answers", **given).status_code == 422


def test_a_window_can_be_chosen(tove, visit):
    log = tove.upload(f"visits/{visit}/logs", log_file()).json()
    means = tove.post(f"logs/{log['id']}/window", start_s=0, end_s=30).json()
    assert means[0]["mean"]["text"] == "20.9"
    body = {"id": str(uuid.uuid4()), "start_s": 9000, "end_s": 9100, "stage": None, "phase": "found", "at": WHEN}
    answer = tove.post(f"logs/{log['id']}/means", **body)
    assert (answer.status_code, answer.json()["code"]) == (422, "file_refused")


@pytest.mark.parametrize(
    ("content", "code"),
    [(b"Dear sir, it is cold.\n", "log_no_table"), (b"", None), (b"PK\x03\x04\x00\x00", "log_not_text")],
)
def test_what_is_no_log_is_refused_and_not_kept(tove, visit, content, code):
    answer = tove.upload(f"visits/{visit}/logs", SimpleUploadedFile("log.csv", content))
    assert answer.status_code == 422
    assert code is None or answer.json()["code"] == code
    assert not FlueLog.objects.exists()


def test_wrong_columns_and_units_are_refused(tove, visit):
    log = tove.upload(f"visits/{visit}/logs", log_file()).json()
    assert (
        tove.post(f"logs/{log['id']}/mapping", columns={"o2_dry_pct": {"column": 40, "unit": "%"}}).json()["code"]
        == "file_refused"
    )
    assert (
        tove.post(f"logs/{log['id']}/mapping", columns={"o2_dry_pct": {"column": 1, "unit": "inWC"}}).json()["code"]
        == "unit_unknown"
    )


def test_photos_are_checked_and_turned_upright(tove, visit, tmp_path):
    picture = tmp_path / "p.jpg"
    exif = Image.Exif()
    exif[0x0112] = 6  # lies on its side
    exif[0x010F] = "camera"
    Image.new("RGB", (40, 20), "red").save(picture, exif=exif)
    page = tove.photo(visit, SimpleUploadedFile("p.jpg", picture.read_bytes()), station="vent").json()
    answer = tove.http.get(page["photos"][0]["url"])
    (tmp_path / "back.jpg").write_bytes(b"".join(answer.streaming_content))
    with Image.open(tmp_path / "back.jpg") as kept:
        assert kept.size == (20, 40)
        assert not kept.getexif()
    assert tove.photo(visit, SimpleUploadedFile("p.jpg", b"<svg/>")).json()["code"] == "file_refused"
