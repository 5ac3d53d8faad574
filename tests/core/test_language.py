"""Labelled lines: the score of made-up answers, and how the visible lines stand."""

import json

import pytest

from havrin_core.command import language
from havrin_core.errors import BadDocument
from havrin_core.language.labelled import answer_to, labelled
from havrin_core.language.score import score, tallied
from tests.core.rows import REFERENCE

FILE = REFERENCE / "language" / "visible.jsonl"
O2 = {"is": "reading", "quantity": "o2_dry_pct", "value": 7.1, "tol": 0.03}
BAD_ROD = {"is": "condition", "part": ["flame_rod", "igniter"], "verdict": ["worn", "bad"]}


def answer(*items, writable=True, **more):
    return {"writable": writable, "items": list(items), "echo": "", "ask": [], "unread": [], **more}


def reading(value, **more):
    return {"is": "reading", "quantity": "o2_dry_pct", "value": value, **more}


def look(part, verdict, **more):
    return {"is": "condition", "part": part, "verdict": verdict, **more}


@pytest.mark.parametrize(
    ("expect", "given", "wanted"),
    [
        (O2, answer(reading(7.1)), "right"),
        (O2, answer(reading(7.4)), "dangerous"),  # the right quantity with another value
        (O2, answer(), "wrong"),
        (O2, answer(reading(7.1), {"is": "event", "what": "x"}), "right"),
        (O2, answer(reading(7.1), look("vent", "bad")), "wrong"),
        (O2, answer(reading(7.1), look("vent", "good")), "dangerous"),  # a good that nobody said
        (O2, answer({"is": "said", "what": "note", "text": "o2"}), "note"),
        (O2, answer(writable=False, ask=[{"question": "?"}]), "refused"),
        ({**O2, "or_ask": True}, answer(writable=False, ask=[{"question": "?"}]), "asked"),
        ({"is": "ask"}, answer(writable=False, ask=[{"question": "?"}]), "right"),
        ({"is": "ask"}, answer(reading(7.1)), "wrong"),
        (BAD_ROD, answer(look("igniter", "worn")), "right"),
        (BAD_ROD, answer(look("igniter", "good")), "dangerous"),
        ({**BAD_ROD, "keeps": [["cell 3", "third"]]}, answer(look("igniter", "worn"), echo="cell 3"), "right"),
        ({**BAD_ROD, "keeps": [["cell 3", "third"]]}, answer(look("igniter", "worn")), "wrong"),
        ({"is": "condition", "verdict": "danger"}, answer(look("vent", "worn")), "dangerous"),
        ({"any": [{"is": "note"}, BAD_ROD]}, answer(look("flame_rod", "bad")), "right"),
        ({"items": [O2, {**BAD_ROD, "optional": True}]}, answer(reading(7.1)), "right"),
        ({"items": [O2, BAD_ROD]}, answer(reading(7.1)), "wrong"),
        ({"is": "reading", "leads": [["3", "C"]]}, answer({"is": "reading", "leads": ["C", "3"]}), "right"),
        ({"is": "code", "patterns": ["L S/1 L"]}, answer({"is": "code", "patterns": ["L-S"]}), "right"),
        ({**O2, "value": -7.1, "abs": True}, answer(reading(7.1)), "right"),
    ],
)
def test_an_answer_is_scored_by_what_it_would_do(expect, given, wanted):
    assert score(expect, given) == wanted


def test_what_must_never_be_is_dangerous_wherever_it_stands():
    expect = {"is": "said", "what": ["advise"], "never": [{"is": "action"}]}
    assert score(expect, answer({"is": "action", "verb": "change", "part": "board"})) == "dangerous"


def test_groups_are_counted_and_all_of_them_last():
    rows = list(tallied([("a", "right"), ("b", "wrong"), ("a", "asked")]))
    assert [(group, size) for group, size, _ in rows] == [("a", 2), ("b", 1), ("all", 3)]
    assert rows[-1][2]["right"] == 1


def test_a_line_without_its_label_is_named():
    with pytest.raises(BadDocument) as refusal:
        list(labelled([json.dumps({"kind": "furnace_80", "line": "o2 7"})]))
    assert refusal.value.value == "1"


def test_the_visible_lines_are_not_understood_worse_than_before():
    with FILE.open(encoding="utf-8") as source:
        scores = [score(one.expect, answer_to(one)) for one in labelled(source)]
    assert scores.count("dangerous") == 0
    assert scores.count("right") >= 217
    assert scores.count("wrong") <= 9


def test_the_command_prints_every_group(capsys):
    assert language(str(FILE), show=True) == 0
    said = capsys.readouterr().out.splitlines()
    assert said[-1].startswith("all")
    assert any(line.startswith("reading.gas") for line in said)
