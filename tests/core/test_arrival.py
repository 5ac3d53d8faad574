"""Before anything is touched: triage, the code and the reset."""

import pytest

from havrin_core.machine.kind_files import build_unit, kind_names
from havrin_core.machine.unit import Plate, Stage
from havrin_core.shorthand.reader import read_line
from havrin_core.standing.arrival import code_before_reset, triage
from havrin_core.wording.entries import line_echo
from havrin_core.wording.phrases import words as say
from havrin_core.wording.steps import code_note
from tests.core.rows import furnace, situation, tape

ONE, TWO = (Stage("only"),), (Stage("low"), Stage("high"))
UNITS = [build_unit("U", kind, Plate("NG_H", stages), 1540) for kind in kind_names() for stages in (ONE, TWO)]


def answers(*lines):
    return {row.key: row.answered for row in triage(furnace(), tape(*lines))}


@pytest.mark.parametrize("unit", UNITS, ids=lambda u: f"{u.kind.key}-{len(u.stage_keys)}")
def test_every_line_that_triage_offers_can_be_read(unit):
    there = situation(unit)
    for row in triage(unit, ()):
        for line in filter(None, (row.good, row.bad)):
            assert read_line(line, there).writable, line


def test_triage_remembers_what_was_answered():
    assert set(answers().values()) == {""}
    assert answers("look line ok")["power"] == "ok"
    assert answers("look line ok", "look line bad")["power"] == "bad"
    assert answers("vent blocked")["vent"] == "bad"
    assert answers("try thermostat bad")["call"] == "bad"


def test_water_is_asked_of_boilers_only():
    boiler = build_unit("B", "boiler_power_vent", Plate("NG_H", ONE), 1540)
    assert "water" in {row.key for row in triage(boiler, ())}
    assert "water" not in answers()


def test_a_code_before_the_reset_is_the_rule():
    assert "before the power goes off" in code_note(code_before_reset(()))
    assert code_before_reset(tape("code 2 4", "did reset limit")) == ""
    assert "may be gone" in code_note(code_before_reset(tape("did reset limit", "code 2 4")))


@pytest.mark.parametrize(
    ("line", "said", "doubt"), [("code 2 3", "did not prove", ""), ("code 9 9", "Code 9 9", "no code 9 9")]
)
def test_a_code_is_read_from_the_controls_chart(line, said, doubt):
    unit = furnace()
    assert unit.codes["2 3"]
    read = read_line(line, situation(unit))
    assert read.writable
    assert said in line_echo(read, situation(unit))[0]
    assert doubt in " ".join(map(say, read.doubts))
