"""Who may do what: one table, asked on every call. No person means refused."""

from havrin_server.errors import NotAllowed
from havrin_server.people.models import Person, Role

_ALLOWED: dict[str, frozenset[str]] = {
    "read": frozenset(Role.values),
    "visit.write": frozenset({Role.TECHNICIAN, Role.SUPERVISOR}),
    "visit.close": frozenset({Role.TECHNICIAN, Role.SUPERVISOR}),
    "standing.override": frozenset({Role.SUPERVISOR}),
}
_REFUSALS = {
    "visit.write": "The office reads tapes and does not write on them.",
    "visit.close": "The office cannot close a visit.",
    "standing.override": "Only a supervisor may set a milder standing.",
}


def require(person: Person, action: str) -> None:
    """Raise NotAllowed unless ``person`` belongs to a firm and the role covers ``action``."""
    if (
        not person.is_authenticated
        or not person.is_active
        or person.firm_id is None
        or person.role not in _ALLOWED[action]
    ):
        raise NotAllowed(_REFUSALS.get(action, "Sign in as somebody of the firm first."))
