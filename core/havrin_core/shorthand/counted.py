"""Lines of what was counted or chosen: ``turned``, ``glycol``, ``pipe``."""

import re

from havrin_core.errors import OutOfDomain
from havrin_core.phrases import phrase
from havrin_core.physics.gas.pipe import STEEL_MM, Pipe, line_loss_pa
from havrin_core.quantities.display import show_in
from havrin_core.quantities.units import INWC_PA, shown_unit
from havrin_core.shorthand.model import Problem, Situation
from havrin_core.shorthand.pieces import number_of, typed_pieces, unused_words
from havrin_core.tape.entries import Reading

Outcome = Reading | Problem
_SHARES = {"half": 0.5, "quarter": 0.25, "eighth": 0.125, "one": 1.0, "full": 1.0}
_WAYS = {
    "in": 1.0,
    "clockwise": 1.0,
    "cw": 1.0,
    "up": 1.0,
    "out": -1.0,
    "counterclockwise": -1.0,
    "ccw": -1.0,
    "down": -1.0,
}
_TURN_WORDS = frozenset(("turn", "turns", "a", "of", "screw"))
_KINDS = {"propylene": 0.0, "pg": 0.0, "ethylene": 1.0, "eg": 1.0}
_GLYCOL_WORDS = frozenset(("%", "by", "mass", "volume", "weight"))
_FITTING = re.compile(r"(\d+)\s*(elbow|tee|valve|cock)s?\b")
_SIZE = re.compile(r"^\s*(\d+(?:[ -]\d+/\d+)?|\d+/\d+)\s*(?:in|inch|\")?\s+")
_LINE_PA, _LINE_K = 7 * INWC_PA, 288.15


def is_turn(words: list[str]) -> bool:
    """Tell whether ``words`` say how far and which way, and nothing else."""
    low = [word.lower() for word in words]
    counted = [word for word in low if word in _SHARES or number_of(word) is not None]
    return bool(counted and set(low) & set(_WAYS)) and set(low) <= {*_WAYS, *_SHARES, *_TURN_WORDS, *counted}


def read_turned(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``turned 1/4 in`` or ``turned half out``: how far the manifold's screw was turned, in raising it."""
    ways = [_WAYS[word] for w in words if (word := w.lower()) in _WAYS]
    numbers = [n for w in words if (n := _SHARES.get(w.lower(), number_of(w))) is not None]
    known = all(w.lower() in (*_WAYS, *_SHARES, *_TURN_WORDS) or number_of(w) is not None for w in words)
    if len(ways) != 1 or len(numbers) not in (1, 2) or not known or not 0 < abs(sum(numbers)) <= 10:
        return Problem(" ".join(words) or "turned", phrase("how_far_which_way_turned"))
    turns = ways[0] * abs(sum(numbers))
    return Reading("screw_turns", turns, turns, "", stage)


def read_glycol(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``glycol propylene 30 %``: kind and share by mass; ``by volume`` where it was mixed so."""
    low = [word.lower().strip(",") for word in words]
    kinds = [_KINDS[word] for word in low if word in _KINDS]
    numbers = [n for word in low if (n := number_of(word.removesuffix("%"))) is not None]
    known = all(w in _KINDS or w in _GLYCOL_WORDS or number_of(w.removesuffix("%")) is not None for w in low)
    if len(kinds) != 1 or len(numbers) != 1 or not known or not 0 < numbers[0] <= 60:
        return Problem(" ".join(words) or "glycol", phrase("which_glycol_how_much"))
    parts = (("ethylene", kinds[0]), ("by_volume", 1.0 if "volume" in low else 0.0))
    return Reading("glycol_pct", numbers[0], numbers[0], "%", computed_from=parts)


def read_pipe(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``pipe 3/4 in 60 ft 5 elbows 2 tees 180 kbtu``: what a run of steel pipe loses at that load."""
    text = " ".join(words).lower()
    size = _SIZE.match(text)
    if size is None or situation.gas is None or (nominal := size[1].replace("-", " ")) not in STEEL_MM:
        return Problem(text or "pipe", phrase("which_pipe_how_long", sizes=", ".join(STEEL_MM)))
    rest = text[size.end() :]
    counts = {"elbow": 0, "tee": 0, "valve": 0}
    for count, name in _FITTING.findall(rest):
        counts["valve" if name == "cock" else name] += int(count)
    rest = _FITTING.sub(" ", rest)
    pieces = typed_pieces(rest, "length", "power")
    found = {unit.dimension: unit.to_si(number) for number, unit, _ in pieces if unit is not None}
    if (
        set(found) != {"length", "power"}
        or len(pieces) != 2
        or unused_words(rest, frozenset(("at", "of", "load")), "length", "power")
    ):
        return Problem(text, phrase("which_pipe_how_long", sizes=", ".join(STEEL_MM)))
    pipe = Pipe(STEEL_MM[nominal] / 1000, found["length"], counts["elbow"], counts["tee"], counts["valve"])
    gas = situation.gas
    entered = gas.meter_gauge_pa()
    try:
        loss = line_loss_pa(
            gas.fuel, pipe, found["power"], _LINE_PA if entered is None else entered, gas.baro_pa, _LINE_K
        )
    except OutOfDomain as refusal:
        return Problem(text, refusal.said)
    unit = shown_unit("pressure", situation.system)
    parts = (
        ("bore_m", pipe.bore_m),
        ("length_m", pipe.length_m),
        ("equivalent_m", pipe.equivalent_m),
        ("load_w", found["power"]),
    )
    return Reading(
        "line_loss_pa", loss, round(show_in(loss, unit).value, unit.decimals), unit.symbol, computed_from=parts
    )
