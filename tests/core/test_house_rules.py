"""House rules: schools, presets, limits, what each changes; remarks; temporary repairs; the ledger."""

from dataclasses import asdict

import pytest

from havrin_core.errors import BadDocument
from havrin_core.house.house_rules import LIMITS, PRESETS, HouseRules, house_rules_from_dict
from havrin_core.house.schools import QUESTIONS, SCHEMES, SCHOOLS
from havrin_core.wording.closing import remark_words
from havrin_core.wording.ledger import ledger_line, ledger_text
from havrin_core.wording.reasons import reason_words
from tests.core.rows import SOUND, codes, judge


def test_every_question_has_its_answers_and_every_answer_its_reason():
    assert set(QUESTIONS) == set(SCHOOLS)
    for question, answers in SCHOOLS.items():
        assert len(answers) >= 2
        assert next(iter(answers)) == getattr(HouseRules(), question)


@pytest.mark.parametrize("name", PRESETS)
def test_a_preset_is_a_set_of_rules_that_is_read_back_the_same(name):
    assert house_rules_from_dict(asdict(PRESETS[name])) == PRESETS[name]
    assert PRESETS[name].name == name


def test_every_scheme_names_every_level():
    assert set(SCHEMES) == set(SCHOOLS["scheme"])
    for scheme in SCHEMES:
        words = [HouseRules(scheme=scheme).words_for(level) for level in (1, 2, 3, 4)]
        assert len(set(words)) == 4


@pytest.mark.parametrize(
    "data",
    [
        {"worn_part": "never"},
        {"draft_margin_share": 3},
        {"draft_margin_share": "much"},
        {"co_air_free_ask_ppm": float("nan")},
        {"co_air_free_ask_ppm": True},
        {"co_air_free_ask_ppm": 500.0},
        {"tea": "black"},
        {"name": " "},
        {"name": 7},
        {"name": "n" * 61},
    ],
)
def test_a_rule_that_cannot_be_is_refused_by_its_name(data):
    with pytest.raises(BadDocument) as refused:
        house_rules_from_dict(data)
    assert refused.value.value == next(iter(data))


def test_every_limit_has_its_default_inside():
    for key, (_, _, least, most) in LIMITS.items():
        assert least <= getattr(HouseRules(), key) <= most


def level(*lines, **rules):
    return judge(*SOUND, *lines, rules=HouseRules(**rules)).level


def test_a_worn_part_holds_only_where_the_house_changes_it_at_once():
    assert (level("found white marks"), level("found white marks", worn_part="replace")) == (2, 3)
    assert level("found white marks", "did change igniter", "cycles 1", worn_part="replace") == 1


def test_a_temporary_repair_needs_a_date_and_a_house_that_allows_it():
    dated = "temporary hose clamped until 12 December"
    assert (level(dated), level("temporary hose clamped"), level(dated, temporary_repair="not_allowed")) == (2, 3, 3)
    assert level(dated, "lasting new hose", temporary_repair="not_allowed") == 1
    assert level("temporary wire taped", dated) == 3  # a dated repair does not cover the one without a date
    assert level("temporary wire taped", "lasting new wire", dated) == 2


def test_the_meter_is_clocked_after_the_screw_where_the_house_wants_it():
    lines = ("did turn manifold", "mp 3.5", "o2 7.4 co 22 t 342")
    assert "input_each_stage" not in {m.proof for m in judge(*SOUND, *lines).missing}
    first = judge(*SOUND, *lines, rules=HouseRules(setting_the_fire="meter_first"))
    assert "input_each_stage" in {m.proof for m in first.missing}


@pytest.mark.parametrize(
    ("lines", "rules", "said"),
    [
        (("did reset rollout",), {}, "before a code was read"),
        (("ua 2.9", "code 2 4", "did reset rollout"), {}, None),
        (("supply 7.1", "did reset rollout"), {"code_and_reset": "reset_first"}, None),
        (("did clean rod", "ua 2.9"), {"measure_first": "clean_at_once"}, "not read before the rod"),
        (("ua 1.1", "did clean rod"), {}, None),
        (("code 2 3", "did change pressure switch"), {}, "without the house’s test"),
        (("v 3 4 26", "did change pressure switch"), {}, None),
        (("v 3 4 26", "did change pressure switch"), {"switch_test": "both"}, "without the house’s test"),
        (("did clean rod",), {}, "not proven"),
    ],
)
def test_a_habit_left_aside_is_remarked_and_changes_no_standing(lines, rules, said):
    reason = "maintenance" if "rod" in lines[-1] or "rod" in lines[0] else "no_heat"
    found = judge(*lines, rules=HouseRules(**rules), reason=reason)
    text = " ".join(remark_words(remark) for remark in found.remarks)
    if said:
        assert said in text
    else:
        assert not text
    assert found.level == judge(*lines, rules=HouseRules(**rules), reason=reason).level


def test_the_rod_is_asked_for_at_maintenance_alone():
    assert "rod_not_cleaned" in {r.code for r in judge("ua 2.9").remarks}
    assert "rod_not_cleaned" not in {r.code for r in judge("ua 2.9", reason="recheck").remarks}
    assert not judge("ua 2.9", rules=HouseRules(flame_rod="when_low")).remarks


def test_the_ledger_keeps_everything_from_its_entry_to_its_put_back():
    found = judge("jump call", "pull igniter", "did open tap", "alter blower speed", "unjump call", "putback")
    rows = [(ledger_text(row), row.until is None, ledger_line(row)) for row in found.ledger]
    assert [open_ for _, open_, _ in rows] == [False, True, False, True]
    assert rows[1][0] == "A part is out: igniter."
    assert rows[3][2] == "restore blower"
    made_good = judge("pull igniter", "refit igniter")
    assert [row.until is None for row in made_good.ledger] == [False]


@pytest.mark.parametrize(
    ("line", "lifted"),
    [("open gas end", ("did cap gas line", "leak ok")), ("found lets by", ("did change valve", "leak ok"))],
)
def test_dangers_of_the_handbook_shut_it_down(line, lifted):
    assert judge(*SOUND, line).level == 4
    if lifted:
        assert not {r.code for r in judge(*SOUND, line, *lifted).reasons if r.level == 4}


def test_gas_that_was_off_asks_for_tightness_first():
    found = judge("did restore gas")
    assert "tightness" in {m.proof for m in found.missing}
    assert "tightness" not in {m.proof for m in judge("did restore gas", "tight 12 l 20 mbar 20 mbar 30 min").missing}
    assert "gas_leak_m3_s_out" not in codes(found)


def test_what_was_advised_or_refused_is_told_to_the_owner():
    found = judge(*SOUND, "advise a larger branch", "refused the branch: next year")
    assert found.level == 2
    assert [reason_words(r, "us").text for r in found.reasons] == [
        "Advised: a larger branch.",
        "Refused: the branch: next year.",
    ]
    assert found.next_step is None


@pytest.mark.parametrize(
    ("lines", "code", "missing"),
    [
        (("cause dirty rod",), None, False),
        (("cause not found: dropped out once",), "cause_not_found", False),
        ((), None, True),
        (("cause not found", "cause bird nest"), None, False),
    ],
)
def test_a_cause_not_found_is_told_and_never_clears_a_trip(lines, code, missing):
    found = judge(*SOUND, *lines, reason="no_heat")
    assert ("cause_not_found" in codes(found)) == (code is not None)
    assert any(m.proof == "cause_named" for m in found.missing) == missing
