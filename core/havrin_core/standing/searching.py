"""Suspects of a visit: its unit's circuit, its tape, its house rules; and the one next step."""

from havrin_core.facts.plate_values import plated
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Unit
from havrin_core.rules.model import NOT_YET, SHUT_DOWN
from havrin_core.search.evidence import observations
from havrin_core.search.model import Outlook
from havrin_core.search.odds import prior_of
from havrin_core.search.outlook import outlook
from havrin_core.search.pictures import pictures_of
from havrin_core.standing.model import Assessment, NextStep
from havrin_core.tape.background import NOTHING_KNOWN, Background
from havrin_core.tape.entries import Decision, Entry

_SEARCHES = ("no_heat", "recheck")  # who comes back with parts knows the cause


def outlook_of(
    unit: Unit, rules: HouseRules, entries: tuple[Entry, ...], background: Background = NOTHING_KNOWN, others: int = 4
) -> Outlook | None:
    """Return who is under suspicion on a visit; None where the unit's circuit is not known.

    ``background`` is what was known before the first reading; ``others`` is how many tests are offered beside the first.
    """
    if unit.circuit is None:
        return None
    pictures = pictures_of(unit.circuit)
    seen, against = observations(plated(unit, entries), rules, pictures, entries)
    return outlook(pictures, seen, rules, against, prior_of(unit.circuit, background), others)


def searching(reason: str, entries: tuple[Entry, ...], found: Assessment) -> bool:
    """Tell whether the visit still looks for a cause: none is named, and not everything is shown to be well."""
    named = any(isinstance(e.body, Decision) and e.body.decision in ("cause", "shut_down") for e in entries)
    well = found.settled and found.level < NOT_YET and not found.missing
    return reason in _SEARCHES and not named and not well


def next_step_of(found: Assessment, sought: Outlook | None) -> NextStep | None:
    """Return the one next step: dangers and room CO first, then the search, then what is still to show."""
    step = found.next_step
    room = step is not None and step.starter == "room "
    shut = any(r.level == SHUT_DOWN for r in found.reasons)
    if sought is None or room or shut or (sought.next_test is None and not sought.clear):
        return step
    if sought.next_test is None:
        first = sought.suspects[0]
        why = f"{first.name} holds {100 * first.share:.0f} % of the suspicion. {sought.proof[0]}"
        return NextStep(f"Name the cause: {first.name.lower()}", why, 2, "", f"cause {first.name.lower()}")
    offer = sought.next_test
    meanings = "; ".join(f"{m.outcome} → {m.first.lower()}" for m in offer.meanings[:3])
    return NextStep(
        offer.test.name,
        f"Splits the suspects best per minute. {meanings}.",
        round(offer.test.minutes),
        "",
        offer.test.starter,
    )
