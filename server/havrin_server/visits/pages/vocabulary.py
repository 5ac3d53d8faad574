"""The vocabulary as lines to pick: what the visit's own unit has."""

from havrin_core.machine.unit import Unit
from havrin_core.wording.choices import abnormal_things, other_lines, things_done, things_found
from havrin_server.visits.schemas.lines import Vocabulary, WordOut


def pickable_lines(unit: Unit) -> Vocabulary:
    """Return everything that the bar's lists offer for ``unit``."""
    return Vocabulary(
        done=[WordOut.of(choice) for choice in things_done(unit)],
        found=[WordOut.of(choice) for choice in things_found(unit)],
        jumpers=[WordOut.of(choice) for choice in abnormal_things(unit)],
        other=[WordOut.of(choice) for choice in other_lines()],
    )
