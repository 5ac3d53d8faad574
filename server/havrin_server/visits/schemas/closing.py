"""The end of a visit: what is still to do in the order hands do it, ledger, follow-up, links."""

from datetime import date, datetime
from uuid import UUID

from pydantic import Field

from havrin_server.incoming import Incoming, Moment
from havrin_server.view_model import ViewModel, Words


class ClosingLineOut(ViewModel):
    """One line of a step: ``state`` in, near, out, none (not yet) or noted; ``starter`` begins the line that does it."""

    text: str
    state: str
    starter: str = ""
    station: str = ""


class ClosingStepOut(ViewModel):
    """One step of proving and leaving; ``holds`` tells that the visit cannot close before it is done."""

    key: str
    title: str
    lines: list[ClosingLineOut]
    good: str
    holds: bool


class LedgerOut(ViewModel):
    """One thing that was left abnormal, from its entry to its put-back."""

    text: str
    since: datetime
    by: str
    found: bool
    until: datetime | None
    until_by: str
    put_back: str


class OrderPartOut(ViewModel):
    """One part to order, what goes with it, and who says yes."""

    name: str
    kit: list[str]
    rule: str
    approver: Words
    state: str
    arrives: date | None


class ReturnOut(ViewModel):
    """One visit to come; ``day`` null where it hangs on something."""

    reason: str
    name: str  # of the reason
    day: date | None
    why: Words
    said: bool
    planned: bool  # it stands on a round
    parts: list[str]  # what is to be fitted then


class FrostOut(ViewModel):
    """After a shut-down: hours until pipes are at risk, in words, and what was agreed."""

    says: Words
    asked: list[str]  # beginnings of the lines that make it surer
    vulnerable: list[str]
    temporary_heat: list[str]
    drained: list[str]
    refused: list[str]
    told: list[str]


class AmendLineIn(Incoming):
    """One line of an amendment; ``as_note`` keeps its words as they are."""

    text: str = Field(max_length=500)
    as_note: bool = False


class AmendIn(Incoming):
    """What is said of a closed visit, and why now."""

    id: UUID
    lines: list[AmendLineIn] = Field(min_length=1, max_length=40)
    why: str = Field(max_length=500)
    at: Moment


class AmendmentOut(ViewModel):
    """An amendment as the page shows it."""

    id: UUID
    author: str
    at: datetime
    why: str
    lines: list[str]
    adds: bool  # it left something open that the close did not know of


class KeptPaper(ViewModel):
    """A paper as it was printed: its file's name in the interface, its digest, when."""

    file: str
    sha256: str
    made_at: datetime


class ClosingOut(ViewModel):
    """Everything that closing a visit needs beside the page."""

    steps: list[ClosingStepOut]
    at_signature: list[str]  # what holds it open and is no line of a step
    words: str
    remarks: list[str]
    ledger: list[LedgerOut]
    parts: list[OrderPartOut]
    returns: list[ReturnOut]
    frost: FrostOut | None  # where the unit stays off
