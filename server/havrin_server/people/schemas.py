"""Who is signed in, and what a person prefers."""

from typing import Literal

from pydantic import Field

from havrin_core.quantities.formats import ClockFormat, DayFormat, DecimalMark
from havrin_server.incoming import Incoming
from havrin_server.view_model import ViewModel


class FormatsOut(ViewModel):
    """How the firm writes days, clock and numbers."""

    days: DayFormat
    clock: ClockFormat
    decimal: DecimalMark


class Me(ViewModel):
    """The person who is signed in."""

    name: str
    username: str
    role: str
    firm: str
    zone: str  # the firm's, an IANA name
    unit_system: Literal["us", "metric"]
    formats: FormatsOut
    writes_formats: bool  # whether this person sets them for the firm


class SignIn(Incoming):
    """Name and password."""

    username: str = Field(max_length=150)
    password: str = Field(max_length=500)


class Preferences(Incoming):
    """What a person may choose for their own screen."""

    unit_system: Literal["us", "metric"]


class FormatsIn(Incoming):
    """How the firm is to write days, clock and numbers."""

    days: DayFormat
    clock: ClockFormat
    decimal: DecimalMark
