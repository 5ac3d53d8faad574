"""The record of one unit: visits on a time line, readings as found and as left."""

from datetime import date
from uuid import UUID

from havrin_server.people.schemas import FormatsOut
from havrin_server.reports.schemas.links import LinkOut
from havrin_server.view_model import ViewModel


class RecordVisit(ViewModel):
    """One visit of the record; ``level`` of an open one as it stands now."""

    id: int
    day: date
    reason: str
    technician: str
    level: int
    title: str
    closed: bool
    complaint: str
    words: str
    advised: list[str]
    refused: list[str]
    done: list[str]
    photos: list[UUID]


class RecordCell(ViewModel):
    """A reading on one visit, as found and as left; ``state`` as it was judged then."""

    found: str
    left: str
    state: str


class TrendPoint(ViewModel):
    """A reading on a day, canonical unit; ``joined`` to the one before unless work made a fresh start between them."""

    day: date
    value: float
    state: str
    joined: bool


class RecordRow(ViewModel):
    """One reading across the visits, in their order; ``trend`` in words where there is one.

    ``points`` are the same readings, oldest first; ``low`` and ``high`` their limits, canonical unit.
    """

    name: str
    unit: str
    cells: list[RecordCell | None]
    trend: str
    points: list[TrendPoint]
    low: float | None
    high: float | None


class UnitRecord(ViewModel):
    """All of it; visits newest first."""

    id: int
    name: str
    line: str
    site: str
    site_id: int
    serial: str
    zone: str  # of the place, an IANA name
    vulnerable: str
    retired: bool
    merged_into_id: int | None  # under which its appliance is kept now
    reasons: dict[str, str]  # for which a visit can be planned
    visits: list[RecordVisit]
    rows: list[RecordRow]
    links: list[LinkOut]


class SharedVisit(ViewModel):
    """A visit as the customer sees it."""

    id: int
    day: date
    reason: str
    level: int
    title: str
    words: str
    report: str


class SharedOut(ViewModel):
    """What a customer's link opens: one unit's reports and nothing else."""

    firm: str
    unit: str
    site: str
    until: date
    formats: FormatsOut
    visits: list[SharedVisit]
