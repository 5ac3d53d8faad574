"""Who may do what: one table, asked on every call. No person means refused."""

from havrin_server.errors import NotAllowed
from havrin_server.people.models import Person, Role

_ALLOWED: dict[str, frozenset[str]] = {
    "read": frozenset(Role.values),
    "visit.write": frozenset({Role.TECHNICIAN, Role.SUPERVISOR}),
    "visit.close": frozenset({Role.TECHNICIAN, Role.SUPERVISOR}),
    "visit.plan": frozenset(Role.values),
    "standing.override": frozenset({Role.SUPERVISOR}),
    "entry.set_aside": frozenset({Role.SUPERVISOR}),
    "shop.write": frozenset({Role.SUPERVISOR}),
    "house.write": frozenset({Role.SUPERVISOR}),
    "share": frozenset(Role.values),
}
_REFUSALS = {
    "visit.write": "The office reads tapes and does not write on them.",
    "visit.close": "The office cannot close a visit.",
    "entry.set_aside": "Only a supervisor sets aside what cannot be read.",
    "shop.write": "Only a supervisor changes what is kept in the shop.",
    "house.write": "Only a supervisor sets the house rules.",
    "standing.override": "Only a supervisor may set a milder standing.",
}


def allows(person: Person, action: str) -> bool:
    """Tell whether ``person`` belongs to a firm and the role covers ``action``."""
    known = person.is_authenticated and person.is_active and person.firm_id is not None
    return known and person.role in _ALLOWED[action]


def require(person: Person, action: str) -> None:
    """Raise NotAllowed unless ``person`` belongs to a firm and the role covers ``action``."""
    if not allows(person, action):
        raise NotAllowed(_REFUSALS.get(action, "Sign in as somebody of the firm first."))
