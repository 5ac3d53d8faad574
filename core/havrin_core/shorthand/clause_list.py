"""A line of several statements: "rod dirty, cleaned, 3.0 ua", "hose ok but port plugged"; each clause by itself, in their order."""

import re
from dataclasses import replace

from havrin_core.shorthand import statements
from havrin_core.shorthand.bar import read_figures, read_stated
from havrin_core.shorthand.clause import read_clause
from havrin_core.shorthand.first_words import spoken_verb
from havrin_core.shorthand.model import Line, Situation
from havrin_core.shorthand.numbers import may_hold_a_number
from havrin_core.shorthand.other_words import spoken_line
from havrin_core.shorthand.places import places_of
from havrin_core.shorthand.proofs import read_proof
from havrin_core.shorthand.reading_bodies import computed_rise, line_of_readings, without_its_least
from havrin_core.shorthand.readings import said_readings
from havrin_core.shorthand.tokens import clauses_of, tokens_of
from havrin_core.shorthand.words import PHASE_WORDS, STAGE_WORDS, measurand_words
from havrin_core.shorthand.words_of_clause import LIKE, clause_of
from havrin_core.tape.entries import Action, Body, Condition
from havrin_core.vocabulary.catalogue import BAD, DANGER, WORN, verdict_of
from havrin_core.vocabulary.index import part_index

# verbs of the bar that may begin a clause of a longer line
_BEGINS_A_CLAUSE = frozenset(
    ("told", "did", "cycles", "cause", "advise", "approved", "declined", "approve", "part", "again", "leaves")
)
# what a bare number behind a finding or an action is a reading of
_READ_AT = {
    "port": "draft",
    "hose": "draft",
    "pressure_switch": "draft",
    "vent_switch": "draft",
    "inducer": "draft",
    "inducer_wheel": "draft",
    "flame_rod": "ua",
    "gas_valve": "mp",
    "blower": "blower amps",
    "water": "wp",
    "feed_valve": "wp",
}
# What draws the current that is said behind a finding at a part: "inducer noisy, amp draw 2.1" is none of the blower.
_DRAWS = {
    "inducer": "inducer",
    "inducer_wheel": "inducer",
    "gas_valve": "gas valve",
    "blower": "blower",
    "blower_wheel": "blower",
    "igniter": "igniter",
    "transformer": "transformer",
    "board": "board",
}
_CURRENT = re.compile(r"\b(?:amps?|amperage|current|draws?|drawing|pulls?|pulling)\b|\d\s*a\b", re.IGNORECASE)
_OPENED = re.compile(r"(?:it )?(?:opened|tripped|cut out|kicked out|broke|let go) at ([\d.,]+\s*\S*)", re.IGNORECASE)
_FIGURES = re.compile(r"(?:[-.\d/]+|for|a|an|the|of|instead|on|at|in|by|mm|inch|inches|wc)")


def read_readings(text: str, situation: Situation) -> Line | None:
    """Return the line where the whole of ``text`` is readings; None for any other."""
    if not may_hold_a_number(text):
        return _bare_rise(text, situation)
    said = said_readings(text, places_of(situation.circuit, situation.nodes))
    if not said.whole or without_its_least(said):
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


def read_clauses_of(text: str, situation: Situation) -> Line:
    """Read a line that is no single statement: clause by clause, each a reading, a proof, an action or a finding."""
    words = text.split()
    there = replace(situation, stage=_stage(words, situation), phase=_phase(words, situation))
    line = _nothing(there)
    spoken_of = ""
    pieces = _gathered(clauses_of(text), situation)
    for at, piece in enumerate(pieces):
        read, now = _clause(piece, there, spoken_of)
        if _swallows(read):
            read, now = _of_both_sides(piece, there, spoken_of) or (read, now)
        if not read.writable and not spoken_of and at + 1 < len(pieces):
            read, now = _clause_of_what_follows(piece, pieces[at + 1], there) or (read, now)
        if not read.writable and _are_figures(piece) and _is_wrong(line):
            line = _with_figures(line, piece)
            continue
        line, spoken_of = _joined(line, read), now
    return line


def _nothing(situation: Situation) -> Line:
    return Line((), (), (), situation.phase, situation.stage, "")


def _stage(words: list[str], situation: Situation) -> str:
    said = [STAGE_WORDS[word.lower()] for word in words if word.lower() in STAGE_WORDS]
    return next((stage for stage in said if stage in situation.stages), situation.stage)


def _phase(words: list[str], situation: Situation) -> str:
    said = [word.lower() for word in words if word.lower() in PHASE_WORDS and word.lower() != "left"]
    return PHASE_WORDS[said[0]] if said else situation.phase


def _gathered(pieces: list[str], situation: Situation) -> list[str]:
    """Return the clauses, one that only names a part joined to the next: "inspected heat exchanger, no cracks"."""
    gathered: list[str] = []
    carried = ""
    for at, piece in enumerate(pieces):
        only_part = at + 1 < len(pieces) and _only_a_part(piece, situation)
        if only_part:
            carried = f"{carried} {piece}".strip()
        else:
            gathered.append(f"{carried} {piece}".strip())
            carried = ""
    return gathered


def _only_a_part(piece: str, situation: Situation) -> bool:
    """Tell whether a clause names a part and nothing else, or says that it was looked at."""
    keys = [token.key for token in tokens_of(piece)]
    clause = clause_of(piece, situation)
    looked = bool(clause.spans) and clause.spans[0].is_("looked")
    parts = [span for span in clause.spans if clause.here(span) and not span.of(LIKE)]
    return bool(keys) and looked and len(parts) == 1 and len(clause.spans) == 2 and not clause.strange


def _clause_of_what_follows(piece: str, following: str, situation: Situation) -> tuple[Line, str] | None:
    """Return an action that names no part as one of the part in the clause behind it: "cleared nest, vent ok"."""
    found = part_index().every([token.key for token in tokens_of(following)], situation.parts)
    if not found:
        return None
    read = read_clause(piece, situation, found[0].key)
    action = bool(read.bodies) and all(isinstance(body, Action) for body in read.bodies)
    return (statements.line_of(read, situation), read.part) if action else None


def _swallows(line: Line) -> bool:
    """Tell whether one entry was made with words beside it, among which another statement may be."""
    body = line.bodies[0] if len(line.bodies) == 1 and line.writable else None
    return (isinstance(body, Condition) and bool(body.place)) or (isinstance(body, Action) and bool(body.detail))


def _of_both_sides(piece: str, situation: Situation, spoken_of: str) -> tuple[Line, str] | None:
    """Return what stands on both sides of an "and", where each is a statement: "red tagged and shut gas off"."""
    left, joined, right = piece.partition(" and ")
    if not joined:
        return None
    first, named = _clause(left, situation, spoken_of)
    second, now = _clause(right, situation, named)
    if all(side.writable and side.bodies for side in (first, second)):
        return _joined(first, second), now
    return None


def _are_figures(piece: str) -> bool:
    """Tell whether a clause is only figures, like a set point: ".40 for a .80"."""
    words = piece.lower().split()
    return any(word[-1:].isdigit() for word in words) and all(_FIGURES.fullmatch(word) for word in words)


def _is_wrong(line: Line) -> bool:
    last = line.bodies[-1] if line.bodies else None
    return (
        isinstance(last, Condition) and not last.absent and verdict_of(last.part, last.condition) in (WORN, BAD, DANGER)
    )


def _with_figures(line: Line, piece: str) -> Line:
    last = line.bodies[-1]
    assert isinstance(last, Condition)
    figures: Body = replace(last, place=f"{last.place} {piece}".strip())
    return replace(line, bodies=(*line.bodies[:-1], figures))


def _clause(piece: str, situation: Situation, spoken_of: str) -> tuple[Line, str]:
    readings = _current_of(piece, spoken_of, situation) or read_readings(piece, situation)
    if readings is not None:
        named = part_index().every([token.key for token in tokens_of(piece)], situation.parts)
        return readings, named[0].key if named else spoken_of
    bare = _of_part(piece, spoken_of, situation)
    if bare is not None:
        return bare, spoken_of
    proof = read_proof(piece, situation)
    if proof is not None:
        return statements.line_of(proof, situation), spoken_of
    stated = _stated(piece, situation)
    if stated is not None:
        return stated, _spoken_of(piece, situation) or spoken_of
    read = read_clause(piece, situation, spoken_of)
    return statements.line_of(read, situation), read.part or spoken_of


def _current_of(piece: str, part: str, situation: Situation) -> Line | None:
    """Return a current that is said without its part as that of the part spoken of: "inducer noisy, amp draw 2.1".

    A current that is none of that part's is left unread: it is not that of the blower because nobody says so.
    """
    if part not in _DRAWS or not may_hold_a_number(piece) or not _CURRENT.search(piece):
        return None
    if part_index().every([token.key for token in tokens_of(piece)], situation.parts):
        return None
    named = read_readings(f"{_DRAWS[part]} {piece}", situation)
    if named is not None and named.writable:
        return named
    return replace(_nothing(situation), unread=tuple(piece.split()))


def _stated(piece: str, situation: Situation) -> Line | None:
    """Return a clause that begins with a verb of the bar, or that a rule puts into the bar's words."""
    words = piece.split()
    begins = words[0].lower() in _BEGINS_A_CLAUSE and len(words) > 1
    if begins or _is_shut_down(words) or spoken_verb(piece) is not None:
        return read_stated(words, situation)
    plain = spoken_line(piece)
    if plain is None:
        return None
    words = plain.split()
    lines = (read_figures(words, situation), read_readings(plain, situation), read_stated(words, situation))
    read = next((line for line in lines if line is not None and line.writable), None)
    return read or read_in_a_row(plain, situation)


def read_in_a_row(plain: str, situation: Situation) -> Line | None:
    """Return several statements in the bar's words, as a rule makes them; None for a single one, or where one is not read."""
    pieces = clauses_of(plain)
    line = _nothing(situation)
    for piece in pieces:
        ways = (read_readings(piece, situation), read_stated(piece.split(), situation))
        read = next((way for way in ways if way is not None and way.writable), None)
        if read is None:
            return None
        line = _joined(line, read)
    return line if len(pieces) > 1 else None


def _is_shut_down(words: list[str]) -> bool:
    low = [word.lower() for word in words]
    return (low[0] == "shut" and "down" in low[1:3]) or low[:2] == ["leaves", "running"]


def _of_part(piece: str, part: str, situation: Situation) -> Line | None:
    """Return a bare number as the reading that is taken at the part spoken of: "port plugged, cleared it, 0.9 now"."""
    opened = _OPENED.fullmatch(piece)
    if opened and part == "limit":
        return read_readings(f"limit opens at {opened[1]}", situation)
    quantity = _READ_AT.get(part)
    words = [word for word in piece.split() if word.lower() not in ("it", "is", "was", "reads", "reading", "at", "got")]
    numbers = [word for word in words if word.lstrip("-").lstrip(".")[:1].isdigit()]
    if not quantity or len(numbers) != 1:
        return None
    return read_readings(f"{quantity} {' '.join(words)}", situation)


def _spoken_of(piece: str, situation: Situation) -> str:
    found = part_index().every([token.key for token in tokens_of(piece)], situation.parts)
    return found[0].key if found else ""


def _phases_together(line: Line, more: Line) -> tuple[str, ...]:
    phases = (*line.phase_of_each, *more.phase_of_each)
    return phases if len(set(phases)) > 1 or (phases and phases[0] != line.phase) else ()


def _joined(line: Line, more: Line) -> Line:
    return replace(
        line,
        bodies=(*line.bodies, *more.bodies),
        phases=_phases_together(line, more),
        problems=(*line.problems, *more.problems),
        doubts=(*line.doubts, *more.doubts),
        asks=(*line.asks, *more.asks),
        unread=(*line.unread, *more.unread),
        station=line.station or more.station,
    )
