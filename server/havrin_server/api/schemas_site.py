"""A site's units side by side."""

from datetime import date

from pydantic import BaseModel as Schema


class UnitMark(Schema):
    """A unit with how it was left at its newest closed visit; ``level`` null where nobody closed one."""

    id: int
    label: str
    place: str
    level: int | None
    title: str


class SiteMark(Schema):
    """A site with its units."""

    id: int
    name: str
    units: list[UnitMark]


class SiteUnitOut(Schema):
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


class SiteCellOut(Schema):
    """One reading: ``state`` in, near, out or "" where nothing judges it; ``side`` low, high or ""."""

    text: str
    unit: str
    state: str
    side: str
    day: date


class SiteRowOut(Schema):
    """One station across the site."""

    name: str
    stage: str
    cells: list[SiteCellOut | None]


class SiteOut(Schema):
    """The whole view."""

    id: int
    name: str
    access: str
    units: list[SiteUnitOut]
    rows: list[SiteRowOut]
    shared: list[str]
