"""The base of what the calls answer with."""

from typing import Annotated, Self

from django.http import HttpResponse
from pydantic import BaseModel, BeforeValidator, ConfigDict

from havrin_core.wording.phrases import words

Words = Annotated[str, BeforeValidator(words)]  # a phrase of the core becomes its sentence


def as_answer(page: BaseModel) -> HttpResponse:
    """Return ``page`` as the answer, written out at once: the usual way checks and converts each of its fields again.

    For the pages of a visit, which a technician waits for with every line, and for those of hundreds of rows.
    """
    return HttpResponse(page.model_dump_json(by_alias=True), content_type="application/json; charset=utf-8")


class ViewModel(BaseModel):
    """An answer of the interface, filled from the attributes of what it shows."""

    model_config = ConfigDict(from_attributes=True)

    @classmethod
    def of(cls, source: object, /, **more: object) -> Self:
        """Return the answer for ``source``; ``more`` names what it does not have by that name, or has otherwise."""
        names = (name for name in cls.model_fields if name not in more and hasattr(source, name))
        return cls.model_validate({**{name: getattr(source, name) for name in names}, **more})
