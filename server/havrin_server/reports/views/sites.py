"""Sites: their units side by side."""

from ninja import Router

from havrin_server.overviews import overview
from havrin_server.people.permissions import require
from havrin_server.people.requests import SignedIn
from havrin_server.reports.pages.site import site_out
from havrin_server.reports.schemas.site import SiteOut
from havrin_server.units.queries import find_site

router = Router(tags=["sites"])


@router.get("/sites/{int:site_id}", response=SiteOut)
@overview
def side_by_side(request: SignedIn, site_id: int) -> SiteOut:
    """Return the site's units beside each other at the same stations."""
    require(request.user, "read")
    return site_out(find_site(site_id, request.user), request.user)
