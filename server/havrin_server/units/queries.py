"""Finding sites and units of a firm."""

from havrin_server.errors import NotFound
from havrin_server.people.models import Person
from havrin_server.units.models import Site, Unit


def find_unit(unit_id: int, person: Person) -> Unit:
    """Return a unit. Raises NotFound, also for another firm's."""
    unit = Unit.objects.filter(pk=unit_id, site__firm_id=person.own_firm_id).select_related("site", "model").first()
    if unit is None:
        raise NotFound("There is no such unit in your firm.")
    return unit


def find_site(site_id: int, person: Person) -> Site:
    """Return a site. Raises NotFound, also for another firm's."""
    site = Site.objects.filter(pk=site_id, firm_id=person.own_firm_id).first()
    if site is None:
        raise NotFound("There is no such site in your firm.")
    return site
