"""What a capture says against a set point: dips, which channel moved first, which contact let go."""

from collections import Counter
from dataclasses import dataclass

import numpy as np

from havrin_core.limits.limits import band_for
from havrin_core.limits.table import bound
from havrin_core.machine.unit import Unit
from havrin_core.quantities.display import sentence
from havrin_core.search.contacts_of_dips import contact_of, inducer_volts, movers_of, named
from havrin_core.search.opened_contact import OpenedContact
from havrin_core.tape.entries import Reading
from havrin_core.traces.dips import DipsRead, bursts, quiet_run_s, read_dips
from havrin_core.traces.movers import Moved
from havrin_core.traces.series import Channels
from havrin_core.vocabulary.channels import quantity_of
from havrin_core.vocabulary.measurands import LEAST_OF, measurand
from havrin_core.wording.phrases import words
from havrin_core.wording.traces import said_of_dips
from havrin_server.captures.live import clock_error_s, traces
from havrin_server.captures.models import Capture
from havrin_server.visits.queries import tape_of

MOST_TOLD = 60  # of more dips than this the first ones are looked at one by one
_FELT = {
    "draft_pa": "",
    "supply_air_temp_k": "limit_point_k",
}  # a switch's channel -> its point on the tape; "" its stamp


@dataclass(frozen=True, slots=True)
class DipReading:
    """``point`` canonical; ``moved`` and ``contacts`` go with the first dips; ``part`` let go in half of them or more."""

    stage: str
    point: float
    usual: float  # median
    read: DipsRead
    clock_error_s: float
    moved: tuple[Moved, ...]
    contacts: tuple[OpenedContact | None, ...]
    part: str

    @property
    def quiet_s(self) -> float | None:
        """How long it must run without a dip to be gone with 95 %, s."""
        return quiet_run_s(bursts(self.read.dips), self.read.watched_s)

    @property
    def said_of_contacts(self) -> list[str]:
        """What the dips say of the contacts, the most frequent first, each with how many say it."""
        counted = Counter(words(contact.says) for contact in self.contacts if contact is not None)
        return [f"In {count} of {len(self.contacts)}: {says}" for says, count in counted.most_common(2)]


def dips_of(capture: Capture, channel: str, set_point: float | None = None) -> DipReading | None:
    """Return the dips of ``channel`` under ``set_point`` (canonical; its stamp where none is given); None where nothing was recorded."""
    channels = traces(capture)
    if channel not in channels or not len(channels[channel][0]):
        return None
    unit = capture.visit.unit.described()
    point = stamp(capture, channel) if set_point is None else set_point
    marks = [(mark.kind, mark.at_ms / 1000) for mark in capture.marks.all()]
    read = read_dips(channels, channel, point, marks, inducer_volts(unit.circuit))
    clocks = clock_error_s(capture)
    moved = movers_of(channels, read.dips[:MOST_TOLD], clocks)
    points = _points(capture, channels, unit)
    contacts = tuple(contact_of(unit.circuit, one, points, clocks) if unit.circuit else None for one in moved)
    usual = float(np.median(channels[channel][1]))
    return DipReading(stage_of(capture, channel, unit), point, usual, read, clocks, moved, contacts, named(contacts))


def _points(capture: Capture, channels: Channels, unit: Unit) -> dict[str, float]:
    """Return the points of the switches that feel what is recorded: the stamp of the draft, the limit's point on the tape."""
    wanted = {name: on_tape for name, on_tape in _FELT.items() if name in channels}
    tape = tape_of(capture.visit) if any(wanted.values()) else ()
    read = {e.body.quantity: e.body.value for e in tape if isinstance(e.body, Reading)}
    found = {name: read[on_tape] for name, on_tape in wanted.items() if on_tape in read}
    if "draft_pa" in wanted:
        band = band_for(unit, capture.visit.rules(), "draft_pa", stage_of(capture, "draft_pa", unit))
        if band is not None and band.low is not None:
            found["draft_pa"] = band.low
    return found


def stage_of(capture: Capture, channel: str, unit: Unit) -> str:
    """Return the stage at which ``channel`` was recorded; the highest where nobody said."""
    rows = capture.recorders.filter(blocks__quantity=channel).values_list("stage", flat=True).distinct()
    return next((stage for stage in rows if stage in unit.stage_keys), unit.stage_keys[-1])


def stamp(capture: Capture, channel: str) -> float:
    """Return the point that ``channel`` must not fall under: the stamp, the least of its band, or 18 V of control voltage."""
    if quantity_of(channel) == "volts_across_v":
        return bound("control_least").low or 0.0
    unit = capture.visit.unit.described()
    band = band_for(unit, capture.visit.rules(), channel, stage_of(capture, channel, unit))
    return band.low if band is not None and band.low is not None else 0.0


def worst_of(channel: str, found: DipReading) -> str | None:
    """Return the quantity under which the worst of ``channel`` stands on the tape; None where it has none.

    Volts count where the channel has its supply most of the time: across a closed contact there are none to lose.
    """
    name = LEAST_OF.get(quantity_of(channel))
    return None if name == "control_least_v" and found.usual < (bound("control_least").low or 0.0) else name


def dips_say(found: DipReading, channel: str, system: str) -> tuple[str, ...]:
    """Return what the dips say, in sentences: how many in which time, and how long a quiet run must last."""
    return said_of_dips(found.read, sentence(found.point, measurand(quantity_of(channel)).dimension, system))
