"""Shorthand: what is understood, what is asked back, and that nothing breaks it."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pytest import approx

from havrin_core.machine.circuit.read import shipped_circuit
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.bundle import unit_from_dict
from havrin_core.tape.entries import Abnormal, Action, Code, Condition, Note, Proof, Reading
from havrin_core.wording.entries import line_echo
from havrin_core.wording.phrases import words as say
from tests.core.rows import furnace, situation
from tests.core.trade import DANGERS, EVERY, SOUND_TALK, sound_lines, unit_of

HERE = replace(
    situation(furnace(stages=2, condensing=True), air_temps_k=lambda: (294.26, 326.48)),
    nodes=(("limit", "1", "2"), ("rollout", "2", "3")),
    circuit=shipped_circuit("furnace_condensing_two_stage"),
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
        ("did clean rod", Action("clean", "flame_rod")),
        ("cleaned the rod", Action("clean", "flame_rod")),
        ("jump limit", Abnormal("bridged", "limit", True)),
        ("found jumper limit", Abnormal("bridged", "limit", True, found=True)),
        ("limit bypassed", Abnormal("bridged", "limit", True, found=True)),
        ("unjump call", Abnormal("bridged", "call", False)),
        ("code 2 4", Code("2 4")),
        ("leak ok", Proof("leak", True)),
        ("leak bad", Proof("leak", False)),
        ("cycles 5", Proof("cycles", True, 5)),
        ("found crack cell 3", Condition("exchanger", "cracked", "cell 3")),
        ("exchanger not cracked", Condition("exchanger", "cracked", absent=True)),
        ("vent ok", Condition("vent", "ok")),
        ("saw soot", Condition("exchanger", "sooted")),
        ("note anything at all", Note("anything at all")),
    ],
)
def test_statements(text, body):
    assert read_line(text, HERE).bodies == (body,)


def test_phase_and_stage_are_said_back():
    line = read_line("mp 1.5 lo left", HERE)
    assert (line.phase, line.stage, line_echo(line, HERE)[-1]) == ("left", "low", "low fire · as left")


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("o2 23", "20.946"),
        ("t -5 K", "absolute zero"),
        ("mp 121F", "temperature"),
        ("o2 6.4 46", "46"),
        ("co 1,200", "1200"),
        ("mp 300 psi", "cannot be"),
        ("did wash moon", "what was done"),
        ("jump kettle", "Which device"),
        ("leak maybe", "leak ok"),
        ("cycles many", "How many"),
        ("v 77 9 24", "nodes"),
        ("v 24", "across what"),
        ("stricter 9 x", "Levels"),
        ("x" * 600, "characters"),
    ],
)
def test_what_cannot_be_is_answered_not_written(text, words):
    line = read_line(text, HERE)
    assert not line.writable
    assert words in " ".join(say(problem.text) for problem in line.problems)


def test_unknown_words_get_the_nearest_meanings():
    (ask,) = read_line("mannifloud 3.5", HERE).asks
    assert "manifold 3.5" in ask.choices


def test_a_half_understood_line_is_not_half_written():
    line = read_line("o2 6.4 blorp 7", HERE)
    assert len(line.bodies) == 1
    assert not line.writable


def test_stage_words_on_a_single_stage_unit():
    line = read_line("mp 3.5 hi", situation())
    assert "one stage" in say(line.problems[0].text)


def test_rise_needs_supply_over_return():
    line = read_line("rise", situation(air_temps_k=lambda: (300, 290)))
    assert not line.writable
    assert "swapped" in say(line.problems[0].text)


@given(st.text(max_size=80))
def test_no_text_breaks_the_reader(text):
    line = read_line(text, HERE)
    assert line.writable or not line.bodies or line.problems or line.asks or line.unread
    assert line.bodies or line.problems or line.asks or line.unread or not text.strip()


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


KNOWN = sorted(
    {line for row in DANGERS for line in row.lines}
    | {line for kind in EVERY for line in sound_lines(kind)}
    | {line for _, line in SOUND_TALK}
)


@settings(max_examples=200)
@given(
    st.sampled_from([part for line in KNOWN for part in line.split(" | ")]),
    st.sampled_from(["blorp", "zzyx", "qwop-7"]),
    st.integers(0, 6),
)
def test_every_word_is_used_or_returned(line, stranger, at):
    """A word that nobody knows is never dropped: it holds the line, is asked about, or stands in the entry's own words."""
    words = line.split()
    words.insert(min(at, len(words)), stranger)
    read = read_line(" ".join(words), HERE)
    kept = stranger in repr(read.bodies)
    returned = any(stranger in said for said in read.unread) or bool(read.problems)
    assert kept or returned or any(stranger in ask.question for ask in read.asks), read


@pytest.mark.parametrize("line", KNOWN)
def test_no_choice_leads_from_an_unread_line_to_a_good(line):
    for part in line.split(" | "):
        read = read_line(f"{part} blorp", HERE)
        for ask in read.asks:
            for choice in ask.choices:
                good = [b for b in read_line(choice, HERE).bodies if isinstance(b, Condition) and b.condition == "ok"]
                assert not good or "ok" in part.split(), (part, choice)


@given(st.text(min_size=1, max_size=60))
def test_a_note_is_kept_word_for_word(text):
    said = " ".join(text.split())
    read = read_line(f"note {said}", HERE)
    if said and read.writable and all(isinstance(body, Note) for body in read.bodies):
        assert " ".join(body.text for body in read.bodies) == said


@pytest.mark.parametrize("line", ["v high limit 0.1", "v airflow high 24.9"])
def test_a_stages_word_inside_a_devices_name_is_no_stage(line):
    unit = unit_from_dict(unit_of("make_up_air"))
    read = read_line(line, situation(unit))
    assert (read.problems, read.unread) == ((), ())
    assert read.bodies[0].station == "_".join(line.split()[1:3])
