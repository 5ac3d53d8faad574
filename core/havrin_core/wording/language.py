"""The one door to words: every sentence of the core goes through ``text``, with English as its source.

A translation is a gettext catalogue; ``speaking`` sets it for what follows. Numbers and units come from
quantities/display, days and decimal marks from quantities/formats.
"""

import gettext
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from typing import Any

from havrin_core.quantities.formats import filled

_ENGLISH = gettext.NullTranslations()
_SPOKEN: ContextVar[gettext.NullTranslations] = ContextVar("spoken")


def text(source: str, **parts: Any) -> str:
    """Return ``source`` in the language that is spoken, with ``parts`` filled in."""
    said = _SPOKEN.get(_ENGLISH).gettext(source) if source else ""
    return filled(said, parts) if parts else said


@contextmanager
def speaking(translations: gettext.NullTranslations) -> Iterator[None]:
    """Speak through ``translations`` inside the block."""
    token = _SPOKEN.set(translations)
    try:
        yield
    finally:
        _SPOKEN.reset(token)


def lower_first(words: str) -> str:
    """Return ``words`` as they stand inside a sentence."""
    return words[:1].lower() + words[1:] if words[1:2].islower() or words[1:2] == " " else words


def listed(words: list[str]) -> str:
    """Return ``words`` with commas between."""
    return ", ".join(words)


def upper_first(words: str) -> str:
    """Return ``words`` with a capital at their beginning; a unit like µA stays."""
    return words[:1].upper() + words[1:] if words[:1].isascii() else words
