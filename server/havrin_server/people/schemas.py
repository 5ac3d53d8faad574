"""Who is signed in, what is their own, who belongs to the firm, and the audit log."""

import uuid
from datetime import datetime
from typing import Literal

from pydantic import Field

from havrin_core.quantities.formats import ClockFormat, DayFormat, DecimalMark
from havrin_server.incoming import Incoming
from havrin_server.people.audit import Action
from havrin_server.view_model import ViewModel

RoleKey = Literal["technician", "supervisor", "office", "administrator"]


class FormatsOut(ViewModel):
    """How the firm writes days, clock and numbers."""

    days: DayFormat
    clock: ClockFormat
    decimal: DecimalMark


class Me(ViewModel):
    """The person who is signed in."""

    name: str
    username: str
    role: RoleKey
    firm: str
    sample_world: bool  # whether all of it is made up
    zone: str  # the firm's, an IANA name
    unit_system: Literal["us", "metric"]
    formats: FormatsOut
    writes_formats: bool  # whether this person sets them for the firm
    writes_visits: bool
    sees_people: bool  # and the audit log
    goes_out: bool  # has a day of their own; the office begins at the board
    imports: bool  # may take lists in and out
    has_code: bool  # whether a one-time code is asked at sign-in
    must_set_code: bool  # whether the firm asks for one that is not set up yet: nothing else can be done


class SignIn(Incoming):
    """Name and password, and the one-time code where one is set up."""

    username: str = Field(max_length=150)
    password: str = Field(max_length=500)
    code: str = Field("", max_length=20)


class Preferences(Incoming):
    """What a person may choose for their own screen."""

    unit_system: Literal["us", "metric"]


class FormatsIn(Incoming):
    """How the firm is to write days, clock and numbers."""

    days: DayFormat
    clock: ClockFormat
    decimal: DecimalMark


Password = Field(max_length=500)
Code = Field(max_length=20)


class PasswordIn(Incoming):
    """Another password for oneself."""

    old: str = Password
    new: str = Password


class PasswordKept(Incoming):
    """The password that one has, to show that it is oneself."""

    password: str = Password


class NewPassword(Incoming):
    """The password that somebody invited chooses."""

    password: str = Password


class CodeIn(Incoming):
    """The first code of an app, and the password."""

    code: str = Code
    password: str = Password


class CodeSetUp(ViewModel):
    """What an app needs for one-time codes: the secret, base 32, and its QR code as the address of a picture."""

    secret: str
    picture: str


class SessionOut(ViewModel):
    """Where somebody is signed in."""

    id: uuid.UUID
    began_at: datetime | None
    used_at: datetime | None
    address: str
    device: str  # as the browser calls itself
    here: bool


class InvitationIn(Incoming):
    """Somebody who is to join."""

    username: str = Field(max_length=30)
    first_name: str = Field(min_length=1, max_length=150)
    last_name: str = Field("", max_length=150)
    role: RoleKey


class InvitationOut(ViewModel):
    """A link that still lets somebody in; the link itself is kept nowhere."""

    id: int
    username: str
    name: str
    role: RoleKey
    made_at: datetime
    expires_at: datetime
    by: str
    again: bool  # for somebody who is in the firm already, and chooses a new password


class InvitedOut(ViewModel):
    """A link just made."""

    invitation: InvitationOut
    link: str


class OpenedOut(ViewModel):
    """Whom a link lets in."""

    firm: str
    username: str
    first_name: str
    again: bool


class MemberIn(Incoming):
    """What is to change about a person."""

    role: RoleKey | None = None
    active: bool | None = None


class MemberOut(ViewModel):
    """Somebody of the firm."""

    id: int
    username: str
    name: str
    role: RoleKey
    is_active: bool  # or has left
    last_login: datetime | None
    has_code: bool
    decides: bool  # whether it is somebody of whom codes may be required


class MembersOut(ViewModel):
    """Everybody of the firm."""

    people: list[MemberOut]
    invitations: list[InvitationOut]
    codes_required: bool
    may_write: bool


class CodesRequiredIn(Incoming):
    """Whether those who decide need a one-time code."""

    required: bool


class AuditRow(ViewModel):
    """A record of the audit log."""

    id: int
    at: datetime
    action: Action
    who: str
    about: str
    address: str


class AuditOut(ViewModel):
    """A page of the audit log, newest first."""

    rows: list[AuditRow]
    more: bool
    actions: list[Action]
