"""The doors: who guesses waits, foreign pages and hosts are turned away, nothing private is kept, papers fetch nothing."""

import csv
import io
import json

import pytest
from django.test import Client

from havrin_server.files import no_formula
from havrin_server.people.models import Firm, Person
from havrin_server.reports.fetcher import OwnFilesOnly, is_font
from havrin_server.reports.templatetags.written import css_text

WRONG = {"username": "tove", "password": "guess"}
RIGHT = {"username": "tove", "password": "valley-heat"}


def sign_in(body, client=None, **headers):
    return (client or Client()).post("/api/session", json.dumps(body), content_type="application/json", headers=headers)


def test_whoever_guesses_waits_and_the_right_password_does_not_help(world):
    told = [sign_in(WRONG).status_code for _ in range(7)]
    assert told == [403] * 4 + [429] * 3
    answer = sign_in(RIGHT)
    assert (answer.status_code, answer.json()["code"]) == (429, "sign_in_locked")
    assert "5 minutes" in answer.json()["title"]


def test_the_wait_is_of_one_name_at_one_address(world):
    for _ in range(6):
        sign_in(WRONG)
    assert sign_in({"username": "wenna", "password": "valley-heat"}).status_code == 200
    elsewhere = Client(REMOTE_ADDR="10.1.2.3")
    assert sign_in(RIGHT, elsewhere).status_code == 200


def test_a_right_password_ends_the_count(world):
    for _ in range(3):
        for _ in range(3):
            assert sign_in(WRONG).status_code == 403
        assert sign_in(RIGHT).status_code == 200


def test_the_wait_ends(world, settings):
    for _ in range(6):
        sign_in(WRONG)
    settings.AXES_COOLOFF_TIME = settings.AXES_COOLOFF_TIME * 0
    assert sign_in(RIGHT).status_code == 200


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "https://elsewhere.test"},
        {"Origin": "null"},
        {"Origin": "http://testserver.elsewhere.test"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
    ],
    ids=str,
)
def test_a_foreign_page_signs_nobody_in(world, headers):
    answer = sign_in(RIGHT, **headers)
    assert (answer.status_code, answer.json()["code"]) == (403, "foreign_page")
    assert "sessionid" not in answer.cookies


@pytest.mark.parametrize("headers", [{}, {"Origin": "http://testserver", "Sec-Fetch-Site": "same-origin"}], ids=str)
def test_the_own_page_does(world, headers):
    assert sign_in(RIGHT, **headers).status_code == 200


@pytest.mark.parametrize("body", [{"username": "x" * 151, "password": "p"}, {"username": "x", "password": "p" * 501}])
def test_names_and_passwords_have_an_end(world, body):
    assert sign_in(body).status_code == 422


@pytest.mark.parametrize("path", ["/", "/visits/1/unit", "/api/health", "/api/session", "/index.html", "/nothing.js"])
def test_a_host_that_is_not_ours_is_answered_nothing(world, path):
    assert Client(HTTP_HOST="elsewhere.test").get(path).status_code == 400


def test_what_calls_answer_is_kept_by_nobody(tove, visit):
    for path in ("session", "round", f"visits/{visit}", "nothing"):
        assert tove.get(path)["Cache-Control"] == "no-store"


@pytest.mark.parametrize("path", ["/api/health", "/visits/1/unit", "/shared/x"])
def test_every_answer_is_under_the_policy(world, path):
    answer = Client().get(path)
    policy = answer["Content-Security-Policy"]
    for part in ("default-src 'self'", "frame-ancestors 'none'", "form-action 'self'", "object-src 'none'"):
        assert part in policy
    assert answer["X-Robots-Tag"] == "noindex, nofollow"
    assert answer["X-Content-Type-Options"] == "nosniff"
    assert "geolocation=()" in answer["Permissions-Policy"]
    answer.close()


@pytest.mark.parametrize("text", ["=1+1", "+1", "-1", "@x", "\tx", "\rx"])
def test_a_cell_cannot_become_a_formula(text):
    assert no_formula(text) == f"'{text}"
    assert no_formula(f"a{text}") == f"a{text}"
    assert no_formula("") == ""


def test_a_persons_name_in_a_table_is_text(tove, visit):
    Person.objects.filter(username="tove").update(first_name="=HYPERLINK(1)", last_name="")
    tove.line(visit, "mp 3.5")
    rows = list(csv.DictReader(io.StringIO(tove.get(f"visits/{visit}/readings.csv").content.decode("utf-8-sig"))))
    assert rows[0]["author"] == "'=HYPERLINK(1)"
    assert float(rows[0]["value_si"]) > 800


@pytest.mark.parametrize(
    "url",
    [
        "http://127.0.0.1/x",
        "https://elsewhere.test/x.png",
        "ftp://elsewhere.test/x",
        "file:///etc/passwd",
        "file://elsewhere.test/etc/passwd",
        "relative.png",
    ],
)
def test_a_paper_fetches_nothing_from_anywhere(url):
    with pytest.raises(ValueError, match="takes nothing"):
        OwnFilesOnly().fetch(url)


def test_a_way_out_of_the_fonts_is_none(settings):
    folder = settings.ROOT / "server" / "havrin_server" / "reports" / "fonts"
    font = next(folder.glob("*.ttf"))
    assert is_font(font.as_uri())
    assert not is_font(f"{folder.as_uri()}/../papers.py")
    assert not is_font(f"{folder.as_uri()}/%2e%2e/papers.py")


@pytest.mark.parametrize("name", ['x"; } body { display: none }', "a\nb", "\\", "</style><h1>", "Ofen & Söhne"])
def test_a_firms_name_is_text_in_a_style_sheet(name):
    said = css_text(name)
    assert not set('"{}<>;\n&') & set(said)
    read, rest = "", said
    while rest:
        if rest[0] == "\\":
            digits, _, rest = rest[1:].partition(" ")
            read += chr(int(digits, 16))
        else:
            read, rest = read + rest[0], rest[1:]
    assert read == name


def test_a_paper_of_a_firm_with_an_odd_name_is_made(tove, visit):
    Firm.objects.update(name='Heat "n" {more} </style> & \\ Sons')
    assert tove.get(f"visits/{visit}/customer.pdf").content.startswith(b"%PDF")
