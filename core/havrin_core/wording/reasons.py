"""A reason in words: what is so, with reading and limit, whose limit it is, and what helps along."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import datetime
from math import ceil
from typing import Any

from havrin_core.limits.model import Band
from havrin_core.quantities.display import digits_apart, sentence, show_apart
from havrin_core.quantities.formats import day_words, number
from havrin_core.rules.model import Reason
from havrin_core.rules.readings import judged_value
from havrin_core.tape.entries import Action, Condition
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.entries import place_said
from havrin_core.wording.exchanger import sign_words
from havrin_core.wording.language import lower_first, text
from havrin_core.wording.ledger import still_open
from havrin_core.wording.lifts import lifts_words
from havrin_core.wording.names import condition_name, part_inside, part_name, quantity_name, source
from havrin_core.wording.phrases import words

Facts = Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class Said:
    """A reason in words; ``reading``, ``limit`` and ``source`` are "" where there are none."""

    text: str
    lifts: str
    reading: str = ""
    limit: str = ""
    source: str = ""


@dataclass(frozen=True, slots=True)
class _Parts:
    text: str
    reading: str = ""
    limit: str = ""


def reason_words(reason: Reason, system: str) -> Said:
    """Return ``reason`` in words, numbers in unit system ``us`` or ``metric``."""
    parts = _parts_of(reason, system)
    said = parts.text
    since = reason.facts.get("open_since")
    if isinstance(since, datetime):
        said = text("{reason} Open since the visit of {day}.", reason=said, day=day_words(since))
    return Said(said, _lifts(reason), parts.reading, parts.limit, _source(reason))


def _source(reason: Reason) -> str:
    band = reason.facts.get("band")
    whose = source(reason.source) if reason.source else ""
    return f"{whose} ({words(band.note)})" if isinstance(band, Band) and band.note else whose


def _lifts(reason: Reason) -> str:
    own = lifts_words(reason.lifts)
    help_along = text(_ADVICE[reason.advice]) if reason.advice in _ADVICE else ""
    return " ".join(filter(None, (help_along, own)))


def _parts_of(reason: Reason, system: str) -> _Parts:
    facts = reason.facts
    if "look" in facts:
        return _finding(reason, facts["look"])
    if reason.code in _BY_CODE:
        return _BY_CODE[reason.code](facts, system)
    if reason.code.startswith("mistake_"):
        return _Parts(text(_MISTAKES[reason.code], **_mistake_parts(facts)))
    if reason.code.endswith("_in"):
        return _Parts(still_open(facts["how"], facts["device"]), text("in"), text("none"))
    return _reading(facts, system)


def _finding(reason: Reason, look: Condition) -> _Parts:
    place = place_said(look)
    where = f" ({place})" if place else ""
    doubt = text("A doubt") if reason.code.endswith(".doubtful") else ""
    said = text(
        "{part}: {condition}{where}.", part=part_name(look.part), condition=condition_name(look.condition), where=where
    )
    return _Parts(f"{doubt}: {lower_first(said)}" if doubt else said, text("seen"), text("a finding, not a number"))


def _reading(facts: Facts, system: str) -> _Parts:
    quantity, band, value = facts["quantity"], facts["band"], facts["value"]
    reading, limit = reading_against(quantity, band, value, system)
    name = quantity_name(quantity, facts["stage"])
    said = (
        "{name}: {reading}, out of its limit ({limit})."
        if facts["verdict"] == "out"
        else "{name}: {reading}, near its limit ({limit})."
    )
    return _Parts(text(said, name=name, reading=reading, limit=limit), reading, limit)


def reading_against(quantity: str, band: Band, value: float, system: str) -> tuple[str, str]:
    """Return a reading and the bound that it broke or nears, like "0.70 µA" and "least 0.80 µA".

    Both have as many digits as tell them apart; a size that counts whichever sign it has is laid against the bound as a size.
    """
    bound, word = _bound(quantity, band, value)
    judged = judged_value(quantity, value)
    shown, limit = show_apart(judged, bound, measurand(quantity).dimension, system)
    sign = "−" if value < 0 <= judged else ""
    return f"{sign}{shown.text} {shown.unit}", text(
        "{word} {value}", word=text(word), value=f"{limit.text} {limit.unit}"
    )


def limit_text(quantity: str, band: Band, value: float, system: str) -> str:
    """Return the bound that ``value`` broke or nears, in words, like "least 0.80 µA"."""
    return reading_against(quantity, band, value, system)[1]


def _bound(quantity: str, band: Band, value: float) -> tuple[float, str]:
    judged = judged_value(quantity, value)
    bounds = [
        (bound, word)
        for bound, word in (
            (band.low, "least"),
            (band.high, "most"),
            (band.near_low, "least"),
            (band.near_high, "most"),
        )
        if bound is not None
    ]
    hard = [row for row in bounds[:2] if row[0] in (band.low, band.high)] or bounds
    return min(hard, key=lambda pair: abs(judged - pair[0]))


def _ppm(value: float, beyond: float | None = None) -> str:
    """Return a CO reading; where it is ``beyond`` a limit, with as many digits as show that."""
    least = 0 if value >= 10 or value == int(value) else 1
    digits = least if beyond is None else digits_apart(value, beyond, least)
    return f"{number(value, f'.{digits}f')} ppm"


def _beyond(value: float, limit: float, least: int) -> str:
    """Return a number with as many digits as tell it from the limit that it broke, ``least`` or more."""
    return number(value, f".{digits_apart(value, limit, least)}f")


def _nearer(value: float, low: float, high: float) -> float:
    return low if abs(value - low) < abs(value - high) else high


def _room_co(said: str) -> Callable[[Facts, str], _Parts]:
    def parts(facts: Facts, system: str) -> _Parts:
        reading, limit = (
            _ppm(facts["value"], facts["limit"]),
            text("above {limit} ppm", limit=number(facts["limit"], "g")),
        )
        where = quantity_name(facts["quantity"]) + (f", {facts['place']}" if facts["place"] else "")
        return _Parts(text("{where} {reading}: {what}", where=where, reading=reading, what=text(said)), reading, limit)

    return parts


def _register(facts: Facts, system: str) -> _Parts:
    reading, limit = (
        _ppm(facts["value"]),
        text("more than {limit} ppm above the room", limit=number(facts["limit"], "g")),
    )
    said = text(
        "CO at a register was {over} above the room: flue gas in the supply air.", over=_ppm(facts["over_room"])
    )
    return _Parts(said, reading, limit)


def _discharge(facts: Facts, system: str) -> _Parts:
    reading, limit = (
        f"{number(facts['value'], '.3g')} ppm",
        text("at most {limit} ppm over the intake", limit=number(facts["limit"], "g")),
    )
    over = "above the intake" if facts["intake_read"] else "in the discharge, the intake not read"
    name = quantity_name(facts["quantity"], facts["stage"])
    return _Parts(
        text(
            "{name}: {rise} ppm {over}, {limit}.",
            name=name,
            rise=number(facts["rise"], ".3g"),
            over=text(over),
            limit=limit,
        ),
        reading,
        limit,
    )


def _both(least: str, air_free: float, measured: float, limit: float) -> str:
    """Return CO air-free with what the analyzer showed beside it."""
    return text(
        "{least}{value} air-free ({measured} as measured)",
        least=least,
        value=_ppm(air_free, limit),
        measured=_ppm(measured),
    )


def _co(said: str) -> Callable[[Facts, str], _Parts]:
    def parts(facts: Facts, system: str) -> _Parts:
        air_free = facts["air_free"]
        least = text("at least ") if facts["at_least"] else ""
        measured = text("{least}{value} as measured", least=least, value=_ppm(facts["value"]))
        reading = measured if air_free is None else _both(least, air_free, facts["value"], facts["limit"])
        if "ratio" in facts:
            reading = text("CO/CO₂ {ratio}", ratio=_beyond(facts["ratio"], facts["limit"], 4))
        limit = text(said, limit=number(facts["limit"], "g"))
        stage = f", {text(facts['stage'])} fire" if facts["stage"] in ("low", "high") else ""
        tail = text(" Its O₂ was not read: air-free it is more.") if air_free is None else ""
        return _Parts(
            text("Flue CO{stage}: {reading}, {limit}.", stage=stage, reading=reading, limit=limit) + tail,
            reading,
            limit,
        )

    return parts


def _staged(facts: Facts) -> str:
    return f", {text(facts['stage'])} fire" if facts.get("stage") in ("low", "high") else ""


def _o2_band(facts: Facts, system: str) -> _Parts:
    reading, limit = (
        f"{_beyond(facts['value'], _nearer(facts['value'], facts['low'], facts['high']), 1)} %",
        text("usually {low} to {high} %", low=number(facts["low"], "g"), high=number(facts["high"], "g")),
    )
    return _Parts(
        text("O₂{stage} {reading}: {limit} on this kind of unit.", stage=_staged(facts), reading=reading, limit=limit),
        reading,
        limit,
    )


def _o2_least(facts: Facts, system: str) -> _Parts:
    reading = f"{_beyond(facts['value'], facts['limit'], 1)} %"
    limit = text("at least {limit} %", limit=number(facts["limit"], "g"))
    return _Parts(
        text("O₂{stage} {reading}: hardly any air is left over.", stage=_staged(facts), reading=reading), reading, limit
    )


def _spillage(said: str) -> Callable[[Facts, str], _Parts]:
    def parts(facts: Facts, system: str) -> _Parts:
        reading = text("{minutes} min", minutes=_beyond(facts["value"] / 60, facts["limit"] / 60, 1))
        limit = text(
            "none after {most} minutes, {warm} when the vent is warm",
            most=number(facts["limit"] / 60, "g"),
            warm=number(facts["warm"] / 60, "g"),
        )
        return _Parts(
            text("Flue gas spilt for {reading}: {limit}.", reading=reading, limit=limit) + text(said), reading, limit
        )

    return parts


def _vent_pressure(facts: Facts, system: str) -> _Parts:
    reading = sentence(facts["value"], "draft", system)
    said = text(
        "The vent is under pressure ({name} {reading}); category {category} runs under suction, its joints leak.",
        name=lower_first(quantity_name(facts["quantity"])),
        reading=reading,
        category=facts["category"],
    )
    return _Parts(said, reading, text("not above zero"))


def _weak_draft(facts: Facts, system: str) -> _Parts:
    reading, limit = (sentence(-facts[part], "draft", system) for part in ("value", "limit"))
    said = text(
        "The vent draws {reading}; at this outdoor temperature at least {limit} is wanted.",
        reading=reading,
        limit=limit,
    )
    return _Parts(said, reading, text("at least {limit}", limit=limit))


def _relief_small(facts: Facts, system: str) -> _Parts:
    rated, plate = (sentence(facts[name], "power", system) for name in ("value", "limit"))
    said = text("The relief valve carries off {rated}; the burner gives up to {plate}.", rated=rated, plate=plate)
    return _Parts(said, rated, text("at least {plate}", plate=plate))


def _capacitor(facts: Facts, system: str) -> _Parts:
    value, rated = (sentence(facts[name], "capacitance", system) for name in ("value", "rated"))
    digits = digits_apart(100 * abs(facts["share"]), 100 * facts["tolerance"], 0)
    share, tolerance = number(100 * facts["share"], f"+.{digits}f"), number(100 * facts["tolerance"], "g")
    said = text(
        "The capacitor reads {value}, {share} % off its {rated}; ±{tolerance} % is allowed.",
        value=value,
        share=share,
        rated=rated,
        tolerance=tolerance,
    )
    return _Parts(said, value, text("{rated} ±{tolerance} %", rated=rated, tolerance=tolerance))


def _stack(cold: bool) -> Callable[[Facts, str], _Parts]:
    def parts(facts: Facts, system: str) -> _Parts:
        reading = sentence(facts["value"], "temperature", system)
        limit = sentence(facts["limit"], "temperature_difference", system)
        if cold:
            bound = text("{limit} above its dew point at the collar", limit=limit)
            return _Parts(
                text("Flue {reading}: too near its dew point for a dry vent, water stays in it.", reading=reading),
                reading,
                bound,
            )
        bound = text("at most {limit} over the combustion air", limit=limit)
        return _Parts(
            text("Flue {reading}: hotter than a flue should be, {limit}.", reading=reading, limit=bound), reading, bound
        )

    return parts


def _line_leaks(said: str) -> Callable[[Facts, str], _Parts]:
    def parts(facts: Facts, system: str) -> _Parts:
        reading, limit = (sentence(abs(facts[name]), "leak", system) for name in ("value", "limit"))
        bound = text("at most {limit}", limit=limit)
        return _Parts(
            text("{what}: {reading}, {limit}.", what=text(said), reading=reading, limit=bound), reading, bound
        )

    return parts


def _gas_in_the_air(facts: Facts, system: str) -> _Parts:
    reading = text("{value} % of the lower explosive limit", value=number(facts["value"], "g"))
    return _Parts(text("Gas in the air, {reading}.", reading=reading), reading, text("none"))


def _exchanger(facts: Facts, system: str) -> _Parts:
    share = facts["probability"]
    reading = text("about 1 in {odds}", odds=number(1 / share, ".0f")) if share < 0.5 else text("more likely than not")
    said = text(
        "A breached heat exchanger is {reading}: {sign}.", reading=reading, sign=lower_first(sign_words(facts["sign"]))
    )
    return _Parts(said, reading, text("under 1 in 10"))


def _bypass(facts: Facts, system: str) -> _Parts:
    return _Parts(
        text("Safety device found bypassed: {device}.", device=part_inside(facts["device"])),
        text("bypassed"),
        text("none"),
    )


def _device(said: str, reading: str, limit: str) -> Callable[[Facts, str], _Parts]:
    return lambda facts, system: _Parts(
        text(said, device=part_inside(facts["device"] or "")), text(reading), text(limit)
    )


def _unproved(facts: Facts, system: str) -> _Parts:
    said = (
        "The {device} was found bypassed and has not been shown to act since."
        if facts["found"]
        else "The {device} was bypassed for a test and has not been shown to act since."
    )
    return _Parts(text(said, device=part_inside(facts["device"])), text("not shown"), text("shown to act"))


def _reset(facts: Facts, system: str) -> _Parts:
    what = part_inside(facts["device"]) if facts["device"] else text("a manual-reset device")
    return _Parts(
        text("The {device} was reset: why it tripped, and that it holds, is not shown.", device=what),
        text("not shown"),
        text("cause and cycles"),
    )


def _shut_down(facts: Facts, system: str) -> _Parts:
    said = text("Shut down and tagged by {who}", who=facts["who"]) if facts["who"] else text("Shut down and tagged")
    return _Parts(f"{said}: {facts['text']}." if facts["text"] else f"{said}.")


def _cannot(facts: Facts, system: str) -> _Parts:
    return _Parts(text("Cannot be put right now: {words}.", words=facts["text"] or text("no words given")))


def _temporary(facts: Facts, system: str) -> _Parts:
    action = facts["action"]
    words = facts["text"] or (part_inside(action.part) if isinstance(action, Action) else "")
    limit = "dated, with a return visit" if facts["allowed"] else "no temporary repair"
    until = (
        text(" It holds until {day}.", day=day_words(facts["until"])) if facts["until"] else text(" It has no date.")
    )
    return _Parts(text("Temporary repair: {words}.", words=words) + until, words, text(limit))


def _worded(said: str) -> Callable[[Facts, str], _Parts]:
    return lambda facts, system: _Parts(text(said, words=facts["text"]), facts["text"])


def _override(said: str) -> Callable[[Facts, str], _Parts]:
    return lambda facts, system: _Parts(text(said, who=facts["who"], words=facts["text"]))


def _condensing(said: str) -> Callable[[Facts, str], _Parts]:
    def parts(facts: Facts, system: str) -> _Parts:
        water, dew = (sentence(facts[name], "temperature", system) for name in ("value", "limit"))
        return _Parts(text(said, water=water, dew=dew), water, text("dew point of this flue {dew}", dew=dew))

    return parts


def _lock_out_gap(facts: Facts, system: str) -> _Parts:
    low, high = (sentence(facts[name], "temperature", system) for name in ("low", "high"))
    return _Parts(
        text("Neither source may run between {low} and {high} outdoors.", low=low, high=high),
        f"{low}, {high}",
        text("no gap"),
    )


def _plate(facts: Facts, system: str) -> _Parts:
    name = lower_first(quantity_name(facts["quantity"], facts["stage"]))
    said = "The plate’s value for {name} ({typed}) was typed after a reading that it excuses: is it right?"
    return _Parts(text(said, name=name, typed=facts["typed"]), facts["typed"])


def _doubtful(facts: Facts, system: str) -> _Parts:
    return _Parts(text("Flue{stage}: {doubt}", stage=_staged(facts), doubt=words(facts["text"])))


def _mistake_parts(facts: Facts) -> dict[str, str]:
    return {"minutes": f"{ceil(facts['least_s'] / 60)}"} if "least_s" in facts else {}


_BY_CODE: Mapping[str, Callable[[Facts, str], _Parts]] = {
    "room_co.out": _room_co("everybody out, call from outside."),
    "room_co.stop": _room_co("stop the unit."),
    "room_co.source": _room_co("find the source."),
    "register_co": _register,
    "register_co.doubt": _register,
    "discharge_co": _discharge,
    "discharge_no2": _discharge,
    "co_action": _co("act above {limit} ppm air-free"),
    "co_alone": _co("act above {limit} ppm air-free"),
    "co_as_measured": _co("at most {limit} ppm as measured"),
    "co_ask": _co("ask why above {limit} ppm air-free"),
    "co_ratio": _co("at most {limit}"),
    "flue_doubtful": _doubtful,
    "flue_no_carbon": lambda facts, system: _Parts(
        text("Flue{stage}: no CO within 10 min of this O₂: not calculated.", stage=_staged(facts))
    ),
    "o2_band": _o2_band,
    "o2_least": _o2_least,
    "spillage_time": _spillage(""),
    "spillage_time.near": _spillage(" Was the vent cold?"),
    "vent_pressure": _vent_pressure,
    "capacitor_out": _capacitor,
    "relief_small": _relief_small,
    "vent_draft_weak": _weak_draft,
    "vent_draft_weak.near": _weak_draft,
    "stack_cold": _stack(True),
    "stack_hot": _stack(False),
    "gas_leak": lambda facts, system: _Parts(
        text("Leak check failed: gas escapes."), text("leak found"), text("no leak")
    ),
    "line_leaks": _line_leaks("The closed line leaks"),
    "line_lets_by": _line_leaks("Gas gets into the closed line"),
    "gas_in_the_air": _gas_in_the_air,
    "exchanger_suspected": _exchanger,
    "bypass_found": _bypass,
    "device_fails": _device("The {device} does not act.", "did not act", "acts"),
    "device_unproved": _unproved,
    "call_unproved": _device(
        "The jumper at the {device} is out; the unit has not run from its own thermostat since.",
        "not shown",
        "one cycle",
    ),
    "disabled": _device("The unit is disabled on purpose: {device}.", "disabled", "enabled again"),
    "reset_unexplained": _reset,
    "shut_down": _shut_down,
    "cannot_put_right": _cannot,
    "temporary_repair": _temporary,
    "advise": _worded("Advised: {words}."),
    "refuse": _worded("Refused: {words}."),
    "cause_not_found": _worded("The cause was not found: {words}."),
    "unreadable_entry": _worded("An entry cannot be read: {words}."),
    "stricter": _override("Set stricter by {who}: {words}"),
    "override": _override("Set milder by the supervisor, {who}: {words}"),
    "cannot_condense": _condensing("It cannot condense: its return water is {water}, the flue's dew point {dew}."),
    "condenses": _condensing(
        "The return water is {water}; a boiler that is not made to condense wants {dew} or more, or it rots in its own water."
    ),
    "lock_out_gap": _lock_out_gap,
    "plate_excuses": _plate,
}
_MISTAKES: Mapping[str, str] = {
    "mistake_cover_off": "Read with the door or cover off: draft, flue gas and rise read differently with it on.",
    "mistake_un_teed": "The gauge proves draft, yet the switch is open: with the gauge in place of the hose, the switch feels nothing.",
    "mistake_reference_hose": "The manifold is low by about the suction in the burner box: was its reference hose off, or the gauge not tied to the box?",
    "mistake_still_closing": "The standing pressure still rises: the regulator was still closing, or it creeps.",
    "mistake_burner_in_sight": "Rise far above the plate with input and static in order: does the supply probe see the exchanger?",
    "mistake_capacitor_amps": "The capacitor ‘reads’ the same number as the motor’s amps: was the meter still in its amps range?",
    "mistake_flame_range": "No flame rod gives that much: was the meter in another range, or across instead of in series?",
    "mistake_gross_net": "The input is off by just the ratio of gross to net heating value while the manifold is right.",
    "mistake_air_in_sample": "O₂ moved while the stack stayed as it was and nothing was done: air drawn in at the probe, or a cell that drifts.",
    "mistake_test_too_short": "The closed line was watched for too short a time: a leak of the criterion’s size shows on a gauge only after {minutes} min.",
}
_READ_AGAIN_ADVICE: Mapping[str, str] = {
    "manifold_pa": "Set it to the plate, wait until it settles, then prove it with meter and flue.",
    "supply_running_pa": "Find what takes the pressure: line size, regulator, tank, neighbours burning.",
    "supply_standing_pa": "Watch the lock-up; a regulator that creeps is changed.",
    "o2_step_pct": "Repeat it with the door on and the filter out; look into the exchanger before it runs on.",
    "draft_pa": "Hose, port, trap, vent and intake, wheel, then the inducer, in this order.",
    "draft_least_pa": "Find what takes the draft: hose, water in it, vent, wind, wheel.",
    "flame_least_a": "Rod, wire, GROUND and the flame itself.",
    "control_least_v": "Find what takes the voltage: contact, transformer, its load, line.",
    "flame_current_a": "Clean the rod, check gap, porcelain, wire and GROUND.",
    "temperature_rise_k": "Filter, coil, dampers, blower and input decide it; read it at each stage.",
    "input_w": "Check orifices and manifold pressure, then clock the meter.",
}
_ADVICE: Mapping[str, str] = {
    **_READ_AGAIN_ADVICE,
    "unreadable": "Write anew what it said; a supervisor sets it aside with a reason.",
    "room_co.out": "Everybody out; call from outside. Nobody goes back in for the unit.",
    "room_co.stop": "Stop the unit and air the room.",
    "room_co.source": "Find the source before anything runs on.",
    "register": "Shut it down, rule out return leaks.",
    "discharge": "Clean burner and ports, check profile plates, airflow and gas pressure.",
    "flue_co": "Find why: air, gas pressure, orifice, exchanger.",
    "o2": "Look for false air, input and draft; the manual's own band goes before this one.",
    "spillage": "Look at vent, draft, air supply, and a room under suction.",
    "vent_pressure": "Clear vent and terminal, look for a fan that blows into it; suction is negative.",
    "relief_small": "Fit one whose tag carries off at least the input on the plate, at the boiler's own pressure.",
    "capacitor": "Discharge it, power off, one lead off, and read it again; a motor on a weak capacitor runs hot and slow.",
    "vent_draft_weak": "Read it five minutes after light-off, fans on, doors shut; look for blockage, air drawn in, a cold vent, a room under suction.",
    "stack_cold": "Look at input, airflow and what cools the vent; look for rust and drips.",
    "stack_hot": "Look at input, airflow or water flow, soot and scale.",
    "find_leak": "Leak fluid, joint by joint.",
    "line_leaks": "Find it with leak fluid, joint by joint.",
    "line_lets_by": "The valve before the closed line lets gas by: shut the gas before it and change it.",
    "gas_in_the_air": "Touch no switch and no phone, everybody out, call from outside.",
    "why_bypassed": "Find why it was put in.",
    "never_bridged": "No school allows this one, not even for a test.",
    "come_back": "Come back on the days on which it fails; name the cause then.",
    "decision_stands": "It holds until the decision is taken back (“Strike” on the tape).",
    "cannot_condense": "Lower its return: bypass, pump speed, flow temperature.",
    "condenses": "Raise its return: mixing valve, bypass, pump.",
    "lock_out_gap": "Set the lock-outs so that they overlap, then read both again.",
    "exchanger_suspected": "A suspected exchanger is seen or tested before it runs on.",
    "plate_excuses": "A wrong digit here would excuse a wrong reading.",
    "mistake_cover_off": "Door on, wait two minutes.",
    "mistake_un_teed": "Tee the gauge in, read across the switch again: still open, it is the switch.",
    "mistake_reference_hose": "Reference hose on, gauge between manifold and box, before any screw is turned.",
    "mistake_still_closing": "Wait until it stands still for a minute; if it never does, it creeps.",
    "mistake_burner_in_sight": "Probe round a bend, out of the exchanger’s sight.",
    "mistake_capacitor_amps": "Power off, capacitor discharged, one lead off, meter on µF.",
    "mistake_flame_range": "Direct microamps, in series with the rod.",
    "mistake_gross_net": "The plate counts gross: take the gross heating value, or clock the meter again.",
    "mistake_air_in_sample": "Probe and hose tight, water trap empty, zero in clean air.",
    "mistake_test_too_short": "Watch it long enough, or close a smaller volume.",
}
