"""Files that leave the house: report, bundle, readings, photos."""

import json
import uuid

from django.http import FileResponse, HttpRequest, HttpResponse
from ninja import Router

from havrin_server.captures.services import find_photo
from havrin_server.journal.queries import bundle_of, find_visit
from havrin_server.people.permissions import require
from havrin_server.reports.readings_csv import readings_csv
from havrin_server.reports.visit_report import report_pdf

router = Router(tags=["papers"])


@router.get("/visits/{int:visit_id}/report.pdf", response={200: None})
def report(request: HttpRequest, visit_id: int) -> HttpResponse:
    """Return the visit's report as PDF."""
    require(request.user, "read")
    visit = find_visit(visit_id, request.user)
    return _file(
        report_pdf(visit, request.user), "application/pdf", f"{visit.unit.label}-{visit.day}-report.pdf", inline=True
    )


@router.get("/visits/{int:visit_id}/bundle.json", response={200: None})
def bundle(request: HttpRequest, visit_id: int) -> HttpResponse:
    """Return the visit as a bundle."""
    require(request.user, "read")
    visit = find_visit(visit_id, request.user)
    text = json.dumps(bundle_of(visit, request.user.unit_system), ensure_ascii=False, indent=1)
    return _file(text.encode(), "application/json", f"{visit.unit.label}-{visit.day}.json")


@router.get("/visits/{int:visit_id}/readings.csv", response={200: None})
def readings(request: HttpRequest, visit_id: int) -> HttpResponse:
    """Return the visit's readings as CSV."""
    require(request.user, "read")
    visit = find_visit(visit_id, request.user)
    return _file(
        readings_csv(visit).encode(), "text/csv; charset=utf-8", f"{visit.unit.label}-{visit.day}-readings.csv"
    )


@router.get("/photos/{uuid:photo_id}", response={200: None})
def photo(request: HttpRequest, photo_id: uuid.UUID) -> FileResponse:
    """Return a photo."""
    require(request.user, "read")
    return FileResponse(find_photo(photo_id, request.user).file.open("rb"), content_type="image/jpeg")


def _file(content: bytes, kind: str, name: str, *, inline: bool = False) -> HttpResponse:
    response = HttpResponse(content, content_type=kind)
    response["Content-Disposition"] = f'{"inline" if inline else "attachment"}; filename="{name}"'
    return response
