"""One visit as it is judged."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from havrin_core.quantities.uncertainty import Accuracy
from havrin_core.tape.entries import Entry

REASONS_FOR_VISIT = {
    "no_heat": "No heat",
    "maintenance": "Maintenance",
    "start_up": "Start-up",
    "after_repair": "After a repair",
    "return_parts": "Return with parts",
    "recheck": "Re-check",
}


@dataclass(frozen=True, slots=True)
class VisitTape:
    """One visit as it is judged. ``open_before``: entries of earlier visits whose danger nothing cleared (left_open.py)."""

    reason: str
    entries: tuple[Entry, ...]
    accuracies: Mapping[str, Mapping[str, Accuracy]] = field(default_factory=dict)  # instrument -> quantity -> accuracy
    open_before: tuple[Entry, ...] = ()
