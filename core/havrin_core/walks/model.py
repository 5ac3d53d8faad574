"""A walk and its stops."""

from collections.abc import Mapping
from dataclasses import dataclass

ARRIVAL = "arrival"  # the look-over with which every visit can begin
MAINTENANCE = "maintenance"
# test of the whole unit -> the line that says it was passed
CHECKS: Mapping[str, str] = {"leak": "leak ok", "cycles": "cycles 1"}


@dataclass(frozen=True, slots=True)
class Stop:
    """One stop: keys of the vocabulary for its part, the quantities read, the conditions found, the verbs done.

    ``read`` are quantities that the stop is for, ``may_read`` those it can do without. ``proved``: its part is a safety
    device that is shown to act. ``check``: a key of CHECKS, "" for none.
    """

    key: str
    part: str
    read: tuple[str, ...] = ()
    may_read: tuple[str, ...] = ()
    found: tuple[str, ...] = ()
    did: tuple[str, ...] = ()
    proved: bool = False
    check: str = ""


@dataclass(frozen=True, slots=True)
class Walk:
    """Stops in their order. ``key`` is ARRIVAL or the reason of a visit; ``kind`` is the kind of unit that it is for."""

    key: str
    kind: str
    name: str
    stops: tuple[Stop, ...]
