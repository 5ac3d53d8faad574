"""The search's part of the answer: suspects, the next test, what else could be tried."""

from typing import Any

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Unit
from havrin_core.search.model import Offer, Outlook, Suspect
from havrin_core.search.visit_search import outlook_of
from havrin_core.tape.entries import Entry
from havrin_core.wording.phrases import words
from havrin_core.wording.steps import passes


def search_row(unit: Unit, rules: HouseRules, entries: tuple[Entry, ...]) -> dict[str, Any]:
    """Return who is under suspicion; nobody where the unit's circuit is not known."""
    found = outlook_of(unit, rules, entries)
    if found is None:
        return {
            "suspects": [],
            "clear": None,
            "unlisted": 1.0,
            "nothing_wrong": 0.0,
            "cured": 0.0,
            "next": None,
            "others": [],
            "conflicts": [],
        }
    suspects = [row for suspect in found.suspects for row in _suspect(suspect)]
    clear = next((row for row in suspects if row["part"] == found.first.part), None) if found.clear else None
    return {
        "suspects": suspects,
        "clear": clear,
        "unlisted": found.unlisted,
        "nothing_wrong": found.nothing_wrong,
        "cured": found.cured,
        "next": _offer(found.next_test) if found.next_test else None,
        "others": [_offer(offer) for offer in found.other_tests],
        "conflicts": _conflicts(found),
    }


def _suspect(suspect: Suspect) -> list[dict[str, Any]]:
    return [{"part": suspect.part, "mode": mode, "probability": share} for mode, _, share in suspect.faults]


def _offer(offer: Offer) -> dict[str, Any]:
    typed = f"{offer.test.starter.rstrip()} …"  # a number goes in its place
    outcomes = [
        {"line": m.line or typed, "title": words(m.outcome), "probability": m.share, "then": words(m.first)}
        for m in offer.meanings
    ]
    impossible = passes(offer.test.key)[0]
    outcomes.append({"line": impossible.line, "title": impossible.label, "probability": 0.0, "then": ""})
    return {
        "test": offer.test.key,
        "title": words(offer.test.name),
        "line": offer.test.starter,
        "minutes": offer.test.minutes,
        "outcomes": outcomes,
    }


def _conflicts(found: Outlook) -> list[dict[str, Any]]:
    return [{"test": c.test, "shown": words(c.shown), "expected": words(c.expected)} for c in found.conflicts]
