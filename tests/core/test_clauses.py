"""Clauses as people say them: what was found, done, bypassed, advised, planned or denied; in any order, and never with a word lost."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.shorthand.model import situation_of
from havrin_core.shorthand.other_words import rules, spoken_line
from havrin_core.shorthand.reader import read_line
from havrin_core.shorthand.senses import words_of_sort
from havrin_core.tape.bundle import unit_from_dict
from havrin_core.tape.entries import Abnormal, Action, Condition, Proof, Reading, Said
from havrin_core.vocabulary.catalogue import GOOD, conditions, parts, verbs, verdict_of
from havrin_core.vocabulary.forms import doing, done, not_done, third_person
from tests.core.trade import unit_of

FURNACE = situation_of(unit_from_dict(unit_of("furnace_80")))
CONDENSING = situation_of(unit_from_dict(unit_of("furnace_condensing")))
BOILER = situation_of(unit_from_dict(unit_of("boiler_atmospheric")))


def bodies(text, situation=FURNACE):
    line = read_line(text, situation)
    assert line.writable, (text, line.unread, line.problems, line.asks)
    return line.bodies


def look(text, situation=FURNACE):
    (body,) = bodies(text, situation)
    assert isinstance(body, Condition)
    return body.part, body.condition, body.absent


@pytest.mark.parametrize(
    ("text", "part", "like", "absent"),
    [
        ("flame sensor dirty", "flame_rod", "dirty", False),
        ("dirty flame sensor", "flame_rod", "dirty", False),
        ("soot in the heat exchanger", "exchanger", "sooted", False),
        ("inducer won't spin", "inducer", "dead", False),
        ("blower isn't coming on", "blower", "dead", False),
        ("pressure switch won't close", "pressure_switch", "stuck_open", False),
        ("gas valve does not shut off", "gas_valve", "stuck_open", False),
        ("low gas pressure", "gas_supply", "weak", False),
        ("thermostat out of level", "thermostat", "mis_set", False),
        ("no cracks in the heat exchanger", "exchanger", "cracked", True),
        ("no sign of rust", "burner", "rusted", True),
        ("rollout never tripped", "rollout", "tripped", True),
        ("no water in the hose", "hose", "wet", True),
        ("no filter", "filter", "missing", False),
        ("inducer runs quiet", "inducer", "ok", False),
        ("nothing wrong with the blower", "blower", "ok", False),
    ],
)
def test_how_something_is_is_read_in_any_order_and_form(text, part, like, absent):
    assert look(text) == (part, like, absent)


def test_of_a_safety_device_the_graver_meaning_counts():
    assert look("low water cutoff does not work", BOILER)[1] == "does_not_act"
    assert look("blower does not work")[1] == "dead"


def test_each_condition_has_its_own_part():
    assert [(b.part, b.condition) for b in bodies("hose ok port plugged")] == [("hose", "ok"), ("port", "plugged")]
    assert [(b.part, b.condition) for b in bodies("burners rusty and dirty")] == [
        ("burner", "rusted"),
        ("burner", "dirty"),
    ]


def test_a_part_in_a_place_is_not_what_is_spoken_of():
    (body,) = bodies("loose wire at gas valve")
    assert (body.part, body.condition, body.place) == ("wiring", "loose", "at gas valve")


def test_which_cell_is_kept():
    (body,) = bodies("2 inch crack in cell 3 by mirror")
    assert (body.place, body.method, round(body.size_m, 4)) == ("in cell 3", "mirror", 0.0508)


@pytest.mark.parametrize(
    ("text", "verb", "part"),
    [
        ("cleaned the flame sensor", "clean", "flame_rod"),
        ("flame sensor cleaned", "clean", "flame_rod"),
        ("put the panels back on", "refit", "panel"),
        ("turned the gas on", "open", "gas_supply"),
        ("took nest out of flue", "clear", "vent"),
        ("replaced blown fuse on board", "change", "fuse"),
        ("adjusted the gas valve", "adjust", "gas_valve"),
        ("converted to lp", "convert", "conversion"),
        ("turned power off and on", "power_cycle", ""),
    ],
)
def test_what_was_done_is_an_action(text, verb, part):
    (body,) = bodies(text)
    assert (type(body), body.verb, body.part) == (Action, verb, part)


def test_several_verbs_and_several_parts_are_each_an_action():
    assert [(b.verb, b.part) for b in bodies("cleaned and adjusted burners")] == [
        ("clean", "burner"),
        ("adjust", "burner"),
    ]
    assert [(b.verb, b.part) for b in bodies("new igniter and flame sensor")] == [
        ("change", "igniter"),
        ("change", "flame_rod"),
    ]


@pytest.mark.parametrize(
    "text",
    [
        "didn't clean burners",
        "did not replace inducer",
        "could not clean burners",
        "filter not changed",
        "will replace next visit",
        "customer wants new thermostat",
        "going to clean burners next time",
        "want to change the board",
    ],
)
def test_what_was_not_done_is_no_action(text):
    line = read_line(text, FURNACE)
    assert not line.writable
    assert line.offers_note


@pytest.mark.parametrize(
    "text", ["needs a new inducer", "need to replace board", "should replace igniter", "need new filter"]
)
def test_what_should_be_done_is_advice(text):
    assert [(type(body), body.what) for body in bodies(text)] == [(Said, "advise")]


@pytest.mark.parametrize(
    ("text", "device", "is_in", "found"),
    [
        ("jumped limit for test", "limit", True, False),
        ("limit jumped out by owner", "limit", True, True),
        ("somebody jumped the limit", "limit", True, True),
        ("took the jumper off the rollout", "rollout", False, False),
        ("pressure switch wired around", "pressure_switch", True, True),
        ("holding the door switch in", "door_switch", True, False),
        ("unplugged blower", "blower", True, False),
    ],
)
def test_what_is_bypassed_says_who_did_it(text, device, is_in, found):
    (body,) = bodies(text)
    assert isinstance(body, Abnormal)
    assert (body.device, body.is_in, body.found) == (device, is_in, found)


def test_found_done_and_read_stand_in_one_line():
    line = read_line("co 220 found, cleaned burners, co 18 left", FURNACE)
    assert [type(body) for body in line.bodies] == [Reading, Action, Reading]
    assert line.phase_of_each == ("found", "found", "left")
    assert [b.value for b in bodies("port plugged, cleared it, 0.9") if isinstance(b, Reading)] == [
        pytest.approx(224.18, rel=1e-4)
    ]


def test_a_good_that_the_same_line_takes_back_is_not_written_unless_work_lies_between():
    assert [b.condition for b in bodies("blower runs but noisy")] == ["noisy"]
    kinds = [getattr(b, "condition", getattr(b, "verb", "")) for b in bodies("hose cracked, replaced hose, hose ok")]
    assert kinds == ["cracked", "change", "ok"]


def test_a_slip_in_a_name_is_mended_with_a_doubt_and_one_in_a_verdict_is_asked():
    line = read_line("oxgen 7.0", FURNACE)
    assert [body.quantity for body in line.bodies] == ["o2_dry_pct"]
    assert line.doubts
    assert not read_line("inducer winding 8 ohms", FURNACE).writable
    assert not read_line("sequence ok", FURNACE).writable


@pytest.mark.parametrize("rule", rules(), ids=lambda rule: rule.name)
def test_every_rule_has_examples_that_hold(rule):
    assert rule.examples
    for said, bar in rule.examples.items():
        assert spoken_line(said) == bar


def test_free_words_of_a_rule_do_not_reach_over_a_comma():
    assert [type(body) for body in bodies("inducer seized, new inducer ordered")] == [Condition, Said]


@given(
    st.sampled_from(sorted(words_of_sort("modals"))),
    st.sampled_from(["clean", "replace", "change", "adjust", "tighten"]),
)
def test_no_denied_verb_is_ever_written_as_done(modal, verb):
    line = read_line(f"{modal} {verb} burners", FURNACE)
    assert not (line.writable and any(isinstance(body, Action) for body in line.bodies))


_HERE = sorted(FURNACE.parts)


@given(st.sampled_from(_HERE), st.sampled_from(sorted(conditions())), st.sampled_from(["zorble", "glimmer", "quaxed"]))
def test_behind_a_good_finding_no_strange_word_is_lost(part, like, stranger):
    text = f"{parts()[part].words[0]} {conditions()[like].words[0]} {stranger}"
    line = read_line(text, FURNACE)
    goods = [
        b for b in line.bodies if isinstance(b, Condition) and verdict_of(b.part, b.condition) == GOOD and not b.absent
    ]
    assert not (line.writable and goods), text


@given(st.sampled_from(_HERE), st.sampled_from(sorted(verbs())))
def test_a_passed_proof_never_comes_of_work_alone(part, verb):
    words = verbs()[verb].words
    for said in words[:3]:
        line = read_line(f"{said} {parts()[part].words[0]}", FURNACE)
        assert not any(isinstance(body, Proof) and body.passed for body in line.bodies), said


@pytest.mark.parametrize(
    ("verb", "forms"),
    [
        ("run", ("runs", "running", "ran")),
        ("come on", ("comes on", "coming on", "came on")),
        ("close", ("closes", "closing", "closed")),
        ("trip", ("trips", "tripping", "tripped")),
        ("energize", ("energizes", "energizing", "energized")),
        ("carry over", ("carries over", "carrying over", "carried over")),
    ],
)
def test_verbs_are_bent_as_people_say_them(verb, forms):
    assert (third_person(verb), doing(verb), done(verb)) == forms


def test_what_does_not_happen_is_said_in_many_ways():
    said = set(not_done("start"))
    assert {"won't start", "wont start", "not starting", "never started", "fails to start", "stopped starting"} <= said


@pytest.mark.parametrize(
    "text",
    [
        "used to leak at union",
        "gas smell gone",
        "crack is only surface rust",
        "port almost plugged",
        "igniter fine until it got hot",
        "door switch works if you push it",
        "is the vent ok",
        "vent should be ok",
        "think vent is ok",
        "filter ok for now",
        "burners ok except for rust",
        "screws missing in flue",
        "spillage test done",
        "yellow to c 26",
        "gas pressure good",
        "rod to ground ol",
    ],
)
def test_what_may_be_read_as_its_contrary_is_asked(text):
    line = read_line(text, FURNACE)
    assert not line.writable, line.bodies
    assert line.offers_note


@pytest.mark.parametrize(
    ("text", "part", "like"),
    [
        ("belt ok but cracked", "belt", "cracked"),
        ("rollout tripped, crack found", "exchanger", "cracked"),
        ("vent joint loose and cracked", "vent_joint", "cracked"),
    ],
)
def test_a_bare_adjective_goes_on_about_the_part_spoken_of_and_a_noun_does_not(text, part, like):
    rooftop = situation_of(unit_from_dict(unit_of("rooftop")))
    assert (part, like) in [(b.part, b.condition) for b in bodies(text, rooftop) if isinstance(b, Condition)]


def test_what_comes_out_of_a_part_is_said_of_the_part():
    assert look("water dripping from relief", BOILER)[:2] == ("relief", "dripping")
    assert look("leak at gas valve")[:2] == ("gas_valve", "leaking")


@pytest.mark.parametrize(
    ("line", "size_m", "method", "seen"),
    [
        ("hx crack cell 2 1/2 in by borescope", 0.0127, "borescope", None),
        ('hx crack cell 2 1/2" long', 0.0127, "", None),
        ("exchanger cracked at cell 2 15 mm", 0.015, "", None),
        ("exchanger sooted at cell 3 mirror", None, "mirror", None),
        ("exchanger ok 3/4 borescope", None, "borescope", 3),
        ("exchanger ok 3 of 4 by mirror", None, "mirror", 3),
    ],
)
def test_a_size_is_no_share_of_what_was_seen(line, size_m, method, seen):
    (seen_part,) = bodies(line)
    assert (seen_part.size_m and round(seen_part.size_m, 4), seen_part.method, seen_part.seen) == (size_m, method, seen)
