"""The papers of a visit as PDF, with the fonts that ship."""

import io
from pathlib import Path
from typing import Any, Literal

import segno
from django.template.loader import render_to_string
from django.utils import timezone

from havrin_server.people.models import Firm, Person
from havrin_server.reports.checking import check_address
from havrin_server.reports.paper_context import amendment_context, data_uri, paper_context
from havrin_server.units.models import Site
from havrin_server.visits.models import Amendment, Visit
from havrin_server.visits.seal import short

_FOLDER = Path(__file__).parent
Previewed = Literal["customer", "tag", "sheet"]


def report_pdf(visit: Visit, person: Person, address: str) -> bytes:
    """Return the whole report: the customer's pages, then the technical record. ``address``: of the unit's record."""
    return _pdf("visit", {**paper_context(visit, person), **_sealed(visit, address)}, visit.unit.site)


def customer_pdf(visit: Visit, person: Person, address: str) -> bytes:
    """Return the customer's paper. ``address``: of the unit's record."""
    return _pdf("customer", {**paper_context(visit, person), **_sealed(visit, address)}, visit.unit.site)


def tag_pdf(visit: Visit, person: Person, address: str) -> bytes:
    """Return the tag, A6; its code holds ``address``."""
    return _pdf("tag", {**paper_context(visit, person), "qr": _code(address)}, visit.unit.site)


def quote_pdf(visit: Visit, person: Person) -> bytes:
    """Return the sheet of parts and approvals."""
    return _pdf("quote", paper_context(visit, person), visit.unit.site)


def sheet_pdf(visits: list[Visit], person: Person) -> bytes:
    """Return the test sheet of each visit, with a list in front where there are several."""
    sheets = [paper_context(visit, person) for visit in visits]
    many = len(visits) > 1
    heading = visits[0].unit.site.name if many else visits[0].unit.name
    return _pdf(
        "sheet",
        {
            "sheets": sheets,
            "many": many,
            "heading": heading,
            "firm": sheets[0]["firm"],
            "foot": heading,
            "today": visits[0].unit.site.today(timezone.now()),
        },
        visits[0].unit.site,
    )


def amendment_pdf(amendment: Amendment) -> bytes:
    """Return the paper of an amendment: what was said after the close, by whom, when and why."""
    return _pdf("amendment", amendment_context(amendment), amendment.visit.unit.site)


def newest_closed(site: Site) -> list[Visit]:
    """Return the newest closed visit of each of the site's units, by their labels."""
    rows = (
        Visit.objects.filter(unit__site=site, closed_at__isnull=False)
        .order_by("unit__label", "-closed_at")
        .distinct("unit__label")
    )
    return list(rows.select_related("unit__site__firm", "unit__model", "technician", "closed_by"))


def _code(address: str) -> str:
    target = io.BytesIO()
    segno.make(address, error="m").save(target, kind="svg", border=1, scale=4)
    return data_uri(target.getvalue(), "image/svg+xml")


def _sealed(visit: Visit, address: str) -> dict[str, str]:
    """Return what a closed visit's paper says of its seal: where it is checked, and by which key it was sealed."""
    where = check_address(address, visit)
    if not where:
        return {}
    return {"seal_qr": _code(where), "seal_address": where, "seal_key": short(visit.seal["key"])}


def preview(visit: Visit, kind: Previewed, person: Person, address: str) -> str:
    """Return what a paper would hold if it were printed now, as one page of HTML."""
    context = paper_context(visit, person)
    more = {"qr": _code(address), "sheets": [context], "heading": visit.unit.name}
    return _html(kind, {**context, **more}, visit.unit.site)


def _html(template: str, context: dict[str, Any], site: Site) -> str:
    """Return the paper before it is set; its days and times are those of the place."""
    with timezone.override(site.zoneinfo()):
        return render_to_string(f"reports/{template}.html", {**context, **_of_firm(site.firm)})


def _of_firm(firm: Firm) -> dict[str, Any]:
    """Return what stands on every paper of a firm, and on which paper it prints."""
    reached = " · ".join(filter(None, (firm.address, firm.phone, firm.licence and f"licence {firm.licence}")))
    return {"sample_world": firm.sample_world, "size": firm.paper, "reached": reached}


def _pdf(template: str, context: dict[str, Any], site: Site) -> bytes:
    from weasyprint import HTML  # takes 1.5 s to import: only where a paper is made

    from havrin_server.reports.fetcher import OwnFilesOnly

    html = _html(template, context, site)
    content: bytes = HTML(string=html, base_url=str(_FOLDER), url_fetcher=OwnFilesOnly()).write_pdf()
    return content
