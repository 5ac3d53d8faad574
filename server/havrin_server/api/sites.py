"""Sites: their units side by side."""

from django.http import HttpRequest
from ninja import Router

from havrin_server.api.present_site import site_out, sites_out
from havrin_server.api.schemas_site import SiteMark, SiteOut
from havrin_server.errors import NotFound
from havrin_server.people.permissions import require
from havrin_server.sites.models import Site

router = Router(tags=["sites"])


@router.get("", response=list[SiteMark])
def all_sites(request: HttpRequest) -> list[SiteMark]:
    """Return the firm's sites with their units, and how each was left."""
    require(request.user, "read")
    return sites_out(request.user)


@router.get("/{int:site_id}", response=SiteOut)
def side_by_side(request: HttpRequest, site_id: int) -> SiteOut:
    """Return the site's units beside each other at the same stations."""
    require(request.user, "read")
    site = Site.objects.filter(pk=site_id, firm_id=request.user.firm_id).first()
    if site is None:
        raise NotFound("There is no such site in your firm.")
    return site_out(site, request.user)
