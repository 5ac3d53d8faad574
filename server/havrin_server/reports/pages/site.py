"""A site's units side by side: newest readings, each with its verdict, and what they share."""

from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.quantities.display import show
from havrin_core.rules.model import ReadingView
from havrin_core.standing.model import Assessment
from havrin_core.standing.side_by_side import Beside, rows_of, shared_of, side_of
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.names import title as level_title
from havrin_core.wording.phrases import words
from havrin_server.people.models import Person
from havrin_server.reports.schemas.site import SiteCellOut, SiteContact, SiteOut, SiteRowOut, SiteUnitOut
from havrin_server.units.models import CONTACT_ROLES, Site, Unit
from havrin_server.units.queries import speaks_at
from havrin_server.visits.models import Visit
from havrin_server.visits.queries import assess_visit, newest_visits


def site_out(site: Site, person: Person) -> SiteOut:
    """Return the site's units beside each other, as ``person`` may see them, in the person's units."""
    system = person.unit_system
    seen = [
        _Seen(unit, system)
        for unit in site.unit_set.filter(retired_at=None).select_related("site", "model").order_by("label")
    ]
    beside = [Beside(one.unit.label, one.unit.gas_line, tuple(one.readings)) for one in seen]
    rows = [
        SiteRowOut(
            name=measurand(row.quantity).name,
            stage=STAGE_LABELS.get(row.stage or "", ""),
            cells=[_cell(view, system) if view is not None else None for view in row.cells],
        )
        for row in rows_of(beside)
    ]
    return SiteOut.of(
        site,
        contacts=[SiteContact.of(one, role=CONTACT_ROLES.get(one.role, "")) for one in speaks_at(site)],
        units=[one.out() for one in seen],
        rows=rows,
        shared=[words(shared.text) for shared in shared_of(beside)],
    )


class _Seen:
    """A unit with its two newest visits laid over each other: the newer reading wins."""

    def __init__(self, unit: Unit, system: str) -> None:
        self.unit = unit
        self.visits = newest_visits(unit)
        found = [assess_visit(visit) for visit in self.visits]
        self.newest: Assessment | None = found[0] if found else None
        self.readings: list[ReadingView] = []
        for assessment in found:
            known = {(view.quantity, view.stage) for view in self.readings}
            self.readings += [v for v in assessment.readings if (v.quantity, v.stage) not in known]

    def out(self) -> SiteUnitOut:
        visit: Visit | None = self.visits[0] if self.visits else None
        level = (visit.closed_level or self.newest.level) if visit and self.newest else None
        return SiteUnitOut.of(
            self.unit,
            kind=self.unit.described().kind.name,
            visit=visit.pk if visit else None,
            day=visit.day if visit else None,
            level=level,
            title=level_title(level) if level else "",
        )


def _cell(view: ReadingView, system: str) -> SiteCellOut:
    shown = show(view.value, measurand(view.quantity).dimension, system)
    return SiteCellOut.of(shown, state=view.verdict, side=side_of(view), day=view.at.date())
