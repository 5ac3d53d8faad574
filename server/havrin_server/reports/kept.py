"""Papers kept as they were printed: made at the close, or at the first asking where the close did not come to it."""

import hashlib
import logging
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from datetime import datetime

from django.db import connection, transaction
from django.utils import timezone

from havrin_core.quantities.formats import writing
from havrin_server.people.models import Person
from havrin_server.reports import papers
from havrin_server.reports.models import Paper, PaperKind
from havrin_server.visits.models import Amendment, Visit

_LOG = logging.getLogger(__name__)
_PRINTER = ThreadPoolExecutor(max_workers=1, thread_name_prefix="printer")
# the address of a unit's record goes onto the tag as a code; beside it lies where a paper is checked
_MAKERS: dict[str, Callable[[Visit, Person, str], bytes]] = {
    PaperKind.REPORT: papers.report_pdf,
    PaperKind.CUSTOMER: papers.customer_pdf,
    PaperKind.TAG: papers.tag_pdf,
    PaperKind.QUOTE: lambda visit, person, _: papers.quote_pdf(visit, person),
    PaperKind.SHEET: lambda visit, person, _: papers.sheet_pdf([visit], person),
}
OF_A_VISIT = tuple(_MAKERS)


def paper_of(visit: Visit, kind: str, *, person: Person, address: str, now: datetime) -> bytes:
    """Return a paper of ``visit``: of an open one as it stands now, of a closed one the bytes that were kept.

    A closed visit's paper is in the units of who closed it, whoever asks. ``address`` is that of the unit's record.
    """
    if visit.closed_at is None:
        return _made(visit, kind, person, address)
    kept = Paper.objects.filter(visit=visit, kind=kind, amendment=None).first()
    if kept is None:
        kept = _keep(visit, kind, _made(visit, kind, visit.closed_by or person, address), now)
    return bytes(kept.content)


def _made(visit: Visit, kind: str, person: Person, address: str) -> bytes:
    with writing(
        visit.unit.site.firm.formats()
    ):  # the printer's thread and a customer's link have no firm of their own
        return _MAKERS[kind](visit, person, address)


def print_soon(visit: Visit, address: str) -> None:
    """Have every paper of a visit that was just closed printed and kept, beside the answer to who closed it.

    Five papers take seconds. Where the server is killed meanwhile, the first asking prints what is missing: all that a
    paper shows is pinned with the visit.
    """
    transaction.on_commit(lambda: _PRINTER.submit(_print_all, visit.pk, address))


def _print_all(visit_id: int, address: str) -> None:
    try:
        visit = Visit.objects.select_related("unit__site__firm", "unit__model", "closed_by", "technician").get(
            pk=visit_id
        )
        assert visit.closed_by is not None
        for kind in OF_A_VISIT:
            paper_of(visit, kind, person=visit.closed_by, address=address, now=timezone.now())
    except Exception:
        _LOG.exception("The papers of visit %s are printed at the first asking.", visit_id)
    finally:
        connection.close()


def amendment_paper(amendment: Amendment, now: datetime) -> bytes:
    """Return the paper of an amendment, made and kept at the first asking."""
    kept = Paper.objects.filter(amendment=amendment).first()
    if kept is None:
        with writing(amendment.visit.unit.site.firm.formats()):
            content = papers.amendment_pdf(amendment)
        kept = _keep(amendment.visit, PaperKind.AMENDMENT, content, now, amendment)
    return bytes(kept.content)


def _keep(visit: Visit, kind: str, content: bytes, now: datetime, amendment: Amendment | None = None) -> Paper:
    """Keep ``content``; where another call was quicker, return what that one kept."""
    digest = hashlib.sha256(content).hexdigest()
    with transaction.atomic():
        Visit.objects.select_for_update().get(pk=visit.pk)
        kept, _ = Paper.objects.get_or_create(
            visit=visit, kind=kind, amendment=amendment, defaults={"content": content, "sha256": digest, "made_at": now}
        )
    return kept
