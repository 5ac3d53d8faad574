"""Models, kinds of a firm's own, manual limits, code charts, values read off the plate."""

import copy

import pytest
from hypothesis import given
from hypothesis import strategies as st

from havrin_core.errors import CoreError
from havrin_core.facts.plate_values import numbers_wanted, plate_changes, plated
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.limits import band_for
from havrin_core.machine.circuit.codes import code_style, normal_pattern
from havrin_core.machine.circuit.read import circuit_from_dict, shipped_document
from havrin_core.machine.kind_check import check_kind
from havrin_core.machine.kind_files import Library, build_of_model, kind_document, kind_names
from havrin_core.machine.unit_model import merged_plate, model_from_dict
from havrin_core.rules.proofs import PROOFS
from havrin_core.search.visit_search import outlook_of
from havrin_core.vocabulary.measurands import MEASURANDS
from havrin_core.wording.missing import missing_starter
from havrin_core.wording.phrases import words as say
from havrin_core.wording.reasons import reason_words
from tests.core.rows import furnace, judge, tape

MODEL = {
    "format": "havrin-model",
    "version": 1,
    "key": "norvane_test_70",
    "maker": "Norvane",
    "name": "Test 70",
    "kind": "furnace_80",
    "plate": {
        "fuel": "NG_H",
        "stages": [{"key": "only", "input_w": 20515, "manifold_pa": 871.8}],
        "supply_min_pa": 1120,
        "supply_max_pa": 2600,
    },
    "manual": [
        {"quantity": "flame_current_a", "low": 1e-6, "page": "p. 12"},
        {"quantity": "manifold_pa", "low": 100, "high": 200},
    ],
    "codes": [
        {"pattern": "3 red", "meaning": "Draft", "state": "no_draft"},
        {"pattern": "1 red 2 amber", "meaning": "No flame", "state": "no_flame"},
        {"pattern": "7 red", "meaning": "Blower"},
    ],
}


def unit(own=None, **changes):
    return build_of_model("F-7", model_from_dict(MODEL | changes), own or {}, 1500)


def test_a_units_own_plate_goes_before_its_models():
    own = {"stages": [{"key": "only", "manifold_pa": 840.0}], "supply_max_pa": 2000.0}
    plate = unit(own).plate
    assert (plate.stages[0].manifold_pa, plate.stages[0].input_w) == (840.0, 20515)
    assert (plate.supply_min_pa, plate.supply_max_pa) == (1120, 2000.0)


@given(st.dictionaries(st.sampled_from(["rise_min_k", "supply_max_pa"]), st.none() | st.floats(1, 50)))
def test_nothing_read_on_the_unit_takes_nothing_of_the_model_away(own):
    merged = merged_plate(MODEL["plate"], own)
    for name, value in MODEL["plate"].items():
        assert merged[name] == (own[name] if own.get(name) is not None else value)


def test_plate_before_manual_before_default():
    rules = HouseRules()
    assert band_for(unit(), rules, "manifold_pa", "only").source == "manual"
    flame = band_for(unit(), rules, "flame_current_a", "only")
    assert (flame.source, flame.low, flame.note) == ("manual", 1e-6, "p. 12")
    supply = [{"quantity": "supply_running_pa", "low": 1300, "high": 2000}]
    bare = copy.deepcopy(MODEL["plate"]) | {"supply_min_pa": None}
    assert band_for(unit(plate=bare), rules, "supply_running_pa", None).source == "default"
    assert band_for(unit(plate=bare, manual=supply), rules, "supply_running_pa", None).source == "manual"


def test_a_limit_of_one_stage_goes_before_one_of_all():
    rows = [
        {"quantity": "o2_dry_pct", "low": 4, "high": 9},
        {"quantity": "o2_dry_pct", "low": 5, "high": 6, "stage": "only"},
    ]
    assert unit(manual=rows).manual_limit("o2_dry_pct", "only").low == 5
    assert unit(manual=rows).manual_limit("o2_dry_pct", "high").low == 4
    assert unit(manual=rows).manual_limit("co_ppm_dry", None) is None


def test_the_manuals_oxygen_judges_instead_of_the_usual_one():
    line = "o2 8.5 co 20 t 340 air 66"
    usual = judge(line, unit=furnace())
    assert not any(r.code.startswith("o2") for r in usual.reasons)
    strict = judge(line, unit=unit(manual=[{"quantity": "o2_dry_pct", "low": 4, "high": 6, "page": "p. 9"}]))
    reason = next(r for r in strict.reasons if r.code == "o2_dry_pct_out")
    assert (reason.level, reason_words(reason, "us").source) == (3, "manual (p. 9)")


def test_the_models_chart_speaks_for_the_control():
    mine = unit()
    assert mine.codes == {"3 red": "Draft", "1 red 2 amber": "No flame", "7 red": "Blower"}
    found = outlook_of(mine, HouseRules(), tape("code red 3", unit=mine))
    assert found.suspects[0].part in ("hose", "port", "pressure_switch", "vent", "inducer", "wheel")
    assert found.observations[0].outcome == "3 red"
    unheard = outlook_of(mine, HouseRules(), tape("code 2 red", unit=mine))
    assert unheard.conflicts  # no control shows what its own chart does not know


def test_several_stored_codes_newest_first():
    mine = unit()
    entries = tape("code 7 red, 3 red", unit=mine)
    assert [e.body.pattern for e in entries] == ["3 red", "7 red"]


@pytest.mark.parametrize(
    ("typed", "read"),
    [
        ("2 4", "2 4"),
        ("e13", "E13"),
        ("E 13", "e 13"),
        ("long short short", "L S S"),
        ("l s-s", "L S S"),
        ("r3 g1", "3 red 1 green"),
        ("3r", "3 red"),
        ("red 3 yellow", "3 red 1 amber"),
        ("2 red 1 amber", "2 red 1 amber"),
        ("normal", "normal"),
    ],
)
def test_codes_are_written_as_charts_write_them(typed, read):
    assert normal_pattern(typed) == read
    assert normal_pattern(read) == read


@pytest.mark.parametrize(
    ("patterns", "style"),
    [
        (["2 4", "normal"], "flashes"),
        (["L S", "L"], "beats"),
        (["3 red"], "colours"),
        (["E13", "00"], "digits"),
        (["01"], "digits"),
    ],
)
def test_how_codes_are_shown(patterns, style):
    assert code_style(dict.fromkeys(patterns, "x")) == style


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"format": "x"}, "model_format"),
        ({"version": 9}, "model_version"),
        ({"colour": 1}, "model_field"),
        ({"maker": " "}, "model_words"),
        ({"plate": 3}, "model_plate"),
        ({"manual": {}}, "model_rows"),
        ({"manual": [{"quantity": "o2_dry_pct"}]}, "manual_empty"),
        ({"manual": [{"quantity": "o2_dry_pct", "low": 9, "high": 4}]}, "manual_order"),
        ({"manual": [{"quantity": "mood", "low": 1}]}, "quantity_unknown"),
        ({"codes": [{"pattern": "2 4", "meaning": "a"}, {"pattern": "2 4", "meaning": "b"}]}, "code_twice"),
        ({"codes": [{"pattern": "2"}]}, "model_row"),
        ({"codes": ["2 4"]}, "model_row"),
        ({"kind": "steam_engine"}, "kind_unknown"),
        ({"circuit": "none_such"}, "circuit_unknown"),
        ({"plate": {"fuel": "NG_H", "stages": [{"key": "only"}], "colour": 1}}, "plate_field"),
    ],
)
def test_a_wrong_model_is_answered_by_its_element(change, code):
    with pytest.raises(CoreError) as refusal:
        unit(**change)
    assert refusal.value.code == code


@pytest.mark.parametrize("name", kind_names())
def test_shipped_kinds_pass_their_own_check(name):
    check_kind(kind_document(name), PROOFS)
    assert kind_document(name)["key"] == name


def kind(**changes):
    return copy.deepcopy(kind_document("furnace_80")) | {"key": "our_furnace"} | changes


def test_a_firms_own_kind_and_circuit_make_a_unit():
    document = kind(circuits={"only": "our_circuit"})
    document["paths"][0]["stations"].append({"key": "regulator_vent", "name": "Regulator vent"})
    circuit = circuit_from_dict(shipped_document("furnace_80_hot_surface") | {"key": "our_circuit"})
    library = Library({"our_furnace": document}, {"our_circuit": circuit})
    made = build_of_model("F-7", model_from_dict(MODEL | {"kind": "our_furnace", "codes": []}), {}, 0, library)
    assert "regulator_vent" in {s.key for s in made.stations()}
    assert made.circuit is circuit
    assert judge("room 0", unit=made).level == 3


def broken(edit):
    document = kind()
    edit(document)
    return document


@pytest.mark.parametrize(
    ("edit", "said"),
    [
        (lambda d: d.update(format="x"), "not a kind of unit"),
        (lambda d: d.update(version=2), "version 2"),
        (lambda d: d.pop("ties"), "lacks “ties”"),
        (lambda d: d.update(mood=1), "no field 'mood'"),
        (lambda d: d.update(condensing="yes"), "true or false"),
        (lambda d: d.update(o2_doubt_pct=[9, 4]), "least first"),
        (lambda d: d["ties"].append(["limit", "moon"]), "'moon'"),
        (lambda d: d["ties"].append("limit"), "two names"),
        (lambda d: d["paths"][0].update(direction="left"), "up or down"),
        (lambda d: d["paths"][0].update(key="steam"), "a path is one of"),
        (lambda d: d["paths"].append(d["paths"][0]), "each once"),
        (lambda d: d.update(paths=[]), "at least one path"),
        (lambda d: d["paths"][0]["stations"].append(d["paths"][1]["stations"][0]), "Two stations"),
        (lambda d: d["paths"][0]["stations"][0].update(quantity="mood"), "station supply_running"),
        (lambda d: d["paths"][0]["stations"][0].update(stages="some"), "stages is one of"),
        (lambda d: d["paths"][0]["stations"].append(7), "is not an object"),
        (lambda d: d["must_show"].pop("every"), "must_show lacks"),
        (lambda d: d["must_show"].update(party=[]), "no visit reason"),
        (lambda d: d["must_show"]["every"].append("mood"), "no proof"),
        (lambda d: d["paths"][-1]["stations"][0].update(between={"both": ["1", "2"]}), "two nodes"),
    ],
)
def test_a_wrong_kind_is_answered_by_its_element(edit, said):
    with pytest.raises(CoreError) as refusal:
        check_kind(broken(edit), PROOFS)
    assert said in say(refusal.value.said)


def test_a_plate_value_counts_at_once():
    bare = unit(manual=[])
    before = judge("ua 2.4", unit=bare)
    ask = next(m for m in before.missing if m.proof == "plate_value")
    assert missing_starter(ask, bare) == "plate ua "
    after = judge("ua 2.4", "plate ua 1.8", unit=bare)
    assert not any(m.proof == "plate_value" for m in after.missing)
    near = next(r for r in after.reasons if r.code == "flame_current_a_near")
    assert near.source == "plate"


def test_plate_values_are_what_the_unit_keeps():
    entries = tape("plate mp 3.4", "plate rise 30 to 60", "plate draft -.62", unit=unit())
    changes = plate_changes(entries)
    assert changes["stages"][0]["manifold_pa"] == pytest.approx(846.9, abs=0.2)
    assert changes["stages"][0]["switch_makes_pa"] > 0  # a stamp has no sign
    assert changes["rise_min_k"] == pytest.approx(16.67, abs=0.01)
    assert plated(unit(), entries).plate.rise_max_k == pytest.approx(33.33, abs=0.01)
    assert plated(unit(), ()) == unit() or plated(unit(), ()).plate == unit().plate


@pytest.mark.parametrize("what", [m for m in MEASURANDS if numbers_wanted(m.key)], ids=lambda m: m.key)
def test_every_plate_field_can_be_typed(what):
    numbers = {"supply_running_pa": "5 10", "temperature_rise_k": "30 60", "water_rise_k": "15 40"}
    number = numbers.get(what.key, "200" if what.dimension == "temperature" else "1")
    entries = tape(f"plate {what.words[0]} {number}", unit=unit())
    assert entries[0].body.quantity == what.key
    assert plate_changes(entries)
