"""How a unit is left, and what holds a visit open: the one list of it."""

from collections.abc import Sequence
from datetime import datetime

from havrin_core.facts.facts import Facts
from havrin_core.rules.context import Context
from havrin_core.rules.model import NOT_YET, SHUT_DOWN, Reason
from havrin_core.standing.model import Assessment
from havrin_core.tape.entries import MADE_SAFE, NOT_TOUCHED, RUNNING, WAITING, Action
from havrin_core.vocabulary.catalogue import part

# What may stay out of its place on a unit that is off on purpose: it cannot fire that way.
_MAY_STAY_OFF = ("lifted", "removed")
ABNORMAL, PUT_BACK, NOT_SAFE_TO_RUN, HOW, TOLD, NOT_MADE_SAFE, TOUCHED = (
    "abnormal",
    "put_back",
    "not_safe_to_run",
    "how_left",
    "told",
    "not_made_safe",
    "touched",
)

# which step of proving and leaving each of them waits at
STEPS = ("put_back", "shown", "cycles", "standing", "told", "after")
_WAITS_AT = {
    ABNORMAL: ("put_back",),
    PUT_BACK: ("put_back",),
    NOT_SAFE_TO_RUN: ("shown", "standing"),
    NOT_MADE_SAFE: ("standing", "told"),
    TOLD: ("told",),
    HOW: ("told",),
    TOUCHED: ("standing",),
}
# what must be said of a unit that is shut down: kinds of lines, in the order in which they are asked for
SHUT_DOWN_SAYS = ("leaves", "told", "vulnerable", "tempheat")


def held_steps(found: Assessment) -> frozenset[str]:
    """Return the steps (of STEPS) at which something holds the visit open."""
    held = {step for code in found.holds for step in _WAITS_AT[code]}
    if found.level < SHUT_DOWN and HOW in found.holds:
        held.discard("told")  # how it is left is chosen with the signature
    if not found.missing:
        held.discard("shown")
    return frozenset(held)


def leaves_without_heat(found: Assessment) -> bool:
    """Tell whether the unit stays off, so that the time without heat has to be planned."""
    return found.level == SHUT_DOWN


def not_said_yet(facts: Facts, found: Assessment) -> tuple[str, ...]:
    """Return which of SHUT_DOWN_SAYS are still to be said of this unit; none while it is not at level 4."""
    return tuple(kind for kind in SHUT_DOWN_SAYS if found.level == SHUT_DOWN and not facts.said(kind))


def leaving_of(context: Context, leave: str | None) -> tuple[str | None, str]:
    """Return how the unit is left and what it waits for: as chosen, else as was said last; None while nobody said."""
    said = context.facts.own_said("leaves", "untag")
    waiting = [body.text for _, body in said if body.state == WAITING]
    if leave is not None:
        return leave, waiting[-1] if waiting else ""
    if not said or said[-1][1].what == "untag":
        return None, ""
    return said[-1][1].state, waiting[-1] if waiting else ""


def nobody_told(context: Context) -> bool:
    """Tell whether this visit shut the unit down and nobody was told yet, in a line of its own or in the same words."""
    shut = [body for _, body in context.facts.own_said("leaves") if body.state == MADE_SAFE]
    return bool(shut) and not _told(context) and not any(body.told for body in shut)


def _told(context: Context) -> bool:
    return bool(context.facts.own_said("told", "refuse")) or any(b.told for _, b in context.facts.own_said("leaves"))


def put_backs_of(context: Context) -> tuple[str, ...]:
    """Return what actions of this visit took off and nobody said was put back."""
    open_: dict[str, str] = {}
    for line, body in context.facts.actions():
        leaves = part(body.part).leaves.get(body.verb, "") if body.part else ""
        if leaves and not _is_put_back(context, line.moment.at, body):
            open_[f"{body.verb} {body.part}"] = leaves
    return tuple(dict.fromkeys(open_.values()))


def _is_put_back(context: Context, since: datetime, body: Action) -> bool:
    said = any(line.moment.at >= since for line, _ in context.facts.proofs("put_back"))
    refit = any(
        line.moment.at > since and b.part == body.part and b.verb in ("refit", "close", "tighten")
        for line, b in context.facts.actions()
    )
    return said or refit


def holds_of(context: Context, level: int, reasons: Sequence[Reason], leaving: str | None) -> tuple[str, ...]:
    """Return the codes of what holds the visit open when the unit is left so; while nobody said how, as if it ran."""
    if leaving == NOT_TOUCHED:
        return tuple(_when_not_touched(context, reasons))
    holds = []
    if _abnormal_holds(context, leaving):
        holds.append(ABNORMAL)
    if put_backs_of(context) and leaving in (RUNNING, None):
        holds.append(PUT_BACK)
    if leaving is None and level >= NOT_YET:
        holds.append(HOW)
    if leaving == RUNNING and level >= NOT_YET:
        holds.append(NOT_SAFE_TO_RUN)
    if leaving == WAITING and level >= SHUT_DOWN:
        holds.append(NOT_MADE_SAFE)
    if leaving == MADE_SAFE and not _told(context):
        holds.append(TOLD)
    return tuple(holds)


def _abnormal_holds(context: Context, leaving: str | None) -> bool:
    """What keeps the unit from firing may stay on one that is off; what somebody else left on one made safe stays, too."""
    for still in context.facts.still_abnormal():
        off = leaving in (MADE_SAFE, WAITING)
        stays = off and (still.how in _MAY_STAY_OFF or still.on_purpose or (leaving == MADE_SAFE and still.found))
        if not stays:
            return True
    return False


def _when_not_touched(context: Context, reasons: Sequence[Reason]) -> list[str]:
    """A unit that something was done to was touched; a danger that was seen from the door must be told."""
    own = [line for line, body in context.facts.actions() if line.entry.id not in context.facts.before]
    opened_here = [r for r in reasons if r.level >= SHUT_DOWN and not set(r.entry_ids) <= context.facts.before]
    holds = [TOUCHED] if own else []
    return [*holds, TOLD] if opened_here and not _told(context) else holds
