"""Who a session belongs to, with the firm: every call asks for both."""

from django.contrib.auth.backends import ModelBackend

from havrin_server.people.models import Person


class WithFirm(ModelBackend):
    """Name and password as Django checks them; the person of a session comes in one question with the firm."""

    def get_user(self, user_id: int) -> Person | None:
        """Return the person of a session; None for one who has left."""
        person = Person.objects.select_related("firm").filter(pk=user_id).first()
        return person if person is not None and self.user_can_authenticate(person) else None
