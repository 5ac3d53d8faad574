"""What the owner has to know though nothing is out of its limits: advice, refusals, a cause not found, no condensing."""

from collections.abc import Iterator

from havrin_core.facts.facts import Facts
from havrin_core.limits.limits import SOURCES
from havrin_core.quantities.display import sentence
from havrin_core.rules.model import TELL, FlueView, Reason
from havrin_core.rules.proofs import Case, is_cause

_STRIKE = "It stands until somebody does it (“Strike” on the tape where it was a mistake)."
_COME_BACK = "Come back on the days on which it fails; name the cause then."
_LOWER = "Lower its return: bypass, pump speed, flow temperature."
_RAISE = "Raise its return: mixing valve, bypass, pump."


def told_reasons(case: Case, views: list[FlueView], system: str) -> list[Reason]:
    """Return the reasons for telling the owner."""
    return [*_advice(case.facts), *_cause_not_found(case.facts), *_condensing(case, views, system)]


def _advice(facts: Facts) -> Iterator[Reason]:
    for name, said in (("advise", "Advised"), ("refused", "Refused")):
        for entry, body in facts.decisions(name):
            yield Reason(TELL, name, f"{said}: {body.text}.", _STRIKE, "", body.text, "", "the technician", entry.id)


def _cause_not_found(facts: Facts) -> Iterator[Reason]:
    causes = facts.decisions("cause")
    if causes and not any(is_cause(body) for _, body in causes):
        entry, body = causes[-1]
        yield Reason(
            TELL,
            "cause_not_found",
            f"The cause: {body.text}.",
            _COME_BACK,
            "",
            body.text,
            "",
            SOURCES["house"],
            entry.id,
        )


def _condensing(case: Case, views: list[FlueView], system: str) -> Iterator[Reason]:
    """A condensing boiler whose return is too warm to condense, or another whose return is so cold that it does."""
    back = case.facts.newest("water_return_temp_k", None)
    losses = next((v.result.losses for v in reversed(views) if v.result and v.result.losses), None)
    if back is None or losses is None:
        return
    water, dew = (sentence(value, "temperature", system) for value in (back.value, losses.dew_point_k))
    limit = f"dew point of this flue {dew}"
    if case.unit.kind.condensing and back.value > losses.dew_point_k:
        text = f"It cannot condense: its return water is {water}, the flue's dew point {dew}."
        yield Reason(
            TELL, "cannot_condense", text, _LOWER, "return_water", water, limit, SOURCES["default"], back.entry_id
        )
    elif not case.unit.kind.condensing and back.value < losses.dew_point_k:
        text = f"It condenses where it is not made for it: its return water is {water}, the flue's dew point {dew}."
        yield Reason(TELL, "condenses", text, _RAISE, "return_water", water, limit, SOURCES["default"], back.entry_id)
