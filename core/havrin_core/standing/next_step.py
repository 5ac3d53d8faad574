"""The next step: get out, then the lift of the worst reason, or the cheapest thing still to show."""

from collections.abc import Mapping, Sequence

from havrin_core.facts.facts import Still
from havrin_core.facts.passed_over import LATER, show_key
from havrin_core.rules.model import NOT_YET, SHUT_DOWN, Missing, Reason
from havrin_core.search.model import Outlook
from havrin_core.standing.model import Assessment, NextStep

# Here nobody touches a switch or goes on working: everybody out first, and the call is made from outside.
_GET_OUT = ("room_co.out", "gas_in_the_air", "people.symptoms", "co_alarm.alarm_sounded")
_SMELLS_OF_GAS = ".smells_of_gas"
NOTHING_PASSED: Mapping[str, str] = {}
_OWN_WORDS = ("advise", "refuse")
_AFTER_THE_REST = ("full_cycle", "cycles_after_reset")


def is_get_out(reason: Reason) -> bool:
    """Tell whether a reason asks for everybody to leave before anything else."""
    return reason.code in _GET_OUT or reason.code.endswith(_SMELLS_OF_GAS)


def next_step(
    reasons: Sequence[Reason],
    missing: Sequence[Missing],
    still: Sequence[Still],
    owner_notice_due: bool,
    passed: Mapping[str, str] = NOTHING_PASSED,
) -> NextStep | None:
    """Return what to do next, or None when nothing is left to offer.

    ``passed`` are steps that were passed over, with why: they are not offered, and what they would show still holds.
    """
    tag = next((reason for reason in reasons if reason.code == "shut_down"), None)
    dangers = [reason for reason in reasons if reason.level == SHUT_DOWN and reason is not tag]
    away = [reason for reason in dangers if is_get_out(reason)]
    if away and tag is None:
        return NextStep("get_out", 1, away[0].station, reason=away[0])
    if owner_notice_due and tag is not None:
        return NextStep("tell", 2, reason=tag)
    if dangers:
        kind = "cure" if tag is not None else "shut_down"
        return NextStep(kind, 5, dangers[0].station, reason=dangers[0])
    wrong = [r for r in reasons if r.level == NOT_YET and not _is_put_in(r)]
    if wrong:
        return NextStep("cure", 5, wrong[0].station, reason=wrong[0])
    offered = [item for item in missing if passed.get(key_of(item), LATER) == LATER]
    if offered:
        item = min(offered, key=lambda item: (key_of(item) in passed, *_urgency(item)))
        return NextStep("show", item.minutes, item.station, missing=item)
    if still:
        return NextStep("put_back", 1, still[0].device, still=still[0])
    if tag is not None:
        return NextStep("untag", 1, reason=tag)
    worn = [r for r in reasons if r.level < NOT_YET and r.lifts and r.code not in _OWN_WORDS]
    return NextStep("worn", 5, worn[0].station, reason=worn[0]) if worn else None


def key_of(item: Missing) -> str:
    """Return the key of the step that shows ``item``."""
    return show_key(item.proof, item.stage or item.device)


def _is_put_in(reason: Reason) -> bool:
    """What a technician put in himself for a test comes out at the end of it."""
    return reason.code in ("call_unproved", "disabled") or reason.code.endswith("_in")


def _urgency(item: Missing) -> tuple[bool, bool, bool, int]:
    # Room CO before anything; a full cycle last, for it proves the rest; quick looks before long ones.
    return (item.proof != "room_co", item.proof in _AFTER_THE_REST, item.because is None, item.minutes)


def next_step_of(found: Assessment, sought: Outlook | None) -> NextStep | None:
    """Return the one next step: dangers and room CO first, then the search, then what is still to show."""
    step = found.next_step
    room = step is not None and step.missing is not None and step.missing.proof == "room_co"
    shut = any(reason.level == SHUT_DOWN for reason in found.reasons)
    if sought is None or room or shut:
        return step
    if sought.next_test is None:
        return NextStep("search_ends", 2, sought=sought) if sought.clear or step is None else step
    return NextStep("test", round(sought.next_test.test.minutes), sought=sought)
