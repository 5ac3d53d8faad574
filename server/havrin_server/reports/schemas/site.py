"""A site's units side by side."""

from datetime import date

from havrin_server.view_model import ViewModel


class SiteUnitOut(ViewModel):
    """One unit of the site, with the visit that its newest readings come from."""

    id: int
    label: str
    place: str
    kind: str
    gas_line: str
    visit: int | None
    day: date | None
    level: int | None
    title: str


class SiteCellOut(ViewModel):
    """One reading: ``state`` in, near, out or "" where nothing judges it; ``side`` low, high or ""."""

    text: str
    unit: str
    state: str
    side: str
    day: date


class SiteRowOut(ViewModel):
    """One station across the site."""

    name: str
    stage: str
    cells: list[SiteCellOut | None]


class SiteContact(ViewModel):
    """Somebody to speak with there."""

    name: str
    role: str
    phone: str
    mail: str
    language: str
    decides: str


class SiteOut(ViewModel):
    """The whole view."""

    id: int
    name: str
    address: str
    access: str
    hours: str
    hazards: str
    contacts: list[SiteContact]
    units: list[SiteUnitOut]
    rows: list[SiteRowOut]
    shared: list[str]
