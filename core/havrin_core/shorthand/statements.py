"""Lines that begin with a verb: deeds, looks, jumpers, codes, checks, decisions, notes."""

from collections.abc import Callable
from datetime import date

from havrin_core.follow_up.frost import HOLDS_HOURS
from havrin_core.follow_up.plan import APPROVERS
from havrin_core.machine.circuit.codes import normal_pattern
from havrin_core.quantities.dates import date_in
from havrin_core.shorthand.looks import read_look
from havrin_core.shorthand.model import Line, Problem, Situation
from havrin_core.shorthand.words import deed_words, finding_words, longest_phrase, nearest
from havrin_core.standing.model import TITLES
from havrin_core.tape.entries import Action, Body, Check, Code, Decision, JumperIn, JumperOut, Note
from havrin_core.vocabulary.abnormal import IN_VERBS, KINDS, OUT_VERBS, Abnormal, device_name
from havrin_core.vocabulary.actions import deed
from havrin_core.vocabulary.findings import finding

_DEVICE_WORDS = {
    "call": "call", "w": "call", "r-w": "call", "rw": "call", "thermostat": "call", "limit": "limit", "rollout": "rollout",
    "pressure": "pressure_switch", "pressure switch": "pressure_switch", "ps": "pressure_switch", "spill": "spill",
    "door": "door_switch", "door switch": "door_switch", "flame": "flame_sensor", "flame sensor": "flame_sensor",
    "low water": "low_water", "lwco": "low_water", "gas pressure": "gas_pressure", "inducer": "inducer", "low_water": "low_water", "pressure_switch": "pressure_switch",
}  # fmt: skip
_FOUND_ABNORMAL = {word: kind.verb_in for kind in KINDS for word in kind.found_words}
_MOST_PLACE = 40
_MOST_CODE = 40
DEVICES = tuple(dict.fromkeys(_DEVICE_WORDS.values()))
_GOOD, _BAD = ("ok", "good", "tight", "passed", "none", "yes"), ("bad", "failed", "fails", "found", "yes leak", "no")

Outcome = tuple[Body, str, str] | Problem  # body, how it reads, station


def read_statement(verb: str, rest: list[str], situation: Situation) -> Line:
    """Return the line that ``verb`` with its ``rest`` makes."""
    if verb == "code":
        return _codes(" ".join(rest), situation)
    outcome = _READERS[verb](rest, " ".join(rest))
    if isinstance(outcome, Problem):
        return Line((), (), (outcome,), (), situation.phase, situation.stage, "")
    body, echo, station = outcome
    return Line((body,), (echo,), (), (), situation.phase, situation.stage, station)


def _codes(text: str, situation: Situation) -> Line:
    """Return one code, or several stored ones with commas between them, newest first."""
    patterns = [normal_pattern(piece) for piece in text.split(",") if piece.strip()]
    if not patterns or any(len(pattern) > _MOST_CODE for pattern in patterns):
        problem = Problem(
            text or "code", "Which code? Flashes (code 2 4, code L S S, code 3 red), digits or letters (code E13)."
        )
        return Line((), (), (problem,), (), situation.phase, situation.stage, "")
    # The newest is written last: the tape's newest code is the one that counts.
    ordered = list(reversed(patterns))
    echo = [f"Code {p}" + (f": {situation.codes[p]}" if p in situation.codes else "") for p in patterns]
    unknown = [p for p in patterns if situation.codes and p not in situation.codes]
    doubts = tuple(f"this control’s chart knows no code {p}: count it again" for p in unknown)
    bodies = tuple(Code(pattern) for pattern in ordered)
    return Line(bodies, tuple(echo), (), doubts, situation.phase, situation.stage, "call")


def _did(rest: list[str], text: str) -> Outcome:
    if not rest:
        return Problem("did", "Did what? For example: did clean rod.")
    named = longest_phrase(rest, deed_words())
    if named is None:
        near = nearest(text, {word: word for word in deed_words()})
        return Problem(
            text, f"“{text}” is no deed I know: its proofs would be missed. Write it as a note, or pick one.", near
        )
    detail = " ".join(rest[named[1] :])
    return Action(named[0], detail), deed(named[0]).text + (f", {detail}" if detail else ""), deed(named[0]).station


def _found(rest: list[str], text: str) -> Outcome:
    abnormal = longest_phrase(rest, _FOUND_ABNORMAL)
    if abnormal is not None:
        return _put_in(IN_VERBS[abnormal[0]], rest[abnormal[1] :], found=True)
    named = longest_phrase(rest, finding_words())
    if named is None:
        near = nearest(text, {word: word for word in finding_words()}) if text else ()
        return Problem(text or "found", "Found what? A finding I do not know can be written as a note.", near)
    read = read_look(named[0], rest[named[1] :])
    return read if isinstance(read, Problem) else (*read, finding(named[0]).station)


def _device(rest: list[str]) -> str | Problem:
    named = longest_phrase(rest, _DEVICE_WORDS)
    if named is None:
        known = ", ".join(dict.fromkeys(device_name(d) for d in _DEVICE_WORDS.values()))
        return Problem(
            " ".join(rest) or "?", f"Which device? {known}.", nearest(" ".join(rest), {w: w for w in _DEVICE_WORDS})
        )
    return named[0]


def _where(kind: Abnormal, rest: list[str]) -> str | Problem:
    """Return the device or place: a known device where the kind wants one, else the words themselves."""
    device = _device(rest)
    if not isinstance(device, Problem) or kind.known_devices_only:
        return device
    text = " ".join(rest).lower()
    if not text or len(text) > _MOST_PLACE:
        return Problem(text or kind.verb_in, f"Where? Say it in a few words: {kind.verb_in} manifold.")
    return text


def _put_in(kind: Abnormal, rest: list[str], *, found: bool = False) -> Outcome:
    device = _where(kind, rest)
    if isinstance(device, Problem):
        return device
    said = f"Found {kind.said_in.lower()}" if found else kind.said_in
    return JumperIn(device, found, kind.key), f"{said}: {device_name(device)}", device


def _abnormal_in(kind: Abnormal) -> Callable[[list[str], str], Outcome]:
    return lambda rest, text: _put_in(kind, rest)


def _abnormal_out(kind: Abnormal) -> Callable[[list[str], str], Outcome]:
    def read(rest: list[str], text: str) -> Outcome:
        device = _where(kind, rest)
        if isinstance(device, Problem):
            return device
        return JumperOut(device, kind.key), f"{kind.said_out}: {device_name(device)}", device

    return read


def _proved(rest: list[str], text: str) -> Outcome:
    device = _device(rest)
    return (
        device
        if isinstance(device, Problem)
        else (Check("device", True, 1, device), f"Shown to act: {device_name(device)}", device)
    )


def _fails(rest: list[str], text: str) -> Outcome:
    device = _device(rest)
    return (
        device
        if isinstance(device, Problem)
        else (Check("device", False, 1, device), f"DOES NOT act: {device_name(device)}", device)
    )


def _leak(rest: list[str], text: str) -> Outcome:
    word = text.lower().removeprefix("check ").strip()
    if word in _GOOD:
        return Check("leak", True), "Leak check passed", "supply_running"
    if word in _BAD:
        return Check("leak", False), "Leak check FAILED: gas escapes", "supply_running"
    return Problem(text or "leak", "How did the leak check end? leak ok, or leak bad.")


def _cycles(rest: list[str], text: str) -> Outcome:
    if not rest or not rest[0].isdigit() or not 1 <= int(rest[0]) <= 99:
        return Problem(text or "cycles", "How many full cycles were watched? cycles 5; or cycles 1 failed.")
    passed = not any(word.lower() in ("failed", "bad") for word in rest[1:])
    count = int(rest[0])
    return (
        Check("cycles", passed, count),
        f"{count} full cycle{'s' if count > 1 else ''}{'' if passed else ': FAILED'}",
        "call",
    )


def _shut(rest: list[str], text: str) -> Outcome:
    words = " ".join(rest[1:]) if rest and rest[0].lower() == "down" else text
    return Decision("shut_down", words), "Shut down" + (f": {words}" if words else ""), ""


def _worded(name: str, label: str) -> Callable[[list[str], str], Outcome]:
    def read(rest: list[str], text: str) -> Outcome:
        if not text:
            return Problem(name, f"{label}: say it in a few words.")
        return Decision(name, text), f"{label}: {text}", ""

    return read


def _levelled(name: str, allowed: tuple[int, ...]) -> Callable[[list[str], str], Outcome]:
    def read(rest: list[str], text: str) -> Outcome:
        if len(rest) < 2 or not rest[0].isdigit() or int(rest[0]) not in allowed:
            levels = ", ".join(f"{n} {TITLES[n].lower()}" for n in allowed)
            return Problem(text or name, f"Write the level and the reason: {name} {allowed[0]} … Levels: {levels}.")
        words = " ".join(rest[1:])
        return Decision(name, words, int(rest[0])), f"{name.capitalize()} standing: {TITLES[int(rest[0])]}. {words}", ""

    return read


def _answered(name: str, label: str) -> Callable[[list[str], str], Outcome]:
    def read(rest: list[str], text: str) -> Outcome:
        if not rest or rest[0].lower() not in APPROVERS:
            return Problem(
                text or name, f"{label}: who, and for which part? {name} owner inducer. Who: {', '.join(APPROVERS)}."
            )
        words = " ".join([rest[0].lower(), *rest[1:]])
        return Decision(name, words), f"{label}: {words}", ""

    return read


def _dated(name: str, label: str) -> Callable[[list[str], str], Outcome]:
    def read(rest: list[str], text: str) -> Outcome:
        if date_in(text, date.min) is None:
            return Problem(text or name, f"{label}: which day? 2026-12-01, 1 December, Friday, in 5 days.")
        return Decision(name, text), f"{label}: {text}", ""

    return read


def _building(rest: list[str], text: str) -> Outcome:
    if not rest or rest[0].lower() not in HOLDS_HOURS:
        return Problem(text or "building", f"How long does it keep its heat? {', '.join(HOLDS_HOURS)}.")
    return Decision("building", text.lower()), f"Building: {text.lower()}", ""


def _put_back(rest: list[str], text: str) -> Outcome:
    return Check("put_back", True), "Everything put back", ""


def _note(rest: list[str], text: str) -> Outcome:
    return (Note(text), f"Note: {text}", "") if text else Problem("note", "A note needs its words.")


_READERS: dict[str, Callable[[list[str], str], Outcome]] = {
    "did": _did,
    "found": _found,
    "saw": _found,
    **{verb: _abnormal_in(kind) for verb, kind in IN_VERBS.items()},
    **{verb: _abnormal_out(kind) for verb, kind in OUT_VERBS.items()},
    "leak": _leak,
    "cycles": _cycles,
    "proved": _proved,
    "fails": _fails,
    "cause": _worded("cause", "Cause"),
    "advise": _worded("advise", "Advice"),
    "refused": _worded("refused", "Refused"),
    "cannot": _worded("cannot_put_right", "Cannot be put right now"),
    "told": _worded("told", "Told"),
    "building": _building,
    "vulnerable": _worded("vulnerable", "Cold would harm"),
    "tempheat": _worded("tempheat", "Heat for the time being"),
    "drained": _worded("drained", "Drained"),
    "part": _worded("part", "To order"),
    "approve": _answered("approve", "Needs a yes"),
    "approved": _answered("approved", "Approved"),
    "declined": _answered("declined", "Declined"),
    "arrives": _dated("arrives", "Arrives"),
    "again": _dated("again", "Next visit"),
    "temporary": _worded("temporary", "Temporary repair"),
    "lasting": _worded("lasting", "Lasting repair"),
    "shut": _shut,
    "untag": _worded("in_service", "Tag off, back in service"),
    "stricter": _levelled("stricter", (2, 3, 4)),
    "override": _levelled("override", (1, 2)),
    "putback": _put_back,
    "note": _note,
}
