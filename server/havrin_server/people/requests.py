"""The request as the calls get it."""

from django.http import HttpRequest

from havrin_server.people.models import Person


class SignedIn(HttpRequest):
    """A request of somebody who is signed in: for the types alone, the interface refuses everybody else (interface.py)."""

    user: Person
