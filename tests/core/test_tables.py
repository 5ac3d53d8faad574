"""The tables hang together: kinds, stations, words, actions, findings, proofs."""

from collections import Counter

import pytest

from havrin_core.errors import BadDocument, OutOfDomain, UnknownName
from havrin_core.house.house_rules import HouseRules, house_rules_from_dict
from havrin_core.house.schools import SCHOOLS
from havrin_core.machine.kind_files import build_unit, kind_names, plate_from_dict
from havrin_core.machine.unit import Plate, Stage
from havrin_core.rules.proofs import PROOFS
from havrin_core.shorthand.words import VERBS, measurand_words
from havrin_core.tape.visit import REASONS_FOR_VISIT
from havrin_core.vocabulary.catalogue import conditions, cured_with, parts, verbs, whole_phrases
from havrin_core.vocabulary.measurands import MEASURANDS, measurand
from havrin_core.wording.phrases import words as say

ONE = Plate("NG_H", (Stage("only"),))
TWO = Plate("NG_H", (Stage("low"), Stage("high")))
UNITS = [build_unit("U", kind, plate, 0) for kind in kind_names() for plate in (ONE, TWO)]


@pytest.mark.parametrize("unit", UNITS, ids=lambda u: f"{u.kind.key}-{len(u.stage_keys)}")
def test_a_kind_hangs_together(unit):
    keys = [station.key for station in unit.stations()]
    assert len(keys) == len(set(keys))
    assert {station.quantity for station in unit.stations() if station.quantity} <= {m.key for m in MEASURANDS}
    for device, feels in unit.kind.ties:
        assert device in keys
        assert feels in keys
    assert set(unit.kind.safety_devices) <= set(parts())
    for names in unit.kind.must_show.values():
        assert set(names) <= set(PROOFS)
    assert set(unit.kind.must_show) == {"every", *REASONS_FOR_VISIT}


@pytest.mark.parametrize("unit", UNITS, ids=lambda u: f"{u.kind.key}-{len(u.stage_keys)}")
def test_two_stages_have_a_manifold_each(unit):
    manifolds = [s.key for s in unit.stations() if s.quantity == "manifold_pa"]
    if unit.kind.key == "boiler_condensing":  # ratio-controlled: not set by manifold pressure
        assert manifolds == []
        return
    assert manifolds == (["manifold"] if len(unit.stage_keys) == 1 else ["manifold_low", "manifold_high"])


@pytest.mark.parametrize("key", parts())
def test_a_part_demands_known_proofs_at_a_known_station(key):
    part = parts()[key]
    assert {proof for asked in part.demands.values() for proof in asked} <= set(PROOFS)
    assert set(part.demands) | set(part.leaves) <= set(verbs())
    assert part.station in {s.key for unit in UNITS for s in unit.stations()} | {
        s.base for unit in UNITS for s in unit.stations()
    } | {"room", "", key}
    assert set(cured_with(key)) <= set(parts())


@pytest.mark.parametrize("key", verbs())
def test_a_verb_cures_known_conditions(key):
    assert set(verbs()[key].cures) - {"*"} <= set(conditions())


def test_a_whole_sentence_names_a_known_part_and_condition():
    for words, (part, like, _) in whole_phrases().items():
        assert part in parts(), words
        assert like in conditions(), words


@pytest.mark.parametrize(
    "words",
    [
        [w for m in MEASURANDS for w in m.words],
        [w for verb in verbs().values() for w in verb.words],
    ],
)
def test_no_word_means_two_things(words):
    assert [word for word, count in Counter(words).items() if count > 1] == []


def test_verbs_and_quantities_do_not_collide():
    assert set(VERBS) & set(measurand_words()) == set()


@pytest.mark.parametrize("what", MEASURANDS, ids=lambda m: m.key)
def test_a_quantity_has_a_range_and_a_word(what):
    assert what.least < what.most
    assert what.words
    assert measurand(what.key) is what


@pytest.mark.parametrize(
    ("call", "error", "code"),
    [
        (lambda: build_unit("U", "steam_engine", ONE, 0), UnknownName, "kind_unknown"),
        (lambda: build_unit("U", "furnace_80", ONE, 12_000), OutOfDomain, "altitude_range"),
        (lambda: build_unit("U", "furnace_80", Plate("coal", (Stage("only"),)), 0), BadDocument, "plate_fuel"),
        (lambda: build_unit("U", "furnace_80", Plate("NG_H", (Stage("high"),)), 0), BadDocument, "plate_stages"),
        (
            lambda: build_unit("U", "furnace_80", Plate("NG_H", (Stage("only"),), 300, 200), 0),
            BadDocument,
            "plate_order",
        ),
        (lambda: plate_from_dict({"fuel": "NG_H"}), BadDocument, "plate_form"),
        (lambda: plate_from_dict({"fuel": "NG_H", "stages": [{"size": 3}]}), BadDocument, "plate_form"),
        (lambda: plate_from_dict({"smell": 1}), BadDocument, "plate_field"),
        (lambda: measurand("colour"), UnknownName, "quantity_unknown"),
        (lambda: house_rules_from_dict({"colour": 1}), BadDocument, "rule_unknown"),
        (lambda: house_rules_from_dict({"manual_reset": "never"}), BadDocument, "rule_choice"),
    ],
)
def test_what_is_not_there_is_named(call, error, code):
    with pytest.raises(error) as caught:
        call()
    assert caught.value.code == code
    assert say(caught.value.said)


def test_each_school_says_its_reason_and_the_default_is_one():
    rules = HouseRules()
    for question, choices in SCHOOLS.items():
        assert getattr(rules, question) in choices
        assert all(say(reason).endswith(".") for reason in choices.values())
