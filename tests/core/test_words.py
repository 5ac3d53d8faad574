"""How entries and next steps read."""

import pytest

from havrin_core.rules.model import SHUT_DOWN
from havrin_core.tape.entries import (
    Abnormal,
    Action,
    Code,
    Condition,
    Correction,
    Note,
    Proof,
    Reading,
    Said,
    Trace,
)
from havrin_core.wording.closing import change_words
from havrin_core.wording.entries import describe
from havrin_core.wording.ledger import to_put_back
from havrin_core.wording.steps import step_words
from tests.core.rows import SOUND, furnace, judge


@pytest.mark.parametrize(
    ("body", "text", "value", "tone"),
    [
        (Reading("manifold_pa", 871.8, 3.5, "inWC", "high"), "Manifold, high", "3.5 inWC", "plain"),
        (Reading("draft_pa", -229.2, -0.92, "inWC", "only"), "Draft at switch", "−0.92 inWC", "plain"),
        (Reading("volts_across_v", 0.1, 0.1, "V", None, "pressure_switch"), "Volts, pressure switch", "0.1 V", "plain"),
        (
            Trace("c", "high", 180, (("o2_dry_pct", 6.5, 0.1), ("flue_temp_k", 321.0, 0.2))),
            "Flue, traced, high, steady 3.0 min",
            "6.5 % / 118 °F",
            "plain",
        ),
        (Condition("exchanger", "cracked", "cell 3"), "Heat exchanger: cracked", "cell 3", "danger"),
        (Condition("filter", "dirty"), "Filter: dirty", "", "strong"),
        (Condition("vent", "ok"), "Vent: in order", "", "plain"),
        (Condition("exchanger", "cracked", absent=True), "Heat exchanger: not cracked", "", "plain"),
        (Action("clean", "flame_rod"), "Cleaned: flame rod", "", "strong"),
        (Abnormal("bridged", "call", True), "Jumper IN: call for heat", "IN", "danger"),
        (Abnormal("bridged", "limit", True, found=True), "Found jumper IN: limit", "IN", "danger"),
        (Abnormal("bridged", "call", False), "Jumper out: call for heat", "out", "strong"),
        (Code("2 4"), "Code", "2 4", "strong"),
        (Proof("leak", True), "Leak check passed", "", "plain"),
        (Proof("leak", False), "Leak check FAILED: gas escapes", "", "danger"),
        (Proof("cycles", True, 5), "Full cycles watched", "5", "plain"),
        (Proof("device", False, 1, "rollout"), "DOES NOT act: rollout switch", "", "danger"),
        (Proof("device", True, 1, "rollout"), "Shown to act: rollout switch", "", "plain"),
        (Proof("put_back", True), "Everything put back", "", "plain"),
        (Said("cause", "wind", state="found"), "Cause: wind", "", "strong"),
        (Said("stricter", "noise", 3), "Stricter standing (do not leave running yet): noise", "", "strong"),
        (Note("hello"), "hello", "", "plain"),
        (Correction("x"), "Struck", "", "plain"),
        (
            Correction("x", Reading("manifold_pa", 871.8, 3.5, "inWC", "only")),
            "Corrected to Manifold 3.5 inWC",
            "",
            "plain",
        ),
    ],
)
def test_entries_read(body, text, value, tone):
    said = describe(body, "us")
    assert (said.text, said.value, said.tone) == (text, value, tone)


def test_a_trace_follows_the_unit_system():
    body = Trace("c", "only", 60, (("flue_temp_k", 321.15, 0.2),))
    assert describe(body, "metric").value == "48.0 °C"


@pytest.mark.parametrize(
    ("lines", "title"),
    [
        ((), "Show room CO"),
        (SOUND[1:], "Show room CO"),
        ((*SOUND, "found crack"), "Shut it down and tag it"),
        (
            (*SOUND, "mp 3.9"),
            "Put it right, then read it again: manifold",
        ),
        ((*SOUND, "did open tap"), "Show leak check of every joint that was opened"),
        ((*SOUND, "jump call"), "Take it off: call for heat"),
        ((*SOUND, "found igniter white"), "Cure it or tell the owner"),
        ((*SOUND[:7], *SOUND[8:]), "Show vent and terminal"),
        (SOUND[:-1], "Show a full cycle from its own thermostat"),
    ],
)
def test_the_next_step(lines, title):
    step = judge(*lines).next_step
    assert step is not None
    assert step_words(step, furnace(), "us").title == title


def test_nothing_is_next_when_all_is_shown():
    assert judge(*SOUND).next_step is None


def test_work_is_named_where_it_makes_a_proof_necessary():
    step = judge(*SOUND, "did open tap").next_step
    assert step is not None
    assert "pressure tap" in step_words(step, furnace(), "us").why


def test_a_danger_is_the_first_reason():
    found = judge(*SOUND, "found igniter white", "mp 3.9", "found crack")
    assert [r.level for r in found.reasons] == sorted([r.level for r in found.reasons], reverse=True)
    assert found.reasons[0].level == SHUT_DOWN


@pytest.mark.parametrize(
    ("lines", "station", "state"),
    [
        ((), "manifold", "none"),
        (("mp 3.5",), "manifold", "in"),
        (("mp 3.66",), "manifold", "near"),
        (("mp 3.9",), "manifold", "out"),
        (("mp 3.5", "did turn manifold down"), "manifold", "none"),
        (("vent ok",), "vent", "in"),
        (("vent blocked",), "vent", "out"),
        (("found igniter white", "ua 2.9"), "burner", "near"),
        (("jump limit",), "limit", "out"),
        (("v limit 0.1",), "limit", "in"),
        (("v limit 25.9",), "limit", "near"),
        (("ra 70", "filter ok"), "return_air", "in"),
        (("ra 70",), "return_air", "noted"),
        (("exchanger ok 3/4",), "exchanger", "none"),
        (("o2 7.4 co 22",), "flue", "in"),
        (("o2 7.4 co 500",), "flue", "out"),
    ],
)
def test_what_a_station_shows(lines, station, state):
    view = next(s for s in judge(*lines).stations if s.key == station)
    assert view.state == state


def test_a_pair_without_work_says_so():
    found = judge("found: ua 1.0", "left: ua 2.0")
    (change,) = found.changes
    said = change_words(change, "us")
    assert said == "Flame signal: 1.00 µA found, 2.00 µA left; nothing was written in between."


@pytest.mark.parametrize(
    ("lines", "put_back"),
    [
        (("did open tap",), ("Cap or plug back in",)),
        (("did open tap", "putback"), ()),
        (("putback", "did clean burners"), ("Burner seals and bolts, crosswise",)),
    ],
)
def test_what_was_taken_off_is_put_back(lines, put_back):
    assert tuple(to_put_back(leaves) for leaves in judge(*SOUND, *lines).put_backs) == put_back


def test_stations_follow_the_stages():
    two = furnace(stages=2, condensing=True)
    found = judge("mp 1.5 lo", unit=two)
    states = {s.key: s.state for s in found.stations}
    assert (states["manifold_low"], states["manifold_high"]) == ("in", "none")
