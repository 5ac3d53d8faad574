"""What holds a visit open, how the unit is left, changes between found and left, remarks: in words."""

from collections.abc import Mapping

from havrin_core.quantities.display import sentence
from havrin_core.rules.pairs import Change
from havrin_core.rules.practice import Remark
from havrin_core.standing.closing import ABNORMAL, HOW, NOT_MADE_SAFE, NOT_SAFE_TO_RUN, PUT_BACK, TOLD, TOUCHED
from havrin_core.standing.model import Assessment
from havrin_core.tape.entries import MADE_SAFE, NOT_TOUCHED, WAITING
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.language import listed, lower_first, text
from havrin_core.wording.ledger import make_good, still_open, to_put_back
from havrin_core.wording.names import part_inside, quantity_name, title, verb_name, way_left

_HOLDS: Mapping[str, str] = {
    NOT_SAFE_TO_RUN: "It may not be left running: show what is missing and cure what is wrong, or leave it off.",
    HOW: "Say how it is left: made safe (gas shut, tagged, somebody told), waiting for something, or not touched; or show what is missing and cure what is wrong.",
    TOLD: "Nobody was told: tell the responsible person and write “told …”.",
    NOT_MADE_SAFE: "A danger is open: make it safe (gas shut, unable to fire, tagged) and write “shut down …”.",
    TOUCHED: "Something was done on this unit: it cannot be left as “not touched”.",
}
_REMARKS: Mapping[str, str] = {
    "reset_before_code": "It was reset before a code was read: what the board knew may be gone.",
    "rod_not_cleaned": "The house cleans the flame rod at every maintenance: it was not cleaned on this visit.",
    "rod_not_read_before": "The flame signal was not read before the rod was cleaned: what the cleaning brought is not known.",
    "not_read_first": "Nothing was read as found before the first work: what it cured is not proven.",
}
_SWITCH_TESTS: Mapping[str, str] = {
    "live_volts": "volts across it, live",
    "power_off": "continuity, power off",
    "both": "live volts and continuity",
}


def hold_words(code: str, found: Assessment) -> list[str]:
    """Return what holds the visit open, in sentences."""
    if code == ABNORMAL:
        rows = [still for still in found.abnormal if not still.on_purpose]
        return [f"{still_open(still.how, still.device)} {make_good(still.how)}." for still in rows]
    if code == PUT_BACK:
        return [text("Put back: {what}. Then write “putback”.", what=to_put_back(leaves)) for leaves in found.put_backs]
    return [text(_HOLDS[code])]


def holds_words(found: Assessment) -> list[str]:
    """Return everything that holds the visit open, in sentences; a signature is the server's to ask for."""
    return [words for code in found.holds for words in hold_words(code, found)]


def standing_title(found: Assessment) -> str:
    """Return the answer in a few words; a unit that is off or was not touched says so."""
    if found.leaving == NOT_TOUCHED:
        return (
            text("Not touched: not judged on this visit")
            if found.level < 3
            else text("Not touched: {title}", title=lower_first(title(found.level)))
        )
    if found.leaving == WAITING:
        return text("Off, waiting for {what}", what=found.waiting_for) if found.waiting_for else way_left(WAITING)
    if found.leaving == MADE_SAFE:
        return way_left(MADE_SAFE)
    return title(found.level, settled=found.settled)


def change_words(change: Change, system: str) -> str:
    """Return a sentence on one quantity found and left."""
    dimension = measurand(change.quantity).dimension
    found, left = (sentence(value, dimension, system) for value in (change.found, change.left))
    moved = text(
        "{name}: {found} found, {left} left", name=quantity_name(change.quantity, change.stage), found=found, left=left
    )
    work = [lower_first(f"{verb_name(body.verb)} {part_inside(body.part)}".strip()) for body in change.work]
    if not work:
        return text("{moved}; nothing was written in between.", moved=moved)
    if len(work) == 1:
        return text("{moved}; between them: {work}.", moved=moved, work=work[0])
    return text(
        "{moved}; {count} things were done in between ({work}), so the cause is not proven.",
        moved=moved,
        count=len(work),
        work=listed(work),
    )


def remark_words(remark: Remark) -> str:
    """Return a remark on how the work was done."""
    if remark.code == "switch_untested":
        return text(
            "A switch was changed without the house’s test ({test}).", test=text(_SWITCH_TESTS[remark.facts["test"]])
        )
    return text(_REMARKS[remark.code])


def not_judged_words(quantity: str, stage: str | None) -> str:
    """Return that a plate value is not there."""
    return text(
        "Not judged: the plate's value for {name} was not entered.", name=lower_first(quantity_name(quantity, stage))
    )
