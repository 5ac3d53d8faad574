"""Words that pages and papers share: stations, the flue, the exchanger, choices, the record."""

from datetime import date

import pytest

from havrin_core.exchanger.coverage import coverages, part_state, placed
from havrin_core.exchanger.evidence import evidence_of, evidence_state
from havrin_core.exchanger.signs import Sign
from havrin_core.facts.facts import Facts
from havrin_core.follow_up.trends import Trend
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.exchanger import exchanger_of
from havrin_core.machine.kind_files import kind_names
from havrin_core.physics.fuels import fuel_to_tell_apart, shipped_fuel
from havrin_core.quantities.display import show
from havrin_core.shorthand.reader import read_line
from havrin_core.standing.striking import wants_a_reason
from havrin_core.tape.bundle import unit_from_dict
from havrin_core.tape.entries import Reading
from havrin_core.vocabulary.catalogue import LEVEL_OF_VERDICT, VERDICTS
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.choices import finding, part_choices, things_elsewhere
from havrin_core.wording.exchanger import coverage_words, evidence_words, odds_words, weight_words
from havrin_core.wording.flue import flue_aside, flue_cannot_say, flue_says
from havrin_core.wording.record import advice_words, reading_line, trend_words
from havrin_core.wording.stations import line_again, reading_limit, station_starter, station_words, unit_line
from tests.core.rows import SOUND, furnace, judge, situation, tape
from tests.core.trade import EVERY, unit_of


def station(unit, key):
    return next(s for s in unit.stations() if s.key == key)


def view(found, key):
    return next(v for v in found.stations if v.key == key)


# ── stations ──────────────────────────────────────────────────────────────────────────────────────────────────────────


@pytest.mark.parametrize(
    ("lines", "key", "said"),
    [
        ((), "manifold", "not read yet"),
        ((), "vent", "not looked at yet"),
        (("mp 3.5",), "manifold", ""),
        (("found soot",), "exchanger", ""),
        (("jump limit",), "limit", "since 09:00"),
        (("found burners rusty",), "burner", "rusty"),
    ],
)
def test_a_plate_says_what_was_seen_or_that_nothing_was(lines, key, said):
    unit, found = furnace(), judge(*lines)
    assert said in station_words(station(unit, key), view(found, key), found)


def possible(one):
    """Return a number that can be read at a station; "" where it is looked at."""
    what = measurand(one.quantity or "o2_dry_pct")
    number = show(what.least + 0.2 * (what.most - what.least), what.dimension, "us").text
    return number.replace("−", "-") if one.quantity or one.key == "flue" else ""


@pytest.mark.parametrize("kind", EVERY)
def test_every_station_begins_a_line_that_the_bar_knows(kind):
    unit = unit_from_dict(unit_of(kind))
    there = situation(unit)
    for one in unit.stations():
        starter = station_starter(one)
        if starter == "found ":
            continue  # what was found there is said by the person
        line = read_line(f"{starter}{possible(one)}", there)
        assert line.bodies or line.asks, (kind, one.key, starter)
        assert not line.unread, (kind, one.key, line.unread)


def test_a_reading_can_be_written_again_word_for_word():
    for line in ("mp 3.5", "draft .88", "v limit 0.1", "ua 2.9", "supply 7.1"):
        body = next(e.body for e in tape(line) if isinstance(e.body, Reading))
        again = next(e.body for e in tape(line_again(body)) if isinstance(e.body, Reading))
        assert (again.quantity, again.typed, again.unit, again.stage) == (
            body.quantity,
            body.typed,
            body.unit,
            body.stage,
        )


def test_a_unit_is_said_in_one_line():
    said = unit_line(furnace(stages=2), "us")
    assert said == "80 % furnace, two-stage · natural gas · 80.0 kBtu/h · 5052 ft"


def test_a_limit_is_said_only_where_there_is_one():
    readings = {v.quantity: reading_limit(v, "us") for v in judge("mp 3.5", "outdoor 20").readings}
    assert readings["manifold_pa"]
    assert readings["outdoor_temp_k"] == ""


# ── the flue ──────────────────────────────────────────────────────────────────────────────────────────────────────────


def test_a_flue_says_what_its_numbers_are_and_never_that_an_exchanger_is_whole():
    unit, found = furnace(), judge(*SOUND)
    said = flue_says(unit, found.flue[0], "us")
    assert "ppm CO air-free with" in said[0]
    assert any("dew point" in line for line in said)
    assert flue_cannot_say(found)[0] == "A good flue is no proof of a whole heat exchanger."


def test_a_condensing_unit_that_does_not_condense_is_asked_about():
    unit = furnace(condensing=True)
    warm = judge("o2 7.4 co 22 t 200 air 66", unit=unit).flue[0]
    cool = judge("o2 7.4 co 22 t 100 air 66", unit=unit).flue[0]
    assert "it does not condense here" in " ".join(flue_says(unit, warm, "us"))
    assert "of the water condenses" in " ".join(flue_says(unit, cool, "us"))
    assert flue_aside(cool.result, "dew_point_k", "us").endswith(": condensing")
    assert flue_aside(warm.result, "dew_point_k", "us").endswith("not condensing")


def test_oxygen_and_carbon_dioxide_that_agree_are_said_to():
    unit = furnace()
    both = judge("o2 7.4 co 22 co2 7.6 t 342 air 66").flue[0]
    assert any("agree for natural gas" in line for line in flue_says(unit, both, "us"))
    assert flue_aside(both.result, "co2_from_o2_pct", "us") == "measured 7.6 %"


@pytest.mark.parametrize(("fuel", "other"), [("NG_H", "C3H8"), ("NG_L", "C3H8"), ("C3H8", "NG_H"), ("BUTANE", "NG_H")])
def test_a_fuel_is_told_apart_from_the_one_it_is_mistaken_for(fuel, other):
    assert fuel_to_tell_apart(shipped_fuel(fuel)).name == other


# ── the exchanger ─────────────────────────────────────────────────────────────────────────────────────────────────────


@pytest.mark.parametrize(
    ("probability", "said"),
    [(1.0, "practically certain"), (0.5, "50 %"), (0.1, "1 in 10"), (0.004, "1 in 250"), (0.0, "none")],
)
def test_odds_are_said_as_people_say_them(probability, said):
    assert odds_words(probability) == said


@pytest.mark.parametrize(("ratio", "said"), [(float("inf"), "decides"), (8.0, "× 8"), (0.25, "÷ 4"), (1.0, "× 1")])
def test_a_sign_weighs_for_or_against(ratio, said):
    assert weight_words(Sign("resets", ratio, "resets")) == said


@pytest.mark.parametrize(
    ("lines", "cell_1", "evidence"),
    [
        ((), "none", "in"),
        (("exchanger ok 4/4 by mirror",), "in", "in"),
        (("found exchanger rusted cell 1",), "near", "in"),
        (("found crack cell 1",), "out", "out"),
    ],
)
def test_a_part_is_marked_by_what_was_found_on_it(lines, cell_1, evidence):
    unit, facts = furnace(), Facts(tape(*lines))
    drawn = exchanger_of(unit)
    rows, seen = placed(facts, drawn), coverages(facts, len(drawn.primary))
    assert part_state(drawn.primary[0].key, drawn, rows, seen) == cell_1
    assert evidence_state(evidence_of(unit, facts)) == evidence


def test_a_seen_breach_ends_it_and_coverage_is_said():
    found = evidence_of(furnace(), Facts(tape("found crack cell 1")))
    assert evidence_words(found) == "A breach was seen: it does not run again."
    assert evidence_words(evidence_of(furnace(), Facts(()))).startswith("Odds of a breach: 1 in ")
    row = coverages(Facts(tape("exchanger ok 3/4 by mirror")), 4)[0]
    assert coverage_words(row) == "3 of 4 parts seen by mirror"


# ── choices ───────────────────────────────────────────────────────────────────────────────────────────────────────────


@pytest.mark.many_cases
@pytest.mark.parametrize("kind", EVERY)
def test_every_choice_is_a_line_that_is_understood_whole(kind):
    unit = unit_from_dict(unit_of(kind))
    there = situation(unit)
    for choice in (c for row in part_choices(unit) for c in (*row.done, *row.found, *row.jumpers)):
        line = read_line(choice.line, there)
        assert line.bodies or line.asks, (kind, choice)
        assert not line.unread, (kind, choice)


def test_a_finding_carries_the_level_that_it_opens():
    assert finding("exchanger", "cracked").level == 4
    assert finding("exchanger", "ok").level == 0
    assert [LEVEL_OF_VERDICT[v] for v in VERDICTS] == sorted(LEVEL_OF_VERDICT[v] for v in VERDICTS)


def test_what_is_put_in_is_graver_than_what_is_taken_out():
    at_parts = [choice for row in part_choices(furnace()) for choice in row.jumpers]
    rows = {choice.line: choice.level for choice in (*at_parts, *things_elsewhere())}
    assert rows["jump limit"] == 3
    assert rows["unjump limit"] == 0
    assert (rows["tee "], rows["untee "]) == (3, 0)


# ── the record ────────────────────────────────────────────────────────────────────────────────────────────────────────


def test_advice_is_told_later_in_its_own_words():
    lines = advice_words(tape("advise a larger return", "refused a new boiler: next year", "note the dog bites"))
    assert lines[0] == "Advised: a larger return"
    assert lines[1].startswith("Refused: ")
    assert not any("dog" in line for line in lines)


def test_a_reading_is_told_with_its_unit_and_its_stage():
    unit = furnace(stages=2)
    lines = [reading_line(v, "us") for v in judge("mp 3.2 hi", unit=unit).readings]
    assert lines == ["Manifold, high fire 3.20 inWC"]


@pytest.mark.parametrize(
    ("trend", "said"),
    [
        (None, ""),
        (Trend(-25.0, 5.0), "falls 0.10 ± 0.02 inWC a year"),
        (
            Trend(25.0, 5.0, date(2028, 3, 4), date(2028, 3, 30)),
            "rises 0.10 ± 0.02 inWC a year; reaches its limit about March 2028",
        ),
        (
            Trend(25.0, 5.0, date(2028, 3, 4), date(2030, 1, 2)),
            "rises 0.10 ± 0.02 inWC a year; reaches its limit between March 2028 and January 2030",
        ),
        (
            Trend(25.0, 5.0, date(2028, 3, 4)),
            "rises 0.10 ± 0.02 inWC a year; may reach its limit from March 2028 on",
        ),
    ],
)
def test_a_trend_says_which_way_how_much_and_when(trend, said):
    assert trend_words(trend, "manifold_pa", "us") == said


@pytest.mark.parametrize(
    ("line", "wants"),
    [
        ("room 40", True),
        ("room 3", False),
        ("found crack cell 3", True),
        ("found soot", False),
        ("leak bad", True),
        ("leak ok", False),
        ("lel 5", True),
        ("mp 3.5", False),
        ("shut down gas shut, tagged", True),
        ("found jumper limit", True),
        ("note nothing", False),
    ],
)
def test_a_line_that_says_a_danger_is_struck_only_with_a_reason(line, wants):
    assert any(wants_a_reason(entry.body) for entry in tape(line)) is wants


def test_every_kind_is_looked_at():
    assert set(EVERY) == set(kind_names())
    assert HouseRules().name
