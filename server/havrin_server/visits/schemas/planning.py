"""Planning a visit, changing its plan, cancelling it."""

from datetime import date, time
from typing import Annotated, Literal

from pydantic import Field

from havrin_server.incoming import Day, Incoming, Key, Number
from havrin_server.view_model import ViewModel

Short = Annotated[str, Field(max_length=120)]
PartLine = Annotated[str, Field(max_length=120)]


class PlanIn(Incoming):
    """A visit to put on a round, or, ``whose`` being nobody, on no day: then ``day`` is the one by which it is wanted."""

    reason: Key
    day: Day
    complaint: str = ""
    whose: Literal["last there", "nobody", "person"] = "last there"
    technician: Number | None = None
    start: time | None = None
    there: Short = ""
    since: Short = ""
    task: str = Field(default="", max_length=300)
    parts: list[PartLine] = Field(default=[], max_length=40)
    returns_from: Number | None = None


class PlannedOut(ViewModel):
    """The visit that was planned, and on whose round; "" for nobody's."""

    id: int
    day: date
    technician: str


class PlanChangeIn(Incoming):
    """A plan as it is to be. ``seen`` is the version that was shown; without a technician it is on no day."""

    seen: Number
    day: Day
    technician: Number | None = None
    helpers: list[Number] = Field(default=[], max_length=8)
    start: time | None = None
    before: Number | None = None
    reason: Key
    complaint: str = ""


class CancelIn(Incoming):
    """Why a visit is cancelled."""

    why: str = Field(max_length=300)
