"""Entries of schema 1, as the version that knew no other wrote them, with the level that it found then."""

import json

import pytest

from havrin_core.errors import BadDocument
from havrin_core.house.house_rules import HouseRules
from havrin_core.standing.assess import assess
from havrin_core.tape.documents import body_from_dict, entry_from_dict, entry_to_dict
from havrin_core.tape.entries import Action, Condition, Correction
from havrin_core.tape.upcasters import upcast
from havrin_core.tape.visit import VisitTape
from tests.core.rows import REFERENCE, furnace

ROWS = [json.loads(line) for line in (REFERENCE / "schema_1.jsonl").read_text(encoding="utf-8").splitlines()]


def entries_of(row):
    return tuple(entry_from_dict(entry, "entry 1", 1) for entry in row["entries"])


@pytest.mark.parametrize("row", ROWS, ids=lambda row: row["line"])
def test_what_was_dangerous_then_is_dangerous_now(row):
    found = assess(furnace(), HouseRules(), VisitTape("maintenance", entries_of(row)))
    assert max((reason.level for reason in found.reasons), default=0) >= row["level"]


@pytest.mark.parametrize("row", ROWS, ids=lambda row: row["line"])
def test_once_read_it_is_an_entry_of_today(row):
    entries = entries_of(row)
    assert tuple(entry_from_dict(entry_to_dict(entry), "entry 1") for entry in entries) == entries


def test_every_old_kind_is_among_them():
    kinds = {entry["kind"] for row in ROWS for entry in row["entries"]}
    assert kinds >= {"look", "action", "jumper.in", "check", "decision", "reading", "code", "plate", "note"}


def test_a_correction_of_old_holds_an_entry_of_today():
    inner = {"kind": "look", "data": {"finding": "exchanger_breach", "place": "cell 3"}}
    body = body_from_dict("correction", {"corrects": "a", "replacement": inner}, "entry 1", 1)
    assert isinstance(body, Correction)
    assert body.replacement == Condition("exchanger", "cracked", "cell 3")


def test_what_nobody_knows_any_more_is_kept_as_unknown_work_and_never_good():
    kind, data = upcast("look", {"finding": "gone_with_its_version", "place": ""}, 1)
    assert (kind, data["condition"]) == ("condition", "unknown_work")
    assert isinstance(body_from_dict("action", {"action": "sang"}, "entry 1", 1), Action)


@pytest.mark.parametrize("schema", [0, 4, 99])
def test_a_schema_that_does_not_exist_is_refused(schema):
    with pytest.raises(BadDocument) as refused:
        upcast("note", {"text": "x"}, schema)
    assert refused.value.code == "entry_schema"
