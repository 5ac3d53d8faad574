"""The standing as data for the page; of a closed visit as it stood at its close."""

from collections.abc import Mapping
from typing import Any

from havrin_core.machine.unit import Unit
from havrin_core.rules.families import must_be_named, open_causes
from havrin_core.rules.model import Missing, Reason
from havrin_core.standing.model import Assessment, NextStep
from havrin_core.wording.closing import not_judged_words, standing_title
from havrin_core.wording.missing import because_text, missing_how, missing_starter, missing_text
from havrin_core.wording.reasons import reason_words
from havrin_core.wording.steps import step_words
from havrin_server.visits.models import Visit
from havrin_server.visits.schemas.standing import MissingOut, NextOut, ReasonOut, StandingOut


def standing_out(visit: Visit, found: Assessment, step: NextStep | None, unit: Unit, system: str) -> StandingOut:
    """Return the standing for the page, with the one next step."""
    if visit.frozen is not None:
        return _as_it_was(visit.frozen[system])
    return StandingOut.of(
        found,
        title=standing_title(found),
        reasons=[_reason(reason, system) for reason in found.reasons],
        missing=[_missing(item, unit) for item in found.missing],
        next_step=_next(step, unit, system) if step else None,
        not_judged=[not_judged_words(quantity, stage) for quantity, stage in found.not_judged],
        several_causes=must_be_named(open_causes(found.reasons)),
    )


def _reason(reason: Reason, system: str) -> ReasonOut:
    said = reason_words(reason, system)
    return ReasonOut.of(
        reason, text=said.text, lifts=said.lifts, source=said.source, reading=said.reading, limit=said.limit
    )


def _missing(item: Missing, unit: Unit) -> MissingOut:
    return MissingOut.of(
        item,
        text=missing_text(item),
        how=missing_how(item),
        after_work=because_text(item),
        starter=missing_starter(item, unit),
    )


def _next(step: NextStep, unit: Unit, system: str) -> NextOut:
    said = step_words(step, unit, system)
    return NextOut.of(said, minutes=step.minutes, station=step.station)


def _as_it_was(frozen: Mapping[str, Any]) -> StandingOut:
    """Return the standing as it was stored at the close: today's rules and models change nothing of it."""
    missing = [{**m, "after_work": m["because"], "starter": m["line"].partition("…")[0]} for m in frozen["missing"]]
    reasons = [{**reason, "lifts": reason["lifts_text"]} for reason in frozen["reasons"]]
    stored = {**frozen, "missing": missing, "reasons": reasons, "next_step": None, "several_causes": False}
    return StandingOut.model_validate(stored)
