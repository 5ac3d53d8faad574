"""House rules: read, tried on the visits that were, kept."""

from dataclasses import asdict

from django.utils import timezone
from ninja import Router

from havrin_core.house.house_rules import LIMITS, PRESETS, HouseRules, house_rules_from_dict
from havrin_core.house.schools import QUESTIONS, SCHOOLS
from havrin_core.wording.names import title
from havrin_core.wording.phrases import words
from havrin_server.house.schemas import (
    AnswerOut,
    ChangedVisitOut,
    DryRunOut,
    HouseLimitOut,
    HouseRulesIn,
    HouseRulesOut,
    PresetOut,
    QuestionOut,
)
from havrin_server.house.services import Changed, dry_run, keep_rules
from havrin_server.people.models import Person
from havrin_server.people.permissions import allows, require
from havrin_server.people.requests import SignedIn

router = Router(tags=["house rules"])


@router.get("/house-rules", response=HouseRulesOut)
def rules(request: SignedIn) -> HouseRulesOut:
    """Return the firm's rules with every question, answer and reason."""
    require(request.user, "read")
    return _out(request.user.own_firm.rules(), request.user)


@router.put("/house-rules", response=HouseRulesOut)
def keep(request: SignedIn, payload: HouseRulesIn) -> HouseRulesOut:
    """Set the firm's rules for visits that begin from now on."""
    return _out(keep_rules(payload.rules, actor=request.user, now=timezone.now(), reason=payload.reason), request.user)


@router.post("/house-rules/try", response=DryRunOut)
def try_out(request: SignedIn, payload: HouseRulesIn) -> DryRunOut:
    """Return what these rules would have made of the last visits; nothing is kept."""
    found = dry_run(house_rules_from_dict(payload.rules), request.user)
    return DryRunOut(
        looked_at=found.looked_at, by_rule=dict(found.by_rule), changed=[_changed(row) for row in found.changed]
    )


def _changed(row: Changed) -> ChangedVisitOut:
    return ChangedVisitOut.of(
        row.visit,
        unit=row.visit.unit.name,
        before=row.before.level,
        after=row.after.level,
        before_title=title(row.before.level),
        after_title=title(row.after.level),
        says=row.says,
    )


def _out(rules: HouseRules, person: Person) -> HouseRulesOut:
    return HouseRulesOut(
        name=rules.name,
        writable=allows(person, "house.write"),
        questions=[
            QuestionOut(
                key=key,
                name=words(name),
                chosen=getattr(rules, key),
                answers=[AnswerOut(key=a, reason=words(r)) for a, r in SCHOOLS[key].items()],
            )
            for key, name in QUESTIONS.items()
        ],
        limits=[
            HouseLimitOut(
                key=key,
                name=name,
                value=getattr(rules, key),
                least=least,
                most=most,
                unit="" if unit == "share" else unit,
            )
            for key, (name, unit, least, most) in LIMITS.items()
        ],
        presets=[PresetOut(name=name, rules=asdict(preset)) for name, preset in PRESETS.items()],
    )
