"""Rows of generated cases: thinned for every day, whole behind ``./havrin test --all``."""

import os
from collections.abc import Sequence
from typing import TypeVar

T = TypeVar("T")
EVERY_CASE = bool(os.environ.get("HAVRIN_EVERY_CASE"))


def thinned(rows: Sequence[T], most: int) -> Sequence[T]:
    """Return at most ``most`` of ``rows``, evenly spread; all of them where every case is asked for."""
    if EVERY_CASE or len(rows) <= most:
        return rows
    step = len(rows) / most
    return [rows[int(index * step)] for index in range(most)]
