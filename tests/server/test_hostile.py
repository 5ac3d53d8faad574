"""Bad input through the real server: a clear refusal, never a 500, and the visit, its papers and its unit stay as they were."""

import copy
import json
import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from havrin_server.visits.models import TapeEntry, Visit

pytestmark = pytest.mark.django_db
ON_ONE_WORLD = settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
NOW = "2026-01-14T10:00:00+01:00"
ODD = st.sampled_from(
    [
        None,
        True,
        -1,
        10**12,
        1.5e308,
        "",
        "x" * 5000,
        "a\x00b",
        "\u202e",
        [],
        {},
        [[[]]],
        "0001-01-01T00:00:00+00:00",
        "9999-12-31T23:59:59-12:00",
        "2026-01-14T10:00:00",
        "only",
        "manifold_pa",
    ]
)
WORDS = st.sampled_from(
    [
        "found",
        "did",
        "o2",
        "co",
        "t",
        "mp",
        "supply",
        "draft",
        "ua",
        "vent",
        "heat",
        "exchanger",
        "flame",
        "rod",
        "cracked",
        "ok",
        "not",
        "no",
        "left",
        "trial",
        "hi",
        "lo",
        "3.5",
        "6.4",
        "46",
        "118",
        "1,200",
        "9e9",
        "-0",
        "½",
        "2-3",
        ">4000",
        "jump",
        "unjump",
        "pull",
        "shut",
        "down",
        "cause",
        "told",
        "2024-13-45",
        "note",
        "skip",
        "gauge",
        "draft_pa",
        "clock",
        "ft3",
        "🔥",
        "漢字",
    ]
)


def still_open(caller, visit):
    """Everything that shows the visit still answers."""
    unit = Visit.objects.get(pk=visit).unit_id
    for path in (f"visits/{visit}", f"visits/{visit}/closing", f"visits/{visit}/walks", f"units/{unit}", "round"):
        assert caller.get(path).status_code == 200, path
    assert caller.get(f"visits/{visit}/customer.pdf").content.startswith(b"%PDF")


def raw(caller, path, text):
    return caller.http.post(f"/api/{path}", text, content_type="application/json")


def line(**more):
    return {"id": str(uuid.uuid4()), "text": "mp 3.5", "at": NOW, **more}


@pytest.mark.parametrize("at", ["0001-01-01T00:00:00+00:00", "1970-01-01T00:00:00Z", "9999-12-31T23:59:59-12:00"])
def test_a_clock_that_stands_wrong_is_told(tove, visit, at):
    for given_at in (line(at=at), line(sent_at=at)):
        answer = tove.post(f"visits/{visit}/lines", **given_at)
        assert answer.status_code == 422
        assert "does the clock of the device stand right?" in answer.json()["details"][0]
    assert not TapeEntry.objects.filter(visit=visit).exists()
    still_open(tove, visit)


BODIES = {
    "nan": '{"id": NaN}',
    "deep": "[" * 100_000 + "]" * 100_000,
    "no text": json.dumps({**line(), "text": None}),
    "nul": json.dumps({**line(), "text": "a\x00b"}),
    "no zone": json.dumps({**line(), "at": "2026-01-14T10:00:00"}),
    "nested stage": json.dumps({**line(), "stage": {"a": [[]]}}),
    "empty": "",
    "null": "null",
    "number": "7",
}


@pytest.mark.parametrize("name", BODIES)
def test_a_body_that_cannot_be_read_is_refused(tove, visit, name):
    assert raw(tove, f"visits/{visit}/lines", BODIES[name]).status_code in (400, 422)
    still_open(tove, visit)


@ON_ONE_WORLD
@given(words=st.lists(WORDS, min_size=1, max_size=9))
def test_any_line_is_written_or_refused(tove, visit, words):
    answer = tove.line(visit, " ".join(words))
    assert answer.status_code in (200, 422), answer.content
    assert tove.get(f"visits/{visit}").status_code == 200


@ON_ONE_WORLD
@given(data=st.data())
def test_a_field_of_a_line_that_is_wrong_harms_nothing(tove, visit, data):
    body = line()
    body[data.draw(st.sampled_from(["id", "text", "at", "stage", "phase", "device", "as_note", "sent_at"]))] = (
        data.draw(ODD)
    )
    assert tove.post(f"visits/{visit}/lines", **body).status_code in (200, 422)
    assert tove.get(f"visits/{visit}").status_code == 200


def places(document, above=()):
    """Yield the path of every value of a document."""
    inner = (
        document.items() if isinstance(document, dict) else enumerate(document) if isinstance(document, list) else ()
    )
    for name, value in inner:
        yield (*above, name)
        yield from places(value, (*above, name))


def bent(document, path, value):
    copied = copy.deepcopy(document)
    at = copied
    for name in path[:-1]:
        at = at[name]
    at[path[-1]] = value
    return copied


@pytest.fixture
def bundle(tove, visit):
    """A bundle of every sort of entry, and of nobody's visit."""
    for text in (
        "o2 6.4 co 46 t 118",
        "found flame rod dirty",
        "did clean flame rod",
        "jump limit",
        "told the owner",
        "skip gauge draft_pa known",
    ):
        tove.line(visit, text)
    document = tove.get(f"visits/{visit}/bundle.json").json()
    for row in document["visit"]["entries"]:
        row["id"], row["group"] = str(uuid.uuid4()), ""
    return document


@ON_ONE_WORLD
@given(data=st.data())
def test_a_bundle_that_is_bent_at_any_place_is_taken_or_refused(tove, visit, bundle, data):
    path = data.draw(st.sampled_from(sorted(places(bundle["visit"]), key=str)))
    odd = {**bundle, "visit": bent(bundle["visit"], path, data.draw(ODD))}
    file = SimpleUploadedFile("b.json", json.dumps(odd).encode())
    answer = tove.http.post(f"/api/visits/{visit}/bundle", {"file": file})
    assert answer.status_code in (200, 422), (path, answer.content)
    assert tove.get(f"visits/{visit}").status_code == 200


def test_after_all_of_it_the_visit_still_closes_on_paper(tove, visit, bundle):
    file = SimpleUploadedFile("b.json", json.dumps(bundle).encode())
    assert tove.http.post(f"/api/visits/{visit}/bundle", {"file": file}).status_code == 200
    still_open(tove, visit)


@pytest.mark.parametrize(
    "signature", [[[[0.1]]], [[["a", 1]]], [[[1, 2, 3]]], [[[1e300, 0]]], [[[0.1, 0.2]] * 6000], "drawn", [[None]]]
)
def test_a_signature_of_another_form_is_refused(tove, visit, signature):
    version = tove.get(f"visits/{visit}").json()["version"]
    answer = tove.post(f"visits/{visit}/close", seen_version=version, signed_by="Tove", signature=signature)
    assert answer.status_code == 422
    still_open(tove, visit)


@pytest.fixture
def second(visit):
    """Another visit of the same unit on which nothing was written."""
    other = Visit.objects.get(pk=visit)
    other.pk, other.version, other.pinned, other.turn = None, 0, None, 9
    other.save()
    return other


def bundle_of(caller, visit):
    return caller.get(f"visits/{visit}/bundle.json").json()


def take_in(caller, visit, document):
    file = SimpleUploadedFile("b.json", json.dumps(document).encode())
    return caller.http.post(f"/api/visits/{visit}/bundle", {"file": file})


def test_entries_that_another_visit_has_already_are_taken_in_whole_and_once(tove, visit, second):
    tove.line(visit, "mp 3.9")
    first = bundle_of(tove, visit)["visit"]["entries"][0]["id"]
    tove.post(f"visits/{visit}/corrections", id=str(uuid.uuid4()), corrects=first, text="mp 3.5", at=NOW)
    document = bundle_of(tove, visit)
    for _ in range(2):
        assert take_in(tove, second.pk, document).status_code == 200
    rows = TapeEntry.objects.filter(visit=second)
    assert rows.count() == len(document["visit"]["entries"]) == tove.get(f"visits/{second.pk}").json()["version"]
    correction = rows.get(kind="correction")
    assert rows.filter(pk=correction.data["corrects"]).exists(), "it corrects the entry of its own visit"


def test_an_id_in_another_spelling_is_the_same_id(tove, visit):
    tove.line(visit, "mp 3.9")
    document = bundle_of(tove, visit)
    document["visit"]["entries"][0]["id"] = document["visit"]["entries"][0]["id"].upper()
    assert take_in(tove, visit, document).status_code == 200
    assert TapeEntry.objects.filter(visit=visit).count() == 1


def test_an_id_that_stands_twice_in_a_bundle_is_refused(tove, visit, second):
    tove.line(visit, "mp 3.9")
    document = bundle_of(tove, visit)
    document["visit"]["entries"] *= 2
    answer = take_in(tove, second.pk, document)
    assert (answer.status_code, answer.json()["code"]) == (422, "bundle_id_twice")
    assert not TapeEntry.objects.filter(visit=second).exists()


def test_one_line_id_on_two_visits_is_two_lines(tove, visit, second):
    one = uuid.uuid4()
    for where in (visit, second.pk):
        assert tove.line(where, "mp 3.5", line_id=one).status_code == 200
    assert TapeEntry.objects.filter(group=one).count() == 2
