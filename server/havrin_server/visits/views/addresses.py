"""Addresses of the page, as they stand on papers."""

from django.http import HttpRequest


def record_address(request: HttpRequest, unit_id: int) -> str:
    """Return the address of a unit's record, as it stands in the code on its tag."""
    return request.build_absolute_uri(f"/units/{unit_id}")
