"""Dangers in the trade's own words on every kind: seen, never talked away, and lifted by what they ask for."""

import json
from dataclasses import replace

import pytest

from havrin_core.batch.run import answer
from havrin_core.house.house_rules import HouseRules
from havrin_core.standing.assess import assess
from havrin_core.tape.entries import Said
from havrin_core.tape.visit import VisitTape
from tests.core.rows import furnace, tape
from tests.core.trade import DANGERS, DEVICES, EVERY, OF_A_DEVICE, SOUND_TALK, filled, sound_lines, visit_line

_ROUNDS = 6  # a lift may open what it asks for itself: a joint that was opened wants its leak check


def judged(kind, lines, **more):
    said = answer(visit_line(kind, lines, **more))
    assert "error" not in said, said
    return said


def rows_of(kind):
    own = [(danger.level, line) for danger in DANGERS if kind in danger.on for line in danger.lines]
    return [*own, *((level, said.format(device)) for device in DEVICES[kind] for level, said in OF_A_DEVICE)]


@pytest.mark.parametrize("kind", EVERY)
def test_a_sound_visit_is_left_running(kind):
    assert judged(kind, sound_lines(kind))["assessment"]["level"] == 1


@pytest.mark.many_cases
@pytest.mark.parametrize("kind", EVERY)
def test_the_last_danger_wins(kind):
    for level, line in rows_of(kind):
        parts = line.split(" | ")
        said = judged(kind, [*sound_lines(kind), *parts])
        assert said["lines"][-1]["kept_as"] == "entries", (line, said["lines"][-1]["ask"])
        assert said["assessment"]["level"] >= level, (line, said["assessment"]["reasons"])


@pytest.mark.many_cases
@pytest.mark.parametrize("kind", EVERY)
def test_what_is_sound_afterwards_talks_no_danger_away(kind):
    for danger in DANGERS:
        if kind in danger.on and danger.level == 4:
            parts = danger.lines[-1].split(" | ")
            found = judged(kind, [*parts, *sound_lines(kind)])["assessment"]
            assert found["level"] >= 3, danger.lines[-1]


@pytest.mark.many_cases
@pytest.mark.parametrize("kind", EVERY)
def test_what_a_danger_asks_for_lifts_it(kind):
    dangers = [danger.lines[0] for danger in DANGERS if kind in danger.on]
    devices = [said.format(DEVICES[kind][0]) for _, said in OF_A_DEVICE]
    for line in [*dangers, *devices]:
        lines = [*sound_lines(kind), *line.split(" | ")]
        for _ in range(_ROUNDS):
            found = judged(kind, lines)["assessment"]
            if found["level"] <= 2:
                break
            asked = [lift["line"] for reason in found["reasons"] if reason["level"] >= 3 for lift in reason["lifts"]]
            asked += [item["line"] for item in found["missing"]]
            lines += [filled(said, kind) for said in dict.fromkeys(asked)]
        assert found["level"] <= 2, (line, found["reasons"], found["missing"])


@pytest.mark.many_cases
@pytest.mark.parametrize("kind", EVERY)
def test_what_a_danger_asks_for_is_kept_over_visits(kind):
    """Conservation: what is open at a close is open at the next visit, whatever sound things are read there."""
    for danger in DANGERS:
        if kind in danger.on:
            shut = {
                "reason": "no_heat",
                "lines": [
                    {"text": t} for t in (*danger.lines[0].split(" | "), "shut down gas shut, tagged", "told owner")
                ],
                "leave": "made_safe",
            }
            found = judged(kind, sound_lines(kind), earlier=[shut])["assessment"]
            assert found["level"] >= 3, danger.lines[0]


@pytest.mark.parametrize(("kinds", "line"), SOUND_TALK)
def test_sound_talk_raises_no_alarm(kinds, line):
    for kind in kinds:
        for lines in ([*sound_lines(kind), *line.split(" | ")], [*line.split(" | "), *sound_lines(kind)]):
            said = judged(kind, lines)
            assert {row["kept_as"] for row in said["lines"]} <= {"entries", "note"}, (kind, line)
            assert said["assessment"]["level"] <= 2, (kind, line, said["assessment"]["reasons"])


def test_a_line_of_the_batch_that_is_no_request_is_answered_and_the_next_one_read():
    for text in ("", "{", "[]", json.dumps({"op": "sing"}), json.dumps({"op": "visit"})):
        assert "error" in answer(text)


def test_a_cause_at_a_part_that_the_unit_does_not_have_frees_it_of_nothing():
    """A bundle, or a kind that was changed afterwards, may name one: nothing was cured by that."""
    lines = ("room 40", "cause vent cracked", "cycles 1", "room 0")
    entries = tape(*lines)
    strange = [replace(e, body=replace(e.body, part="boiler_section")) if is_cause(e.body) else e for e in entries]
    assert any(is_cause(entry.body) for entry in entries)
    found = assess(furnace(), HouseRules(), VisitTape("maintenance", tuple(strange)))
    assert found.level == 4


def is_cause(body):
    return isinstance(body, Said) and body.what == "cause"
