"""Who may do what: one table, asked on every call. No person means refused."""

from havrin_server.errors import NotAllowed
from havrin_server.people.codes import must_set_code
from havrin_server.people.models import Person, Role

_EVERYBODY = frozenset(Role.values)
# In a firm of one the same person does everything: an administrator may what a supervisor may, and keeps the people.
_DECIDES = frozenset({Role.SUPERVISOR, Role.ADMINISTRATOR})
_KEEPS = _DECIDES | {Role.OFFICE}
_FIELD = _DECIDES | {Role.TECHNICIAN}
_ALLOWED: dict[str, frozenset[str]] = {
    "read": _EVERYBODY,
    "visit.write": _FIELD,
    "visit.close": _FIELD,
    "visit.plan": _EVERYBODY,
    "standing.override": _DECIDES,
    "entry.set_aside": _DECIDES,
    "shop.write": _DECIDES,
    "house.write": _DECIDES,
    "share": _EVERYBODY,
    "site.write": _EVERYBODY,  # also at the door
    "unit.write": _EVERYBODY,
    "shelf.write": _KEEPS,  # parts and instruments
    "firm.write": _DECIDES,
    "cards.retire": _KEEPS,
    "cards.merge": _KEEPS,
    "cards.import": _KEEPS,
    "cards.export": _KEEPS,
    "people.read": _DECIDES,
    "people.write": frozenset({Role.ADMINISTRATOR}),
    "audit.read": _DECIDES,
}
_REFUSALS = {
    "visit.write": "The office reads tapes and does not write on them.",
    "visit.close": "The office cannot close a visit.",
    "entry.set_aside": "Only a supervisor sets aside what cannot be read.",
    "shop.write": "Only a supervisor changes what is kept in the shop.",
    "house.write": "Only a supervisor sets the house rules.",
    "standing.override": "Only a supervisor may set a milder standing.",
    "shelf.write": "Parts and instruments are kept by the office and the supervisors.",
    "firm.write": "Only supervisors and administrators change what stands on the firm's papers.",
    "cards.retire": "The office or a supervisor retires what is no longer there.",
    "cards.merge": "The office or a supervisor merges what stands twice.",
    "cards.import": "The office or a supervisor takes lists in.",
    "cards.export": "The office or a supervisor takes lists out.",
    "people.read": "Only supervisors and administrators see who belongs to the firm.",
    "people.write": "Only an administrator changes who belongs to the firm.",
    "audit.read": "Only supervisors and administrators read the audit log.",
}


def allows(person: Person, action: str) -> bool:
    """Tell whether ``person`` belongs to a firm, has a one-time code if the firm asks for one, and the role covers ``action``."""
    known = person.is_authenticated and person.is_active and person.firm_id is not None
    return known and not must_set_code(person) and person.role in _ALLOWED[action]


def require(person: Person, action: str) -> None:
    """Raise NotAllowed unless ``person`` may do ``action``."""
    if allows(person, action):
        return
    if person.is_authenticated and must_set_code(person):
        raise NotAllowed("Your firm asks for a one-time code: set it up on your own page first.", code="code_required")
    raise NotAllowed(_REFUSALS.get(action, "Sign in as somebody of the firm first."))
