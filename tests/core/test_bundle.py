"""Bundles: there and back, and what is refused."""

import copy
import json

import pytest
from jsonschema import Draft202012Validator

from havrin_core.command import assess_file, calc, main
from havrin_core.errors import BadDocument, CoreError
from havrin_core.standing.assess import assess
from havrin_core.tape.bundle import read_bundle
from havrin_core.tape.documents import entry_to_dict
from tests.core.rows import REFERENCE, SOUND, tape

SCHEMA = json.loads((REFERENCE.parent.parent / "docs" / "visit-bundle.schema.json").read_text(encoding="utf-8"))
BUNDLE = {
    "format": "havrin-visit",
    "version": 2,
    "unit_system": "us",
    "unit": {
        "name": "F-1 · Stage room",
        "kind": "furnace_80",
        "altitude_m": 1540,
        "plate": {
            "fuel": "NG_H",
            "stages": [{"key": "only", "input_w": 20515, "manifold_pa": 871.8, "switch_makes_pa": 149.5}],
            "rise_min_k": 19.44,
            "rise_max_k": 36.11,
            "flame_min_a": 8e-7,
        },
    },
    "house_rules": {"name": "strict"},
    "visit": {"reason": "maintenance", "entries": [entry_to_dict(e) for e in tape(*SOUND)]},
}


def changed(**places):
    document = copy.deepcopy(BUNDLE)
    for path, value in places.items():
        *parents, last = path.split("__")
        target = document
        for name in parents:
            target = target[int(name) if name.isdigit() else name]
        target[last] = value
    return document


def test_a_bundle_is_judged_as_its_visit():
    bundle = read_bundle(json.loads(json.dumps(BUNDLE)))
    assert bundle.visit.entries == tape(*SOUND)
    assert assess(bundle.unit, bundle.rules, bundle.visit).level == 1


def test_the_published_schema_takes_it():
    Draft202012Validator.check_schema(SCHEMA)
    Draft202012Validator(SCHEMA).validate(BUNDLE)
    assert list(Draft202012Validator(SCHEMA).iter_errors(changed(visit__entries__0__kind="spell")))


@pytest.mark.parametrize(
    ("document", "code"),
    [
        ([], "bundle_format"),
        (changed(format="other"), "bundle_format"),
        (changed(version=3), "bundle_newer"),
        (changed(version="1"), "bundle_version"),
        (changed(unit__kind="rocket"), "kind_unknown"),
        (changed(unit__plate__fuel="peat"), "plate_fuel"),
        (changed(unit__plate__colour="red"), "plate_field"),
        (changed(unit__plate__rise_min_k=99), "plate_order"),
        (changed(unit__altitude_m=20000), "altitude_range"),
        (changed(house_rules={"co_criterion": "guess"}), "rule_choice"),
        (changed(visit__reason="party"), "reason_unknown"),
        (changed(visit__entries__0__kind="spell"), "entry_kind_unknown"),
        (changed(visit__entries__0__at="2026-01-14T09:00:00"), "entry_time"),
        (changed(visit__entries__0__at="yesterday"), "entry_time"),
        (changed(visit__entries__0__phase="later"), "entry_phase"),
        (changed(visit__entries__0__data__value="many"), "entry_number"),
        (changed(visit__entries__0__data__value=-400), "entry_number"),
        (changed(visit__entries__0__data__colour="red"), "entry_field"),
        (changed(visit__entries__2__data__stage="high"), "entry_stage"),
    ],
)
def test_what_is_wrong_is_named(document, code):
    with pytest.raises(CoreError) as caught:
        read_bundle(document)
    assert caught.value.code == code


def test_a_newer_version_says_to_update():
    with pytest.raises(BadDocument, match="bundle_has_version"):
        read_bundle(changed(version=7))


def test_assess_from_the_command_line(tmp_path, capsys):
    file = tmp_path / "visit.json"
    file.write_text(json.dumps(BUNDLE))
    assert main(lambda: assess_file(str(file))) == 0
    assert json.loads(capsys.readouterr().out)["title"] == "Leave running"
    file.write_text("{")
    assert main(lambda: assess_file(str(file))) == 2


def test_calc_from_the_command_line(tmp_path):
    source, target = tmp_path / "in.csv", tmp_path / "out.csv"
    header = "row_id,fuel,o2_dry_pct,co_dry_ppm,flue_temp_c,air_temp_c,air_rh_pct,baro_kpa\n"
    source.write_text(
        header
        + "a,NG_H,5,0,150,20,0,101.325\nb,peat,5,0,150,20,0,101.325\nc,NG_H,x,0,150,20,0,101.325\nd,NG_H,23,0,150,20,0,101.325\ne,NG_H\n"
    )
    assert main(lambda: calc("combustion", str(source), str(target))) == 1
    lines = target.read_text().splitlines()
    assert len(lines) == 6
    assert lines[1].endswith(",93.42812,84.330669,") or "93.42812" in lines[1]
    assert "peat" in lines[2]
    assert "o2_dry_pct is “x”" in lines[3]
    assert "fresh air" in lines[4]
    assert "empty" in lines[5]
    assert main(lambda: calc("combustion", str(tmp_path / "none.csv"), str(target))) == 2
    source.write_text("fuel\nNG_H\n")
    assert main(lambda: calc("combustion", str(source), str(target))) == 2
