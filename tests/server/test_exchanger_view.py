"""The exchanger's view: drawing, findings in places, coverage, odds."""

import pytest

from havrin_server.visits.models import Visit


def test_the_drawing_findings_coverage_and_odds_follow_the_tape(tove, visit):
    empty = tove.get(f"visits/{visit}/exchanger").json()
    assert (empty["form"], len(empty["parts"]), empty["placed"]) == ("clamshell", 4, [])
    assert {part["state"] for part in empty["parts"]} == {"none"}
    assert tove.line(visit, "found soot cell 2 seam 5 mm by mirror likely").status_code == 200
    assert tove.line(visit, "exchanger ok 4/4 by borescope").status_code == 200
    seen = tove.get(f"visits/{visit}/exchanger").json()
    (row,) = seen["placed"]
    assert (row["place"], row["detail"], row["x"] is not None) == ("cell 2 seam", "5 mm, by mirror, likely", True)
    assert [part["state"] for part in seen["parts"]] == ["in", "out", "in", "in"]
    assert seen["coverage"][0]["says"] == "4 of 4 parts seen by borescope"
    assert any(sign["against"] for sign in seen["evidence"]["signs"])


def test_each_sign_has_its_weight_and_the_next_look_its_odds(tove, visit):
    tove.line(visit, "flame moves")
    evidence = tove.get(f"visits/{visit}/exchanger").json()["evidence"]
    assert evidence["state"] == "near"
    assert [sign["weight"] for sign in evidence["signs"]] == ["× 12"]
    assert evidence["looks"]
    assert all(look["if_found"] and look["if_not"] for look in evidence["looks"])
    tove.line(visit, "found crack cell 3")
    assert tove.get(f"visits/{visit}/exchanger").json()["evidence"]["state"] == "out"


def test_a_unit_that_fires_into_its_air_has_none(tove):
    number = Visit.objects.filter(unit__label="MA-1", closed_at=None).get().pk
    answer = tove.get(f"visits/{number}/exchanger")
    assert answer.status_code == 404
    assert "no heat exchanger" in answer.json()["title"]


@pytest.mark.parametrize(
    ("label", "form", "parts"), [("F-2", "tubular", 6), ("B-1", "sectional", 5), ("RT-2", "tubular", 6)]
)
def test_each_unit_is_drawn_as_it_is(wenna, label, form, parts):
    number = Visit.objects.filter(unit__label=label, closed_at=None).get().pk
    found = wenna.get(f"visits/{number}/exchanger").json()
    assert (found["form"], len(found["parts"])) == (form, parts)
