"""Looks, leaks, jumpers and safety devices: the reasons that no number gives."""

from havrin_core.exchanger.evidence import SUSPECTED_FROM, evidence_of, is_suspected, only_one_weak
from havrin_core.facts.facts import Jumper
from havrin_core.house.house_rules import HouseRules
from havrin_core.limits.limits import SOURCES
from havrin_core.quantities.dates import date_in
from havrin_core.rules.lifting import lifted
from havrin_core.rules.model import NOT_YET, SHUT_DOWN, TELL, Reason
from havrin_core.rules.proofs import Case, cycles_since
from havrin_core.tape.entries import Entry, Look, told_of
from havrin_core.vocabulary.abnormal import abnormal, device_name, still_open
from havrin_core.vocabulary.findings import WORN, Finding, finding, is_finding

NEVER_BRIDGED = ("limit", "rollout", "spill", "low_water", "gas_pressure", "flame_sensor")


def danger_reasons(case: Case, jumpers: list[Jumper]) -> list[Reason]:
    """Return the reasons from looks, leak checks, jumpers, safety devices and decisions."""
    return [
        *_open_findings(case),
        *_suspected_exchanger(case),
        *[_jumper(case, jumper) for jumper in jumpers],
        *_jumpers_unproved(case),
        *_devices(case),
        *_cannot(case),
        *_temporary(case),
    ]


def _open_findings(case: Case) -> list[Reason]:
    newest: dict[str, tuple[Entry, Look]] = {}
    for entry, look in case.facts.looks():
        if is_finding(look.finding) and finding(look.finding).level:
            newest[look.finding] = (entry, look)
    reasons = [_finding(case.rules, finding(k), e, look) for k, (e, look) in newest.items()]
    still = [not lifted(case, finding(key), entry) for key, (entry, _) in newest.items()]
    return [reason for reason, open_ in zip(reasons, still, strict=True) if open_]


def _suspected_exchanger(case: Case) -> list[Reason]:
    """A breach that nobody saw but that is likely: the house rule says whether it may run on."""
    if all(station.key != "exchanger" for station in case.unit.stations()):
        return []
    evidence = evidence_of(case.unit, case.facts)
    if not is_suspected(evidence):
        return []
    noticed = case.rules.exchanger_suspected == "notice_and_date" and only_one_weak(evidence)
    reading = f"about 1 in {1 / evidence.probability:.0f}" if evidence.probability < 0.5 else "more likely than not"
    strongest = max(evidence.signs, key=lambda sign: sign.ratio)
    text = f"A breached heat exchanger is {reading}: {strongest.text[0].lower()}{strongest.text[1:]}."
    looks = evidence.next_looks
    lifts = f"{looks[0].text}; then write what was seen." if looks else "See every part of it."
    limit = f"under 1 in {1 / SUSPECTED_FROM:.0f}"
    level = TELL if noticed else NOT_YET
    return [
        Reason(
            level, "exchanger_suspected", text, lifts, "exchanger", reading, limit, SOURCES["house"], strongest.entry_id
        )
    ]


def _finding(rules: HouseRules, what: Finding, entry: Entry, look: Look) -> Reason:
    place = f" ({told_of(look)})" if told_of(look) else ""
    level = what.level
    if what.key == "flame_disturbed" and rules.exchanger_suspected == "notice_and_date":
        level = TELL
    if what.key in WORN and rules.worn_part == "replace":
        level = NOT_YET
    limit = "a finding, not a number"
    return Reason(
        level, what.key, f"{what.text}{place}.", what.lifts, what.station, "seen", limit, SOURCES["house"], entry.id
    )


def _jumper(case: Case, jumper: Jumper) -> Reason:
    name, kind = device_name(jumper.device), abnormal(jumper.how)
    safety = kind.bypasses and (jumper.device in case.unit.kind.safety_devices or jumper.device in NEVER_BRIDGED)
    station = jumper.device if jumper.device in {s.key for s in case.unit.stations()} else "call"
    if jumper.found and safety:
        text = f"Safety device found bypassed: {name}."
        lifts = "Take it out, find why it was put in, and prove that the device acts."
        return Reason(
            SHUT_DOWN, "bypass_found", text, lifts, station, "bypassed", "none", SOURCES["default"], jumper.entry_id
        )
    warning = (
        " No school allows this one, not even for a test." if kind.bypasses and jumper.device in NEVER_BRIDGED else ""
    )
    then = " and prove that the device acts." if safety else " and run the unit from its own thermostat."
    return Reason(
        NOT_YET, f"{jumper.how}_in", still_open(jumper.how, jumper.device) + warning, kind.lifts + then, station, "in",
        "none", SOURCES["house"], jumper.entry_id,
    )  # fmt: skip


def _jumpers_unproved(case: Case) -> list[Reason]:
    reasons = []
    for entry, device, found in case.facts.bypasses_taken_out():
        safety = device in case.unit.kind.safety_devices or device in NEVER_BRIDGED
        proved = any(b.passed and b.device == device for _, b in case.facts.checks("device", entry.at))
        if safety and not proved:
            reasons.append(_unproved(entry, device, found))
        elif not safety and cycles_since(case, entry.at) < 1:
            name = device_name(device)
            text = f"The jumper at the {name} is out; the unit has not run from its own thermostat since."
            lifts = "Run a full cycle: “cycles 1”."
            reasons.append(
                Reason(
                    NOT_YET, "call_unproved", text, lifts, "call", "not shown", "one cycle", SOURCES["house"], entry.id
                )
            )
    return reasons


def _unproved(entry: Entry, device: str, found: bool) -> Reason:
    """A bypass that somebody left is made good only once its device was shown to act; one's own was logged and is short."""
    level, how = (SHUT_DOWN, "found bypassed") if found else (NOT_YET, "jumpered")
    text = f"The {device_name(device)} was {how} and has not been shown to act since."
    lifts = f"By its own means, or a lead lifted and the burner seen to drop out: “proved {device.replace('_', ' ')}”."
    return Reason(
        level, "device_unproved", text, lifts, device, "not shown", "shown to act", SOURCES["house"], entry.id
    )


def _devices(case: Case) -> list[Reason]:
    newest = {body.device: (entry, body) for entry, body in case.facts.checks("device")}
    reasons = []
    for device, (entry, body) in newest.items():
        if not body.passed:
            text = f"The {device_name(device)} does not act."
            lifts = f"Change it and prove it: “proved {device.replace('_', ' ')}”."
            reasons.append(
                Reason(
                    SHUT_DOWN, "device_fails", text, lifts, device, "did not act", "acts", SOURCES["default"], entry.id
                )
            )
    return reasons


def _cannot(case: Case) -> list[Reason]:
    reasons = []
    for entry, body in case.facts.out_of_service("cannot_put_right"):
        text = f"Cannot be put right now: {body.text or 'no words given'}."
        lifts = "Once every danger is cleared by what its own reason names: “untag …”."
        reasons.append(Reason(SHUT_DOWN, "cannot_put_right", text, lifts, "", "", "", "the technician", entry.id))
    return reasons


def shut_down_reasons(case: Case) -> list[Reason]:
    """A unit that was shut down and tagged stays so until somebody takes the tag off."""
    rows = case.facts.out_of_service("shut_down")
    if not rows:
        return []
    entry, body = rows[-1]
    text = f"Shut down and tagged by {entry.author}" + (f": {body.text}." if body.text else ".")
    lifts = "Cure and show what was wrong, put it back into service: “untag …”."
    return [Reason(SHUT_DOWN, "shut_down", text, lifts, "", "", "", entry.author, entry.id)]


def _temporary(case: Case) -> list[Reason]:
    return [_temporary_repair(case.rules, entry, body.text) for entry, body in case.facts.temporary_repairs()]


def _temporary_repair(rules: HouseRules, entry: Entry, words: str) -> Reason:
    """A repair for the time being is allowed with a date, or not at all."""
    allowed, until = rules.temporary_repair == "allowed_dated", date_in(words, entry.at.date())
    limit = "dated, with a return visit" if allowed else "no temporary repair"
    by = f"by {until:%d %B %Y}" if until else "or correct the line with its date (… until 12 December)"
    lifts = f"Make it lasting, “lasting …”, {by}."
    level = TELL if allowed and until else NOT_YET
    return Reason(
        level, "temporary_repair", f"Temporary repair: {words}.", lifts, "", words, limit, SOURCES["house"], entry.id
    )
