"""What can be seen, heard or smelt, with its weight for the standing.

Levels: 2 owner told, 3 do not leave running yet, 4 shut down and tag; 0 clears.
``clears`` names the findings that a clearing look lifts; ``repaired_by`` the actions that
must come first where a look alone is not enough; ``proved_by`` what else has to be on the tape
since (keys of standing/lifting.py). A finding that nothing of these lifts stays.
"""

import re
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing that a look can bring."""

    key: str
    station: str
    text: str
    words: tuple[str, ...]
    level: int
    lifts: str = ""
    repaired_by: tuple[str, ...] = ()
    clears: tuple[str, ...] = ()
    proved_by: tuple[str, ...] = ()


FINDINGS: tuple[Finding, ...] = (
    Finding(
        "exchanger_breach", "exchanger", "Visible breach of the heat exchanger",
        ("crack", "cracked", "breach", "breached", "hole in exchanger", "exchanger crack", "exchanger breach"), 4,
        "Only a new heat exchanger or a new unit lifts it: a seen breach does not run again.", ("change_exchanger",),
    ),
    Finding(
        "exchanger_doubtful", "exchanger", "A line that may be a crack",
        ("suspected crack", "maybe crack", "hairline", "crack?", "stress line"), 3,
        "Clean it, look again with a borescope or put it under pressure; write “found crack …” or “exchanger ok … by borescope”.", proved_by=("close_look",),
    ),
    Finding(
        "exchanger_warped", "exchanger", "Warped or bulging wall", ("warped", "bulge", "bulging", "sagging"), 2,
        "See every part; find what overheated it (airflow, input, water). The wall stays as it is until it is changed.", ("change_exchanger",),
    ),
    Finding(
        "scorch", "exchanger", "Scorching or a hot spot", ("scorch", "scorched", "hot spot", "burnt paint"), 2,
        "Find what is hot there: airflow, input, flame; name the cause, see every part of the exchanger.", proved_by=("cause",),
    ),
    Finding(
        "coil_fouled", "exchanger", "Secondary coil fouled", ("coil fouled", "secondary fouled", "coil dirty"), 2,
        "Clean its face from the blower side; read rise and static again.", ("clean_exchanger",),
    ),
    Finding(
        "flame_disturbed", "exchanger", "Flame moves when the blower starts",
        ("flame moves", "flame disturbed", "flame rolls at blower", "flame lifts at blower"), 3,
        "Rule out return leaks and open panels, see every cell, then write what was seen.", (),
    ),
    Finding(
        "exchanger_whole", "exchanger", "Heat exchanger seen, no breach found",
        ("exchanger ok", "exchanger whole", "cells ok", "hx ok"), 0, clears=("flame_disturbed", "exchanger_doubtful", "scorch"),
    ),
    Finding(
        "gas_smell", "supply_running", "Smell of gas", ("gas smell", "smell of gas", "smell gas", "gas leak"), 4,
        "Find and cure the leak, then pass a leak check.", proved_by=("leak_check",),
    ),
    Finding(
        "vent_disconnected", "vent", "Vent disconnected or broken",
        ("vent disconnected", "vent broken", "vent open", "vent off", "vent rusted through"), 4,
        "Make the vent whole, then look at it end to end and write “vent ok”.", ("repair_vent",),
    ),
    Finding(
        "vent_blocked", "vent", "Vent, terminal or intake blocked",
        ("vent blocked", "terminal blocked", "intake blocked", "snow at terminal", "ice at terminal"), 3,
        "Clear it, look again and write “vent ok”.",
    ),
    Finding(
        "vent_whole", "vent", "Vent and terminal seen end to end", ("vent ok", "vent whole", "vent clear", "vent"), 0,
        clears=("vent_blocked", "vent_disconnected", "spillage"),
    ),
    Finding(
        "spillage", "vent", "Flue gas spills into the room and does not stop", ("spillage", "spills", "spilling"), 4,
        "Cure the cause, repeat the spillage test and write “vent ok”.", ("repair_vent", "clear_vent"),
    ),
    Finding(
        "rollout", "burner", "Flame outside the burner box", ("rollout", "flame outside", "flame rolls out"), 4,
        "Name and cure the cause, then watch light-off and write “flame ok”.", proved_by=("cause",),
    ),
    Finding(
        "delayed_light_off", "burner", "Light-off with a bang", ("bang", "delayed light-off", "explosive light-off", "boom"), 4,
        "Name and cure the cause, then watch three light-offs (“cycles 3”) and write “flame ok”.", proved_by=("cause", "light_offs"),
    ),
    Finding(
        "flame_steady", "burner", "Flame steady and where it belongs", ("flame ok", "flame steady", "fire ok"), 0,
        clears=("rollout", "delayed_light_off", "flame_lazy"),
    ),
    Finding("flame_lazy", "burner", "Flame lazy, yellow or lifting", ("flame lazy", "flame yellow", "yellow flame", "lazy flame"), 3,
            "Find why the flame lacks air or gas, then write “flame ok”."),
    Finding("wrong_orifice", "manifold", "Orifices do not belong to this gas", ("wrong orifice", "wrong orifices", "orifice wrong"), 4,
            "Fit the right orifices, then read manifold and flue again.", ("change_orifices",)),
    Finding("wrong_fuel", "manifold", "Fuel on the line is not the plate's", ("wrong fuel", "wrong gas", "lp on natural"), 4,
            "Convert the unit as its manual says, then read manifold and flue again.", ("change_orifices",)),
    Finding("open_gas_end", "supply_running", "Open gas end", ("open gas end", "uncapped gas", "gas end open"), 4,
            "Cap or plug it, then pass a leak check.", proved_by=("leak_check",)),
    Finding("valve_lets_by", "manifold", "Gas valve lets by", ("valve lets by", "lets by", "valve passes"), 4,
            "Change the valve, then prove that it holds: “tight …” or “leak ok”.", ("change_valve",), proved_by=("holds",)),
    Finding("dry_fired", "water_pressure", "Boiler fired dry", ("dry fired", "boiler dry", "fired dry"), 4,
            "Never add water to a hot boiler: let it cool, find where the water went. Only a changed exchanger lifts it here; where its maker’s rule finds it sound, strike the line and write that rule.", ("change_exchanger",)),
    Finding("relief_failed", "relief", "Relief valve does not lift or does not close", ("relief failed", "relief stuck"), 4, "Only a free valve of the right rating lifts it.", ("change_relief",)),
    Finding("symptoms", "room", "Someone here has symptoms of CO", ("symptoms", "headache", "someone ill"), 4,
            "Everybody out; call from outside. Cause named and room CO back to the outdoor level lift it.", proved_by=("cause", "room_co")),
    Finding("soot", "exchanger", "Soot", ("soot", "sooted"), 3, "Find why it soots, clean it, then read CO at each stage.", ("clean_exchanger",)),
    Finding("rust_flakes", "burner", "Rust flakes in the burners", ("rust", "rust flakes", "flakes"), 2, "See every cell of the exchanger; clean the burners.", ("clean_burners",)),
    Finding("filter_dirty", "return_air", "Filter dirty", ("filter dirty", "dirty filter", "filter blocked"), 2, "Change the filter.", ("change_filter",)),
    Finding("filter_clean", "return_air", "Filter clean", ("filter ok", "filter clean"), 0),
    Finding("igniter_white", "burner", "White marks on the igniter", ("igniter white", "white marks", "igniter marks"), 2, "Change the igniter, or advise it with a date.", ("change_igniter",)),
    Finding("trap_dry", "vent", "Condensate trap dry or blocked", ("trap dry", "trap blocked", "trap empty"), 3, "Clean and fill the trap, then write “trap ok”.", ("fill_trap",)),
    Finding("trap_filled", "vent", "Condensate trap clean and full", ("trap ok", "trap full", "trap filled"), 0, clears=("trap_dry",)),
    Finding("relief_sound", "relief", "Relief valve dry, free, piped down", ("relief ok", "relief valve ok"), 0, clears=("relief_weeps", "relief_plugged", "relief_failed")),
    Finding("relief_weeps", "relief", "Relief valve weeps", ("relief weeps", "relief drips"), 3, "Find why (pressure, expansion vessel, valve), change it, then write “relief ok”.", ("change_relief",)),
    Finding("relief_plugged", "relief", "Relief valve plugged or piped shut", ("relief plugged", "relief capped", "relief blocked"), 4, "Only a free valve of the right rating lifts it.", ("change_relief",)),
    Finding("fire_damper_shut", "dampers", "Fire damper dropped or propped", ("damper dropped", "fire damper shut", "damper propped"), 2, "Record the impairment and tell the owner; restoring and drop-testing are for who is competent.", ("restore_damper",)),
    Finding("dampers_open", "dampers", "Dampers free and open", ("dampers ok", "damper ok"), 0, clears=("fire_damper_shut",)),
    Finding("belt_worn", "blower", "Belt worn", ("belt worn", "belt cracked"), 2, "Change the belt, or advise it with a date.", ("change_belt",)),
    Finding("panel_missing", "blower", "Panel or door switch missing", ("panel missing", "door off", "door switch taped"), 3, "Put it back before leaving.", ("put_back_panel",)),
    Finding("rod_white", "burner", "White coating on the flame rod", ("rod white", "rod dirty", "rod coated"), 2, "Clean it; read the flame signal before and after.", ("clean_flame_rod",)),
)  # fmt: skip

WORN = ("igniter_white", "belt_worn", "rod_white")  # works still; a house may want it changed at once
_COVERAGE = re.compile(r"(\d+)\s*(?:/|of)\s*(\d+)")


def coverage_of(place: str) -> tuple[int, int] | None:
    """Return (parts seen, parts in all) when ``place`` says a coverage like "4/5"; else None."""
    match = _COVERAGE.search(place)
    return (int(match.group(1)), int(match.group(2))) if match else None


def unseen_share(place: str, parts: int = 0) -> tuple[int, int] | None:
    """Return (parts not seen, parts in all) when ``place`` says a coverage that is not whole; else None.

    ``parts`` is what the unit has: "2/2" on a unit of four is two not seen.
    """
    seen, said = coverage_of(place) or (0, 0)
    total = max(said, parts) if said else 0
    return (total - seen, total) if seen < total else None


_BY_KEY = {finding.key: finding for finding in FINDINGS}


def finding(key: str) -> Finding:
    """Return the finding called ``key``; KeyError for one that is not in the list."""
    return _BY_KEY[key]


def is_finding(key: str) -> bool:
    """Tell whether ``key`` is a known finding."""
    return key in _BY_KEY
