"""What the control's codes mean, and a control that shows the codes of another chart."""

import re
from collections.abc import Mapping
from dataclasses import replace
from functools import lru_cache

from havrin_core.machine.circuit.model import Circuit


def code_chart(circuit: Circuit) -> dict[str, str]:
    """Return each code the control can show, with its meaning; states without a code are left out."""
    return {state.code: state.name for state in circuit.control.states if state.code}


def normal_pattern(text: str) -> str:
    """Return a code as charts write it: "2 4", "L S S", "3 red 1 green", "E13", whatever way it was typed."""
    words = text.lower().replace("-", " ").split()
    if words and all(word in _BEATS for word in words):
        return " ".join(_BEATS[word] for word in words)
    if any(_colour(word) for word in words):
        return _coloured(words)
    return " ".join(word.upper() if any(c.isdigit() for c in word) else word for word in words)


_BEATS = {"l": "L", "long": "L", "s": "S", "short": "S"}
_COLOURS = {
    "r": "red",
    "red": "red",
    "g": "green",
    "green": "green",
    "y": "amber",
    "yellow": "amber",
    "amber": "amber",
    "b": "blue",
    "blue": "blue",
    "w": "white",
    "white": "white",
    "o": "orange",
    "orange": "orange",
}
_GLUED = re.compile(r"^(?:(?P<before>[a-z]+)(?P<n1>\d+)|(?P<n2>\d+)(?P<after>[a-z]+))$")


def _colour(word: str) -> str:
    match = _GLUED.match(word)
    return _COLOURS.get((match["before"] or match["after"]) if match else word, "")


def _coloured(words: list[str]) -> str:
    """Each colour with its count; the count may stand before or after it, or be omitted for 1."""
    shown: list[tuple[str, str]] = []
    waiting = ""
    for word in words:
        match = _GLUED.match(word)
        if colour := _colour(word):
            shown.append((waiting or ((match["n1"] or match["n2"]) if match else ""), colour))
            waiting = ""
        elif shown and not shown[-1][0] and word.isdigit():
            shown[-1] = (word, shown[-1][1])
        else:
            waiting = word
    return " ".join(f"{count or 1} {colour}" for count, colour in shown)


def code_style(chart: Mapping[str, str]) -> str:
    """Return how the codes of a chart are shown: digits, flashes, beats (long and short) or colours."""
    words = {word for pattern in chart for word in pattern.split()}
    if words & set(_COLOURS.values()):
        return "colours"
    if words & {"L", "S"}:
        return "beats"
    numbers = [pattern for pattern in chart if not pattern.isalpha()]
    flashed = all(p.replace(" ", "").isdigit() and (p == "0" or p[0] != "0") for p in numbers)
    return "flashes" if flashed else "digits"


@lru_cache(maxsize=64)
def with_codes(circuit: Circuit, patterns: tuple[tuple[str, str], ...]) -> Circuit:
    """Return ``circuit`` with its control showing ``patterns`` (state, code); other states show none.

    The same circuit and patterns give the same object, so that what is worked out for it is kept.
    """
    shown: Mapping[str, str] = dict(patterns)
    states = tuple(replace(state, code=shown.get(state.key, "")) for state in circuit.control.states)
    return replace(circuit, control=replace(circuit.control, states=states))
