"""One-time codes (TOTP, RFC 6238): six digits every half minute from an app of the person's own."""

import time

import pyotp
import segno
from pyotp.utils import strings_equal

from havrin_server.people.models import Person, Role

DECIDES = frozenset({Role.SUPERVISOR, Role.ADMINISTRATOR})  # of whom a firm may require codes
_DRIFT = 1  # half minutes that a phone's clock may be off
_STEP_S = 30


def new_secret() -> str:
    """Return a secret for a person's app, base 32."""
    return pyotp.random_base32()


def step_of(secret: str, code: str, after: int = 0) -> int | None:
    """Return the half minute that ``code`` belongs to, if it is one of now and later than ``after``; else None."""
    now, digits = int(time.time()) // _STEP_S, "".join(code.split())
    made = pyotp.TOTP(secret)
    steps = range(max(now - _DRIFT, after + 1), now + _DRIFT + 1)
    return next((step for step in steps if strings_equal(made.generate_otp(step), digits)), None)


def opens(person: Person, code: str) -> bool:
    """Tell whether ``code`` is ``person``'s now, and note it: none opens twice, not even for two who come at once."""
    step = step_of(person.code_secret, code, person.code_step)
    if step is None:
        return False
    return Person.objects.filter(pk=person.pk, code_step__lt=step).update(code_step=step) == 1


def must_set_code(person: Person) -> bool:
    """Tell whether the firm requires codes of ``person``, who has set none up."""
    return bool(
        person.firm is not None and person.firm.codes_required and person.role in DECIDES and not person.code_secret
    )


def picture_of(person: Person, secret: str) -> str:
    """Return the code that an app reads with its camera, as the address of an SVG picture."""
    address = pyotp.TOTP(secret).provisioning_uri(name=person.username, issuer_name="Havrin")
    return segno.make(address, error="m").svg_data_uri(scale=5, border=3, light="white")
