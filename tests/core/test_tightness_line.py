"""The closed line: read from one line, judged, with what it took for granted said."""

from dataclasses import replace

import pytest

from havrin_core.physics.gas.tightness import Closed, decay
from havrin_core.shorthand.reader import read_line
from havrin_core.wording.entries import line_echo
from havrin_core.wording.phrases import words as say
from havrin_core.wording.reasons import reason_words
from tests.core.rows import judge, situation

SITUATION = replace(situation(system="metric"), gas=None)  # at the standard barometer
LITRE_PER_H = 1e-3 / 3600


def read(text):
    return read_line(text, SITUATION)


def test_a_drop_becomes_a_leak():
    line = read("tight 12 l 20 mbar 19.5 mbar 5 min")
    want = decay(0.012, Closed(2000, 293.15, 101_325), Closed(1950, 293.15, 101_325), 300).leak_m3_s_standard
    assert line.bodies[0].quantity == "gas_leak_m3_s"
    assert line.bodies[0].value == pytest.approx(want)
    assert "0.07 ± 0.05 l/h" in line_echo(line, SITUATION)[0]


def test_temperatures_are_taken_out():
    cooled = read("tight 12 l 20 mbar 16.5 mbar 5 min 21 C 20 C").bodies[0].value
    assert abs(cooled) < 0.1 * read("tight 12 l 20 mbar 16.5 mbar 5 min").bodies[0].value


def test_the_line_says_its_figure_and_what_it_does_not_show():
    assert line_echo(read("tight 0.4 ft3 8 inwc 7.9 inwc 300 s"), SITUATION)[0].startswith("Leak of the closed line")
    assert "TOO SHORT" in line_echo(read("tight 400 l 20 mbar 20 mbar 1 min"), SITUATION)[0]
    rising = read("tight 12 l 20 mbar 23 mbar 5 min").bodies[0]
    assert rising.value < 0  # gas comes in past the valve


@pytest.mark.parametrize(
    "text",
    [
        "tight",
        "tight 12 20 19",
        "tight 12 l 20 mbar 5 min",
        "tight 12 l 20 mbar 19 mbar",
        "tight 12 l 20 mbar 19 mbar 5 min 20 C",
    ],
)
def test_what_is_missing_is_asked_for(text):
    line = read(text)
    assert not line.writable
    assert "tight 12 l" in say(line.problems[0].text)


def test_a_leak_beyond_the_criterion_keeps_the_unit_from_standing():
    codes = {r.code for r in judge("tight 40 l 20 mbar 10 mbar 5 min").reasons}
    assert "line_leaks" in codes
    sound = {r.code for r in judge("tight 12 l 20 mbar 20 mbar 5 min").reasons}
    assert not any(code.startswith("gas_leak") for code in sound)


def test_a_test_that_was_too_short_proves_nothing():
    short = next(r for r in judge("tight 400 l 20 mbar 20 mbar 1 min").reasons if r.code == "mistake_test_too_short")
    assert short.level == 3
    assert short.facts["quantity"] == "gas_leak_m3_s"
    assert "long enough" in reason_words(short, "us").lifts
    again = judge("tight 400 l 20 mbar 20 mbar 1 min", "tight 400 l 20 mbar 20 mbar 10 min")
    assert not any(r.code == "mistake_test_too_short" for r in again.reasons)
