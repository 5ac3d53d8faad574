"""One entry as it reads on the tape, and as the bar says it back: words at the left, value at the right."""

from collections.abc import Mapping
from dataclasses import dataclass

from havrin_core.facts.passed_over import KNOWN, LATER, NOT_POSSIBLE, SHOW
from havrin_core.facts.plate_values import plate_name
from havrin_core.machine.circuit.model import HELD, LEAST, MOST, Circuit
from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.quantities.display import sentence, show_in
from havrin_core.quantities.formats import number
from havrin_core.quantities.units import find_unit
from havrin_core.search.catalogue import tests_of
from havrin_core.search.pictures import NOTHING, STEADY
from havrin_core.shorthand.model import Line, Situation
from havrin_core.tape.entries import (
    AS_PRECAUTION,
    AS_TEMPORARY,
    AS_TRIAL,
    MADE_SAFE,
    NOT_FOUND,
    PASSED_OVER,
    PRESUMED,
    UNREADABLE,
    Abnormal,
    Action,
    Body,
    Code,
    Condition,
    Correction,
    Note,
    PlateValue,
    Proof,
    Reading,
    Said,
    Trace,
)
from havrin_core.vocabulary.catalogue import BAD, DANGER, WORN, verdict_of
from havrin_core.vocabulary.measurands import LEAST_OF, measurand
from havrin_core.wording.language import lower_first, text
from havrin_core.wording.ledger import made_good, put_in
from havrin_core.wording.missing import proof_name
from havrin_core.wording.names import condition_name, part_inside, part_name, quantity_name, title, verb_name, way_left
from havrin_core.wording.phrases import words

_SAID: Mapping[str, str] = {
    "cause": "Cause",
    "advise": "Advice",
    "refuse": "Refused",
    "cannot": "Cannot be put right now",
    "told": "Told",
    "untag": "Tag off, back in service",
    "stricter": "Stricter standing",
    "override": "Milder standing",
    "closed": "Visit closed",
    "temporary": "Temporary repair",
    "lasting": "Lasting repair",
    "order": "To order",
    "approve": "Needs a yes",
    "approved": "Approved",
    "declined": "Declined",
    "building": "Building",
    "vulnerable": "Cold would harm",
    "tempheat": "Heat for the time being",
    "drained": "Drained",
    "arrives": "Arrives",
    "again": "Next visit",
    "call": "By telephone",
    "complaint": "Complaint",
    UNREADABLE: "Cannot be read",
}
_CAUSES: Mapping[str, str] = {PRESUMED: "Cause, presumed", NOT_FOUND: "Cause not found"}
_TRIALS: Mapping[str, str] = {
    "look": "{part}, looked at: {outcome}",
    "ohms": "{part}, ohms: {outcome}",
    "swap": "{part}, tried against a good one: {outcome}",
    "jump": "{part}, called at the control: {outcome}",
    "watch": "{part}, recorded while it runs: {outcome}",
}
_OUTCOMES: Mapping[str, str] = {"ok": "in order", "bad": "NOT in order", "open": "OPEN", "high": "far too high"}
_WATCHED: Mapping[str, str] = {"ok": "never opens", "bad": "OPENS"}
_SENSES: Mapping[str, str] = {
    AS_TEMPORARY: "for the time being",
    AS_PRECAUTION: "as a precaution",
    AS_TRIAL: "as a trial",
}
_TONES: Mapping[str, str] = {DANGER: "danger", BAD: "strong", WORN: "strong"}


@dataclass(frozen=True, slots=True)
class Described:
    """``tone`` is plain, strong (something done or wrong) or danger."""

    text: str
    value: str = ""
    tone: str = "plain"


def describe(body: Body, system: str, circuit: Circuit | None = None) -> Described:
    """Return how ``body`` reads; readings keep the number and unit that were typed."""
    match body:
        case Reading():
            return Described(_reading_name(body), _reading_value(body))
        case Trace():
            return _trace(body, system)
        case Condition():
            return _condition(body)
        case Action():
            return _action(body)
        case Abnormal():
            return _abnormal(body)
        case PlateValue():
            return Described(
                text("On the plate: {name}", name=plate_name(body.quantity, body.stage)), body.typed, "strong"
            )
        case Code():
            return Described(text("Code"), body.pattern, "strong")
        case Proof():
            return _proof(body, circuit)
        case Said():
            return _said(body)
        case Note():
            return Described(_note(body))
        case Correction():
            return Described(_correction(body, system))


def echo(body: Body, system: str, circuit: Circuit | None = None) -> str:
    """Return what the bar says back of one entry, every word that it keeps included."""
    said = describe(body, system, circuit)
    return f"{said.text} {said.value}".strip()


_PHASES: Mapping[str, str] = {"left": "as left", "trial": "trial"}


def line_echo(line: Line, there: Situation) -> list[str]:
    """Return what the bar says back of a whole line: each entry, then the stage of what was measured and the phase."""
    both = zip(line.bodies, line.phase_of_each, strict=True)
    said = [_of_phase(_with_meaning(body, there), phase, line) for body, phase in both]
    staged = any(isinstance(body, Reading) and body.stage for body in line.bodies)
    label = STAGE_LABELS[line.stage] if staged else ""
    stage = text("{stage} fire", stage=text(label)) if label else ""
    phase = text(_PHASES[line.phase]) if line.phase in _PHASES and not line.phases else ""
    aside = " · ".join(filter(None, (stage, phase)))
    return [*said, aside] if said and aside else said


def _of_phase(said: str, phase: str, line: Line) -> str:
    """Return what an entry says with its phase, where the phases of a line differ."""
    name = _PHASES.get(phase) or ("as found" if phase == "found" else "")
    return f"{said} · {text(name)}" if line.phases and name else said


def _with_meaning(body: Body, there: Situation) -> str:
    meaning = there.codes.get(body.pattern) if isinstance(body, Code) else None
    said = echo(body, there.system, there.circuit)
    return f"{said}: {meaning}" if meaning else said


def _reading_value(body: Reading) -> str:
    least = ">" if body.at_least else ""
    value = f"{least}{number(body.typed, 'g')} {body.unit}".replace("-", "−")
    counted = dict(body.computed_from)
    if "dial_volume_m3" in counted:
        turns, seconds = counted["revolutions"], number(counted["time_s"], "g")
        if turns == 1:
            return text("{value} (1 turn in {seconds} s)", value=value, seconds=seconds)
        return text("{value} ({turns} turns in {seconds} s)", value=value, turns=number(turns, "g"), seconds=seconds)
    if "half_width_m3_s" in counted:
        unit = find_unit(body.unit, "leak")
        assert unit is not None
        value = f"{number(body.typed, 'g')} ± {show_in(counted['half_width_m3_s'], unit).text} {body.unit}"
    if counted.get("time_s", 0.0) < counted.get("least_s", 0.0):
        return text("TOO SHORT A TEST: {value}", value=value)
    return value


def _reading_name(body: Reading) -> str:
    stage = STAGE_LABELS[body.stage] if body.stage else ""
    if body.quantity == "event_s":
        return text("Seen: {what}", what=part_inside(body.station or ""))
    where = f", {part_inside(body.station)}" if body.station else ""
    if body.leads:
        beside = f", {body.place}" if body.place else ""
        return text("Volts {a}–{b}", a=body.leads[0], b=body.leads[1]) + where + _when(body.state) + beside
    if body.quantity == "volts_across_v":
        return text("Volts") + where
    name = quantity_name(body.quantity)
    named = f"{name}, {text(stage)}" if stage else name
    return f"{named}, {body.place}" if body.place else named


def _when(state: str) -> str:
    """Say in which state of the circuit volts were read, or which end of them the meter held."""
    if state in HELD:
        return text(_ENDS[state])
    return text(" in {state}", state=state.replace("_", " ")) if state else ""


_ENDS = {LEAST: ", the least", MOST: ", the most"}


def _trace(body: Trace, system: str) -> Described:
    parts = [sentence(mean, measurand(q).dimension, system) for q, mean, _ in body.means]
    stage = f", {text(body.stage)}" if body.stage in ("low", "high") else ""
    what = quantity_name(body.means[0][0]) if len(body.means) == 1 else text("Flue, traced")
    steady = (
        "{what}{stage}, {minutes} min"
        if body.means[0][0] in LEAST_OF.values()
        else "{what}{stage}, steady {minutes} min"
    )
    return Described(text(steady, what=what, stage=stage, minutes=number(body.seconds / 60, ".1f")), " / ".join(parts))


def place_said(look: Condition) -> str:
    """Return place, coverage, size, method and sureness in words."""
    size = f"{number(1000 * look.size_m, 'g')} mm" if look.size_m else ""
    method = text("by {method}", method=text(look.method)) if look.method else ""
    seen = f"{look.seen}/{look.of}" if look.seen is not None else ""
    return ", ".join(filter(None, (seen, look.place, size, method, text(look.sure) if look.sure else "")))


def _condition(body: Condition) -> Described:
    how = condition_name(body.condition)
    said = (
        text("{part}: not {how}", part=part_name(body.part), how=how)
        if body.absent
        else f"{part_name(body.part)}: {how}"
    )
    verdict = "" if body.absent else verdict_of(body.part, body.condition)
    return Described(said, place_said(body), _TONES.get(verdict, "plain"))


def _action(body: Action) -> Described:
    name = f"{verb_name(body.verb)}: {part_inside(body.part)}" if body.part else verb_name(body.verb)
    sense = f", {text(_SENSES[body.sense])}" if body.sense in _SENSES else ""
    return Described(name + sense, body.detail, "strong")


def _abnormal(body: Abnormal) -> Described:
    device = part_inside(body.device)
    if not body.is_in:
        return Described(f"{made_good(body.how)}: {device}", text("out"), "strong")
    said = text("Found {how}", how=lower_first(put_in(body.how))) if body.found else put_in(body.how)
    return Described(f"{said}: {device}", text("IN"), "danger")


def _proof(body: Proof, circuit: Circuit | None) -> Described:
    if body.what == "stops":
        return Described(_stops(body, circuit), "", "plain" if body.passed else "strong")
    if body.what in _TRIALS:
        said = (_WATCHED if body.what == "watch" else _OUTCOMES).get(body.outcome, body.outcome)
        name = _circuit_name(body.device, circuit)
        return Described(
            text(_TRIALS[body.what], part=name, outcome=text(said)), "", "plain" if body.passed else "strong"
        )
    if body.what == "device":
        words = "Shown to act: {device}" if body.passed else "DOES NOT act: {device}"
        return Described(
            text(words, device=part_inside(body.device)), body.outcome, "plain" if body.passed else "danger"
        )
    if body.what == PASSED_OVER:
        said = {NOT_POSSIBLE: "not possible here", KNOWN: "known already", LATER: "later"}[body.outcome]
        return Described(f"{text('Passed over')}: {_step_name(body.device, circuit)}", text(said))
    if body.what == "put_back":
        return Described(text("Everything put back"))
    if body.what == "cycles":
        words = "Full cycles watched" if body.passed else "Full cycles: FAILED"
        return Described(text(words), str(body.count), "plain" if body.passed else "danger")
    words = "Leak check passed" if body.passed else "Leak check FAILED: gas escapes"
    return Described(text(words), "", "plain" if body.passed else "danger")


def _step_name(key: str, circuit: Circuit | None) -> str:
    """Return what a step that was passed over would have tried or shown."""
    sort, _, named = key.partition(":")
    if sort == SHOW:
        return proof_name(*named.split(":"))
    tests = tests_of(circuit) if circuit is not None else ()
    return next((lower_first(words(test.name)) for test in tests if test.key == key), key)


def _circuit_name(device: str, circuit: Circuit | None) -> str:
    named = next((p.name for p in circuit.parts if p.key == device), "") if circuit else ""
    return text(named) if named else part_name(device)


def _stops(body: Proof, circuit: Circuit | None) -> str:
    if body.outcome == NOTHING:
        return text("Nothing happens at a call")
    if body.outcome == STEADY:
        return text("Runs through and keeps running")
    named = next((m.name for m in circuit.control.milestones if m.key == body.device), "") if circuit else ""
    return text("Stops after: {what}", what=text(named) if named else part_inside(body.device))


def _said(body: Said) -> Described:
    if body.what == "leaves":
        return _leaves(body)
    label = (
        text(_CAUSES[body.state])
        if body.what == "cause" and body.state in _CAUSES
        else text(_SAID.get(body.what, body.what))
    )
    level = f" ({lower_first(title(body.level))})" if body.level else ""
    tone = "danger" if body.what in ("cannot", UNREADABLE) else "strong"
    return Described(f"{label}{level}: {body.text}".rstrip(": "), "", tone)


def _leaves(body: Said) -> Described:
    if body.state == MADE_SAFE:
        said = text("Shut down and made safe")
        return Described(f"{said}: {body.text}" if body.text else said, "", "danger")
    said = text("Left: {how}", how=lower_first(way_left(body.state)))
    return Described(
        f"{said} {text('for')} {body.text}" if body.state == "waiting" and body.text else f"{said} {body.text}".strip(),
        "",
        "strong",
    )


def _note(body: Note) -> str:
    if body.side:
        return text("Seen beside, for the owner: {words}", words=body.text)
    return text("For the owner: {words}", words=body.text) if body.for_owner else body.text


def _correction(body: Correction, system: str) -> str:
    why = f" ({body.why})" if body.why else ""
    if body.replacement is None:
        return text("Struck") + why
    return text("Corrected to {what}", what=echo(body.replacement, system)) + why
