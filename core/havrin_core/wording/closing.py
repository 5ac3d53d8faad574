"""What holds a visit open, how the unit is left, changes between found and left, remarks: in words."""

from collections.abc import Mapping

from havrin_core.house.house_rules import HouseRules
from havrin_core.house.schools import PLAIN_SCHEME
from havrin_core.quantities.display import sentence
from havrin_core.rules.pairs import Change
from havrin_core.rules.practice import Remark
from havrin_core.standing.closing import ABNORMAL, HOW, NOT_MADE_SAFE, NOT_SAFE_TO_RUN, PUT_BACK, TOLD, TOUCHED
from havrin_core.standing.model import Assessment
from havrin_core.tape.entries import MADE_SAFE, NOT_TOUCHED, RUNNING, WAITING, Said
from havrin_core.vocabulary.measurands import measurand
from havrin_core.wording.language import listed, lower_first, text
from havrin_core.wording.ledger import make_good, still_open, to_put_back
from havrin_core.wording.names import part_inside, quantity_name, title, verb_name, way_left
from havrin_core.wording.phrases import words

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
# What the state is, for the customer: by how the unit was left, then by level.
_CUSTOMER_LEFT: Mapping[str, str] = {
    MADE_SAFE: "The unit is off and was made safe: it cannot fire. Please do not have it started before what follows is put right.",
    WAITING: "The unit is off. It was left off until what it waits for is here; please do not switch it on.",
    NOT_TOUCHED: "Nothing was done on the unit on this visit: how it is was not judged.",
}
_CUSTOMER: Mapping[int, str] = {
    1: "Everything that this visit has to show was shown and lies within its limits. The unit runs.",
    2: "The unit works safely now. Something is worn, near its limit or against good practice: please read what follows.",
    3: "What is known at this point is not enough to leave the unit running.",
    4: "The unit is not safe and may not run before the cause is put right.",
}
# The first thing that whoever stands before the unit has to know.
_TAG: Mapping[str, str] = {
    RUNNING: "In use. It was left running.",
    MADE_SAFE: "OFF. Made safe: do not open the gas, do not switch it on.",
    WAITING: "OFF. Do not switch it on before what it waits for is here.",
    NOT_TOUCHED: "Not judged on this visit. A tag that hangs here from before still counts.",
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
    return [said for code in found.holds for said in hold_words(code, found)]


def signature_words(found: Assessment) -> list[str]:
    """Return what holds the visit open and is no line of a step already: how it is left, who is told."""
    return [said for code in found.holds if code not in (ABNORMAL, PUT_BACK) for said in hold_words(code, found)]


def customer_state(found: Assessment, level: int) -> str:
    """Return what state the unit is in for its owner: what is so, never an order meant for a technician."""
    if found.leaving is None or found.leaving not in _CUSTOMER_LEFT:
        return text(_CUSTOMER[level])
    said = text(_CUSTOMER_LEFT[found.leaving])
    if found.leaving != WAITING or not found.waiting_for:
        return said
    return text("{state} It waits for: {what}.", state=said, what=found.waiting_for)


def scheme_words(found: Assessment, level: int, rules: HouseRules) -> str:
    """Return what the house's own scheme calls the standing; "" where it says no more than its title, or nothing was judged."""
    if found.leaving == NOT_TOUCHED or rules.scheme == PLAIN_SCHEME:
        return ""
    return words(rules.words_for(level))


def left_words(body: Said) -> str:
    """Return how a unit was left, for its owner, with what was said of it."""
    said = way_left(body.state)
    return text("{way}: {said}", way=said, said=body.text) if body.text else said


def tag_state(found: Assessment) -> str:
    """Return what the tag says first; "" while nobody said how the unit is left."""
    return text(_TAG.get(found.leaving or "", ""))


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
