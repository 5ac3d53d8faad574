"""Read one line: ``o2 6.4 co 46 t 118``, ``mp 3.2 hi``, ``did clean rod``, ``jump limit``, ``vent fell apart``.

The words give the kinds; what is left unsaid (unit, stage, phase) comes from the situation and is said back. A piece that
is not understood is never dropped: it stands in ``problems`` or ``unread``, and the line is not written.
"""

import difflib
import re
from dataclasses import replace

from havrin_core.phrases import phrase
from havrin_core.shorthand import statements
from havrin_core.shorthand.clause import read_clause
from havrin_core.shorthand.counted import is_turn
from havrin_core.shorthand.measured import MEASURED_VERBS, read_measured
from havrin_core.shorthand.model import Ask, Line, Problem, Situation
from havrin_core.shorthand.places import places_of
from havrin_core.shorthand.plate_line import read_plate
from havrin_core.shorthand.proofs import read_proof
from havrin_core.shorthand.reading_bodies import computed_rise, half_read, line_of_readings, without_its_least
from havrin_core.shorthand.readings import said_readings
from havrin_core.shorthand.spoken import of_another_system, spoken_verb
from havrin_core.shorthand.spoken_lines import spoken_line
from havrin_core.shorthand.tokens import clauses_of
from havrin_core.shorthand.trials import TRIALS, read_trial
from havrin_core.shorthand.words import PHASE_WORDS, STAGE_WORDS, VERBS, measurand_words
from havrin_core.tape.entries import Action, Body, Condition, Reading
from havrin_core.vocabulary.catalogue import BAD, DANGER, GOOD, WORN, part, verdict_of
from havrin_core.vocabulary.measurands import measurand

MOST_CHARACTERS = 500
_NUMBERLIKE = re.compile(r"^[+\-−–]?[.,]?\d")
_GLUED = re.compile(r"(?<=[A-Za-z0-9₂µμ])[=:](?=[\d.,+\-−])")
CONTRASTS = ("but", "except", "however", "though", "although", "yet")


def read_line(text: str, situation: Situation) -> Line:
    """Return what ``text`` says in ``situation``. Never raises for what was typed: problems are data."""
    if len(text) > MOST_CHARACTERS:
        long = phrase("line_holds_characters_has", most_characters=MOST_CHARACTERS, text=len(text))
        return _nothing(situation, Problem(text[:20] + "…", long))
    words = _GLUED.sub(" ", text.strip()).split()
    if not words:
        return _nothing(situation)
    line = _placed(_said(text, words, situation), situation)
    silent = not (line.bodies or line.problems or line.asks or line.unread)
    if silent:
        return replace(line, unread=tuple(words))
    elsewhere = of_another_system(text)
    if elsewhere and line.writable and any(isinstance(body, Condition | Reading) for body in line.bodies):
        return replace(line, unread=(elsewhere,))  # "compressor contactor pitted" is no finding of this unit
    return _with_contrast(line, words)


def _with_contrast(line: Line, words: list[str]) -> Line:
    """Return a line with its "but" counted: behind a good finding it says that something is not.

    Where what follows was not understood as that, it is unread; where it speaks of the same part, the good is not written.
    """
    at = next((index for index, word in enumerate(words) if word.lower().strip(",;") in CONTRASTS), 0)
    looks = [body for body in line.bodies if isinstance(body, Condition)]
    good = {body.part for body in looks if verdict_of(body.part, body.condition) == GOOD}
    worse = {body.part for body in looks if verdict_of(body.part, body.condition) in (WORN, BAD, DANGER)}
    if not at or not good or line.unread:
        return line
    if not worse:
        only_looks = len(looks) == len(line.bodies)
        return replace(line, unread=tuple(words[at:])) if only_looks else line
    kept = tuple(body for body in line.bodies if not (_is_good(body) and _part_of(body) in worse))
    dropped = len(kept) < len(line.bodies)
    doubts = (*line.doubts, phrase("good_beside_worse_left_out")) if dropped else line.doubts
    return replace(line, bodies=kept, doubts=doubts)


def _part_of(body: Body) -> str:
    return body.part if isinstance(body, Condition) else ""


def _is_good(body: Body) -> bool:
    return isinstance(body, Condition) and verdict_of(body.part, body.condition) == GOOD


def _readings(text: str, situation: Situation) -> Line | None:
    """Return the line where the whole of ``text`` is readings; None for any other."""
    said = said_readings(text, places_of(situation.circuit, situation.nodes))
    if not said.whole or len(said.phases) > 1 or without_its_least(said):
        return _bare_rise(text, situation)
    return line_of_readings(said, situation)


def _bare_rise(text: str, situation: Situation) -> Line | None:
    """Without a number the rise is that between the last two air temperatures."""
    words = [word for word in text.lower().split() if word not in STAGE_WORDS | PHASE_WORDS]
    what = measurand_words().get(" ".join(words))
    if what is None or what.key != "temperature_rise_k":
        return None
    temps = situation.air_temps_k()
    return computed_rise(what, temps, situation) if temps else None


def _said(text: str, words: list[str], situation: Situation) -> Line:
    """Return what a line says: in the bar's words, as readings, or in other words; else what is in the way."""
    line = _dispatched(words, situation)
    if not line.writable:
        line = _in_the_bars_words(text, line, situation)
    if not line.writable and not line.asks:
        said = said_readings(text, places_of(situation.circuit, situation.nodes))
        if said.begins_as_one and (said.readings or said.loose):
            return half_read(said, situation)
    return line


def _in_the_bars_words(text: str, line: Line, situation: Situation) -> Line:
    """Return what a whole line means that people say in other words; ``line`` where there is none, or it is not understood."""
    plain = spoken_line(text)
    read = _dispatched(plain.split(), situation) if plain else line
    return read if read.writable else line


def _dispatched(words: list[str], situation: Situation) -> Line:
    verb = words[0].lower().rstrip(",:;")
    meant = spoken_verb(" ".join(words))
    if meant is not None:
        return statements.read_statement(meant[0], meant[1].split(), situation)
    if verb in MEASURED_VERBS:
        return read_measured(verb, words[1:], situation) if _is_measured(words) else _clauses(words, situation)
    if verb == "plate" and len(words) > 1:
        return read_plate(words[1:], situation)
    if verb in TRIALS and not _is_sentence(words, situation):
        return read_trial(verb, words[1:], situation)
    readings = _readings(" ".join(words), situation)
    if readings is not None:
        return readings
    if verb in VERBS and not _is_not_that_verb(words, situation):
        return statements.read_statement(verb, words[1:], situation)
    return _with_near_readings(_clauses(words, situation), words)


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


def _is_measured(words: list[str]) -> bool:
    """ "belt worn" speaks of the belt; "belt 9 mm 600 mm" measures it; "turned it down" is no count of turns."""
    if words[0].lower() == "turned":
        return is_turn(words[1:])
    return any(_NUMBERLIKE.match(word) or word.startswith("#") for word in words[1:]) or len(words) == 1


def _is_sentence(words: list[str], situation: Situation) -> bool:
    """ "looks like a crack" is no trial; "look hose ok" is one."""
    return words[0].lower() == "look" and len(words) > 1 and words[1].lower() in ("like", "at", "into")


# verbs of the bar that are words of the trade, too: what stands behind them tells
_PLAIN_WORDS = {"shut": ("down",), "again": (), "lift": (), "part": (), "leak": (), "side": ()}


def _is_not_that_verb(words: list[str], situation: Situation) -> bool:
    verb = words[0].lower()
    if verb == "shut":
        return (
            len(words) > 1
            and words[1].lower().strip(",;:") not in ("down", "it", "unit")
            and bool(read_clause(" ".join(words), situation).bodies)
        )
    if verb in ("leak", "tap", "plug", "pull", "hold", "restore", "part", "power", "refit"):
        # a whole sentence of the vocabulary goes before the short verb: "leak at union", "power off and on"
        return verb == "leak" and len(words) > 1 and words[1].lower() in ("at", "on", "in")
    return False


def _clauses(words: list[str], situation: Situation) -> Line:
    """Read a line that is no single statement: clause by clause, each a reading, a proof, an action or a finding."""
    stage = next(
        (
            STAGE_WORDS[w.lower()]
            for w in words
            if w.lower() in STAGE_WORDS and STAGE_WORDS[w.lower()] in situation.stages
        ),
        situation.stage,
    )
    phase = next(
        (PHASE_WORDS[w.lower()] for w in words if w.lower() in PHASE_WORDS and w.lower() != "left"), situation.phase
    )
    there = replace(situation, stage=stage, phase=phase)
    line = Line((), (), (), phase, stage, "")
    spoken_of = ""
    for piece in clauses_of(" ".join(words)):
        read, spoken_of = _clause(piece, there, spoken_of)
        line = _joined(line, read)
    return line


def _clause(piece: str, situation: Situation, spoken_of: str) -> tuple[Line, str]:
    words = piece.split()
    readings = _readings(piece, situation)
    if readings is not None:
        return readings, spoken_of
    proof = read_proof(piece, situation)
    if proof is not None:
        return statements.line_of(proof, situation), spoken_of
    verb = words[0].lower()
    if verb in ("told", "did", "cycles", "cause", "advise") and len(words) > 1:
        return statements.read_statement(verb, words[1:], situation), spoken_of
    read = read_clause(piece, situation, spoken_of)
    return statements.line_of(read, situation), read.part or spoken_of


def _joined(line: Line, more: Line) -> Line:
    return replace(
        line,
        bodies=(*line.bodies, *more.bodies),
        problems=(*line.problems, *more.problems),
        doubts=(*line.doubts, *more.doubts),
        asks=(*line.asks, *more.asks),
        unread=(*line.unread, *more.unread),
        station=line.station or more.station,
    )


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
