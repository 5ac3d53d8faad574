"""Who belongs to the firm: inviting, letting in again, changing, and leaving."""

import hashlib
import re
import secrets
from datetime import datetime, timedelta

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.db.models import QuerySet

from havrin_server.errors import NotAllowed, NotFound, NotWritable
from havrin_server.people.audit import record
from havrin_server.people.models import Firm, Invitation, Person, Role
from havrin_server.people.permissions import require
from havrin_server.people.sessions import end_sessions

LASTS = timedelta(days=7)
_USERNAME = re.compile(r"[a-z][a-z0-9.-]{1,29}")


def members_of(firm: Firm) -> QuerySet[Person]:
    """Return everybody who ever belonged to ``firm``, those who left last."""
    return Person.objects.filter(firm=firm).order_by("-is_active", "first_name", "last_name")


def open_invitations(firm: Firm, now: datetime) -> QuerySet[Invitation]:
    """Return the links of ``firm`` that still let somebody in."""
    rows = Invitation.objects.filter(firm=firm, used_at=None, revoked_at=None, expires_at__gt=now)
    return rows.select_related("made_by").order_by("made_at")


def invite(
    firm: Firm, *, username: str, first_name: str, last_name: str, role: str, by: Person | None, now: datetime
) -> tuple[Invitation, str]:
    """Return an invitation to ``firm`` and its token, which is kept nowhere. ``by`` is None from the command line.

    Raises NotAllowed, NotWritable (a name that is taken or cannot be one).
    """
    if by is not None:
        require(by, "people.write")
    name = _free_name(username, now)
    who = Person(username=name, first_name=first_name.strip(), last_name=last_name.strip(), role=role, firm=firm)
    made, token = _link_for(who, by=by, now=now)
    record("invited", by, f"{name}, {role}", name="command line", firm=firm)
    return made, token


def _free_name(username: str, now: datetime) -> str:
    name = username.strip().lower()
    if not _USERNAME.fullmatch(name):
        raise NotWritable(
            "A sign-in name has 2 to 30 letters, digits, dots and hyphens, and begins with a letter.", code="name_form"
        )
    invited = Invitation.objects.filter(username=name, person=None, used_at=None, revoked_at=None, expires_at__gt=now)
    if Person.objects.filter(username=name).exists() or invited.exists():
        raise NotWritable(f"The sign-in name {name} is taken.", code="name_taken")
    return name


def begin_reset(person: Person, *, by: Person | None, now: datetime) -> tuple[Invitation, str]:
    """Return a link by which ``person`` chooses a new password, and its token; earlier ones end. Raises NotAllowed."""
    if by is not None:
        require(by, "people.write")
    if not person.is_active:
        raise NotWritable(f"{person.full_name} has left: let them in again first.", code="person_left")
    person.resets.filter(used_at=None, revoked_at=None).update(revoked_at=now)
    made, token = _link_for(person, by=by, now=now)
    record("reset_begun", by, person.username, name="command line", firm=person.own_firm)
    return made, token


def _link_for(who: Person, *, by: Person | None, now: datetime) -> tuple[Invitation, str]:
    """Return a link that lets ``who`` choose a password, and its token; ``who`` may be nobody yet that is stored."""
    token = secrets.token_urlsafe(24)
    made = Invitation.objects.create(
        firm=who.own_firm,
        person=who if who.pk else None,
        username=who.username,
        first_name=who.first_name,
        last_name=who.last_name,
        role=who.role,
        token_hash=_hash(token),
        made_by=by,
        made_at=now,
        expires_at=now + LASTS,
    )
    return made, token


def revoke(invitation_id: int, *, by: Person, now: datetime) -> None:
    """Take a link back; taking it back twice is harmless. Raises NotAllowed, NotFound."""
    require(by, "people.write")
    found = Invitation.objects.filter(pk=invitation_id, firm=by.firm).first()
    if found is None:
        raise NotFound("There is no such invitation.")
    if found.is_open(now):
        found.revoked_at = now
        found.save(update_fields=["revoked_at"])
        record("invitation_revoked", by, found.username)


def invitation_by(token: str, now: datetime) -> Invitation:
    """Return the open invitation of a token. Raises NotFound, which says nothing of why."""
    found = Invitation.objects.select_related("firm", "person").filter(token_hash=_hash(token)).first()
    if found is None or not found.is_open(now):
        raise NotFound("This link does not open anything (any more): ask for a new one.", code="invitation_over")
    return found


@transaction.atomic
def accept(token: str, password: str, now: datetime) -> Person:
    """Return the person of an invitation, with ``password``: new, or the one it names, whose sessions and code end.

    Raises NotFound, NotWritable (a password that is too easy).
    """
    found = Invitation.objects.select_for_update(of=("self",)).get(pk=invitation_by(token, now).pk)
    if not found.is_open(now):
        raise NotFound("This link does not open anything (any more): ask for a new one.", code="invitation_over")
    person = found.person or Person(
        username=found.username, first_name=found.first_name, last_name=found.last_name, firm=found.firm
    )
    if found.person is None:
        person.role, person.unit_system = found.role, found.firm.unit_system
    must_be_good(password, person)
    person.set_password(password)
    person.code_secret = ""
    try:
        person.save()
    except IntegrityError:
        raise NotWritable(f"The sign-in name {found.username} is taken.", code="name_taken") from None
    found.used_at = now
    found.save(update_fields=["used_at"])
    end_sessions(person)
    record("invitation_used", person)
    return person


def must_be_good(password: str, person: Person) -> None:
    """Raise NotWritable with what is wrong with a password."""
    try:
        validate_password(password, person)
    except ValidationError as error:
        raise NotWritable(" ".join(error.messages), code="password_easy", details=error.messages) from None


@transaction.atomic
def change(person_id: int, *, role: str | None, active: bool | None, by: Person, now: datetime) -> Person:
    """Give a person another role, or end or renew their place in the firm; return the person.

    Who leaves is signed out everywhere, and the links they made or were sent end. Raises NotAllowed, NotFound, NotWritable
    (the last administrator).
    """
    require(by, "people.write")
    Firm.objects.select_for_update().get(pk=by.own_firm_id)  # two administrators at once would end each other
    person = Person.objects.filter(pk=person_id, firm=by.firm).first()
    if person is None:
        raise NotFound("There is nobody of that number in this firm.")
    before = (person.role, person.is_active)
    person.role, person.is_active = role or person.role, person.is_active if active is None else active
    if before == (person.role, person.is_active):
        return person
    person.save(update_fields=["role", "is_active"])
    if not Person.objects.filter(firm=by.firm, role=Role.ADMINISTRATOR, is_active=True).exists():
        raise NotWritable("A firm keeps at least one administrator.", code="last_administrator")
    if not person.is_active:
        end_sessions(person)
        Invitation.objects.filter(person=person, used_at=None, revoked_at=None).update(revoked_at=now)
        Invitation.objects.filter(made_by=person, used_at=None, revoked_at=None).update(revoked_at=now)
    record(
        "person_changed", by, f"{person.username}: {person.role}, {'in the firm' if person.is_active else 'has left'}"
    )
    return person


def change_password(person: Person, old: str, new: str) -> None:
    """Give ``person`` the password ``new``. Raises NotAllowed (the old one is wrong), NotWritable (the new one is too easy)."""
    if not person.check_password(old):
        raise NotAllowed("The password that you have now is another one.", code="wrong_password")
    must_be_good(new, person)
    person.set_password(new)
    person.save(update_fields=["password"])
    record("password_changed", person)


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()
