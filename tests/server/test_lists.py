"""Lists taken in: columns told, looked through before anything is done, chosen row by row, taken in, taken back as one."""

import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from havrin_server.cards.models import ImportRow, ImportRun
from havrin_server.units.models import Site, Unit
from havrin_server.versions.models import Sort, Version
from havrin_server.work import doing

UNITS = """Site,Tag,Place,Model,Serial number,Installed in
Orrin Street Music School,F-2,East cellar,Ostrel Twin 80 C,OT8-11902,2014
Orrin Street Music School,F-1,Stage room,Norvane Hearth 70,N70-03318,2010
Orrin Street Music School,F-8,Attic,Norvane Hearth 70,N70-99999,2020
Orrin Street Music School,F-9,Porch,Norvane Hearth 70,OT8-11902,2020
No Such Place,F-1,Hall,Norvane Hearth 70,,2020
Orrin Street Music School,F-8,Attic again,Norvane Hearth 70,N70-99999,2020
Hollow Mill glasshouses,UH-9,,Norvane Hearth 70,,
Orrin Street Music School,F-4,Recording rooms,Norvane Hearth 70,N60D-00914,2018
"""


@pytest.fixture(autouse=True)
def told_at_once(monkeypatch):
    """Beside the test's own transaction nothing is seen: what tells how far it is does it within."""
    monkeypatch.setattr(doing, "_BESIDE", "default")


def bring(caller, text, sort="unit"):
    content = text if isinstance(text, bytes) else text.encode()
    return caller.upload("imports", SimpleUploadedFile("list.csv", content), sort=sort)


def work(caller, run, step, **body):
    """Ask for work as the page does, and do it as the queue does."""
    pk = str(uuid.uuid4())
    answer = caller.post(f"imports/{run['id']}/{step}", work=pk, **body)
    assert answer.status_code == 200, answer.content
    doing.do(uuid.UUID(pk))
    return caller.get(f"work/{pk}").json()


def look(caller, run):
    assert work(caller, run, "look", columns=run["mapping"])["state"] == "done"
    return caller.get(f"imports/{run['id']}").json()


def rows_of(caller, run):
    return {row["number"]: row for row in caller.get(f"imports/{run['id']}/rows").json()["rows"]}


@pytest.fixture
def run(wenna):
    return bring(wenna, UNITS).json()


@pytest.fixture
def looked(wenna, run):
    return look(wenna, run)


def test_columns_are_guessed_by_their_names(run):
    assert run["mapping"] == {
        "0": "site",
        "1": "label",
        "2": "place",
        "3": "model",
        "4": "serial",
        "5": "installed_year",
    }
    assert (run["rows_in_all"], run["state"], len(run["sample"])) == (8, "columns", 3)


def test_every_row_says_what_it_would_do_and_nothing_is_done(wenna, looked):
    before = Unit.objects.count()
    said = {number: row["status"] for number, row in rows_of(wenna, looked).items()}
    assert said == {
        2: "same",
        3: "changed",
        4: "new",
        5: "unclear",  # its serial is that of F-2, its tag is free
        6: "unclear",  # no such site
        7: "unclear",  # the same as row 4
        8: "unclear",  # new, without a place
        9: "unclear",  # F-4 by its serial, but of another model
    }
    assert looked["counts"] == {"same": 1, "changed": 1, "new": 1, "unclear": 5}
    assert Unit.objects.count() == before


def test_what_is_unclear_says_why(wenna, looked):
    why = {number: row["why"] for number, row in rows_of(wenna, looked).items()}
    assert "Row 2" in why[5]
    assert "No Such Place" in why[6]
    assert "Row 4" in why[7]
    assert "Place" in why[8]
    assert "model" in why[9]


def test_taken_in_it_makes_and_changes_and_leaves_alone_what_is_unclear(wenna, looked):
    done = work(wenna, looked, "take")
    assert (done["state"], done["done"], done["steps"]) == ("done", 8, 8)
    made = Unit.objects.get(label="F-8")
    assert (made.serial, made.model.key) == ("N70-99999", "norvane_hearth_70")
    assert Unit.objects.get(label="F-1", serial="N70-03318").installed_year == 2010
    assert not Unit.objects.filter(label__in=["F-9", "UH-9"]).exists()
    history = wenna.get(f"cards/unit/{made.pk}").json()["steps"]
    assert (history[0]["who"], history[0]["reason"]) == ("Wenna Harrowick", "from the list list.csv")


def test_a_changed_year_is_a_new_version_of_what_the_unit_is_judged_by(wenna, looked):
    unit = Unit.objects.get(serial="N70-03318")
    before = Version.objects.filter(sort=Sort.UNIT, key=str(unit.pk)).count()
    work(wenna, looked, "take")
    newest = Version.objects.filter(sort=Sort.UNIT, key=str(unit.pk)).order_by("-number").first()
    assert newest.document["installed_year"] == 2010
    assert Version.objects.filter(sort=Sort.UNIT, key=str(unit.pk)).count() > before


def test_taken_back_as_one_everything_is_as_it_was(wenna, looked):
    before = {unit.pk: wenna.get(f"cards/unit/{unit.pk}").json()["values"] for unit in Unit.objects.all()}
    work(wenna, looked, "take")
    work(wenna, looked, "undo")
    assert {pk: wenna.get(f"cards/unit/{pk}").json()["values"] for pk in before} == before
    assert set(Unit.objects.filter(retired_at=None).values_list("pk", flat=True)) == set(before)
    assert wenna.get(f"imports/{looked['id']}").json()["state"] == "undone"


def test_taken_back_what_somebody_changed_since_stays(wenna, tove, looked):
    work(wenna, looked, "take")
    unit = Unit.objects.get(serial="N70-03318")
    card = tove.get(f"cards/unit/{unit.pk}").json()
    tove.put(f"cards/unit/{unit.pk}", values={"installed_year": 2011}, seen=card["version"])
    done = work(wenna, looked, "undo")
    assert done["state"] == "done"
    unit.refresh_from_db()
    assert unit.installed_year == 2011


@pytest.mark.parametrize(("choice", "made"), [("leave", 0), ("new", 1), ("", 1)])
def test_a_row_is_what_somebody_chose(wenna, looked, choice, made):
    wenna.put(f"imports/{looked['id']}/rows/4", choice=choice)
    work(wenna, looked, "take")
    assert Unit.objects.filter(label="F-8").count() == made


def test_chosen_as_new_it_still_has_to_fit_beside_the_others(wenna, looked):
    wenna.put(f"imports/{looked['id']}/rows/9", choice="new")  # its tag is F-4's
    work(wenna, looked, "take")
    assert Unit.objects.filter(label="F-4").count() == 1
    assert "tagged F-4" in rows_of(wenna, looked)[9]["why"]


def test_an_unclear_row_is_a_card_that_somebody_named(wenna, looked):
    unit = Unit.objects.get(serial="N60D-00914")
    assert wenna.put(f"imports/{looked['id']}/rows/9", choice=str(unit.pk)).status_code == 200
    work(wenna, looked, "take")
    unit.refresh_from_db()
    assert unit.model.key == "norvane_hearth_70"


def test_a_choice_that_is_none_is_refused(wenna, looked):
    assert wenna.put(f"imports/{looked['id']}/rows/9", choice="perhaps").json()["code"] == "row_choice"
    assert wenna.put(f"imports/{looked['id']}/rows/9", choice="999999").status_code == 404
    assert wenna.put(f"imports/{looked['id']}/rows/99", choice="").status_code == 404


def test_taken_in_twice_it_is_taken_in_once(wenna, looked):
    work(wenna, looked, "take")
    second = work(wenna, looked, "take")
    assert (second["state"], Unit.objects.filter(label="F-8").count()) == ("failed", 1)
    assert "taken in already" in second["said"]


def test_stopped_on_the_way_nothing_is_kept(wenna, looked):
    pk = str(uuid.uuid4())
    wenna.post(f"imports/{looked['id']}/take", work=pk)
    wenna.post(f"work/{pk}/stop")
    doing.do(uuid.UUID(pk))
    assert wenna.get(f"work/{pk}").json()["state"] == "stopped"
    assert not Unit.objects.filter(label="F-8").exists()
    assert wenna.get(f"imports/{looked['id']}").json()["state"] == "looked"


@pytest.mark.parametrize(
    ("columns", "code"),
    [
        ({"0": "site", "1": "site"}, "import_columns"),
        ({"0": "site"}, "import_columns"),
        ({"99": "label"}, "import_columns"),
        ({"0": "colour"}, "import_columns"),
    ],
)
def test_columns_that_cannot_be_are_refused(wenna, run, columns, code):
    answer = wenna.post(f"imports/{run['id']}/look", columns=columns, work=str(uuid.uuid4()))
    assert (answer.status_code, answer.json()["code"]) == (422, code)


@pytest.mark.parametrize(
    "content",
    [b"", b"Name\n", b"\x00\x01\x02", b"Name,Altitude\n\x00,1\n", b'Name,Altitude\n"unended,1\n' * 2 + b"\x07,2\n"],
)
def test_what_is_no_table_is_refused_whole(wenna, content):
    assert bring(wenna, content, "site").json()["code"] == "file_refused"
    assert not ImportRun.objects.exists()


@pytest.mark.parametrize(
    ("encoding", "separator"), [("utf-8", ","), ("utf-8-sig", ";"), ("cp1252", ";"), ("utf-8", "\t")]
)
def test_tables_of_any_program_are_read(wenna, encoding, separator):
    text = (
        separator.join(("Name", "Altitude [ft]", "Access"))
        + "\n"
        + separator.join(("Café Mühle", "5000", "Bell"))
        + "\n"
    )
    run = look(wenna, bring(wenna, text.encode(encoding), "site").json())
    work(wenna, run, "take")
    assert Site.objects.get(name="Café Mühle").altitude_m == pytest.approx(1524)


def test_what_was_taken_out_comes_in_again_as_the_same(wenna):
    for sort in ("site", "unit", "instrument", "part", "contact"):
        run = look(wenna, bring(wenna, wenna.get(f"cards/{sort}/all.csv").content, sort).json())
        assert set(run["counts"]) == {"same"}, (sort, run["counts"], rows_of(wenna, run))


CELL = st.text(st.characters(codec="utf-8", exclude_characters='"\r\n'), max_size=30)


@settings(max_examples=12, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(rows=st.lists(st.lists(CELL, min_size=3, max_size=3), min_size=1, max_size=6))
def test_no_list_breaks_anything(wenna, rows):
    text = "Name,Altitude,Access\n" + "\n".join(",".join(f'"{cell}"' for cell in row) for row in rows)
    answer = bring(wenna, text, "site")
    assert answer.status_code in (200, 422)
    if answer.status_code == 200:
        run = look(wenna, answer.json())
        assert sum(run["counts"].values()) == run["rows_in_all"]
        assert work(wenna, run, "take")["state"] == "done"
        assert ImportRow.objects.filter(run=run["id"], status="unclear", took__isnull=False).count() == 0
