"""The colours of a wire, as they are said in a node's name: "valve (violet)", "white with blue tracer", "wht/blu"."""

import re
from functools import lru_cache

_WORDS = {
    "black": ("black", "blk"),
    "white": ("white", "wht"),
    "red": ("red",),
    "blue": ("blue", "blu"),
    "yellow": ("yellow", "yel"),
    "green": ("green", "grn"),
    "brown": ("brown", "brn"),
    "orange": ("orange", "org", "orn"),
    "grey": ("grey", "gray", "gry"),
    "violet": ("violet", "purple", "vio", "pur"),
    "pink": ("pink", "pnk"),
}
COLOURS = tuple(_WORDS)
_COLOUR_OF = {word: colour for colour, words in _WORDS.items() for word in words}
_WORD = re.compile(r"[a-z]+")


@lru_cache(maxsize=1024)
def wire_colours(name: str) -> tuple[str, ...]:
    """Return the colours said in a node's ``name``, keys of COLOURS: the wire's own, and that of its stripe; none where none is said."""
    said = (_COLOUR_OF.get(word) for word in _WORD.findall(name.lower()))
    return tuple(dict.fromkeys(colour for colour in said if colour))[:2]
