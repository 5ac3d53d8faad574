"""Read one line: ``o2 6.4 co 46 t 118``, ``mp 3.2 hi``, ``did clean rod``, ``jump limit``, ``vent fell apart``.

The words give the kinds; what is left unsaid (unit, stage, phase) comes from the situation and is said back. A piece that
is not understood is never dropped: it stands in ``problems`` or ``unread``, and the line is not written.
"""

import difflib
import re
from dataclasses import replace

from havrin_core.errors import CoreError
from havrin_core.phrases import Phrase, phrase
from havrin_core.quantities.display import show_in
from havrin_core.quantities.parse import parse_quantity
from havrin_core.quantities.units import ALL_SPELLINGS, shown_unit
from havrin_core.shorthand import statements
from havrin_core.shorthand.clause import read_clause
from havrin_core.shorthand.counted import is_turn
from havrin_core.shorthand.measured import MEASURED_VERBS, read_measured
from havrin_core.shorthand.model import Ask, Line, Problem, Situation
from havrin_core.shorthand.plate_line import read_plate
from havrin_core.shorthand.proofs import read_proof
from havrin_core.shorthand.spoken import of_another_system, spoken_readings, spoken_verb, spoken_volts
from havrin_core.shorthand.spoken_lines import spoken_line
from havrin_core.shorthand.tokens import clauses_of
from havrin_core.shorthand.trials import TRIALS, milestones_of, read_trial
from havrin_core.shorthand.words import PHASE_WORDS, STAGE_WORDS, VERBS, longest_phrase, measurand_words, nearest
from havrin_core.tape.entries import Action, Body, Condition, Reading
from havrin_core.vocabulary.catalogue import BAD, DANGER, GOOD, WORN, part, verdict_of
from havrin_core.vocabulary.measurands import Measurand, measurand

MOST_CHARACTERS = 500
_NUMBERLIKE = re.compile(r"^[+\-−–]?[.,]?\d")
_GLUED = re.compile(r"(?<=[A-Za-z0-9₂µμ])[=:](?=[\d.,+\-−])")
CONTRASTS = ("but", "except", "however", "though", "although", "yet")
_OVER = (">", "over", "above", "exceeds")
_PPM_PER_PERCENT = 1e4


def read_line(text: str, situation: Situation) -> Line:
    """Return what ``text`` says in ``situation``. Never raises for what was typed: problems are data."""
    if len(text) > MOST_CHARACTERS:
        long = phrase("line_holds_characters_has", most_characters=MOST_CHARACTERS, text=len(text))
        return _nothing(situation, Problem(text[:20] + "…", long))
    words = _GLUED.sub(" ", text.strip()).split()
    if not words:
        return _nothing(situation)
    line = _placed(_spoken_or(text, _dispatched(words, situation), situation), situation)
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


def _spoken_or(text: str, line: Line, situation: Situation) -> Line:
    """Return the readings that a line says in other words than the bar's, where those did not read it."""
    asked = line.asks and not line.unread and not line.problems and line.bodies
    plain = line.writable and all(isinstance(body, Reading) for body in line.bodies) and not _several_stages(text)
    if plain or asked:
        return line
    volts = spoken_volts(text, [name for name, _, _ in situation.nodes]) if not line.writable else None
    if volts is not None:
        return _Readings(["v", volts[0], volts[1]], situation).read()
    return _spoken(text, situation) or (line if line.writable else _in_the_bars_words(text, line, situation))


def _spoken(text: str, situation: Situation) -> Line | None:
    """Return the readings that ``text`` says in other words than the bar's; None where it says no readings alone."""
    heats_water = any(base == "water_supply" for base, _, _ in situation.stations)
    said = spoken_readings(text, heats_water=heats_water)
    if not said:
        return None
    found = Line((), (), (), said[0].phase or situation.phase, said[0].stage or situation.stage, "")
    for one in said:
        words = [*filter(None, (one.stage, one.phase)), *one.name.split(), *one.number.split()]
        found = _joined(found, _Readings(words, situation).read())
    understood = found.writable or (found.asks and not found.problems and not found.unread)
    return found if understood else None


def _in_the_bars_words(text: str, line: Line, situation: Situation) -> Line:
    """Return what a whole line means that people say in other words; ``line`` where there is none, or it is not understood."""
    plain = spoken_line(text)
    read = _dispatched(plain.split(), situation) if plain else line
    return read if read.writable else line


def _several_stages(text: str) -> bool:
    return len({STAGE_WORDS[word] for word in text.lower().replace(",", " ").split() if word in STAGE_WORDS}) > 1


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
    if verb in VERBS and not (verb == "found" and _is_readings(words[1:])) and not _is_not_that_verb(words, situation):
        return statements.read_statement(verb, words[1:], situation)
    if _is_readings(words) and not _has_clauses(words):
        return _Readings(words, situation).read()
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


def _is_readings(words: list[str]) -> bool:
    has_number = any(_NUMBERLIKE.match(word.lstrip(">")) for word in words)
    named = any(" ".join(words[:count]).lower() in measurand_words() for count in (3, 2, 1))
    if words and words[0].lower() in STAGE_WORDS | PHASE_WORDS:
        return _is_readings(words[1:])
    return named and (has_number or _is_bare_rise(words))


def _is_bare_rise(words: list[str]) -> bool:
    """Without a number the rise is that between the last two air temperatures."""
    said = [word.lower() for word in words if word.lower() not in STAGE_WORDS | PHASE_WORDS]
    what = measurand_words().get(" ".join(said))
    return what is not None and what.key == "temperature_rise_k"


def _has_clauses(words: list[str]) -> bool:
    """Tell whether a line of readings goes on with something else: "o2 6.4, vent ok"."""
    pieces = clauses_of(" ".join(words))
    return len(pieces) > 1 and not all(_is_readings(piece.split()) for piece in pieces)


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
    if _is_readings(words):
        return _Readings(words, situation).read(), spoken_of
    proof = read_proof(piece, situation)
    if proof is not None:
        return statements.line_of(proof, situation), spoken_of
    verb = words[0].lower()
    if verb in ("told", "did", "cycles", "cause", "advise") and len(words) > 1:
        return statements.read_statement(verb, words[1:], situation), spoken_of
    read = read_clause(piece, situation, spoken_of)
    spoken = _spoken(piece, situation) if read.unread or not read.bodies else None
    # a line has one phase: readings of another one beside something else are asked back
    said = spoken if spoken and spoken.phase == situation.phase else None
    return said or statements.line_of(read, situation), read.part or spoken_of


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


class _Readings:
    """Reads quantity after quantity; keeps what was understood and what was not."""

    def __init__(self, words: list[str], situation: Situation) -> None:
        self.situation = situation
        self.phase = next((PHASE_WORDS[w.lower()] for w in words if w.lower() in PHASE_WORDS), situation.phase)
        self.problems: list[Problem] = []
        in_names = self._in_names([w.lower() for w in words])
        self.stage = self._stage([w.lower() for i, w in enumerate(words) if i not in in_names])
        apart = STAGE_WORDS.keys() | PHASE_WORDS.keys()
        self.words = [w for i, w in enumerate(words) if i in in_names or w.lower() not in apart]
        self.bodies: list[Reading] = []
        self.asks: list[Ask] = []
        self.doubts: list[Phrase] = []

    def read(self) -> Line:
        at = 0
        while at < len(self.words):
            at = self._one(at)
        bodies: tuple[Body, ...] = tuple(self.bodies)
        return Line(bodies, tuple(self.problems), tuple(self.doubts), self.phase, self.stage, "", tuple(self.asks))

    def _in_names(self, words: list[str]) -> set[int]:
        """Return which words belong to a device whose name holds a stage's word: the high limit is no stage."""
        names = [
            name.split("_") for name, _, _ in self.situation.nodes if not STAGE_WORDS.keys().isdisjoint(name.split("_"))
        ]
        starts = [(at, len(name)) for name in names for at in range(len(words)) if words[at : at + len(name)] == name]
        return {at + step for at, count in starts for step in range(count)}

    def _stage(self, words: list[str]) -> str:
        said = [STAGE_WORDS[word] for word in words if word in STAGE_WORDS]
        if not said:
            return self.situation.stage
        if said[-1] in self.situation.stages:
            return said[-1]
        if len(self.situation.stages) == 1:
            self.problems.append(Problem(said[-1], phrase("unit_has_one_stage_low")))
        return self.situation.stages[-1]

    def _one(self, at: int) -> int:
        named = self._measurand(at)
        if named is None:
            piece = self.words[at]
            self.problems.append(Problem(piece, phrase("not_word_i_know_here", piece=piece), nearest(piece)))
            return self._skip_value(at + 1)
        what, at = named
        if what.key == "volts_across_v":
            return self._volts(what, at)
        if what.key == "event_s":
            return self._event(what, at)
        if what.key == "temperature_rise_k" and at >= len(self.words) and (temps := self.situation.air_temps_k()):
            self._computed_rise(what, *temps)
            return at
        return self._value(what, at, None)

    def _measurand(self, at: int) -> tuple[Measurand, int] | None:
        for count in (4, 3, 2, 1):
            phrase = " ".join(self.words[at : at + count]).lower().rstrip(",;:")
            if len(self.words) - at >= count and phrase in measurand_words():
                return measurand_words()[phrase], at + count
        return None

    def _skip_value(self, at: int) -> int:
        while at < len(self.words) and self._measurand(at) is None:
            at += 1
        return at

    def _value(self, what: Measurand, at: int, station: str | None, leads: tuple[str, str] | None = None) -> int:
        over = at < len(self.words) and self.words[at].lower() in _OVER
        at += 1 if over else 0
        if at < len(self.words) and self.words[at].startswith(">"):
            over, self.words[at] = True, self.words[at].lstrip(">")
        stop = at
        while stop < len(self.words) and _NUMBERLIKE.match(self.words[stop]):
            stop += 1
        # "1 1/2" is one number; "6.4 46" is a number and something left over
        if stop - at > 1 and "/" not in self.words[at + 1]:
            stop = at + 1
        if stop == at:
            self.problems.append(Problem(what.name, phrase("number_missing", what=what.name)))
            return self._skip_value(at)
        number_text = " ".join(self.words[at:stop])
        if stop < len(self.words) and self._is_unit(what, stop):
            number_text += f" {self.words[stop]}"
            stop += 1
        self._accept(what, number_text.rstrip(",;"), station, leads, over)
        return stop

    def _is_unit(self, what: Measurand, at: int) -> bool:
        word = self.words[at]
        spelled = word in ALL_SPELLINGS or word.lower() in ALL_SPELLINGS
        followed = at + 1 < len(self.words) and _NUMBERLIKE.match(self.words[at + 1])
        # a word can be both ("v", "t"): it is a unit unless a number of its own follows
        return spelled and not (self._measurand(at) is not None and bool(followed))

    def _accept(
        self, what: Measurand, text: str, station: str | None, leads: tuple[str, str] | None, over: bool = False
    ) -> None:
        percent = text.rstrip().endswith("%") and what.dimension == "ppm"
        try:
            quantity = parse_quantity(
                text,
                "percent" if percent else what.dimension,
                shown_unit("percent" if percent else what.dimension, self.situation.system),
            )
        except CoreError as refusal:
            self.problems.append(Problem(text, phrase("of_a_reading", what=what.name, said=refusal.said)))
            return
        value = quantity.value_si * _PPM_PER_PERCENT if percent else quantity.value_si
        if not what.least <= value <= what.most:
            self.problems.append(Problem(text, self._beyond(what, text, quantity.unit.symbol)))
            return
        if what.key == "co_ppm_dry" and 0 < value < 1 and text.strip(".,0123456789 ") == "":
            self.asks.append(Ask(phrase("co_percent_ppm", text=text), (f"co {text} %", f"co {text} ppm")))
            return
        stage = self.stage if what.staged else None
        self.bodies.append(
            Reading(what.key, value, quantity.typed, quantity.unit.symbol, stage, station, leads=leads, at_least=over)
        )
        if what.key == "draft_pa" and quantity.value_si > 0:
            self.doubts.append(phrase("taken_suction_kept_you_typed"))

    def _beyond(self, what: Measurand, text: str, symbol: str) -> Phrase:
        unit = next(u for u in [shown_unit(what.dimension, self.situation.system)])
        least, most = show_in(what.least, unit), show_in(what.most, unit)
        reason = what.beyond or phrase("lies_between", least=least.text, most=most.text, symbol=unit.symbol)
        bare = text if any(c.isalpha() or c in "%°" for c in text) else f"{text} {symbol}"
        return phrase("cannot", what=what.name, bare=bare, reason=reason)

    def _volts(self, what: Measurand, at: int) -> int:
        rest = self.words[at:]
        if len(rest) >= 3 and _NUMBERLIKE.match(rest[2]) and self._are_nodes(rest[:2]):
            return self._volts_between(what, at, rest[0].upper(), rest[1].upper())
        names = {name: name for name, _, _ in self.situation.nodes} | {
            name.replace("_", " "): name for name, _, _ in self.situation.nodes
        }
        named = longest_phrase(rest, names)
        if named is None:
            known = ", ".join(name.replace("_", " ") for name, _, _ in self.situation.nodes)
            self.problems.append(Problem("v", phrase("volts_across_what_v_limit", known=known)))
            return self._skip_value(at)
        leads = next((a, b) for name, a, b in self.situation.nodes if name == named[0])
        return self._value(what, at + named[1], named[0], leads)

    def _are_nodes(self, words: list[str]) -> bool:
        return all(word.isdigit() or word.upper() in self._nodes() for word in words)

    def _nodes(self) -> set[str]:
        if self.situation.circuit:
            return set(self.situation.circuit.nodes)
        return {node for _, *pair in self.situation.nodes for node in pair}

    def _volts_between(self, what: Measurand, at: int, a: str, b: str) -> int:
        unknown = [node for node in (a, b) if node not in self._nodes()]
        if unknown or a == b:
            text = phrase("circuit_has_no_node", unknown=unknown[0]) if unknown else phrase("both_leads_are_same_node")
            self.problems.append(
                Problem(f"{a} {b}", phrase("its_nodes", text=text, nodes=", ".join(sorted(self._nodes()))))
            )
            return at + 3
        station = next((name for name, *pair in self.situation.nodes if {a, b} == set(pair)), None)
        return self._value(what, at + 2, station, (a, b))

    def _event(self, what: Measurand, at: int) -> int:
        rest = self.words[at:]
        known = {m.key: m.key for m in milestones_of(self.situation.circuit)}
        named = longest_phrase(rest, known)
        if named is None:
            said = ", ".join(known) or phrase("no_circuit_known_unit")
            self.problems.append(Problem(" ".join(rest) or "seen", phrase("what_seen_then_seconds_after", said=said)))
            return self._skip_value(at)
        return self._value(what, at + named[1], named[0])

    def _computed_rise(self, what: Measurand, cold: float, hot: float) -> None:
        unit = shown_unit(what.dimension, self.situation.system)
        shown = show_in(hot - cold, unit)
        if hot <= cold:
            self.problems.append(Problem("rise", phrase("supply_not_warmer_than_return")))
            return
        parts = (("supply_air_temp_k", hot), ("return_air_temp_k", cold))
        self.bodies.append(
            Reading(what.key, hot - cold, round(shown.value, 2), unit.symbol, self.stage, computed_from=parts)
        )
