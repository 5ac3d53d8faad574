"""What was seen, heard or smelt: each part and condition by its verdict, until what lifts it is on the tape."""

import re
import tomllib
from collections.abc import Iterator, Mapping
from functools import cache
from importlib import resources

from havrin_core.limits.model import HOUSE
from havrin_core.rules.context import Context
from havrin_core.rules.demands import Demand, Opened, demand, open_demands
from havrin_core.rules.model import NOT_YET, SHUT_DOWN, TELL, Lift, Reason
from havrin_core.tape.clock import Moment
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import Condition
from havrin_core.vocabulary.catalogue import BAD, DANGER, WORN, conditions, part, verdict_of

_LEVELS = {WORN: TELL, BAD: NOT_YET, DANGER: SHUT_DOWN}
DOUBTFUL = "doubtful"
_MENDS = re.compile(r"cure|changed|cause|close_look")
_REPLACED_AT_ONCE = ("igniter", "belt", "flame_rod", "moving", "inducer", "electrical", "hose", "safety")
_TRIPS = ("tripped", "open")
# A way of being bypassed is lifted in devices.py, too, by its removal.
Group = tuple[str, str, bool]  # part, condition, said with a doubt


def finding_reasons(context: Context) -> Iterator[Reason]:
    """Yield a reason for each thing found wrong that is not lifted."""
    for (part_key, condition, doubtful), rows in _groups(context).items():
        verdict = verdict_of(part_key, condition)
        if verdict not in _LEVELS:
            continue
        lifts = open_demands(
            context, _opened(part_key, condition, rows), _demands(part_key, condition, verdict, doubtful)
        )
        if lifts:
            yield _reason(context, part_key, condition, doubtful, rows, lifts)


def _groups(context: Context) -> Mapping[Group, list[tuple[Line, Condition]]]:
    groups: dict[Group, list[tuple[Line, Condition]]] = {}
    for line, look in context.facts.conditions():
        if not look.absent:
            groups.setdefault((look.part, look.condition, look.sure == "unsure"), []).append((line, look))
    return groups


def _opened(part_key: str, condition: str, rows: list[tuple[Line, Condition]]) -> Opened:
    since = max((_known(line, part_key, condition) for line, _ in rows), key=lambda m: (m.at, m.order))
    device = part_key if part(part_key).safety else ""
    return Opened(f"{part_key}.{condition}", family_of(part_key, condition), since, part_key, condition, device)


def _known(line: Line, part_key: str, condition: str) -> Moment:
    """A finding that came by a correction is known since the correction, unless it stood there before."""
    was = line.was
    same = isinstance(was, Condition) and (was.part, was.condition) == (part_key, condition)
    return line.moment if line.was is None or same else line.known


_HEAT_DEVICES = ("limit", "aux_limit", "high_limit")
_FIRE_DEVICES = ("rollout", "spill_switch")


def trip_family(device: str) -> str:
    """Return which causes can trip ``device``."""
    return "trip_heat" if device in _HEAT_DEVICES else "trip_fire" if device in _FIRE_DEVICES else "trip"


def family_of(part_key: str, condition: str) -> str:
    """Return which causes can bring a finding about: a key of data/causes.toml."""
    if condition in _TRIPS:
        return trip_family(part_key)
    if condition in ("spilling", "backdrafting") and part_key != "flame":
        return "spill"
    if condition in ("scorched", "warped"):
        return "heat"
    if part_key in ("flame", "burner", "unit") and condition not in ("smells_of_flue",):
        return "fire"
    return "fumes"


@cache
def _rows() -> Mapping[str, Mapping[str, list[str]]]:
    text = (resources.files("havrin_core.rules") / "data" / "lifts.toml").read_text(encoding="utf-8")
    return tomllib.loads(text)


@cache
def _demands(part_key: str, condition: str, verdict: str, doubtful: bool) -> tuple[Demand, ...]:
    """Return the demands of the most particular row: part before sort, condition before verdict."""
    table = _rows()
    rows = [table.get(part_key, {}), table.get(part(part_key).like, {}), table["_"]]
    if doubtful:
        said = next((row[DOUBTFUL] for row in rows if DOUBTFUL in row), ["cure|good"])
    else:
        said = next(row[name] for row in rows for name in (condition, verdict) if name in row)
        said = _lasting(said) if conditions()[condition].lasting and verdict != WORN else said
    return tuple(demand(one) for one in said)


def _lasting(said: list[str]) -> list[str]:
    """What does not go away by itself is lifted by what was done about it, never by a later look alone."""
    done = [one.removesuffix("|good") for one in said]
    return done if any(_MENDS.search(one) for one in done) else ["cure", *done]


def _reason(
    context: Context,
    part_key: str,
    condition: str,
    doubtful: bool,
    rows: list[tuple[Line, Condition]],
    lifts: tuple[Lift, ...],
) -> Reason:
    line, look = rows[-1]
    what = part(part_key)
    return Reason(
        _level(context, part_key, condition, doubtful),
        f"{part_key}.{condition}" + (f".{DOUBTFUL}" if doubtful else ""),
        context.station_for(what.station),
        {"look": look, "phase": line.phase},
        lifts,
        HOUSE,
        tuple(line.entry.id for line, _ in rows),
    )


def _level(context: Context, part_key: str, condition: str, doubtful: bool) -> int:
    level = _LEVELS[verdict_of(part_key, condition)]
    rules = context.rules
    if doubtful:
        return min(level, NOT_YET)
    if (part_key, condition) == ("flame", "disturbed_by_blower") and rules.exchanger_suspected == "notice_and_date":
        return TELL
    if (
        level == TELL
        and rules.worn_part == "replace"
        and part(part_key).like in _REPLACED_AT_ONCE
        and condition != "dirty"
    ):
        return NOT_YET
    return level
