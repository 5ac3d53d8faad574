"""Walks: on every kind each answer is a line that is read as what its button says, and a whole walk leaves nothing to show."""

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.errors import BadDocument
from havrin_core.facts.facts import Facts
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.kind_files import build_unit, kind_names
from havrin_core.machine.unit import Plate, Stage
from havrin_core.shorthand.reader import read_line
from havrin_core.tape.entries import Abnormal, Action, Condition, Proof, Reading
from havrin_core.walks.before import newest_of, said_on
from havrin_core.walks.documents import WALKS, shipped_stops, shipped_walk, stop_to_dict, walk_from_dict, walk_to_dict
from havrin_core.walks.model import Stop, Walk
from havrin_core.walks.progress import progress
from havrin_core.wording.chips import reading_chips
from havrin_core.wording.choices import part_choices
from havrin_core.wording.walks import stop_words
from tests.core.rows import BEGUN, furnace, judge, situation, tape

ONE, TWO = (Stage("only"),), (Stage("low"), Stage("high"))
UNITS = [build_unit("U", kind, Plate("NG_H", stages), 300) for kind in kind_names() for stages in (ONE, TWO)]
SHIPPED = [key for key in WALKS if shipped_walk(key) is not None]
# what a sound unit reads, by the first word of the line
NUMBERS = {
    "room": "1", "lockup": "7.4", "supply": "7", "mp": "3.5", "draft": "1.2", "ua": "3.1", "esp": ".4", "rise": "50",
    "input": "70", "wp": "15", "wrise": "20", "spill": "20", "ico": "0", "dco": "2", "o2": "7 co 20 t 340",
}  # fmt: skip


def words_of(walk, unit, entries=(), system="us"):
    rows = progress(shipped_walk(walk), unit, Facts(tuple(entries)))
    return [stop_words(row, unit, HouseRules(), system) for row in rows]


def filled(answer):
    """The whole line of an answer: where a number is typed behind it, a plausible one."""
    word = answer.line.split()[-1]
    return answer.line + NUMBERS.get(word, "20") if answer.begins else answer.line


def name(unit):
    return f"{unit.kind.key}-{len(unit.stage_keys)}"


@pytest.mark.parametrize("unit", UNITS, ids=name)
@pytest.mark.parametrize("walk", SHIPPED)
def test_every_answer_is_a_line_that_says_what_its_button_says(unit, walk):
    there = situation(unit)
    for state, stop in zip(progress(shipped_walk(walk), unit, Facts(())), words_of(walk, unit), strict=True):
        for answer in (*stop.answers, *filter(None, (stop.not_here,))):
            read = read_line(filled(answer), there)
            assert read.writable, (answer, read)
            assert not read.unread, (answer, read)
            assert all(fits(body, state.stop) for body in read.bodies), (answer, read.bodies)


def fits(body, stop):
    match body:
        case Condition():
            return body.part == stop.part
        case Action():
            return body.part == stop.part and body.verb in stop.did
        case Reading():
            return body.quantity in (*stop.read, *stop.may_read)
        case Abnormal():
            return body.found and body.device == stop.part
        case Proof():
            return body.what == stop.check or (stop.proved and body.device == stop.part)
    return False


def good_lines(walk, unit):
    """A walk on which everything is in order: each reading, then the first look or proof where nothing is read."""
    lines = []
    for state in progress(shipped_walk(walk), unit, Facts(())):
        stop = stop_words(state, unit, HouseRules(), "us")
        wanted = [a for a in stop.answers if a.begins and state.stop.read]
        lines += [filled(answer) for answer in wanted if answer.line.split()[-1] in NUMBERS]
        lines += [] if wanted else [filled(next(a for a in stop.answers if not a.begins))]
        if state.stop.key == "discharge_co":
            lines += [f"{stage} dco 2".removeprefix("only ") for stage in unit.stage_keys]
    return lines


@pytest.mark.parametrize("unit", UNITS, ids=name)
@pytest.mark.parametrize("walk", ["maintenance", "start_up"])
def test_a_whole_walk_shows_all_that_its_visit_asks_for(unit, walk):
    found = judge(*good_lines(walk, unit), unit=unit, reason=walk)
    lacking = {item.proof for item in found.missing} - {"plate_value"}  # these units have bare plates
    assert lacking == set()


@pytest.mark.parametrize("unit", UNITS, ids=name)
def test_a_walk_that_was_left_goes_on_where_it_was(unit):
    lines = good_lines("maintenance", unit)
    half = words_of("maintenance", unit, tape(*lines[: len(lines) // 2], unit=unit))
    whole = words_of("maintenance", unit, tape(*lines, unit=unit))
    assert not words_of("maintenance", unit)[0].answered
    assert half[0].answered
    assert not half[-1].answered
    assert [stop.key for stop in whole if not stop.answered] == []


def test_a_stop_shows_what_was_read_and_asks_again_after_the_work():
    def signal(*lines):
        return next(s for s in words_of("maintenance", furnace(), tape(*lines)) if s.key == "flame_signal")

    assert [(a.said, a.done) for a in signal("ua 1.2").answers if a.begins] == [("1.20 µA", True)]
    again = [a for a in signal("ua 1.2", "did clean flame rod").answers if a.begins]
    assert (again[1].line, again[1].done) == ("left ua ", False)
    assert len([a for a in signal("ua 1.2", "did clean flame rod", "left: ua 2.9").answers if a.begins]) == 1


def test_a_sample_is_asked_for_what_it_lacks():
    flue = next(s for s in words_of("maintenance", furnace(), tape("o2 7.4")) if s.key == "flue")
    assert (flue.answers[0].line, flue.answered) == ("co ", False)


def test_what_shuts_a_unit_down_is_read_back_before_it_is_written():
    answers = [a for unit in UNITS for walk in SHIPPED for stop in words_of(walk, unit) for a in stop.answers]
    assert {a.asks for a in answers if a.level == 4} == {True}
    assert {a.asks for a in answers if a.level < 4} == {False}


def test_a_part_that_is_not_there_is_said_so():
    belt = next(s for s in words_of("maintenance", furnace()) if s.key == "belt")
    assert belt.not_here.line == "found belt absent"
    gone = next(s for s in words_of("maintenance", furnace(), tape(belt.not_here.line)) if s.key == "belt")
    assert gone.answered
    rollout = next(s for s in words_of("maintenance", furnace()) if s.key == "rollout")
    assert rollout.not_here.asks  # a missing safety device is no small thing


def test_trials_and_words_said_of_other_parts_answer_nothing():
    rows = {s.key: s for s in words_of("maintenance", furnace(), tape("trial: ua 3", "found filter dirty"))}
    assert [rows[key].answered for key in ("flame_signal", "filter", "belt")] == [False, True, False]


def test_earlier_visits_are_told_with_their_day():
    older = said_on(Facts(tape("ua 3.4", "found filter dirty")), BEGUN.date().replace(year=2024))
    newer = said_on(Facts(tape("left: ua 2.9", "did change filter")), BEGUN.date().replace(year=2025))
    rows = progress(shipped_walk("maintenance"), furnace(), Facts(()))
    said = {
        row.stop.key: stop_words(row, furnace(), HouseRules(), "us", newest_of([newer, older])).before for row in rows
    }
    assert said["flame_signal"] == "2.90 µA on 14 January 2025"
    assert said["filter"] == "dirty on 14 January 2024 · changed on 14 January 2025"


# ── a firm's own ──────────────────────────────────────────────────────────────────────────────────────────────────────


OWN = walk_to_dict(shipped_walk("maintenance"), "furnace_80_maintenance", "furnace_80")


@given(st.lists(st.sampled_from(sorted(shipped_stops())), min_size=1, max_size=12, unique=True))
def test_a_walk_comes_back_as_it_was_kept(keys):
    walk = Walk("maintenance", "rooftop", "Ours", tuple(shipped_stops()[key] for key in keys))
    assert walk_from_dict(walk_to_dict(walk, "rooftop_maintenance", "rooftop")) == walk


@pytest.mark.parametrize(
    ("change", "blamed"),
    [
        ({"format": "other"}, "format"),
        ({"version": 2}, "format"),
        ({"name": " "}, "name"),
        ({"walk": "holiday"}, "walk"),
        ({"kind": None}, "kind"),
        ({"stops": []}, "stops"),
        ({"colour": 1}, "colour"),
        ({"stops": ["filter"]}, "stops[0]"),
        ({"stops": [{"key": "a", "part": "flux"}]}, "a"),
        ({"stops": [{"key": "a", "part": "belt"}]}, "a"),
        ({"stops": [{"key": "a", "part": "belt", "found": "ok"}]}, "a"),
        ({"stops": [{"key": "a", "part": "belt", "found": ["shiny"]}]}, "a"),
        ({"stops": [{"key": "a", "part": "belt", "read": ["mood"]}]}, "a"),
        ({"stops": [{"key": "a", "part": "belt", "proved": True}]}, "a"),
        ({"stops": [{"key": "a", "part": "belt", "check": "sniff"}]}, "a"),
        ({"stops": [{"key": "a", "part": "belt", "found": ["ok"]}] * 2}, "a"),
        ({"stops": [{"key": "a", "part": "belt", "found": ["ok"], "mood": 1}]}, "mood"),
    ],
)
def test_a_walk_that_is_none_is_refused_where_it_is_wrong(change, blamed):
    with pytest.raises(BadDocument) as refusal:
        walk_from_dict({**OWN, **change})
    assert refusal.value.value == blamed


def test_a_stop_of_a_part_that_the_unit_lacks_is_left_out():
    walk = Walk(
        "maintenance", "furnace_80", "Ours", (Stop("r", "relief", found=("ok",)), Stop("b", "belt", found=("ok",)))
    )
    assert [state.stop.key for state in progress(walk, furnace(), Facts(()))] == ["b"]
    assert stop_to_dict(walk.stops[1]) == {"key": "b", "part": "belt", "found": ["ok"]}


# ── parts to pick ─────────────────────────────────────────────────────────────────────────────────────────────────────


def test_the_usual_parts_come_first_and_frost_in_its_season():
    rows = part_choices(furnace(), ("inducer", "relief", "vent"), cold=True)
    assert [row.key for row in rows[:2]] == ["inducer", "vent"]  # a furnace has no relief valve
    assert [row.usual for row in rows[:3]] == [True, True, False]
    terminal = {
        cold: next(r for r in part_choices(furnace(), cold=cold) if r.key == "terminal") for cold in (True, False)
    }
    order = {cold: [choice.short for choice in row.found] for cold, row in terminal.items()}
    assert order[True].index("iced up") < order[False].index("iced up")
    assert sorted(order[True]) == sorted(order[False])


@pytest.mark.parametrize("unit", UNITS, ids=name)
def test_what_is_said_beside_a_finding_is_read_as_that(unit):
    there = situation(unit)
    for row in [row for row in part_choices(unit) if row.beside]:
        for words in itertools.product(*(beside.words for beside in row.beside)):
            bad = next(choice for choice in row.found if choice.level >= 3)
            (look,) = read_line(" ".join((bad.line, *words)), there).bodies
            assert look.place == words[0], (bad, words)
            if row.key == "exchanger":
                assert (look.size_m, look.method) == (size_of(words[1]), words[2].removeprefix("by ")), words


def size_of(said):
    return float(said.removesuffix(" mm")) / 1000


@pytest.mark.parametrize("typed", ["ua 2.4", "mp 3.5", "room 1", "o2 7 co 20 t 340", "draft .9", "supply 7", "rise 50"])
def test_a_chip_says_how_it_was_read_and_takes_it_back(typed):
    chips = reading_chips(read_line(typed, situation()), typed)
    assert [chip.on for chip in chips] == [False] * 7
    for chip in chips:
        read = read_line(chip.line, situation())
        assert read.writable, chip
        told = [body.place or body.quantity.endswith(("least_pa", "least_a")) for body in read.bodies]
        assert any(told) or read.phase == "trial", (chip, read)
        (again,) = [c for c in reading_chips(read, chip.line) if c.label == chip.label]
        assert (again.on, again.line) == (True, typed)


def test_chips_stand_beside_readings_only():
    assert reading_chips(read_line("found vent ok", situation()), "found vent ok") == []
