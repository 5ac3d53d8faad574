"""Safety devices and what is left abnormal: bypassed, failing, reset, disabled."""

from collections.abc import Iterator

from havrin_core.facts.facts import Still
from havrin_core.limits.model import DEFAULT, HOUSE
from havrin_core.rules.causes import cause_of
from havrin_core.rules.context import NEVER_BRIDGED, Context
from havrin_core.rules.demands import (
    Opened,
    cycles_after,
    demand,
    device_proved,
    open_demands,
)
from havrin_core.rules.findings import trip_family
from havrin_core.rules.model import NOT_YET, SHUT_DOWN, Lift, Reason, Sample
from havrin_core.tape.clock import Moment
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import Abnormal, Condition, Proof
from havrin_core.vocabulary.abnormal import abnormal

_FAILS = tuple(demand(one) for one in ("cure:change+repair+clean+adjust+align", "proved"))
_HELD = ("held", "bridged")


def device_reasons(context: Context) -> Iterator[Reason]:
    """Yield the reasons of what is abnormal, of what was made good but not proved, of devices that failed or were reset."""
    for still in context.facts.still_abnormal():
        yield _abnormal(context, still)
    yield from _made_good_unproved(context)
    yield from _failing(context)
    yield from _reset(context)


def _station(context: Context, device: str) -> str:
    return context.station_for(device, context.station_for("call"))


def _abnormal(context: Context, still: Still) -> Reason:
    way = abnormal(still.how)
    facts = {"how": still.how, "device": still.device, "found": still.found}
    lifts: tuple[Lift, ...] = (Lift("out", device=still.device, part=still.how),)
    station = _station(context, still.device)
    if still.on_purpose:
        return Reason(NOT_YET, "disabled", station, facts, lifts, HOUSE, (still.entry_id,))
    safety = way.bypasses and context.is_safety(still.device)
    if safety:
        lifts = (*lifts, Lift("proved", device=still.device))
    if still.found and safety:
        return Reason(SHUT_DOWN, "bypass_found", station, facts, lifts, DEFAULT, (still.entry_id,), "why_bypassed")
    forbidden = way.bypasses and still.device in NEVER_BRIDGED
    advice = "never_bridged" if forbidden else ""
    return Reason(NOT_YET, f"{still.how}_in", station, facts, lifts, HOUSE, (still.entry_id,), advice)


def _made_good_unproved(context: Context) -> Iterator[Reason]:
    """What was bypassed is good again once its device was shown to act; a jumper at the call, once the unit ran by itself."""
    seen: set[str] = set()
    for out, body, put_in in reversed(context.facts.made_good()):
        if not abnormal(body.how).bypasses or body.device in seen:
            continue
        seen.add(body.device)
        found = isinstance(put_in.body, Abnormal) and put_in.body.found
        if context.is_safety(body.device):
            if device_proved(context.facts, body.device, out.moment) is None:
                yield _unproved(context, body.device, out, put_in, found)
        elif body.how == "bridged" and cycles_after(context.facts, out.moment) < 1:
            facts = {"device": body.device}
            ids = (out.entry.id,)
            yield Reason(
                NOT_YET, "call_unproved", _station(context, body.device), facts, (Lift("cycles", number=1),), HOUSE, ids
            )


def _unproved(context: Context, device: str, out: Line, put_in: Line, found: bool) -> Reason:
    """A bypass that somebody left is made good only once its device was shown to act; one's own was logged and is short."""
    facts = {"device": device, "found": found}
    ids = (put_in.entry.id, out.entry.id)
    level = SHUT_DOWN if found else NOT_YET
    return Reason(
        level, "device_unproved", _station(context, device), facts, (Lift("proved", device=device),), HOUSE, ids
    )


def _failing(context: Context) -> Iterator[Reason]:
    """A device that did not act is good only once it was changed or repaired, and shown to act after that."""
    failed: dict[str, list[Line]] = {}
    for line, body in context.facts.of(Proof):
        if body.what == "device" and not body.passed:
            failed.setdefault(body.device, []).append(line)
    for device, lines in failed.items():
        since = max((_known(line) for line in lines), key=lambda m: (m.at, m.order))
        lifts = open_demands(context, Opened("device_fails", "any", since, device, "does_not_act", device), _FAILS)
        if lifts:
            ids = tuple(line.entry.id for line in lines)
            yield Reason(SHUT_DOWN, "device_fails", _station(context, device), {"device": device}, lifts, DEFAULT, ids)


def _known(line: Line) -> Moment:
    was = line.was
    return line.moment if was is None or (isinstance(was, Proof) and not was.passed) else line.known


def _reset(context: Context) -> Iterator[Reason]:
    """A safety device that was reset asks why it tripped, and for cycles after the cure. A power cycle asks for nothing."""
    resets: dict[str, list[Line]] = {}
    for line, body in context.facts.actions("reset"):
        if body.part == "" or context.is_safety(body.part):
            resets.setdefault(body.part, []).append(line)
    for device, lines in resets.items():
        lacking = _reset_lacks(context, device, lines)
        if lacking:
            ids = tuple(line.entry.id for line in lines)
            yield Reason(
                NOT_YET, "reset_unexplained", _station(context, device), {"device": device}, lacking, HOUSE, ids
            )


def _reset_lacks(context: Context, device: str, resets: list[Line]) -> tuple[Lift, ...]:
    """The cause is looked for before the reset: one since the trip counts, with its cure; cycles only after the reset."""
    tripped = _tripped_since(context, device)
    found = cause_of(context, f"{device}.tripped", trip_family(device), tripped)
    lacking: list[Lift] = []
    if found.met is None:
        lacking.append(
            Lift("cure", found.uncured, device="repair")
            if found.uncured
            else Lift("cause", explains=f"{device or 'limit'}.tripped")
        )
    after = resets[-1].moment
    if found.met is not None and found.met.surely_after(after):
        after = found.met
    needed = context.rules.reset_cycles
    if cycles_after(context.facts, after) < needed:
        lacking.append(Lift("cycles", number=needed))
    return tuple(lacking)


def _tripped_since(context: Context, device: str) -> Moment | None:
    rows = [
        line.moment
        for line, body in context.facts.of(Condition)
        if body.condition in ("tripped", "open") and not body.absent and device in ("", body.part)
    ]
    return rows[-1] if rows else None


SAMPLES = (
    Sample(
        "bypass_found",
        opens=("found jumper limit", "found taped limit"),
        not_opens=("unjump limit", "limit ok"),
        lifted=("found jumper limit | unjump limit | proved limit",),
        not_lifted=("found jumper limit | proved limit",),
        needs=("limit",),
    ),
    Sample(
        "device_unproved",
        opens=("found jumper limit | unjump limit", "proved limit | found jumper limit | unjump limit"),
        not_opens=("proved limit",),
        lifted=("found jumper limit | unjump limit | proved limit",),
        needs=("limit",),
    ),
    Sample(
        "device_fails",
        opens=("fails limit",),
        not_opens=("proved limit",),
        lifted=("fails limit | did change limit | proved limit",),
        not_lifted=(
            "fails limit | proved limit",
            "fails limit | did change limit",
            "did change limit | fails limit | proved limit",
        ),
        needs=("limit",),
    ),
    Sample(
        "reset_unexplained",
        opens=("did reset limit",),
        not_opens=("power off and on",),
        lifted=(
            "did reset limit | cause dirty filter | did change filter | cycles 12",
            "cause dirty filter | did change filter | did reset limit | cycles 12",
        ),
        not_lifted=(
            "did reset limit | cycles 12",
            "cause dirty filter | did change filter | cycles 12 | did reset limit",
            "did reset limit | cause ? | cycles 12",
        ),
        needs=("limit", "filter"),
    ),
)
