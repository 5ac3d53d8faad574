"""The day of a person, and the board of everybody's."""

from datetime import date, time

from havrin_server.view_model import ViewModel


class RoundVisit(ViewModel):
    """One stop of the round."""

    id: int
    unit_id: int
    day: date
    start: time | None
    turn: int
    site: str
    address: str
    access: str
    hours: str
    hazards: str
    phone: str  # of whom one speaks with there, with their name
    vulnerable: str
    unit_name: str
    unit_line: str
    reason: str
    complaint: str
    since: str
    there: str
    task: str
    parts: list[str]
    whose: str
    level: int
    title: str
    settled: bool
    closed: bool
    entries: int
    last_day: date | None
    last_title: str
    last_level: int | None
    last_words: str
    advice: list[str]


class Round(ViewModel):
    """The day's stops in the order to drive; today also what days before left over."""

    day: date
    today: date
    stops: list[RoundVisit]
    left_over: list[RoundVisit]


class BoardPerson(ViewModel):
    """Somebody on whose day a visit can be put."""

    id: int
    name: str
    van: str
    licence_until: date | None


class BoardVisit(ViewModel):
    """A visit as the board shows it; ``state`` is planned, under_way or closed, ``over`` the days it is overdue."""

    id: int
    unit_id: int
    label: str
    place: str
    site: str
    zone: str
    reason_key: str
    reason: str
    complaint: str
    since: str
    there: str
    task: str
    day: date
    start: time | None
    turn: int
    technician_id: int | None
    helpers: list[int]
    state: str
    level: int  # of the unit as it stands or was left, 0: never judged
    urgent: int  # 1 to 4
    title: str
    vulnerable: str
    over: int
    plan_version: int


class LeftUnit(ViewModel):
    """A unit that was left in a bad way, or whose year is over, and at which nothing is planned."""

    id: int
    name: str
    site: str
    level: int | None
    title: str
    day: date | None
    vulnerable: str


class Board(ViewModel):
    """Days and people with their visits; what is on no day; what is not even planned."""

    today: date
    days: list[date]
    people: list[BoardPerson]
    visits: list[BoardVisit]
    on_no_day: list[BoardVisit]
    left_bad: list[LeftUnit]  # level 3 and 4
    due: list[LeftUnit]  # a year without maintenance, oldest first
    due_in_all: int
    reasons: dict[str, str]
    may_plan: bool
