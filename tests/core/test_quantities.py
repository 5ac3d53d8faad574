"""Typed quantities and their uncertainty."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx
from uncertainties import ufloat

from havrin_core.errors import CoreError, NotUnderstood, OutOfDomain, UnknownName, WrongDimension
from havrin_core.physics.combustion.balance import balance
from havrin_core.physics.fuels import shipped_fuel
from havrin_core.quantities.display import sentence, show
from havrin_core.quantities.parse import parse_number, parse_quantity
from havrin_core.quantities.uncertainty import Accuracy, propagate
from havrin_core.quantities.units import UNITS, find_unit, shown_unit, units_of
from havrin_core.wording.phrases import words as say

DEFAULTS = {"pressure": "inWC", "temperature": "°F", "ppm": "ppm", "percent": "%", "current_small": "µA"}


@pytest.mark.parametrize(
    ("text", "dimension", "value_si", "symbol"),
    [
        ("3.5", "pressure", 871.81, "inWC"),
        ("3.5 inWC", "pressure", 871.81, "inWC"),
        ("8.7mbar", "pressure", 870.0, "mbar"),
        ("0,87 kPa", "pressure", 870.0, "kPa"),
        ("−0.92", "pressure", -229.16, "inWC"),
        ("1 1/2 psi", "pressure", 10342.14, "psi"),
        ("½ psi", "pressure", 3447.38, "psi"),
        ("121F", "temperature", 322.594, "°F"),
        ("47.8 °C", "temperature", 320.95, "°C"),
        ("46ppm", "ppm", 46, "ppm"),
        ("2.4 uA", "current_small", 2.4e-6, "µA"),
        ("-40", "temperature", 233.15, "°F"),
    ],
)
def test_reads_what_people_type(text, dimension, value_si, symbol):
    quantity = parse_quantity(text, dimension, find_unit(DEFAULTS[dimension], dimension))
    assert quantity.value_si == approx(value_si, rel=1e-4)
    assert quantity.unit.symbol == symbol


@pytest.mark.parametrize(
    ("text", "error", "words"),
    [
        ("121F", WrongDimension, "temperature"),
        ("3 apples", NotUnderstood, "inWC"),
        ("", NotUnderstood, "number"),
        ("1,200", NotUnderstood, "1200 or 1.200"),
        ("1.2.3", NotUnderstood, "decimal marks"),
        ("1/0", NotUnderstood, "zero"),
        ("1e999", OutOfDomain, "too large"),
        ("nan", NotUnderstood, "number"),
    ],
)
def test_refuses_with_words_that_help(text, error, words):
    with pytest.raises(error) as caught:
        parse_quantity(text, "pressure", find_unit("inWC", "pressure"))
    assert words in say(caught.value.said)


def test_negative_kelvin_is_refused():
    with pytest.raises(OutOfDomain) as caught:
        parse_quantity("-5 K", "temperature", find_unit("°C", "temperature"))
    assert caught.value.code == "below_absolute_zero"


@given(st.sampled_from(UNITS), st.floats(-500, 5000))
def test_units_go_there_and_back(unit, value):
    assert unit.from_si(unit.to_si(value)) == approx(value, rel=1e-9, abs=1e-9)


@given(st.text(max_size=30))
def test_any_text_is_a_number_or_a_refusal(text):
    try:
        number = parse_number(text)
    except CoreError:
        return  # refused in words, not broken
    assert math.isfinite(number)


def test_shows_in_both_systems():
    assert show(871.81, "pressure", "us").text == "3.50"
    assert sentence(871.81, "pressure", "metric") == "8.72 mbar"
    assert sentence(-229.16, "pressure", "us") == "−0.92 inWC"
    assert show(-0.0001, "pressure", "us").text == "0.00"


def test_unknown_system_and_dimension():
    with pytest.raises(UnknownName):
        shown_unit("pressure", "imperial")
    with pytest.raises(UnknownName):
        units_of("colour")


def test_propagation_agrees_with_an_oracle():
    fuel = shipped_fuel("NG_H")

    def excess(values):
        return {"ea": 100 * fuel.dry_gas_ratio * values["o2"] / (20.946 - values["o2"])}

    oxygen = ufloat(6.5, 0.3)
    oracle = 100 * fuel.dry_gas_ratio * oxygen / (20.946 - oxygen)
    width = propagate(excess, {"o2": 6.5}, {"o2": 0.3})["ea"]
    assert width == approx(oracle.std_dev, rel=0.01)


def test_propagation_at_the_edge_is_one_sided():
    widths = propagate(
        lambda v: {"ea": balance(shipped_fuel("NG_H"), v["o2"], 0).excess_air_pct}, {"o2": 0.1}, {"o2": 0.3}
    )
    assert widths["ea"] > 1


@pytest.mark.parametrize(
    ("accuracy", "reading", "width"),
    [(Accuracy(5, 0.05), 46, 5), (Accuracy(5, 0.05), 400, 20), (Accuracy(1, 0.003, adds=True), 100, 1.3)],
)
def test_stated_accuracy(accuracy, reading, width):
    assert accuracy.at(reading) == approx(width)
