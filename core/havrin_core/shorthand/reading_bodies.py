"""From what was said in readings to entries: which quantity it is here, within its bounds, with doubts and questions."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cache

from havrin_core.errors import CoreError
from havrin_core.machine.circuit.model import LEAST, MOST
from havrin_core.phrases import Phrase, phrase
from havrin_core.quantities.display import show_in
from havrin_core.quantities.parse import parse_number, parse_quantity
from havrin_core.quantities.units import Unit, find_unit, shown_unit, units_of
from havrin_core.shorthand.cover import Piece
from havrin_core.shorthand.lexicon import Name, Number, names
from havrin_core.shorthand.model import Ask, Line, Problem, Situation
from havrin_core.shorthand.places import EVENT, VOLTS
from havrin_core.shorthand.readings import SaidReading, SaidReadings
from havrin_core.shorthand.words import nearest
from havrin_core.tape.entries import Reading
from havrin_core.vocabulary.measurands import LEAST_OF, MEASURANDS, Measurand, measurand

_PPM_PER_PERCENT = 1e4
_MOST_CHOICES = 3
_DEGREES = "°"
_LEAST_TEMPERATURE = 5.0  # a bare number below it is rather a pressure or a static
_FAR_OVER = 2.0  # beyond so many times the most that is likely, a bare number is asked about
# Quantities that are read together: one that is sure tells what a word of several meanings beside it is.
_FAMILIES = (
    frozenset(("supply_air_temp_k", "return_air_temp_k", "temperature_rise_k")),
    frozenset(("water_supply_temp_k", "water_return_temp_k", "water_rise_k")),
    frozenset(("supply_running_pa", "supply_standing_pa", "manifold_pa", "meter_gauge_pa")),
)
# Of these the most that was seen may stand for the reading: it is the graver value.
_MOST_OF = frozenset(
    ("co_ppm_dry", "room_co_ppm", "supply_air_co_ppm", "flue_temp_k", "supply_air_temp_k", "temperature_rise_k")
)
_CONTROL_VOLTAGE = {"R", "C"}
_LINE_LEAST_V = 60.0  # no transformer for controls gives as much
_LEAST_TOO = frozenset(("supply_running_pa", "o2_dry_pct", "water_pressure_pa"))


@dataclass(frozen=True, slots=True)
class _Choice:
    """One quantity that a reading may be, with its value in canonical units; None where the number cannot be it."""

    what: Measurand
    value: float | None
    typed: float
    unit: Unit
    likely: bool
    far_over: bool = False
    problem: Problem | None = None
    ask: Ask | None = None


def line_of_readings(said: SaidReadings, situation: Situation) -> Line:
    """Return the line that whole readings make. A number without a quantity that it can be is a problem in its place."""
    phase = said.phases[0] if said.phases else situation.phase
    said, carried = _with_units_beside(said, situation)
    stages = [_stage(one, situation) for one in said.readings]
    problems = [problem for _, problem in stages if problem]
    choices = [_choices(one, situation) for one in said.readings]
    sure = {row[0].what.key for row in choices if len(row) == 1 and row[0].value is not None}
    bodies: list[Reading] = []
    asks: list[Ask] = []
    doubts: list[Phrase] = list(carried)
    phases: list[str] = []
    for at, (one, row, (stage, _)) in enumerate(zip(said.readings, choices, stages, strict=True)):
        left = _meant(_by_family(row, sure), one)
        if len(left) > 1 or _is_hardly(one, left[0]):
            asks.append(_ask_which(said, choices, at, left, situation))
            continue
        chosen = left[0]
        if chosen.problem:
            problems.append(chosen.problem)
            asks += _in_other_units(said, choices, at, chosen, situation)
        elif chosen.ask:
            asks.append(chosen.ask)
        else:
            bodies.append(_body(one, chosen, stage))
            phases.append(one.phase or phase)
            doubts += _doubts(one, chosen, situation)
    top = stages[-1][0] if stages else situation.stage
    apart = tuple(phases) if len(set(phases)) > 1 else ()
    return Line(tuple(bodies), tuple(problems), tuple(doubts), phase, top, "", tuple(asks), (), apart)


def _with_units_beside(said: SaidReadings, situation: Situation) -> tuple[SaidReadings, list[Phrase]]:
    """Return the readings with the unit of the one beside it for a bare number of the same family, and what to say of that.

    "inlet 22 mbar running 25 standing" is no standing pressure of 25 in WC; "inlet 2 psi manifold 3.5" is no 3.5 psi.
    """
    carried: list[Phrase] = []
    readings: list[SaidReading] = []
    for one in said.readings:
        beside = {
            (other.number.unit, other.number.said_unit)
            for other in said.readings
            if other.number.unit and other is not one and _related(one.name, other.name)
        }
        if not one.number.unit and len(beside) == 1:
            unit, said_unit = beside.pop()
            changed = replace(one, number=replace(one.number, unit=unit, said_unit=said_unit))
            if any(_choice(measurand(key), changed, situation).likely for key in _candidates(changed, situation)):
                carried.append(phrase("unit_as_beside", text=one.number.text, unit=said_unit))
                one = changed
        readings.append(one)
    return replace(said, readings=tuple(readings)), carried


def _related(one: Name, other: Name) -> bool:
    """Tell whether two names may be of the same quantity, or of two that are read with one instrument."""
    degrees = all(any(measurand(key).dimension == "temperature" for key in name.own) for name in (one, other))
    family = any(family & one.own and family & other.own for family in _FAMILIES)
    return degrees or family or bool(one.own & other.own)


def half_read(said: SaidReadings, situation: Situation) -> Line:
    """Return a line that begins with a reading and was not read whole: what was, and what is in the way of the rest."""
    line = line_of_readings(said, situation)
    strange = [Problem(word, phrase("not_word_i_know_here", piece=word)) for word in _strangers(said)]
    loose = [_missing(piece, said, situation) for piece in said.loose]
    return replace(line, problems=tuple(_with_meanings([*line.problems, *strange, *loose])))


def _with_meanings(problems: Sequence[Problem]) -> Iterator[Problem]:
    """Yield the problems, the first with what may have been meant: the others are asked when it is mended."""
    for at, problem in enumerate(problems):
        unknown = problem.text.key == "not_word_i_know_here"
        yield replace(problem, meanings=nearest(problem.piece)) if at == 0 and unknown else problem


def _strangers(said: SaidReadings) -> list[str]:
    return [said.words[at].typed for at in said.left]


def _missing(piece: Piece, said: SaidReadings, situation: Situation) -> Problem:
    """Return what a name or a number lacks that stands alone."""
    text = " ".join(word.typed for word in said.words[piece.start : piece.stop])
    own = sorted(piece.value.own) if isinstance(piece.value, Name) else []
    if piece.kind == "name" and own:
        return Problem(measurand(own[0]).name, phrase("number_missing", what=measurand(own[0]).name))
    if piece.kind == "name":
        known = ", ".join(name.replace("_", " ") for name, _, _ in situation.nodes)
        return Problem(text, phrase("volts_across_what_v_limit", known=known))
    return Problem(text, phrase("not_word_i_know_here", piece=text))


def _is_hardly(one: SaidReading, chosen: _Choice) -> bool:
    """Tell whether a bare number is so far from likely that it may mean something else: it is asked about."""
    if one.number.unit or chosen.value is None or chosen.likely:
        return False
    named_loosely = not one.name.bar and len(one.name.own | one.name.also) > 1
    no_temperature = chosen.what.dimension == "temperature" and abs(chosen.typed) < _LEAST_TEMPERATURE
    return named_loosely or no_temperature or (chosen.far_over and not one.name.shortest)


def _stage(one: SaidReading, situation: Situation) -> tuple[str, Problem | None]:
    if not one.stage:
        return situation.stage, None
    if one.stage in situation.stages:
        return one.stage, None
    problem = Problem(one.stage, phrase("unit_has_one_stage_low")) if len(situation.stages) == 1 else None
    return situation.stages[-1], problem


def _choices(one: SaidReading, situation: Situation) -> list[_Choice]:
    """Return what a reading may be: what is likely, else what can be at all, else the first with what is in the way."""
    every = [_choice(measurand(key), one, situation) for key in _candidates(one, situation)]
    likely = [choice for choice in every if choice.value is not None and choice.likely]
    possible = [choice for choice in every if choice.value is not None]
    asking = [choice for choice in every if choice.ask]
    own = [choice for choice in (*possible, *asking) if choice.what.key == one.name.bar]
    if own and (not likely or own[0].ask):
        return own
    others = [choice for choice in likely if choice.what.key != one.name.bar]
    return [*own, *others] or asking[:1] or possible or every[:1]


def _candidates(one: SaidReading, situation: Situation) -> list[str]:
    """Return the quantities of a name in their order: those of the unit's own stations that take the number's unit."""
    bases = {base for base, _, _ in situation.stations}
    with_unit = [key for key in one.name.with_unit if not bases or measurand(key).station in {*bases, ""}]
    fitting = _fitting(one.name.own, one.number) or _fitting(with_unit if one.number.unit else (), one.number)
    found = fitting or one.name.own or with_unit or one.name.with_unit
    here = [key for key in found if measurand(key).station in bases] if bases and len(found) > 1 else []
    order = [one_of.key for one_of in MEASURANDS]
    keys = sorted(here or found, key=lambda key: (key != one.name.bar, order.index(key)))
    if one.least:
        return [key if key == VOLTS and _held(one) else LEAST_OF.get(key, key) for key in keys]
    return keys


def _held(one: SaidReading) -> str:
    """Return which end of what a meter held volts between two nodes are; "" for volts as they stood.

    The least from R to C is the control voltage's own, which has its bound.
    """
    if one.name.leads is None or not (one.least or one.most):
        return ""
    if one.least:
        return "" if set(one.name.leads) == _CONTROL_VOLTAGE else LEAST
    return MOST


def _fitting(keys: Sequence[str] | frozenset[str], number: Number) -> list[str]:
    return [key for key in keys if not number.unit or _unit_of(number, measurand(key)) is not None]


def _unit_of(number: Number, what: Measurand) -> Unit | None:
    """Return the unit of a number as one of ``what``; None where it is not one of its units."""
    if number.unit == _DEGREES:
        return None if "temperature" not in what.dimension else shown_unit(what.dimension, "us")
    if number.unit == "%" and what.dimension == "ppm":
        return find_unit("%", "percent")
    return find_unit(number.unit, what.dimension) or find_unit(number.said_unit, what.dimension)


def _choice(what: Measurand, one: SaidReading, situation: Situation) -> _Choice:
    number = one.number
    percent = number.unit == "%" and what.dimension == "ppm"
    dimension = "percent" if percent else what.dimension
    default = shown_unit(dimension, situation.system)
    unit = default if number.unit in ("", _DEGREES) else _unit_of(number, what)
    text = _typed(number)
    try:
        spelled = unit.symbol if unit else number.said_unit
        quantity = parse_quantity(f"{number.text} {spelled}", dimension, default)
    except CoreError as refusal:
        problem = Problem(text, phrase("of_a_reading", what=what.name, said=refusal.said))
        return _Choice(what, None, 0.0, default, False, False, problem)
    value = quantity.value_si * _PPM_PER_PERCENT if percent else quantity.value_si
    if not what.least <= value <= what.most:
        problem = Problem(text, _beyond(what, text, quantity.unit.symbol, situation))
        return _Choice(what, None, quantity.typed, quantity.unit, False, False, problem)
    if what.key == "co_ppm_dry" and 0 < value < 1 and not number.unit:
        ask = Ask(phrase("co_percent_ppm", text=text), (f"co {text} %", f"co {text} ppm"))
        return _Choice(what, None, quantity.typed, quantity.unit, False, False, None, ask)
    if (
        what.key == VOLTS
        and value >= _LINE_LEAST_V
        and one.name.station
        and set(one.name.leads or ()) == _CONTROL_VOLTAGE
    ):
        line = "L1 N" if situation.circuit is None or "N" in situation.circuit.nodes else "L1 L2"
        ask = Ask(phrase("line_volts_where", text=number.text), (f"v {line} {number.text}", f"v R C {number.text}"))
        return _Choice(what, None, quantity.typed, quantity.unit, False, False, None, ask)
    least, most = situation.likely.get(what.key, (what.least, what.most))
    return _Choice(what, value, quantity.typed, quantity.unit, least <= value <= most, value > _FAR_OVER * most > 0)


def _typed(number: Number) -> str:
    return f"{number.text} {number.said_unit}".strip()


def _beyond(what: Measurand, text: str, symbol: str, situation: Situation) -> Phrase:
    unit = shown_unit(what.dimension, situation.system)
    least, most = show_in(what.least, unit), show_in(what.most, unit)
    reason = what.beyond or phrase("lies_between", least=least.text, most=most.text, symbol=unit.symbol)
    bare = text if any(c.isalpha() or c in "%°" for c in text) else f"{text} {symbol}"
    return phrase("cannot", what=what.name, bare=bare, reason=reason)


def _by_family(row: list[_Choice], sure: set[str]) -> list[_Choice]:
    """Return the choices that belong to what is read beside them; all where that tells nothing."""
    beside = [family for family in _FAMILIES if family & sure]
    kept = [choice for choice in row if any(choice.what.key in family for family in beside)]
    return kept if len(kept) == 1 else row


def _meant(row: list[_Choice], one: SaidReading) -> list[_Choice]:
    """Return the quantity of the bar's own word alone where it is likely: the short word means what it always meant."""
    own = [choice for choice in row if choice.what.key == one.name.bar and choice.likely]
    return own or row


def _ask_which(
    said: SaidReadings, choices: Sequence[Sequence[_Choice]], at: int, left: Sequence[_Choice], situation: Situation
) -> Ask:
    number = _typed(said.readings[at].number)
    lines = [_whole_line(said, choices, at, choice, number) for choice in left[:_MOST_CHOICES]]
    return Ask(phrase("which_reading", said="", rest=number), tuple(lines))


def _whole_line(said: SaidReadings, choices: Sequence[Sequence[_Choice]], at: int, chosen: _Choice, number: str) -> str:
    """Return the line in the bar's own words, with reading ``at`` as the chosen quantity."""
    pieces = []
    for index, (one, row) in enumerate(zip(said.readings, choices, strict=True)):
        what, text = (chosen.what, number) if index == at else (row[0].what, _typed(one.number))
        over = ">" if one.over else ""
        pieces.append(" ".join(filter(None, (one.stage, clear_word(what.key), f"{over}{text}", *one.beside))))
    return ", ".join((*pieces, *said.phases[:1]))


@cache
def clear_word(key: str) -> str:
    """Return the shortest word of the bar that means this quantity alone."""
    words = (
        [word for word in measurand(key).words if names()[word.replace("-", " ")].own == {key}]
        if key not in (VOLTS, EVENT)
        else []
    )
    return words[0] if words else measurand(key).words[0]


def _in_other_units(
    said: SaidReadings, choices: Sequence[Sequence[_Choice]], at: int, chosen: _Choice, situation: Situation
) -> Iterator[Ask]:
    """Yield the question whether a bare number was meant in another unit: "input 76000" is in Btu/h."""
    number = said.readings[at].number
    if number.unit:
        return
    try:
        value = parse_number(number.text)
    except CoreError:
        return
    least, most = situation.likely.get(chosen.what.key, (chosen.what.least, chosen.what.most))
    units = [unit for unit in units_of(chosen.what.dimension) if least <= unit.to_si(value) <= most]
    lines = [_whole_line(said, choices, at, chosen, f"{number.text} {unit.symbol}") for unit in units[:_MOST_CHOICES]]
    if lines:
        yield Ask(phrase("which_unit", said=number.text), tuple(lines))


def _body(one: SaidReading, chosen: _Choice, stage: str) -> Reading:
    assert chosen.value is not None
    what = chosen.what
    held = _held(one) if what.key == VOLTS else ""
    most = (one.most,) if one.most and not held else ()
    in_state = (one.name.state,) if held and one.name.state else ()
    at_stage = (one.stage,) if one.stage and not what.staged else ()  # "blower 4.2 a low, 6.8 a high"
    least = ("least",) if one.least and not held and what.key not in LEAST_OF.values() else ()
    return Reading(
        what.key,
        chosen.value,
        chosen.typed,
        chosen.unit.symbol,
        stage if what.staged else None,
        (one.name.station or None) if what.key in (VOLTS, EVENT) else None,
        leads=one.name.leads if what.key == VOLTS else None,
        state=held or (one.name.state if what.key == VOLTS else ""),
        at_least=one.over,
        place=", ".join((*least, *most, *in_state, *at_stage, *one.beside)),
    )


def _doubts(one: SaidReading, chosen: _Choice, situation: Situation) -> Iterator[Phrase]:
    what = chosen.what
    if what.key == "draft_pa" and chosen.value is not None and chosen.value > 0:
        yield phrase("taken_suction_kept_you_typed")
    if not chosen.likely and what.key in situation.likely:
        unit = shown_unit(what.dimension, situation.system)
        least, most = (show_in(end, unit).text for end in situation.likely[what.key])
        yield phrase("far_from_likely", what=what.name, least=least, most=most, symbol=unit.symbol)


def without_its_least(said: SaidReadings) -> bool:
    """Tell whether a least or a most was said of what has none on the tape: it must not stand as the reading itself."""
    return any(
        (one.least and not _may(one.name, frozenset(LEAST_OF) | _LEAST_TOO))
        or (one.most and not _held(one) and not _may(one.name, _MOST_OF))
        for one in said.readings
    )


def _may(name: Name, keys: frozenset[str]) -> bool:
    return bool((name.own or name.with_unit) & keys)


def computed_rise(what: Measurand, temps: tuple[float, float], situation: Situation) -> Line:
    """Return the rise between return and supply air as last read, K; a problem where the supply was not the warmer."""
    cold, hot = temps
    if hot <= cold:
        problem = Problem("rise", phrase("supply_not_warmer_than_return"))
        return Line((), (problem,), (), situation.phase, situation.stage, "")
    unit = shown_unit(what.dimension, situation.system)
    shown = show_in(hot - cold, unit)
    parts = (("supply_air_temp_k", hot), ("return_air_temp_k", cold))
    body = Reading(what.key, hot - cold, round(shown.value, 2), unit.symbol, situation.stage, computed_from=parts)
    return Line((body,), (), (), situation.phase, situation.stage, "")
