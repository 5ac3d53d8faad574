"""Files that leave the house: papers, bundle, readings, calendar, photos."""

import json
from uuid import UUID

from django.http import HttpResponse
from django.utils import timezone
from ninja import Router

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.plan import follow_up_of
from havrin_server.errors import NotFound
from havrin_server.files import file_answer, pdf_answer
from havrin_server.people.audit import record
from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.reports import papers
from havrin_server.reports.calendar import calendar_of
from havrin_server.reports.kept import amendment_paper, paper_of
from havrin_server.reports.models import PaperKind
from havrin_server.reports.readings_csv import readings_csv
from havrin_server.reports.schemas.papers import PreviewOut
from havrin_server.units.queries import find_site
from havrin_server.visits.models import Amendment, Visit
from havrin_server.visits.queries import bundle_of, find_visit, tape_of
from havrin_server.visits.views.addresses import record_address

router = Router(tags=["papers"])


def _visit(request: SignedIn, visit_id: int) -> Visit:
    require(request.user, "read")
    return find_visit(visit_id, request.user)


def _paper(request: SignedIn, visit_id: int, kind: str, name: str) -> HttpResponse:
    visit = _visit(request, visit_id)
    address = record_address(request, visit.unit_id)
    content = paper_of(visit, kind, person=request.user, address=address, now=timezone.now())
    return pdf_answer(content, f"{visit.unit.label}-{visit.day}-{name}.pdf")


@router.get("/visits/{int:visit_id}/report.pdf", response={200: None})
def report(request: SignedIn, visit_id: int) -> HttpResponse:
    """Return the visit's whole report: the customer's pages, then the technical record."""
    return _paper(request, visit_id, PaperKind.REPORT, "report")


@router.get("/visits/{int:visit_id}/customer.pdf", response={200: None})
def customer(request: SignedIn, visit_id: int) -> HttpResponse:
    """Return the customer's paper: plain words, photos, what to do, the plan after a shut-down."""
    return _paper(request, visit_id, PaperKind.CUSTOMER, "customer")


@router.get("/visits/{int:visit_id}/tag.pdf", response={200: None})
def tag(request: SignedIn, visit_id: int) -> HttpResponse:
    """Return the tag for the unit, A6, with the way to its record as a code."""
    return _paper(request, visit_id, PaperKind.TAG, "tag")


@router.get("/visits/{int:visit_id}/quote.pdf", response={200: None})
def quote(request: SignedIn, visit_id: int) -> HttpResponse:
    """Return the sheet of parts with what goes with them and who approves."""
    return _paper(request, visit_id, PaperKind.QUOTE, "parts")


@router.get("/visits/{int:visit_id}/sheet.pdf", response={200: None})
def sheet(request: SignedIn, visit_id: int) -> HttpResponse:
    """Return the test sheet of one unit."""
    return _paper(request, visit_id, PaperKind.SHEET, "tests")


@router.get("/visits/{int:visit_id}/preview/{kind}", response=PreviewOut)
def preview(request: SignedIn, visit_id: int, kind: papers.Previewed) -> PreviewOut:
    """Return what a paper would hold if it were printed now."""
    visit = _visit(request, visit_id)
    html = papers.preview(visit, kind, request.user, record_address(request, visit.unit_id))
    return PreviewOut(html=html)


@router.get("/sites/{int:site_id}/sheet.pdf", response={200: None})
def site_sheet(request: SignedIn, site_id: int) -> HttpResponse:
    """Return the test sheets of a site's units, each by its newest closed visit."""
    require(request.user, "read")
    site = find_site(site_id, request.user)
    visits = papers.newest_closed(site)
    if not visits:
        raise NotFound("No visit of this site is closed yet: there is nothing to put on a sheet.")
    return pdf_answer(papers.sheet_pdf(visits, request.user), f"{site.name}-tests.pdf".replace(" ", "-"))


@router.get("/visits/{int:visit_id}/plan.ics", response={200: None})
def plan(request: SignedIn, visit_id: int) -> HttpResponse:
    """Return the visits to come as a calendar."""
    visit = _visit(request, visit_id)
    follow = follow_up_of(Facts(tape_of(visit)), visit.rules(), visit.reason, visit.day)
    content = calendar_of(visit, follow.returns, timezone.now())
    return file_answer(content, "text/calendar; charset=utf-8", f"{visit.unit.label}-{visit.day}.ics")


@router.get("/visits/{int:visit_id}/bundle.json", response={200: None})
def bundle(request: SignedIn, visit_id: int) -> HttpResponse:
    """Return the visit as a bundle."""
    visit = _visit(request, visit_id)
    record("exported", request.user, f"visit {visit.pk}, bundle")
    text = json.dumps(bundle_of(visit, request.user.unit_system), ensure_ascii=False, indent=1)
    return file_answer(text.encode(), "application/json", f"{visit.unit.label}-{visit.day}.json")


@router.get("/visits/{int:visit_id}/readings.csv", response={200: None})
def readings(request: SignedIn, visit_id: int) -> HttpResponse:
    """Return the visit's readings as CSV."""
    visit = _visit(request, visit_id)
    record("exported", request.user, f"visit {visit.pk}, readings")
    return file_answer(
        readings_csv(visit).encode(), "text/csv; charset=utf-8", f"{visit.unit.label}-{visit.day}-readings.csv"
    )


@router.get("/amendments/{uuid:amendment_id}.pdf", response={200: None})
def amendment(request: SignedIn, amendment_id: UUID) -> HttpResponse:
    """Return an amendment's paper."""
    require(request.user, "read")
    rows = Amendment.objects.filter(pk=amendment_id, visit__unit__site__firm_id=request.user.own_firm_id)
    found = rows.select_related("visit__unit__site__firm", "author").first()
    if found is None:
        raise NotFound("There is no such amendment in your firm.")
    name = f"{found.visit.unit.label}-{found.visit.day}-amendment.pdf"
    return pdf_answer(amendment_paper(found, timezone.now()), name)
