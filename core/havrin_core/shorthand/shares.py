"""Lines that lay a counted thing against its most, as a share: ``va``, ``belt``, ``ventrun``."""

import re

from havrin_core.phrases import phrase
from havrin_core.physics.electrical import capacitor_under_load_uf, share_of_nominal
from havrin_core.physics.shares import ELBOW_90_M, equivalent_length_m, span_share, transformer_load
from havrin_core.shorthand.model import Problem, Situation
from havrin_core.shorthand.pieces import typed_pieces, unused_words
from havrin_core.tape.entries import Reading

Outcome = Reading | Problem
_OF = frozenset(("of", "v", "a", "va", "volts", "amps", "x", "at", "rated", "uf", "µf", "mfd"))
_ELBOW = re.compile(r"(\d+)\s*x\s*(90|45)")
_VA = phrase("volts_amps_rating_transformer_under")
_MAINS = phrase("line_voltage_while_runs_plates")
_CAP = phrase("read_rated_f_cap_37")
_BELT = phrase("deflection_span_belt_belt_9")
_RUN = phrase("straight_run_elbows_manuals_most")


def read_transformer(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``va 24.6 1.35 of 40``: volts and amps of the secondary under load, and its rating."""
    numbers = [number for number, _, _ in typed_pieces(" ".join(words))]
    if len(numbers) != 3 or unused_words(" ".join(words), _OF):
        return Problem(" ".join(words) or "va", _VA)
    volts, amps, rated = numbers
    share = transformer_load(volts, amps, rated)
    parts = (("secondary_v", volts), ("secondary_a", amps), ("rated_va", rated))
    reading = Reading("transformer_load_pct", 100 * share, round(100 * share), "%", computed_from=parts)
    return reading


def read_mains(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``mains 112 of 120``: line voltage under load, and what the plate wants."""
    numbers = [number for number, _, _ in typed_pieces(" ".join(words))]
    if len(numbers) != 2 or unused_words(" ".join(words), _OF):
        return Problem(" ".join(words) or "mains", _MAINS)
    volts, nominal = numbers
    share = 100 * share_of_nominal(volts, nominal)
    parts = (("line_v", volts), ("nominal_v", nominal))
    reading = Reading("line_voltage_off_pct", share, round(share, 1), "%", computed_from=parts)
    return reading


def read_capacitor(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``cap 37.2 of 40 5%``: read, rated and stamped; ``cap 5.2 A 370 V of 40``: from the winding's amps and its own volts."""
    text, tolerance = _stamped(" ".join(words))
    if isinstance(tolerance, Problem):
        return tolerance
    found = typed_pieces(text, "current", "voltage", "capacitance")
    kinds = [unit.dimension if unit else "capacitance" for _, unit, _ in found]
    numbers = [number for number, _, _ in found]
    under_load: tuple[tuple[str, float], ...] = ()
    if kinds == ["current", "voltage", "capacitance"] and min(numbers) > 0:
        under_load = (("amps_a", numbers[0]), ("volts_v", numbers[1]), ("line_hz", situation.line_hz))
        numbers, kinds = (
            [round(capacitor_under_load_uf(numbers[0], numbers[1], situation.line_hz), 2), numbers[2]],
            kinds[1:],
        )
    if (
        unused_words(text, _OF, "current", "voltage", "capacitance")
        or len(numbers) != 2
        or "current" in kinds
        or not all(0.1 <= n <= 500 for n in numbers)
    ):
        return Problem(" ".join(words) or "cap", _CAP)
    parts = (("rated_f", numbers[1] * 1e-6), *tolerance, *under_load)
    reading = Reading("capacitor_f", numbers[0] * 1e-6, numbers[0], "µF", computed_from=parts)
    return reading


_STAMP = re.compile(r"(?:±|\+/-|\+-)?\s*(\d+(?:[.,]\d+)?)\s*%")
_STAMPS_PCT = (1.0, 30.0)


def _stamped(text: str) -> tuple[str, tuple[tuple[str, float], ...] | Problem]:
    """Return the line without its stamped tolerance, and the tolerance as a share."""
    found = _STAMP.findall(text)
    if not found:
        return text, ()
    percent = float(found[0].replace(",", "."))
    if len(found) > 1 or not _STAMPS_PCT[0] <= percent <= _STAMPS_PCT[1]:
        return text, Problem(text, phrase("capacitor_stamp"))
    return _STAMP.sub(" ", text), (("tolerance_share", percent / 100),)


def read_belt(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``belt 9 mm 600 mm``: how far it gives at a moderate push, and the free span."""
    found = typed_pieces(" ".join(words), "bore")
    if unused_words(" ".join(words), _OF, "bore") or len(found) != 2 or any(unit is None for _, unit, _ in found):
        return Problem(" ".join(words) or "belt", _BELT)
    deflection, span = (unit.to_si(number) for number, unit, _ in found if unit is not None)
    share = 100 * span_share(deflection, span)
    parts = (("deflection_m", deflection), ("span_m", span))
    reading = Reading("belt_deflection_pct", share, round(share, 1), "%", computed_from=parts)
    return reading


def read_vent_run(words: list[str], stage: str, situation: Situation) -> Outcome:
    """``ventrun 30 ft 4x90 2x45 of 60 ft elbow 3 ft``: the run with its elbows as length, against the manual's most."""
    text, _, own = " ".join(words).partition(" elbow ")
    elbow_m = _one_length(own) if own else ELBOW_90_M
    if elbow_m is None:
        return Problem(own, _RUN)
    elbows = {int(angle): int(count) for count, angle in _ELBOW.findall(text)}
    lengths = typed_pieces(_ELBOW.sub(" ", text), "length")
    if (
        unused_words(_ELBOW.sub(" ", text), _OF, "length")
        or len(lengths) != 2
        or any(unit is None for _, unit, _ in lengths)
        or "of" not in text.split()
    ):
        return Problem(text or "ventrun", _RUN)
    straight, most = (unit.to_si(number) for number, unit, _ in lengths if unit is not None)
    length = equivalent_length_m(straight, elbows.get(90, 0), elbows.get(45, 0), elbow_m)
    share = 100 * span_share(length, most)
    parts = (
        ("straight_m", straight),
        ("elbows_90", float(elbows.get(90, 0))),
        ("elbows_45", float(elbows.get(45, 0))),
        ("elbow_m", elbow_m),
        ("most_m", most),
    )
    reading = Reading("vent_run_pct", share, round(share), "%", computed_from=parts)
    return reading


def _one_length(text: str) -> float | None:
    pieces = typed_pieces(text, "length")
    if len(pieces) != 1 or pieces[0][1] is None or unused_words(text, frozenset(), "length"):
        return None
    return pieces[0][1].to_si(pieces[0][0])
