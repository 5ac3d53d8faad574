"""The day's round."""

from datetime import date

from havrin_server.view_model import ViewModel


class RoundVisit(ViewModel):
    """One stop of the round."""

    id: int
    turn: int
    site: str
    access: str
    unit_name: str
    unit_line: str
    reason: str
    complaint: str
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
    """The day's stops in the order to drive."""

    day: date
    stops: list[RoundVisit]
