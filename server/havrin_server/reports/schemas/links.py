"""A customer's link."""

from datetime import datetime
from uuid import UUID

from havrin_server.incoming import Incoming, Number
from havrin_server.view_model import ViewModel


class LinkOut(ViewModel):
    """A customer's link to the unit's reports."""

    id: UUID
    path: str
    made_by: str
    expires_at: datetime
    revoked: bool
    expired: bool
    opened: int


class LinkIn(Incoming):
    """How many days a link lasts."""

    days: Number
