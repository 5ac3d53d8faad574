"""The people app: every session says since when it is, and from where."""

from django.apps import AppConfig
from django.contrib.auth.signals import user_logged_in


class PeopleConfig(AppConfig):
    """Connects what is noted of a session to its begin."""

    name = "havrin_server.people"

    def ready(self) -> None:
        """Listen to sign-ins."""
        from havrin_server.people.sessions import note_begin

        user_logged_in.connect(note_begin, weak=False, dispatch_uid="note_begin")
