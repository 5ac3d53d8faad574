"""When a suspect is clear, and not only likely: by a direct look or measurement of the very part, never by elimination alone.

A device that protects is never clear before what makes it open was looked for.
"""

from collections.abc import Sequence

from havrin_core.machine.circuit.model import Part
from havrin_core.search.inference import Hypothesis
from havrin_core.search.likelihood import DIRECT
from havrin_core.search.model import PART, Observation, Seen, Suspect, Test
from havrin_core.search.pictures import GOOD, Pictures

CLEAR_SHARE = 0.95
_STANDS_V, _DEAD_SHARE = (
    8.0,
    0.5,
)  # volts across a contact that should be closed; a source that gives less than its half
PROTECTS = ("limit", "trip_switch", "level_switch", "pressure_switch", "vent_pressure_switch", "gas_switch")


def is_clear(pictures: Pictures, first: Suspect, hypotheses: Sequence[Hypothesis], seen: Seen) -> bool:
    """Tell whether the ``first`` suspect is proved by what was ``seen`` since the last action."""
    if first.kind != PART or first.share < CLEAR_SHARE:
        return False
    part = pictures.circuit.part(first.part)
    return any(_shows_it(pictures, part, o) for o in seen.now) and _cause_looked_for(pictures, part, seen)


def _shows_it(pictures: Pictures, part: Part, seen: Observation) -> bool:
    """Tell whether an observation is of the very part, and shows it at fault."""
    test = pictures.test(seen.test)
    if test.kind in DIRECT:
        return test.part == part.key and seen.outcome != GOOD
    if test.kind == "volts":
        return _across(pictures, part, test, seen)
    return (
        test.kind == "found" and part.key in pictures.meant(test.part) and seen.outcome in pictures.shows_as(part.key)
    )


def _across(pictures: Pictures, part: Part, test: Test, seen: Observation) -> bool:
    if test.leads is None or not part.nodes or not isinstance(seen.outcome, float):
        return False
    ends = part.nodes[2:] if part.kind == "transformer" else part.nodes[:2]
    if set(test.leads) != set(ends):
        return False
    if part.kind in ("switch", "wire"):
        return seen.outcome > _STANDS_V
    sound = pictures.sound[seen.test]
    return part.kind == "source" and isinstance(sound, float) and seen.outcome < _DEAD_SHARE * sound


def _cause_looked_for(pictures: Pictures, part: Part, seen: Seen) -> bool:
    """Tell whether one of the things that could have opened a protecting device was looked at or measured."""
    if part.family not in PROTECTS:
        return True
    causes = pictures.causes_of(part.key)
    return not causes or any(_is_of(pictures.test(o.test), part, causes, pictures) for o in seen.observations)


def _is_of(test: Test, part: Part, causes: frozenset[str], pictures: Pictures) -> bool:
    if test.kind == "found":
        return bool(pictures.meant(test.part) & causes)
    if test.kind in DIRECT and test.part in causes:
        return True
    return test.kind == "gauge" and bool(part.feels) and test.quantity == part.feels
