"""The schools of practice: each question on which practitioners differ, its answers, and the reason of each."""

from collections.abc import Mapping

from havrin_core.phrases import Saying, phrase

QUESTIONS: Mapping[str, Saying] = {
    "measure_first": phrase("before_correcting_anything"),
    "code_and_reset": phrase("code_reset"),
    "switch_test": phrase("testing_switch"),
    "jumpers": phrase("jumper_diagnosis"),
    "live_work": phrase("live_work"),
    "inducer_switch": phrase("pressure_switch_when_inducer_changed"),
    "replacement_switch": phrase("replacement_switch"),
    "flame_rod": phrase("flame_rod"),
    "setting_the_fire": phrase("setting_fire"),
    "co_criterion": phrase("co_criterion"),
    "efficiency_shown": "Efficiency",
    "exchanger_suspected": phrase("exchanger_suspected_no_breach_seen"),
    "manual_reset": phrase("manual_reset_trip"),
    "worn_part": phrase("worn_part_still_working"),
    "temporary_repair": phrase("temporary_repair"),
    "altitude_derate": phrase("rated_input_altitude"),
    "region": phrase("usual_pressures_of"),
    "scheme": phrase("words_tag"),
    "photo_place": phrase("place_photos_data"),
}

# question -> answer -> its reason; the first answer of each is the default
SCHOOLS: dict[str, dict[str, Saying]] = {
    "measure_first": {
        "measure_first": phrase("measure_first_then_change_one"),
        "clean_at_once": phrase("what_plainly_dirty_cleaned_once"),
    },
    "code_and_reset": {
        "read_first": phrase("read_log_code_then_reset"),
        "reset_first": phrase("reset_first_where_there_no"),
    },
    "switch_test": {
        "live_volts": phrase("volts_across_live_under_conditions"),
        "power_off": phrase("power_off_one_wire_off"),
        "both": phrase("live_under_conditions_fail_continuity"),
    },
    "jumpers": {
        "call_and_proving_switch": phrase("simulated_call_proving_switch_seconds"),
        "call_only": phrase("simulated_call_test_no_switch"),
        "none": phrase("no_jumper_all_every_switch"),
    },
    "live_work": {
        "with_caution": phrase("line_voltage_read_live_where"),
        "low_voltage_only": phrase("only_24_v_side_read"),
    },
    "inducer_switch": {
        "on_evidence": phrase("evidence_quoted_option_sound_switch"),
        "always_together": phrase("always_together_switch_worked_against"),
    },
    "replacement_switch": {
        "universal_matched": phrase("universal_where_single_sided_set"),
        "original_only": phrase("makers_own_part_only"),
    },
    "flame_rod": {
        "every_maintenance": phrase("cleaned_every_maintenance_read_before"),
        "when_low": phrase("cleaned_only_when_signal_low"),
        "replace": phrase("replaced_when_cleaning_does_not"),
    },
    "setting_the_fire": {
        "manifold_first": phrase("manifold_plate_proved_meter_flue"),
        "meter_first": phrase("input_meter_first_then_manifold"),
        "flue_led": phrase("led_flue_within_plates_pressure"),
    },
    "co_criterion": {
        "air_free": phrase("air_free_co_cannot_diluted"),
        "as_measured": phrase("what_analyzer_shows_stable_below"),
        "ratio": phrase("co_co_needs_no_oxygen"),
    },
    "efficiency_shown": {
        "by_units": phrase("gross_us_units_net_metric"),
        "both": phrase("gross_net_side_side_so"),
    },
    "exchanger_suspected": {
        "not_left_running": phrase("suspected_exchanger_not_left_running"),
        "notice_and_date": phrase("one_weak_sign_alone_runs"),
    },
    "manual_reset": {
        "five_cycles": phrase("cause_named_then_5_cycles"),
        "twelve_cycles": phrase("cause_named_12_cycles_watched"),
    },
    "worn_part": {
        "advise": phrase("advise_never_force_standing_stays"),
        "replace": phrase("replaced_before_leaving_what_worn"),
    },
    "temporary_repair": {
        "allowed_dated": phrase("allowed_when_safe_dated_return"),
        "not_allowed": phrase("not_allowed_stays_until_fails"),
    },
    "altitude_derate": {
        "four_pct_per_1000_ft": phrase("above_2000_ft_4_per"),
        "two_pct_per_1000_ft": phrase("above_2000_ft_2_per"),
        "ten_pct_to_4500_ft": phrase("ten_pct_from_2000_to_4500_ft"),
        "table": phrase("derated_by_the_makers_table"),
        "none": phrase("plates_input_used_stands"),
    },
    "region": {
        "north_america": phrase("usual_of_north_america"),
        "metric": phrase("usual_of_metric_lines"),
    },
    "scheme": {
        "four_levels": phrase("havrins_four_standings_they_are"),
        "two_tags": phrase("yellow_red_tag_two_step"),
        "two_classes": phrase("two_classes_danger_advice_below"),
    },
    "photo_place": {
        "removed": phrase("where_photo_taken_left_out"),
        "kept": phrase("where_photo_taken_stays_its"),
    },
}

# What each scheme calls a standing: scheme -> level -> words on the tag
PLAIN_SCHEME = "four_levels"  # says a standing as its title does
SCHEMES: Mapping[str, Mapping[int, Saying]] = {
    "four_levels": {
        1: phrase("leave_running"),
        2: phrase("leave_running_owner_told"),
        3: phrase("do_not_leave_running_yet"),
        4: phrase("shut_down_tag"),
    },
    "two_tags": {
        1: phrase("no_tag"),
        2: phrase("no_tag_advice_given"),
        3: phrase("yellow_tag_do_not_use"),
        4: phrase("red_tag_shut_off"),
    },
    "two_classes": {
        1: phrase("no_danger_found"),
        2: "Advice",
        3: phrase("danger_second_class_not_used"),
        4: phrase("danger_first_class_made_safe"),
    },
}
