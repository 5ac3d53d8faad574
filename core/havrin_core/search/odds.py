"""Odds before the first reading: season, age, place and the unit's own history."""

import json
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import cache
from importlib import resources
from typing import Any

from havrin_core.machine.circuit.meant import parts_meant
from havrin_core.machine.circuit.model import Circuit
from havrin_core.quantities.formats import number
from havrin_core.tape.background import Background, Past
from havrin_core.tape.corrections import effective
from havrin_core.tape.entries import FOUND, NOT_FOUND, Action, Entry, Proof, Said
from havrin_core.vocabulary.catalogue import part as part_of_trade

_RENEWS = "change"  # the verb of the vocabulary
WEIGH_AS = 40.0  # closed calls that the shipped odds count as, beside a firm's own
LOOKS_BACK_DAYS = 1100  # the longest of odds.json: what is older moves no odds


@dataclass(frozen=True, slots=True)
class Prior:
    """Weights by fault mode, and in words what moved them."""

    odds: Mapping[str, float]
    reasons: tuple[str, ...]


def surroundings_known() -> dict[str, str]:
    """Return the surroundings that count, with their names."""
    return {key: row["name"] for key, row in _table()["surroundings"].items()}


def prior_of(circuit: Circuit, background: Background) -> Prior:
    """Return the odds of every fault mode of ``circuit`` under ``background``."""
    factors: dict[str, float] = {}  # part -> factor
    reasons = []
    for name, parts in _influences(circuit, background):
        touched = {part: factor for part, factor in parts.items() if factor != 1.0}
        for part, factor in touched.items():
            factors[part] = factors.get(part, 1.0) * factor
        if touched:
            reasons.append(f"{name}: {_said(circuit, touched)}")
    odds = {fault.key: fault.odds * factors.get(fault.part, 1.0) for fault in circuit.faults}
    for rule, worked_on in _hands(circuit, background):
        reasons.append(f"{rule['name'].capitalize()}: wrong part or wiring × {number(rule['factor'], 'g')}")
        for fault in circuit.faults:
            if fault.key.split(".")[1] in rule["modes"] and (worked_on is None or fault.part in worked_on):
                odds[fault.key] *= rule["factor"]
    learned = _learned(circuit, odds, background)
    reasons += [
        said for said in (_told(circuit, background.causes), _told_in_vain(circuit, background.in_vain)) if said
    ]
    return Prior(odds | learned, tuple(reasons))


def causes_of(entries: Iterable[Entry]) -> tuple[str, ...]:
    """Return the parts that a tape names as the found cause of the call, each once."""
    said = (line.body for line in effective(entries) if isinstance(line.body, Said) and line.body.what == "cause")
    named = (body.part for body in said if body.state == FOUND and body.explains in ("", "call"))
    return tuple(dict.fromkeys(filter(None, named)))


def in_vain_of(entries: Iterable[Entry]) -> tuple[tuple[str, bool], ...]:
    """Return the parts that a tape renewed though they were not the cause, each once, and whether no cause was found at all.

    None where the tape says nothing of a cause: what was renewed may have been it.
    """
    lines = tuple(effective(entries))
    said = [line.body for line in lines if isinstance(line.body, Said) and line.body.what == "cause"]
    about_call = [body for body in said if body.explains in ("", "call") and body.state in (FOUND, NOT_FOUND)]
    if not about_call:
        return ()
    found = {body.part for body in about_call if body.state == FOUND}
    renewed = (line.body.part for line in lines if isinstance(line.body, Action) and line.body.verb == _RENEWS)
    return tuple((part, not found) for part in dict.fromkeys(renewed) if part and part not in found)


def _learned(circuit: Circuit, odds: Mapping[str, float], known: Background) -> dict[str, float]:
    """Return the odds of fault modes that a firm's own closed visits moved.

    The shipped odds count as WEIGH_AS closed calls (a Dirichlet distribution over the parts); each own cause is one more.
    A call of which nobody found the cause, though a part was renewed, is shared out among all other parts by their odds.
    """
    whole, per_part = sum(odds.values()), _by_part(circuit, odds)
    counts: dict[str, float] = {}
    for word, count in known.causes:
        meant = parts_meant(circuit, word)
        for part in meant:
            counts[part] = counts.get(part, 0.0) + count / len(meant)
    for word, _, unsolved in known.in_vain:
        others = {part: share for part, share in per_part.items() if part not in parts_meant(circuit, word)}
        left = sum(others.values())
        for part, share in others.items() if unsolved and len(others) < len(per_part) and left else ():
            counts[part] = counts.get(part, 0.0) + unsolved * share / left
    calls = sum(counts.values())
    moved = {}
    for fault in circuit.faults if calls else ():
        expected = WEIGH_AS * per_part[fault.part] / whole
        share = (expected + counts.get(fault.part, 0.0)) / (WEIGH_AS + calls)
        moved[fault.key] = odds[fault.key] * share * whole / per_part[fault.part]
    return moved


def _by_part(circuit: Circuit, odds: Mapping[str, float]) -> dict[str, float]:
    parts: dict[str, float] = {}
    for fault in circuit.faults:
        parts[fault.part] = parts.get(fault.part, 0.0) + odds[fault.key]
    return parts


def _told(circuit: Circuit, causes: Iterable[tuple[str, int]]) -> str:
    rows = sorted(((count, word) for word, count in causes if count and parts_meant(circuit, word)), reverse=True)
    if not rows:
        return ""
    named = ", ".join(f"{part_of_trade(word).name.lower()} {count}" for count, word in rows[:4])
    return f"Causes that this firm closed on circuits like this ({sum(count for count, _ in rows)}): {named}"


def _told_in_vain(circuit: Circuit, in_vain: Iterable[tuple[str, int, int]]) -> str:
    rows = sorted(((count, word) for word, count, _ in in_vain if count and parts_meant(circuit, word)), reverse=True)
    named = ", ".join(f"{part_of_trade(word).name.lower()} {count}" for count, word in rows[:4])
    return f"Renewed by this firm on circuits like this, and it was not the cause: {named}" if rows else ""


def past_of(entries: Iterable[Entry], days_ago: int) -> tuple[Past, ...]:
    """Return what an earlier visit's tape says about parts: what was renewed or cured, and what was found at fault."""
    found = []
    for line in effective(entries):
        body = line.body
        if isinstance(body, Action) and f"{body.verb} {body.part}" in _table()["actions"]:
            found.append(Past(days_ago, action=f"{body.verb} {body.part}"))
        elif isinstance(body, Proof) and body.device and body.outcome in ("bad", "open", "high"):
            found.append(Past(days_ago, part=body.device))
    return tuple(found)


@cache
def _table() -> Mapping[str, Any]:
    file = resources.files("havrin_core.search") / "odds.json"
    data: Mapping[str, Any] = json.loads(file.read_text(encoding="utf-8"))
    return data


def _influences(circuit: Circuit, known: Background) -> Iterable[tuple[str, dict[str, float]]]:
    table = _table()
    for row in table["seasons"]:
        if known.month in row["months"]:
            yield row["name"].capitalize(), _of_families(circuit, row["families"])
    for row in table["ages"]:
        if known.age_years is not None and known.age_years >= row["from_years"]:
            yield row["name"].capitalize(), _of_families(circuit, row["families"])
    for key in known.surroundings:
        if key in table["surroundings"]:
            row = table["surroundings"][key]
            yield row["name"].capitalize(), _of_families(circuit, row["families"])
    yield from _history(circuit, known.past)


def _history(circuit: Circuit, past: Iterable[Past]) -> Iterable[tuple[str, dict[str, float]]]:
    table = _table()
    seen: set[tuple[tuple[str, ...], str]] = set()
    for item in sorted(past, key=lambda row: row.days_ago):
        named, rule = table["actions"].get(item.action, ([item.part], "seen_before"))
        if item.days_ago > table[rule]["within_days"] or (tuple(named), rule) in seen:
            continue  # the newest of its sort counts, once
        seen.add((tuple(named), rule))
        factor = table[rule]["factor"]
        parts = {p.key: factor for p in circuit.parts if p.key in named or p.family in named}
        yield f"{table[rule]['name'].capitalize()} ({item.days_ago} days)", parts


def _hands(circuit: Circuit, known: Background) -> Iterable[tuple[Mapping[str, Any], set[str] | None]]:
    """Where hands were at work, wrong parts and wrong wiring are likelier: on some parts, or (None) on any."""
    table = _table()
    if known.age_years is not None and known.age_years < table["new_unit"]["below_years"]:
        yield table["new_unit"], None
    rule = table["fresh_work"]
    recent = [item for item in known.past if item.action.startswith("change ") and item.days_ago <= rule["within_days"]]
    families = {name for item in recent for name in table["actions"].get(item.action, ([],))[0]}
    parts = {part.key for part in circuit.parts if part.family in families or part.key in families}
    if parts:
        yield rule, parts


def _of_families(circuit: Circuit, families: Mapping[str, float]) -> dict[str, float]:
    return {part.key: families[part.family] for part in circuit.parts if part.family in families}


def _said(circuit: Circuit, factors: Mapping[str, float]) -> str:
    strongest = sorted(factors, key=lambda part: -abs(factors[part] - 1))[:3]
    return ", ".join(f"{circuit.part(part).name.lower()} × {number(factors[part], 'g')}" for part in strongest)
