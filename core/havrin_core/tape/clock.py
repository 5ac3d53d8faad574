"""Which of two entries came later, when their clocks may be wrong."""

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import NamedTuple

from havrin_core.tape.entries import Entry

# Two clocks that were put right are this far apart at the most: the way of a line through a poor net.
DOUBT = timedelta(seconds=90)


class Moment(NamedTuple):  # thousands are made with each judgement: a named tuple is made in a fifth of the time
    """When an entry was written. ``order`` is its turn of receipt; ``told``: its clock is known to be right or put right."""

    at: datetime
    order: int
    writer: str
    told: bool

    def surely_after(self, other: "Moment") -> bool:
        """Tell whether this came after ``other`` whatever the clocks say.

        One writer's own entries stand in his own order. Between two writers whose clocks were put right there must lie
        more than the doubt; of a clock that nobody checked, the order of receipt must say the same.
        """
        if self.writer == other.writer:
            return (self.at, self.order) > (other.at, other.order)
        if self.told and other.told:
            return self.at > other.at + DOUBT
        return self.at > other.at and self.order > other.order


def moments(entries: Sequence[Entry]) -> dict[str, Moment]:
    """Return the moment of each entry; the order of receipt is by ``received_at``, else as they stand."""
    turns = sorted(range(len(entries)), key=lambda i: (_received(entries[i]), i))
    order = {entries[index].id: turn for turn, index in enumerate(turns)}
    return {
        e.id: Moment(e.true_at, order[e.id], e.device or e.author, e.sent_at is not None and e.received_at is not None)
        for e in entries
    }


def _received(entry: Entry) -> float:
    # What has no time of receipt comes from a bundle: it was all there at once, before anything that was received.
    return entry.received_at.timestamp() if entry.received_at is not None else float("-inf")
