"""Lines that try a part or watch the sequence: stops, look, ohms, swap, try, watch."""

from havrin_core.machine.circuit.model import Circuit, Milestone
from havrin_core.phrases import phrase
from havrin_core.search.pictures import NOTHING, STEADY, pictures_of
from havrin_core.shorthand.model import Line, Problem, Situation
from havrin_core.shorthand.words import longest_phrase, nearest
from havrin_core.tape.entries import Proof, Reading

# The word typed -> the kind of test it is; a call made at the control is a test, not a bypass.
TRIALS = {"stops": "stops", "look": "look", "ohms": "ohms", "swap": "swap", "try": "jump", "watch": "watch"}
_GOOD, _BAD = ("ok", "good", "clear", "fine"), ("bad", "dirty", "blocked", "off", "failed", "not")
_OPEN = ("ol", "open", "o.l.", "∞")
_HIGH_SHARE = 1.4


def milestones_of(circuit: Circuit | None) -> tuple[Milestone, ...]:
    """Return what can be seen in the sequence of ``circuit``; none where no circuit is known."""
    return circuit.control.milestones if circuit else ()


def read_trial(verb: str, rest: list[str], situation: Situation) -> Line:
    """Return the line that ``verb`` with its ``rest`` makes."""
    if not situation.circuit:
        return _line(situation, Problem(verb, phrase("no_circuit_known_unit_write")))
    outcome = _stops(rest, situation) if verb == "stops" else _part(verb, rest, situation)
    return _line(situation, outcome, _igniter(outcome, rest, situation.circuit))


def _line(situation: Situation, outcome: Proof | Problem, reading: Reading | None = None) -> Line:
    if isinstance(outcome, Problem):
        return Line((), (outcome,), (), situation.phase, situation.stage, "")
    bodies = (outcome, reading) if reading else (outcome,)
    return Line(bodies, (), (), situation.phase, situation.stage, outcome.device)


def _igniter(outcome: Proof | Problem, rest: list[str], circuit: Circuit) -> Reading | None:
    """Return the ohms of an igniter as a reading too: its type has a band of its own."""
    if isinstance(outcome, Problem) or outcome.what != "ohms" or circuit.part(outcome.device).family != "igniter":
        return None
    ohms = _number(rest[-1])
    return None if ohms is None else Reading("igniter_ohm", ohms, ohms, "Ω")


def _stops(rest: list[str], situation: Situation) -> Proof | Problem:
    known = {m.key: m.key for m in milestones_of(situation.circuit) if m.seen} | {NOTHING: NOTHING, STEADY: STEADY}
    named = longest_phrase(rest, known)
    if named is None:
        text = " ".join(rest)
        return Problem(
            text or "stops",
            phrase("where_does_stop_last_thing", known=", ".join(known)),
            nearest(text, known),
        )
    return Proof("stops", named[0] == STEADY, device=named[0], outcome=named[0])


def _part(verb: str, rest: list[str], situation: Situation) -> Proof | Problem:
    kind = TRIALS[verb]
    assert situation.circuit is not None
    tests = pictures_of(situation.circuit).tests
    known = {key.split(":")[1].replace("_", " "): key.split(":")[1] for key in tests if key.startswith(f"{kind}:")}
    known |= {key: key for key in known.values()}
    named = longest_phrase(rest, known)
    if named is None:
        text = " ".join(rest)
        names = ", ".join(sorted({key.replace("_", " ") for key in known.values()}))
        return Problem(text or verb, phrase("which_part_here", verb=verb, names=names), nearest(text, known))
    word = " ".join(rest[named[1] :]).lower()
    outcome = _ohms(named[0], word, situation) if kind == "ohms" else _good_or_bad(word)
    if not outcome:
        how = phrase("number_open_ok") if kind == "ohms" else phrase("ok_bad")
        return Problem(word or verb, phrase("what_did_show", named=named[0].replace("_", " "), how=how))
    return Proof(kind, outcome == "ok", device=named[0], outcome=outcome)


def _good_or_bad(word: str) -> str:
    first = word.split()[0] if word else ""
    return "ok" if first in _GOOD else "bad" if first in _BAD else ""


def _ohms(part: str, word: str, situation: Situation) -> str:
    first = word.split()[0] if word else ""
    if first in _GOOD or first in _OPEN or first == "high":
        return "ok" if first in _GOOD else "high" if first == "high" else "open"
    ohms = _number(first)
    if ohms is None:
        return ""
    assert situation.circuit is not None
    sound = situation.circuit.part(part)
    return "high" if ohms > _HIGH_SHARE * (sound.ohm or 0.02) + 1.0 else "ok"


def _number(word: str) -> float | None:
    try:
        return float(word.replace(",", "."))
    except ValueError:
        return None
