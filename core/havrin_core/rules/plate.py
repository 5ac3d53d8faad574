"""Plate values that were typed after the reading that they would excuse: they are asked to be confirmed."""

from collections.abc import Iterator

from havrin_core.facts.facts import ReadingFact
from havrin_core.limits.limits import band_for
from havrin_core.limits.model import PLATE
from havrin_core.rules.context import Context
from havrin_core.rules.model import NOT_YET, Lift, Reason
from havrin_core.rules.readings import judged_value
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import PlateValue


def plate_reasons(context: Context, bare: Context) -> Iterator[Reason]:
    """Yield a reason for each plate value that turned a reading good after it was taken. ``bare`` is without the tape's plate."""
    rows = context.facts.of(PlateValue)
    for quantity in dict.fromkeys(body.quantity for _, body in rows):
        own = [(line, body) for line, body in rows if body.quantity == quantity]
        line, body = own[-1]
        if _confirmed(own):
            continue
        for fact in context.facts.readings:
            if fact.quantity == quantity and _excuses(context, bare, fact, line):
                facts = {"quantity": quantity, "stage": body.stage, "value": fact.value, "typed": body.typed}
                lifts = (Lift("plate", part=quantity, stage=body.stage),)
                station = context.unit.station_at(quantity, body.stage)
                yield Reason(
                    NOT_YET,
                    "plate_excuses",
                    station,
                    facts,
                    lifts,
                    PLATE,
                    (fact.entry_id, line.entry.id),
                    "plate_excuses",
                )
                break


def _confirmed(rows: list[tuple[Line, PlateValue]]) -> bool:
    """Typed twice alike, it is confirmed."""
    return len(rows) > 1 and rows[-1][1].values == rows[-2][1].values


def _excuses(context: Context, bare: Context, fact: ReadingFact, line: Line) -> bool:
    if not line.moment.surely_after(fact.moment):
        return False
    value = judged_value(fact.quantity, fact.value)
    before = band_for(bare.unit, bare.rules, fact.quantity, fact.stage)
    after = band_for(context.unit, context.rules, fact.quantity, fact.stage)
    return before is not None and before.verdict(value) == "out" and after is not None and after.verdict(value) != "out"
