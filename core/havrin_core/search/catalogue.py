"""The tests that a circuit allows, with their costs and cautions."""

from collections.abc import Iterable, Mapping
from typing import Any

from havrin_core.machine.circuit.line import legs_of, line_nodes
from havrin_core.machine.circuit.model import AIR, WATER, Circuit, Part
from havrin_core.machine.circuit.read import part_families
from havrin_core.machine.virtual.plant import fire
from havrin_core.phrases import Saying, phrase, together
from havrin_core.physics.fuels import LP_FUELS
from havrin_core.search.model import Test
from havrin_core.vocabulary.catalogue import part as part_of_trade

LIVE_LOW = phrase("live_low_voltage_no_lead")
LIVE_LINE = phrase("live_line_voltage_one_hand")
GAS_TAP = phrase("opens_gas_tap_leak_test")
HAND_RESET = phrase("tripped_something_look_its_cause")
_GAUGES: dict[str, tuple[Saying, float, str, Saying, float]] = {  # quantity -> name, minutes, starter, caution, spread
    # The spread is the share of the healthy value by which sound units of one kind differ.
    "draft_at_switch_pa": (phrase("tee_gauge_into_switchs_hose"), 3, "draft ", "", 0.1),
    "draft_at_high_switch_pa": (phrase("tee_gauge_into_high_switchs"), 3, "high draft ", "", 0.1),
    "profile_low_pa": (phrase("gauge_airflow_switches_tubes"), 3, "draft ", "", 0.1),
    "supply_running_pa": (phrase("supply_pressure_while_tries"), 4, "supply ", GAS_TAP, 0.15),
    "manifold_pa": (phrase("manifold_pressure_while_tries"), 4, "mp ", GAS_TAP, 0.05),
    "manifold_of_plate": (phrase("manifold_pressure_while_tries"), 4, "mp ", GAS_TAP, 0.05),
    "temperature_rise_k": (phrase("temperature_rise_when_stops"), 5, "rise ", "", 0.2),
}
_ANALYZER: dict[
    str, tuple[Saying, float, str, float]
] = {  # quantity -> name, minutes, starter, spread among sound units
    "o2_dry_pct": (phrase("analyzer_flue_o_while_runs"), 5, "o2 ", 1.2),
    "co_air_free_ppm": (phrase("analyzer_flue_o_co_one"), 5, "o2 ", 50.0),
    "flue_temp_k": (phrase("analyzer_flue_temperature_while_runs"), 5, "flue ", 25.0),
    "o2_step_pct": (phrase("o_before_after_blower_starts"), 4, "o2 step ", 0.15),
}
# What a gauge is called where the circuit has a second one of its sort, at high fire.
_LOW_OF_TWO = {"draft_at_switch_pa": (phrase("tee_gauge_into_low_switchs"), "low draft ")}
_VOLTS_SIGMA, _MILLIVOLT_SIGMA = 0.4, 0.02
_AMPS_SIGMA = 4e-7
_WORD = {"ohms": "ohms", "look": "look", "swap": "swap", "jump": "try"}
_AGAIN = (("same", phrase("stops_same_point")), ("differs", phrase("goes_another_way_runs")))


def tests_of(circuit: Circuit) -> tuple[Test, ...]:
    """Return every test of ``circuit``, in the order in which a person who walks the string would do them."""
    found = (_whole_unit(circuit), _volts(circuit), _gauges(circuit), _flue(circuit), _flame(circuit), _parts(circuit))
    return tuple(test for tests in found for test in tests)


def _whole_unit(circuit: Circuit) -> Iterable[Test]:
    said = [(m.key, phrase("stops_after", m=m.name.lower())) for m in circuit.control.milestones if m.seen]
    words = (("nothing", phrase("nothing_happens")), ("steady", phrase("runs_through")), *said)
    yield Test("stops", "stops", phrase("watch_one_call_where_does"), 2, "stops ", words=words)
    yield Test("again", "again", phrase("watch_second_call_same_again"), 3, "stops ", words=_AGAIN)
    if any(state.code for state in circuit.control.states):
        yield Test("code", "code", phrase("read_code_before_any_reset"), 1, "code ")


def _volts(circuit: Circuit) -> Iterable[Test]:
    done: set[tuple[str, str]] = set()
    for part in circuit.parts:
        for a, b in (*_pairs(circuit, part), *_polarity(circuit, part)):
            if a != b and (a, b) not in done:
                done.add((a, b))
                yield volt_test(circuit, part, a, b)


def _pairs(circuit: Circuit, part: Part) -> Iterable[tuple[str, str]]:
    if part.kind == "transformer":
        return [part.nodes[2:]]  # type: ignore[list-item]
    if part.kind == "source" or (part.kind == "load" and part.acts) or part.kind == "switch":
        return [part.nodes]  # type: ignore[list-item]
    if part.kind == "wire" and part.family == "wire":
        return [(part.nodes[1], circuit.common)]
    return []


def _polarity(circuit: Circuit, part: Part) -> Iterable[tuple[str, str]]:
    """Hot to ground: full volts, or next to nothing where hot and neutral are reversed; a leg to every other leg.

    A lost leg still shows volts to ground, fed back through what hangs on it: to another leg it does not.
    """
    if part.family == "leg":
        legs = legs_of(circuit)
        return [(part.nodes[0], other) for other in legs[legs.index(part.nodes[0]) + 1 :]]
    return [(part.nodes[0], circuit.ground)] if part.family == "line" else []


def volt_test(circuit: Circuit, part: Part | None, a: str, b: str) -> Test:
    """Return the test of the volts between two nodes: those of ``part``, or (None) any two that a hand chose."""
    line = not line_nodes(circuit).isdisjoint((a, b))
    direct = (part is not None and part.direct) or bool(_direct_only(circuit))
    sigma = _MILLIVOLT_SIGMA if _direct_only(circuit) else _VOLTS_SIGMA * (4 if line else 1)
    if part is None:
        name = phrase("volts_between_two_nodes")
    elif part.kind == "switch":
        name = phrase("volts_across_calling", part=part.name.lower())
    else:
        name = phrase("volts_calling", part=part.name.lower())
    return Test(
        f"volts:{a}:{b}",
        "volts",
        together(name, f" ({a}–{b})"),
        2.5 if line else 1.5,
        f"v {a} {b} ",
        leads=(a, b),
        part=part.key if part else "",
        sigma=sigma,
        direct=direct,
        caution=LIVE_LINE if line else LIVE_LOW,
        line_voltage=line,
    )


def unoffered_test(circuit: Circuit, key: str) -> Test:
    """Return what nobody offers but a tape tells: volts between any two nodes, what a part was found like. KeyError for another."""
    kind, _, rest = key.partition(":")
    if kind == "volts":
        a, b = rest.split(":")
        if {a, b} <= set(circuit.nodes):
            return volt_test(circuit, None, a, b)
    if kind in ("found", "tripped"):
        name = circuit.part(rest).name if any(part.key == rest for part in circuit.parts) else part_of_trade(rest).name
        return Test(key, kind, name, 0, "", part=rest)
    raise KeyError(key)


def _direct_only(circuit: Circuit) -> bool:
    return all(part.direct for part in circuit.parts if part.kind == "source")


def _gauges(circuit: Circuit) -> Iterable[Test]:
    two_switches = any(quantity.name == "draft_at_high_switch_pa" for quantity in circuit.quantities)
    for quantity in circuit.quantities:
        # Where a second stage moves the manifold, it is compared with its own stage's plate value.
        staged = quantity.name == "manifold_pa" and any(q.name == "manifold_of_plate" for q in circuit.quantities)
        if quantity.name in _GAUGES and not staged:
            name, minutes, starter, caution, share = _GAUGES[quantity.name]
            if two_switches and quantity.name in _LOW_OF_TWO:
                name, starter = _LOW_OF_TWO[quantity.name]
            sigma = share * abs(quantity.value)
            yield Test(
                f"gauge:{quantity.name}",
                "gauge",
                name,
                minutes,
                starter,
                quantity=quantity.name,
                sigma=sigma,
                nominal=quantity.value,
                caution=caution,
                needs_fire=quantity.name == "temperature_rise_k",
            )


def _flue(circuit: Circuit) -> Iterable[Test]:
    """The analyzer in the flue and the watch at the meter: a sound fire's figures are the design's."""
    plant = circuit.plant
    if plant is None:
        return
    sound = fire(plant, 30.0, 1.0, 1.0, 1.0)
    if plant.fuel not in LP_FUELS:  # a tank has no dial to clock
        yield Test(
            "gauge:input_share",
            "gauge",
            phrase("clock_meter_unit_alone"),
            5,
            "clock ",
            quantity="input_share",
            sigma=0.05,
            nominal=1.0,
            needs_fire=True,
        )
    if not plant.has_flue:
        return
    if plant.heats == WATER:
        rise = next(q.value - q.rest for q in circuit.quantities if q.name == "water_temp_k")
        yield Test(
            "gauge:water_rise_k",
            "gauge",
            phrase("rise_water_while_runs"),
            4,
            "wrise ",
            quantity="water_rise_k",
            sigma=0.2 * rise,
            nominal=rise,
            needs_fire=True,
        )
    nominals = {"o2_dry_pct": sound.o2_dry_pct, "co_air_free_ppm": sound.co_air_free_ppm, "flue_temp_k": plant.stack_k}
    for quantity, (name, minutes, starter, sigma) in _ANALYZER.items():
        if quantity != "o2_step_pct" or plant.heats == AIR:
            yield Test(
                f"gauge:{quantity}",
                "gauge",
                name,
                minutes,
                starter,
                quantity=quantity,
                sigma=sigma,
                nominal=nominals.get(quantity, 0.0),
                needs_fire=True,
            )


def _flame(circuit: Circuit) -> Iterable[Test]:
    if any(part.key == "flame_input" for part in circuit.parts):
        yield Test(
            "flame_current",
            "gauge",
            phrase("flame_current_series_light_off"),
            4,
            "ua ",
            quantity="flame_current_a",
            part="flame_input",
            sigma=_AMPS_SIGMA,
        )


def _parts(circuit: Circuit) -> Iterable[Test]:
    shaky = {fault.part for fault in circuit.faults if fault.opens_when}
    for part in circuit.parts:
        if part.key in shaky:
            yield _watched(part)
        for shown in part_families().get(part.family or "none", {}).get("shown_by", ()):
            yield _by_itself(part, shown)


def _by_itself(part: Part, shown: Mapping[str, Any]) -> Test:
    """Return a test of the part alone, as its family's data describe it."""
    how = shown["how"]
    if how == "ohms":
        name: Saying = phrase("ohms_power_off_wire_off", part=part.name.lower())
    else:
        name = f"{part.name}: {shown['name'][0].lower()}{shown['name'][1:]}"
    return Test(
        f"{how}:{part.key}",
        how,
        name,
        shown["minutes"],
        f"{_WORD[how]} {part.key} ",
        part=part.key,
        caution=HAND_RESET if part.latches else "",
        known_good=shown.get("known_good", False),
    )


def _watched(part: Part) -> Test:
    name = phrase("tapped_shaken_while_runs_volts", part=part.name)
    return Test(f"watch:{part.key}", "watch", name, 4, f"watch {part.key} ", part=part.key, caution=LIVE_LOW)
