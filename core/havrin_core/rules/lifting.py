"""When a finding is lifted: repaired, shown good again, and proved by what its own reason names. Nothing else lifts it."""

from collections.abc import Callable, Mapping
from datetime import datetime

from havrin_core.limits.limits import GAS_LEAK_MOST_M3_S, ROOM_CO_SOURCE_PPM
from havrin_core.rules.proofs import Case, cause_named, cycles_since
from havrin_core.tape.entries import Entry
from havrin_core.vocabulary.findings import FINDINGS, Finding, unseen_share
from havrin_core.vocabulary.methods import CLOSE

LIGHT_OFFS = 3  # to watch after one that banged

Proved = Callable[[Case, datetime], bool]


def lifted(case: Case, what: Finding, entry: Entry) -> bool:
    """Tell whether ``what``, written by ``entry``, no longer counts."""
    since = entry.at
    repairs = [done for action in what.repaired_by if (done := case.facts.done_after(action, since))]
    clearing = {look.key for look in FINDINGS if what.key in look.clears}
    if not (what.repaired_by or clearing or what.proved_by):
        return False
    if what.repaired_by and not repairs:
        return False
    if clearing and not _seen_good(case, clearing, repairs[0].at if repairs else since, entry):
        return False
    return all(PROVED[name](case, since) for name in what.proved_by)


def _seen_good(case: Case, clearing: set[str], since: datetime, entry: Entry) -> bool:
    parts = case.unit.plate.exchanger_cells
    return any(
        look.finding in clearing and e.at >= since and e.id != entry.id and unseen_share(look.place, parts) is None
        for e, look in case.facts.looks()
    )


def seen_whole(case: Case, since: datetime) -> bool:
    """Tell whether every part of the exchanger was seen without a breach, or it was changed, at or after ``since``."""
    parts = case.unit.plate.exchanger_cells
    looks = [look for e, look in case.facts.looks() if look.finding == "exchanger_whole" and e.at >= since]
    changed = case.facts.done_after("change_exchanger", since) is not None
    return changed or any(unseen_share(look.place, parts) is None for look in looks)


def _close_look(case: Case, since: datetime) -> bool:
    """Tell whether every part was seen by what finds a fine crack: what one saw as a line, an eye alone does not clear."""
    parts = case.unit.plate.exchanger_cells
    looks = [look for e, look in case.facts.looks() if look.finding == "exchanger_whole" and e.at >= since]
    return any(look.method in CLOSE and unseen_share(look.place, parts) is None for look in looks)


def _leak_check(case: Case, since: datetime) -> bool:
    checks = case.facts.checks("leak", since)
    return bool(checks) and checks[-1][1].passed


def _holds(case: Case, since: datetime) -> bool:
    tested = case.facts.newest("gas_leak_m3_s", None, since)
    return _leak_check(case, since) or (tested is not None and abs(tested.value) <= GAS_LEAK_MOST_M3_S)


def _room_co(case: Case, since: datetime) -> bool:
    read = case.facts.newest("room_co_ppm", None, since)
    return read is not None and read.value <= ROOM_CO_SOURCE_PPM


PROVED: Mapping[str, Proved] = {
    "cause": lambda case, since: cause_named(case.facts, since),
    "light_offs": lambda case, since: cycles_since(case, since) >= LIGHT_OFFS,
    "close_look": _close_look,
    "leak_check": _leak_check,
    "holds": _holds,
    "room_co": _room_co,
}
