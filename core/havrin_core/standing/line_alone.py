"""What the entries of a line would mean by themselves, before it is written: whether one is a danger, and what to do first."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Unit
from havrin_core.rules.model import SHUT_DOWN
from havrin_core.standing.assess import reasons_of
from havrin_core.standing.model import NextStep
from havrin_core.standing.next_step import next_step
from havrin_core.tape.entries import Body, Code, Condition, Entry, Reading
from havrin_core.tape.visit import REASONS_FOR_VISIT, VisitTape

_ANY_REASON = REASONS_FOR_VISIT[1]  # why somebody came changes nothing about a danger
_MAY_BE_A_DANGER = (Condition, Reading, Code)


@dataclass(frozen=True, slots=True)
class DangerSaid:
    """A danger in a line: the place of its entry in the line, and the step that comes before all others."""

    entry: int
    step: NextStep


def dangers_of(unit: Unit, rules: HouseRules, bodies: Sequence[Body], phases: Sequence[str]) -> tuple[DangerSaid, ...]:
    """Return the entries of a line that would shut the unit down by themselves, each with its first step."""
    both = enumerate(zip(bodies, phases, strict=True))
    found = (
        (at, _first_step(unit, rules, body, phase)) for at, (body, phase) in both if isinstance(body, _MAY_BE_A_DANGER)
    )
    return tuple(DangerSaid(at, step) for at, step in found if step is not None)


def _first_step(unit: Unit, rules: HouseRules, body: Body, phase: str) -> NextStep | None:
    entry = Entry("alone", datetime.now(UTC), "", phase, body, "alone")
    reasons = reasons_of(unit, rules, VisitTape(_ANY_REASON, (entry,)))
    if not any(reason.level == SHUT_DOWN for reason in reasons):
        return None
    return next_step(reasons, (), (), owner_notice_due=False)
