"""Who belongs to the firm, invitations, and the audit log."""

from django.http import HttpRequest
from django.middleware.csrf import get_token
from django.utils import timezone
from ninja import Router

from havrin_server.errors import NotFound
from havrin_server.overviews import overview
from havrin_server.people import audit, members
from havrin_server.people.brake import must_be_own_page
from havrin_server.people.codes import DECIDES
from havrin_server.people.models import Invitation, Person
from havrin_server.people.permissions import allows, require
from havrin_server.people.requests import SignedIn
from havrin_server.people.schemas import (
    AuditOut,
    AuditRow,
    CodesRequiredIn,
    InvitationIn,
    InvitationOut,
    InvitedOut,
    Me,
    MemberIn,
    MemberOut,
    MembersOut,
    NewPassword,
    OpenedOut,
)
from havrin_server.people.sessions import open_session
from havrin_server.people.views.session import me

router = Router(tags=["people"])


@router.get("/people", response=MembersOut)
def people(request: SignedIn) -> MembersOut:
    """Return who belongs to the firm, and the links that are open."""
    require(request.user, "people.read")
    return _members(request.user)


@router.post("/people/invitations", response=InvitedOut)
def invite(request: SignedIn, payload: InvitationIn) -> InvitedOut:
    """Invite somebody; the link is answered this once and kept nowhere."""
    require(request.user, "people.write")
    made, token = members.invite(request.user.own_firm, **payload.model_dump(), by=request.user, now=timezone.now())
    return _invited(request, made, token)


@router.delete("/people/invitations/{int:invitation_id}", response=MembersOut)
def revoke(request: SignedIn, invitation_id: int) -> MembersOut:
    """Take a link back."""
    members.revoke(invitation_id, by=request.user, now=timezone.now())
    return _members(request.user)


@router.post("/people/{int:person_id}/reset", response=InvitedOut)
def reset(request: SignedIn, person_id: int) -> InvitedOut:
    """Return a link by which a person chooses a new password; it is answered this once and kept nowhere."""
    require(request.user, "people.write")
    found = Person.objects.filter(pk=person_id, firm=request.user.firm).first()
    if found is None:
        raise NotFound("There is nobody of that number in this firm.")
    return _invited(request, *members.begin_reset(found, by=request.user, now=timezone.now()))


@router.patch("/people/{int:person_id}", response=MembersOut)
def change(request: SignedIn, person_id: int, payload: MemberIn) -> MembersOut:
    """Give a person another role, or end or renew their place in the firm."""
    members.change(person_id, role=payload.role, active=payload.active, by=request.user, now=timezone.now())
    return _members(request.user)


@router.put("/firm/codes-required", response=MembersOut)
def require_codes(request: SignedIn, payload: CodesRequiredIn) -> MembersOut:
    """Set whether supervisors and administrators need a one-time code to sign in."""
    require(request.user, "people.write")
    firm = request.user.own_firm
    firm.codes_required = payload.required
    firm.save(update_fields=["codes_required"])
    audit.record("codes_required", request.user, "yes" if payload.required else "no")
    request.user.refresh_from_db()
    return _members(request.user)


@router.get("/invitations/{token}", response=OpenedOut, auth=None)
def opened(request: HttpRequest, token: str) -> OpenedOut:
    """Return whom a link lets in."""
    get_token(request)
    return OpenedOut.of(
        found := members.invitation_by(token, timezone.now()), firm=found.firm.name, again=found.person_id is not None
    )


@router.post("/invitations/{token}", response=Me, auth=None)
def accept(request: HttpRequest, token: str, payload: NewPassword) -> Me:
    """Choose a password by a link, and be signed in."""
    must_be_own_page(request)
    person = members.accept(token, payload.password, timezone.now())
    open_session(request, person)
    audit.record("sign_in", person)
    get_token(request)
    return me(person)


@router.get("/audit", response=AuditOut)
@overview
def audit_log(request: SignedIn, action: str = "", name: str = "", before: int | None = None) -> AuditOut:
    """Return the newest records of the audit log, before the one of that number."""
    require(request.user, "audit.read")
    rows = audit.records_of(request.user.own_firm, action=action, name=name, before=before, most=audit.PAGE + 1)
    return AuditOut(
        rows=[AuditRow.of(row, who=row.person.full_name if row.person else row.name) for row in rows[: audit.PAGE]],
        more=len(rows) > audit.PAGE,
        actions=list(audit.ACTIONS),
    )


def _members(person: Person) -> MembersOut:
    firm = person.own_firm
    return MembersOut(
        people=[_member(one) for one in members.members_of(firm)],
        invitations=[_invitation(one) for one in members.open_invitations(firm, timezone.now())],
        codes_required=firm.codes_required,
        may_write=allows(person, "people.write"),
    )


def _member(one: Person) -> MemberOut:
    return MemberOut.of(one, name=one.full_name, has_code=bool(one.code_secret), decides=one.role in DECIDES)


def _invitation(one: Invitation) -> InvitationOut:
    name = f"{one.first_name} {one.last_name}".strip()
    return InvitationOut.of(
        one, name=name, by=one.made_by.full_name if one.made_by else "", again=one.person_id is not None
    )


def _invited(request: HttpRequest, made: Invitation, token: str) -> InvitedOut:
    return InvitedOut(invitation=_invitation(made), link=request.build_absolute_uri(f"/join/{token}"))
