"""Where sessions are kept: Django's own store in the database, with whose they are, since when and from where beside it."""

from datetime import UTC, datetime
from typing import Any

from django.contrib.sessions.backends.db import SessionStore as DatabaseStore

from havrin_server.people.models import OpenSession

BEGAN, USED, ADDRESS, DEVICE = "began", "used", "address", "device"  # seconds since 1970; texts


class SessionStore(DatabaseStore):
    """The store that ``SESSION_ENGINE`` names."""

    @classmethod
    def get_model_class(cls) -> type[OpenSession]:
        """Return the model of its rows."""
        return OpenSession

    def create_model_instance(self, data: dict[str, Any]) -> OpenSession:
        """Return the row for ``data``."""
        row = super().create_model_instance(data)
        assert isinstance(row, OpenSession)
        row.person_id = int(data["_auth_user_id"]) if "_auth_user_id" in data else None
        row.began_at, row.used_at = _moment(data.get(BEGAN)), _moment(data.get(USED))
        row.address, row.device = data.get(ADDRESS, ""), data.get(DEVICE, "")
        return row


def _moment(seconds: float | None) -> datetime | None:
    return None if seconds is None else datetime.fromtimestamp(seconds, UTC)
