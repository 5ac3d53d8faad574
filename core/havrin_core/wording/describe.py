"""One entry as it reads on the tape: words at the left, value at the right."""

from dataclasses import dataclass

from havrin_core.facts.plate_values import plate_name
from havrin_core.machine.unit import STAGE_LABELS
from havrin_core.quantities.display import sentence
from havrin_core.shorthand.trials import TRIALS, describe_trial
from havrin_core.standing.model import TITLES
from havrin_core.tape.entries import (
    Action,
    Body,
    Check,
    Code,
    Correction,
    Decision,
    JumperIn,
    JumperOut,
    Look,
    Note,
    PlateValue,
    Reading,
    Trace,
    told_of,
)
from havrin_core.vocabulary.abnormal import abnormal, device_name
from havrin_core.vocabulary.actions import deed, is_deed
from havrin_core.vocabulary.findings import finding, is_finding
from havrin_core.vocabulary.measurands import LEAST_OF, measurand

_DECISIONS = {
    "cause": "Cause", "advise": "Advice", "refused": "Refused", "cannot_put_right": "Cannot be put right now",
    "told": "Told", "shut_down": "Shut down", "in_service": "Tag off, back in service", "stricter": "Stricter standing", "override": "Milder standing",
    "closed": "Visit closed", "temporary": "Temporary repair", "lasting": "Lasting repair", "part": "To order", "approve": "Needs a yes", "approved": "Approved",
    "building": "Building", "vulnerable": "Cold would harm", "tempheat": "Heat for the time being", "drained": "Drained",
    "declined": "Declined", "arrives": "Arrives", "again": "Next visit",
}  # fmt: skip
_CHECKS = {"leak": "Leak check", "cycles": "Full cycles", "put_back": "Everything put back"}


@dataclass(frozen=True, slots=True)
class Described:
    """``tone`` is plain, strong (something done) or danger."""

    text: str
    value: str = ""
    tone: str = "plain"


def describe(body: Body, system: str) -> Described:
    """Return how ``body`` reads; readings keep the number and unit that were typed."""
    match body:
        case Reading():
            return Described(_reading_name(body), f"{body.typed:g} {body.unit}".replace("-", "−"))
        case Trace():
            return _trace(body, system)
        case Look():
            return _look(body)
        case Action():
            name = deed(body.action).text if is_deed(body.action) else body.action
            return Described(name, body.detail, "strong")
        case JumperIn():
            words = "Found " + abnormal(body.how).said_in.lower() if body.found else abnormal(body.how).said_in
            return Described(f"{words}: {device_name(body.device)}", "IN", "danger")
        case JumperOut():
            return Described(f"{abnormal(body.how).said_out}: {device_name(body.device)}", "out", "strong")
        case PlateValue():
            return Described(f"On the plate: {plate_name(body.quantity, body.stage)}", body.typed, "strong")
        case Code():
            return Described("Code", body.pattern, "strong")
        case Check():
            return _check(body)
        case Decision():
            level = f" ({TITLES[body.level].lower()})" if body.level else ""
            tone = "danger" if body.decision in ("shut_down", "cannot_put_right") else "strong"
            return Described(
                f"{_DECISIONS.get(body.decision, body.decision)}{level}: {body.text}".rstrip(": "), "", tone
            )
        case Note():
            return Described(body.text)
        case Correction():
            words = "Struck" if body.replacement is None else f"Corrected to {_short(body.replacement, system)}"
            return Described(words)


def _short(body: Body, system: str) -> str:
    described = describe(body, system)
    return f"{described.text} {described.value}".strip()


def _reading_name(body: Reading) -> str:
    what = measurand(body.quantity)
    stage = STAGE_LABELS[body.stage] if body.stage else ""
    if body.quantity == "event_s":
        return f"Seen: {(body.station or '').replace('_', ' ')}"
    if body.leads:
        return f"Volts {body.leads[0]}–{body.leads[1]}" + (
            f", {body.station.replace('_', ' ')}" if body.station else ""
        )
    if body.quantity == "volts_across_v" and body.station:
        return f"Volts, {body.station.replace('_', ' ')}"
    return f"{what.name}, {stage}" if stage else what.name


def _trace(body: Trace, system: str) -> Described:
    parts = [sentence(mean, measurand(q).dimension, system) for q, mean, _ in body.means]
    stage = f", {body.stage}" if body.stage in ("low", "high") else ""
    what = measurand(body.means[0][0]).name if len(body.means) == 1 else "Flue, traced"
    steady = "" if body.means[0][0] in LEAST_OF.values() else "steady "
    return Described(f"{what}{stage}, {steady}{body.seconds / 60:.1f} min", " / ".join(parts))


def _look(body: Look) -> Described:
    if not is_finding(body.finding):
        return Described(body.finding, body.place)
    what = finding(body.finding)
    return Described(what.text, told_of(body), "danger" if what.level >= 4 else "strong" if what.level else "plain")


def _check(body: Check) -> Described:
    if body.check in TRIALS.values():
        return Described(describe_trial(body), "", "plain" if body.passed else "strong")
    if body.check == "device":
        words = "Shown to act" if body.passed else "DOES NOT act"
        return Described(f"{words}: {device_name(body.device)}", "", "plain" if body.passed else "danger")
    value = str(body.count) if body.check == "cycles" else ""
    if body.check == "put_back":
        return Described(_CHECKS["put_back"])
    outcome = "passed" if body.passed else "FAILED"
    return Described(f"{_CHECKS.get(body.check, body.check)} {outcome}", value, "plain" if body.passed else "danger")
