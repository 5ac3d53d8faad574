"""The schools of practice: each question on which practitioners differ, its answers, and the reason of each."""

from collections.abc import Mapping

QUESTIONS: Mapping[str, str] = {
    "measure_first": "Before correcting anything",
    "code_and_reset": "Code and reset",
    "switch_test": "Testing a switch",
    "jumpers": "Jumper for diagnosis",
    "live_work": "Live work",
    "inducer_switch": "Pressure switch when the inducer is changed",
    "replacement_switch": "Replacement switch",
    "flame_rod": "Flame rod",
    "setting_the_fire": "Setting the fire",
    "co_criterion": "CO criterion",
    "efficiency_shown": "Efficiency",
    "exchanger_suspected": "Exchanger suspected, no breach seen",
    "manual_reset": "Manual-reset trip",
    "worn_part": "Worn part still working",
    "temporary_repair": "Temporary repair",
    "altitude_derate": "Rated input at altitude",
    "scheme": "Words on the tag",
    "photo_place": "Place in a photo's data",
}

# question -> answer -> its reason; the first answer of each is the default
SCHOOLS: dict[str, dict[str, str]] = {
    "measure_first": {
        "measure_first": "Measure first, then change one thing: only then is the cause proven.",
        "clean_at_once": "What is plainly dirty is cleaned at once; the cause is then not proven.",
    },
    "code_and_reset": {
        "read_first": "Read and log the code, then reset: many boards forget it.",
        "reset_first": "Reset first where there is no display to read.",
    },
    "switch_test": {
        "live_volts": "Volts across it, live, under the conditions that fail: a contact that flutters shows only then.",
        "power_off": "Power off, one wire off, continuity: nothing live is touched.",
        "both": "Live under the conditions that fail, and continuity with the power off.",
    },
    "jumpers": {
        "call_and_proving_switch": "A simulated call, and a proving switch for seconds: attended, logged, out again.",
        "call_only": "A simulated call is a test; no switch of the string is ever jumped.",
        "none": "No jumper at all: every switch is read across, live or with the power off.",
    },
    "live_work": {
        "with_caution": "Line voltage is read live where it must be, by who is qualified.",
        "low_voltage_only": "Only the 24 V side is read live; line voltage is left to the electrician.",
    },
    "inducer_switch": {
        "on_evidence": "On evidence, quoted as an option: a sound switch is not thrown away.",
        "always_together": "Always together: a switch that worked against a weak inducer is near its end.",
    },
    "replacement_switch": {
        "universal_matched": "Universal where single-sided, with set point, differential, port sense and contact rating matched; two-sided and multi-stage only original.",
        "original_only": "The maker's own part only.",
    },
    "flame_rod": {
        "every_maintenance": "Cleaned at every maintenance, read before and after.",
        "when_low": "Cleaned only when the signal is low: every cleaning wears it.",
        "replace": "Replaced when cleaning does not bring it back.",
    },
    "setting_the_fire": {
        "manifold_first": "Manifold to the plate, proved by meter and flue.",
        "meter_first": "Input by meter first, then manifold and flue.",
        "flue_led": "Led by the flue, within the plate's pressure range.",
    },
    "co_criterion": {
        "air_free": "Air-free CO cannot be diluted away: act above 400 ppm, ask why above 100.",
        "as_measured": "What the analyzer shows, stable and below 100 ppm.",
        "ratio": "CO/CO₂ needs no oxygen cell: 0.004 condensing, 0.008 others.",
    },
    "efficiency_shown": {
        "by_units": "Gross in US units, net in metric: as the papers of each place have it.",
        "both": "Gross and net side by side, so that nobody compares one with the other.",
    },
    "exchanger_suspected": {
        "not_left_running": "A suspected exchanger is not left running until seen or tested.",
        "notice_and_date": "With one weak sign alone it runs on, with notice and a date.",
    },
    "manual_reset": {
        "five_cycles": "Cause named, then 5 cycles.",
        "twelve_cycles": "Cause named, 12 cycles watched, and a re-check within days.",
    },
    "worn_part": {
        "advise": "Advise, never force; the standing stays, with a date.",
        "replace": "Replaced before leaving: what is worn today is a call tomorrow.",
    },
    "temporary_repair": {
        "allowed_dated": "Allowed when safe, dated, with a return visit.",
        "not_allowed": "Not allowed: it stays until it fails.",
    },
    "altitude_derate": {
        "four_pct_per_1000_ft": "Above 2000 ft, 4 % per 1000 ft counted from sea level.",
        "two_pct_per_1000_ft": "Above 2000 ft, 2 % per 1000 ft: many fan-assisted units.",
        "none": "The plate's input is used as it stands.",
    },
    "scheme": {
        "four_levels": "Havrin's four standings, as they are.",
        "two_tags": "A yellow or a red tag, as two-step schemes have it.",
        "two_classes": "Two classes of danger, with advice below them.",
    },
    "photo_place": {
        "removed": "Where a photo was taken is left out of its file.",
        "kept": "Where a photo was taken stays in its file, for sites that are hard to find again.",
    },
}

# What each scheme calls a standing: scheme -> level -> words on the tag
SCHEMES: Mapping[str, Mapping[int, str]] = {
    "four_levels": {
        1: "Leave running",
        2: "Leave running, owner told",
        3: "Do not leave running yet",
        4: "Shut down and tag",
    },
    "two_tags": {
        1: "No tag",
        2: "No tag, advice given",
        3: "Yellow tag: do not use before it is put right",
        4: "Red tag: shut off",
    },
    "two_classes": {
        1: "No danger found",
        2: "Advice",
        3: "Danger, second class: not to be used",
        4: "Danger, first class: made safe, shut off",
    },
}
