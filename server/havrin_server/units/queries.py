"""Finding sites and units of a firm."""

from collections.abc import Iterable

from django.db.models import Q, QuerySet

from havrin_server.errors import NotFound
from havrin_server.people.models import Person
from havrin_server.units.models import Contact, Site, Unit


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


def same_appliance(unit_id: int) -> "QuerySet[Unit, int]":
    """Return the ids under which an appliance is kept: its own, and those of what was merged into it."""
    return Unit.objects.filter(Q(pk=unit_id) | Q(merged_into_id=unit_id)).values_list("pk", flat=True)


def contacts_of(site_ids: Iterable[int]) -> dict[int, Contact]:
    """Return whom one speaks with at each site: who was noted first and can be rung."""
    rows = Contact.objects.filter(site__in=set(site_ids), retired_at=None).exclude(phone="").order_by("-pk")
    return {contact.site_id: contact for contact in rows}


def speaks_at(site: Site) -> QuerySet[Contact]:
    """Return whom one speaks with at a site, as they were noted."""
    return site.contact_set.filter(retired_at=None).order_by("pk")


def appliances_of(unit_ids: Iterable[int]) -> dict[int, int]:
    """Return every id under which these units' appliances are kept, each with the one that its appliance goes by."""
    ids = set(unit_ids)
    rows = Unit.objects.filter(Q(pk__in=ids) | Q(merged_into__in=ids)).values_list("pk", "merged_into")
    return {pk: merged or pk for pk, merged in rows}
