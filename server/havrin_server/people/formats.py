"""What is answered is written as the person's firm writes days, clock and numbers."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from havrin_core.quantities.formats import writing
from havrin_server.people.models import Person


class FirmFormats:
    """Middleware: writes every answer in the formats of the firm of whoever is signed in."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer ``request``; of nobody, and of a person without a firm, in the usual formats."""
        person = request.user
        if not isinstance(person, Person) or person.firm is None:
            return self.get_response(request)
        with writing(person.firm.formats()):
            return self.get_response(request)
