"""What lifts a reason, without the lines that a technician types: for papers that others read."""

import re

_LINE = "“[^”]*”"
_LINES = rf"{_LINE}(?: or {_LINE})*"
_ASIDES = (
    re.compile(rf"\s*\([^()]*{_LINE}[^()]*\)"),
    re.compile(rf"(?:[,;]? (?:then |and )?|\. )[Ww]rite {_LINES}(?: again)?"),
    re.compile(rf"[:,] {_LINES}(?=[.,;]|$),?"),
)


def plain_words(lifts: str) -> str:
    """Return ``lifts`` without its lines.

    >>> plain_words("Clear it, look again and write “vent ok”.")
    'Clear it, look again.'
    """
    for aside in _ASIDES:
        lifts = aside.sub("", lifts)
    return lifts
