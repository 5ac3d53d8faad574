"""Lines that write a value off the data plate: ``plate ua 0.8``, ``plate rise 35 65``, ``plate mp 3.5 hi``."""

from havrin_core.errors import CoreError
from havrin_core.facts.plate_values import PLATE_FIELDS, STAGED_FIELDS, is_staged, numbers_wanted, plate_name
from havrin_core.phrases import phrase
from havrin_core.quantities.parse import parse_quantity
from havrin_core.quantities.units import shown_unit
from havrin_core.shorthand.model import Line, Problem, Situation
from havrin_core.shorthand.words import STAGE_WORDS, longest_phrase, measurand_words, nearest
from havrin_core.tape.entries import PlateValue
from havrin_core.vocabulary.measurands import Measurand, measurand


def read_plate(rest: list[str], situation: Situation) -> Line:
    """Return the line that ``plate`` with its ``rest`` makes."""
    stage = next((STAGE_WORDS[w.lower()] for w in rest if w.lower() in STAGE_WORDS), situation.stage)
    words = [w for w in rest if w.lower() not in STAGE_WORDS]
    outcome = _value(words, stage, situation)
    if isinstance(outcome, Problem):
        return Line((), (outcome,), (), situation.phase, situation.stage, "")
    station = situation.station_at(measurand(outcome.quantity).station, outcome.stage)
    return Line((outcome,), (), (), situation.phase, stage, station)


def _value(words: list[str], stage: str, situation: Situation) -> PlateValue | Problem:
    known = {word: m.key for word, m in measurand_words().items() if numbers_wanted(m.key)}
    named = longest_phrase(words, known)
    if named is None:
        names = ", ".join(measurand(key).words[0] for key in (*STAGED_FIELDS, *PLATE_FIELDS))
        return Problem(
            " ".join(words) or "plate", phrase("which_value_plate", names=names), nearest(" ".join(words), known)
        )
    what, typed = measurand(named[0]), words[named[1] :]
    if is_staged(what.key) and stage not in situation.stages:
        return Problem(stage, phrase("unit_has_one_stage_low"))
    return _numbers(what, typed, stage, situation)


def _numbers(what: Measurand, typed: list[str], stage: str, situation: Situation) -> PlateValue | Problem:
    unit = shown_unit(what.dimension, situation.system)
    pieces, symbol = _split(typed, unit.symbol)
    wanted = numbers_wanted(what.key)
    if len(pieces) != wanted:
        said = phrase("one_number") if wanted == 1 else phrase("two_numbers_least_most")
        return Problem(
            " ".join(typed) or what.name, phrase("plate_wants", name=plate_name(what.key, None), wanted=said)
        )
    try:
        values = tuple(parse_quantity(f"{piece} {symbol}", what.dimension, unit).value_si for piece in pieces)
    except CoreError as refusal:
        return Problem(" ".join(typed), phrase("of_a_reading", what=what.name, said=refusal.said))
    if any(not what.least <= value <= what.most for value in values):
        return Problem(" ".join(typed), phrase("no_plate_says_check_unit", pieces=" to ".join(pieces), symbol=symbol))
    if wanted == 2 and not values[0] < values[1]:
        return Problem(" ".join(typed), phrase("least_not_below_most_least"))
    text = f"{' to '.join(pieces)} {symbol}"
    return PlateValue(what.key, values, text, stage if is_staged(what.key) else None)


def _split(typed: list[str], usual: str) -> tuple[list[str], str]:
    """Return the numbers and the unit; one unit at the end speaks for both."""
    number = [word for word in typed if word.lstrip("+-−–.,")[:1].isdigit()]
    symbols = [word for word in typed if word not in number and word != "to"]
    return number, symbols[-1] if symbols else usual
