"""Slips of the reading are named, and a new reading lifts each."""

import pytest

from havrin_core.wording.reasons import reason_words
from tests.core.rows import SOUND, furnace, judge

CONDENSING = furnace(condensing=True)


def slips(*lines, **options):
    return {r.code.removeprefix("mistake_") for r in judge(*lines, **options).reasons if r.code.startswith("mistake_")}


CASES = [
    ("cover_off", ("hold door switch", "draft .88"), ("release door switch", "draft .88"), {}),
    ("un_teed", ("draft .88", "v 3 4 26"), ("draft .41",), {}),
    ("reference_hose", ("draft .88", "mp 3.0"), ("mp 3.5",), {"unit": CONDENSING}),
    ("still_closing", ("lockup 7.4", "lockup 7.9"), ("lockup 7.9",), {}),
    ("burner_in_sight", ("input 55.8", "rise 90"), ("rise 50",), {}),
    ("capacitor_amps", ("blower 7.4 A", "cap 7.4 of 40"), ("cap 39.5 of 40",), {}),
    ("flame_range", ("ua 40",), ("ua 2.9",), {}),
    ("gross_net", ("mp 3.5", "input 50.3"), ("input 55.8",), {}),
    ("air_in_sample", ("o2 7.4 co 22 t 342", "o2 9.1 co 19 t 342"), ("o2 7.4 co 22 t 342", "o2 7.4 co 22 t 342"), {}),
]


@pytest.mark.parametrize(("code", "lines", "again", "options"), CASES, ids=[case[0] for case in CASES])
def test_a_slip_is_named_and_a_new_reading_lifts_it(code, lines, again, options):
    assert code in slips(*lines, **options)
    assert code not in slips(*lines, *again, **options)


def test_a_sound_visit_has_no_slips():
    assert slips(*SOUND) == set()


@pytest.mark.parametrize(
    "lines",
    [
        ("o2 7.4 co 22 t 342", "did clear port", "o2 9.1 co 19 t 342"),
        ("o2 7.4 co 22 t 342", "o2 9.1 co 19 t 300"),
        ("blower 7.4 A", "cap 37.4 of 40"),
        ("lockup 7.4", "did change valve", "lockup 7.9"),
        ("rise 90",),
        ("draft .41", "v 3 4 26"),
    ],
)
def test_what_has_another_cause_is_no_slip(lines):
    assert slips(*lines) == set()


def test_a_slip_says_how_to_read_it_right():
    reason = next(r for r in judge("blower 7.4 A", "cap 7.4 of 40").reasons if r.code == "mistake_capacitor_amps")
    assert "µF" in reason_words(reason, "us").lifts
    assert reason.entry_id
    assert reason.level == 3
