"""Long work for the page."""

from datetime import datetime
from uuid import UUID

from havrin_server.view_model import ViewModel


class WorkOut(ViewModel):
    """How far a piece of long work is; ``said`` is why it failed."""

    id: UUID
    sort: str
    state: str
    done: int
    steps: int
    said: str
    stop_asked: bool
    asked_at: datetime
    ended_at: datetime | None
