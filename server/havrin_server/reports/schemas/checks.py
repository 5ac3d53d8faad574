"""What a check says."""

from datetime import date, datetime

from havrin_server.view_model import ViewModel


class SealedOut(ViewModel):
    """A closed visit as it was sealed: to be held beside the paper."""

    stands: bool  # what is stored is what was sealed
    firm: str
    unit: str
    day: date
    level: int
    title: str
    signed_by: str
    closed_at: datetime
    zone: str  # of the place, an IANA name
    entries: int
    amendments: int
    head: str
    key: str  # first digits of the key's digest


class CheckedOut(ViewModel):
    """What the proof in a bundle is worth."""

    holds: bool
    flaws: list[str]
    entries: int
    sealed: bool
    ours: bool  # sealed by this very installation
