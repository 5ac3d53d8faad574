"""Shorthand: what is understood, what is asked back, and that nothing breaks it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from havrin_core.machine.circuit.read import shipped_circuit
from havrin_core.shorthand.model import Situation
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.entries import Action, Check, Code, JumperIn, JumperOut, Look, Reading
from havrin_core.vocabulary.actions import DEEDS
from havrin_core.vocabulary.findings import FINDINGS
from tests.core.rows import _situation, furnace

HERE = Situation(
    ("low", "high"),
    "high",
    "found",
    "us",
    (("limit", "1", "2"), ("rollout", "2", "3")),
    shipped_circuit("furnace_condensing_two_stage"),
    {},
    air_temps_k=(294.26, 326.48),
)


def readings(text, situation=HERE):
    return [(b.quantity, b.value, b.stage) for b in read_line(text, situation).bodies if isinstance(b, Reading)]


def test_a_flue_sample_is_one_line():
    got = readings("o2 6.4 co 46 t 118")
    assert [q for q, _, _ in got] == ["o2_dry_pct", "co_ppm_dry", "flue_temp_k"]
    assert [v for _, v, _ in got] == approx([6.4, 46, 320.928], rel=1e-5)


@pytest.mark.parametrize(
    ("text", "quantity", "value", "stage"),
    [
        ("mp 3.2 hi", "manifold_pa", 797.08, "high"),
        ("lo mp 1 1/2", "manifold_pa", 373.63, "low"),
        ("draft .92", "draft_pa", 229.16, "high"),
        ("ua 2.4", "flame_current_a", 2.4e-6, "high"),
        ("mp 8.7 mbar", "manifold_pa", 870, "high"),
        ("o2=6,4", "o2_dry_pct", 6.4, "high"),
        ("stack 48C", "flue_temp_k", 321.15, "high"),
        ("room 1", "room_co_ppm", 1, None),
        ("rise", "temperature_rise_k", 32.22, "high"),
        ("ra 70", "return_air_temp_k", 294.26, None),
    ],
)
def test_one_reading(text, quantity, value, stage):
    assert readings(text) == [(quantity, approx(value, rel=1e-3), stage)]


@pytest.mark.parametrize(
    ("text", "station"), [("v 2 3 25.9", "rollout"), ("v limit 0.0", "limit"), ("v 3 2 25.9", "rollout")]
)
def test_volts_belong_to_a_device(text, station):
    (body,) = read_line(text, HERE).bodies
    assert isinstance(body, Reading)
    assert body.station == station


@pytest.mark.parametrize(
    ("text", "body"),
    [
        ("did clean rod", Action("clean_flame_rod")),
        ("did turn manifold down 2/3", Action("adjust_manifold", "down 2/3")),
        ("jump limit", JumperIn("limit")),
        ("found jumper limit", JumperIn("limit", found=True)),
        ("unjump call", JumperOut("call")),
        ("code 2 4", Code("2 4")),
        ("leak ok", Check("leak", True)),
        ("leak bad", Check("leak", False)),
        ("cycles 5", Check("cycles", True, 5)),
        ("found crack cell 3", Look("exchanger_breach", "cell 3")),
        ("vent ok", Look("vent_whole")),
        ("saw soot", Look("soot")),
    ],
)
def test_statements(text, body):
    assert read_line(text, HERE).bodies == (body,)


def test_phase_and_stage_are_said_back():
    line = read_line("mp 1.5 lo left", HERE)
    assert (line.phase, line.stage, line.echo[-1]) == ("left", "low", "low fire · as left")


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("o2 23", "20.946"),
        ("t -5 K", "absolute zero"),
        ("mp 121F", "temperature"),
        ("o2", "missing"),
        ("o2 6.4 46", "46"),
        ("co 1,200", "1200"),
        ("mp 300 psi", "cannot be"),
        ("did wash car", "no deed"),
        ("found unicorn", "note"),
        ("jump kettle", "Which device"),
        ("leak maybe", "leak ok"),
        ("cycles many", "How many"),
        ("v 77 9 24", "nodes"),
        ("v 24", "across what"),
        ("cause", "few words"),
        ("stricter 9 x", "Levels"),
        ("x" * 600, "characters"),
    ],
)
def test_what_cannot_be_is_answered_not_written(text, words):
    line = read_line(text, HERE)
    assert not line.writable
    assert words in " ".join(problem.text for problem in line.problems)


def test_unknown_words_get_the_nearest_meanings():
    (problem,) = read_line("maniflod 3.5", HERE).problems
    assert any("manifold" in meaning for meaning in problem.meanings)


def test_a_half_understood_line_is_not_half_written():
    line = read_line("o2 6.4 blorp 7", HERE)
    assert len(line.bodies) == 1
    assert not line.writable


def test_stage_words_on_a_single_stage_unit():
    line = read_line("mp 3.5 hi", Situation(("only",), "only"))
    assert "one stage" in line.problems[0].text


def test_rise_needs_supply_over_return():
    line = read_line("rise", Situation(("only",), "only", air_temps_k=(300, 290)))
    assert not line.writable
    assert "swapped" in line.problems[0].text


@pytest.mark.parametrize("finding", FINDINGS, ids=lambda f: f.key)
def test_every_finding_can_be_typed(finding):
    for words in finding.words:
        (body,) = read_line(f"found {words}", HERE).bodies
        assert isinstance(body, Look)
        assert body.finding == finding.key


@pytest.mark.parametrize("deed", DEEDS, ids=lambda d: d.key)
def test_every_deed_can_be_typed(deed):
    for words in deed.words:
        (body,) = read_line(f"did {words}", HERE).bodies
        assert isinstance(body, Action)
        assert body.action == deed.key


@given(st.text(max_size=80))
def test_no_text_breaks_the_reader(text):
    line = read_line(text, HERE)
    assert line.writable or not line.bodies or line.problems


@given(
    st.lists(
        st.sampled_from(
            [
                "o2",
                "co",
                "t",
                "6.4",
                "46",
                "v",
                "hi",
                "left",
                "mp",
                "1/2",
                "°F",
                "rise",
                "did",
                "jump",
                "limit",
                "2",
                "ppm",
                "found",
            ]
        ),
        max_size=9,
    )
)
def test_no_mix_of_words_breaks_the_reader(words):
    line = read_line(" ".join(words), HERE)
    for body in line.bodies:
        if isinstance(body, Reading) and body.stage:
            assert body.stage in HERE.stages


@pytest.mark.parametrize(
    "line", ["found rollout, paint scorched", "found symptoms: a headache", "found filter dirty; grey"]
)
def test_a_comma_after_a_finding_is_none_of_it(line):
    (body,) = read_line(line, _situation(furnace(), "found")).bodies
    assert body.finding in ("rollout", "symptoms", "filter_dirty")
    assert body.place in ("paint scorched", "a headache", "grey")
