"""What the trade calls dangerous, in its own words: the truth that the judgement is held against, written apart from it.

Each row: the kinds on which it can occur (traits), the least level, and several wordings. Nothing here is generated from
the vocabulary; a wording that the bar does not know yet belongs here all the same.
"""

import json
from dataclasses import dataclass

from havrin_core.language.labelled import FULL_PLATE

FURNACES = ("furnace_80", "furnace_condensing", "furnace_dual_fuel", "furnace_modulating")
AIR = (*FURNACES, "rooftop", "unit_heater")
BOILERS = ("boiler_atmospheric", "boiler_condensing", "boiler_power_vent")
FLUED = (*AIR, *BOILERS)
EVERY = (*FLUED, "make_up_air")
ATMOSPHERIC = ("boiler_atmospheric",)
CONDENSING = ("furnace_condensing", "furnace_modulating", "boiler_condensing")
INDUCED = (*AIR, "boiler_power_vent")
DIRECT = ("make_up_air",)


@dataclass(frozen=True)
class Danger:
    """One danger: where it can occur, the least level, its wordings."""

    on: tuple[str, ...]
    level: int
    lines: tuple[str, ...]


DANGERS: tuple[Danger, ...] = (
    # carbon monoxide
    Danger(FLUED, 3, ("o2 7 co 600 t 340", "o2 18.5 co 60 t 200", "co 900", "co .4 %", "co >4000", "o2 6.5 co 420")),
    Danger(EVERY, 4, ("room 40", "room co 55", "room 90", "room co .0045 %")),
    Danger(EVERY, 3, ("room 12",)),
    Danger(AIR, 4, ("room 0 | register 30",)),
    Danger(
        EVERY,
        4,
        (
            "co alarm went off",
            "co alarm sounded",
            "personal monitor went off",
            "customer has headache",
            "symptoms",
            "found symptoms",
            "fumes in the room",
            "flue gas in the room",
        ),
    ),
    Danger(DIRECT, 4, ("ico 0 | dco 20", "dco 30", "ino2 0 | dno2 2", "ico 50")),
    Danger(AIR, 3, ("co step 60", "o2 step 2.5", "o2 step -2")),
    # venting
    Danger(
        FLUED,
        4,
        (
            "vent disconnected",
            "vent fell apart",
            "flue disconnected in attic",
            "vent rusted through",
            "hole in vent",
            "vent has holes",
            "found vent disconnected",
        ),
    ),
    Danger(
        FLUED,
        3,
        (
            "vent blocked",
            "terminal blocked",
            "snow at terminal",
            "ice at terminal",
            "nest in vent",
            "vent rusted soft",
            "vent sagging",
            "water dripping from vent",
            "wrong vent material",
            "vent undersized",
            "vent joint loose and cracked",
            "terminal too near a window",
            "no guard",
            "intake blocked",
            "bird nest in terminal",
            "flue gas in the intake",
            "vent not ok",
            "vent kinked",
            "vent crushed",
        ),
    ),
    Danger(
        ATMOSPHERIC,
        4,
        (
            "spilling",
            "spillage",
            "spills at the hood",
            "draft hood spills",
            "backdrafting",
            "spill 400",
            "water heater on same flue spills",
            "chimney backdrafts",
        ),
    ),
    Danger(
        ATMOSPHERIC,
        3,
        (
            "chimney unlined",
            "unlined chimney",
            "chimney blocked",
            "collar .05",
            "vent draft .03",
            "too little combustion air",
            "louvre shut",
            "room under suction",
            "return leak beside draft hood",
            "combustion air blocked",
        ),
    ),
    Danger(CONDENSING, 3, ("trap dry", "trap blocked", "frozen condensate", "condensate frozen")),
    Danger(("boiler_condensing",), 3, ("case seal leaks", "burner door leaks")),
    Danger(INDUCED, 3, ("inducer housing cracked", "inducer gasket blown", "collector box cracked")),
    # gas
    Danger(
        EVERY,
        4,
        (
            "gas smell",
            "smell of gas",
            "found gas smell",
            "raw gas",
            "lel 3",
            "lel 12",
            "leak bad",
            "leak found",
            "union leaking",
            "joint bubbles",
            "gas line leaking",
            "gas line loses pressure",
            "tight 40 l 20 mbar 10 mbar 5 min",
            "valve lets by",
            "gas valve lets by",
            "valve stays open",
            "regulator failed open",
            "wrong orifice",
            "wrong fuel",
            "wrong gas",
            "half converted",
            "open gas end",
            "cap missing",
            "flex damaged",
            "flex connector leaking",
            "flame stays on",
        ),
    ),
    Danger(
        EVERY,
        3,
        (
            "supply 3.5 psi",
            "lockup 20",
            "regulator vent blocked",
            "regulator froze",
            "regulator frozen",
            "lockup rising",
            "flex through the cabinet",
        ),
    ),
    Danger(
        ("boiler_atmospheric",),
        4,
        ("pilot safety does not drop out", "pilot line leaking", "thermocouple does not drop out"),
    ),
    # fire
    Danger(
        EVERY,
        4,
        (
            "bang",
            "big bang when it lit",
            "delayed light-off",
            "flame outside the box",
            "flame rollout",
            "flame rolls out",
        ),
    ),
    Danger(
        EVERY,
        3,
        (
            "flame lifting",
            "yellow flame",
            "flame yellow",
            "flame impinging",
            "flame lazy",
            "flame unstable",
            "flame signal without flame",
        ),
    ),
    Danger(FLUED, 3, ("soot", "sooted", "crossover does not carry")),
    Danger(AIR, 3, ("flame moves when the blower starts", "flame disturbed by the blower")),
    Danger((*AIR, "boiler_power_vent", "boiler_condensing", "make_up_air"), 3, ("ua 0", "ua .2")),
    # exchanger
    Danger(
        FLUED,
        4,
        (
            "crack cell 3",
            "found crack",
            "cracked exchanger",
            "exchanger cracked",
            "hole in exchanger",
            "exchanger rusted through",
            "split seam",
            "exchanger failed pressure test",
        ),
    ),
    Danger(
        FLUED,
        3,
        (
            "exchanger about to go through",
            "hairline",
            "suspected crack",
            "exchanger warped",
            "scorch",
            "exchanger scorched",
        ),
    ),
    Danger(CONDENSING[:2], 4, ("secondary coil leaking",)),
    # water
    Danger(
        BOILERS,
        4,
        (
            "dry fired",
            "fired dry",
            "ran with no water in it",
            "cold water on a hot boiler",
            "relief plugged",
            "relief capped",
            "relief stuck",
            "relief failed",
            "boiler section leaking",
            "section cracked",
        ),
    ),
    Danger(
        BOILERS,
        3,
        (
            "relief weeps",
            "relief drips",
            "wp 29",
            "wp 60",
            "ws 270 F",
            "expansion tank waterlogged",
            "kettling",
            "low on water",
            "wp 2",
        ),
    ),
    # electrical
    Danger(
        EVERY,
        3,
        (
            "reversed polarity",
            "no ground",
            "lost neutral",
            "burnt wires",
            "melted wire on limit",
            "wiring arcing",
            "flooded controls",
            "mains 95 of 120",
            "mains 140 of 120",
        ),
    ),
    # air
    Danger(AIR, 3, ("rise 75", "belt off", "blower runs backwards", "sa 220 F")),
    Danger(("rooftop",), 3, ("fire damper shut", "damper dropped", "damper propped", "fire damper propped open")),
    # around it
    Danger(
        EVERY,
        3,
        (
            "gasoline stored",
            "combustibles too near",
            "unit flooded",
            "recalled part",
            "unvented heater in the room",
            "generator running",
        ),
    ),
)
# safety device -> the words for it, by kind
DEVICES: dict[str, tuple[str, ...]] = {
    "furnace_80": ("limit", "rollout", "pressure switch"),
    "furnace_condensing": ("limit", "rollout", "pressure switch"),
    "furnace_dual_fuel": ("limit", "rollout", "pressure switch"),
    "furnace_modulating": ("limit", "rollout", "pressure switch"),
    "rooftop": ("limit", "rollout", "pressure switch"),
    "unit_heater": ("limit", "rollout", "pressure switch"),
    "boiler_atmospheric": ("spill switch", "high limit"),
    "boiler_condensing": ("low water", "high limit", "low gas switch"),
    "boiler_power_vent": ("low water", "high limit", "rollout", "vent switch"),
    "make_up_air": ("high limit", "low airflow switch", "high airflow switch"),
}
# said of any safety device: least level
OF_A_DEVICE: tuple[tuple[int, str], ...] = (
    (4, "found jumper {}"),
    (4, "jumper found on {}"),
    (4, "{} bypassed"),
    (4, "found taped {}"),
    (4, "fails {}"),
    (4, "{} does not act"),
    (4, "{} stuck closed"),
    (4, "{} missing"),
    (3, "{} tripped"),
    (3, "found {} tripped"),
    (3, "{} open"),
    (3, "did reset {}"),
    (3, "jump {}"),
)
# what must not alarm on a sound unit
SOUND_TALK: tuple[tuple[tuple[str, ...], str], ...] = (
    (FLUED, "no soot"),
    (FLUED, "exchanger not cracked"),
    (EVERY, "no smell of gas"),
    (AIR, "rollout not tripped"),
    (
        ("furnace_80", "furnace_condensing", "rooftop"),
        "found limit tripped | cause dirty filter | did change filter | did reset limit | cycles 12",
    ),
    (("furnace_80",), "igniter cracked"),
    (("rooftop",), "belt cracked"),
    (INDUCED, "hose cracked"),
    (AIR, "duct too small"),
    (EVERY, "side compressor contactor pitted"),
    (EVERY, "note solar inverter fault 12"),
    (EVERY, "nobody has symptoms"),
    (EVERY, "flame not yellow"),
    (ATMOSPHERIC, "no spillage"),
    (EVERY, "told owner"),
    (EVERY, "complaint no heat since Friday"),
)
_STAGED = ("furnace_modulating", "boiler_condensing", "make_up_air")


def unit_of(kind: str, **plate: object) -> dict[str, object]:
    """Return a unit document of ``kind`` with a full plate, natural gas, at 200 m; ``plate`` changes fields of it."""
    if kind in _STAGED:
        low_pa, high_pa = (373.6, 797.1) if kind != "make_up_air" else (24.9, 1245.4)
        stages = [
            {"key": "low", "input_w": 15240, "manifold_pa": low_pa, "switch_makes_pa": 99.6},
            {"key": "high", "input_w": 23446, "manifold_pa": high_pa, "switch_makes_pa": 174.4},
        ]
    else:
        stages = [{"key": "only", "input_w": 20515, "manifold_pa": 871.8, "switch_makes_pa": 149.5}]
    return {"kind": kind, "altitude_m": 200, "plate": {**FULL_PLATE, "stages": stages, **plate}}


def sound_lines(kind: str) -> list[str]:
    """Return the lines of a sound visit on ``kind``: everything that any reason for a visit asks for, within limits."""
    staged = kind in _STAGED
    each = ("low ", "high ") if staged else ("",)
    lines = ["room 0", "supply 7.1", "lockup 8.0"]
    if kind != "boiler_condensing":
        mp = {"make_up_air": ("low mp .1", "high mp 5")}.get(
            kind, ("low mp 1.5", "high mp 3.2") if staged else ("mp 3.5",)
        )
        lines += mp
    draft = ("low draft .6", "high draft .95") if staged else ("draft .88",)
    if kind not in ("boiler_atmospheric", "boiler_condensing"):
        lines += draft
    if kind != "boiler_atmospheric":
        lines += [f"{stage}ua 2.9" for stage in each]
    if kind == "make_up_air":
        lines += ["ico 0", "low dco 1", "high dco 2"]
    else:
        temp = {"furnace_condensing": 118, "furnace_modulating": 118, "boiler_condensing": 125}.get(kind, 342)
        lines += [f"{stage}o2 7 co 22 t {temp} air 66" for stage in each]
        lines += ["vent ok", "exchanger ok 4/4"]
    if kind in AIR:
        lines += [f"{stage}rise 49" for stage in each]
    if kind in BOILERS:
        lines += ["wp 16", "relief ok", *[f"{stage}wrise 25" for stage in each]]
    if kind in ("boiler_condensing", "boiler_power_vent"):
        lines += ["proved low water"]
    if kind == "boiler_atmospheric":
        lines += ["spill 40"]
    if kind in CONDENSING:
        lines += ["trap ok"]
    lines += ["low input 52", "high input 80"] if staged else ["input 70"]
    return (
        [*lines, "cause dirty flame rod", "did clean rod", *[f"{s}ua 3.0" for s in each], "cycles 1"]
        if _has_rod(kind)
        else [*lines, "cause thermostat set wrong", "cycles 1"]
    )


def _has_rod(kind: str) -> bool:
    return kind != "boiler_atmospheric"


def visit_line(kind: str, lines: list[str], **more: object) -> str:
    """Return the request that writes ``lines`` on a visit of ``kind``."""
    rows = [{"text": line} for line in lines]
    request = {"op": "visit", "unit": unit_of(kind), "reason": "maintenance", "rules": {}, "lines": rows, "leave": None}
    return json.dumps({**request, **more})


# a value that is right where a line that lifts shows "…", by its first words
_VALUES = {
    "cause": "cause dirty burner",
    "tight": "tight 4 l 20 mbar 20 mbar 10 min",
    "untag": "untag cured",
    "mains": "mains 120 of 120",
    "register": "register 1",
    "collar": "collar -.05",
    "vent draft": "vent draft -.05",
    "co step": "co step 0",
    "o2 step": "o2 step 0.1",
    "sa": "sa 120",
    "ws": "ws 170 F",
    "spill": "spill 40",
    "ino2": "ino2 0",
    "dno2": "dno2 0.1",
    "lasting": "lasting new part",
}


def filled(line: str, kind: str) -> str:
    """Return ``line`` with a sound value in the place of its "…"."""
    if "…" not in line:
        return line
    stage = next((word for word in ("low ", "high ") if line.startswith(word)), "")
    plain = line.removeprefix(stage)
    if plain.startswith("cause"):
        return plain.replace("…", "blocked vent" if kind != "make_up_air" else "dirty burner")
    value = next((said for words, said in _VALUES.items() if plain.startswith(f"{words} ")), None)
    sound = {
        row.removeprefix("low ").removeprefix("high ").split()[0]: row
        for row in sound_lines(kind)
        if row.startswith(stage)
    }
    return f"{stage}{value}" if value else sound.get(plain.split()[0], plain.replace("…", "7"))
