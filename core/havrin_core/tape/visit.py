"""One visit as it is judged."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from havrin_core.quantities.uncertainty import Accuracy
from havrin_core.tape.entries import Entry

REASONS_FOR_VISIT = ("no_heat", "maintenance", "start_up", "after_repair", "return_parts", "recheck")


@dataclass(frozen=True, slots=True)
class LeftOpen:
    """What a closed visit left open for the next one: entries behind it, and the proofs that it did not show."""

    entries: tuple[Entry, ...] = ()
    owed: tuple[str, ...] = ()

    def joined(self, other: "LeftOpen") -> "LeftOpen":
        """Return what either left open, each once."""
        entries = {entry.id: entry for entry in (*self.entries, *other.entries)}
        return LeftOpen(tuple(entries.values()), tuple(dict.fromkeys((*self.owed, *other.owed))))


NOTHING_OPEN = LeftOpen()


@dataclass(frozen=True, slots=True)
class VisitTape:
    """One visit's tape, with what the unit's last visit left open (standing/carry_over.py)."""

    reason: str
    entries: tuple[Entry, ...]
    accuracies: Mapping[str, Mapping[str, Accuracy]] = field(default_factory=dict)  # instrument -> quantity -> accuracy
    before: LeftOpen = NOTHING_OPEN
