"""The suspects of a visit: its unit's circuit, its tape, its house rules."""

from dataclasses import replace

from havrin_core.facts.facts import Facts
from havrin_core.facts.passed_over import passed_over
from havrin_core.facts.plate_values import plated
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Unit
from havrin_core.phrases import Saying, phrase
from havrin_core.search.epochs import epochs_of
from havrin_core.search.evidence import seen_on
from havrin_core.search.history import history
from havrin_core.search.model import Outlook, Step
from havrin_core.search.odds import prior_of
from havrin_core.search.outlook import outlook
from havrin_core.search.pictures import Pictures, pictures_of
from havrin_core.tape.background import NOTHING_KNOWN, Background
from havrin_core.tape.corrections import effective
from havrin_core.tape.entries import FOUND, MADE_SAFE, Entry, Said

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
    seen, against = seen_on(plated(unit, entries), rules, pictures, entries)
    facts = Facts(entries)
    found = outlook(pictures, seen, rules, against, prior_of(unit.circuit, background), others, passed_over(facts))
    return replace(found, jumpers=_on_now(pictures, facts))


def _on_now(pictures: Pictures, facts: Facts) -> tuple[Saying, ...]:
    """Say of each jumper that is on and that the control does not begin with when it is to go on."""
    bridged = epochs_of(pictures.circuit, facts).bridged_now()
    names = [part.name for part in pictures.circuit.parts if part.key in bridged and pictures.must_wait(part.key)]
    return tuple(phrase("jumper_goes_on_later", part=name) for name in names)


def history_of(
    unit: Unit, rules: HouseRules, entries: tuple[Entry, ...], background: Background = NOTHING_KNOWN
) -> tuple[Step, ...]:
    """Return how the search went, an entry a step; nothing where the unit's circuit is not known."""
    if unit.circuit is None:
        return ()
    pictures = pictures_of(unit.circuit)
    seen, _ = seen_on(plated(unit, entries), rules, pictures, entries)
    ids = (line.entry.id for line in effective(entries))
    return history(pictures, seen, ids, prior_of(unit.circuit, background).odds)


def is_searching(reason: str, entries: tuple[Entry, ...], *, well: bool) -> bool:
    """Tell whether the visit still looks for a cause: none is found, and not everything is shown to be ``well``."""
    return reason in _SEARCHES and not well and not any(_ends_it(line.body) for line in effective(entries))


def _ends_it(body: object) -> bool:
    if not isinstance(body, Said):
        return False
    return body.state == FOUND if body.what == "cause" else body.state == MADE_SAFE
