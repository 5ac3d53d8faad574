"""One clause without a verb of the bar in front: ``rod dirty``, ``crack cell 3 by borescope``, ``new igniter``, ``limit jumpered``.

The rules in their order: what was bypassed, what is only advised or planned, what was done, how something is. Each either
reads the whole clause, or says nothing; what nothing uses is returned as unread, never dropped.
"""

import re
from dataclasses import replace

from havrin_core.shorthand.actions import is_past, read_action, read_intent, read_not_done
from havrin_core.shorthand.bypasses import read_bypass
from havrin_core.shorthand.findings import read_finding
from havrin_core.shorthand.model import Situation
from havrin_core.shorthand.words_of_clause import LIKE, PART, PHRASE, VERB, Clause, Read, clause_of
from havrin_core.tape.entries import Action, Body, Condition

__all__ = ["Read", "read_clause"]

_CIRCUMSTANCE = re.compile(
    r"(?P<main>.+?) (?P<under>(?:with|while|when) (?:the )?(?:blower|fan|pump|circulator|inducer)(?: is| was)? "
    r"(?:off|unplugged|disconnected|running|stopped|not running))",
    re.IGNORECASE,
)


def read_clause(text: str, situation: Situation, spoken_of: str = "", *, done: bool = False) -> Read:
    """Return what one clause says. ``done``: it stood behind "did", so it is an action or nothing."""
    main, under = _circumstance(text)
    if under:
        plain = read_clause(main, situation, spoken_of, done=done)
        return replace(plain, bodies=tuple(_under(body, under) for body in plain.bodies))
    clause = clause_of(text, situation)
    if not clause.tokens:
        return Read()
    read = (
        read_bypass(clause, spoken_of)
        or read_intent(clause)
        or read_not_done(clause)
        or read_action(clause, spoken_of, done=done)
        or _found_and_done(clause, spoken_of)
    )
    if read is not None:
        return read
    return Read(unread=clause.words) if done else read_finding(clause, spoken_of)


def _found_and_done(clause: Clause, spoken_of: str) -> Read | None:
    """Return "rod dirty cleaned" as what was found and what was done about it; None for any other clause."""
    verbs = [
        span
        for span in clause.having(VERB)
        if not span.of(LIKE) and not span.is_("how_behind") and is_past(clause, span)
    ]
    if not verbs or not clause.having(LIKE, PHRASE) or verbs[0] is clause.first():
        return None
    rest = [span for span in clause.spans if span.start > verbs[0].start]
    if any(span.of(LIKE) or span.of(PART) for span in rest):
        return None
    at = verbs[0].start
    found = read_finding(clause_of(" ".join(clause.words[:at]), clause.situation), spoken_of)
    done = read_action(clause_of(" ".join(clause.words[at:]), clause.situation), found.part, done=False)
    if done is None or not found.bodies or not done.bodies:
        return None
    return Read((*found.bodies, *done.bodies), (*found.unread, *done.unread), part=found.part)


def _circumstance(text: str) -> tuple[str, str]:
    """Return a clause, and the circumstance that it ends with: "limit trips | with blower off" speaks of the limit alone."""
    match = _CIRCUMSTANCE.fullmatch(text)
    return (match["main"], match["under"]) if match else (text, "")


def _under(body: Body, under: str) -> Body:
    """Return a finding with its circumstance kept word for word."""
    if isinstance(body, Condition):
        return replace(body, place=f"{body.place} {under}".strip())
    return replace(body, detail=f"{body.detail} {under}".strip()) if isinstance(body, Action) else body
