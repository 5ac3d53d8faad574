"""What is a person's own: password, one-time codes, and where they are signed in."""

import uuid

from django.contrib.auth import update_session_auth_hash
from ninja import Router

from havrin_server.errors import NotAllowed, NotFound, NotWritable
from havrin_server.people import codes, sessions
from havrin_server.people.audit import record
from havrin_server.people.members import change_password
from havrin_server.people.models import Person
from havrin_server.people.requests import SignedIn
from havrin_server.people.schemas import CodeIn, CodeSetUp, Me, PasswordIn, PasswordKept, SessionOut
from havrin_server.people.views.session import me

router = Router(tags=["session"])
_NEW_SECRET = "new_code_secret"


@router.put("/session/password", response=Me)
def write_password(request: SignedIn, payload: PasswordIn) -> Me:
    """Choose another password; every other session of this person ends."""
    change_password(request.user, payload.old, payload.new)
    _go_on_alone(request, request.user)
    return me(request.user)


@router.get("/session/all", response=list[SessionOut])
def all_sessions(request: SignedIn) -> list[SessionOut]:
    """Return where this person is signed in."""
    own = request.session.session_key
    rows = sessions.sessions_of(request.user)
    return [SessionOut.of(row, id=_name_of(row.session_key), here=row.session_key == own) for row in rows]


@router.delete("/session/all", response=list[SessionOut])
def end_others(request: SignedIn) -> list[SessionOut]:
    """Sign this person out everywhere else."""
    ended = sessions.end_sessions(request.user, but=str(request.session.session_key))
    record("sessions_ended", request.user, f"all others: {ended}")
    return all_sessions(request)


@router.delete("/session/all/{uuid:session_id}", response=list[SessionOut])
def end_one(request: SignedIn, session_id: uuid.UUID) -> list[SessionOut]:
    """Sign this person out in one other place."""
    found = next((row for row in sessions.sessions_of(request.user) if _name_of(row.session_key) == session_id), None)
    if found is None or found.session_key == request.session.session_key:
        raise NotFound("There is no other session like that.")
    sessions.end_sessions(request.user, only=found.session_key)
    record("sessions_ended", request.user, found.device)
    return all_sessions(request)


@router.post("/session/code", response=CodeSetUp)
def begin_code(request: SignedIn) -> CodeSetUp:
    """Return a new secret for the person's app; it counts once a code of it was given back."""
    if request.user.code_secret:
        raise NotWritable("One-time codes are set up already: remove them first.", code="code_there")
    secret = codes.new_secret()
    request.session[_NEW_SECRET] = secret
    return CodeSetUp(secret=secret, picture=codes.picture_of(request.user, secret))


@router.put("/session/code", response=Me)
def confirm_code(request: SignedIn, payload: CodeIn) -> Me:
    """Ask for one-time codes from now on: the first of them, and the password, prove that the app has the secret."""
    secret = request.session.get(_NEW_SECRET, "")
    step = codes.step_of(secret, payload.code) if secret else None
    _must_know(request.user, payload.password)
    if step is None:
        raise NotWritable("This is not the code of this moment: enter what the app shows now.", code="wrong_code")
    request.user.code_secret, request.user.code_step = secret, step
    request.user.save(update_fields=["code_secret", "code_step"])
    del request.session[_NEW_SECRET]
    _go_on_alone(request, request.user)
    record("code_set", request.user)
    return me(request.user)


@router.post("/session/code/remove", response=Me)
def remove_code(request: SignedIn, payload: PasswordKept) -> Me:
    """Ask for no one-time codes any more."""
    _must_know(request.user, payload.password)
    request.user.code_secret = ""
    request.user.save(update_fields=["code_secret"])
    record("code_removed", request.user)
    return me(request.user)


def _must_know(person: Person, password: str) -> None:
    if not person.check_password(password):
        raise NotAllowed("The password is another one.", code="wrong_password")


def _go_on_alone(request: SignedIn, person: Person) -> None:
    """Keep this session, under a new key, and end all others of ``person``."""
    update_session_auth_hash(request, person)
    request.session.save()
    sessions.end_sessions(person, but=str(request.session.session_key))


def _name_of(session_key: str) -> uuid.UUID:
    """Return a name for a session from which its key cannot be told."""
    return uuid.uuid5(uuid.NAMESPACE_OID, session_key)
