"""Which causes can bring a reason about, by its code: a key of data/causes.toml."""

from collections.abc import Collection, Sequence

from havrin_core.rules.findings import family_of
from havrin_core.rules.model import Lift, Reason
from havrin_core.vocabulary.catalogue import conditions, parts

# What one thing brings about at once: flue gas in the room is read, smelt and felt. A trip or the call goes along with any.
CLUSTERS = {"fumes": "flue gas", "spill": "flue gas", "fire": "fire", "heat": "heat"}
_BY_CODE = {
    "spillage_time": "spill",
    "reset_unexplained": "trip",
    "call": "any",
    "device_fails": "any",
    "gas_in_the_air": "any",
}


def family_of_code(code: str) -> str:
    """Return the family of the reason called ``code``."""
    if code in _BY_CODE:
        return _BY_CODE[code]
    part, _, condition = code.partition(".")
    return family_of(part, condition) if part in parts() and condition in conditions() else "fumes"


def asks_cause(reason: Reason) -> bool:
    """Tell whether a reason asks for its cause."""
    return any(_is_cause(lift) for lift in reason.lifts)


def _is_cause(lift: Lift) -> bool:
    return lift.key == "cause" or any(_is_cause(one) for one in lift.either)


def open_causes(reasons: Sequence[Reason]) -> tuple[tuple[str, str], ...]:
    """Return what asks for a cause, for the bar: (code, family of causes) each."""
    return tuple((reason.code, family_of_code(reason.code)) for reason in reasons if asks_cause(reason))


def must_be_named(open_: Sequence[tuple[str, str]], codes: Collection[str] | None = None) -> bool:
    """Tell whether a cause has to say which danger it explains: several are open that one thing does not bring about at once."""
    clusters = {CLUSTERS[family] for code, family in open_ if family in CLUSTERS and (codes is None or code in codes)}
    return len(clusters) > 1
