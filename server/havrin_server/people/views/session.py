"""Signing in and out, what a person prefers, and how the firm writes."""

from django.contrib.auth import logout
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Router, Status

from havrin_core.quantities.formats import Formats
from havrin_server.people import sessions
from havrin_server.people.audit import record
from havrin_server.people.brake import must_be_own_page
from havrin_server.people.codes import must_set_code
from havrin_server.people.models import Person
from havrin_server.people.permissions import allows, require
from havrin_server.people.requests import SignedIn
from havrin_server.people.schemas import FormatsIn, Me, Preferences, SignIn

router = Router(tags=["session"])


def me(person: Person) -> Me:
    """Return the signed-in person for the page."""
    firm = person.firm
    return Me.of(
        person,
        name=person.full_name,
        firm=firm.name if firm else "",
        sample_world=firm is not None and firm.sample_world,
        zone=firm.zone if firm else "UTC",
        formats=firm.formats() if firm else Formats(),
        writes_formats=allows(person, "house.write"),
        writes_visits=allows(person, "visit.write"),
        sees_people=allows(person, "people.read"),
        goes_out=allows(person, "visit.write"),
        imports=allows(person, "cards.import"),
        has_code=bool(person.code_secret),
        must_set_code=must_set_code(person),
    )


@router.get("/session", response=Me)
def who(request: SignedIn) -> Me:
    """Return who is signed in."""
    get_token(request)
    return me(request.user)


@router.post("/session", response=Me, auth=None)
def sign_in(request: HttpRequest, payload: SignIn) -> Me:
    """Sign in with name and password, and with a one-time code where one is set up."""
    must_be_own_page(request)
    person = sessions.sign_in(request, payload.username, payload.password, payload.code)
    get_token(request)
    return me(person)


@router.delete("/session", response={204: None})
def sign_out(request: SignedIn) -> Status[None]:
    """Sign out."""
    record("sign_out", request.user)
    logout(request)
    return Status(204, None)


@router.patch("/session", response=Me)
def prefer(request: SignedIn, payload: Preferences) -> Me:
    """Choose the units that are shown."""
    request.user.unit_system = payload.unit_system
    request.user.save(update_fields=["unit_system"])
    return me(request.user)


@router.put("/firm/formats", response=Me)
def write_formats(request: SignedIn, payload: FormatsIn) -> Me:
    """Set how the firm writes days, clock and numbers, on the page and on paper from now on."""
    require(request.user, "house.write")
    firm = request.user.own_firm
    firm.day_format, firm.clock_format, firm.decimal_mark = payload.days, payload.clock, payload.decimal
    firm.save(update_fields=["day_format", "clock_format", "decimal_mark"])
    record("formats_changed", request.user, f"{payload.days}, {payload.clock}, {payload.decimal}")
    return me(request.user)
