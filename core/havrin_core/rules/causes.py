"""Causes: which danger one explains, whether it can, and whether what it names was put right."""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from functools import cache
from importlib import resources

from havrin_core.rules.context import Context
from havrin_core.tape.clock import Moment
from havrin_core.tape.corrections import Line
from havrin_core.tape.entries import FOUND, Said
from havrin_core.vocabulary.catalogue import GOOD, can_cure, cured_with, verdict_of

CALL = "call"  # what the visit was called for
EVERY = "every"  # said of all that is open


@dataclass(frozen=True, slots=True)
class CauseFound:
    """``met``: when the cause was both named and cured; None while either lacks. ``uncured``: the part that it names."""

    met: Moment | None
    uncured: str = ""


@cache
def _table() -> Mapping[str, frozenset[str]]:
    text = (resources.files("havrin_core.rules") / "data" / "causes.toml").read_text(encoding="utf-8")
    return {name: frozenset(parts) for name, parts in tomllib.loads(text).items()}


def can_bring_about(part: str, family: str) -> bool:
    """Tell whether something wrong with ``part`` can bring about a danger of ``family``."""
    rows = _table()
    return bool(part) and part not in rows["never"] and ("*" in rows[family] or part in rows[family])


def cause_of(context: Context, code: str, family: str, since: Moment | None) -> CauseFound:
    """Return what the tape says of the cause of the danger ``code`` that last occurred at ``since``."""
    uncured = ""
    for line, body in context.facts.said("cause"):
        if not _after(line.moment, since) or not explains(body, code, family):
            continue
        cured = _cured(context, body, since)
        if cured is _NO_PART_OF_IT:
            return CauseFound(line.moment)
        if cured is not None:
            return CauseFound(_later(line.moment, cured))
        uncured = body.part
    return CauseFound(None, uncured)


def explains(body: Said, code: str, family: str) -> bool:
    """Tell whether a cause speaks of the danger ``code`` and can bring it about."""
    return body.state == FOUND and body.explains in ("", code, EVERY) and can_bring_about(body.part, family)


_NO_PART_OF_IT = Moment(datetime.min.replace(tzinfo=UTC), 0, "", False)


def _after(moment: Moment, since: Moment | None) -> bool:
    return since is None or moment.surely_after(since)


def _cured(context: Context, body: Said, since: Moment | None) -> Moment | None:
    """Return when what the cause names was put right; _NO_PART_OF_IT where it lies outside the unit.

    A part that the unit does not have asks for its cure all the same: a changed kind of unit frees nobody of it.
    """
    if body.part in _table()["outside"]:
        return _NO_PART_OF_IT
    parts = cured_with(body.part)
    facts = context.facts
    done = [
        line.moment
        for line, b in facts.real_actions()
        if b.part in parts and (can_cure(b.verb, body.condition) if body.condition else _cures_anything(b.verb))
    ]
    good = [
        line.moment
        for line, b in facts.conditions()
        if line.phase != "trial" and b.part == body.part and not b.absent and verdict_of(b.part, b.condition) == GOOD
    ]
    back = [out.moment for out, b, _ in facts.made_good() if b.device in parts]
    for moments in (done, good, back):
        found = [moment for moment in moments if _after(moment, since)]
        if found:
            return found[0]
    return None


def _cures_anything(verb: str) -> bool:
    return any(
        can_cure(verb, condition) for condition in ("not_ok", "dirty", "mis_set", "loose", "empty", "tripped", "off")
    )


def _later(one: Moment, other: Moment) -> Moment:
    return other if (other.at, other.order) > (one.at, one.order) else one


def causes_said(context: Context) -> list[tuple[Line, Said]]:
    """Return every cause that was said on this visit."""
    return context.facts.own_said("cause")
