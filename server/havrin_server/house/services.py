"""What other house rules would have made of the visits that were."""

from collections.abc import Mapping
from dataclasses import asdict, dataclass, replace
from datetime import datetime
from typing import Any

from django.db import transaction

from havrin_core.house.house_rules import HouseRules, house_rules_from_dict
from havrin_core.machine.unit import Unit
from havrin_core.standing.assess import assess
from havrin_core.standing.model import Assessment
from havrin_core.wording.closing import remark_words
from havrin_core.wording.missing import missing_text
from havrin_core.wording.reasons import reason_words
from havrin_server.people.audit import record
from havrin_server.people.models import Firm, Person
from havrin_server.people.permissions import require
from havrin_server.versions.models import Sort
from havrin_server.versions.services import keep_change
from havrin_server.visits.models import Visit
from havrin_server.visits.pins import HOUSE_RULES
from havrin_server.visits.queries import judged_tape, visits_of

LOOKS_BACK = 50  # visits


@dataclass(frozen=True, slots=True)
class Changed:
    """One visit that other rules would have judged otherwise, or of which they would have asked something else."""

    visit: Visit
    before: Assessment
    after: Assessment
    system: str = "us"

    @property
    def says(self) -> list[str]:
        """What comes and what goes, in sentences."""
        had, has = self._reasons(self.before), self._reasons(self.after)
        asked, asks = ([missing_text(item) for item in found.missing] for found in (self.before, self.after))
        remarked, remarks = ([remark_words(remark) for remark in found.remarks] for found in (self.before, self.after))
        lines = [text for text in has if text not in had]
        lines += [f"No longer: {text}" for text in had if text not in has]
        lines += [f"Also to show: {text}" for text in asks if text not in asked]
        lines += [f"No longer to show: {text}" for text in asked if text not in asks]
        lines += [line for line in remarks if line not in remarked]
        return lines + [f"No longer: {line}" for line in remarked if line not in remarks]

    def _reasons(self, found: Assessment) -> list[str]:
        return [reason_words(reason, self.system).text for reason in found.reasons]


@dataclass(frozen=True, slots=True)
class DryRun:
    """``looked_at`` visits; those that would change; and how many each changed rule changes by itself."""

    looked_at: int
    changed: tuple[Changed, ...]
    by_rule: Mapping[str, int]


def dry_run(rules: HouseRules, actor: Person) -> DryRun:
    """Judge the firm's last visits by ``rules`` and by the rules of today; nothing is written."""
    require(actor, "read")
    today = actor.firm.rules() if actor.firm else HouseRules()
    rows = visits_of(actor).filter(version__gt=0).order_by("-day", "-pk")[:LOOKS_BACK]
    seen = [_Seen(visit, actor.unit_system) for visit in rows]
    before = [one.judged(today) for one in seen]
    differ = [name for name in asdict(rules) if name != "name" and getattr(rules, name) != getattr(today, name)]
    by_rule = {name: _count(seen, before, replace(today, **{name: getattr(rules, name)})) for name in differ}
    after = [one.judged(rules) for one in seen]
    rows_out = [Changed(one.visit, b, a, one.system) for one, b, a in zip(seen, before, after, strict=True)]
    return DryRun(len(seen), tuple(row for row in rows_out if row.says or row.before.level != row.after.level), by_rule)


def _count(seen: list["_Seen"], before: list[Assessment], rules: HouseRules) -> int:
    after = [one.judged(rules) for one in seen]
    rows = [Changed(one.visit, b, a, one.system) for one, b, a in zip(seen, before, after, strict=True)]
    return sum(1 for row in rows if row.says or row.before.level != row.after.level)


class _Seen:
    """A visit with its tape read once."""

    def __init__(self, visit: Visit, system: str) -> None:
        self.visit, self.system = visit, system
        self.unit: Unit = visit.described()
        self.tape = judged_tape(visit)

    def judged(self, rules: HouseRules) -> Assessment:
        return assess(self.unit, rules, self.tape, self.visit.left or None)


@transaction.atomic
def keep_rules(given: Mapping[str, Any], *, actor: Person, now: datetime, reason: str = "") -> HouseRules:
    """Set the firm's house rules for visits that begin from now on. Raises NotAllowed, BadDocument.

    Visits that have begun keep the rules they are judged by.
    """
    require(actor, "house.write")
    rules = house_rules_from_dict(given)
    assert actor.firm is not None
    before, after = asdict(actor.firm.rules()), asdict(rules)
    keep_change(actor.firm.pk, Sort.RULES, HOUSE_RULES, before, after, now=now, author=actor, reason=reason)
    Firm.objects.filter(pk=actor.own_firm_id).update(house_rules=after)
    record("house_rules_written", actor, reason)
    return rules
