"""The audit log: what touches who may do what, and what left the house. It is added to and never changed."""

from typing import Literal, get_args

from django.db.models import QuerySet
from django.utils import timezone

from havrin_server.people.models import AuditRecord, Firm, Person
from havrin_server.people.origin import present_address

Action = Literal[
    "sign_in",
    "sign_in_refused",
    "sign_out",
    "sessions_ended",
    "password_changed",
    "code_set",
    "code_removed",
    "codes_required",
    "invited",
    "reset_begun",
    "invitation_used",
    "invitation_revoked",
    "person_changed",
    "formats_changed",
    "shop_written",
    "house_rules_written",
    "card_made",
    "card_changed",
    "card_retired",
    "card_merged",
    "merge_undone",
    "imported",
    "import_undone",
    "visit_cancelled",
    "key_made",
    "key_revoked",
    "link_made",
    "link_revoked",
    "exported",
    "overridden",
    "set_aside",
    "refused",
]
ACTIONS: tuple[Action, ...] = get_args(Action)
PAGE = 100


def record(action: Action, person: Person | None, about: str = "", *, name: str = "", firm: Firm | None = None) -> None:
    """Note that ``person`` did ``action``; ``name`` is what was typed where nobody is known by it."""
    AuditRecord.objects.create(
        firm_id=person.firm_id if person is not None else (firm.pk if firm is not None else None),
        person=person,
        name=(person.username if person is not None else name)[:150],
        at=timezone.now(),
        action=action,
        about=about[:300],
        address=present_address(),
    )


def records_of(
    firm: Firm, *, action: str = "", name: str = "", before: int | None = None, most: int = PAGE
) -> QuerySet[AuditRecord]:
    """Return the newest records of ``firm``, at most ``most``; of one action, of one name, older than the record ``before``."""
    rows = AuditRecord.objects.filter(firm=firm).select_related("person").order_by("-pk")
    if action:
        rows = rows.filter(action=action)
    if name:
        rows = rows.filter(name=name)
    if before is not None:
        rows = rows.filter(pk__lt=before)
    return rows[:most]
