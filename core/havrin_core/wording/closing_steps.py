"""The steps of proving and leaving in words, in the order in which hands do them."""

from collections.abc import Mapping
from dataclasses import dataclass

from havrin_core.facts.facts import Facts
from havrin_core.follow_up.plan import APPROVED, FollowUp
from havrin_core.house.house_rules import HouseRules
from havrin_core.machine.unit import Unit
from havrin_core.quantities.formats import day_words
from havrin_core.rules.model import LEAVE, STATE_OF_LEVEL
from havrin_core.standing.closing import STEPS, held_steps, not_said_yet
from havrin_core.standing.model import Assessment
from havrin_core.wording.closing import standing_title
from havrin_core.wording.language import lower_first, text
from havrin_core.wording.ledger import ledger_line, ledger_text
from havrin_core.wording.missing import because_text, missing_starter, missing_text
from havrin_core.wording.names import visit_reason
from havrin_core.wording.phrases import words
from havrin_core.wording.reasons import reason_words

_TITLES: Mapping[str, str] = {
    "put_back": "Put everything back",
    "shown": "Still to show",
    "cycles": "Cycle it from its own thermostat",
    "standing": "Standing: {title}",
    "told": "Found, done, advised, refused, told",
    "after": "Parts, approvals, return visits",
}
_NOTHING: Mapping[str, str] = {
    "put_back": "No jumper, lifted lead, tee, open tap, part or setting is left.",
    "shown": "Everything that this visit must show is shown.",
    "cycles": "",
    "told": "Nothing was advised or refused.",
    "after": "No part is to be ordered and nobody has to come back.",
}
_SAID: Mapping[str, str] = {
    "cause": "Cause: {words}",
    "advise": "Advised: {words}",
    "refuse": "Refused, in their words: {words}",
    "told": "Told: {words}",
    "leaves": "Left: {words}",
    "temporary": "For the time being: {words}",
}
_MUST_SAY: Mapping[str, tuple[str, str]] = {  # words, the words that begin the line
    "leaves": (
        "Gas shut and capped where required, made unable to fire, tagged; cooling and frost protection left on",
        "shut down gas shut, tagged, ",
    ),
    "told": ("The responsible person told, in writing", "told "),
    "vulnerable": ("Who is there that cold would harm", "vulnerable "),
    "tempheat": ("Heat for the time being, or draining", "tempheat "),
}


@dataclass(frozen=True, slots=True)
class ClosingLine:
    """One line of a step: ``state`` in, near, out, none (not yet) or noted; ``starter`` begins the line that does it."""

    text: str
    state: str
    starter: str = ""
    station: str = ""


@dataclass(frozen=True, slots=True)
class ClosingStep:
    """One step; ``good`` is said where it has no lines, ``holds`` tells that the visit cannot close before it is done."""

    key: str
    title: str
    lines: tuple[ClosingLine, ...]
    good: str
    holds: bool


def closing_steps(
    found: Assessment, facts: Facts, unit: Unit, follow: FollowUp, rules: HouseRules, system: str
) -> list[ClosingStep]:
    """Return every step of closing, with what is done of it and what is not."""
    lines = {
        "put_back": _put_back(found),
        "shown": _shown(found, unit),
        "cycles": [_cycles(found)],
        "standing": _standing(found, system),
        "told": _told(facts, found),
        "after": _after(follow),
    }
    held = held_steps(found)
    good = {key: text(words) for key, words in _NOTHING.items() if words}
    good["standing"] = words(rules.words_for(found.level))
    title = standing_title(found)
    return [
        ClosingStep(key, text(_TITLES[key], title=title), tuple(lines[key]), good.get(key, ""), key in held)
        for key in STEPS
    ]


def _put_back(found: Assessment) -> list[ClosingLine]:
    open_ = [row for row in found.ledger if row.until is None]
    return [ClosingLine(ledger_text(row), "noted" if row.disabled else "out", ledger_line(row)) for row in open_]


def _shown(found: Assessment, unit: Unit) -> list[ClosingLine]:
    rows = []
    for item in found.missing:
        work = because_text(item)
        said = f"{missing_text(item)} ({lower_first(work)})" if work else missing_text(item)
        rows.append(ClosingLine(said, "none", missing_starter(item, unit), item.station))
    return rows


def _cycles(found: Assessment) -> ClosingLine:
    said = text("{count} full cycles watched, doors on", count=found.cycles_shown)
    return ClosingLine(said, "in" if found.cycles_shown else "none", "cycles ")


def _standing(found: Assessment, system: str) -> list[ClosingLine]:
    rows = []
    for reason in found.reasons:
        if reason.level > LEAVE:
            said = reason_words(reason, system)
            state = STATE_OF_LEVEL[reason.level]
            rows.append(ClosingLine(f"{said.text} {said.lifts}".strip(), state, station=reason.station))
    return rows


def _told(facts: Facts, found: Assessment) -> list[ClosingLine]:
    said = [(text(source, words=body.text), key) for key, source in _SAID.items() for _, body in facts.said(key)]
    lacking = [_MUST_SAY[kind] for kind in not_said_yet(facts, found)]
    return [ClosingLine(row, "in") for row, _ in said] + [
        ClosingLine(text(how), "none", starter) for how, starter in lacking
    ]


def _after(follow: FollowUp) -> list[ClosingLine]:
    rows = []
    for part in follow.parts:
        by = text(" by {approver}", approver=words(part.approver)) if part.approver else ""
        state = "in" if part.state == APPROVED else "none"
        rows.append(ClosingLine(f"{part.name}: {text(part.state)}{by}", state, f"approved owner {part.name.lower()}"))
    for name in follow.suggested:
        rows.append(ClosingLine(text("{part}: order it?", part=name), "noted", f"part {name.lower()}"))
    for visit in follow.returns:
        day = day_words(visit.day) if visit.day else text("no day yet")
        said = f"{visit_reason(visit.reason)}, {day}: {words(visit.why)}"
        rows.append(ClosingLine(said, "in" if visit.day else "none", "again "))
    return rows
