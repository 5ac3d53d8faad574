"""Combustion air: what the room of the appliances wants by volume or by openings, against what was measured."""

from collections.abc import Iterator

from havrin_core.limits.computed import input_at_altitude_w
from havrin_core.phrases import Saying, phrase
from havrin_core.physics.combustion_air import air_wanted
from havrin_core.quantities.display import sentence
from havrin_core.quantities.why import Input, Why
from havrin_core.rules.context import Context
from havrin_core.workings.model import Working


def room_air_workings(context: Context, system: str) -> Iterator[Working]:
    """Yield the room's volume and its openings; nothing until one of them was measured."""
    facts = context.facts
    volume, high, low, outdoors = (
        facts.newest(q, None) for q in ("room_volume_m3", "opening_high_m2", "opening_low_m2", "opening_outdoor_m2")
    )
    load = _load(context)
    if load is None or not any((volume, high, low, outdoors)):
        return
    watts, name = load
    wanted = air_wanted(watts)
    inputs = (Input(name, watts, "power"),)
    enough = volume is not None and volume.value >= wanted.volume_m3
    if volume is not None:
        why = Why(
            phrase("fifty_cubic_feet"),
            (*inputs, Input(phrase("room"), volume.value, "room")),
            phrase("openings_source"),
            phrase("not_a_tight_house"),
        )
        said: Saying = "" if enough else phrase("room_too_small")
        yield Working(
            "room_wanted_m3",
            phrase("room_wanted"),
            wanted.volume_m3,
            "room",
            why,
            0.0,
            None,
            "in" if enough else "near",
            said,
        )
    if high is not None or low is not None:
        least = min(fact.value if fact else 0.0 for fact in (high, low))
        why = Why(
            phrase("square_inch_per_thousand"),
            (*inputs, Input(phrase("smaller_opening"), least, "opening")),
            phrase("openings_source"),
            phrase("free_area_of_louvres"),
        )
        state = "in" if enough or least >= wanted.indoor_each_m2 else "near"
        said = phrase("outdoors_it_would_be", each=sentence(wanted.outdoor_each_m2, "opening", system))
        yield Working(
            "opening_each_m2",
            phrase("each_opening_wanted"),
            wanted.indoor_each_m2,
            "opening",
            why,
            0.0,
            None,
            state,
            said,
        )
    if outdoors is not None:
        why = Why(
            phrase("square_inch_per_three_thousand"),
            (*inputs, Input(phrase("opening_read"), outdoors.value, "opening")),
            phrase("openings_source"),
            phrase("free_area_of_louvres"),
        )
        state = "in" if enough or outdoors.value >= wanted.outdoor_one_m2 else "near"
        yield Working(
            "opening_outdoor_wanted_m2",
            phrase("outdoor_opening_wanted"),
            wanted.outdoor_one_m2,
            "opening",
            why,
            0.0,
            None,
            state,
        )


def _load(context: Context) -> tuple[float, Saying] | None:
    room = context.facts.newest("room_input_w", None)
    if room is not None:
        return room.value, phrase("all_appliances_in_the_room")
    rated = input_at_altitude_w(context.unit, context.rules, context.unit.stage_keys[-1])
    return (rated, phrase("this_unit_alone")) if rated else None
