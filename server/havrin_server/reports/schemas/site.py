"""A site's units side by side."""

from datetime import date

from havrin_server.view_model import ViewModel


class UnitMark(ViewModel):
    """A unit with how it was left at its newest closed visit; ``level`` null where nobody closed one."""

    id: int
    label: str
    place: str
    level: int | None
    title: str


class SiteMark(ViewModel):
    """A site with its units."""

    id: int
    name: str
    units: list[UnitMark]


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


class SiteOut(ViewModel):
    """The whole view."""

    id: int
    name: str
    access: str
    units: list[SiteUnitOut]
    rows: list[SiteRowOut]
    shared: list[str]
