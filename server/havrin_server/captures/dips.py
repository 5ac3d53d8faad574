"""What a capture says against a set point: dips, which channel moved first, which contact let go."""

from collections import Counter
from dataclasses import dataclass
from math import ceil

import numpy as np

from havrin_core.limits.limits import band_for
from havrin_core.limits.table import bound
from havrin_core.machine.unit import Unit
from havrin_core.quantities.display import sentence
from havrin_core.quantities.formats import number
from havrin_core.search.opened_contact import OpenedContact, opened_contact
from havrin_core.traces.dips import Dip, Moved, find_dips, moved_at, quiet_run_s
from havrin_core.traces.samples import leads_of, quantity_of
from havrin_core.vocabulary.measurands import LEAST_OF, measurand
from havrin_core.wording.phrases import words
from havrin_server.captures.live import on_one_clock, traces
from havrin_server.captures.models import Capture

MOST_TOLD = 60  # of more dips than this the first ones are looked at one by one
_SUCTION = "draft_pa"


@dataclass(frozen=True, slots=True)
class DipReading:
    """``point`` and ``least`` canonical; ``moved`` and ``contacts`` go with the first ``dips``; ``part`` let go in half of them or more."""

    stage: str
    point: float
    least: float
    usual: float  # median
    watched_s: float
    quiet_s: float | None
    dips: tuple[Dip, ...]
    moved: tuple[Moved, ...]
    contacts: tuple[OpenedContact | None, ...]
    part: str

    @property
    def said_of_contacts(self) -> list[str]:
        """What the dips say of the contacts, the most frequent first, each with how many say it."""
        counted = Counter(words(contact.says) for contact in self.contacts if contact is not None)
        return [f"In {count} of {len(self.contacts)}: {says}" for says, count in counted.most_common(2)]


def read_dips(capture: Capture, channel: str, set_point: float | None = None) -> DipReading | None:
    """Return the dips of ``channel`` under ``set_point`` (canonical; its stamp where none is given); None where nothing was recorded."""
    series = on_one_clock(traces(capture))
    if series is None or channel not in series.channels:
        return None
    unit = capture.visit.unit.described()
    stage = stage_of(capture, channel, unit)
    point = stamp(capture, channel) if set_point is None else set_point
    values = abs(series.channels[channel]) if channel == _SUCTION else series.channels[channel]
    dips = find_dips(series.seconds, values, point)
    watched = float(series.seconds[-1] - series.seconds[0])
    moved = tuple(moved_at(series.seconds, series.channels, dip.start_s) for dip in dips[:MOST_TOLD])
    contacts = tuple(_contact(unit, one) for one in moved)
    return DipReading(
        stage,
        point,
        float(np.nanmin(values)),
        float(np.nanmedian(values)),
        watched,
        quiet_run_s(dips, watched),
        dips,
        moved,
        contacts,
        _named(contacts),
    )


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


def _contact(unit: Unit, moved: Moved) -> OpenedContact | None:
    circuit = unit.circuit
    if circuit is None:
        return None
    gone = {name: at for name, at in moved.order if leads_of(name) is None or name in moved.fell}
    there = {*moved.still, *(name for name, _ in moved.order if name not in gone)}
    common = circuit.common
    return opened_contact(
        circuit, {_node(name, common): at for name, at in gone.items()}, {_node(name, common) for name in there}
    )


def _node(channel: str, common: str) -> str:
    """Return the node of volts against common; any other channel as it is."""
    leads = leads_of(channel)
    return leads[0] if leads and leads[1] == common else channel


def _named(contacts: tuple[OpenedContact | None, ...]) -> str:
    counted = Counter(contact.part for contact in contacts if contact is not None and contact.part)
    part, count = counted.most_common(1)[0] if counted else ("", 0)
    return part if 2 * count >= len(contacts) else ""


def worst_of(channel: str, found: DipReading) -> str | None:
    """Return the quantity under which the worst of ``channel`` stands on the tape; None where it has none.

    Volts count where the channel has its supply most of the time: across a closed contact there are none to lose.
    """
    name = LEAST_OF.get(quantity_of(channel))
    return None if name == "control_least_v" and found.usual < (bound("control_least").low or 0.0) else name


def dips_say(found: DipReading, channel: str, system: str) -> str:
    """Return how many dips there were in which time, and how long a quiet run must last, in a sentence."""
    point = sentence(found.point, measurand(quantity_of(channel)).dimension, system)
    count = len(found.dips)
    says = f"{count} dip{'' if count == 1 else 's'} under {point} in {number(found.watched_s / 60, '.1f')} min."
    if found.quiet_s is None:
        return says
    return f"{says} Only a run of {_lasting(found.quiet_s)} without one would say with 95 % that it is gone."


def _lasting(seconds: float) -> str:
    """Return a time that is never nothing: seconds under two minutes, minutes under two hours, then hours."""
    if seconds < 120:
        return f"{max(ceil(seconds), 1)} s"
    return f"{ceil(seconds / 60)} min" if seconds < 7200 else f"{number(seconds / 3600, '.1f')} h"
