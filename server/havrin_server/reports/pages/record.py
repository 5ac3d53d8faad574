"""The record of one unit, for the firm and for the customer."""

from collections import defaultdict
from collections.abc import Sequence
from uuid import UUID

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.trends import renewed_at, trend_of
from havrin_core.limits.limits import band_for
from havrin_core.quantities.display import show
from havrin_core.quantities.units import shown_unit
from havrin_core.rules.readings import judged_value
from havrin_core.standing.model import Assessment
from havrin_core.tape.corrections import effective
from havrin_core.tape.entries import Action, Entry
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.closing import standing_title
from havrin_core.wording.entries import echo
from havrin_core.wording.names import VISIT_REASONS, quantity_name, visit_reason
from havrin_core.wording.record import trend_words
from havrin_core.wording.stations import unit_line
from havrin_core.workings.model import usual_half_width
from havrin_server.captures.models import Photo
from havrin_server.people.models import Person
from havrin_server.people.schemas import FormatsOut
from havrin_server.reports.models import ShareLink
from havrin_server.reports.pages.links import link_out
from havrin_server.reports.schemas.record import (
    RecordCell,
    RecordRow,
    RecordVisit,
    SharedOut,
    SharedVisit,
    TrendPoint,
    UnitRecord,
)
from havrin_server.reports.sharing import shared_visits, token_of
from havrin_server.units.models import Unit
from havrin_server.units.queries import same_appliance
from havrin_server.visits.models import Visit
from havrin_server.visits.pages.earlier import closed_title
from havrin_server.visits.queries import assess_visit, tapes_of

_MOST_VISITS = 40
Key = tuple[str, str | None]


class _Seen:
    """One visit, read and judged once."""

    def __init__(self, visit: Visit, system: str, tape: tuple[Entry, ...], photos: list[UUID]) -> None:
        self.visit, self.system, self.tape, self.photos = visit, system, tape, photos
        self.found: Assessment = assess_visit(visit, self.tape)
        self.facts = Facts(self.tape)
        self.views = {(v.quantity, v.stage): v for v in self.found.readings}

    def out(self) -> RecordVisit:
        visit = self.visit
        level = visit.closed_level or self.found.level
        said = {name: [b.text for _, b in self.facts.said(name)] for name in ("advise", "refuse")}
        done = [echo(line.body, self.system) for line in effective(self.tape) if isinstance(line.body, Action)]
        return RecordVisit.of(
            visit,
            reason=visit_reason(visit.reason),
            technician=visit.technician_name,
            level=level,
            title=closed_title(visit) if visit.closed_at else standing_title(self.found),
            closed=visit.closed_at is not None,
            words=visit.customer_words,
            advised=said["advise"],
            refused=said["refuse"],
            done=done,
            photos=self.photos,
        )

    def cell(self, key: Key) -> RecordCell | None:
        view = self.views.get(key)
        if view is None:
            return None
        dimension = measurand(key[0]).dimension
        newest = show(view.value, dimension, self.system).text
        left = view.phase == "left"
        earlier = show(view.found, dimension, self.system).text if view.found is not None else ""
        return RecordCell(found=earlier if left else newest, left=newest if left else "", state=view.verdict)


def unit_record(unit: Unit, person: Person) -> UnitRecord:
    """Return the unit's record in the person's units, visits newest first."""
    system = person.unit_system
    rows = Visit.objects.filter(unit__in=same_appliance(unit.pk), version__gt=0).select_related(
        "unit__site", "unit__model", "technician"
    )
    seen = _seen(list(rows.order_by("-day", "-pk")[:_MOST_VISITS]), system)
    visits = [one.out() for one in seen]
    keys = list(dict.fromkeys(key for one in seen for key in one.views))
    return UnitRecord.of(
        unit,
        line=unit_line(unit.described(), system),
        site=unit.site.name,
        zone=unit.site.zoneinfo().key,
        retired=unit.retired_at is not None,
        reasons=dict(VISIT_REASONS),
        visits=visits,
        rows=[_row(unit, key, seen, system) for key in keys],
        links=[link_out(link) for link in unit.links.select_related("made_by").order_by("-made_at")],
    )


def _seen(visits: Sequence[Visit], system: str) -> list[_Seen]:
    """Return each visit, read and judged; what they hold is asked for at once."""
    tapes, photos = tapes_of(visit.pk for visit in visits), defaultdict[int, list[UUID]](list)
    for visit_id, pk in Photo.objects.filter(visit__in=visits).order_by("taken_at").values_list("visit_id", "pk"):
        photos[visit_id].append(pk)
    return [_Seen(visit, system, tapes[visit.pk], photos[visit.pk]) for visit in visits]


def _own_series(seen: list[_Seen], key: Key) -> list[_Seen]:
    """Return the visits that read ``key`` since work last made a fresh start for it, oldest first."""
    series: list[_Seen] = []
    for one in reversed(seen):
        renewed, view = renewed_at(one.tape, key[0]), one.views.get(key)
        if renewed is not None:
            series = []
        if view is not None and (renewed is None or view.at >= renewed):
            series.append(one)
    return series


def _row(unit: Unit, key: Key, seen: list[_Seen], system: str) -> RecordRow:
    quantity, stage = key
    what = measurand(quantity)
    own = _own_series(seen, key)
    points = [(one.visit.day, judged_value(quantity, one.views[key].value)) for one in own]
    band = band_for(unit.described(), seen[0].visit.rules(), quantity, stage)
    trend = trend_of(points, band, usual_half_width(what.dimension, points[-1][1])) if points else None
    return RecordRow(
        name=quantity_name(quantity, stage),
        unit=shown_unit(what.dimension, system).symbol,
        cells=[one.cell(key) for one in seen],
        trend=trend_words(trend, quantity, system),
        points=_points(seen, own, key),
        low=band.low if band else None,
        high=band.high if band else None,
    )


def _points(seen: list[_Seen], own: list[_Seen], key: Key) -> list[TrendPoint]:
    """Return the readings of ``key`` oldest first; only those that work left alone, ``own``, hang together."""
    read = [one for one in reversed(seen) if key in one.views]
    return [
        TrendPoint(
            day=one.visit.day,
            value=judged_value(key[0], one.views[key].value),
            state=one.views[key].verdict,
            joined=one in own[1:],
        )
        for one in read
    ]


def shared_page(link: ShareLink) -> SharedOut:
    """Return what a customer's link shows."""
    token = token_of(link)
    unit = link.unit
    return SharedOut(
        firm=unit.site.firm.name,
        unit=unit.name,
        site=unit.site.name,
        until=link.expires_at.astimezone(link.unit.site.zoneinfo()).date(),
        formats=FormatsOut.of(unit.site.firm.formats()),
        visits=[
            SharedVisit.of(
                v,
                reason=visit_reason(v.reason),
                level=v.closed_level or 1,
                title=closed_title(v),
                words=v.customer_words,
                report=f"/api/shared/{token}/{v.pk}.pdf",
            )
            for v in shared_visits(link)
        ],
    )
