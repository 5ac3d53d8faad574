"""Read one line: ``o2 6.4 co 46 t 118``, ``mp 3.2 hi``, ``did clean rod``, ``jump limit``.

The words give the kinds; what is left unsaid (unit, stage, phase) comes from the situation
and is said back. A piece that is not understood is never dropped: it stands in ``problems``.
"""

import re

from havrin_core.errors import CoreError
from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.quantities.display import show_in
from havrin_core.quantities.parse import parse_quantity
from havrin_core.quantities.units import ALL_SPELLINGS, shown_unit
from havrin_core.rules.readings import station_of
from havrin_core.shorthand import statements
from havrin_core.shorthand.looks import read_look
from havrin_core.shorthand.measured import MEASURED_VERBS, read_measured
from havrin_core.shorthand.model import Line, Problem, Situation
from havrin_core.shorthand.plate_line import read_plate
from havrin_core.shorthand.trials import TRIALS, milestones_of, read_trial
from havrin_core.shorthand.words import (
    PHASE_WORDS,
    STAGE_WORDS,
    VERBS,
    finding_words,
    longest_phrase,
    measurand_words,
    nearest,
)
from havrin_core.tape.entries import Body, Reading
from havrin_core.vocabulary.findings import finding
from havrin_core.vocabulary.measurands import Measurand

MOST_CHARACTERS = 500
_NUMBERLIKE = re.compile(r"^[+\-−–]?[.,]?\d")
_GLUED = re.compile(r"(?<=[A-Za-z0-9₂µμ])[=:](?=[\d.,+\-−])")
_PHASE_TEXT = {"found": "as found", "left": "as left", "trial": "trial"}


def read_line(text: str, situation: Situation) -> Line:
    """Return what ``text`` says in ``situation``. Never raises for what was typed: problems are data."""
    if len(text) > MOST_CHARACTERS:
        return _nothing(
            situation, Problem(text[:20] + "…", f"A line holds {MOST_CHARACTERS} characters; this has {len(text)}.")
        )
    words = _GLUED.sub(" ", text.strip()).split()
    if not words:
        return _nothing(situation)
    verb = words[0].lower()
    if verb in MEASURED_VERBS:
        return read_measured(verb, words[1:], situation)
    if verb == "plate":
        return read_plate(words[1:], situation)
    if verb in TRIALS:
        return read_trial(verb, words[1:], situation)
    if verb in VERBS and not (verb == "found" and _is_readings(words[1:])):
        return statements.read_statement(verb, words[1:], situation)
    look = longest_phrase(words, finding_words())
    if look and not _is_readings(words):
        return _look(look[0], words[look[1] :], situation)
    return _Readings(words, situation).read()


def _nothing(situation: Situation, *problems: Problem) -> Line:
    return Line((), (), problems, (), situation.phase, situation.stage, "")


def _is_readings(words: list[str]) -> bool:
    has_number = any(_NUMBERLIKE.match(word) for word in words)
    named = any(" ".join(words[:count]).lower() in measurand_words() for count in (2, 1))
    return named and has_number


def _look(key: str, rest: list[str], situation: Situation) -> Line:
    read = read_look(key, rest)
    if isinstance(read, Problem):
        return _nothing(situation, read)
    body, echo = read
    return Line((body,), (echo,), (), (), situation.phase, situation.stage, finding(key).station)


class _Readings:
    """Reads quantity after quantity; keeps what was understood and what was not."""

    def __init__(self, words: list[str], situation: Situation) -> None:
        self.situation = situation
        self.phase = next((PHASE_WORDS[w.lower()] for w in words if w.lower() in PHASE_WORDS), situation.phase)
        self.problems: list[Problem] = []
        self.stage = self._stage([w.lower() for w in words])
        kept = [w for w in words if w.lower() not in STAGE_WORDS and w.lower() not in PHASE_WORDS]
        self.words = kept
        self.bodies: list[Reading] = []
        self.echo: list[str] = []
        self.doubts: list[str] = []

    def read(self) -> Line:
        at = 0
        while at < len(self.words):
            at = self._one(at)
        bodies: tuple[Body, ...] = tuple(self.bodies)
        said = " · ".join(filter(None, [self._stage_text(), _PHASE_TEXT[self.phase]]))
        echo = (*self.echo, said) if self.echo else ()
        return Line(bodies, echo, tuple(self.problems), tuple(self.doubts), self.phase, self.stage, self._station())

    def _station(self) -> str:
        if not self.bodies:
            return ""
        first = self.bodies[0]
        what = next(m for m in measurand_words().values() if m.key == first.quantity)
        return first.station or station_of(what, first.stage)

    def _stage_text(self) -> str:
        staged = any(body.stage for body in self.bodies)
        label = STAGE_LABELS[self.stage]
        return f"{label} fire" if staged and label else ""

    def _stage(self, words: list[str]) -> str:
        said = [STAGE_WORDS[word] for word in words if word in STAGE_WORDS]
        if not said:
            return self.situation.stage
        if said[-1] in self.situation.stages:
            return said[-1]
        if len(self.situation.stages) == 1:
            self.problems.append(Problem(said[-1], "This unit has one stage: leave low and high away."))
        return self.situation.stages[-1]

    def _one(self, at: int) -> int:
        named = self._measurand(at)
        if named is None:
            piece = self.words[at]
            self.problems.append(Problem(piece, f"“{piece}” is not a word I know here.", nearest(piece)))
            return self._skip_value(at + 1)
        what, at = named
        if what.key == "volts_across_v":
            return self._volts(what, at)
        if what.key == "event_s":
            return self._event(what, at)
        if what.key == "temperature_rise_k" and at >= len(self.words) and self.situation.air_temps_k:
            self._computed_rise(what)
            return at
        return self._value(what, at, None)

    def _measurand(self, at: int) -> tuple[Measurand, int] | None:
        for count in (2, 1):
            phrase = " ".join(self.words[at : at + count]).lower()
            if len(self.words) - at >= count and phrase in measurand_words():
                return measurand_words()[phrase], at + count
        return None

    def _skip_value(self, at: int) -> int:
        while at < len(self.words) and self._measurand(at) is None:
            at += 1
        return at

    def _value(self, what: Measurand, at: int, station: str | None, leads: tuple[str, str] | None = None) -> int:
        stop = at
        while stop < len(self.words) and _NUMBERLIKE.match(self.words[stop]):
            stop += 1
        # "1 1/2" is one number; "6.4 46" is a number and something left over
        if stop - at > 1 and "/" not in self.words[at + 1]:
            stop = at + 1
        if stop == at:
            self.problems.append(Problem(what.name, f"{what.name}: a number is missing."))
            return self._skip_value(at)
        number_text = " ".join(self.words[at:stop])
        if stop < len(self.words) and self._is_unit(what, stop):
            number_text += f" {self.words[stop]}"
            stop += 1
        self._accept(what, number_text, station, leads)
        return stop

    def _is_unit(self, what: Measurand, at: int) -> bool:
        word = self.words[at]
        spelled = word in ALL_SPELLINGS or word.lower() in ALL_SPELLINGS
        followed = at + 1 < len(self.words) and _NUMBERLIKE.match(self.words[at + 1])
        # a word can be both ("v", "t"): it is a unit unless a number of its own follows
        return spelled and not (self._measurand(at) is not None and bool(followed))

    def _accept(self, what: Measurand, text: str, station: str | None, leads: tuple[str, str] | None) -> None:
        try:
            quantity = parse_quantity(text, what.dimension, shown_unit(what.dimension, self.situation.system))
        except CoreError as refusal:
            self.problems.append(Problem(text, f"{what.name}: {refusal.message}"))
            return
        if not what.least <= quantity.value_si <= what.most:
            self.problems.append(Problem(text, self._beyond(what, text, quantity.unit.symbol)))
            return
        stage = self.stage if what.staged else None
        self.bodies.append(
            Reading(what.key, quantity.value_si, quantity.typed, quantity.unit.symbol, stage, station, leads=leads)
        )
        shown = f"{quantity.typed:g}".replace("-", "−")
        where = f" {leads[0]}–{leads[1]}" if leads else f" {station}" if what.key == "event_s" else ""
        self.echo.append(f"{what.name}{where} {shown} {quantity.unit.symbol}")
        if what.key == "draft_pa" and quantity.value_si > 0:
            self.doubts.append("taken as suction; kept as you typed it")

    def _beyond(self, what: Measurand, text: str, symbol: str) -> str:
        unit = next(u for u in [shown_unit(what.dimension, self.situation.system)])
        least, most = show_in(what.least, unit), show_in(what.most, unit)
        reason = what.beyond or f"it lies between {least.text} and {most.text} {unit.symbol}"
        bare = text if any(c.isalpha() or c in "%°" for c in text) else f"{text} {symbol}"
        return f"{what.name} cannot be {bare}: {reason}"

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
            self.problems.append(
                Problem("v", f"Volts across what? v limit 0.0, or two node numbers: v 2 3 25.9. Here: {known}.")
            )
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
            text = f"This circuit has no node {unknown[0]}." if unknown else "Both leads are on the same node."
            self.problems.append(Problem(f"{a} {b}", f"{text} Its nodes: {', '.join(sorted(self._nodes()))}."))
            return at + 3
        station = next((name for name, *pair in self.situation.nodes if {a, b} == set(pair)), None)
        return self._value(what, at + 2, station, (a, b))

    def _event(self, what: Measurand, at: int) -> int:
        rest = self.words[at:]
        known = {m.key: m.key for m in milestones_of(self.situation.circuit)}
        named = longest_phrase(rest, known)
        if named is None:
            said = ", ".join(known) or "no circuit is known for this unit"
            self.problems.append(
                Problem(" ".join(rest) or "seen", f"What was seen? {said}. Then the seconds after the call.")
            )
            return self._skip_value(at)
        return self._value(what, at + named[1], named[0])

    def _computed_rise(self, what: Measurand) -> None:
        assert self.situation.air_temps_k is not None
        cold, hot = self.situation.air_temps_k
        unit = shown_unit(what.dimension, self.situation.system)
        shown = show_in(hot - cold, unit)
        if hot <= cold:
            self.problems.append(
                Problem("rise", "Supply is not warmer than return: probes swapped, or the burner off?")
            )
            return
        parts = (("supply_air_temp_k", hot), ("return_air_temp_k", cold))
        self.bodies.append(
            Reading(what.key, hot - cold, round(shown.value, 2), unit.symbol, self.stage, computed_from=parts)
        )
        self.echo.append(f"Rise {shown.text} {unit.symbol}, supply − return as last read")
