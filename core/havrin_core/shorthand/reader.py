"""Read one line: ``o2 6.4 co 46 t 118``, ``mp 3.2 hi``, ``did clean rod``, ``jump limit``, ``vent fell apart``.

The words give the kinds; what is left unsaid (unit, stage, phase) comes from the situation and is said back. A piece that
is not understood is never dropped: it stands in ``problems`` or ``unread``, and the line is not written.
"""

import difflib
import re
from collections.abc import Iterator
from dataclasses import replace

from havrin_core.phrases import phrase
from havrin_core.shorthand.bar import is_plain_word, read_figures, read_stated
from havrin_core.shorthand.clause_list import read_clauses_of, read_in_a_row, read_readings
from havrin_core.shorthand.first_words import of_another_system
from havrin_core.shorthand.model import Ask, Line, Problem, Situation
from havrin_core.shorthand.other_words import spoken_line
from havrin_core.shorthand.places import places_of, volts_or_event_problem
from havrin_core.shorthand.reading_bodies import half_read
from havrin_core.shorthand.readings import said_readings
from havrin_core.shorthand.slips import Mended, mended_lines
from havrin_core.shorthand.words import measurand_words
from havrin_core.tape.entries import Action, Body, Condition, Proof, Reading
from havrin_core.vocabulary.catalogue import BAD, DANGER, GOOD, WORN, part, verdict_of
from havrin_core.vocabulary.measurands import measurand

MOST_CHARACTERS = 500
_NUMBERLIKE = re.compile(r"^[+\-−–]?[.,]?\d")
_GLUED = re.compile(r"(?<=[A-Za-z0-9₂µμ])[=:](?=[\d.,+\-−])")
_ARROW = re.compile(r"([-−]?\d*[.,]?\d+\s*[^\s\d→>=-]*)\s*(?:→|[-=]+>)\s*(?=[-−.]?\d)")
CONTRASTS = ("but", "except", "however", "though", "although", "yet")


def read_line(text: str, situation: Situation) -> Line:
    """Return what ``text`` says in ``situation``. Never raises for what was typed: problems are data."""
    if len(text) > MOST_CHARACTERS:
        long = phrase("line_holds_characters_has", most_characters=MOST_CHARACTERS, text=len(text))
        return _nothing(situation, Problem(text[:20] + "…", long))
    text = _ARROW.sub(_was_and_now, text)
    words = _GLUED.sub(" ", text.strip()).split()
    if not words:
        return _nothing(situation)
    line = _placed(_said(text, situation), situation)
    silent = not (line.bodies or line.problems or line.asks or line.unread)
    if silent:
        return replace(line, unread=tuple(words))
    elsewhere = of_another_system(text)
    if elsewhere and line.writable and any(isinstance(body, Condition | Reading) for body in line.bodies):
        return replace(line, unread=(elsewhere,))  # "compressor contactor pitted" is no finding of this unit
    return _with_contrast(line, words)


def _was_and_now(arrow: re.Match[str]) -> str:
    """Return "4.2 in → " as "was 4.2 in now "; what points from a name to its number as it is: "o2 6.4 co=>400"."""
    is_name = arrow[1].split()[-1].lower() in measurand_words()
    return arrow[0] if is_name else f"was {arrow[1]} now "


def _with_contrast(line: Line, words: list[str]) -> Line:
    """Return a line without a good finding that another one of the same part takes back, unless work on it lies between.

    A "but" behind a good finding says that something is not: where what follows was not understood as that, it is unread.
    """
    taken_back = [at for at in range(len(line.bodies)) if _is_taken_back(line.bodies, at)]
    if taken_back:
        kept = [at for at in range(len(line.bodies)) if at not in taken_back]
        return replace(
            line,
            bodies=tuple(line.bodies[at] for at in kept),
            phases=tuple(line.phases[at] for at in kept) if line.phases else (),
            doubts=(*line.doubts, phrase("good_beside_worse_left_out")),
        )
    at = next((index for index, word in enumerate(words) if word.lower().strip(",;") in CONTRASTS), 0)
    looks = [body for body in line.bodies if isinstance(body, Condition)]
    worse = any(verdict_of(body.part, body.condition) in (WORN, BAD, DANGER) for body in looks)
    only_good = bool(looks) and not worse and len(looks) == len(line.bodies) and any(_is_good(body) for body in looks)
    return replace(line, unread=tuple(words[at:])) if at and only_good and not line.unread else line


def _is_taken_back(bodies: tuple[Body, ...], at: int) -> bool:
    """Tell whether a good finding stands beside a worse one of its part, with no work on that part between them."""
    good = bodies[at]
    if not isinstance(good, Condition) or not _is_good(good):
        return False
    for other_at, other in enumerate(bodies):
        if not isinstance(other, Condition) or other.part != good.part or other.absent:
            continue
        between = bodies[min(at, other_at) : max(at, other_at)]
        worked = any(isinstance(body, Action) and body.part == good.part for body in between)
        if verdict_of(other.part, other.condition) in (WORN, BAD, DANGER) and not worked:
            return True
    return False


def _clears(body: Body) -> bool:
    """Tell whether an entry says that something is in order."""
    return _is_good(body) or (isinstance(body, Proof) and body.passed)


def _is_good(body: Body) -> bool:
    return isinstance(body, Condition) and verdict_of(body.part, body.condition) == GOOD


def _said(text: str, situation: Situation) -> Line:
    """Return what a line says: in the bar's words, as readings, by a rule, clause by clause; else what is in the way.

    Where nothing reads it whole, it is tried once more with slips of one letter mended.
    """
    words = _GLUED.sub(" ", text.strip()).split()
    tried: list[Line] = []
    for line in _ways(words, situation):
        if line.writable:
            return line
        tried.append(line)
    mended = _mended(text, situation)
    if mended is not None:
        return mended
    return _in_the_way(text, words, tried, situation)


def _mended(text: str, situation: Situation) -> Line | None:
    """Return the line with its slips mended, with a doubt that says so; None where no mending makes sense.

    A word that says how something is is never mended unasked: "winding" is no slip of "binding".
    """
    found: dict[tuple[Body, ...], tuple[Line, Mended]] = {}
    for mended in mended_lines(text):
        line = next((line for line in _ways(mended.text.split(), situation) if line.writable), None)
        if line is not None:
            found.setdefault(line.bodies, (line, mended))
    if len(found) == 1:
        line, mended = next(iter(found.values()))
        if mended.named and not any(_clears(body) for body in line.bodies):
            return replace(line, doubts=(*line.doubts, phrase("read_as", said=mended.said, meant=mended.meant)))
    if not found:
        return None
    choices = tuple(mended.text for _, mended in found.values())
    ask = Ask(phrase("which_word", said=", ".join(mended.said for _, mended in list(found.values())[:1])), choices)
    return replace(_nothing(situation), asks=(ask,), unread=tuple(text.split()))


def _ways(words: list[str], situation: Situation) -> Iterator[Line]:
    """Yield the line as each way of reading takes it, the surest way first."""
    text = " ".join(words)
    if not words:
        return
    measured = read_figures(words, situation)
    if measured is not None:
        yield measured
        if not is_plain_word(words[0]):
            return
    readings = read_readings(text, situation)
    if readings is not None:
        yield readings
    stated = read_stated(words, situation)
    if stated is not None:
        yield stated
    plain = spoken_line(text)
    if plain is not None:
        yield from _of_the_bar(plain, situation)
    if stated is None or is_plain_word(words[0]):
        yield read_clauses_of(text, situation)


def _of_the_bar(plain: str, situation: Situation) -> Iterator[Line]:
    """Yield the line of the bar that a rule made; one of several statements clause by clause."""
    words = plain.split()
    lines = (read_figures(words, situation), read_readings(plain, situation), read_stated(words, situation))
    read = next((line for line in lines if line is not None), None)
    yield read_in_a_row(plain, situation) or read or read_clauses_of(plain, situation)


def _in_the_way(text: str, words: list[str], tried: list[Line], situation: Situation) -> Line:
    """Return what to say back of a line that nothing read whole: the most telling of what was tried."""
    telling = next((line for line in tried if line.problems or (line.asks and line.bodies)), None)
    if telling is not None and telling.problems:
        return telling
    places = places_of(situation.circuit, situation.nodes)
    problem = volts_or_event_problem(words, places)
    if problem is not None:
        return _nothing(situation, problem)
    asking = next((line for line in tried if line.asks and not line.unread), None)
    if asking is not None:
        return asking
    said = said_readings(text, places)
    if said.begins_as_one and (said.readings or any(piece.kind == "number" for piece in said.loose)):
        return half_read(said, situation)
    return _with_near_readings(tried[-1] if tried else _nothing(situation), words)


def _with_near_readings(line: Line, words: list[str]) -> Line:
    """ "maniflod 3.5": a number behind an unknown word is asked about, with the readings that are called nearly so."""
    at = next((index for index, word in enumerate(words) if _NUMBERLIKE.match(word)), 0)
    if line.bodies or line.asks or line.problems or not at:
        return line
    said, rest = " ".join(words[:at]), " ".join(words[at:])
    near = difflib.get_close_matches(said.lower(), measurand_words(), n=3, cutoff=0.7)
    if not near:
        return line
    return replace(
        line, asks=(Ask(phrase("which_reading", said=said, rest=rest), tuple(f"{word} {rest}" for word in near)),)
    )


def _nothing(situation: Situation, *problems: Problem) -> Line:
    return Line((), problems, (), situation.phase, situation.stage, "")


def _placed(line: Line, situation: Situation) -> Line:
    """Return the line with the station that its first entry belongs to."""
    if line.station or not line.bodies:
        return line
    first = line.bodies[0]
    if isinstance(first, Reading):
        return replace(
            line, station=first.station or situation.station_at(measurand(first.quantity).station, first.stage)
        )
    if isinstance(first, Condition | Action) and first.part:
        return replace(line, station=part(first.part).station)
    return line
