"""The ledger: everything left abnormal, from its entry to its put-back."""

import pytest

from havrin_core.facts.facts import Facts
from havrin_core.vocabulary.abnormal import KINDS, abnormal
from tests.core.rows import SOUND, judge, tape

PLACES = {
    "part": "igniter",
    "setting": "blower speed",
    "jumper": "call",
    "held": "door switch",
    "lead": "rod lead",
    "tee": "pressure switch",
    "tap": "manifold",
}


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.key)
def test_nothing_abnormal_stays_in_unseen(kind):
    place = PLACES[kind.key]
    found = judge(*SOUND, f"{kind.verb_in} {place}")
    assert found.level == 3
    assert found.jumpers[0].how == kind.key
    reason = next(r for r in found.reasons if r.code == f"{kind.key}_in")
    assert kind.lifts in reason.lifts
    assert found.next_step.starter.startswith(kind.verb_out)


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.key)
def test_what_was_put_back_is_closed(kind):
    place = PLACES[kind.key]
    found = judge(*SOUND, f"{kind.verb_in} {place}", f"{kind.verb_out} {place}", "leak ok", "cycles 1")
    assert not found.jumpers
    assert not any(r.code == f"{kind.key}_in" for r in found.reasons)


def test_the_same_place_can_hold_two_things():
    entries = tape("tee draft hose", "lift draft hose", "untee draft hose")
    open_ = Facts(entries).jumpers_in()
    assert [(j.how, j.device) for j in open_] == [("lead", "draft hose")]


def test_a_plugged_tap_demands_a_leak_check():
    found = judge(*SOUND, "tap manifold", "plug manifold")
    missing = next(m for m in found.missing if m.proof == "leak_check")
    assert missing.after_work.startswith("Tap plugged")
    assert not any(m.proof == "leak_check" for m in judge(*SOUND, "tap manifold", "plug manifold", "leak ok").missing)


@pytest.mark.parametrize(
    ("line", "level", "code"),
    [
        ("found taped limit", 4, "bypass_found"), ("found jumper limit", 4, "bypass_found"), ("found lifted rod lead", 3, "lead_in"),
        ("found open tap manifold", 3, "tap_in"), ("hold limit", 3, "held_in"),
    ],
)  # fmt: skip
def test_found_or_put_in(line, level, code):
    reason = next(r for r in judge(*SOUND, line).reasons if r.code == code)
    assert reason.level == level


def test_a_held_safety_device_is_proved_after_its_release():
    found = judge(*SOUND, "hold limit", "release limit")
    assert any(r.code == "device_unproved" for r in found.reasons)
    assert not any(
        r.code == "device_unproved" for r in judge(*SOUND, "hold limit", "release limit", "proved limit").reasons
    )


def test_a_lead_landed_again_bypassed_nothing():
    found = judge(*SOUND, "lift limit", "land limit", "cycles 1")
    assert not any(r.code == "device_unproved" for r in found.reasons)


def test_each_kind_has_words_of_its_own():
    verbs = [verb for kind in KINDS for verb in (kind.verb_in, kind.verb_out)]
    assert len(set(verbs)) == len(verbs)
    assert abnormal("tee").said_in == "Tee IN"
