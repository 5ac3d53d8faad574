"""What is written is judged and shown before it counts: the whole of it, or nothing."""

import logging
from collections.abc import Iterator
from contextlib import contextmanager

from django.db import Error as DatabaseTrouble
from django.db import transaction

from havrin_core.errors import CoreError
from havrin_server.errors import NotWritable, ServerError

log = logging.getLogger(__name__)


@contextmanager
def whole_or_nothing() -> Iterator[None]:
    """Store what is written inside only when the page of the visit could be made of it. Use it as a decorator of a call.

    An entry that nobody can judge would end the visit for everybody who looks at it later. Raises NotWritable then; what
    the database cannot do just now is no fault of the line, and goes on as it is.
    """
    try:
        with transaction.atomic():
            yield
    except (ServerError, CoreError, DatabaseTrouble):
        raise
    except Exception as broken:
        log.exception("What was to be written cannot be judged")
        raise NotWritable(
            "This cannot be judged, so it was not written. Keep it as a note.", code="cannot_be_judged"
        ) from broken
