"""Offered steps that were passed over, and why: what is not possible here, known already, or done later."""

from collections.abc import Mapping

from havrin_core.facts.facts import Facts
from havrin_core.tape.entries import PASSED_OVER

NOT_POSSIBLE, KNOWN, LATER = "not_possible", "known", "later"
WHYS: Mapping[str, str] = {"not possible": NOT_POSSIBLE, "known": KNOWN, "later": LATER}  # words of the line -> why
SHOW = "show"  # begins the key of a step that shows a proof: show:PROOF or show:PROOF:STAGE-OR-DEVICE


def show_key(proof: str, which: str = "") -> str:
    """Return the key of the step that shows ``proof``, of one stage or device where there are several."""
    return ":".join(filter(None, (SHOW, proof, which)))


def skip_line(key: str, why: str) -> str:
    """Return the line that passes the step ``key`` over; ``why`` is one of the words of WHYS."""
    return f"skip {key.replace(':', ' ')} {why}"


def passed_over(facts: Facts) -> Mapping[str, str]:
    """Return the steps that were passed over on this visit, each with the last reason given."""
    rows = [(line, body) for line, body in facts.proofs(PASSED_OVER) if line.entry.id not in facts.before]
    return {body.device: body.outcome for _, body in rows}
