"""The record of one unit, for the firm and for the customer."""

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.trends import trend_of
from havrin_core.limits.limits import band_for
from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.quantities.display import sentence, show
from havrin_core.quantities.units import shown_unit
from havrin_core.rules.readings import judged_value
from havrin_core.standing.model import TITLES, Assessment
from havrin_core.tape.entries import Entry, effective
from havrin_core.tape.visit import REASONS_FOR_VISIT
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.describe import describe
from havrin_server.api.present import unit_line
from havrin_server.api.present_closing import link_out
from havrin_server.api.schemas_units import RecordCell, RecordRow, RecordVisit, SharedOut, SharedVisit, UnitRecord
from havrin_server.journal.models import Visit
from havrin_server.journal.queries import assess_visit, tape_of
from havrin_server.people.models import Person
from havrin_server.reports.models import ShareLink
from havrin_server.reports.sharing import shared_visits, token_of
from havrin_server.sites.models import Unit

_MOST_VISITS = 40
_APART = ("volts_across_v", "event_s")
Key = tuple[str, str | None]


class _Seen:
    """One visit, read and judged once."""

    def __init__(self, visit: Visit, system: str) -> None:
        self.visit, self.system = visit, system
        self.tape: tuple[Entry, ...] = tape_of(visit)
        self.found: Assessment = assess_visit(visit, system, self.tape)
        self.facts = Facts(self.tape)
        self.views = {
            (v.quantity, v.stage): v for s in self.found.stations for v in s.readings if v.quantity not in _APART
        }

    def out(self) -> RecordVisit:
        visit = self.visit
        level = visit.closed_level or self.found.level
        said = {name: [b.text for _, b in self.facts.decisions(name)] for name in ("advise", "refused")}
        done = [describe(e.body, self.system) for e in effective(self.tape) if e.kind == "action"]
        return RecordVisit(
            id=visit.pk, day=visit.day, reason=REASONS_FOR_VISIT[visit.reason], technician=visit.technician.full_name, level=level,
            title=TITLES[level] if visit.closed_at else self.found.title, closed=visit.closed_at is not None, complaint=visit.complaint,
            words=visit.customer_words, advised=said["advise"], refused=said["refused"], done=[f"{d.text} {d.value}".strip() for d in done],
            photos=list(visit.photos.order_by("taken_at").values_list("pk", flat=True)),
        )  # fmt: skip

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
    rows = Visit.objects.filter(unit=unit, version__gt=0).select_related("unit__site", "unit__model", "technician")
    seen = [_Seen(visit, system) for visit in rows.order_by("-day", "-pk")[:_MOST_VISITS]]
    visits = [one.out() for one in seen]
    keys = list(dict.fromkeys(key for one in seen for key in one.views))
    return UnitRecord(
        id=unit.pk, name=unit.name, line=unit_line(seen[0].visit, unit.described(), system) if seen else unit.described().kind.name,
        site=unit.site.name, site_id=unit.site_id, serial=unit.serial, reasons=dict(REASONS_FOR_VISIT),
        visits=visits, rows=[_row(unit, key, seen, system) for key in keys],
        links=[link_out(link) for link in unit.links.select_related("made_by").order_by("-made_at")],
    )  # fmt: skip


def _row(unit: Unit, key: Key, seen: list[_Seen], system: str) -> RecordRow:
    quantity, stage = key
    what = measurand(quantity)
    label = STAGE_LABELS[stage] if stage else ""
    points = [
        (one.visit.day, judged_value(quantity, one.views[key].value)) for one in reversed(seen) if key in one.views
    ]
    band = band_for(unit.described(), seen[0].visit.rules(), quantity, stage)
    trend = trend_of(points, band)
    words = ""
    if trend is not None:
        moved = sentence(
            abs(trend.per_year), "temperature_difference" if what.dimension == "temperature" else what.dimension, system
        )
        words = f"{'falls' if trend.per_year < 0 else 'rises'} about {moved} a year"
        words += f"; reaches its limit about {trend.crosses:%B %Y}" if trend.crosses else ""
    return RecordRow(
        name=f"{what.name}, {label} fire" if label else what.name, unit=shown_unit(what.dimension, system).symbol,
        cells=[one.cell(key) for one in seen], trend=words,
    )  # fmt: skip


def shared_page(link: ShareLink) -> SharedOut:
    """Return what a customer's link shows."""
    token = token_of(link)
    unit = link.unit
    return SharedOut(
        firm=unit.site.firm.name, unit=unit.name, site=unit.site.name, until=link.expires_at.date(),
        visits=[
            SharedVisit(
                id=v.pk, day=v.day, reason=REASONS_FOR_VISIT[v.reason], level=v.closed_level or 1, title=TITLES[v.closed_level or 1],
                words=v.customer_words, report=f"/api/shared/{token}/{v.pk}.pdf",
            )
            for v in shared_visits(link)
        ],
    )  # fmt: skip
