"""A visit's readings as CSV: canonical value beside what was typed."""

import csv
import io

from havrin_core.tape.corrections import effective
from havrin_core.tape.entries import Reading, Trace
from havrin_server.files import no_formula
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import tape_of

COLUMNS = ("at", "author", "phase", "stage", "quantity", "value_si", "typed", "typed_unit", "instrument", "entry_id")


def readings_csv(visit: Visit) -> str:
    """Return the readings after corrections, one row each; a log's means count as readings."""
    target = io.StringIO()
    writer = csv.writer(target, lineterminator="\n")
    writer.writerow(COLUMNS)  # texts of people go through no_formula, figures stay figures
    for line in effective(tape_of(visit)):
        entry, body = line.entry, line.body
        lead = (entry.at.isoformat(), no_formula(entry.author), line.phase)
        instrument = no_formula(entry.instrument)
        if isinstance(body, Reading):
            writer.writerow(
                [
                    *lead,
                    body.stage or "",
                    body.quantity,
                    f"{body.value:.9g}",
                    f"{body.typed:g}",
                    body.unit,
                    instrument,
                    entry.id,
                ]
            )
        elif isinstance(body, Trace):
            for quantity, mean, _ in body.means:
                writer.writerow([*lead, body.stage or "", quantity, f"{mean:.9g}", "", "", instrument, entry.id])
    return target.getvalue()
