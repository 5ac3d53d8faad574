"""A customer's link for the page."""

from django.utils import timezone

from havrin_server.reports.models import ShareLink
from havrin_server.reports.schemas.links import LinkOut
from havrin_server.reports.sharing import token_of


def link_out(link: ShareLink) -> LinkOut:
    """Return a customer's link."""
    return LinkOut.of(
        link,
        path=f"/shared/{token_of(link)}",
        made_by=link.made_by.full_name,
        revoked=link.revoked_at is not None,
        expired=link.expires_at <= timezone.now(),
    )
