"""The vocabulary: every word that begins something, and the nearest meanings of one that does not."""

import difflib
from collections.abc import Mapping
from functools import lru_cache

from havrin_core.phrases import Saying, phrase
from havrin_core.vocabulary.index import condition_index, part_index, phrase_index
from havrin_core.vocabulary.measurands import MEASURANDS, Measurand

STAGE_WORDS = {"hi": "high", "high": "high", "hf": "high", "lo": "low", "low": "low", "lf": "low"}
PHASE_WORDS = {"found": "found", "asfound": "found", "left": "left", "asleft": "left", "trial": "trial"}
VERBS = {
    "did": phrase("something_done_did_clean_rod"),
    "found": phrase("something_seen_found_soot"),
    "saw": phrase("something_seen_saw_rust_flakes"),
    "jump": phrase("jumper_jump_call"),
    "unjump": phrase("jumper_out_unjump_call"),
    "hold": phrase("switch_damper_held_taped_hold"),
    "release": phrase("released_again_release_door_switch"),
    "lift": phrase("lead_lifted_lift_rod_lead"),
    "land": phrase("lead_back_land_rod_lead"),
    "tee": phrase("tee_hose_tee_pressure_switch"),
    "untee": phrase("tee_out_again_untee_pressure"),
    "tap": phrase("gas_tap_opened_tap_manifold"),
    "plug": phrase("tap_plugged_plug_manifold"),
    "pull": phrase("part_taken_out_pull_igniter"),
    "refit": phrase("part_back_refit_igniter"),
    "alter": phrase("setting_changed_test_alter_blower"),
    "restore": phrase("setting_back_restore_blower_speed"),
    "temporary": phrase("temporary_repair_temporary_hose_clamped"),
    "lasting": phrase("lasting_repair_its_place_lasting"),
    "part": phrase("part_order_part_inducer"),
    "approve": phrase("who_must_say_yes_which"),
    "approved": phrase("who_said_yes_approved_owner"),
    "declined": phrase("who_said_no_declined_tenant"),
    "arrives": phrase("when_part_here_arrives_inducer"),
    "building": phrase("how_long_keeps_its_heat"),
    "vulnerable": phrase("who_there_cold_would_harm"),
    "tempheat": phrase("heat_time_being_tempheat_two"),
    "drained": phrase("what_drained_drained_wing_north"),
    "again": phrase("next_visit_again_friday_fit"),
    "plate": phrase("value_off_data_plate_plate"),
    "clock": phrase("meter_clocked_clock_2_ft3"),
    "tight": phrase("closed_line_tight_12_l"),
    "va": phrase("transformer_under_load_va_24"),
    "belt": phrase("belt_deflection_span_belt_9"),
    "turned": phrase("screw_turned_line"),
    "glycol": phrase("glycol_line"),
    "pipe": phrase("pipe_line"),
    "ventrun": phrase("vent_its_elbows_ventrun_30"),
    "orifice": phrase("orifices_fitted_orifice_4_43"),
    "cap": phrase("capacitor_read_rated_cap_37"),
    "mains": phrase("line_voltage_under_load_mains"),
    "phases": phrase("three_phases_volts_amps_phases"),
    "code": phrase("fault_code_code_2_4"),
    "leak": phrase("leak_check_leak_ok_leak"),
    "cycles": phrase("full_cycles_watched_cycles_5"),
    "proved": phrase("safety_device_acts_proved_limit"),
    "fails": phrase("safety_device_does_not_act"),
    "cause": phrase("cause_named_cause_blocked_port"),
    "advise": phrase("advice_given_advise_new_igniter"),
    "refused": phrase("advice_refused_their_words"),
    "cannot": phrase("cannot_put_right_now_cannot"),
    "shut": phrase("shut_down_shut_down_gas"),
    "told": phrase("who_told_told_manager"),
    "untag": phrase("tag_off_back_service_untag"),
    "stricter": phrase("stricter_standing_stricter_3"),
    "override": phrase("milder_standing_supervisors_only_override"),
    "putback": phrase("everything_put_back_putback"),
    "stops": phrase("where_sequence_stops_stops_igniter"),
    "look": phrase("part_looked_look_hose_ok"),
    "ohms": phrase("parts_ohms_power_off_ohms"),
    "swap": phrase("known_good_part_tried_swap"),
    "try": phrase("called_control_moment_try_thermostat"),
    "watch": phrase("contact_recorded_while_runs_watch"),
    "leaves": phrase("how_left_leaves_running_leaves"),
    "phoned": phrase("telephone_call_phoned_tenant_runs"),
    "complaint": phrase("what_customer_says_complaint_no"),
    "disable": phrase("made_unable_fire_purpose_disable"),
    "power": phrase("power_off_power_off"),
    "side": phrase("seen_another_system_owner_side"),
    "skip": phrase("offered_step_passed_over_skip"),
    "note": phrase("words_only_note_note_owner"),
}


@lru_cache(maxsize=1)
def measurand_words() -> dict[str, Measurand]:
    """Return each word or phrase that names a quantity."""
    return {word: m for m in MEASURANDS for word in m.words}


def longest_phrase(words: list[str], phrases: dict[str, str]) -> tuple[str, int] | None:
    """Return (what it names, words used) for the longest phrase that ``words`` begin with; a comma after it does not count."""
    for count in range(min(4, len(words)), 0, -1):
        name = phrases.get(" ".join(words[:count]).lower().rstrip(",;:"))
        if name:
            return name, count
    return None


_MOST_LONGER = 3  # letters by which a near word may be longer or shorter


def nearest(piece: str, among: Mapping[str, Saying] | None = None) -> tuple[tuple[str, Saying], ...]:
    """Return up to three words near ``piece``, each with its meaning; "" where the word says it itself."""
    meanings = among or _all_meanings()
    low = piece.lower()
    alike = meanings if among else [w for w in _by_letter().get(low[:1], ()) if abs(len(w) - len(low)) <= _MOST_LONGER]
    close = difflib.get_close_matches(low, alike, n=3, cutoff=0.5)
    return tuple((word, meanings[word] if meanings[word] != word else "") for word in close)


def nearest_parts(text: str, verb: str) -> tuple[tuple[str, Saying], ...]:
    """Return up to three lines of ``verb`` with a part whose name is near a word of ``text``."""
    words = part_index().words()
    close = [near for word in text.lower().split() for near in difflib.get_close_matches(word, words, n=1, cutoff=0.7)]
    return tuple((f"{verb} {near}", "") for near in dict.fromkeys(close))[:3]


@lru_cache(maxsize=1)
def _by_letter() -> Mapping[str, tuple[str, ...]]:
    found: dict[str, list[str]] = {}
    for word in _all_meanings():
        found.setdefault(word[:1], []).append(word)
    return {letter: tuple(words) for letter, words in found.items()}


@lru_cache(maxsize=1)
def _all_meanings() -> dict[str, Saying]:
    meanings: dict[str, Saying] = {word: m.name for word, m in measurand_words().items()}
    meanings |= {word: word for index in (part_index(), condition_index(), phrase_index()) for word in index.words()}
    return meanings | VERBS
