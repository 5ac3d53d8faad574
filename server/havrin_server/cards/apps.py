"""The cards app: the queue finds here what lists ask of it."""

from django.apps import AppConfig


class CardsConfig(AppConfig):
    """Registers the long work of lists."""

    name = "havrin_server.cards"

    def ready(self) -> None:
        """Load what looks through lists and takes them in."""
        from havrin_server.cards import looking, taking  # noqa: F401
